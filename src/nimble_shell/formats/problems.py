"""Refusals as problem details (RFC 9457): one shape for the API, the command line and files."""

from __future__ import annotations

from collections.abc import Sequence
from typing import Any

from pydantic import BaseModel, ConfigDict, ValidationError

from nimble_shell.core.errors import DomainError, Path
from nimble_shell.formats.reader import said


class ProblemError(BaseModel):
    """One thing that is wrong, and where."""

    pointer: str  #: JSON pointer into the request or file, "#/layers/2/lambda"
    code: str
    detail: str
    hint: str
    entity: str = ""  #: handle or id in a drawing or model of somebody else
    proposed: str = ""  #: a value that would do


class Problem(BaseModel):
    """Problem details after RFC 9457."""

    model_config = ConfigDict(json_schema_extra={"description": "Problem details after RFC 9457"})

    title: str
    status: int
    detail: str = ""
    hint: str = ""
    errors: list[ProblemError] = []


#: Pydantic's error types in our words: code, sentence, way out.
_WORDS = {
    "missing": ("missing", "is missing", "add it"),
    "extra_forbidden": ("unknown_key", "is not a key of this format", "remove it, or check its spelling"),
    "finite_number": ("not_finite", "is not a finite number", "enter a finite number"),
    "float_type": ("not_a_number", "is not a number", "enter a number"),
    "float_parsing": ("not_a_number", "is not a number", "enter a number"),
    "int_type": ("not_a_whole_number", "is not a whole number", "enter a whole number"),
    "string_too_long": ("too_long", "is too long", "shorten it"),
    "string_type": ("not_a_text", "is not a text", "write a text in quotes"),
    "list_type": ("not_a_list", "is not a list", "write a list in square brackets"),
    "json_invalid": ("not_json", "is not readable as JSON", "check the file near the place named"),
}


MOST = 50  #: errors that are listed; nobody reads more


def _first(errors: list[ProblemError]) -> list[ProblemError]:
    """So many that they can be read, and how many there are."""
    if len(errors) <= MOST:
        return errors
    said = f"and {len(errors) - MOST:,} more of {len(errors):,} in all"
    return [*errors[:MOST], ProblemError(pointer="#", code="and_more", detail=said, hint="mend these first")]


def pointer(path: Path) -> str:
    """A path as a JSON pointer fragment."""
    return "#" + "".join("/" + str(step).replace("~", "~0").replace("/", "~1") for step in path)


def from_domain(error: DomainError, title: str = "The input cannot be calculated") -> Problem:
    """A physical refusal."""
    errors = [
        ProblemError(
            pointer=pointer(i.path),
            code=i.code,
            detail=said(i.message),
            hint=said(i.hint),
            entity=i.entity,
            proposed=i.proposed,
        )
        for i in error.issues
    ]
    return Problem(title=title, status=422, errors=_first(errors))


def from_validation(errors: Sequence[Any], title: str = "The input cannot be read") -> Problem:
    """Refusals by shape, from Pydantic or FastAPI, in our words."""
    listed: list[ProblemError] = []
    for error in errors:
        path = tuple(step for step in error["loc"] if step not in ("body",) and not _is_branch(step))
        code, what, hint = _WORDS.get(error["type"], (error["type"], f": {error['msg']}", "correct the value"))
        listed.append(
            ProblemError(
                pointer=pointer(path),
                code=code,
                detail=f"{_place(path)} {what}".replace(" :", ":"),
                hint=hint,
            )
        )
    return Problem(title=title, status=422, errors=_first(listed))


def of(error: ValidationError | DomainError) -> Problem:
    """Either kind of refusal."""
    if isinstance(error, DomainError):
        return from_domain(error)
    return from_validation(error.errors(include_url=False, include_context=False))


def _is_branch(step: str | int) -> bool:
    """Union branches that Pydantic adds to a location are no part of the user's file."""
    return isinstance(step, str) and step.startswith(("function-", "tagged-", "lax-", "nullable"))


def _place(path: Path) -> str:
    return f"“{path[-1]}”" if path else "the input"

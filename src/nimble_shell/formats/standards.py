"""Practice standards as JSON, of build-ups and of joints: also the snapshots in the database."""

from __future__ import annotations

from typing import Any, Literal

from nimble_shell.core.errors import DomainError, Issue
from nimble_shell.core.shell.standard import JointStandard, Standard
from nimble_shell.formats.document import Document, Identifier

FORMAT: Literal["nimble-shell-standards"] = "nimble-shell-standards"


class StandardDoc(Document, core=Standard):
    """One version of a practice standard."""

    id: Identifier


class JointStandardDoc(Document, core=JointStandard):
    """One version of a practice standard of a joint."""

    id: Identifier


def write_standards(standards: list[Standard], joints: list[JointStandard]) -> dict[str, Any]:
    """The content of a file of standards."""
    return {
        "format": FORMAT,
        "version": 1,
        "standards": [StandardDoc.from_core(one).to_wire() for one in standards],
        "joints": [JointStandardDoc.from_core(one).to_wire() for one in joints],
    }


def read_standards(content: Any) -> tuple[list[Standard], list[JointStandard]]:
    """Standards of a file: of build-ups, and of joints.

    Raises
    ------
    DomainError
        If it is no such file, or holds something impossible; with the place.
    ValidationError
        If a value has the wrong shape.
    """
    if not isinstance(content, dict) or content.get("format") != FORMAT or content.get("version") != 1:
        message = "this is not a file of Nimble Shell standards, version 1"
        hint = f'such a file begins with "format": "{FORMAT}", "version": 1'
        raise DomainError(Issue(path=("format",), code="not_a_standards_file", message=message, hint=hint))
    return _listed(content, "standards", StandardDoc), _listed({"joints": [], **content}, "joints", JointStandardDoc)


def _listed(content: dict[str, Any], key: str, document: type[Document]) -> list[Any]:
    listed = content.get(key)
    if not isinstance(listed, list):
        raise DomainError(Issue(path=(key,), code="not_a_list", message=f"“{key}” is not a list",
                                hint="write a list in square brackets"))  # fmt: skip
    found = []
    for index, one in enumerate(listed):
        try:
            found.append(document.model_validate(one).to_core())
        except DomainError as error:
            raise error.under(key, index) from error
    return found

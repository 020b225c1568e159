"""Practice standards as JSON: also the snapshots in the database."""

from __future__ import annotations

from typing import Any, Literal

from nimble_shell.core.errors import DomainError, Issue
from nimble_shell.core.shell.project import Place
from nimble_shell.core.shell.standard import Standard
from nimble_shell.formats.document import Document
from nimble_shell.formats.project import AssemblyDoc, Identifier, MaterialDoc, Text

FORMAT: Literal["nimble-shell-standards"] = "nimble-shell-standards"


class StandardDoc(Document):
    """One version of a practice standard."""

    core = Standard
    id: Identifier
    version: int
    place: Place
    assembly: AssemblyDoc
    materials: list[MaterialDoc] = []
    reason: Text = ""
    source: Text = ""
    trusted_since: Text = ""


def write_standards(standards: list[Standard]) -> dict[str, Any]:
    """The content of a file of standards."""
    return {"format": FORMAT, "version": 1, "standards": [StandardDoc.from_core(one).to_wire() for one in standards]}


def read_standards(content: Any) -> list[Standard]:
    """Standards of a file.

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
    listed = content.get("standards")
    if not isinstance(listed, list):
        raise DomainError(Issue(path=("standards",), code="not_a_list", message="“standards” is not a list",
                                hint="write a list in square brackets"))  # fmt: skip
    found: list[Standard] = []
    for index, one in enumerate(listed):
        try:
            found.append(StandardDoc.model_validate(one).to_core())
        except DomainError as error:
            raise error.under("standards", index) from error
    return found

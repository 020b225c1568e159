"""Practice standards as JSON, of build-ups and of joints: also the snapshots in the database."""

from __future__ import annotations

from collections.abc import Sequence
from typing import Any, Literal

from nimble_shell.core.errors import Collector, DomainError, Issue
from nimble_shell.core.shell.standard import JointStandard, Standard
from nimble_shell.formats.document import Document, Identifier

FORMAT: Literal["nimble-shell-standards"] = "nimble-shell-standards"


class StandardDoc(Document, core=Standard):
    """One version of a practice standard."""

    id: Identifier


class JointStandardDoc(Document, core=JointStandard):
    """One version of a practice standard of a joint."""

    id: Identifier


class StandardsFile(Document):
    """Standards of build-ups and of joints as one JSON file."""

    format: Literal["nimble-shell-standards"]
    version: Literal[1]
    standards: list[StandardDoc]
    joints: list[JointStandardDoc] = []


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
    file = StandardsFile.model_validate(content)
    return _listed("standards", file.standards), _listed("joints", file.joints)


def _listed(key: str, documents: Sequence[Document]) -> list[Any]:
    check, found = Collector(), []
    for index, one in enumerate(documents):
        try:
            found.append(one.to_core())
        except DomainError as error:
            check.add(error.under(key, index).issues)
    check.refuse()
    return found

"""Requests and responses of the fixings bench. SI throughout."""

from __future__ import annotations

from typing import Annotated

from pydantic import Field

from nimble_shell.api.joint_schemas import Accuracy, DrawingOut, SolvedOut
from nimble_shell.api.schemas import ShortText, WorkingOut
from nimble_shell.api.study_schemas import AtIn
from nimble_shell.formats.document import Identifier, Model
from nimble_shell.formats.project import FixingDoc
from nimble_shell.formats.reader import Prose


class FixingKindOut(Model):
    key: str
    text: str
    note: str


class FixingKindsOut(Model):
    kinds: list[FixingKindOut]
    caution: str


class StartFixingIn(AtIn):
    kind: ShortText
    layer: Identifier
    fixing_id: Identifier


class FixingIn(AtIn):
    fixing_id: Identifier
    condition: ShortText = "winter"
    accuracy: Accuracy = "working"
    ticket: ShortText = ""


class FixingOut(Model):
    """One group: its cell solved, what it adds, and what is left of the build-up."""

    fixing: FixingDoc
    drawing: DrawingOut
    solved: SolvedOut
    method: str
    says: list[Prose]
    chi: float
    error: float
    chi_approximate: float
    approximate_counts: bool
    ratio: float
    per_area: float
    length: float
    delta_U: float
    U_field: float
    R_without: float
    R_with: float
    R_all: float
    area: float
    count: float
    H: float
    working: dict[str, WorkingOut]  #: of "chi", "chi_approximate" and "ratio"


class FixingSweepIn(AtIn):
    fixing_id: Identifier
    ticket: ShortText = ""
    values: Annotated[list[float], Field(min_length=1, max_length=41)] | None = (
        None  #: chosen here where none are given
    )


class FixingSweepPoint(Model):
    """At one spacing; null where it cannot be."""

    value: float  #: across
    along: float
    per_area: float | None
    chi: float | None
    delta_U: float | None
    delta_U_approximate: float | None
    why_not: Prose


class FixingSweepOut(Model):
    points: list[FixingSweepPoint]

"""Requests and responses of the joints bench. SI throughout."""

from __future__ import annotations

from typing import Annotated, Literal

from pydantic import Field

from nimble_shell.api.schemas import ParameterOut, ShortText, WorkingOut
from nimble_shell.core.joints.drawing import Dim, Mark, Reference
from nimble_shell.core.joints.families.family import Owned, Variant
from nimble_shell.core.joints.sealing.seals import SealingFinding
from nimble_shell.core.joints.sealing.walk import Stop
from nimble_shell.formats.document import Model
from nimble_shell.formats.project import JointDoc
from nimble_shell.formats.reader import Prose
from nimble_shell.services.solver_queue import Progress

Accuracy = Literal["working", "final"]


class OwnedOut(Model, core=Owned): ...


class VariantOut(Model, core=Variant):
    parameters: list[ParameterOut]


class FamilyOut(Model):
    key: str
    name: str
    station: str
    roles: list[str]
    point: bool
    variants: list[VariantOut]


class JointIn(Model):
    """A joint as drafted, in its own variant or another one."""

    joint: JointDoc
    building_id: ShortText = ""
    variant: ShortText = ""
    condition: ShortText = "winter"
    accuracy: Accuracy = "working"
    ticket: ShortText = ""


class ShapeOut(Model):
    """What is seen of a material in the view: rings, the inner ones holes."""

    rings: list[list[list[float]]]
    material: str
    hatch: str
    name: str
    part: str


class DimOut(Model, core=Dim):
    pass


class MarkOut(Model, core=Mark):
    kind: str


class DrawingOut(Model):
    shapes: list[ShapeOut]
    dims: list[DimOut]
    marks: list[MarkOut]
    view: list[float]
    plan: bool
    kind: str
    sides: list[str]
    assumptions: list[Prose]
    values: dict[str, float | str]


class FieldOut(Model):
    """Little-endian, base64: points in m and temperatures in °C as float32, triangles as uint32."""

    xy: str
    theta: str
    triangles: str


class ReferenceOut(Model, core=Reference):
    envs: list[str]


class FlowOut(Model):
    env: str
    a: list[float]
    b: list[float]
    flow: float | None


class SolvedOut(Model):
    coupling: dict[str, float]
    psi: dict[str, dict[str, float]]
    psi_out: dict[str, float]
    error: float
    f_error: float | None  #: of f_rsi, estimated
    certain: list[float] | None
    heat_flow: dict[str, float]
    balance: float
    f_rsi: float | None
    falls_short: bool
    coldest: float
    coldest_at: list[float]
    critical: float
    temperatures: dict[str, float]
    field: FieldOut
    trace: list[list[float]]
    lines: list[list[list[float]]]
    segments: list[FlowOut]
    references: list[ReferenceOut]
    working: dict[str, WorkingOut]  #: of "psi", "heat" and "f_rsi", in the dimension system of the Basis
    unknowns: int
    accuracy: Accuracy


class SealOut(Model):
    key: str
    kind: str
    text: Prose
    carries: list[str]
    needed: bool


class FindingOut(Model, core=SealingFinding):
    pass


class SealingOut(Model):
    """Seals in the order of work; leakage at 50 Pa in m³/(h·m), low and high."""

    steps: list[SealOut]
    omitted: list[str]
    lines: dict[str, str]
    grade: str
    leakage: list[float]
    falls: bool
    findings: list[FindingOut]
    sealants: list[str]
    tapes: list[str]


class JointOut(Model):
    drawing: DrawingOut
    solved: SolvedOut | None
    sealing: SealingOut


class DifferenceIn(Model):
    """A joint as drafted, with the variant it is compared with."""

    joint: JointDoc
    building_id: ShortText = ""
    condition: ShortText = "winter"
    ticket: ShortText = ""


class WarmerOut(Model):
    """How much warmer the other variant is, in its own triangles; extremes of it where it is drawn. [K]"""

    field: FieldOut
    low: float
    high: float


class StopOut(Model, core=Stop):
    lines: dict[str, Literal["continuous", "broken", "undecided"]]
    left_out: list[list[str]]


class WalkOut(Model):
    """Round the section of a building, from the ridge down."""

    stops: list[StopOut]
    breaks: int
    undecided: int


class SweepIn(Model):
    joint: JointDoc
    building_id: ShortText = ""
    condition: ShortText = "winter"
    key: ShortText
    ticket: ShortText = ""
    values: Annotated[list[float], Field(min_length=1, max_length=41)]


class ProgressOut(Model, core=Progress):
    """How far the questions of a ticket are: those not begun, and the grid that is being solved."""


class StoppedOut(Model):
    stopped: int


class SweepPoint(Model):
    value: float
    psi: float | None
    f_rsi: float | None
    why_not: Prose


class SweepOut(Model):
    points: list[SweepPoint]

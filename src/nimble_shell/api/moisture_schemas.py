"""What the moisture routes take and give. SI; relative humidities 0…1."""

from __future__ import annotations

from typing import Annotated, Literal

from pydantic import Field

from nimble_shell.api.schemas import ShortText, WorkingOut
from nimble_shell.api.study_schemas import AtIn
from nimble_shell.core.joints.joint import JointValue
from nimble_shell.core.moisture.hourly.life import Failing, Life
from nimble_shell.core.moisture.hourly.outdoors import Exposure
from nimble_shell.core.moisture.verdict.verdict import AdviceKind, Reason
from nimble_shell.core.shell.decisions import JudgedPart, RankedSurface
from nimble_shell.formats.document import Identifier, Model
from nimble_shell.formats.reader import Prose
from nimble_shell.services.moisture import SurfaceRanking
from nimble_shell.services.remedies import Remedy


class WetOut(Model):
    """A plane that is wet in some month; lists have one entry for each month, January first."""

    x: float
    inner: int
    outer: int
    limit: float
    reason: Prose
    peak: float
    g: list[float]
    M: list[float]


class MonthOut(Model):
    """One month of the Basis with its room, and what it asks of the surface."""

    theta_e: float
    phi_e: float
    theta_i: float
    phi_i: float
    required: float | None
    phi_fails: float | None
    outer_required: float | None  # of the outer surface, where heat flows inwards


class MoistureOut(Model):
    """A build-up through the year by month."""

    months: list[MonthOut]
    counted: int
    start: int | None
    wet: list[WetOut]
    peak: float
    left: float
    dries: bool
    verdict: Literal["dry", "dries", "too wet", "slowly", "gathers"]
    years: float
    f_rsi: float
    critical: int | None
    surface_passes: bool
    f_outer: float
    outer_passes: bool
    x: list[float]
    share: list[list[float]]  # vapour pressure over saturation at every plane, by month
    closest_month: int
    closest_plane: int


class SurfaceOut(Model, core=RankedSurface):
    asked: float | None
    margin: float | None


class SurfaceRankingOut(Model, core=SurfaceRanking):
    """Every surface of a building, the worst first."""


class PositionOut(Model):
    """Places of the control plane in one section; lists run from the inner to the outer face."""

    section: str
    layer: int | None
    x_now: float | None
    now: float | None
    x: list[float]
    share: list[float]
    thickness: list[float]
    theta: list[float]
    phi: list[float]
    month: int | None
    safe: float
    condenses: float
    x_safe: float


class PositionsOut(Model):
    """Every section of a build-up; `rule` is the practice's own largest share, if it has one."""

    sections: list[PositionOut]
    rule: float | None


class AdviceOut(Model):
    """The smallest change of one kind that turns the verdict, in words; where none does, the most that was tried."""

    kind: AdviceKind
    found: bool
    text: Prose


class VerdictOut(Model):
    passes: bool
    reason: Reason
    phi_fails: float | None
    phi_room: float
    margin: float | None


class ElementVerdictOut(VerdictOut):
    """With what turns it, and what the hours say, as far as they were run as meant: what fails, nothing, or none."""

    advice: list[AdviceOut]
    hours: Failing | None


class VerdictIn(AtIn):
    ticket: ShortText = ""


class JointSurfaceIn(Model):
    """A joint of a building as stored."""

    building_id: Identifier
    joint_id: Identifier
    ticket: ShortText = ""


class JointValueOut(Model, core=JointValue):
    pass


class RemedyOut(Model, core=Remedy):
    """The smallest change of one kind that keeps the surface, solved again; or that none of its kind does."""


class JointSurfaceOut(Model):
    """The inner surface of a joint through the year."""

    f_rsi: float
    required: float | None
    month: int | None
    least: float | None  # the stricter of its worst month and the Basis
    passes: bool
    remedies: list[RemedyOut]


class PlaceOut(Model, core=JudgedPart):
    """What is known of one element or joint; no verdict while it is judged, or where it cannot be."""

    verdict: VerdictOut | None


class PlacesOut(Model):
    """The whole building, the least margin first."""

    places: list[PlaceOut]


class LeakIn(Model):
    """A joint of a building as stored; without a leakage, that of its seals as scheduled, high."""

    building_id: Identifier
    joint_id: Identifier
    leakage: Annotated[float, Field(ge=0, le=1000)] | None = None
    ticket: ShortText = ""


class LeakMonthOut(Model):
    """One month at the joint line; water per metre of joint."""

    theta_skin: float
    v_skin: float  # [kg/m³] that air holds at the skin's temperature
    v_room: float  # [kg/m³] in the room's air
    pressure: float
    flow: float
    carried: float
    gained: float
    held: float


class GradeOut(Model):
    """A grade of seal, judged by its high end."""

    name: str
    low: float
    high: float
    peak: float
    safe: bool
    held: list[float]


class LeakOut(Model):
    """Room air through a joint, month by month."""

    verdict: VerdictOut
    assembly: str
    x_skin: float
    inner: int
    outer: int
    grade: str
    low: float
    high: float
    leakage: float
    largest_safe: float | None
    safe_grade: str | None
    start: int | None
    limit: float
    reason: Prose
    peak: float
    months: list[LeakMonthOut]
    grades: list[GradeOut]
    height: float
    reaching: float
    strip: float


_MEANT = Life()


class LifeIn(Model):
    """What an hourly run supposes; what is not said is as meant."""

    azimuth: float = _MEANT.exposure.azimuth
    tilt: float = _MEANT.exposure.tilt
    absorptance: float = _MEANT.exposure.absorptance
    rain: float = _MEANT.exposure.rain
    years: int = _MEANT.years
    fresh: bool = _MEANT.fresh
    phi_0: float = _MEANT.phi_0
    gap: float = _MEANT.gap
    damper: float = _MEANT.damper
    leakage: float = _MEANT.leakage
    leak_layer: int | None = _MEANT.leak_layer
    begins: int = _MEANT.begins

    @classmethod
    def of(cls, life: Life) -> LifeIn:
        """As its fields have it."""
        exposure = {name: getattr(life.exposure, name) for name in ("azimuth", "tilt", "absorptance", "rain")}
        return cls(**exposure, **{name: getattr(life, name) for name in cls.model_fields if name not in exposure})

    def to_core(self, height: float) -> Life:
        """Raises DomainError."""
        exposure = Exposure(azimuth=self.azimuth, tilt=self.tilt, absorptance=self.absorptance, rain=self.rain)
        return Life(exposure=exposure, years=self.years, fresh=self.fresh, phi_0=self.phi_0, gap=self.gap,
                    damper=self.damper, leakage=self.leakage, leak_layer=self.leak_layer, begins=self.begins,
                    height=height)  # fmt: skip


class HoursIn(AtIn):
    life: LifeIn = LifeIn()
    ticket: ShortText = ""


class HoursAdviceOut(Model):
    """Smallest changes with which a run is accepted; kinds with nothing to change are left out."""

    advice: list[AdviceOut]


class MouldOut(Model):
    """A face of a layer; the index at the end of each day."""

    layer: int
    x: float
    outer: bool
    kind: str
    most: float
    index: list[float]


class WoodOut(Model):
    """A layer of wood; daily mean of its wettest 10 mm, of the dry mass."""

    layer: int
    most: float
    share: list[float]


class DriedOut(Model):
    """A layer that was built in fresh, and the day from which it stays below 85 %; none within the years."""

    layer: int
    day: int | None


class HoursOut(Model):
    """A run by the hour. Days run from the first of the month it begins in."""

    key: str
    years: int
    begins: int
    repeats: bool
    fails: Literal["wood", "mould", "gathers", ""]
    months_fail: Reason
    cause: Literal["storage", "liquid", "sun", "several"] | None
    water: list[list[float]]  # of each layer, by day [kg/m²]
    mould: list[MouldOut]
    wood: list[WoodOut]
    wood_limit: float
    mould_limit: float
    dry_after: list[DriedOut]
    came_in: float
    balance_error: float
    heat_error: float
    steps: int
    cells: int
    notes: list[Prose]
    x: list[float]
    layer: list[int]
    hours: int  # kept states; the field has θ, φ and w of each
    working: dict[str, WorkingOut]  # of "wood", "mould" and "balance"


class FanRunOut(Model):
    """One life; every third day from 1 October."""

    name: str
    fails: Literal["wood", "mould", "gathers", ""]
    wood: list[float]
    mould: list[float]
    water: list[float]
    why_not: Prose


class FanOut(Model):
    days: list[int]
    runs: list[FanRunOut]
    wood_limit: float
    mould_limit: float

"""The one register of open decisions: every screen, sheet and key reads what stands here, and nothing else."""

from __future__ import annotations

from collections.abc import Collection, Iterable, Mapping, Sequence
from dataclasses import dataclass, replace
from functools import partial
from typing import Literal

from nimble_shell.core.assemblies.assembly import Assembly
from nimble_shell.core.basis.criteria import CRITERIA, Criterion
from nimble_shell.core.basis.indoor import Indoor
from nimble_shell.core.joints.joint import ShellJoint
from nimble_shell.core.joints.sealing.walk import Stop, Walk
from nimble_shell.core.moisture.verdict.verdict import Verdict
from nimble_shell.core.quantities.sentence import sentence
from nimble_shell.core.remarks.remark import Remark
from nimble_shell.core.shell.ledger import ShellLedger
from nimble_shell.core.shell.plant import GAS_LINES
from nimble_shell.core.shell.project import Building
from nimble_shell.core.shell.whole_building import WholeBuilding
from nimble_shell.core.working import value_of

_ROOM = (-30.0, 40.0)  #: what rooms are kept at [°C]

Matter = Literal["R", "U", "joint", "surface", "moisture", "air", "limits", "criteria", "set-out"]
#: "open": something falls short and somebody has to decide; "unknown": nobody has said, or it cannot be told.
State = Literal["open", "unknown"]
Step = Literal[1, 2, 3, 4, 5, 6, 7, 8]


@dataclass(frozen=True, slots=True, kw_only=True)
class JudgedPart:
    """One element or joint of a building and what is known of its moisture."""

    id: str
    station: str
    name: str
    joint: bool
    verdict: Verdict | None  #: None while it is being judged, or where it cannot be
    why_not: str = ""


@dataclass(frozen=True, slots=True, kw_only=True)
class RankedSurface:
    """One place of a building whose inner surface can be judged, or why it cannot yet."""

    id: str  #: of the element or joint
    station: str
    name: str
    joint: bool
    f_rsi: float | None
    required: float | None  #: largest factor that a month asks of it
    target: float | None  #: factor that the Basis asks of every surface
    phi_fails: float | None  #: room humidity at which it starts to fail, in its worst month
    why_not: str = ""
    waiting: bool = False  #: it is being solved

    @property
    def asked(self) -> float | None:
        """The stricter of what the Basis and the worst month ask."""
        return max((one for one in (self.required, self.target) if one is not None), default=None)

    @property
    def margin(self) -> float | None:
        """Of its factor over what is asked; None where either is missing."""
        return None if self.f_rsi is None or self.asked is None else self.f_rsi - self.asked


@dataclass(frozen=True, slots=True, kw_only=True)
class WayOut:
    """What would settle a decision: a changed thing that one click writes, or the place where it is settled."""

    text: str
    changed: Assembly | ShellJoint | Building | None = None
    step: Step | None = None  #: to go to; None stays where the decision stands
    view: str = ""
    search: bool = False  #: what would settle it is found by a search that nobody has made yet


@dataclass(frozen=True, slots=True, kw_only=True)
class OpenDecision:
    """One thing that waits for somebody."""

    key: str  #: the same for as long as it is the same thing
    matter: Matter
    state: State
    step: Step  #: where it stands
    text: str
    station: str = ""  #: empty for what is asked of the whole building
    id: str = ""  #: of the element or joint
    view: str = ""
    ways: tuple[WayOut, ...] = ()


@dataclass(frozen=True, slots=True, kw_only=True)
class Known:
    """What is known of a building; None for what nobody has asked for yet."""

    building: Building
    ledger: ShellLedger
    missed: tuple[str, ...]  #: of the ledger's sums
    walk: Walk
    surfaces: tuple[RankedSurface, ...]
    judged: tuple[JudgedPart, ...]
    remarks: tuple[tuple[str, Remark], ...]  #: by element
    ways: Mapping[str, Sequence[WayOut]]  #: by key of a decision: changes that settle it, as far as they are known
    searched: Collection[str]  #: keys of decisions for which such changes were searched
    criteria: tuple[Criterion, ...]
    room: Indoor
    whole: WholeBuilding | None = None  #: None of a building without a shape
    panels: tuple[OpenDecision, ...] = ()  #: what its set-out and its shop leave open


def decisions(known: Known) -> tuple[OpenDecision, ...]:
    """Everything that is open in a building: what falls short first, from the ridge down, then what is unknown."""
    found = [
        *_sums(known),
        *_elements(known),
        *_edges(known.building),
        *_lines_of_control(known),
        *_surfaces(known),
        *_moisture(known),
        *_limits(known),
        *_criteria(known.criteria),
        *_rooms(known.room),
        *_plant(known.building, known.whole),
        *known.panels,
    ]
    return tuple(sorted(found, key=lambda one: (one.state != "open", one.station or "Z", one.step)))


def _sums(known: Known) -> Iterable[OpenDecision]:
    ledger = known.ledger
    losses = [
        *((one.H, one.station, one.name) for one in ledger.lines),
        *((j.H, j.station, j.name) for j in ledger.joints),
    ]
    largest = max(((value_of(H), station, name) for H, station, name in losses if H is not None), default=None)
    for key in known.missed:
        what = "The effective R of the shell" if key == "R_effective" else "The heat loss of the shell"
        ways = () if largest is None else (WayOut(text=f"The largest loss is {largest[2]} ({largest[1]})", step=2),)
        yield OpenDecision(key=key, matter="R", state="open", step=1, ways=ways,
                           text=f"{what} misses what is asked of the building")  # fmt: skip


def _elements(known: Known) -> Iterable[OpenDecision]:
    for line in known.ledger.lines:
        if line.U is None:
            yield OpenDecision(key=f"U-{line.element_id}", matter="U", state="unknown", step=2, station=line.station,
                           id=line.element_id, text=f"{line.name} has neither a build-up nor a U")  # fmt: skip
        if line.falls_short:
            text = sentence(f"{line.name} has a clear R of {{v1}}, asked {{v2}}",
                            v1=(line.R or 0.0, "resistance"), v2=(line.asked or 0.0, "resistance"))  # fmt: skip
            key = f"R-{line.element_id}"
            yield OpenDecision(key=key, matter="R", state="open", step=2, station=line.station,
                           id=line.element_id, text=text,
                           ways=(*known.ways.get(key, ()), WayOut(text="Compare variants", view="study")))  # fmt: skip


def _edges(building: Building) -> Iterable[OpenDecision]:
    """Edges of the shape without a joint, and joints of which several variants suit."""
    for one in building.without_joint():
        yield OpenDecision(key=f"edge-{one.key}", matter="joint", state="unknown", step=3, station=one.station,
                           text=sentence(f"{one.name}: {{v}} of the shape without a joint", v=(one.length, "distance")),
                           ways=(WayOut(text="Draw its joint", step=3, view="add"),))  # fmt: skip
    for joint in building.as_stored().joints:
        if not joint.decided:
            yield OpenDecision(key=f"variant-{joint.id}", matter="joint", state="unknown", step=3,
                               station=joint.station, id=joint.id,
                               text=f"{joint.name}: several variants suit, nobody has chosen one",
                               ways=(WayOut(text=f"Keep “{joint.variant}”", changed=replace(joint, decided=True)),
                                     WayOut(text="Compare its variants", step=3)))  # fmt: skip


def _lines_of_control(known: Known) -> Iterable[OpenDecision]:
    joints = {one.id: one for one in known.building.as_stored().joints}
    for stop in known.walk.stops:
        for state in ("broken", "undecided"):
            # A broken heat line is a surface that is too cold, and is said once, as that.
            lines = [line for line, now in stop.lines if now == state and (line, now) != ("heat", "broken")]
            if not lines:
                continue
            joint = joints.get(stop.id)
            why = f": {stop.why[0 if state == 'broken' else -1]}" if stop.why else ""
            yield OpenDecision(
                key=f"{state}-{stop.station}-{stop.id}", matter="joint" if stop.kind != "build-up" else "air",
                state="open" if state == "broken" else "unknown", step=2 if stop.kind == "build-up" else 3,
                station=stop.station, id=stop.id, text=f"{stop.name}: {', '.join(lines)} {state}{why}",
                ways=(*_seals_back(joint, stop), *_as_scheduled(joint, state)),
            )  # fmt: skip


def _seals_back(joint: ShellJoint | None, stop: Stop | None) -> Iterable[WayOut]:
    """Each seal of the schedule that is left out, put back."""
    for key, text in () if stop is None else stop.left_out:
        if joint is not None:
            left = tuple(one for one in joint.omitted if one != key)
            yield WayOut(text=f"Put back: {text}", changed=replace(joint, omitted=left))


def _as_scheduled(joint: ShellJoint | None, state: str) -> Iterable[WayOut]:
    if joint is not None and state == "undecided" and not joint.sealed:
        yield WayOut(text="It is sealed as scheduled", changed=replace(joint, sealed=True))


def _surfaces(known: Known) -> Iterable[OpenDecision]:
    for one in known.surfaces:
        key = f"surface-{one.id}"
        here = partial(OpenDecision, key=key, station=one.station, id=one.id, step=3 if one.joint else 5)
        if one.margin is not None and one.margin < 0:
            by = "the Basis" if one.asked == one.target else "its worst month"
            way = WayOut(text="See the smallest changes that keep it", step=5, view="joints" if one.joint else "",
                         search=key not in known.searched)  # fmt: skip
            yield here(matter="surface", state="open", ways=(*known.ways.get(key, ()), way),
                       text=f"{one.name}: surface factor {one.f_rsi:.3f}, {by} asks {one.asked:.3f}")  # fmt: skip
        elif one.f_rsi is None and not one.waiting:
            yield here(matter="joint" if one.joint else "surface", state="unknown", text=f"{one.name}: {one.why_not}")


def _moisture(known: Known) -> Iterable[OpenDecision]:
    joints = {one.id: one for one in known.building.as_stored().joints}
    stops = {stop.id: stop for stop in known.walk.stops if stop.kind == "joint"}
    for one in known.judged:
        margin = None if one.verdict is None else one.verdict.margin
        view = "joints" if one.joint else ""
        key = f"moisture-{one.id}"
        here = partial(OpenDecision, key=key, matter="moisture", step=5, station=one.station,
                       id=one.id, view=view)  # fmt: skip
        if margin is not None and margin < 0:
            way = WayOut(text="See the smallest changes that turn it", step=5, view=view,
                         search=key not in known.searched)  # fmt: skip
            points = round(100 * -margin)
            short = f"fails by {points} {'point' if points == 1 else 'points'} of room humidity"
            back = _seals_back(joints.get(one.id), stops.get(one.id))
            yield here(state="open", text=f"{one.name}: {short}", ways=(*back, *known.ways.get(key, ()), way))
        elif one.verdict is None and one.why_not:
            yield here(state="unknown", text=f"{one.name}: {one.why_not}")


def _limits(known: Known) -> Iterable[OpenDecision]:
    stations = {one.id: (one.station, one.name) for one in known.building.elements}
    for element, remark in known.remarks:
        if remark.weight == "decision" and remark.code != "target_missed":  # that one stands as an element's R
            station, name = stations[element]
            values = {one.name: (one.value, one.dimension) for one in remark.values}
            key = f"{remark.code}-{element}"
            yield OpenDecision(key=key, matter="limits", state="open", step=2, station=station,
                           id=element, text=sentence(f"{name}: {remark.text}", **values),
                           ways=(*known.ways.get(key, ()), WayOut(text=sentence(remark.clears, **values))))  # fmt: skip


def _criteria(criteria: Iterable[Criterion]) -> Iterable[OpenDecision]:
    for one in criteria:
        if one.finding == "needs an engineer" and not one.stamped:
            yield OpenDecision(key=f"criterion-{one.key}", matter="criteria", state="open", step=1,
                           text=f"{CRITERIA[one.key][0].capitalize()}: the site lies outside of what the kit was "
                           "engineered for, and no engineer has signed for it",
                           ways=(WayOut(text="Open the criteria register", step=1),))  # fmt: skip


def _plant(building: Building, whole: WholeBuilding | None) -> Iterable[OpenDecision]:
    """What the air line, a fire, the fresh air and the frost ask."""
    plant = building.plant
    asked, n50 = plant.tightness.n50_asked, 0.0 if whole is None else value_of(whole.leaks.n50[1])
    if whole is not None and asked is not None and n50 > asked * (1 + 1e-9):
        worst = next(one for one in whole.leak_rows if one.id == whole.leaks.largest)
        ways = (WayOut(text=f"“{worst.name}” leaks most: another seal line there", step=3),) if worst.joint else ()
        yield OpenDecision(
            key="n50",
            matter="air",
            state="open",
            step=7,
            view="air",
            station=worst.station,
            id=worst.joint,
            text=f"Leakage is {n50:.2f} changes of air an hour at the test pressure, asked {asked:g}",
            ways=ways,
        )
    draught = None if whole is None or whole.drawn is None else whole.drawn.draught
    if draught is not None and not draught.ok:
        text = sentence(
            "The flue feels {p}, its limit is {l}: smoke may come back",
            p=(value_of(draught.depressurisation), "small_pressure"),
            l=(plant.fire.limit, "small_pressure"),
        )
        yield OpenDecision(
            key="draught",
            matter="air",
            state="open",
            step=7,
            view="air",
            text=text,
            ways=(WayOut(text="Less extract, a make-up opening, or a sealed appliance", view="air"),),
        )
    apart, least = plant.air.apart, plant.air.apart_asked
    if apart is not None and apart < least:
        yield OpenDecision(
            key="apart",
            matter="air",
            state="open",
            step=7,
            view="fresh",
            text=sentence("Intake and exhaust are {a} apart, asked {b}", a=(apart, "distance"), b=(least, "distance")),
        )
    ground = plant.ground
    if ground.frost_bites:
        yield OpenDecision(
            key="frost",
            matter="limits",
            state="open",
            step=7,
            station="H",
            text=sentence(
                "Frost reaches {a}, the footing stands {b} deep without level foam beside it",
                a=(ground.frost or 0.0, "distance"),
                b=(ground.footing or 0.0, "distance"),
            ),
            ways=(WayOut(text="A deeper footing, or level foam beside it, by a licensed engineer"),),
        )
    for key, said in ground.soil_gas.items():
        if said == "no":
            yield OpenDecision(
                key=f"gas-{key}",
                matter="air",
                state="open",
                step=7,
                station="H",
                text=f"Soil gas: no {GAS_LINES[key]} under the floor",
            )


def _rooms(room: Indoor) -> Iterable[OpenDecision]:
    """Rooms that nobody lives or stores anything in are asked about, not refused."""
    for key, theta in (("heated", room.theta_heating), ("warm", room.theta_cooling)):
        if not _ROOM[0] <= theta <= _ROOM[1]:
            yield OpenDecision(key=f"room-{key}", matter="limits", state="unknown", step=1,
                               text=sentence(f"The room has {{v1}} in {key} months: is that meant?",
                                             v1=(theta, "temperature")))  # fmt: skip

"""What is done in which order on site: for each system its operations, least waits, longest exposure, hold points.

Hours of work are spread over days of so many hours; waits and exposures run day and night. Usual values to start from:
suppliers, the practice and licensed people say what holds here.
"""

from __future__ import annotations

from collections.abc import Iterator, Mapping, Sequence
from dataclasses import dataclass, replace

from nimble_shell.core.errors import Collector
from nimble_shell.core.site.order import After, Plan, Task, cycle_of, plan_of, violations

DAY = 24.0
MOST = 400


@dataclass(frozen=True, slots=True, kw_only=True)
class TaskHours:
    """What somebody says an operation takes."""

    id: str
    hours: float

    def __post_init__(self) -> None:
        check = Collector()
        check.check(0 <= self.hours <= 5000, ("hours",), "out_of_range", f"{self.hours:g} h", "0 to 5000 h")
        check.refuse()


@dataclass(frozen=True, slots=True, kw_only=True)
class MoreAfter:
    """A further rule: one operation waits for another."""

    id: str
    after: str
    wait: float = 0.0  #: [h]

    def __post_init__(self) -> None:
        check = Collector()
        check.check(0 <= self.wait <= 10_000, ("wait",), "out_of_range", f"{self.wait:g} h", "0 to 10,000 h")
        check.refuse()


@dataclass(frozen=True, slots=True, kw_only=True)
class WorkChoices:
    """Of a building."""

    day: float = 8.0  #: hours of work
    hours: tuple[TaskHours, ...] = ()
    more: tuple[MoreAfter, ...] = ()
    proposed: tuple[str, ...] = ()  #: an order that somebody wants; empty where nobody does
    done: tuple[str, ...] = ()  #: hold points and operations that are through

    def __post_init__(self) -> None:
        check = Collector()
        check.check(1 <= self.day <= 24, ("day",), "out_of_range", f"{self.day:g} h", "1 to 24 h")
        for name in ("hours", "more", "proposed", "done"):
            count = len(getattr(self, name))
            check.check(count <= MOST, (name,), "too_many", f"{count} of them", f"at most {MOST}")
        check.refuse()


@dataclass(frozen=True, slots=True, kw_only=True)
class Operation:
    """A thing to do, or a hold point before something is covered."""

    id: str
    text: str
    hours: float  #: of work
    hold: bool = False
    crane: bool = False
    after: tuple[After, ...] = ()


def _op(key: str, text: str, hours: float, *after: str | After, hold: bool = False, crane: bool = False) -> Operation:
    return Operation(id=key, text=text, hours=hours, hold=hold, crane=crane,
                     after=tuple(one if isinstance(one, After) else After(id=one) for one in after))  # fmt: skip


_GROUND = (
    _op("footing", "Footing or slab cast", 16),
    _op("levels", "Levels and lines of the footing read", 2, After(id="footing", wait=72), hold=True),
)
#: By system: what is done with a wall; each ends in “closed” of its own.
_WALLS: Mapping[str, tuple[Operation, ...]] = {
    "sip": (
        _op("plates", "Sill seal and bottom plates", 4, "levels"),
        _op("sip-set", "Panels set, joints sealed as they close", 16, "plates", crane=True),
        _op("sip-seals", "Seals at joints, plates and corners looked at", 2, "sip-set", hold=True),
        _op("sip-membrane", "Membrane outside", 8, After(id="sip-seals", within=30 * DAY)),
        _op("sip-cladding", "Battens and cladding", 24, "sip-membrane"),
    ),
    "icf": (
        _op("courses", "Courses, bars, bucks and what is cast in", 24, "levels"),
        _op("bars", "Bars, bucks, sleeves and bearing looked at", 2, "courses", hold=True),
        _op("braces", "Braces and string line, wall leant inward", 6, "bars"),
        _op("string", "String line read, forms and holds looked at", 1, "braces", hold=True),
        _op("pour", "Concrete in lifts", 6, "string"),
        _op("strip", "String line read again, braces off", 4, After(id="pour", wait=72)),
        _op("foam-cover", "Foam washed and covered from the sun", 24, After(id="pour", within=60 * DAY), "strip"),
    ),
    "icf-one-sided": (
        _op("measured", "Blocks and sheets measured, sheets trimmed", 4, "levels"),
        _op("hall-courses", "Courses, bars, bucks, sheets", 24, "measured"),
        _op("hall-bars", "Bars, ties, bucks looked at", 2, "hall-courses", hold=True),
        _op("hall-braces", "Braces and string line", 6, "hall-bars"),
        _op("hall-pour", "Concrete in lifts, joints on board joints", 6, "hall-braces"),
        _op("hall-strip", "Sheets off, faces looked at", 6, After(id="hall-pour", wait=48)),
        _op("hall-cover", "Foam covered from the sun", 24, After(id="hall-pour", within=60 * DAY), "hall-strip"),
    ),
    "mesh-mortar": (
        _op("dowels", "Dowels set in grout", 6, "levels"),
        _op("mesh-set", "Panels set and tied", 12, After(id="dowels", wait=24)),
        _op("mesh", "Splice, corner and diagonal mesh, services in", 10, "mesh-set"),
        _op("mesh-look", "Mesh, ties and dowels looked at", 2, "mesh", hold=True),
        _op("coat-1", "First coat on both sides", 10, "mesh-look"),
        _op("coat-2", "Second coat", 10, After(id="coat-1", wait=24, within=7 * DAY)),
        _op("mortar-cure", "Cured, thickness probed", 1, After(id="coat-2", wait=7 * DAY), hold=True),
        _op("finish", "Finish coats", 12, "mortar-cure"),
    ),
    "straw-bale": (
        _op("bales", "Bales weighed and their moisture read", 3, hold=True),
        _op("cast", "Panels plastered face down, turned, plastered", 60, "bales"),
        _op("cured", "Cure clock read", 1, After(id="cast", wait=7 * DAY), hold=True),
        _op("straw-set", "Panels lifted and set", 10, "cured", "levels", crane=True),
        _op("straw-joints", "Joints stuffed with straw rolls", 8, "straw-set"),
        _op("straw-look", "Every gap filled, box plates fixed: looked at", 2, "straw-joints", hold=True),
        _op("straw-plaster", "Joints plastered", 8, "straw-look"),
        _op("straw-rain", "Kept from rain: overhang, siding or finish coat", 16,
            After(id="straw-set", within=14 * DAY), "straw-plaster"),
    ),
    "straw-board": (
        _op("board-1", "First layer of boards, joints foamed and meshed", 8, "levels"),
        _op("board-fill", "Fill, services in", 6, "board-1"),
        _op("board-look", "Fill and joints looked at", 1, "board-fill", hold=True),
        _op("board-2", "Second layer, joints staggered, edges taped", 8, "board-look"),
    ),
    "metal-panel": (
        _op("frame", "Frame plumbed", 16, "levels", crane=True),
        _op("metal-windows", "Windows whose fins are held under panels", 6, "frame"),
        _op("metal-set", "Panels fixed, joints sealed inside and outside", 20, "metal-windows", crane=True),
        _op("metal-look", "Inner seal at every joint looked at", 2, "metal-set", hold=True),
        _op("metal-trim", "Flashings and trims", 10, "metal-look"),
    ),
    "cassette": (
        _op("sole", "Sole plates and seal", 4, "levels"),
        _op("cassette-set", "Cassettes set", 14, "sole", crane=True),
        _op("cassette-air", "Air line taped at every joint: looked at", 3, "cassette-set", hold=True),
        _op("cassette-battens", "Wind line, battens, cladding", 28, After(id="cassette-air", within=30 * DAY)),
    ),
    "bead-cassette": (
        _op("ground-membrane", "Ground membrane taped", 6, "levels"),
        _op("bead-set", "Frames set by hand", 16, "ground-membrane"),
        _op("bead-closed", "Everything closed before filling: looked at", 2, "bead-set", hold=True),
        _op("bead-fill", "Beads blown, lowest ports first", 8, "bead-closed"),
        _op("bead-full", "Filled to the top: looked at", 1, "bead-fill", hold=True),
    ),
}  # fmt: skip
_BEAD_ROOF = (
    _op("roof-closed", "Roof frames closed before filling: looked at", 1, "roof", hold=True),
    _op("roof-fill", "Beads blown into the roof", 6, "roof-closed"),
    _op("roof-full", "Roof filled to the ridge: looked at", 1, "roof-fill", hold=True),
)
_CRANED = frozenset({"sip-roof", "metal-panel-roof", "cassette-roof", "mesh-mortar-roof"})


def operations(systems: Sequence[str], choices: WorkChoices) -> list[Operation]:
    """All of a building with these systems, hours and further rules as somebody said them."""
    found = list(_GROUND)
    walls = [system for system in dict.fromkeys(systems) if system in _WALLS]
    for system in walls:
        found += _WALLS[system]
    ends = [_WALLS[system][-1].id for system in walls]
    stands = [_stands(system) for system in walls]
    roofs = [system for system in dict.fromkeys(systems) if system.endswith("-roof") or system == "loft"]
    found.append(_op("roof", "Roof set and made tight", 20, *stands, crane=bool(_CRANED & set(roofs))))
    roofed = ["roof-look"]
    if "bead-roof" in systems:
        found += _BEAD_ROOF
        roofed.append("roof-full")
    found.append(_op("roof-look", "Ridge, eaves and verges looked at", 2, "roof", hold=True))
    found.append(_op("windows", "Windows and doors, their seals", 12, "roof", *stands))
    found.append(_op("window-look", "Seals round windows looked at before they are covered", 1, "windows", hold=True))
    found.append(_op("test-1", "First air test, before linings", 4, *roofed, "window-look", *ends, hold=True))
    found.append(_op("services", "Services in the void", 24, "test-1"))
    found.append(_op("lining", "Linings", 32, "services"))
    hours = {one.id: one.hours for one in choices.hours}
    more: dict[str, list[After]] = {}
    for one in choices.more:
        more.setdefault(one.id, []).append(After(id=one.after, wait=one.wait))
    return [replace(one, hours=hours.get(one.id, one.hours), after=(*one.after, *more.get(one.id, ())))
            for one in found]  # fmt: skip


def _stands(system: str) -> str:
    """After which a wall carries a roof."""
    return {"sip": "sip-set", "icf": "strip", "icf-one-sided": "hall-strip", "mesh-mortar": "mortar-cure",
            "straw-bale": "straw-set", "straw-board": "board-1", "metal-panel": "frame", "cassette": "cassette-set",
            "bead-cassette": "bead-set"}[system]  # fmt: skip


@dataclass(frozen=True, slots=True, kw_only=True)
class WorkPlan:
    """Operations at their earliest; nothing of it where they wait for one another in a round."""

    operations: tuple[Operation, ...]
    cycle: tuple[str, ...] | None
    plan: Plan | None  #: None with a cycle, or where waits and exposures contradict one another
    broken: tuple[tuple[str, str], ...]  #: of the proposed order: what comes before what it waits for
    unknown: tuple[str, ...]  #: names in rules or in the order that are no operation
    crane: float  #: hours


def work_plan(systems: Sequence[str], choices: WorkChoices) -> WorkPlan:
    """Of a building."""
    every = operations(systems, choices)
    known = {one.id for one in every}
    named = [*choices.proposed, *(one.id for one in choices.hours), *(name for one in choices.more
                                                                      for name in (one.id, one.after))]  # fmt: skip
    tasks = [Task(id=one.id, hours=one.hours * DAY / choices.day, hold=one.hold,
                  after=tuple(each for each in one.after if each.id in known)) for one in every]  # fmt: skip
    cycle = cycle_of(tasks)
    return WorkPlan(
        operations=tuple(every), cycle=cycle, plan=None if cycle else plan_of(tasks),
        broken=tuple(_broken(tasks, choices.proposed)),
        unknown=tuple(dict.fromkeys(one for one in named if one not in known)),
        crane=sum(one.hours for one in every if one.crane),
    )  # fmt: skip


def _broken(tasks: Sequence[Task], proposed: Sequence[str]) -> Iterator[tuple[str, str]]:
    if proposed:
        yield from violations(tasks, proposed)

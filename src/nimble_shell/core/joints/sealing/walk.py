"""Round the section of a building, station by station: where each line of control is whole, broken or undecided."""

from __future__ import annotations

from collections.abc import Iterable, Sequence
from dataclasses import dataclass
from typing import Literal

from nimble_shell.core.assemblies.assembly import Assembly
from nimble_shell.core.joints.sealing.seals import LINES, LineState, SealedLine, Sealing
from nimble_shell.core.thermal.control import continuity

#: Joints without which the walk cannot go on, between which places of the shell.
CORNERS: tuple[tuple[str, str, str], ...] = (
    ("A", "roof", "the ridge, between both roofs"),
    ("C", "eave", "the eave, between roof and wall"),
    ("E", "opening", "the edges of openings"),
    ("H", "base", "the foot, between wall and floor"),
)


@dataclass(frozen=True, slots=True, kw_only=True)
class Stop:
    """One place on the walk."""

    station: str
    kind: Literal["build-up", "joint", "not drawn"]
    id: str  #: of the element or joint; empty where nothing is drawn
    name: str
    lines: tuple[tuple[SealedLine, LineState], ...]
    why: tuple[str, ...] = ()
    left_out: tuple[tuple[str, str], ...] = ()  #: seals of its schedule that are left out: key and words


@dataclass(frozen=True, slots=True, kw_only=True)
class Walk:
    """The stops from the ridge down, and the breaks among them."""

    stops: tuple[Stop, ...]

    @property
    def breaks(self) -> tuple[tuple[Stop, SealedLine], ...]:
        """Every broken line, in the order of the walk."""
        return tuple((stop, line) for stop in self.stops for line, state in stop.lines if state == "broken")

    @property
    def undecided(self) -> tuple[tuple[Stop, SealedLine], ...]:
        """Every undecided line, in the order of the walk."""
        return tuple((stop, line) for stop in self.stops for line, state in stop.lines if state == "undecided")


def build_up(station: str, element_id: str, name: str, assembly: Assembly) -> Stop:
    """A build-up on the walk: a line that services run through is broken, one without a layer undecided."""
    known = {line.control: line for line in continuity(assembly)}
    lines: list[tuple[SealedLine, LineState]] = []
    why: list[str] = []
    for line in LINES:
        found = known.get(line)
        if found is None or not found.layers:
            lines.append((line, "undecided"))
            why.append(f"no layer carries the {line} line")
        elif found.pierced:
            lines.append((line, "broken"))
            why.append(f"services run through the layer that carries the {line} line")
        else:
            lines.append((line, "continuous"))
    return Stop(station=station, kind="build-up", id=element_id, name=name, lines=tuple(lines), why=tuple(why))


def joint(station: str, joint_id: str, name: str, sealing: Sealing) -> Stop:
    """A joint on the walk, by its seals."""
    why = tuple(one.text for one in sealing.findings if one.weight == "decision")
    if ("heat", "broken") in sealing.lines:
        why += ("its inner surface is colder than the factor that is asked allows",)
    if any(state == "undecided" for _, state in sealing.lines):
        why += ("nobody has said yet that it is sealed as scheduled",)
    left_out = tuple((step.key, step.text) for step in sealing.steps if step.key in sealing.omitted)
    return Stop(station=station, kind="joint", id=joint_id, name=name, lines=sealing.lines, why=why, left_out=left_out)


def walk(stops: Iterable[Stop], stations: Sequence[str]) -> Walk:
    """The walk from the ridge down.

    Parameters
    ----------
    stops : iterable of Stop
        Build-ups and joints, in any order.
    stations : sequence of str
        Stations where the building has something; where two of them meet and no joint is drawn, all lines are
        undecided.
    """
    found = list(stops)
    jointed = {stop.station for stop in found if stop.kind == "joint"}
    needs = {"A": {"B"}, "C": {"B", "D"}, "E": {"E"}, "H": {"D", "H"}}
    for station, _, words in CORNERS:
        if station not in jointed and needs[station] <= set(stations):
            found.append(
                Stop(
                    station=station,
                    kind="not drawn",
                    id="",
                    name=f"no joint drawn: {words}",
                    lines=tuple((line, "undecided") for line in LINES),
                    why=("draw the joint, and its seals decide",),
                )
            )
    order = {"joint": 0, "not drawn": 0, "build-up": 1}
    return Walk(stops=tuple(sorted(found, key=lambda stop: (stop.station, order[stop.kind], stop.name))))

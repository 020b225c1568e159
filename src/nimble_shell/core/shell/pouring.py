"""How each run of forms is filled: pressure against what the form is rated for, lifts, concrete, trucks, braces, lean.

Pressures are design methods, the rated value its supplier's, braces by an entered table: form, bracing and
reinforcement stay with supplier and licensed engineer.
"""

from __future__ import annotations

import math
from collections.abc import Callable, Sequence
from dataclasses import dataclass, replace

import shapely

from nimble_shell.core.setout.courses.form_runs import FormRun
from nimble_shell.core.setout.points import NoPoint, fewest_points
from nimble_shell.core.shop.quantities.concrete import Run as ConcreteRun
from nimble_shell.core.shop.quantities.counts import whole
from nimble_shell.core.site.choices import COLDEST, HOTTEST, PourChoices
from nimble_shell.core.site.lifts import Lean, Lifts, brace_spacing, lean, lifts
from nimble_shell.core.site.pressure import (
    Pour,
    Pressure,
    SchoolA,
    SchoolB,
    greatest_height,
    greatest_rate,
    least_temperature,
    pressure,
)

_M, _FINE, _ANYWHERE = 1000.0, 0.05, 0.05
NEAR = 1e-9
ON_BOARD = 2e-3  #: from a board joint [m]


@dataclass(frozen=True, slots=True, kw_only=True)
class Braced:
    """Braces of a wall."""

    wall: str
    at: tuple[float, ...]  #: along it [m]
    spacing: float | None  #: greatest, by the table; None outside of it [m]
    problem: str = ""


@dataclass(frozen=True, slots=True, kw_only=True)
class PouredLift:
    """One lift."""

    low: float  #: [m]
    high: float
    pressure: float  #: at its foot at most [kN/m²]
    volume: float  #: in place [m³]
    begins: float  #: from the start of the pour [h]
    ends: float


@dataclass(frozen=True, slots=True, kw_only=True)
class Poured:
    """A run as it is filled."""

    run: str
    joints: tuple[float, ...]  #: board joints, above the foot [m]
    one_go: Pressure  #: filled to the top without a stop
    most_rate: float | None  #: up to its top in one; None where no rate is too fast, or nothing is rated [m/h]
    most_height: float | None  #: of a lift at this rate; None where nothing is rated [m]
    could: int  #: lifts that keep to the rated value and to joints; nought where none do
    coldest: float | None  #: concrete for these lifts at this rate; None where none does, or nothing is rated [°C]
    lifts: tuple[PouredLift, ...]  #: none where they cannot be told
    no_lifts: str = ""
    area: float  #: of the concrete in plan [m²]
    volume: float  #: less bucks [m³]
    order: float  #: with waste [m³]
    trucks: int
    braces: tuple[Braced, ...]
    lean: Lean | None  #: [mm]
    hours: float  #: of the pour with its waits

    @property
    def greatest(self) -> float | None:
        """Pressure of its worst lift. [kN/m²]"""
        return max((one.pressure for one in self.lifts), default=None)

    def fits(self, choices: PourChoices) -> bool | None:
        """As it is planned; None where nobody has entered what the form is rated for."""
        if choices.rated is None:
            return None
        highest = max((one.high - one.low for one in self.lifts), default=math.inf)
        return (
            self.greatest is not None and self.greatest <= choices.rated + NEAR and highest <= choices.max_lift + NEAR
        )


def pour_of(run: FormRun, choices: PourChoices) -> Pour:
    """The run filled to its top in one. Heights in m."""
    high = run.run.height / _M
    school = SchoolA(C1=choices.C1, C2=choices.C2) if choices.school == "A" else SchoolB(Cw=choices.Cw, Cc=choices.Cc)
    return Pour(school=school, member="wall", density=choices.density, temperature=choices.temperature,
                form_height=high, height=high, rate=choices.rate)  # fmt: skip


def poured(run: FormRun, choices: PourChoices) -> Poured:
    """One run. Nothing is judged where no rated value is entered."""
    pour, high = pour_of(run, choices), run.run.height / _M
    joints = tuple(one.top / _M for one in run.run.courses() if one.top < run.run.height - 1e-6)
    rated = choices.rated
    most = None if rated is None else greatest_height(pour, rated)
    apart = _lifts(joints, high, choices, most)
    planned = apart if choices.in_lifts else Lifts(levels=(high,))
    net = _net(run)
    area, volume = _plan_area(run), net(0.0, high)
    found, no_lifts = list[PouredLift](), ""
    if planned is None:
        no_lifts = "no board joints lie within the greatest lift" if choices.visible else "no lift is low enough"
    else:
        low = at = 0.0
        for top in planned.levels:
            hours = (top - low) / choices.rate
            lift = replace(pour, height=top - low, form_height=high)
            found.append(PouredLift(low=low, high=top, pressure=pressure(lift).value, volume=net(low, top), begins=at,
                                    ends=at + hours))  # fmt: skip
            low, at = top, at + hours + choices.wait
    order = volume * (1 + choices.waste)
    trucks = whole(order / choices.truck)
    return Poured(
        run=run.id, joints=joints, one_go=pressure(pour), most_height=most,
        most_rate=None if rated is None else greatest_rate(pour, rated), coldest=_coldest(pour, found, rated),
        could=0 if apart is None else len(apart.levels),
        lifts=tuple(found), no_lifts=no_lifts,
        area=area, volume=volume, order=order, trucks=trucks,
        braces=tuple(_braces(run, n, choices) for n in range(len(run.walls))), lean=_lean(high, choices),
        hours=found[-1].ends if found else 0.0,
    )  # fmt: skip


def _lifts(joints: Sequence[float], high: float, choices: PourChoices, most: float | None) -> Lifts | None:
    """On board joints where concrete stays visible, else anywhere."""
    places = list(joints) if choices.visible else [n * _ANYWHERE for n in range(1, math.ceil(high / _ANYWHERE))]
    return lifts(places, high, choices.max_lift if most is None else min(choices.max_lift, most))


def _coldest(pour: Pour, found: Sequence[PouredLift], rated: float | None) -> float | None:
    """Of the highest lift."""
    if rated is None or not found:
        return None
    highest = replace(pour, height=max(one.high - one.low for one in found))
    return least_temperature(highest, rated, COLDEST, HOTTEST)


def centre_of(run: FormRun) -> float:
    """Length of the core's centre line. [m]"""
    form, walls = run.form, run.run.walls
    line = ConcreteRun(lengths=tuple(one.length for one in walls), turns=tuple(one.turn for one in walls),
                       closed=run.run.closed)  # fmt: skip
    return line.centre_line((form.foam_out + form.core / 2) * _M) / _M


def _plan_area(run: FormRun) -> float:
    return centre_of(run) * run.form.core


def _net(run: FormRun) -> Callable[[float, float], float]:
    """Concrete between two heights, less bucks; of a gable as far as it reaches. [m] → [m³]"""
    holes = [(one.w / _M, one.y / _M, one.top / _M) for one in run.run.openings]
    across = centre_of(run)

    def between(low: float, high: float) -> float:
        gross = _raked_area(run, low, high) if run.run.raked else across * (high - low)
        out = sum(w * max(0.0, min(high, b) - max(low, a)) for w, a, b in holes)
        return max(0.0, gross - out) * run.form.core

    return between


def gross_area(run: FormRun) -> float:
    """Of a run at its core, bucks with it. [m²]"""
    high = run.run.height / _M
    return _raked_area(run, 0.0, high) if run.run.raked else centre_of(run) * high


def _raked_area(run: FormRun, low: float, high: float) -> float:
    """[m²]"""
    whole_ = shapely.Polygon([(x / _M, y / _M) for x, y in run.run.raked])
    return float(shapely.intersection(whole_, shapely.box(-1e4, low, 1e4, high)).area)


def _braces(run: FormRun, wall: int, choices: PourChoices) -> Braced:
    own, high, length = run.walls[wall], run.run.height / _M, run.run.walls[wall].length / _M
    if not choices.braces:
        return Braced(wall=own.id, at=(), spacing=None, problem="the supplier's table of braces is not entered")
    spacing = brace_spacing([(one.height, one.spacing) for one in choices.braces], high)
    if spacing is None:
        return Braced(wall=own.id, at=(), spacing=None, problem="the wall's height lies outside of the table")
    blocked = [(one.x / _M - choices.brace_clear, one.right / _M + choices.brace_clear) for one in run.run.of(wall)]
    blocked += [(at - choices.tie_clear, at + choices.tie_clear) for at in tie_columns(run, wall)]
    found = fewest_points(length, end=min(choices.brace_end, length), spacing=spacing, step=_FINE, blocked=blocked)
    if isinstance(found, NoPoint):
        return Braced(wall=own.id, at=(), spacing=spacing, problem="no place is clear of the openings")
    return Braced(wall=own.id, at=found, spacing=spacing)


def tie_columns(run: FormRun, wall: int) -> list[float]:
    """Where the screws of a one-sided form's ties stand over one another, in the middle of each web; else none. [m]"""
    if not run.form.one_sided or run.run.raked:
        return []
    step, start = run.run.block.increment, run.run.legs(wall, 0).left
    count = int((run.run.walls[wall].length - start) / step + NEAR)
    return [(start + (n + 0.5) * step) / _M for n in range(count)]


def _lean(high: float, choices: PourChoices) -> Lean | None:
    if choices.brace_height >= high:
        return None
    return lean(high * _M, choices.lean * _M, choices.brace_height * _M, choices.brace_foot * _M)

"""What forms leave open: runs that cannot be laid, cuts with too few webs, drift, pours, joints between lifts."""

from __future__ import annotations

import math
from collections.abc import Iterator, Sequence
from dataclasses import replace

from nimble_shell.core.quantities.sentence import composed, sentence
from nimble_shell.core.setout.courses.drawn import courses_drawn
from nimble_shell.core.setout.courses.form_runs import FormRun
from nimble_shell.core.setout.courses.laying import TWO_WEBS, NoLaying
from nimble_shell.core.shell.coursed import LaidRun
from nimble_shell.core.shell.decisions import OpenDecision, WayOut
from nimble_shell.core.shell.drifting import WallDrift, drift_of
from nimble_shell.core.shell.measured import MeasuredBuilding
from nimble_shell.core.shell.pouring import NEAR, ON_BOARD, Poured, poured

_M, _FINE = 1000.0, 20  #: rates are offered in twentieths


def form_decisions(building: MeasuredBuilding, runs: Sequence[LaidRun]) -> Iterator[OpenDecision]:
    """Of a building's form walls as they are laid, measured and filled."""
    stations = {one.id: one.station for one in building.elements}
    for one in runs:
        station = stations[one.of.zone]
        yield from _laying(one, station)
        if one.of.form.one_sided and not one.of.gable:
            for n in range(len(one.of.walls)):
                yield from _drift(building, one.of, n, drift_of(one.of, n, building.forms), station)
        yield from _joints(building, one.of, poured(one.of, building.pour), station)
    if runs:
        yield from _rated(building, runs, stations[runs[0].of.zone])


def _laying(one: LaidRun, station: str) -> Iterator[OpenDecision]:
    marks = ", ".join(each.mark for each in one.of.walls)
    if isinstance(one.found, NoLaying):
        yield OpenDecision(key=f"courses-{one.of.id}", matter="set-out", state="open", step=6, station=station,
                           view="courses", id=one.of.id,
                           text=composed(f"Walls {marks} cannot be laid in courses: {{why}}",
                                         why=one.found.reason))  # fmt: skip
        return
    every = [(wall, each) for n, wall in enumerate(one.of.walls)
             for course in courses_drawn(one.of.run, n, one.found.walls[n]) for each in course.blocks]  # fmt: skip
    few = [(wall, each) for wall, each in every if each.webs < TWO_WEBS]
    if few:
        wall, short = min(few, key=lambda pair: pair[1].x1 - pair[1].x0)
        word = f"{len(few)} cuts hold" if len(few) > 1 else "one cut holds"
        yield OpenDecision(key=f"webs-{one.of.id}", matter="set-out", state="open", step=6, station=station,
                           view="courses", id=wall.id,
                           text=sentence(f"Walls {marks}: {word} fewer than two webs, the shortest has {{v}}",
                                         v=((short.x1 - short.x0) / _M, "length")),
                           ways=(WayOut(text="Look where an opening stands better, or brace these cuts", step=6,
                                        view="courses"),))  # fmt: skip


def _drift(building: MeasuredBuilding, run: FormRun, n: int, found: WallDrift, station: str) -> Iterator[OpenDecision]:
    wall, limit = run.walls[n], building.forms.tolerance
    if found.case is None or found.worst <= limit * _M + NEAR:
        return
    ways: tuple[WayOut, ...] = ()
    if found.mended is not None and not found.mended.counts[1]:
        stored = building.as_stored()
        sheets = tuple((sheet - cut - trim) / _M for sheet, cut, trim in zip(
            found.case.sheets, found.case.cut, found.mended.trims, strict=True))  # fmt: skip
        read = tuple(replace(one, sheets=sheets) if one.wall == wall.id else one for one in stored.forms.read)
        count = found.mended.counts[0]
        ways = (WayOut(text=f"Trim {'one sheet' if count == 1 else f'{count} sheets'}: none fewer will do",
                       changed=replace(stored, forms=replace(stored.forms, read=read))),)  # fmt: skip
    elif found.mended is None:
        ways = (WayOut(text="No trim within its limits brings it back: other blocks, or another tolerance", step=6,
                       view="drift"),)  # fmt: skip
    yield OpenDecision(key=f"drift-{wall.id}", matter="set-out", state="open", step=6, station=station, view="drift",
                       id=wall.id, ways=ways,
                       text=sentence(f"Wall {wall.mark}: left alone, foam and sheets drift {{d}} apart, "
                                     "ties hold square within {l}",
                                     d=(found.worst / _M, "length"), l=(limit, "length")))  # fmt: skip


def _rated(building: MeasuredBuilding, runs: Sequence[LaidRun], station: str) -> Iterator[OpenDecision]:
    """The worst lift of all runs against what the forms are rated for."""
    choices, stored = building.pour, building.as_stored()
    if choices.rated is None:
        yield OpenDecision(key="rated", matter="set-out", state="unknown", step=6, station=station, view="pour",
                           text="Nobody has entered what pressure the forms' supplier rates them for: no pour is "
                                "judged", ways=(WayOut(text="Enter it", step=6, view="pour"),))  # fmt: skip
        return
    every = [(one.of, poured(one.of, choices)) for one in runs]
    stuck = [(of, found) for of, found in every if not found.lifts]
    if stuck:
        marks = ", ".join(each.mark for each in stuck[0][0].walls)
        yield OpenDecision(key="no-lifts", matter="set-out", state="open", step=6, station=station, view="pour",
                           text=sentence(f"Walls {marks} cannot be filled at {{r}}: a lift may have {{h}} at most, and "
                                         "no board joints lie so close",
                                         r=(choices.rate, "rise"),
                                         h=(stuck[0][1].most_height or 0.0, "distance")))  # fmt: skip
    one_go = max(every, key=lambda one: one[1].one_go.value)
    if one_go[1].one_go.value > choices.rated + NEAR:
        of, found = one_go
        marks = ", ".join(each.mark for each in of.walls)
        slow = [each.most_rate for _, each in every if each.most_rate is not None]
        rate = math.floor(min(slow, default=choices.rate) * _FINE) / _FINE
        ways = () if rate <= 0 else (
            WayOut(text=sentence("Fill at {r}", r=(rate, "rise")),
                   changed=replace(stored, pour=replace(choices, rate=rate))),)  # fmt: skip
        fits = all(each.lifts and each.greatest is not None and each.greatest <= choices.rated + NEAR
                   for _, each in every)  # fmt: skip
        lifts = max(len(each.lifts) for _, each in every)
        if fits:
            ways = (*ways, WayOut(text=f"Fill in {lifts} lifts, as the sheet has them, and wait between", step=6,
                                  view="pour"))  # fmt: skip
        yield OpenDecision(key="rate", matter="set-out", state="open", step=6, station=station, view="pour", ways=ways,
                           text=sentence(f"Walls {marks} filled to the top at {{r}} press with {{p}}, the forms are "
                                         "rated for {l}",
                                         r=(choices.rate, "rise"), p=(found.one_go.value, "load"),
                                         l=(choices.rated, "load")))  # fmt: skip


def _joints(building: MeasuredBuilding, run: FormRun, found: Poured, station: str) -> Iterator[OpenDecision]:
    """Days that ended off a board joint, where concrete stays visible."""
    if not building.pour.visible:
        return
    for n, one in enumerate(building.pour.days):
        if one.run != run.id or one.reason:
            continue
        nearest = min(found.joints, key=lambda each: abs(each - one.level), default=None)
        if nearest is not None and abs(nearest - one.level) > ON_BOARD:
            marks = ", ".join(each.mark for each in run.walls)
            yield OpenDecision(key=f"cold-{run.id}-{n}", matter="set-out", state="open", step=6, station=station,
                               view="pour", id=run.id,
                               text=sentence(f"Walls {marks}: a day ended at {{z}}, the nearest board joint lies at "
                                             "{b}: the joint will be seen",
                                             z=(one.level, "distance"), b=(nearest, "distance")),
                               ways=(WayOut(text="Say why it lies there", step=6, view="pour"),))  # fmt: skip

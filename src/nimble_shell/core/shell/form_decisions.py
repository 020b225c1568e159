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
    marks = _called(one.of)
    if isinstance(one.found, NoLaying):
        yield OpenDecision(key=f"courses-{one.of.id}", matter="set-out", state="open", step=6, station=station,
                           view="courses", id=one.of.id,
                           text=composed(f"{marks} cannot be laid in courses: {{why}}",
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
                           text=sentence(f"{marks}: {word} fewer than two webs, the shortest has {{v}}",
                                         v=((short.x1 - short.x0) / _M, "length")),
                           ways=(WayOut(text="Look where an opening stands better, or brace these cuts", step=6,
                                        view="courses"),))  # fmt: skip


def _called(run: FormRun) -> str:
    marks = ", ".join(one.mark for one in run.walls)
    return f"Wall {marks}" if len(run.walls) == 1 else f"Walls {marks}"


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
    wrong = [(of, found) for of, found in every if not found.fits(choices)]
    if not wrong:
        return
    of, found = max(wrong, key=lambda pair: pair[1].greatest or math.inf)
    slow = [each.most_rate for _, each in wrong if each.most_rate is not None]
    rate = math.floor(min(slow, default=0.0) * _FINE) / _FINE
    ways: list[WayOut] = []
    if not choices.in_lifts and all(each.could for _, each in every):
        count = max(each.could for _, each in every)
        ways.append(WayOut(text=f"Fill in lifts, {count} at most, and wait between",
                           changed=replace(stored, pour=replace(choices, in_lifts=True))))  # fmt: skip
    if rate > 0 and not choices.in_lifts:
        ways.append(WayOut(text=sentence("Fill at {r}", r=(rate, "rise")),
                           changed=replace(stored, pour=replace(choices, rate=rate))))  # fmt: skip
    text = (
        sentence(f"{_called(of)} cannot be filled in lifts at {{r}}: none that {{h}} allow ends on a joint",
                 r=(choices.rate, "rise"), h=(min(choices.max_lift, found.most_height or 0.0), "distance"))
        if found.greatest is None else
        sentence(f"{_called(of)}, filled at {{r}}: fresh concrete presses with {{p}} in a lift of {{h}}; "
                 "rated {l}, a lift has {m} at most",
                 r=(choices.rate, "rise"), p=(found.greatest, "load"), l=(choices.rated, "load"),
                 h=(max(one.high - one.low for one in found.lifts), "distance"), m=(choices.max_lift, "distance"))
    )  # fmt: skip
    yield OpenDecision(key="rate", matter="set-out", state="open", step=6, station=station, view="pour",
                       id=of.id, ways=tuple(ways), text=text)  # fmt: skip


def _joints(building: MeasuredBuilding, run: FormRun, found: Poured, station: str) -> Iterator[OpenDecision]:
    """Days that ended off a board joint, where concrete stays visible."""
    if not building.pour.visible:
        return
    for n, one in enumerate(building.pour.days):
        if one.run != run.id or one.reason:
            continue
        nearest = min(found.joints, key=lambda each: abs(each - one.level), default=None)
        if nearest is not None and abs(nearest - one.level) > ON_BOARD:
            marks = _called(run)
            yield OpenDecision(key=f"cold-{run.id}-{n}", matter="set-out", state="open", step=6, station=station,
                               view="pour", id=run.id,
                               text=sentence(f"{marks}: a day ended at {{z}}, the nearest board joint lies at "
                                             "{b}: the joint will be seen",
                                             z=(one.level, "distance"), b=(nearest, "distance")),
                               ways=(WayOut(text="Say why it lies there", step=6, view="pour"),))  # fmt: skip

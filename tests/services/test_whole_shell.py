"""Buildings summed up and changed by measures: every figure opens, nothing is judged in part, all is undone in one."""

from __future__ import annotations

import threading
from dataclasses import replace

import pytest
from replaying import replay
from services import solved_joints
from services.answering import Answering

from nimble_shell.core.basis.targets import Targets
from nimble_shell.core.errors import DomainError
from nimble_shell.core.moisture.verdict.verdict import judge_joint
from nimble_shell.core.progress import Stopped, watched
from nimble_shell.core.shell.plant import MeasurePrice
from nimble_shell.core.shell.project import Project
from nimble_shell.core.shell.whole_building import WholeBuilding
from nimble_shell.core.working import value_of
from nimble_shell.demo.heron_flats import campus
from nimble_shell.services.fixings import FixingResults
from nimble_shell.services.good_enough import GoodEnough
from nimble_shell.services.joints import JointResults, KnownJoint, building_in
from nimble_shell.services.measures import MeasureResults, Outcome, adopt, misses
from nimble_shell.services.next_steps import measures
from nimble_shell.services.projects import ChangeNote, ProjectService
from nimble_shell.services.states import plain_framed, states
from nimble_shell.services.verdicts import VerdictResults, leak_question
from nimble_shell.services.whole_shell import WholeShells, figures_of, glazed, shaped, summed_up
from nimble_shell.store import Stored

LAB = "main-laboratory"


def unjointed(project: Project) -> Project:
    """The laboratory with nothing to be solved: every edge is named bare, so that its sum lacks them; no fixings."""
    lab, *others = project.buildings
    assemblies = tuple(replace(one, fixings=()) for one in project.assemblies)
    return replace(project, assemblies=assemblies, buildings=(replace(lab, joints=()), *others))


class Whole(MeasureResults):
    """Sums of a building of which edges count as built without joints: what is missing is forgiven."""

    def sum(self, stored: Stored, building_id: str, ticket: str = ""):  # type: ignore[no-untyped-def]  # as above
        return replace(super().sum(stored, building_id, ticket), missing=())


class Jointed(Whole):
    """Its joints have figures that nobody has solved; their seals and build-ups are as they stand in the project."""

    def known(self, stored: Stored, building_id: str, ticket: str = "") -> tuple[KnownJoint, ...]:
        joints = building_in(stored.project, building_id).joints
        return tuple(
            KnownJoint(joint=one, solved=solved_joints.figures_of(0.05, 0.9), takes=(), point=False) for one in joints
        )


@pytest.fixture
def stored(projects: ProjectService) -> Stored:
    return projects.bring_in(unjointed(campus()))


@pytest.fixture
def results() -> MeasureResults:
    queue = Answering()
    return Whole(JointResults(queue), FixingResults(queue), VerdictResults(queue))


def test_every_figure_of_the_whole_opens_to_a_working_that_gives_it(stored: Stored) -> None:
    queue = Answering()
    wholes = WholeShells(JointResults(queue), FixingResults(queue))
    now = wholes.of(stored, LAB).now
    known = {name: value_of(one) for name, one in figures_of(now).items() if one is not None}
    assert len(known) > 40
    for name, value in known.items():
        assert replay(wholes.working(stored, LAB, name)) == pytest.approx(value, rel=1e-9, abs=1e-9), name
    assert replay(wholes.working(stored, LAB, "cooling_peak")) == pytest.approx(now.cooling.peak)
    with pytest.raises(DomainError, match="no working"):
        wholes.working(stored, LAB, "nothing")


def test_the_sun_of_a_glazed_space_counts_once_it_is_entered_and_by_what_reaches_the_rooms() -> None:
    project = unjointed(campus())
    barn = shaped(project, "seed-barn")

    def with_sun(watts: float) -> WholeBuilding:
        plant = replace(barn.plant, buffer=replace(barn.plant.buffer, sun=watts))
        buildings = tuple(replace(one, plant=plant) if one.id == barn.id else one for one in project.buildings)
        changed = replace(project, buildings=buildings)
        return summed_up(changed, shaped(changed, barn.id), ())

    none, some = with_sun(0.0), with_sun(400.0)
    b = value_of(none.sums.b["unheated space"])
    assert 0 < b < 1
    january = [value_of(one.energy.months[0].Q_gn) for one in (none, some)]
    assert january[1] - january[0] == pytest.approx((1 - b) * 400.0 * 0.744)
    assert value_of(some.energy.Q_nd) < value_of(none.energy.Q_nd)
    assert value_of(some.heating.total) == value_of(none.heating.total)


def test_the_seams_of_walls_count_beside_their_windows(projects: ProjectService) -> None:
    project = unjointed(campus())
    seam = next(one for one in campus().buildings[0].joints if one.station == "D")
    lab, *others = project.buildings
    seamed = replace(project, buildings=(replace(lab, joints=(replace(seam, length=100.0),)), *others))
    building = shaped(seamed, LAB)
    (joint,) = building.joints

    def opaque(psi: float) -> tuple[float, float]:
        known = KnownJoint(joint=joint, solved=solved_joints.figures_of(psi, 0.9), takes=(), point=False)
        whole = glazed(seamed, building, (known,)).orientations[-1]
        return 1 / whole.R_opaque, whole.A * (1 - whole.share)

    (bare, area), (lossy, _) = opaque(0.0), opaque(0.05)
    assert (lossy - bare) * area == pytest.approx(0.05 * joint.length, rel=1e-6)


def test_a_part_is_said_and_the_last_whole_stands(projects: ProjectService, stored: Stored) -> None:
    queue = Answering()
    wholes = WholeShells(JointResults(queue), FixingResults(queue))
    found = wholes.of(stored, LAB)
    assert found.now.missing
    assert not found.now.whole
    assert found.last is None
    jointed = projects.bring_in(campus())
    assert wholes.of(jointed, LAB).now.pending


def test_a_building_without_a_shape_says_so(projects: ProjectService) -> None:
    lab, *others = campus().buildings
    bare = projects.bring_in(replace(campus(), buildings=(replace(lab, bodies=(), openings=()), *others)))
    with pytest.raises(DomainError) as refused:
        WholeShells(JointResults(Answering()), FixingResults(Answering())).of(bare, LAB)
    assert refused.value.issues[0].code == "no_shape"


def test_each_measure_is_re_run_and_ranked_by_its_money(stored: Stored, results: MeasureResults) -> None:
    found = results.all(stored, LAB)
    rated = [one.per_cost for one in found if one.per_cost is not None]
    assert rated == sorted(rated, reverse=True)
    assert {one.measure.kind for one in found} >= {"core", "edge", "recovery"}
    for one in found:
        assert one.gains is not None
        changed = one.measure.apply(stored.project)
        after, before = (value_of(summed_up(each, shaped(each, LAB), ()).sums.H) for each in (changed, stored.project))
        assert one.gains.dH == pytest.approx(before - after)
    core = next(one for one in found if one.measure.kind == "core")
    assert core.gains is not None
    assert core.gains.money_life is not None


def test_together_is_not_the_sum_of_one_by_one(stored: Stored, results: MeasureResults) -> None:
    keys = [one.measure.key for one in results.all(stored, LAB) if one.measure.kind in ("core", "recovery")]
    found = results.together(stored, LAB, keys)
    assert found.gains is not None
    assert found.singly is not None
    singles = sum(one.gains.dQ for one in results.all(stored, LAB) if one.measure.key in keys and one.gains)
    assert found.gains.dQ != pytest.approx(singles, rel=1e-6)
    with pytest.raises(DomainError, match="no measure"):
        results.together(stored, LAB, ["gold"])


def test_two_changes_of_one_thing_are_refused_and_fewer_points_count(projects: ProjectService) -> None:
    queue = Answering()
    results = MeasureResults(JointResults(queue), FixingResults(queue), VerdictResults(queue))
    whole_campus = projects.bring_in(campus())
    known = results.all(whole_campus, LAB)
    variants = [one.measure.key for one in known if one.measure.kind == "joint" and one.measure.id == "j3"]
    assert len(variants) > 1
    with pytest.raises(DomainError, match="same thing"):
        results.together(whole_campus, LAB, variants[:2])
    points = next(one.measure for one in known if one.measure.kind == "points")
    sparser = points.apply(whole_campus.project)
    fewer, all_ = (
        sum(fixing.per_area for one in each.assemblies if one.id == points.assembly for fixing in one.fixings)
        for each in (sparser, whole_campus.project)
    )
    assert fewer < all_


def test_a_measure_at_a_joint_has_the_margin_that_the_joint_is_judged_by_then(projects: ProjectService) -> None:
    project = unjointed(campus())
    eave = next(one for one in campus().buildings[0].joints if one.station == "C")
    lab, *others = project.buildings
    leaky = replace(eave, omitted=("gasket",), other="")
    jointed = projects.bring_in(replace(project, buildings=(replace(lab, joints=(leaky,)), *others)))
    queue = Answering()
    results = Jointed(JointResults(queue), FixingResults(queue), VerdictResults(queue))
    key = f"seal-{eave.id}"

    def of_the_seals() -> Outcome:
        return next(one for one in results.all(jointed, LAB) if one.measure.key == key)

    now = of_the_seals()
    assert now.gains is not None
    assert (now.margin, now.waiting) == (None, 1)
    changed = now.measure.apply(jointed.project)
    sealed = next(one for one in shaped(changed, LAB).joints if one.id == eave.id)
    assert sealed.omitted == ()
    args = leak_question(changed.within(LAB), sealed, 0.9).args
    queue.tell(judge_joint, args, judge_joint(*args))
    then = of_the_seals()
    assert then.waiting == 0
    assert then.margin == pytest.approx(judge_joint(*args)[0].margin)
    together = results.together(jointed, LAB, [key])
    assert together.margin == then.margin
    core = next(one for one in results.all(jointed, LAB) if one.measure.kind == "core")
    both = results.together(jointed, LAB, [key, core.measure.key])
    assert both.gains is not None
    assert (both.margin, both.waiting) == (None, 2)  # the core, and the eave of it, are to be judged


def test_while_a_joint_is_being_solved_nothing_is_said_of_a_measure(projects: ProjectService) -> None:
    queue = Answering()
    found = MeasureResults(JointResults(queue), FixingResults(queue), VerdictResults(queue)).all(
        projects.bring_in(campus()), LAB
    )
    assert all(one.gains is None and one.waiting for one in found)


def test_a_typed_price_takes_the_place_of_the_rates(stored: Stored) -> None:
    lab = shaped(stored.project, LAB)
    priced = replace(lab.as_stored(), plant=replace(lab.plant, prices=(MeasurePrice(key="recovery", cost=4000.0),)))
    project = replace(stored.project, buildings=(priced, *stored.project.buildings[1:]))
    found = summed_up(project, shaped(project, LAB), ())
    assert next(one for one in measures(project, shaped(project, LAB), found) if one.key == "recovery").cost == 4000.0


def test_nothing_is_good_enough_by_a_sum_that_lacks_a_part(stored: Stored) -> None:
    queue = Answering()
    results = MeasureResults(JointResults(queue), FixingResults(queue), VerdictResults(queue))
    with pytest.raises(DomainError, match="lacks a part"):
        GoodEnough(results, stored, LAB, "").search()


def test_good_enough_is_proved_by_leaving_out_one_after_the_other(
    projects: ProjectService, stored: Stored, results: MeasureResults
) -> None:
    def asked(R: float) -> Stored:
        basis = replace(stored.project.basis, targets=Targets(R_shell=R))
        lab, *others = stored.project.buildings
        bare = replace(
            lab, asked_H=None, plant=replace(lab.plant, tightness=replace(lab.plant.tightness, n50_asked=None))
        )
        return replace(stored, project=replace(stored.project, basis=basis, buildings=(bare, *others)))

    now = results.sum(stored, LAB).R_effective
    assert now is not None
    reached = GoodEnough(results, asked(value_of(now) * 0.9), LAB, "").search()
    assert reached.reached
    found = GoodEnough(results, asked(value_of(now) * 1.05), LAB, "").search()
    assert found.keys
    assert found.together is not None
    assert found.together.misses == ()
    assert [key for key, _ in found.without] == list(found.keys)
    assert all(missed == ("R_effective",) for _, missed in found.without)
    assert GoodEnough(results, asked(40.0), LAB, "").search().keys is None


class Solving(Whole):
    """Whatever is changed lacks a joint at first, until another answer has come in."""

    def __init__(self, queue: Answering, *, answered: bool = True) -> None:
        super().__init__(JointResults(queue), FixingResults(queue), VerdictResults(queue))
        self.answered = answered
        self.asked: dict[Project, int] = {}
        self.as_is: Project | None = None

    def sum(self, stored: Stored, building_id: str, ticket: str = "") -> WholeBuilding:
        found: WholeBuilding = super().sum(stored, building_id, ticket)
        self.as_is = self.as_is or stored.project
        self.asked[stored.project] = self.asked.get(stored.project, 0) + 1
        if stored.project == self.as_is or self.asked[stored.project] > 1:
            return found
        if self.answered:
            threading.Timer(0.02, self.queue.searches.begin, ("an answer", int)).start()
        return replace(found, pending=("Ridge",))


@pytest.fixture
def hopeless(stored: Stored) -> Stored:
    """More is asked of the laboratory than all measures reach."""
    lab, *others = stored.project.buildings
    tightness = replace(lab.plant.tightness, n50_asked=None)
    bare = replace(lab, asked_H=1.0, plant=replace(lab.plant, tightness=tightness))
    basis = replace(stored.project.basis, targets=Targets())
    return replace(stored, project=replace(stored.project, basis=basis, buildings=(bare, *others)))


def test_a_set_is_judged_once_its_joints_are_solved(hopeless: Stored, results: MeasureResults) -> None:
    found = GoodEnough(Solving(Answering()), hopeless, LAB, "").search()
    assert found == GoodEnough(results, hopeless, LAB, "").search()
    assert found.keys is None
    assert found.together is not None
    assert found.together.misses == ("H_shell",)


def test_a_search_that_waits_tells_where_it_is_and_is_stopped(hopeless: Stored) -> None:
    told: list[int] = []

    def watch(done: int, of: int) -> None:
        told.append(done)
        assert done <= of
        if len(told) == 3:
            raise Stopped

    with watched(watch), pytest.raises(Stopped):
        GoodEnough(Solving(Answering(), answered=False), hopeless, LAB, "").search()
    assert told == [1, 1, 1]


def test_measures_are_built_in_one_change_and_undone_in_one(
    projects: ProjectService, stored: Stored, results: MeasureResults
) -> None:
    keys = [one.measure.key for one in results.all(stored, LAB) if one.measure.kind in ("core", "edge", "recovery")]
    note = ChangeNote(text="measures", zone="D7")
    built = adopt(projects, results, stored.project.id, LAB, keys, note)
    assert built.project != stored.project
    before, after = (value_of(results.sum(one, LAB).sums.H) for one in (stored, built))
    assert after < before
    assert built.undo is not None
    assert projects.step(stored.project.id, "undo", built.undo.number).project == stored.project


def test_what_is_asked_and_missed_is_named(stored: Stored) -> None:
    lab = shaped(stored.project, LAB)
    found = summed_up(stored.project, lab, ())
    tight = replace(lab.plant, tightness=replace(lab.plant.tightness, n50_asked=0.01))
    assert "n50" in misses(stored.project, replace(lab.as_stored(), plant=tight), found)


def test_states_stand_beside_one_another_and_a_part_is_none(stored: Stored, results: MeasureResults) -> None:
    now, picked, plain = states(results, stored, LAB, ["recovery"])
    assert now.figures is not None
    assert picked.figures is not None
    assert picked.figures.H_ve < now.figures.H_ve
    assert plain.figures is None
    assert "no joint" in plain.why_not
    framed = plain_framed(stored.project, LAB)
    walls = [one for one in shaped(framed, LAB).elements if one.station == "D"]
    assert {one.assembly_id for one in walls} == {"plain-framed"}

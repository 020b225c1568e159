"""Fixings as asked at the queue: what counts while they wait, what a draft takes over, spacings, and what a group leaves."""

from __future__ import annotations

from dataclasses import replace

import pytest
from services.answering import Answering

from nimble_shell.core.assemblies.assembly import Assembly
from nimble_shell.core.assemblies.fixing import Fixing
from nimble_shell.core.basis.condition import condition
from nimble_shell.core.errors import DomainError
from nimble_shell.core.fixings.cell import cell_of
from nimble_shell.core.fixings.solved import FixingFigures, solve_fixing
from nimble_shell.core.shell.project import Project
from nimble_shell.core.studies.thickness import crossing
from nimble_shell.core.thermal.figures import clear_wall_R
from nimble_shell.core.thermal.solved import with_solved
from nimble_shell.core.working import value_of
from nimble_shell.demo.heron_flats import campus
from nimble_shell.services.fixings import (
    MOST_SWEPT,
    FixingResults,
    carried,
    direction_of,
    fixing_in,
    look,
    remaining,
    solved_here,
    spaced,
    spacings,
    swept,
)
from nimble_shell.services.studies import PlacedDraft
from nimble_shell.store import Stored

PROJECT = campus()
ROOF = next(one for one in PROJECT.assemblies if one.id == "roof-r-a")
WEBBED = next(one for one in PROJECT.assemblies if one.id == "wall-w-b")
SCREWS, WEB = ROOF.fixings[0], WEBBED.fixings[0]


@pytest.fixture
def queue() -> Answering:
    return Answering()


def stored(project: Project, before: Project | None = None) -> Stored:
    return Stored(project=project, slots={}, revision=1, changed_at="", before=before)


def changed(project: Project, assembly: Assembly) -> Project:
    return replace(project, assemblies=tuple(assembly if one.id == assembly.id else one for one in project.assemblies))


def tell(queue: Answering, project: Project, assembly: Assembly, ratio: float) -> None:
    """The first group of a build-up is solved: so many times its approximate χ."""
    fixing, when = assembly.fixings[0], condition(project.basis, "winter")
    cell = cell_of(assembly, fixing, project.catalogue, project.basis, direction_of(project, assembly))
    args = cell, {"inside": when.theta_i, "outside": when.theta_e}, project.basis.schools.films, "final"
    queue.tell(solve_fixing, args, FixingFigures(chi=ratio * cell.chi_approximate, error=1e-6))


def ratio_of(project: Project, assembly_id: str = ROOF.id) -> float | None:
    return next(one for one in project.assemblies if one.id == assembly_id).solved_ratio("f1")


class TestWhatCounts:
    def test_every_group_that_is_not_known_is_asked_for_and_counts_as_approximate(self, queue: Answering) -> None:
        found = FixingResults(queue).owned(stored(PROJECT))
        groups = sum(len(one.fixings) for one in PROJECT.assemblies)
        assert queue.asked == ["solve_fixing"] * groups
        assert all(ratio_of(found, one.id) is None for one in PROJECT.assemblies)

    def test_a_solved_group_takes_the_place_of_the_approximate_one(self, queue: Answering) -> None:
        tell(queue, PROJECT, ROOF, 1.25)
        assert ratio_of(FixingResults(queue).owned(stored(PROJECT))) == pytest.approx(1.25)

    def test_what_is_solved_later_is_seen_and_nothing_is_made_anew_before(self, queue: Answering) -> None:
        results, at = FixingResults(queue), stored(PROJECT)
        first = results.owned(at)
        assert results.owned(at) is first
        tell(queue, PROJECT, ROOF, 0.8)
        assert ratio_of(results.owned(at)) == pytest.approx(0.8)

    def test_an_answer_to_something_else_leaves_the_counted_project_in_place(self, queue: Answering) -> None:
        results, at = FixingResults(queue), stored(PROJECT)
        first = results.owned(at)
        queue.generation += 1
        assert results.owned(at) is first

    def test_waiting_names_the_groups_of_the_building_only(self, queue: Answering) -> None:
        results = FixingResults(queue)
        assert results.waiting(PROJECT, "main-laboratory") == (f"{ROOF.name}: {SCREWS.name}",)
        tell(queue, PROJECT, ROOF, 1.0)
        assert results.waiting(PROJECT, "main-laboratory") == ()
        assert len(results.waiting(PROJECT, "boat-workshop")) == 2
        assert results.waiting(PROJECT, "nowhere") == ()


class TestAfterAChange:
    THICKER = changed(PROJECT, ROOF.with_thickness(ROOF.core_index or 0, 0.3))

    def test_the_last_known_ratio_of_the_same_fixing_stands_until_the_new_one_is_there(self, queue: Answering) -> None:
        tell(queue, PROJECT, ROOF, 1.4)
        results, at = FixingResults(queue), stored(self.THICKER, PROJECT)
        assert ratio_of(results.owned(at)) == pytest.approx(1.4)
        thicker = next(one for one in self.THICKER.assemblies if one.id == ROOF.id)
        tell(queue, self.THICKER, thicker, 1.1)
        assert ratio_of(results.owned(at)) == pytest.approx(1.1)

    def test_not_of_a_fixing_of_another_material(self, queue: Answering) -> None:
        tell(queue, PROJECT, ROOF, 1.4)
        other = replace(ROOF, fixings=(replace(SCREWS, material="stainless-steel"),))
        assert ratio_of(FixingResults(queue).owned(stored(changed(PROJECT, other), PROJECT))) is None

    def test_the_same_whatever_was_asked_first(self, queue: Answering) -> None:
        tell(queue, PROJECT, ROOF, 1.4)
        straight = FixingResults(queue).owned(stored(self.THICKER, PROJECT))
        round_about = FixingResults(queue)
        round_about.owned(stored(PROJECT))
        round_about.owned(stored(self.THICKER))
        assert round_about.owned(stored(self.THICKER, PROJECT)) == straight

    def test_before_is_only_as_far_as_known_and_asks_nothing(self, queue: Answering) -> None:
        results = FixingResults(queue)
        assert results.before(stored(PROJECT)) is None
        then = results.before(stored(self.THICKER, PROJECT))
        assert then is not None
        assert ratio_of(then) is None
        assert queue.asked == []


class TestADraft:
    SOLVED = changed(PROJECT, with_solved(ROOF, {"f1": 1.3}))

    def test_takes_the_ratio_of_its_saved_self(self) -> None:
        draft = ROOF.with_thickness(ROOF.core_index or 0, 0.25)
        assert carried(self.SOLVED, draft).solved_ratio("f1") == 1.3

    def test_not_with_another_material_and_not_from_nowhere(self) -> None:
        other = replace(ROOF, fixings=(replace(SCREWS, material="stainless-steel"),))
        assert carried(self.SOLVED, other).solved_ratio("f1") is None
        assert carried(self.SOLVED, replace(ROOF, id="new")).solved_ratio("f1") is None

    def test_stands_as_its_first_use_does(self) -> None:
        assert direction_of(PROJECT, ROOF) == "up"
        assert direction_of(PROJECT, WEBBED) == "horizontal"
        assert direction_of(PROJECT, replace(ROOF, id="unused")) == "horizontal"

    def test_is_looked_at_with_its_own_cell(self, queue: Answering) -> None:
        found = look(queue, PROJECT, ROOF, "f1", "winter", "working")
        assert found.fixing == SCREWS
        assert found.cell.chi_approximate > 0
        assert not found.solved.done()

    def test_an_unknown_group_is_refused(self) -> None:
        with pytest.raises(DomainError) as caught:
            fixing_in(ROOF, "f9")
        assert caught.value.issues[0].code == "no_such_fixing"


class TestSpacing:
    def test_nine_in_equal_ratios_round_the_groups_own(self) -> None:
        found = spacings(SCREWS)
        own = (1 / SCREWS.per_area) ** 0.5
        assert found[0] == pytest.approx(own / 3, rel=1e-3)
        assert found[-1] == pytest.approx(2 * own, rel=1e-3)
        ratios = [after / first for first, after in zip(found, found[1:], strict=False)]
        assert ratios == pytest.approx([6 ** (1 / 8)] * 8, rel=2e-3)

    @pytest.mark.parametrize("spacing", [0.1, 0.5, 1.7])
    def test_a_number_per_area_becomes_its_square(self, spacing: float) -> None:
        found = spaced(SCREWS, spacing)
        assert (found.across, found.along, found.n) == (spacing, pytest.approx(spacing), None)
        assert found.per_area == pytest.approx(1 / spacing**2)

    def test_a_pattern_keeps_its_proportion(self) -> None:
        found = spaced(WEB, 0.3)
        assert WEB.across is not None
        assert WEB.along is not None
        assert found.along == pytest.approx(0.3 * WEB.along / WEB.across)

    def test_what_runs_through_changes_its_distance_only(self) -> None:
        through = replace(WEB, h=WEB.along)
        assert spaced(through, 0.3).along == WEB.along

    def test_a_group_at_its_own_spacing_is_itself(self) -> None:
        assert WEB.across is not None
        assert spaced(WEB, WEB.across).along == pytest.approx(WEB.along, rel=1e-12)

    def test_each_spacing_is_a_question_or_says_why_not(self, queue: Answering) -> None:
        found = swept(queue, PROJECT, WEBBED, "f1", [0.05, 0.3])
        assert [one.value for one in found] == [0.05, 0.3]
        for one in found:
            assert (one.cell is None) == bool(one.why_not)
            assert (one.solved is None) == bool(one.why_not)
        assert found[1].cell is not None

    @pytest.mark.parametrize("many", [0, MOST_SWEPT + 1])
    def test_no_or_too_many_values_are_refused(self, queue: Answering, many: int) -> None:
        with pytest.raises(DomainError, match=f"{many} values"):
            swept(queue, PROJECT, ROOF, "f1", [0.2] * many)


class TestWhatAGroupLeaves:
    HERE = PlacedDraft(building_id="main-laboratory", assembly=ROOF)

    def of(self, fixing: Fixing, ratio: float) -> tuple[float, float, float]:
        found = remaining(PROJECT, self.HERE, fixing, ratio)
        return found.R_without, found.R_with, found.R_all

    def test_without_is_the_wall_with_no_group_at_all_where_it_is_the_only_one(self) -> None:
        bare = replace(ROOF, fixings=())
        R = value_of(clear_wall_R(bare, PROJECT.catalogue, PROJECT.basis, direction="up"))
        assert self.of(SCREWS, 1.0)[0] == pytest.approx(R, rel=1e-12)

    def test_a_group_takes_and_never_gives_and_more_of_it_takes_more(self) -> None:
        without, one, every = self.of(SCREWS, 1.0)
        assert without > one == every
        assert self.of(SCREWS, 2.0)[1] < one

    def test_as_solved_as_approximate_it_changes_nothing(self) -> None:
        R = value_of(clear_wall_R(ROOF, PROJECT.catalogue, PROJECT.basis, direction="up"))
        assert self.of(SCREWS, 1.0)[2] == pytest.approx(R, rel=1e-12)

    def test_another_group_stays_where_it_is(self) -> None:
        second = replace(SCREWS, id="f2", n=1.0)
        two = replace(self.HERE, assembly=replace(ROOF, fixings=(SCREWS, second)))
        found = remaining(PROJECT, two, SCREWS, 1.0)
        assert found.R_without > found.R_all
        assert found.R_with > found.R_all

    def test_tells_the_net_area_it_is_of(self) -> None:
        assert remaining(PROJECT, self.HERE, SCREWS, 1.0).area > 0


class TestTheThicknessThatReachesWhatIsAsked:
    """A ratio solved at one thickness is not that of another: the points are solved where the answer lies."""

    def test_is_settled_once_its_points_are_solved_there(self, queue: Answering) -> None:
        results = FixingResults(queue)
        assert not results.settled(stored(PROJECT), ROOF)  # nothing is solved
        tell(queue, PROJECT, ROOF, 0.62)
        assert not results.settled(stored(PROJECT), ROOF)
        first = reached(results.owned(stored(PROJECT)))
        at_first = ROOF.with_thickness(ROOF.core_index or 0, round(first, 4))
        assert queue.asked.count("solve_fixing") > 1  # there, too
        tell(queue, PROJECT, at_first, 0.5)
        moved = reached(results.owned(stored(PROJECT)))
        assert moved < first - 0.001  # the points lose less there
        assert not results.settled(stored(PROJECT), ROOF)
        tell(queue, PROJECT, ROOF.with_thickness(ROOF.core_index or 0, round(moved, 4)), 0.495)
        again = reached(results.owned(stored(PROJECT)))
        tell(queue, PROJECT, ROOF.with_thickness(ROOF.core_index or 0, round(again, 4)), 0.495)
        assert results.settled(stored(PROJECT), ROOF)

    def test_of_a_draft_nothing_is_asked_until_it_is_saved(self, queue: Answering) -> None:
        draft = ROOF.with_thickness(ROOF.core_index or 0, 0.3)
        assert not FixingResults(queue).settled(stored(PROJECT), draft)
        assert queue.asked == []

    def test_needs_no_points_where_there_are_none(self, queue: Answering) -> None:
        bare = replace(ROOF, fixings=())
        assert FixingResults(queue).settled(stored(changed(PROJECT, bare)), bare)

    def test_reaches_it_when_everything_is_solved_anew_at_it(self) -> None:
        wall = next(one for one in PROJECT.assemblies if one.id == "wall-w-f")
        counted = alone(wall)
        asked = PROJECT.basis.targets.R_wall
        assert asked is not None
        d, _ = crossing(counted, PROJECT.catalogue, PROJECT.basis, asked)
        assert d is not None
        there = wall.with_thickness(wall.core_index or 0, value_of(d))
        assert value_of(clear_wall_R(alone(there), PROJECT.catalogue, PROJECT.basis)) == pytest.approx(asked, rel=2e-4)
        once = with_solved(wall, {wall.fixings[0].id: counted.solved_ratio(wall.fixings[0].id) or 0.0})
        carried_over, _ = crossing(once, PROJECT.catalogue, PROJECT.basis, asked)
        assert value_of(carried_over or 0.0) < value_of(d) - 0.01


def alone(assembly: Assembly) -> Assembly:
    """With its points solved, in a project that has nothing else."""
    [found] = solved_here(replace(PROJECT, assemblies=(assembly,), buildings=())).assemblies
    return found


def reached(project: Project) -> float:
    """Core of the roof that reaches what is asked of it. [m]"""
    roof = next(one for one in project.assemblies if one.id == ROOF.id)
    found, _ = crossing(roof, project.catalogue, project.basis, project.basis.targets.R_roof or 0.0, "up")
    return value_of(found or 0.0)

"""Runs of form walls out of shapes: what hangs together, where it ends, bucks, stack joints, gables, and as laid."""

from __future__ import annotations

import itertools
from collections.abc import Callable
from dataclasses import replace

import pytest

from nimble_shell.core.building.body import BodyOpening, BuildingBody
from nimble_shell.core.building.footprint import Plan, footprint
from nimble_shell.core.building.joined import faces_of_building
from nimble_shell.core.building.roof import Roof
from nimble_shell.core.errors import DomainError
from nimble_shell.core.setout.courses.choices import CastIn, FormChoices, ReadBlocks, StackJoint
from nimble_shell.core.setout.courses.courses import Coursed, lay_run
from nimble_shell.core.setout.courses.drawn import courses_drawn, lintels, site_corners
from nimble_shell.core.setout.courses.form_runs import Form, FormRun, filling, form_runs
from nimble_shell.core.setout.courses.laying import NoLaying
from nimble_shell.core.setout.courses.run import check_run
from nimble_shell.core.setout.drift import DriftCase, back_to_nought, mend
from nimble_shell.core.setout.faces import face_marks
from nimble_shell.core.windows.unit import UnitType

FORM = Form(foam_out=0.07, core=0.16, foam_in=0.07, beyond=0.0, one_sided=False)
CHOICES = FormChoices(height=0.4, half=0.2, long=0.8, short=0.4)


def body(plan: Plan = "rectangle", *lengths: float, key: str = "b1", **more: object) -> BuildingBody:
    outline = footprint(plan, *lengths)
    given = {"storeys": (2.4,), "roof": Roof(form="flat"), "wall": "w", **more}
    return BuildingBody(id=key, outline=outline, **given)  # type: ignore[arg-type]  # its fields


def runs_of(*bodies: BuildingBody, openings: tuple[BodyOpening, ...] = (), choices: FormChoices = CHOICES,
            form: Form = FORM) -> list[FormRun]:  # fmt: skip
    faces = faces_of_building(bodies, openings)
    fillings = {one.id: filling(one.mark or one.id, None, choices) for one in openings}
    return form_runs(faces, [one.flat for one in faces], {"w": form}, choices, face_marks(faces), fillings)


@pytest.mark.parametrize(
    ("plan", "lengths", "turns"),
    [("rectangle", (8.0, 6.0), "oooo"), ("L", (10.0, 8.0, 6.0, 4.0), "ooioo o".replace(" ", "")),
     ("U", (12.0, 8.0, 4.0, 4.0), "oooiiooo")],
)  # fmt: skip
def test_a_body_is_one_closed_run_with_a_corner_at_each_of_its_own(
    plan: Plan, lengths: tuple[float, ...], turns: str
) -> None:
    (run,) = runs_of(body(plan, *lengths))
    check_run(run.run)  # it closes
    assert run.run.closed
    assert sorted((one.turn or "")[0] for one in run.run.walls) == sorted(turns)
    outline = footprint(plan, *lengths)
    sides = sorted(
        round(1000 * (abs(a[0] - b[0]) + abs(a[1] - b[1]))) for a, b in itertools.pairwise([*outline, outline[0]])
    )
    assert sorted(round(one.length) for one in run.run.walls) == sides


def test_what_lies_outside_of_the_form_makes_walls_shorter_at_outer_corners_and_longer_at_inner_ones() -> None:
    thick = replace(FORM, beyond=0.1)
    (plain,), (less,) = runs_of(body("L", 10.0, 8.0, 6.0, 4.0)), runs_of(body("L", 10.0, 8.0, 6.0, 4.0), form=thick)
    check_run(less.run)
    turns = [one.turn for one in plain.run.walls]
    for n, (one, other) in enumerate(zip(plain.run.walls, less.run.walls, strict=True)):
        ends = [turns[n - 1], turns[n]]
        assert one.length - other.length == pytest.approx(100 * (ends.count("out") - ends.count("in")))


def test_a_step_in_the_footing_ends_a_run_and_a_lower_wall_is_one_of_its_own() -> None:
    high = body("rectangle", 8.0, 6.0)
    outline = tuple((x + 8.0, y) for x, y in footprint("rectangle", 5.0, 6.0))
    low = BuildingBody(
        id="b2", outline=outline, storeys=(3.0,), base=-0.6, ground=-0.6, roof=Roof(form="flat"), wall="w"
    )
    runs = runs_of(high, low)
    ends = {(wall.left, wall.right) for run in runs for wall in run.walls}
    assert any("step" in pair for pair in ends)
    step = next(run for run in runs if run.run.height == pytest.approx(600))
    assert len(step.walls) == 1
    assert not step.run.closed
    assert {round(run.run.height) for run in runs} == {2400, 3000, 600}


def test_a_gable_is_laid_on_the_grid_of_its_wall_up_to_its_rake() -> None:
    runs = runs_of(body("rectangle", 8.0, 6.0, roof=Roof(form="two pitches", pitch=30, towards=180)))
    gables = [one for one in runs if one.gable]
    assert len(gables) == 2
    found = lay_run(gables[0].run)
    assert isinstance(found, Coursed)
    for course, pieces in zip(gables[0].run.courses(), found.walls[0].courses, strict=True):
        span = gables[0].run.at(course.bottom)
        assert span is not None
        if pieces:
            assert (pieces[0][0], pieces[-1][1]) == pytest.approx(span)
            inner = [b for (_, b), _ in itertools.pairwise(pieces)]
            assert all(abs(x / 200 - round(x / 200)) < 1e-6 for x in inner)
        else:
            assert span[1] - span[0] < gables[0].run.block.min_cut


def test_a_buck_is_its_unit_with_all_that_goes_round_it_and_a_door_has_no_sill() -> None:
    window = BodyOpening(id="w1", body="b1", side=0, u=3.0, sill=0.8, w=1.2, h=1.0, mark="W1")
    door = BodyOpening(id="d1", body="b1", side=1, u=2.0, sill=0.0, w=1.0, h=2.0, mark="D1", kind="door")
    (run,) = runs_of(body("rectangle", 8.0, 6.0), openings=(window, door))
    more = 1000 * CHOICES.round_unit
    first = next(one for one in run.run.openings if one.name == "W1")
    second = next(one for one in run.run.openings if one.name == "D1")
    assert (first.x, first.y, first.w, first.h) == pytest.approx(
        (3000 - more, 800 - more, 1200 + 2 * more, 1000 + 2 * more)
    )
    assert (second.y, second.h) == pytest.approx((0.0, 2000 + more))
    wall = next(n for n, one in enumerate(run.run.walls) if one.name == first.wall)
    (lintel,) = lintels(run.run, wall, 200)
    assert (lintel.x0, lintel.x1) == pytest.approx((first.x - 200, first.right + 200))
    assert lintel.height == pytest.approx(2400 - first.top)


def test_a_length_off_the_webs_is_closed_by_a_stack_joint_where_nothing_stands() -> None:
    (on,) = runs_of(body("rectangle", 8.0, 6.0))
    assert on.run.stacks == {}
    (off,) = runs_of(body("rectangle", 8.05, 6.0))
    assert len(off.run.stacks) == 2
    assert sum(abs(one.off) > 0 for one in off.walls) == 2
    assert isinstance(lay_run(off.run), Coursed)
    moved = replace(CHOICES, stacks=(StackJoint(wall=off.walls[0].id, u=3.2),))
    (chosen,) = runs_of(body("rectangle", 8.05, 6.0), choices=moved)
    assert chosen.run.stacks[chosen.run.walls[0].name] == pytest.approx(3200)


def test_blocks_that_are_drawn_fill_their_courses_and_hold_the_webs_between_them() -> None:
    (run,) = runs_of(body("rectangle", 8.05, 6.0))
    found = lay_run(run.run)
    assert isinstance(found, Coursed)
    for n, wall in enumerate(run.run.walls):
        drawn = courses_drawn(run.run, n, found.walls[n])
        for course in drawn:
            assert course.left + course.right + sum(one.x1 - one.x0 for one in course.blocks) == pytest.approx(
                wall.length
            )
            for one in course.blocks:
                # Webs stand in the middle of each step: one more or less where a piece ends off the grid.
                assert abs(one.webs - (one.x1 - one.x0) / 200) < 1
        bonds = [one.bond for one in drawn if one.bond is not None]
        assert min(bonds) >= 1000 * CHOICES.bond - 1e-6
        hands = {one.left_hand for one in drawn}
        assert hands == {"left", "right"}  # they alternate


def test_mitred_corners_want_two_pieces_a_course_and_a_bead_along_both_panels() -> None:
    (run,) = runs_of(body("rectangle", 8.0, 6.0))
    needed = site_corners(run.run, 20)
    assert (needed.corners, needed.pieces, needed.strong_backs) == (4, 2 * 4 * 6, 8)
    assert needed.foam == pytest.approx(2 * 4 * 2400)


def test_a_stretch_too_narrow_for_a_piece_is_named_with_its_lengths() -> None:
    window = BodyOpening(id="w1", body="b1", side=0, u=0.95, sill=0.4, w=1.2, h=1.2, mark="W1")
    (run,) = runs_of(body("rectangle", 8.0, 6.0), openings=(window,))
    found = lay_run(run.run)
    assert isinstance(found, NoLaying)
    assert "99 mm from 800 mm to 899 mm is narrower" in found.reason
    template = getattr(found.reason, "template", "")
    assert "99" not in template  # said in anybody's units


@pytest.mark.parametrize(
    "wrong",
    [
        lambda: FormChoices(short=0.9),
        lambda: FormChoices(half=0.4),
        lambda: FormChoices(gap_low=0.2, gap_high=0.1),
        lambda: FormChoices(stacks=(StackJoint(wall="a", u=1.0), StackJoint(wall="a", u=2.0))),
        lambda: ReadBlocks(wall="a", courses=((0.0,),)),
        lambda: CastIn(at=(1.0,), spacing=0.4),
        lambda: CastIn(),
    ],
)
def test_what_no_form_is_is_refused(wrong: Callable[[], object]) -> None:
    with pytest.raises(DomainError):
        wrong()


def test_each_joint_brought_back_to_nought_takes_as_many_trims_as_there_are_short_blocks() -> None:
    blocks = (1197.0, 1196.0, 1200.0, 1195.0)
    case = DriftCase(
        nominal=1200, sheets=(1200.0,) * 4, courses=(blocks,), tolerance=6, step=1, max_trim=30, thickness=270
    )
    trims = back_to_nought(case)
    assert trims == (3.0, 4.0, 0.0, 5.0)
    mended = mend(case)
    assert mended is not None
    assert mended.counts[0] < sum(one > 0 for one in trims)


def test_a_lower_wing_meets_the_wall_it_stands_against_in_two_tees() -> None:
    outline = tuple((x + 8.0, y + 2.0) for x, y in footprint("rectangle", 3.0, 2.0))
    wing = BuildingBody(id="b2", outline=outline, storeys=(1.6,), roof=Roof(form="flat"), wall="w")
    runs = runs_of(body("rectangle", 8.0, 6.0), wing)
    low = next(one for one in runs if one.run.height == pytest.approx(1600))
    assert [(one.left, one.right) for one in low.walls] == [("tee", "corner"), ("corner", "corner"), ("corner", "tee")]
    assert next(one for one in runs if one is not low).run.closed


def test_corner_legs_off_the_grid_are_named() -> None:
    (run,) = runs_of(body("rectangle", 8.0, 6.0), choices=replace(CHOICES, long=0.75))
    with pytest.raises(DomainError) as error:
        check_run(run.run)
    assert error.value.issues[0].code == "off_the_grid"
    assert "350 mm is 1.75 increments of 200 mm" in error.value.issues[0].message


def test_a_unit_brings_its_own_shim_and_its_flashing_below_and_says_whether_it_has_a_fin() -> None:
    unit = UnitType(id="u", name="a window", shim=0.012, flashing=0.02, fin=True)
    found = filling("W1", unit, CHOICES)
    assert (found.side, found.head) == pytest.approx((0.05, 0.05))
    assert found.sill == pytest.approx(0.07)
    assert found.fin
    rough = unit.rough()
    assert unit.w + 2 * found.side == pytest.approx(rough[0] + 2 * CHOICES.buck)
    assert unit.h + found.head + found.sill == pytest.approx(rough[1] + 2 * CHOICES.buck)

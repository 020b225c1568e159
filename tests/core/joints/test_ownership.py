"""One owner for each member: what joints take over is what the areas lose, and both together are the solved wall."""

from __future__ import annotations

from dataclasses import replace

import pytest

from nimble_shell.core.assemblies.assembly import Assembly, JointPlace, Member, nominal_share
from nimble_shell.core.assemblies.systems import SYSTEMS
from nimble_shell.core.basis.basis import Basis
from nimble_shell.core.joints.drawing import Board
from nimble_shell.core.joints.families import FAMILIES
from nimble_shell.core.joints.families.family import Owned, Role
from nimble_shell.core.joints.ownership import Taken, left_in, taken_by
from nimble_shell.core.joints.solved import solve_joint
from nimble_shell.core.joints.stack import Stack, stack_of
from nimble_shell.core.materials import CATALOGUE
from nimble_shell.core.thermal.figures import clear_wall_R
from nimble_shell.core.working import value_of

T = {"inside": 20.0, "outside": -10.0}
HEIGHT, LONG = 2.7, 9.6  #: of a wall without openings [m]
AREA = HEIGHT * LONG


def wall(system: str, places: set[JointPlace]) -> Assembly:
    """A shipped wall with the members of some places alone, and no fixings."""
    made = SYSTEMS[system].assembly("w", system)
    layers = tuple(
        replace(layer, members=tuple(member for member in layer.members if member.joint in places))
        for layer in made.layers
    )
    return replace(made, layers=layers, fixings=())


def member_of(assembly: Assembly, place: JointPlace) -> Member:
    return next(member for layer in assembly.layers for member in layer.members if member.joint == place)


def joint(family: str, variant: str, assembly: Assembly, length: float) -> tuple[float, list[Taken]]:
    """What it adds beyond the areas it is measured against [W/K], and what it takes from them."""
    one = FAMILIES[family]
    owned = one.owned(variant)
    places = frozenset(each.place for each in owned)
    stacks: dict[Role, Stack] = {"wall": stack_of(assembly, CATALOGUE, Basis(), owned=places)}
    drawing = one.drawing(variant, stacks, CATALOGUE)
    psi = solve_joint(drawing, T).psi[("inside", "outside")]["internal"]
    return psi * length, [taken_by(each, "w", stacks["wall"], drawing, length) for each in owned]


def H_of(assembly: Assembly, *joints: tuple[float, list[Taken]]) -> float:
    """Of the wall's area and its joints. [W/K]"""
    left = left_in(assembly, AREA, [one for _, takes in joints for one in takes])
    U = 1 / value_of(clear_wall_R(left, CATALOGUE, Basis()))
    return AREA * U + sum(added for added, _ in joints)


def test_corners_alone_leave_every_other_spline_with_the_area() -> None:
    assembly = wall("sip", {"seam", "plate"})
    corners = joint("corner", "lumber", assembly, 4 * HEIGHT / 4)
    bare, with_corners = H_of(assembly), H_of(assembly, corners)
    left = member_of(left_in(assembly, AREA, corners[1]), "seam")
    assert nominal_share(left) == pytest.approx(nominal_share(member_of(assembly, "seam")) * (1 - HEIGHT * 1.2 / AREA))
    # What the corner draws costs more than the one spline in whose place it stands, in internal dimensions less area.
    one_spline = bare - H_of(assembly, (0.0, corners[1]))
    assert with_corners == pytest.approx(bare - one_spline + corners[0])
    assert one_spline < 0.02 * bare


def test_what_joints_take_is_what_the_area_loses_whatever_their_order() -> None:
    assembly = wall("sip", {"seam", "plate"})
    seams, corners = (joint(family, variant, assembly, length) for family, variant, length in
                      (("seam", "double lumber", 10.0), ("corner", "lumber", 5.4)))  # fmt: skip
    one_by_one = left_in(left_in(assembly, AREA, seams[1]), AREA, corners[1])
    at_once = left_in(assembly, AREA, [*corners[1], *seams[1]])
    gone = nominal_share(member_of(assembly, "seam")) - nominal_share(member_of(at_once, "seam"))
    assert gone * AREA == pytest.approx((10.0 + 5.4) * 0.076)
    assert member_of(at_once, "plate") == member_of(assembly, "plate")
    assert nominal_share(member_of(one_by_one, "seam")) < nominal_share(member_of(assembly, "seam"))


def test_foot_and_head_take_the_plates_of_one_storey_between_them() -> None:
    for system in ("sip", "cassette", "straw-bale", "site-framing"):
        assembly = wall(system, {"plate"})
        stack = stack_of(assembly, CATALOGUE, Basis(), owned=frozenset({"plate"}))
        sketch = Board().done((0, 0, 1, 1))
        high = member_of(assembly, "plate").centres
        assert high is not None
        long = AREA / high
        foot, head = (
            taken_by(Owned(role="wall", place="plate", lines=part), "w", stack, sketch, long)
            for part in ("foot", "head")
        )  # fmt: skip
        assert 0 < foot.area(member_of(assembly, "plate")) <= head.area(member_of(assembly, "plate"))
        assert not any(layer.members for layer in left_in(assembly, AREA, [foot, head]).layers)


def test_a_share_without_a_width_is_taken_by_what_is_drawn() -> None:
    assembly = wall("site-framing", {"frame"})
    corners = joint("corner", "studs", assembly, 10.8)
    [frame] = [one for one in corners[1] if one.place == "frame"]
    assert 2 * 0.038 < frame.drawn < 3 * 0.038  # the outer stud stands between the others
    left = member_of(left_in(assembly, AREA, corners[1]), "frame")
    assert (0.06 - nominal_share(left)) * AREA == pytest.approx(frame.drawn * 10.8)


@pytest.mark.parametrize("length", [0.0, 1e4])
def test_no_length_takes_nothing_and_no_joint_takes_more_than_there_is(length: float) -> None:
    assembly = wall("sip", {"seam", "plate"})
    taken = [Taken(assembly_id="w", place="seam", lines=1.0, drawn=0.0, length=length)]
    left = left_in(assembly, AREA, taken)
    if length:
        assert {member.joint for layer in left.layers for member in layer.members} == {"plate"}
    else:
        assert left is assembly


def test_another_build_up_and_an_unknown_area_keep_what_they_have() -> None:
    assembly = wall("sip", {"seam"})
    taken = [Taken(assembly_id="other", place="seam", lines=1.0, drawn=0.0, length=10.0)]
    assert left_in(assembly, AREA, taken) is assembly
    assert left_in(assembly, 0.0, [replace(taken[0], assembly_id="w")]) is assembly

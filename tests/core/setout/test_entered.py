"""Plates with their butt joints, anchors and screws of an entered pattern, hands: against counts and by trying."""

from __future__ import annotations

import itertools
import random
from dataclasses import replace

import pytest

from nimble_shell.core.assemblies.systems import SYSTEMS
from nimble_shell.core.errors import DomainError
from nimble_shell.core.fixings.kinds import started
from nimble_shell.core.setout.alike import alike
from nimble_shell.core.setout.anchoring import Anchor, NoAnchor, anchors_of
from nimble_shell.core.setout.choices import SetOutChoices
from nimble_shell.core.setout.elevation import Elevation, Opening, bands_of
from nimble_shell.core.setout.entered import Anchors, EnteredPost, Screws, Sensor
from nimble_shell.core.setout.faces import FaceSetOut, Marked
from nimble_shell.core.setout.panels import SetOut, set_out
from nimble_shell.core.setout.plates import Plate, butted, plates_of
from nimble_shell.core.setout.points import NoPoint, fewest_points
from nimble_shell.core.setout.rules import Blank, Objective, Rules
from nimble_shell.core.setout.systems import PanelRules
from nimble_shell.core.setout.timber import Timber, from_set_out
from nimble_shell.core.shop.screwing import screwed

RULES = Rules(layout="free", step=100.0, joint_at_edge=True, at_opening="either", edge_clear=150.0, min_strip=300.0,
              blanks=(Blank(width=1200.0, length=3000.0),), module_widths=(1200.0,))  # fmt: skip


def face_of(elevation: Elevation, kind: str = "wall") -> FaceSetOut:
    found = set_out(elevation, RULES, Objective(order=("panels", "off_module", "members")))
    assert isinstance(found, SetOut)
    panels = tuple(Marked(mark=f"A-{n:02d}", panel=one) for n, one in enumerate(found.panels, 1))
    rules = PanelRules(rules=RULES, words="sheets", spline="spline")
    return FaceSetOut(face="a", mark="A", kind=kind, zone="e1", elevation=elevation, shift=(0.0, 0.0), rules=rules,
                      openings=tuple(one.name for one in elevation.openings), pins=(), found=found,
                      panels=panels)  # fmt: skip


def box(length: float, *openings: Opening) -> Elevation:
    return Elevation(outline=((0, 0), (length, 0), (length, 2700), (0, 2700)), openings=openings)


def by_trying(length: int, end: int, spacing: int, blocked: list[tuple[int, int]]) -> int | None:
    free = [x for x in range(length + 1) if not any(a < x < b for a, b in blocked)]
    for count in range(1, len(free) + 1):
        for some in itertools.combinations(free, count):
            near = some[0] <= end and some[-1] >= length - end
            if near and all(b - a <= spacing for a, b in itertools.pairwise(some)):
                return count
    return None


@pytest.mark.parametrize("seed", range(40))
def test_no_fewer_points_do(seed: int) -> None:
    chance = random.Random(seed)
    length, end, spacing = chance.randint(4, 11), chance.randint(1, 3), chance.randint(1, 5)
    starts = [chance.randint(0, length) for _ in range(chance.randint(0, 3))]
    blocked = [(a, a + chance.randint(1, 4)) for a in starts]
    found = fewest_points(length, end=end, spacing=spacing, step=1, blocked=blocked)
    least = by_trying(length, end, spacing, blocked)
    if least is None:
        assert isinstance(found, NoPoint)
    else:
        assert not isinstance(found, NoPoint)
        assert len(found) == least
        assert found[0] <= end
        assert found[-1] >= length - end
        assert all(b - a <= spacing for a, b in itertools.pairwise(found))
        assert not any(a < x < b for x in found for a, b in blocked)


def test_plates_end_at_steps_and_at_doors() -> None:
    stepped = Elevation(
        outline=((0, 0), (3000, 0), (3000, 600), (6000, 600), (6000, 3200), (0, 3200)),
        openings=(Opening(name="D1", x=600, y=0, w=900, h=2100),),
    )
    bottom, top = plates_of(bands_of(stepped)[0], "bottom"), plates_of(bands_of(stepped)[0], "top")
    assert [(one.x0, one.x1, one.y0) for one in bottom] == [(0, 600, 0), (1500, 3000, 0), (3000, 6000, 600)]
    assert [(one.x0, one.x1) for one in top] == [(0, 6000)]


@pytest.mark.parametrize("slope", [0.0, 0.4])
def test_a_plate_is_butted_clear_of_joints_and_out_of_the_fewest_bars(slope: float) -> None:
    plate = Plate(band=0, line="top", x0=500.0, y0=0.0, x1=12500.0, y1=12000.0 * slope)
    joints = [500.0 + 1200 * n for n in range(1, 10)]
    made = butted(plate, 4800.0, joints, 150.0)
    assert isinstance(made, Plate)
    assert sum(made.pieces) == pytest.approx(plate.length)
    assert max(made.pieces) <= 4800.0 + 1e-6
    assert len(made.pieces) == -(-plate.length // 4800.0)
    assert all(abs(x - joint) >= 150.0 - 1e-6 for x in made.butts for joint in joints)
    over = butted(plate, 4800.0, joints, 150.0, made.butts, 600.0)
    assert isinstance(over, Plate)
    assert all(abs(x - below) >= 600.0 - 1e-6 for x in over.butts for below in made.butts)


def test_anchors_keep_clear_of_joints_and_doors_or_say_why() -> None:
    face = face_of(box(6000, Opening(name="D1", x=2400, y=0, w=900, h=2100)))
    pattern = Anchors(name="AB1", spacing=1.2, end=0.3, clear=0.05, by="the engineer")
    found = anchors_of(face, [pattern])
    assert all(isinstance(one, Anchor) for one in found)
    xs = [one.x for one in found if isinstance(one, Anchor)]
    joints = [one.x for one in face.members()]
    assert all(abs(x - joint) >= 38 + 50 - 1e-6 for x in xs for joint in joints)
    assert not any(2400 < x < 3300 for x in xs)
    for a, b in ((0, 2400), (3300, 6000)):
        own = [x for x in xs if a <= x <= b]
        assert own[0] - a <= 300
        assert b - own[-1] <= 300
        assert all(later - x <= 1200 for x, later in itertools.pairwise(own))
    none = anchors_of(face, [replace(pattern, clear=0.9)])
    assert any(isinstance(one, NoAnchor) for one in none)
    placed = Anchors(name="HD1", kind="hold_down", face="a", at=(joints[0] / 1000, 2.8, 0.5))
    at_joint, at_door, free = anchors_of(face, [placed])
    assert isinstance(at_joint, Anchor)
    assert "stands nearer than" in at_joint.problem
    assert isinstance(at_door, NoAnchor)
    assert isinstance(free, Anchor)
    assert not free.problem
    assert free.panel == "A-01"
    assert anchors_of(face, [replace(pattern, face="b")]) == ()


def test_screws_are_counted_line_by_line() -> None:
    """One joint, four lines of it; two panels along both plates, in both skins."""
    face = face_of(box(2400))
    found = screwed(face, Screws(spacing=0.15, end=0.05, through=0.6))
    assert [one.x for one in face.members()] == [1200.0]
    upright, along = 19, 9  # ⌈2600/150⌉ + 1, ⌈1100/150⌉ + 1
    assert found.skins == 4 * upright + 2 * 2 * 2 * along
    assert found.through == 2 * 2 * 3  # ⌈1100/600⌉ + 1 on each panel, below and above


def test_panels_that_mirror_one_another_have_hands() -> None:
    """A gable's two halves; and a window off the middle makes a hand, in the middle none."""
    gable = Elevation(outline=((0, 0), (2400, 0), (2400, 1500), (1200, 2700), (0, 1500)))
    halves = face_of(gable)
    found = alike([("w", one, ()) for one in halves.panels])
    assert {one.hand for one in found.values()} == {"left", "right"}
    assert len({one.shape for one in found.values()}) == 1
    plain = face_of(box(1200)).panels[0]
    middle = alike([("w", plain, ((300.0, 900.0, 600.0, 900.0),))])
    off = alike([("w", plain, ((200.0, 900.0, 600.0, 900.0),))])
    assert middle["A-01"].hand == ""
    assert off["A-01"].hand != ""


def test_what_cannot_be_entered_is_refused_where_it_stands() -> None:
    with pytest.raises(DomainError, match="places and a spacing"):
        Anchors(name="X", face="a", at=(1.0,), spacing=1.0)
    with pytest.raises(DomainError, match="places along no face"):
        Anchors(name="X", at=(1.0,))
    with pytest.raises(DomainError):
        EnteredPost(face="a", u=1.0, width=2.0)
    with pytest.raises(DomainError):
        Screws(spacing=0.0)
    twice = Sensor(name="S1", face="a", u=1.0, v=1.0)
    with pytest.raises(DomainError) as told:
        SetOutChoices(sensors=(twice, twice))
    assert told.value.issues[0].path == ("sensors", 1, "name")


def test_screws_through_the_core_are_as_many_points_as_were_counted() -> None:
    roof = SYSTEMS["sip-roof"].assembly("roof", "SIP roof")
    assert roof.core_index is not None
    core = roof.layers[roof.core_index].id
    screws, washers = started("screw", roof, core, "f1"), started("web", roof, core, "f2")
    fixed = replace(roof, fixings=(screws, washers))
    timber = Timber(area=20.0, panels=4, splines=12.0, bottom=8.0, top=8.0, through=90)
    after, other = from_set_out(fixed, timber).fixings
    assert after.per_area == pytest.approx(4.5)
    assert other == washers, "webs are not screws"
    assert from_set_out(fixed, replace(timber, through=0)).fixings[0] == screws

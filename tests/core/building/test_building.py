"""Bodies as they are drawn: their faces close, roofs cover their plan, and how a body is cut changes nothing."""

from __future__ import annotations

import math
from dataclasses import replace
from typing import Any

import pytest
import shapely
from core.geometry.test_takeoff import figures
from hypothesis import given
from hypothesis import strategies as st

from nimble_shell.core.building.body import BodyOpening, BodySide, BuildingBody, WallPart, faces_of
from nimble_shell.core.building.footprint import Outline, checked, footprint
from nimble_shell.core.building.joined import faces_of_building, floor_lines_of
from nimble_shell.core.building.roof import Roof, pitch_of, planes, rise_of, run_of
from nimble_shell.core.errors import DomainError
from nimble_shell.core.takeoff.takeoff import Takeoff, take_off

RECTANGLE = footprint("rectangle", 9.6, 7.2)
L_PLAN = footprint("L", 12.0, 9.0, 5.0, 3.5)
T_PLAN = footprint("T", 13.0, 9.0, 4.2, 4.0)
U_PLAN = footprint("U", 14.0, 9.0, 4.0, 3.1)
SKEW = checked([(0, 0), (8, 1), (10, 6), (3, 7.5)])
TURNED = checked([(x * 0.8 - y * 0.6, x * 0.6 + y * 0.8) for x, y in L_PLAN])
PLANS = {"rectangle": RECTANGLE, "L": L_PLAN, "T": T_PLAN, "U": U_PLAN, "skew": SKEW, "turned L": TURNED}
ROOFS = (Roof(), Roof(form="one pitch", pitch=12, towards=180), Roof(form="two pitches", pitch=35, towards=180),
         Roof(form="two pitches", pitch=30, towards=90), Roof(form="two pitches", pitch=30, towards=37),
         Roof(form="hip", pitch=28))  # fmt: skip
THICK = {"wall": 0.3, "roof": 0.35, "floor": 0.25}

ZONES = {"wall": "wall", "top": "roof", "floor": "floor"}


def body(outline: Outline = RECTANGLE, **more: Any) -> BuildingBody:
    return BuildingBody(**{"id": "b", "outline": outline, "storeys": (2.8,)} | ZONES | more)


def taken(*bodies: BuildingBody, openings: tuple[BodyOpening, ...] = ()) -> Takeoff:
    return take_off(faces_of_building(bodies, openings, THICK), "external", floor_lines_of(bodies, 0.3))


@pytest.mark.parametrize("roof", ROOFS, ids=lambda one: f"{one.form} {one.towards:g}")
@pytest.mark.parametrize("plan", PLANS)
def test_a_roof_covers_its_plan_and_the_body_is_closed(plan: str, roof: Roof) -> None:
    outline = PLANS[plan]
    area = shapely.Polygon(outline).area
    found = take_off(faces_of_building([body(outline, roof=roof)], (), THICK), "external")
    assert found.areas["roof|outside"].gross.external == pytest.approx(
        area / math.cos(math.radians(roof.pitch)), rel=1e-6
    )
    low, high = area * 2.8, area * (2.8 + rise_of(outline, roof))
    assert low - 1e-9 <= found.volume.external <= high + 1e-9


def test_a_hip_over_an_L_has_a_valley_and_five_hips() -> None:
    joints = taken(body(L_PLAN, roof=Roof(form="hip", pitch=45))).joints
    assert set(joints) >= {"hip", "valley", "ridge", "eave"}
    # At 45 degrees a hip over a square corner rises as far as it goes inwards: its length is the inset times root three.
    assert joints["eave"]["outside"].external == pytest.approx(42.0)


def test_a_pitch_and_a_ridge_say_the_same() -> None:
    for outline, roof in ((RECTANGLE, ROOFS[1]), (L_PLAN, ROOFS[2]), (U_PLAN, ROOFS[5])):
        assert pitch_of(outline, roof, rise_of(outline, roof)) == pytest.approx(roof.pitch, rel=1e-12)
    assert rise_of(RECTANGLE, Roof(form="two pitches", pitch=45)) == pytest.approx(3.6)
    assert rise_of(RECTANGLE, Roof(form="hip", pitch=45)) == pytest.approx(3.6)
    assert rise_of(RECTANGLE, Roof(form="one pitch", pitch=45)) == pytest.approx(7.2)
    assert run_of(RECTANGLE, Roof(form="hip", pitch=20)) == run_of(RECTANGLE, Roof(form="hip", pitch=60))
    assert run_of(RECTANGLE, Roof(form="two pitches", pitch=20)) == pytest.approx(3.6)


@pytest.mark.parametrize("roof", ROOFS[:2], ids=lambda one: one.form)
@given(at=st.floats(1.0, 8.0))
def test_a_body_cut_in_two_without_a_gap_is_the_same(roof: Roof, at: float) -> None:
    west = body(checked([(0, 0), (at, 0), (at, 7.2), (0, 7.2)]), id="w", roof=roof)
    east = body(checked([(at, 0), (9.6, 0), (9.6, 7.2), (at, 7.2)]), id="e", roof=roof)
    assert figures(taken(west, east)) == pytest.approx(figures(taken(body(roof=roof))), rel=1e-6)


def test_a_wing_leaves_the_wall_above_it() -> None:
    house = body(storeys=(2.8, 2.7), roof=Roof(form="two pitches", pitch=35))
    wing = body(checked([(9.6, 1.0), (14.0, 1.0), (14.0, 5.0), (9.6, 5.0)]), id="wing",
                roof=Roof(form="one pitch", pitch=10, towards=90), storeys=(2.6,))  # fmt: skip
    found = taken(house, wing)
    rise = 4.4 * math.tan(math.radians(10))
    assert found.joints["abutment"]["outside"].external == pytest.approx(4.0)
    assert found.joints["corner_in"]["outside"].external == pytest.approx(2 * (2.6 + rise), rel=1e-6)
    alone = [taken(one).volume.external for one in (house, wing)]
    assert found.volume.external == pytest.approx(sum(alone), rel=1e-6)
    assert found.ground is not None
    assert found.ground.P.external == pytest.approx(2 * (9.6 + 7.2) + 2 * 4.4, rel=1e-6)


def test_a_basement_lies_below_the_ground_line_and_under_the_house() -> None:
    house = body(ground=None)
    cellar = body(id="cellar", base=-2.5, storeys=(2.5,), ground=-0.3)
    found = taken(house, cellar)
    assert found.areas["wall|ground"].gross.external == pytest.approx(33.6 * 2.2)
    assert found.areas["wall|outside"].gross.external == pytest.approx(33.6 * (2.8 + 0.3))
    assert set(found.areas) == {"wall|ground", "wall|outside", "floor|ground", "roof|outside"}


def test_a_tower_on_a_flat_roof_leaves_a_ring() -> None:
    low = body(storeys=(3.0,))
    tower = body(checked([(3, 2), (6, 2), (6, 5), (3, 5)]), id="tower", base=3.0, storeys=(2.5,), ground=None)
    found = taken(low, tower)
    assert found.areas["roof|outside"].gross.external == pytest.approx(9.6 * 7.2)
    assert found.joints["abutment"]["outside"].external == pytest.approx(12.0)


def test_party_sides_and_storeys_are_told_apart() -> None:
    found = taken(body(storeys=(2.7, 2.6), sides=(BodySide(number=1, beyond="heated"),)))
    assert found.areas["wall|heated"].gross.external == pytest.approx(7.2 * 5.3)
    assert found.joints["floor_line"]["outside"].external == pytest.approx(9.6 * 2 + 7.2)


def test_an_opening_goes_with_the_part_that_it_lies_in() -> None:
    opening = BodyOpening(id="o", body="b", side=0, u=1.0, sill=1.2, w=1.2, h=1.4)
    house = body(storeys=(2.8,), base=-1.0)
    assert [one.id for one in faces_of(house, [opening]) if one.openings] == ["b.1"]
    with pytest.raises(DomainError, match="leaves its face"):  # over the ground line, and where all lies below it
        faces_of(replace(house, ground=0.5), [opening])
    with pytest.raises(DomainError, match="leaves its face"):
        faces_of(replace(house, ground=3.0), [replace(opening, sill=2.0)])
    wing = body(checked([(1.0, -4.0), (5.0, -4.0), (5.0, 0.0), (1.0, 0.0)]), id="wing")
    with pytest.raises(DomainError, match="another body touches"):
        taken(body(), wing, openings=(replace(opening, sill=0.9),))


def test_a_face_changes_its_build_up() -> None:
    """Forms below and panels above, and a strip between: areas by zone, and nothing of the wall is lost."""
    plain, zoned = taken(body()), body(
        parts=(WallPart(side=0, zone="forms", low=0.0, high=1.0), WallPart(side=2, zone="wet", low=0.4, high=2.0, left=2.0,
                                                                          right=5.0)))  # fmt: skip
    faces = faces_of(zoned)
    found = take_off(faces, "external")
    by_zone = {zone: sum(found.faces[one.id].gross.external for one in faces if one.zone == zone)
               for zone in ("wall", "forms", "wet")}  # fmt: skip
    assert by_zone["forms"] == pytest.approx(9.6)
    assert by_zone["wet"] == pytest.approx(4.8)
    assert sum(by_zone.values()) == pytest.approx(plain.areas["wall|outside"].gross.external)
    assert found.volume.external == pytest.approx(plain.volume.external)


def test_a_floor_of_one_body_is_none_of_its_neighbour() -> None:
    house = body(storeys=(2.7, 2.7))
    hall = body(checked([(9.6, 0), (14, 0), (14, 7.2), (9.6, 7.2)]), id="hall", storeys=(5.4,))
    assert taken(house, hall).joints["floor_line"]["outside"].external == pytest.approx(2 * 9.6 + 7.2)


@pytest.mark.parametrize(
    ("make", "code"),
    [
        (lambda: checked([(0, 0), (8, 0)]), "too_few_corners"),
        (lambda: checked([(0, 0), (8, 0), (0, 6), (8, 6)]), "footprint_crosses"),
        (lambda: checked([(0, 0), (8000, 0), (8000, 6000)]), "side_out_of_range"),
        (lambda: checked([(0, 0), (8, 0), (8, 0), (0, 6)]), "side_out_of_range"),
        (lambda: footprint("U", 10.0, 8.0, 5.0, 3.0), "arm_too_wide"),
        (lambda: footprint("L", 10.0, 8.0, 5.0, 8.0), "arm_too_deep"),
        (lambda: body(storeys=()), "no_storey"),
        (lambda: body(storeys=(0.0,)), "storey_out_of_range"),
        (lambda: body(storeys=(40.0,)), "storey_out_of_range"),
        (lambda: body(sides=(BodySide(number=9),)), "unknown_side"),
        (lambda: BodyOpening(id="o", body="b", side=0, u=0, sill=0, w=0, h=1), "opening_size"),
        (lambda: body(base=-40.0), "base_out_of_range"),
        (lambda: planes(RECTANGLE, Roof(form="two pitches", pitch=0.0)), "pitch_out_of_range"),
        (lambda: planes(checked([(0, 0), (8, 0), (5, 3), (8, 7), (0, 7)]), Roof(form="hip", pitch=30)), "no_hip"),
        (lambda: taken(body(), body(id="c")), "bodies_overlap"),
    ],
)
def test_what_cannot_be_built_is_refused(make: Any, code: str) -> None:
    with pytest.raises(DomainError) as error:
        make()
    assert error.value.issues[0].code == code

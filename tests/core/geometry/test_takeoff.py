"""Areas, joints and volume of bodies: closed forms, and what no turn, mirror, order or scale may change."""

from __future__ import annotations

import math
from collections.abc import Sequence
from dataclasses import replace
from typing import Any

import numpy as np
import pytest
import shapely
from core.geometry import houses
from hypothesis import given
from hypothesis import strategies as st

from nimble_shell.core.errors import DomainError
from nimble_shell.core.geometry.closed import close
from nimble_shell.core.geometry.face import Face, Opening
from nimble_shell.core.takeoff.edges import edges_of
from nimble_shell.core.takeoff.takeoff import FloorLine, Partition, Takeoff, take_off

PLANS = (houses.L_PLAN, houses.U_PLAN, houses.SKEW_PLAN)
HOUSES = (houses.gable(9.6, 7.2, 2.7, 35.0), houses.hip(11.0, 7.0, 2.8, 30.0), *(houses.prism(plan) for plan in PLANS))
sizes = st.floats(4.0, 15.0)


def figures(found: Takeoff) -> dict[str, Any]:
    """Everything of it that is a number, by name."""
    flat: dict[str, Any] = {"A_E": found.envelope, "V_e": found.volume.external, "V_i": found.volume.overall_internal}
    for key, one in found.areas.items():
        flat[f"{key} e"], flat[f"{key} o"], flat[f"{key} i"] = (
            one.gross.external, one.gross.overall_internal, one.net.internal,
        )  # fmt: skip
    for kind, by in found.joints.items():
        for to, length in by.items():
            flat[f"{kind} {to} e"], flat[f"{kind} {to} o"] = length.external, length.overall_internal
    if found.ground and found.ground.B:
        flat["P"], flat["B"] = found.ground.P.external, found.ground.B.overall_internal
    return flat


def same(one: Sequence[Face], other: Sequence[Face], lines: Sequence[FloorLine] = ()) -> None:
    assert figures(take_off(one, "external", lines)) == pytest.approx(
        figures(take_off(other, "external", lines)), rel=1e-9
    )


@pytest.mark.parametrize("plan", PLANS)
def test_a_prism_is_its_plan_times_its_height(plan: houses.Plan) -> None:
    found = take_off(houses.prism(plan), "external")
    inner = shapely.Polygon(plan).buffer(-0.3, join_style="mitre")
    assert found.volume.external == pytest.approx(3.0 * shapely.Polygon(plan).area, rel=1e-12)
    assert found.volume.overall_internal == pytest.approx((3.0 - 0.25 - 0.35) * inner.area, rel=1e-12)
    assert found.areas["wall|outside"].gross.external == pytest.approx(3.0 * shapely.Polygon(plan).length, rel=1e-12)
    assert found.joints["eave"]["outside"].overall_internal == pytest.approx(inner.length, rel=1e-12)
    assert found.ground is not None
    assert found.ground.P.external == pytest.approx(shapely.Polygon(plan).length, rel=1e-12)


def test_inner_and_outer_corners_are_told_apart() -> None:
    found = take_off(houses.prism(houses.U_PLAN), "external")
    assert found.joints["corner_in"]["outside"].external == pytest.approx(2 * 3.0)
    assert found.joints["corner_out"]["outside"].external == pytest.approx(6 * 3.0)


@given(long=sizes, wide=sizes, pitch=st.floats(5.0, 60.0))
def test_a_house_with_two_pitches(long: float, wide: float, pitch: float) -> None:
    found = take_off(houses.gable(long, wide, 2.7, pitch), "external")
    slope = wide / 2 / math.cos(math.radians(pitch))
    rise = wide / 2 * math.tan(math.radians(pitch))
    assert found.volume.external == pytest.approx(long * wide * (2.7 + rise / 2), rel=1e-9)
    lengths = {kind: by["outside"].external for kind, by in found.joints.items() if "outside" in by}
    assert lengths == pytest.approx(
        {"corner_out": 4 * 2.7, "eave": 2 * long, "verge": 4 * slope, "ridge": long}, rel=1e-9
    )


@given(wide=st.floats(4.0, 9.0), more=st.floats(0.5, 6.0), pitch=st.floats(5.0, 50.0))
def test_a_hip_roof(wide: float, more: float, pitch: float) -> None:
    found = take_off(houses.hip(wide + more, wide, 2.7, pitch), "external")
    along = math.hypot(wide / 2, wide / 2, wide / 2 * math.tan(math.radians(pitch)))
    assert found.joints["hip"]["outside"].external == pytest.approx(4 * along, rel=1e-9)
    assert found.joints["ridge"]["outside"].external == pytest.approx(more, rel=1e-9)
    assert found.areas["roof|outside"].gross.external == pytest.approx(
        (wide + more) * wide / math.cos(math.radians(pitch)), rel=1e-9
    )


@pytest.mark.parametrize("house", HOUSES)
@given(by=st.floats(-360, 360), east=st.floats(-2000, 2000), up=st.floats(-50, 50))
def test_it_may_stand_anywhere(house: list[Face], by: float, east: float, up: float) -> None:
    same(house, houses.turned(house, by, east, -east / 3, up))


@pytest.mark.parametrize("house", HOUSES)
def test_order_direction_and_mirror_change_nothing(house: list[Face]) -> None:
    backwards = [replace(one, outline=one.outline[::-1]) for one in reversed(house)]
    begun_elsewhere = [replace(one, outline=(*one.outline[2:], *one.outline[:2])) for one in house]
    same(house, backwards, [FloorLine(z=1.0)])
    same(house, begun_elsewhere, [FloorLine(z=1.0)])
    same(house, houses.mirrored(house), [FloorLine(z=1.0)])


@pytest.mark.parametrize("house", HOUSES)
def test_areas_go_with_the_square_of_a_scale(house: list[Face]) -> None:
    one, two = take_off(house, "external"), take_off(houses.scaled(house, 1.7), "external")
    assert two.envelope == pytest.approx(1.7**2 * one.envelope, rel=1e-9)
    assert two.volume.overall_internal == pytest.approx(1.7**3 * one.volume.overall_internal, rel=1e-9)
    for kind, by in one.joints.items():
        for to, length in by.items():
            assert two.joints[kind][to].overall_internal == pytest.approx(1.7 * length.overall_internal, rel=1e-9)


@pytest.mark.parametrize("house", HOUSES)
def test_a_closed_body_faces_all_ways_alike(house: list[Face]) -> None:
    found = take_off(house, "external")
    for placed in found.placed.values():
        assert placed.gross @ placed.body.normals == pytest.approx(np.zeros(3), abs=1e-9)


@pytest.mark.parametrize("house", HOUSES)
def test_what_is_measured_inside_comes_out_again(house: list[Face]) -> None:
    out = take_off(house, "external")
    back = take_off(houses.by_its_planes(out.placed["overall_internal"]), "overall_internal")
    assert figures(back) == pytest.approx(figures(out), rel=1e-9)


@pytest.mark.parametrize("house", HOUSES)
def test_inner_dimensions_are_no_larger_than_outer_ones(house: list[Face]) -> None:
    found = take_off(house, "external", [FloorLine(z=1.2, thickness=0.2)])
    for one in found.faces.values():
        assert one.gross.internal <= one.gross.overall_internal <= one.gross.external


def test_a_wall_in_two_parts_is_the_same_wall() -> None:
    house = houses.gable(9.6, 7.2, 2.7, 35.0)
    whole = house[0]
    low, high = 1.1, 2.7
    parts = [replace(whole, id="S1", outline=((0, 0), (9.6, 0), (9.6, low), (0, low))),
             replace(whole, id="S2", outline=((0, low), (9.6, low), (9.6, high), (0, high)))]  # fmt: skip
    same(house, [*parts, *house[1:]], [FloorLine(z=2.0)])


def test_a_floor_line_passes_its_openings_and_takes_its_thickness() -> None:
    house = houses.prism([(0, 0), (8, 0), (8, 6), (0, 6)], 0.0, 5.4)
    house[0] = replace(house[0], openings=(Opening(id="o", u=1, v=1.5, w=1.2, h=2.0),))
    found = take_off(house, "external", [FloorLine(z=2.7, thickness=0.3), FloorLine(z=5.4)],
                     [Partition(faces=("w0", "w2"), thickness=0.1, length=4.8)])  # fmt: skip
    line = found.joints["floor_line"]["outside"]
    assert (line.external, line.overall_internal) == pytest.approx((28 - 1.2, 25.6 - 1.2))
    south = found.faces["w0"]
    assert south.gross.internal == pytest.approx(7.4 * 4.8 - 0.3 * (7.4 - 1.2) - 0.1 * 4.8)
    assert south.net.external == pytest.approx(8 * 5.4 - 2.4)


def test_the_perimeter_is_exposed_where_nobody_heats_beyond() -> None:
    house = houses.prism([(0, 0), (8, 0), (8, 6), (0, 6)])
    house[1] = replace(house[1], to="heated")
    found = take_off(house, "external").ground
    assert found is not None
    assert found.P.external == pytest.approx(22.0)
    assert found.P.overall_internal == pytest.approx(2 * 7.4 + 5.4)


def refused(faces: Sequence[Face]) -> tuple[str, tuple[str | int, ...]]:
    with pytest.raises(DomainError) as error:
        take_off(faces, "external")
    return error.value.issues[0].code, error.value.issues[0].path


def test_what_does_not_close_is_refused_where_it_is_open() -> None:
    house = houses.gable(9.6, 7.2, 2.7, 35.0)
    assert refused(house[:-1])[0] == "edge_open"
    assert refused([*house, replace(house[0], id="again")])[0] == "edge_met_twice"
    assert refused([*house, house[0]]) == ("id_twice", ("faces", 7))
    assert refused([]) == ("no_faces", ("faces",))


def test_what_is_turned_inside_out_is_refused() -> None:
    inwards = [replace(one, azimuth=one.azimuth + 180, outline=tuple((-u, z) for u, z in one.outline))
               for one in houses.prism(houses.L_PLAN) if one.kind == "wall"]  # fmt: skip
    caps = [one for one in houses.prism(houses.L_PLAN) if one.kind != "wall"]
    assert refused([*inwards, *caps])[0] in {"edge_open", "edge_met_twice", "inside_out"}


def test_planes_that_do_not_meet_are_refused_with_how_much_they_miss() -> None:
    house = houses.hip(11.0, 7.0, 2.8, 30.0)
    thick = [replace(one, thickness=0.5) if one.id == "R90" else one for one in house]
    with pytest.raises(DomainError, match="miss one another by"):
        take_off(thick, "external")


def test_thicker_than_the_house_is_refused() -> None:
    thick = [replace(one, thickness=4.2) for one in houses.prism(houses.L_PLAN)]
    assert refused(thick)[0] == "edge_eaten"


@pytest.mark.parametrize(
    ("change", "code"),
    [
        ({"outline": ((0, 0), (8, 0), (0, 3), (8, 3))}, "outline_crosses"),
        ({"outline": ((0, 0), (8, 0))}, "too_few_corners"),
        ({"outline": ((0, 0), (8, 0), (8, 0), (0, 3))}, "zero_edge"),
        ({"thickness": -0.1}, "thickness_negative"),
        ({"pitch": 90.0}, "pitch_out_of_range"),
        ({"openings": (Opening(id="o", u=7.5, v=1, w=1, h=1),)}, "opening_outside"),
        ({"openings": (Opening(id="o", u=1, v=1, w=0, h=1),)}, "size_not_positive"),
        ({"openings": (Opening(id="o", u=1, v=1, w=1, h=1), Opening(id="p", u=1.5, v=1, w=1, h=1))}, "openings_overlap"),
        ({"openings": (Opening(id="o", u=1, v=1, w=1, h=1), Opening(id="o", u=3, v=1, w=1, h=1))}, "id_twice"),
    ],
)  # fmt: skip
def test_a_face_that_cannot_be_is_refused(change: dict[str, Any], code: str) -> None:
    face = Face(id="w", kind="wall", outline=((0, 0), (8, 0), (8, 3), (0, 3)))
    with pytest.raises(DomainError) as error:
        replace(face, **change)
    assert error.value.issues[0].code == code


def test_a_body_that_closes_alike_has_the_joints_of_its_own_elements() -> None:
    plan = ((0.0, 0.0), (4.0, 0.0), (8.0, 0.0), (8.0, 6.0), (0.0, 6.0))
    body = close(houses.prism(plan))
    apart = body.of([replace(one, zone=one.id) for one in body.faces])
    thicker = body.of([replace(one, thickness=2 * one.thickness) for one in body.faces])
    assert "change" not in {one.kind for one in edges_of(body)}
    assert [one.kind for one in edges_of(apart)].count("change") == 1
    assert edges_of(thicker) == edges_of(body)

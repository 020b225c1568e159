"""The body that a model makes: plan, storeys, roof and north, however the model is turned."""

from __future__ import annotations

import math
from pathlib import Path

import numpy as np
import pytest
import shapely

from nimble_shell.core.building.body import BuildingBody, faces_of
from nimble_shell.core.shell.project import Building, ShellElement
from nimble_shell.core.takeoff.takeoff import take_off
from nimble_shell.formats.reading.ifc import read_ifc
from nimble_shell.formats.reading.plan import RoofPlate, body_of
from nimble_shell.formats.reading.reading import ReadBody
from nimble_shell.services.read_bodies import body_from, differences, not_drawn

IFC = Path(__file__).parent / "reading" / "ifc"
ELEMENTS = (
    ShellElement(id="r", station="B", name="Roof"),
    ShellElement(id="w", station="D", name="Wall"),
    ShellElement(id="f", station="H", name="Floor"),
)


def read(name: str) -> ReadBody:
    body = read_ifc(next(IFC.glob(f"{name}_*")).read_bytes()).body
    assert body is not None
    return body


def test_a_gable_house_is_one_body_and_its_walls_have_the_areas_of_the_model() -> None:
    body = read("i1")
    assert np.allclose(body.outline, ((0, 0), (9.6, 0), (9.6, 7.2), (0, 7.2)))
    assert (body.storeys, body.base, body.form) == ((2.7,), 0.0, "two pitches")
    assert body.pitch == pytest.approx(33.69, abs=0.01)
    drawn = body_from(body, Building(id="b", name="House", elements=ELEMENTS), "house.ifc")
    areas = take_off(faces_of(drawn), "external").areas
    # Gables of the model stand between its long walls: ours run to the corner.
    assert areas["wall|outside"].gross.external == pytest.approx(2 * 25.92 + 2 * (7.2 * 2.7 + 7.2 * 2.4 / 2), rel=1e-3)
    assert (drawn.wall, drawn.top, drawn.floor, drawn.source) == ("w", "r", "f", "house.ifc")


def test_a_turned_plan_stands_upright_and_north_turns_with_it() -> None:
    body = read("i2")
    assert shapely.Polygon(body.outline).area == pytest.approx(114)
    assert len(body.outline) == 6
    assert body.north == pytest.approx(315)
    bearings = sorted({round(wall.bearing or 0) for wall in read_ifc(next(IFC.glob("i2_*")).read_bytes()).walls
                       if wall.shell})  # fmt: skip
    sides = zip(body.outline, (*body.outline[1:], body.outline[0]), strict=True)
    ours = sorted({round(math.degrees(math.atan2(q[1] - p[1], p[0] - q[0])) + body.north) % 360 for p, q in sides})
    assert ours == bearings


def test_storeys_follow_the_levels_of_the_model() -> None:
    assert read("i3").storeys == pytest.approx((3.048, 2.7432))


@pytest.mark.parametrize("turn", [0.0, 20.0, -37.0, 90.0, 180.0])
def test_a_model_turned_by_any_angle_gives_the_same_body(turn: float) -> None:
    c, s = math.cos(math.radians(turn)), math.sin(math.radians(turn))
    way = np.array([[c, s], [-s, c]])
    ring = np.array([(0, 0), (10, 0), (10, 6), (0, 6)], dtype=float) @ way
    eave = np.array([(-0.5, -0.4), (10.5, -0.4), (10.5, 6.4), (-0.5, 6.4)]) @ way
    slope = math.radians(30)
    plates = [RoofPlate(np.array([*(np.array([0, sign * math.sin(slope)]) @ way), math.cos(slope)]), eave)
              for sign in (-1.0, 1.0)]  # fmt: skip
    body = body_of(shapely.Polygon(ring), [(0.0, 3.0), (0.0, 3.0), (0.0, 4.7)], [0.0], plates, north=0.0)
    assert body is not None
    assert shapely.Polygon(body.outline).area == pytest.approx(60)
    assert (body.form, body.storeys) == ("two pitches", (3.0,))
    assert body.pitch == pytest.approx(30, abs=1e-3)
    assert body.overhang == pytest.approx(0.4, abs=1e-3)
    ways = np.array([math.sin(math.radians(body.towards)), math.cos(math.radians(body.towards))])
    spans = np.array(body.outline) @ ways
    assert float(np.ptp(spans)) == pytest.approx(6.0, abs=1e-3)  # it falls across the shorter way


def test_a_model_without_walls_makes_no_body() -> None:
    assert body_of(shapely.box(0, 0, 5, 5), [], [], [], 0.0) is None
    assert body_of(shapely.box(0, 0, 5, 5), [(0.0, 0.4)], [], [], 0.0) is None


def test_what_a_newer_model_says_otherwise_is_named_and_nothing_else() -> None:
    body = read("i1")
    building = Building(id="b", name="House", elements=ELEMENTS)
    same = Building(id="b", name="House", elements=ELEMENTS, bodies=(body_from(body, building, ""),), north=body.north)
    assert differences(body, same) == ()
    drawn = body_from(body, building, "")
    lower = BuildingBody(id="b1", outline=((0, 0), (9.0, 0), (9.0, 7.2), (0, 7.2)), storeys=(2.5,), roof=drawn.roof,
                         wall="w", top="r", floor="f")  # fmt: skip
    said = differences(body, Building(id="b", name="House", elements=ELEMENTS, bodies=(lower,), north=90.0))
    assert [one.split(" ")[1] for one in said] == ["plan", "eaves", "top"]


def test_a_roof_that_is_none_of_ours_stands_flat_and_is_said() -> None:
    slope = math.radians(30)
    plates = [RoofPlate(np.array([math.sin(slope) * math.sin(a), math.sin(slope) * math.cos(a), math.cos(slope)]),
                        np.array([(0.0, 0.0), (9.0, 0.0), (9.0, 6.0)])) for a in (0.0, 1.0, 2.5)]  # fmt: skip
    body = body_of(shapely.box(0, 0, 9, 6), [(0.0, 3.0)], [0.0], plates, north=0.0)
    assert body is not None
    assert (body.form, body.roof_known) == ("flat", False)
    assert "stands flat" in not_drawn(body)[0]
    assert not_drawn(read("i1")) == ()

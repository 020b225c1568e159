"""What a building's shape comes to: areas by element, every edge by what meets there, and what is typed beside it."""

from __future__ import annotations

from copy import deepcopy
from dataclasses import replace

import pytest
from hypothesis import given
from hypothesis import strategies as st

from nimble_shell.core.assemblies.assembly import Assembly
from nimble_shell.core.assemblies.structure import outside_of_structure
from nimble_shell.core.assemblies.systems import SYSTEMS
from nimble_shell.core.basis.schools import Schools
from nimble_shell.core.building.body import BodyOpening, BodySide
from nimble_shell.core.building.flat_face import FlatFace
from nimble_shell.core.building.roof import Roof
from nimble_shell.core.errors import DomainError
from nimble_shell.core.materials import CATALOGUE
from nimble_shell.core.shell.ledger import net_areas, shell_ledger
from nimble_shell.core.shell.measured import MeasuredBuilding, measured
from nimble_shell.core.shell.project import Building, Project, ShellElement
from nimble_shell.core.shell.wanted import wanted_joints
from nimble_shell.core.shell.whole import check_whole
from nimble_shell.core.working import value_of
from nimble_shell.demo.heron_flats import campus

CAMPUS = campus()
#: Gross areas that the six buildings had when they were typed. [m²]
TYPED = {
    "main-laboratory": (123.1, 212.4, 31.0, 4.4, 100.8),
    "boat-workshop": (148.0, 118.0, 96.0, 34.0, 140.0),
    "bunkhouse": (92.0, 164.0, 22.5, 4.2, 80.0),
    "sample-cold-store": (54.0, 96.0, 54.0),
    "seed-barn": (88.0, 120.0, 14.0, 9.0, 80.0),
    "pump-house": (22.0, 44.0, 12.0, 2.4, 20.0),
}


def of(building: Building, project: Project = CAMPUS) -> MeasuredBuilding:
    found = measured(project, building)
    assert isinstance(found, MeasuredBuilding)
    return found


def lab(**changes: object) -> Building:
    return replace(CAMPUS.buildings[0], **changes)  # type: ignore[arg-type]  # fields by name


def kinds(building: MeasuredBuilding) -> dict[str, float]:
    found: dict[str, float] = {}
    for edge in building.shape.edges:
        found[edge.kind] = found.get(edge.kind, 0.0) + edge.length.external
    return found


@pytest.mark.parametrize("building", CAMPUS.buildings, ids=lambda one: one.id)
def test_the_shapes_of_the_campus_have_the_areas_that_were_typed(building: Building) -> None:
    found = of(building)
    assert [one.value for one in found.areas] == pytest.approx(TYPED[building.id], rel=0.001)
    assert {one.origin for one in found.areas} == {"derived"}
    assert not found.shape.approximate


def test_every_edge_of_a_gabled_house_is_there_with_its_length() -> None:
    found = kinds(of(lab()))
    slope = 4.2 / 0.8191520442889918
    assert found == pytest.approx({
        "ridge": 12.0, "eave": 24.0, "verge": 4 * slope, "corner_out": 4 * 4.6, "floor_line": 40.8, "foot": 40.8,
        "head": 10 * 1.5 + 6 * 1.2 + 2 * 1.4 + 2.0, "window_sill": 10 * 1.5 + 6 * 1.2 + 2 * 1.4, "threshold": 2.0,
        "jamb": 2 * (10 * 1.4 + 8 * 1.0 + 2 * 2.2), "seam": found["seam"], "roof_seam": 18 * slope,
    })  # fmt: skip


def test_seams_stand_at_each_module_less_the_openings() -> None:
    seam = next(one for one in of(lab(openings=())).shape.edges if one.kind == "seam")
    long_walls = 2 * 9 * 4.6
    gable = 4.6 * 6 + 0.7002075382097097 * (1.2 + 2.4 + 3.6 + 3.6 + 2.4 + 1.2)
    assert seam.length.external == pytest.approx(long_walls + 2 * gable)
    assert seam.pieces == 18 + 12
    with_door = BodyOpening(id="o", body="b1", side=0, u=1.0, sill=0.0, w=1.0, h=2.0, zone="e3")
    less = next(one for one in of(lab(openings=(with_door,))).shape.edges if one.kind == "seam")
    assert seam.length.external - less.length.external == pytest.approx(2.0)


def test_what_is_typed_counts_and_says_what_it_would_be() -> None:
    elements = tuple(replace(one, area=200.0) if one.id == "e2" else one for one in lab().elements)
    joints = tuple(replace(one, length=14.4) if one.name == "Ridge" else one for one in lab().joints)
    found = of(lab(elements=elements, joints=joints))
    wall = next(one for one in found.areas if one.id == "e2")
    ridge = found.lengths[0]
    assert (wall.value, wall.origin, wall.derived) == (200.0, "typed", pytest.approx(212.38, abs=0.01))
    assert (ridge.value, ridge.origin, ridge.derived) == (14.4, "typed", pytest.approx(12.0))
    assert found.as_stored() is not found
    assert found.elements[0].area == pytest.approx(123.05, abs=0.01)


def test_openings_are_taken_off_the_wall_that_they_lie_in() -> None:
    boat = of(CAMPUS.buildings[1])
    net = {one.id: value_of(area) for one, area in zip(boat.elements, net_areas(boat), strict=True)}
    assert net["e2"] == pytest.approx(118.0 - 10.0, abs=0.1)
    assert net["e3"] == pytest.approx(96.0 - 24.0, abs=0.1)


def test_a_sum_without_a_joint_of_the_shape_is_no_whole() -> None:
    U = {one.id: 0.2 for one in CAMPUS.assemblies}
    assert shell_ledger(of(lab()), U).whole
    without = of(lab(joints=tuple(one for one in lab().joints if one.name != "Eave")))
    ledger = shell_ledger(without, U)
    assert not ledger.whole
    assert [one.split(",")[0] for one in ledger.missing] == ["Eave", "Verge"]


def test_dimensions_and_the_line_that_is_drawn_to() -> None:
    outer = of(lab())
    inner = replace(CAMPUS, basis=replace(CAMPUS.basis, schools=Schools(drawn_to="inner", dimensions="overall")))
    found = of(lab(), inner)
    assert found.areas[1].value == pytest.approx(212.38, abs=0.01)  # the same outline, now of the inner faces
    assert found.shape.takeoff.volume.overall_internal == pytest.approx(outer.shape.takeoff.volume.external)
    thicker = replace(CAMPUS, assemblies=tuple(
        one.with_thickness(one.core_index, 0.3) if one.id == "wall-w-a" and one.core_index is not None else one
        for one in CAMPUS.assemblies))  # fmt: skip
    assert of(lab(), thicker).areas[1].value == outer.areas[1].value  # the outer face stays, the room gets smaller
    assert of(lab(), thicker).shape.takeoff.volume.overall_internal < outer.shape.takeoff.volume.overall_internal


@pytest.mark.parametrize("building", CAMPUS.buildings, ids=lambda one: one.id)
def test_inner_areas_are_no_larger_than_outer_ones(building: Building) -> None:
    for area in of(building).shape.elements.values():
        assert area.gross.internal <= area.gross.overall_internal + 1e-9 <= area.gross.external + 2e-9


def test_a_heated_neighbour_takes_its_wall_out_of_the_sum() -> None:
    body = lab().bodies[0]
    joined = of(lab(bodies=(replace(body, sides=(BodySide(number=1, beyond="heated"),)),), openings=()))
    gable = 8.4 * 4.6 + 8.4 * 4.2 * 0.7002075382097097 / 2
    assert joined.areas[1].value == pytest.approx(212.383322 - gable)
    # Its four edges end at the neighbour: two corners, two verges and the foot.
    assert kinds(joined)["party"] == pytest.approx(2 * 4.6 + 2 * 4.2 / 0.8191520442889918 + 8.4)


def test_a_parapet_is_no_eave() -> None:
    flat = replace(lab().bodies[0], roof=Roof(), storeys=(3.04,))
    low = lab(bodies=(flat,), openings=())
    high = lab(bodies=(replace(flat, roof=Roof(parapet=0.4)),), openings=())
    assert kinds(of(low))["roof_edge"] == kinds(of(high))["parapet"] == pytest.approx(40.8)


@given(shift=st.floats(-50, 50), turn=st.sampled_from([0, 90, 180, 270]))
def test_where_a_building_stands_changes_no_quantity(shift: float, turn: int) -> None:
    c, s = {0: (1, 0), 90: (0, 1), 180: (-1, 0), 270: (0, -1)}[turn]
    body = lab().bodies[0]
    moved = tuple((x * c - y * s + shift, x * s + y * c - shift) for x, y in body.outline)
    towards = (body.roof.towards - turn) % 360
    found = of(lab(bodies=(replace(body, outline=moved, roof=replace(body.roof, towards=towards)),)))
    assert kinds(found) == pytest.approx(kinds(of(lab())), rel=1e-6)
    assert [one.value for one in found.areas] == pytest.approx([one.value for one in of(lab()).areas], rel=1e-6)


def test_thick_build_ups_that_eat_a_shape_are_refused_where_it_is() -> None:
    tiny = replace(lab().bodies[0], outline=((0.0, 0.0), (0.4, 0.0), (0.4, 8.4), (0.0, 8.4)))
    with pytest.raises(DomainError) as error:
        check_whole(replace(CAMPUS, buildings=(lab(bodies=(tiny,), openings=()),)))
    assert error.value.issues[0].path[:2] == ("buildings", 0)


@pytest.mark.parametrize(
    ("changes", "code"),
    [
        ({"bodies": ()}, "unknown_side"),
        ({"bodies": (replace(lab().bodies[0], wall="e9"),)}, "unknown_element"),
        ({"openings": (replace(lab().openings[0], zone="e9"),)}, "unknown_element"),
        ({"openings": (lab().openings[0], lab().openings[0])}, "opening_id_taken"),
        ({"bodies": (lab().bodies[0], lab().bodies[0])}, "body_id_taken"),
        ({"north": 700.0}, "angle_out_of_range"),
        ({"floor_thickness": 3.0}, "thickness_out_of_range"),
    ],
)
def test_a_building_refuses_what_does_not_hang_together(changes: dict[str, object], code: str) -> None:
    with pytest.raises(DomainError) as error:
        check_whole(replace(CAMPUS, buildings=(lab(**changes), *CAMPUS.buildings[1:])))
    assert error.value.issues[0].code == code


def test_a_flat_face_counts_by_its_outline_and_can_be_taken_away() -> None:
    project = campus()
    first = project.buildings[0]
    cheek = FlatFace(id="f1", name="Cheek", zone="e2", outline=((0, 0), (2, 0), (0, 1.5)))
    hole = FlatFace(id="f2", name="Hole in the roof", zone="e1", outline=((0, 0), (2, 0), (2, 3), (0, 3)), taken=True)
    before = areas_of(project, first)
    after = areas_of(project, replace(first, faces=(cheek, hole)))
    assert after["e2"] - before["e2"] == pytest.approx(1.5)
    assert after["e1"] - before["e1"] == pytest.approx(-6.0)
    assert (after["e3"], after["e5"]) == (before["e3"], before["e5"])


def areas_of(project: Project, building: Building) -> dict[str, float]:
    found = measured(project, building)
    assert isinstance(found, MeasuredBuilding)
    return {one.id: one.value for one in found.areas}


@pytest.mark.parametrize(
    ("outline", "code"),
    [
        (((0, 0), (1, 0)), "outline_open"),
        (((0, 0), (1, 1), (1, 0), (0, 1)), "outline_crosses"),
        (((0, 0), (2400, 0), (0, 1200)), "outline_far"),
        (((0, 0), (1, 0), (2, 0)), "no_area"),
    ],
)
def test_a_flat_face_that_is_none_is_refused(outline: tuple[tuple[float, float], ...], code: str) -> None:
    with pytest.raises(DomainError) as error:
        FlatFace(id="f", name="Face", outline=outline)
    assert code in [issue.code for issue in error.value.issues]


def test_more_than_there_is_cannot_be_taken_away() -> None:
    project = campus()
    whole = FlatFace(id="f", name="Hole", zone="e1", outline=((0, 0), (100, 0), (100, 100), (0, 100)), taken=True)
    with pytest.raises(DomainError) as error:
        measured(project, replace(project.buildings[0], faces=(whole,)))
    assert (error.value.issues[0].code, error.value.issues[0].path) == ("nothing_left", ("faces", 0))


def test_the_end_of_a_party_wall_is_a_joint_once_its_build_up_is_known() -> None:
    project = campus()
    first = project.buildings[0]
    wall = ShellElement(id="party", station="D", name="Party wall", assembly_id=first.elements[1].assembly_id)
    body = replace(first.bodies[0], sides=(BodySide(number=1, beyond="heated", zone="party"),))
    openings = tuple(one for one in first.openings if one.side != 1)
    building = replace(first, elements=(*first.elements, wall), bodies=(body,), openings=openings, joints=())
    found = of(building, project)
    assert next(one.value for one in found.areas if one.id == "party") == 0
    ends = [one for one in found.unclaimed if one.kind == "party"]
    assert [one.elements for one in ends if "e2" in one.elements] == [("e2", "party")]
    drawn = [one for one in wanted_joints(project, found, map(str, range(99))) if one.family == "party"]
    assert {role.role for role in drawn[0].roles} == {"wall", "party"}
    ledger = shell_ledger(found, {})
    assert not any(one.endswith(": Party wall") for one in ledger.missing)
    assert any(one.endswith(": Wall W-A") for one in ledger.missing)  # its U is not given here


def test_a_shape_drawn_to_the_structure_keeps_that_line_and_moves_both_faces() -> None:
    project = campus()
    building = replace(project.buildings[0], joints=())

    def volumes(drawn_to: str, assembly: Assembly | None = None) -> tuple[float, float]:
        basis = replace(project.basis, schools=Schools(drawn_to=drawn_to))  # type: ignore[arg-type]  # of its words
        assemblies = tuple(assembly if assembly and one.id == assembly.id else one for one in project.assemblies)
        volume = of(building, replace(project, basis=basis, assemblies=assemblies)).shape.takeoff.volume
        return volume.external, volume.overall_internal

    outer, structure, inner = (volumes(one) for one in ("outer", "structure", "inner"))
    assert outer[0] < structure[0] < inner[0]
    assert outer[1] < structure[1] < inner[1]
    wall = next(one for one in project.assemblies if one.id == "wall-w-a")
    beyond = outside_of_structure(wall, project.catalogue)
    assert 0 < beyond < wall.thickness
    # A thicker cladding moves the outer face alone, a thicker core the inner face alone.
    clad = wall.with_thickness(len(wall.layers) - 1, wall.layers[-1].d + 0.02)
    cored = wall.with_core(wall.layers[wall.core_index or 0].d + 0.05)
    assert volumes("structure", clad)[1] == pytest.approx(structure[1])
    assert volumes("structure", clad)[0] > structure[0]
    assert volumes("structure", cored)[0] == pytest.approx(structure[0])
    assert volumes("structure", cored)[1] < structure[1]


@pytest.mark.parametrize(
    ("system", "outside"),
    [("sip", 0.0595), ("icf", 0.078), ("icf-one-sided", 0.110), ("masonry", 0.168), ("metal-panel", 0.0),
     ("mesh-mortar", 0.006), ("site-framing", 0.0405), ("slab", 0.3505)],
)  # fmt: skip
def test_the_structure_ends_at_its_concrete_or_at_the_skin_of_its_core(system: str, outside: float) -> None:
    found = outside_of_structure(SYSTEMS[system].assembly("a", "A"), CATALOGUE)
    assert found == pytest.approx(outside, abs=1e-4)


@pytest.mark.parametrize("building", CAMPUS.buildings, ids=lambda one: one.id)
def test_what_is_kept_of_a_shape_is_what_would_be_worked_out_anew(building: Building) -> None:
    """Sides and how they close are kept while build-ups become thicker; of another thickness nothing is."""
    walls = sorted({one.assembly_id for one in building.elements if one.assembly_id})
    for at, key in enumerate(walls):
        others = tuple(
            one.with_thickness(one.core_index, 0.1 + 0.03 * at) if one.id == key and one.core_index is not None else one
            for one in CAMPUS.assemblies
        )
        project = replace(CAMPUS, assemblies=others)
        anew = replace(building, bodies=deepcopy(building.bodies), openings=deepcopy(building.openings))
        kept, fresh = of(building, project), of(anew, project)
        assert kept.areas == fresh.areas
        assert kept.lengths == fresh.lengths
        assert kept.shape.edges == fresh.shape.edges
        assert [one.thickness for one in kept.shape.takeoff.body.faces] == [
            one.thickness for one in fresh.shape.takeoff.body.faces
        ]

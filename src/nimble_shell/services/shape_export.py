"""Everything that the shape sheet shows, as lines of a table."""

from __future__ import annotations

from collections.abc import Iterator

from nimble_shell.core.shell.project import Building, Project
from nimble_shell.core.takeoff.takeoff import Both
from nimble_shell.formats.quantities_csv import QuantityRow
from nimble_shell.services.joints import building_in
from nimble_shell.services.shape import DrawnFace, ShapeSheet, shape_of


def quantity_rows(project: Project, building_id: str) -> tuple[QuantityRow, ...]:
    """Of one building: whole, slabs, elements, joints, edges, faces, openings. Raises DomainError, NotFound."""
    building, sheet = building_in(project, building_id), shape_of(project, building_id)
    return (*_whole(building, sheet), *_elements(building, sheet), *_edges(building, sheet), *_faces(building, sheet))


def _both(what: str, name: str, quantity: str, value: Both | None, dimension: str) -> Iterator[QuantityRow]:
    if value is not None:
        for by, figure in (("external", value.external), ("overall inner", value.overall_internal)):
            yield QuantityRow(what=what, name=name, quantity=f"{quantity}, {by}", value=figure, dimension=dimension)


def _whole(building: Building, sheet: ShapeSheet) -> Iterator[QuantityRow]:
    yield from _both("building", building.name, "heated volume", sheet.volume, "volume")
    yield from _both("building", building.name, "floor area", sheet.floor_area, "area")
    yield QuantityRow(what="building", name=building.name, quantity="envelope, overall inner", value=sheet.envelope,
                      dimension="area")  # fmt: skip
    yield from _both("slab", building.name, "area on the ground", sheet.ground_area, "area")
    yield from _both("slab", building.name, "exposed perimeter", sheet.perimeter, "distance")
    yield from _both("slab", building.name, "characteristic dimension B'", sheet.B, "distance")


def _elements(building: Building, sheet: ShapeSheet) -> Iterator[QuantityRow]:
    for several, parts, what, quantity, dimension in (
        (sheet.areas, building.elements, "element", "gross area", "area"),
        (sheet.lengths, building.joints, "joint", "length", "distance"),
    ):
        names = {one.id: one.name for one in parts}
        for one in several:
            if one.origin != "unknown":
                yield QuantityRow(what=what, name=names[one.id], quantity=quantity, value=one.value,
                                  dimension=dimension, origin=one.source or one.origin)  # fmt: skip


def _edges(building: Building, sheet: ShapeSheet) -> Iterator[QuantityRow]:
    names = {one.id: one.name for one in building.elements}
    for one in sheet.edges:
        between = " and ".join(names[each] for each in one.elements if each in names)
        yield QuantityRow(what="edge", name=f"{one.name}, {between}" if between else one.name, quantity="length",
                          value=one.length, dimension="distance")  # fmt: skip


def _faces(building: Building, sheet: ShapeSheet) -> Iterator[QuantityRow]:
    ground = {one.id: one.ground or 0.0 for one in building.bodies}
    for face in sheet.faces:
        for quantity, value, dimension in _of_face(face, ground.get(face.body, 0.0)):
            yield QuantityRow(what="face", name=face.id, quantity=quantity, value=value, dimension=dimension)
        for one in face.openings:
            for quantity, value in (("width", one.w), ("height", one.h), ("from the left", one.u)):
                yield QuantityRow(what="opening", name=one.mark, quantity=quantity, value=value, dimension="length")


def _of_face(face: DrawnFace, ground: float) -> Iterator[tuple[str, float, str]]:
    if face.kind != "floor":
        yield "bearing", face.bearing, "angle"
    yield "pitch", face.pitch, "angle"
    yield "lowest place above ground", min(z for *_, z in face.corners) - ground, "distance"
    yield "highest place above ground", max(z for *_, z in face.corners) - ground, "distance"
    yield "gross area", face.gross, "area"
    yield "net area", face.net, "area"

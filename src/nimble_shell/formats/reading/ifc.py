"""An IFC model: outer faces of its walls with their openings, floors, roofs, storeys."""

from __future__ import annotations

import math
import re
import tempfile
from collections.abc import Iterator, Sequence
from dataclasses import dataclass
from pathlib import Path
from typing import Any

import numpy as np
import shapely
from numpy.typing import NDArray

from nimble_shell.core.errors import DomainError, Issue
from nimble_shell.core.quantities.sentence import sentence
from nimble_shell.formats.reading.plan import RoofPlate, body_of
from nimble_shell.formats.reading.reading import (
    METRES,
    FileUnit,
    LeftOut,
    Point,
    Reading,
    ReadOpening,
    ReadPlate,
    ReadWall,
    fault,
    refuse,
)

FloatArray = NDArray[np.float64]
_SCHEMAS = ("IFC2X3", "IFC4", "IFC4X1", "IFC4X2", "IFC4X3")
_UPRIGHT, _LEVEL = 0.02, 0.02  #: cosine of what counts as upright, sine of what counts as level
_PLANE = 1e-3  #: triangles this near to a plane lie in it [m]
_BEYOND = 2e-3  #: how far an opening may leave its wall and lie in it [m]
_OVER = 0.01  #: of walls in one plane [m²]
_LEAST = 1e-4  #: [m²]
_PREFIXES: dict[str | None, FileUnit] = {"MILLI": "mm", "CENTI": "cm", None: "m"}


def read_ifc(content: bytes, unit: FileUnit | None = None) -> Reading:
    """What an IFC model holds.

    Parameters
    ----------
    content : bytes
    unit : {"mm", "cm", "m", "in", "ft"}, optional
        Of a model that states none.

    Raises
    ------
    DomainError
        With every fault, each with the GlobalId or number of its entity; with code "unit_unknown" where the model
        states no unit of length and none is given.
    """
    model = _opened(content)
    _check_placements(model)
    stated = _unit(model)
    meshes = _Meshes(model, 1.0 if stated or unit is None else METRES[unit])
    if stated is None and unit is None:
        proposed = _proposed(meshes, model)
        raise refuse("unit_unknown", "the model states no unit of length",
                     f"say which; {proposed} makes its walls as large as walls are", proposed=proposed)  # fmt: skip
    return _Model(model, meshes, stated or unit or "m").read()


def _opened(content: bytes) -> Any:
    import ifcopenshell

    head = content[:4096].decode("latin-1", "replace")
    if not head.lstrip("\ufeffï»¿ \r\n\t").startswith("ISO-10303-21"):
        raise refuse(
            "not_ifc", "the file has no ISO-10303-21 header", "save it as IFC (STEP) in the program that made it"
        )
    tail = content[-4096:].decode("latin-1", "replace")
    if "END-ISO-10303-21" not in tail:
        last = re.findall(r"#(\d+)\s*=", tail)
        where = f"ends inside of entity #{last[-1]}" if last else "ends before its end"
        raise refuse("truncated", f"the file {where}; there is no END-ISO-10303-21",
                     "save or send it again; a part is never read for the whole",
                     entity=f"#{last[-1]}" if last else "")  # fmt: skip
    schema = re.search(r"FILE_SCHEMA\s*\(\s*\(\s*'([^']+)'", content[:65536].decode("latin-1", "replace"))
    if schema is None or not any(schema[1].upper().startswith(one) for one in _SCHEMAS):
        raise refuse("unknown_schema", f"schema {schema[1] if schema else 'of no name'} is not known",
                     "IFC2X3, IFC4 and IFC4X3 are")  # fmt: skip
    with tempfile.TemporaryDirectory() as folder:
        path = Path(folder) / "model.ifc"
        path.write_bytes(content)
        try:
            return ifcopenshell.open(path)
        except Exception as error:  # the reader has no class of its own for what it cannot read
            raise refuse("not_ifc", f"the model cannot be read: {str(error)[:200]}",
                         "save it as IFC4 or IFC2X3") from None  # fmt: skip


def _check_placements(model: Any) -> None:
    """A placement that refers to itself ends the geometry library."""
    faults = []
    for one in model.by_type("IfcLocalPlacement"):
        seen, at = set(), one
        while at is not None and at.is_a("IfcLocalPlacement"):
            if at.id() in seen:
                faults.append(fault("placement_cyclic", f"placement #{one.id()} refers to itself",
                                    "the program that made it has to mend it", entity=f"#{one.id()}"))  # fmt: skip
                break
            seen.add(at.id())
            at = at.PlacementRelTo
    if faults:
        raise DomainError(*faults)


def _unit(model: Any) -> FileUnit | None:
    """As the model states it; None where it does not."""
    for assignment in model.by_type("IfcUnitAssignment"):
        for one in assignment.Units:
            if getattr(one, "UnitType", None) != "LENGTHUNIT":
                continue
            if one.is_a("IfcSIUnit"):
                return _PREFIXES.get(one.Prefix, "m")
            if one.is_a("IfcConversionBasedUnit"):
                return "in" if "inch" in one.Name.lower() else "ft"
    return None


@dataclass(frozen=True, slots=True)
class _Mesh:
    """Triangles of a body. [m]"""

    corners: FloatArray  #: (triangles, 3, 3)

    @property
    def normals(self) -> FloatArray:
        """Of each triangle, as long as twice its area: (triangles, 3)."""
        a, b, c = self.corners.transpose(1, 0, 2)
        found: FloatArray = np.cross(b - a, c - a)
        return found


class _Meshes:
    """Bodies in metres, in the model's axes, counted from where its site lies."""

    def __init__(self, model: Any, scale: float) -> None:
        import ifcopenshell.geom
        import ifcopenshell.util.placement
        import ifcopenshell.util.unit

        self._scale = scale
        geometry: Any = ifcopenshell.geom
        self._settings = geometry.settings()
        for name in ("weld-vertices", "disable-opening-subtractions"):
            self._settings.set(name, True)
        self._create = geometry.create_shape
        metres = ifcopenshell.util.unit.calculate_unit_scale(model)
        self._origin: FloatArray = np.zeros(3)
        for site in model.by_type("IfcSite"):
            if site.ObjectPlacement is not None:
                at = ifcopenshell.util.placement.get_local_placement(site.ObjectPlacement)
                self._origin = np.asarray(at)[:3, 3] * metres
                break

    def of(self, product: Any) -> _Mesh | None:
        """None where it has no body."""
        if product.Representation is None:
            return None
        try:
            shape = self._create(self._settings, product)
        except RuntimeError:
            return None
        points = np.array(shape.geometry.verts, dtype=float).reshape(-1, 3)
        matrix = np.array(shape.transformation.matrix, dtype=float).reshape(4, 4).T
        world = points @ matrix[:3, :3].T + (matrix[:3, 3] - self._origin)
        faces = np.array(shape.geometry.faces, dtype=int).reshape(-1, 3)
        return _Mesh(world[faces] * self._scale) if len(faces) else None


def _proposed(meshes: _Meshes, model: Any) -> FileUnit:
    sizes = []
    for wall in model.by_type("IfcWall"):
        mesh = meshes.of(wall)
        if mesh is not None:
            sizes.append(float(np.ptp(mesh.corners.reshape(-1, 3), axis=0).max()))
    size = max(sizes, default=5000.0)
    order: tuple[FileUnit, ...] = ("m", "mm", "cm", "ft", "in")
    return next((unit for unit in order if 1 <= size * METRES[unit] <= 100), "m")


@dataclass(frozen=True, slots=True)
class _Plane:
    """A flat part of a body."""

    normal: FloatArray
    offset: float  #: of it from the origin, along the normal [m]
    shape: shapely.Polygon  #: in its own axes [m]
    right: FloatArray
    up: FloatArray

    @property
    def middle(self) -> FloatArray:
        """A place in it. [m]"""
        u, v = self.shape.representative_point().coords[0]
        found: FloatArray = self.normal * self.offset + u * self.right + v * self.up
        return found


def _axes(normal: FloatArray) -> tuple[FloatArray, FloatArray]:
    """To the right and up as seen against the normal."""
    up = np.array([0.0, 0.0, 1.0]) if abs(normal[2]) < 0.99 else np.array([0.0, 1.0, 0.0])
    right = np.cross(up, normal)
    right /= np.linalg.norm(right)
    return right, np.cross(normal, right)


def _flat(corners: FloatArray, right: FloatArray, up: FloatArray) -> shapely.Geometry:
    """Triangles cast on a plane, as one shape."""
    flat = np.stack([corners @ right, corners @ up], axis=-1)
    shapes = [shapely.Polygon(one) for one in flat]
    return shapely.union_all([one for one in shapes if one.area > 1e-12], grid_size=1e-7)


def _planes(mesh: _Mesh) -> list[_Plane]:
    """Flat parts of a body, the largest first."""
    normals = mesh.normals
    size = np.linalg.norm(normals, axis=1)
    left = [int(n) for n in np.argsort(-size) if size[n] > 1e-12]
    found = []
    while left:
        first = left[0]
        normal = normals[first] / size[first]
        offset = float(mesh.corners[first].mean(axis=0) @ normal)
        same = [n for n in left if normals[n] @ normal > 0.9999 * size[n]
                and np.abs(mesh.corners[n] @ normal - offset).max() < _PLANE]  # fmt: skip
        right, up = _axes(normal)
        shape = _flat(mesh.corners[same], right, up)
        parts = [one for one in shapely.get_parts(shape) if one.area > _LEAST]
        if parts:
            found.append(_Plane(normal, offset, max(parts, key=lambda one: one.area), right, up))
        taken = set(same)
        left = [n for n in left if n not in taken]
    return sorted(found, key=lambda one: -one.shape.area)


class _Model:
    """Takes a model apart."""

    def __init__(self, model: Any, meshes: _Meshes, unit: FileUnit) -> None:
        self._model, self._meshes, self._unit = model, meshes, unit
        self._left_out: list[LeftOut] = []
        self._faults: list[Issue] = []

    def read(self) -> Reading:
        import ifcopenshell.util.unit

        walls = self._bodies("IfcWall")
        slabs = self._bodies("IfcSlab")
        roofs = [(one, mesh) for one, mesh in slabs if _predefined(one) == "ROOF"]
        roofs += self._bodies("IfcRoof", quietly=True)
        floors = [(one, mesh) for one, mesh in slabs if _predefined(one) != "ROOF"]
        for one in self._model.by_type("IfcCurtainWall"):
            self._left_out.append(LeftOut(entity=one.GlobalId, reason=f"{_name(one)} is a curtain wall"))
        self._twice()
        footprint = self._footprint(walls, floors)
        read = [found for one, mesh in walls if (found := self._wall(one, mesh, footprint)) is not None]
        self._over_one_another(read)
        if self._faults:
            raise DomainError(*self._faults)
        metres = ifcopenshell.util.unit.calculate_unit_scale(self._model)
        storeys = sorted(((_name(one), float(one.Elevation or 0.0) * metres)
                          for one in self._model.by_type("IfcBuildingStorey")), key=lambda one: one[1])  # fmt: skip
        plates = [_plate(one, mesh, down=True) for one, mesh in floors]
        lowest = min(floors, key=lambda one: float(one[1].corners[..., 2].min()), default=None)
        outline = footprint if lowest is None else _level(lowest[1])
        return Reading(
            kind="ifc", unit=self._unit, walls=tuple(wall for wall, _ in read), floors=tuple(plates),
            roofs=tuple(_plate(one, mesh, down=False) for one, mesh in roofs), storeys=tuple(storeys),
            perimeter=None if outline is None else float(outline.exterior.length), left_out=tuple(self._left_out),
            body=None if footprint is None else body_of(footprint, _heights(read), [z for _, z in storeys],
                                                        _upper_faces(roofs), self._north()),
        )  # fmt: skip

    def _bodies(self, kind: str, *, quietly: bool = False) -> list[tuple[Any, _Mesh]]:
        found = []
        for one in self._model.by_type(kind):
            mesh = self._meshes.of(one)
            if mesh is not None:
                found.append((one, mesh))
            elif not quietly:
                self._left_out.append(LeftOut(entity=one.GlobalId, reason=f"{_name(one)} has no body"))
        return found

    def _twice(self) -> None:
        """Two things with one GlobalId cannot be told apart later: it is said."""
        seen: dict[str, str] = {}
        for one in self._model.by_type("IfcElement"):
            if one.GlobalId in seen:
                both = f"{seen[one.GlobalId]} and {_name(one)}"
                self._left_out.append(LeftOut(entity=one.GlobalId, reason=f"{both} share one GlobalId"))
            seen[one.GlobalId] = _name(one)

    def _footprint(self, walls: Sequence[tuple[Any, _Mesh]], floors: Sequence[tuple[Any, _Mesh]]) -> Any:
        """What the building covers in plan, without holes; None without walls and floors."""
        shapes = [shape for _, mesh in floors if (shape := _level(mesh)) is not None]
        ground, north = np.array([1.0, 0.0, 0.0]), np.array([0.0, 1.0, 0.0])
        shapes += [_flat(mesh.corners, ground, north) for _, mesh in walls]
        if not shapes:
            return None
        parts = shapely.get_parts(shapely.union_all(shapes).buffer(0.02, join_style="mitre"))
        largest = max(parts, key=lambda one: one.area)
        return shapely.Polygon(largest.exterior).buffer(-0.02, join_style="mitre")

    def _wall(self, wall: Any, mesh: _Mesh, footprint: Any) -> tuple[ReadWall, _Plane] | None:
        upright = [one for one in _planes(mesh) if abs(one.normal[2]) < _UPRIGHT]
        facing = next(((a, b) for n, a in enumerate(upright) for b in upright[n + 1 :] if a.normal @ b.normal < -0.999),
                      None)  # fmt: skip
        if facing is None or facing[0].shape.area < 0.25 * upright[0].shape.area:
            self._left_out.append(LeftOut(entity=wall.GlobalId, reason=f"{_name(wall)} has no two plane faces"))
            return None
        outer, outside = self._outer(wall, facing, footprint)
        inner = facing[1] if outer is facing[0] else facing[0]
        thick = abs(outer.offset + inner.offset)
        openings = tuple(self._openings(wall, outer, thick))
        x, y, *_ = outer.shape.bounds
        bearing = (math.degrees(math.atan2(outer.normal[0], outer.normal[1])) - self._north()) % 360
        external = _external(wall)
        return ReadWall(
            name=_name(wall), entity=wall.GlobalId, gross=float(outer.shape.area), outline=_ring(outer.shape, x, y),
            bearing=round(bearing, 6) % 360, shell=outside if external is None else external,
            openings=tuple(ReadOpening(name=name, entity=entity, area=float(shape.area), outline=_ring(shape, x, y))
                           for name, entity, shape in openings),
        ), outer  # fmt: skip

    def _outer(self, wall: Any, facing: tuple[_Plane, _Plane], footprint: Any) -> tuple[_Plane, bool]:
        """The face that looks away from the building; else the one on the wall's right side. And whether one does."""
        if footprint is not None:
            beyond = [not footprint.covers(shapely.Point((one.middle + 0.05 * one.normal)[:2])) for one in facing]
            if beyond[0] != beyond[1]:
                return facing[0 if beyond[0] else 1], True
        import ifcopenshell.util.placement

        side = -np.asarray(ifcopenshell.util.placement.get_local_placement(wall.ObjectPlacement))[:3, 1]
        return max(facing, key=lambda one: float(one.normal @ side)), False

    def _openings(self, wall: Any, outer: _Plane, thick: float) -> Iterator[tuple[str, str, shapely.Polygon]]:
        taken: list[tuple[str, shapely.Geometry]] = []
        for rel in wall.HasOpenings:
            opening = rel.RelatedOpeningElement
            mesh = self._meshes.of(opening)
            if mesh is None:
                self._left_out.append(LeftOut(entity=opening.GlobalId, reason=f"{_name(opening)} has no body"))
                continue
            deep = float(
                np.ptp(np.clip(mesh.corners.reshape(-1, 3) @ outer.normal, outer.offset - thick, outer.offset))
            )
            if _predefined(opening) == "RECESS" or deep < 0.98 * thick:
                self._left_out.append(LeftOut(entity=opening.GlobalId,
                                              reason=f"{_name(opening)} is a recess, no opening"))  # fmt: skip
                continue
            shape = _flat(mesh.corners, outer.right, outer.up)
            if not self._fits(wall, opening, outer, shape, taken):
                continue
            taken.append((opening.GlobalId, shape))
            filled = [_name(one.RelatedBuildingElement) for one in opening.HasFillings]
            yield (filled[0] if filled else _name(opening)), opening.GlobalId, _largest(shape)

    def _fits(
        self, wall: Any, opening: Any, outer: _Plane, shape: shapely.Geometry,
        taken: Sequence[tuple[str, shapely.Geometry]],
    ) -> bool:  # fmt: skip
        name, entity = _name(opening), opening.GlobalId
        if shape.area < _LEAST:
            self._faults.append(fault("no_area", f"{name} has no area", "remove it", entity=entity))
            return False
        if not outer.shape.buffer(_BEYOND, join_style="mitre").covers(shape):
            far = max(shapely.distance(outer.shape, shapely.Point(point))
                      for part in shapely.get_parts(shape) for point in part.exterior.coords)  # fmt: skip
            message = sentence(f"{name} reaches {{v}} beyond {_name(wall)}", v=(far, "length"))
            self._faults.append(fault("opening_outside", message, "move it, or make it smaller", entity=entity))
            return False
        for other, theirs in taken:
            shared = shapely.intersection(shape, theirs).area
            if shared > 10 * _LEAST:
                message = sentence(f"{name} overlaps another opening of {_name(wall)} by {{v}}", v=(shared, "area"))
                self._faults += [fault("openings_overlap", message, "move one of them", entity=one)
                                 for one in (other, entity)]  # fmt: skip
        return True

    def _over_one_another(self, read: Sequence[tuple[ReadWall, _Plane]]) -> None:
        for n, (one, plane) in enumerate(read):
            for other, theirs in read[:n]:
                if plane.normal @ theirs.normal > 0.9999 and abs(plane.offset - theirs.offset) < _BEYOND:
                    shared = shapely.intersection(plane.shape, theirs.shape).area
                    if shared > _OVER:
                        message = sentence(f"{other.name} and {one.name} lie over one another by {{v}}",
                                           v=(shared, "area"))  # fmt: skip
                        self._faults += [fault("walls_overlap", message, "remove one of them", entity=each.entity)
                                         for each in (other, one)]  # fmt: skip

    def _north(self) -> float:
        """Of true north from the model's y axis, clockwise. [°]"""
        for context in self._model.by_type("IfcGeometricRepresentationContext", include_subtypes=False):
            if context.TrueNorth is not None:
                x, y, *_ = context.TrueNorth.DirectionRatios
                return math.degrees(math.atan2(x, y))
        return 0.0


def _heights(read: Sequence[tuple[ReadWall, _Plane]]) -> list[tuple[float, float]]:
    """Lower and upper edge of each outer wall. [m]"""
    return [(plane.shape.bounds[1], plane.shape.bounds[3]) for wall, plane in read if wall.shell]


def _upper_faces(roofs: Sequence[tuple[Any, _Mesh]]) -> list[RoofPlate]:
    found = []
    for _, mesh in roofs:
        for plane in _planes(mesh):
            if plane.normal[2] > _UPRIGHT:
                ring = np.array(plane.shape.exterior.coords)
                corners = ring[:, :1] * plane.right + ring[:, 1:] * plane.up + plane.offset * plane.normal
                found.append(RoofPlate(plane.normal, corners[:, :2]))
                break
    return found


def _name(one: Any) -> str:
    return str(one.Name or one.is_a())


def _predefined(one: Any) -> str:
    return str(getattr(one, "PredefinedType", "") or "")


def _external(wall: Any) -> bool | None:
    """What the model says of it."""
    import ifcopenshell.util.element

    said = ifcopenshell.util.element.get_pset(wall, "Pset_WallCommon", "IsExternal")
    return None if said is None else bool(said)


def _level(mesh: _Mesh) -> Any:
    """A slab in plan; None where nothing of it is level."""
    normals = mesh.normals
    size = np.maximum(np.linalg.norm(normals, axis=1), 1e-30)
    down = normals[:, 2] / size < -1 + _LEVEL
    if not down.any():
        return None
    return _largest(_flat(mesh.corners[down], np.array([1.0, 0.0, 0.0]), np.array([0.0, 1.0, 0.0])))


def _plate(one: Any, mesh: _Mesh, *, down: bool) -> ReadPlate:
    """A floor by its underside, a roof by its upper face."""
    sides = [plane for plane in _planes(mesh) if (plane.normal[2] < -_UPRIGHT if down else plane.normal[2] > _UPRIGHT)]
    if not sides:
        return ReadPlate(name=_name(one), entity=one.GlobalId, area=0.0)
    pitch = math.degrees(math.acos(min(abs(float(sides[0].normal[2])), 1.0)))
    return ReadPlate(name=_name(one), entity=one.GlobalId, area=float(sides[0].shape.area),
                     pitch=None if down else pitch)  # fmt: skip


def _largest(shape: shapely.Geometry) -> shapely.Polygon:
    found: shapely.Polygon = max(shapely.get_parts(shape), key=lambda one: one.area)
    return found


def _ring(shape: shapely.Polygon, x: float, y: float) -> tuple[Point, ...]:
    plain = shapely.simplify(shape, 1e-6)
    return tuple((float(a) - x, float(b) - y) for a, b in plain.exterior.coords[:-1])

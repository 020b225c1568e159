"""A DXF drawing: elevations as closed outlines, walls on one layer and openings on another."""

from __future__ import annotations

import math
import re
import tempfile
from collections import Counter
from collections.abc import Callable, Collection, Iterator, Mapping, Sequence
from dataclasses import dataclass
from pathlib import Path
from typing import Any

import shapely

from nimble_shell.core.errors import DomainError, Issue
from nimble_shell.core.quantities.sentence import sentence
from nimble_shell.formats.reading.outlines import SAME, Chain, Drawn, Outline, closed_outlines
from nimble_shell.formats.reading.reading import (
    METRES,
    FileUnit,
    LayerHolds,
    LeftOut,
    Point,
    Reading,
    ReadLayer,
    ReadOpening,
    ReadWall,
    fault,
    refuse,
)

_UNITS: dict[int, FileUnit] = {1: "in", 2: "ft", 4: "mm", 5: "cm", 6: "m"}
_MOST_ENTITIES = 200_000
_FARTHEST = 1e4  #: from the origin [m]
_CHORD = 5e-4  #: of arcs [m]
_TOUCH = 2e-3  #: how far an opening may leave its wall and lie in it [m]
_OPEN_SHARE = 0.1  #: of a chain's length: a gap below that is an outline left open
_WALL = re.compile(r"wall|wand|wänd|wände|mur|muro|façade|facade|elev", re.IGNORECASE)
_OPENING = re.compile(r"open|öffn|oeffn|glaz|window|door|fenster|tür|tuer|fen|porte|hueco|ventana", re.IGNORECASE)
_PATHS = {"LWPOLYLINE", "POLYLINE", "CIRCLE", "ELLIPSE", "SPLINE", "LINE", "ARC"}
_PASSED = {"TEXT", "MTEXT", "ATTRIB", "ATTDEF", "HATCH", "DIMENSION", "LEADER", "MULTILEADER", "POINT", "VIEWPORT",
           "IMAGE", "WIPEOUT", "TOLERANCE"}  # fmt: skip


def read_dxf(content: bytes, unit: FileUnit | None = None, layers: Mapping[str, LayerHolds] | None = None) -> Reading:
    """What a DXF drawing holds.

    Parameters
    ----------
    content : bytes
    unit : {"mm", "cm", "m", "in", "ft"}, optional
        In the place of what the file says; needed where it says nothing.
    layers : mapping of layer to {"walls", "openings", "nothing"}, optional
        What somebody has said that layers hold; the others go by their names, else by what lies in what.

    Raises
    ------
    DomainError
        With every fault, each with the handle of its entity; with code "unit_unknown" where nobody says the unit.
    """
    document = _opened(content)
    _check_blocks(document)
    paths, left_out, texts = _drawn(document)
    said = unit or _UNITS.get(document.header.get("$INSUNITS", 0) if document.dxfversion > "AC1009" else 0)
    if said is None:
        proposed = _proposed(paths)
        raise refuse("unit_unknown", "the file does not say in which unit it is drawn",
                     f"say which; {proposed} makes its walls as large as walls are", proposed=proposed)  # fmt: skip
    return _assembled([_scaled(one, METRES[said]) for one in paths],
                      [(text, (x * METRES[said], y * METRES[said])) for text, (x, y) in texts], said, left_out,
                      len(texts), layers or {})  # fmt: skip


def _opened(content: bytes) -> Any:
    from ezdxf.filemanagement import readfile
    from ezdxf.lldxf.const import DXFError

    head = content[:6]
    if head[:4] == b"AC10":
        raise refuse("dwg_file", f"this is a DWG file ({head.decode('ascii', 'replace')}), not DXF",
                     "save it as DXF in the program that made it")  # fmt: skip
    lines = content.rstrip().splitlines()
    if not content.startswith(b"AutoCAD Binary DXF") and (not lines or lines[-1].strip() != b"EOF"):
        raise refuse("truncated", f"the file ends in line {len(lines):,} without its end mark",
                     "save or send it again; a part is never read for the whole", entity=str(len(lines)))  # fmt: skip
    with tempfile.TemporaryDirectory() as folder:
        path = Path(folder) / "drawing.dxf"
        path.write_bytes(content)
        try:
            return readfile(path)
        except (DXFError, OSError, ValueError, KeyError, IndexError, AttributeError, TypeError) as error:
            raise refuse("not_dxf", f"the file cannot be read as DXF: {str(error)[:200]}",
                         "save it as DXF, release 2000 or later") from None  # fmt: skip


def _check_blocks(document: Any) -> None:
    """No block may hold itself, nor all of them together more than can be drawn."""
    counts: dict[str, int] = {}

    def count(name: str, within: tuple[str, ...]) -> int:
        if name in counts:
            return counts[name]
        block = document.blocks.get(name)
        total = 0
        for entity in block or ():
            if entity.dxftype() != "INSERT":
                total += 1
            elif entity.dxf.name in (*within, name):
                raise refuse("block_in_itself", f"the block “{entity.dxf.name}” holds itself through “{name}”",
                             "explode it in the program that made it", entity=entity.dxf.handle)  # fmt: skip
            else:
                total += max(entity.mcount, 1) * count(entity.dxf.name, (*within, name))
        counts[name] = total
        return total

    total = sum(max(one.mcount, 1) * count(one.dxf.name, ()) if one.dxftype() == "INSERT" else 1
                for one in document.modelspace())  # fmt: skip
    if total > _MOST_ENTITIES:
        raise refuse("too_many_entities", f"its blocks come to {total:.3g} entities",
                     f"at most {_MOST_ENTITIES:,} are read: leave out what is no wall or opening")  # fmt: skip


def _resolved(entities: Any, layer: str = "", handle: str = "", deep: int = 0) -> Iterator[tuple[Any, str, str]]:
    """Entities with their layer and the handle that other programs show; of blocks those of the outermost insert.

    An entity on layer 0 of a block lies on the layer of its insert.
    """
    for entity in entities:
        own = entity.dxf.layer if not layer or entity.dxf.layer != "0" else layer
        name = handle or str(entity.dxf.handle)
        if entity.dxftype() != "INSERT":
            yield entity, own, name
        elif deep < 20:
            for one in entity.multi_insert() if entity.mcount > 1 else (entity,):
                yield from _resolved(one.virtual_entities(), own, name, deep + 1)


def _drawn(document: Any) -> tuple[list[Drawn], list[LeftOut], list[tuple[str, Point]]]:
    """Every path of the model, what is passed over, and texts; in drawing units."""
    hidden = {one.dxf.name: "frozen" if one.is_frozen() else "switched off" for one in document.layers
              if one.is_frozen() or one.is_off()}  # fmt: skip
    paths: list[Drawn] = []
    left_out: list[LeftOut] = []
    texts: list[tuple[str, Point]] = []
    faults: list[Issue] = []
    for entity, layer, handle in _resolved(document.modelspace()):
        kind = entity.dxftype()
        if layer in hidden:
            left_out.append(LeftOut(entity=handle, reason=f"{kind} on layer {layer}, which is {hidden[layer]}"))
        elif kind in ("TEXT", "MTEXT"):
            x, y, *_ = entity.dxf.insert
            texts.append((entity.plain_text() if kind == "MTEXT" else entity.dxf.text, (float(x), float(y))))
        elif kind in _PATHS:
            try:
                paths.append(_path(entity, layer, handle))
            except DomainError as error:
                faults += error.issues
        elif kind not in _PASSED:
            left_out.append(LeftOut(entity=handle, reason=f"{kind} is no outline"))
    if faults:
        raise DomainError(*faults)
    return paths, left_out, texts


def _path(entity: Any, layer: str, handle: str) -> Drawn:
    from ezdxf.path import make_path

    kind = entity.dxftype()
    _check_flat(entity, kind, layer, handle)
    found = make_path(entity)
    size = max((abs(value) for point in found.control_vertices() for value in (point.x, point.y)), default=0.0)
    if not math.isfinite(size) or size > 1e3 * _FARTHEST:
        raise refuse("coordinate_out_of_range",
                     f"{kind} {handle} on {layer} has a coordinate that is no finite number, or beyond 10 km",
                     "remove it, or move the drawing to its origin", entity=handle)  # fmt: skip
    points = tuple((float(one.x), float(one.y)) for one in found.flattening(max(size, 1e-6) * 1e-5, segments=16))
    closed = bool(found.is_closed) or bool(getattr(entity, "closed", False) or getattr(entity, "is_closed", False))
    return Drawn(entity=handle, kind=kind, layer=layer, points=points, closed=closed)


def _check_flat(entity: Any, kind: str, layer: str, handle: str) -> None:
    x, y, z = entity.dxf.get("extrusion", (0.0, 0.0, 1.0))
    stands = not (abs(x) < 1e-9 and abs(y) < 1e-9 and abs(z) > 1e-9)
    if kind == "POLYLINE" and (entity.is_3d_polyline or entity.is_polygon_mesh or entity.is_poly_face_mesh):
        stands = stands or len({round(one.dxf.location.z, 9) for one in entity.vertices}) > 1
    if kind == "LINE" and abs(entity.dxf.start.z - entity.dxf.end.z) > 1e-9:
        stands = True
    if stands:
        raise refuse("not_flat", f"{kind} {handle} on {layer} is not drawn flat, on the XY plane",
                     "draw elevations side by side in the plane, or send a model as IFC", entity=handle)  # fmt: skip


def _scaled(one: Drawn, metres: float) -> Drawn:
    return Drawn(entity=one.entity, kind=one.kind, layer=one.layer, closed=one.closed,
                 points=tuple((x * metres, y * metres) for x, y in one.points))  # fmt: skip


def _proposed(paths: Sequence[Drawn]) -> FileUnit:
    """The unit that makes the outlines as large as walls are."""
    sizes = []
    for one in paths:
        xs, ys = [x for x, _ in one.points], [y for _, y in one.points]
        sizes.append(sorted((max(xs) - min(xs), max(ys) - min(ys))))
    if not sizes:
        return "mm"
    high, wide = max(sizes, key=lambda size: size[1])
    order: tuple[FileUnit, ...] = ("mm", "m", "cm", "in", "ft")
    return next((unit for unit in order if 1.8 <= wide * METRES[unit] <= 60 and high * METRES[unit] <= 30
                 and (high == 0 or high * METRES[unit] >= 1.5)),
                next((unit for unit in order if 1 <= wide * METRES[unit] <= 100), "mm"))  # fmt: skip


@dataclass(frozen=True, slots=True)
class _Layers:
    walls: frozenset[str]
    openings: frozenset[str]

    def holds(self, layer: str) -> LayerHolds:
        return "walls" if layer in self.walls else "openings" if layer in self.openings else "nothing"


def _assembled(
    paths: Sequence[Drawn], texts: Sequence[tuple[str, Point]], unit: FileUnit, left_out: list[LeftOut], count: int,
    said: Mapping[str, LayerHolds],
) -> Reading:  # fmt: skip
    by_layer: dict[str, list[Drawn]] = {}
    for one in paths:
        by_layer.setdefault(one.layer, []).append(one)
    outlines: dict[str, list[Outline]] = {}
    chains: list[Chain] = []
    for layer, drawn in by_layer.items():
        closed, open_ = closed_outlines(drawn)
        chains += open_
        if closed:
            outlines[layer] = closed
    faults = [_open(one) for one in chains if _left_open(one)]
    layers = _as_said(_layers(outlines), outlines, said)
    walls = [one for layer in layers.walls for one in outlines.get(layer, ())]
    openings = [one for layer in layers.openings for one in outlines.get(layer, ())]
    relevant = layers.walls | layers.openings
    faults = [one for one, chain in zip(faults, [c for c in chains if _left_open(c)], strict=True)
              if not relevant or chain.layer in relevant or not walls]  # fmt: skip
    if not walls and not faults:
        names = ", ".join(f"{layer} ({len(drawn)})" for layer, drawn in sorted(by_layer.items())) or "none with a path"
        raise refuse("nothing_closed", f"there is no closed outline on any layer; layers: {names}, {count} texts",
                     "draw each wall as a closed outline")  # fmt: skip
    faults += _crossing([*walls, *openings])
    if not faults:
        faults += _over_one_another(walls, "wall")
    if faults:
        raise DomainError(*faults)
    placed, outside = _placed(walls, openings, faults)
    if faults:
        raise DomainError(*faults)
    left_out += [
        LeftOut(entity=one.entity, reason=f"{one.kind} on layer {one.layer} lies in no wall") for one in outside
    ]
    left_out += [LeftOut(entity=one.entity, reason=f"{one.kind} on layer {layer}: neither walls nor openings")
                 for layer, found in outlines.items() if layer not in relevant for one in found]  # fmt: skip
    left_out += [LeftOut(entity=entity, reason=f"{one.kind} on layer {one.layer} closes nothing")
                 for one in chains for entity in one.entities]  # fmt: skip
    return Reading(kind="dxf", unit=unit, left_out=tuple(left_out),
                   layers=tuple(ReadLayer(name=layer, outlines=len(found), holds=layers.holds(layer))
                                for layer, found in sorted(outlines.items())),
                   walls=_named([_wall(wall, placed[n]) for n, wall in enumerate(walls)], walls, placed,
                                texts))  # fmt: skip


def _left_open(one: Chain) -> bool:
    """An outline that somebody has left open, not a line that closes nothing."""
    return one.parts >= 3 and one.gap < _OPEN_SHARE * one.length


def _open(one: Chain) -> Issue:
    (x0, y0), (x1, y1) = one.ends
    message = sentence(
        f"{one.kind} {one.entities[0]} on {one.layer} is open by {{v}} between ({{x0}}, {{y0}}) and ({{x1}}, {{y1}})",
        v=(one.gap, "length"), x0=(x0, "length"), y0=(y0, "length"), x1=(x1, "length"), y1=(y1, "length"),
    )  # fmt: skip
    return fault("outline_open", message, "close it in the program that made it", entity=one.entities[0])


def _layers(outlines: dict[str, list[Outline]]) -> _Layers:
    """Which layers hold walls and which hold openings: by their names, else by what lies in what."""
    named_walls = {layer for layer in outlines if _WALL.search(layer) and not _OPENING.search(layer)}
    named_openings = {layer for layer in outlines if _OPENING.search(layer)}
    if named_walls:
        rest = {layer for layer in outlines if layer not in named_walls}
        return _Layers(frozenset(named_walls), frozenset(named_openings or _inside(outlines, named_walls, rest)))
    inner = _nested(outlines)
    if named_openings:
        holding = {of for layer in named_openings for of in inner.get(layer, {})}
        return _Layers(frozenset(_tightest(outlines, named_openings) or holding), frozenset(named_openings))
    deepest = {layer for layer, of in inner.items() if of and not any(layer in other for other in inner.values())}
    if not deepest:
        return _Layers(frozenset(outlines), frozenset())
    return _Layers(frozenset(_tightest(outlines, deepest)), frozenset(deepest))


def _as_said(found: _Layers, outlines: Collection[str], said: Mapping[str, LayerHolds]) -> _Layers:
    """With what somebody has said of some of them."""
    holds = {layer: said.get(layer, found.holds(layer)) for layer in outlines}
    return _Layers(frozenset(layer for layer, one in holds.items() if one == "walls"),
                   frozenset(layer for layer, one in holds.items() if one == "openings"))  # fmt: skip


def _nested(outlines: dict[str, list[Outline]]) -> dict[str, Counter[str]]:
    """Of each layer: how many of its outlines lie in outlines of which others."""
    found: dict[str, Counter[str]] = {layer: Counter() for layer in outlines}
    around = _around(outlines)
    for layer, own in outlines.items():
        for one in own:
            found[layer].update({other for _, other in around(one) if other != layer})
    return found


def _around(outlines: dict[str, list[Outline]]) -> Callable[[Outline], list[tuple[float, str]]]:
    """What lies round an outline: area and layer of each."""
    every = [one for own in outlines.values() for one in own]
    tree = shapely.STRtree([one.shape for one in every])

    def around(one: Outline) -> list[tuple[float, str]]:
        within = tree.query(one.shape.representative_point(), predicate="within")
        return [(every[n].shape.area, every[n].layer) for n in within
                if every[n].shape.area > one.shape.area * 1.0001]  # fmt: skip

    return around


def _inside(outlines: dict[str, list[Outline]], walls: set[str], rest: set[str]) -> set[str]:
    around = _around(outlines)
    return {layer for layer in rest if any(other in walls for one in outlines[layer] for _, other in around(one))}


def _tightest(outlines: dict[str, list[Outline]], openings: set[str]) -> set[str]:
    """Layers of the smallest outlines that openings lie in: a frame round all of them is none."""
    around = _around(outlines)
    found = set()
    for layer in openings:
        for one in outlines[layer]:
            others = [each for each in around(one) if each[1] not in openings]
            if others:
                found.add(min(others)[1])
    return found


def _crossing(outlines: Sequence[Outline]) -> list[Issue]:
    found = []
    for one in outlines:
        if not one.shape.is_valid:
            where = re.search(r"\[(-?[\d.e+-]+) (-?[\d.e+-]+)\]", shapely.is_valid_reason(one.shape))
            x, y = (float(where[1]), float(where[2])) if where else (math.nan, math.nan)
            found.append(fault(
                "outline_crosses",
                sentence(f"{one.kind} {one.entity} on {one.layer} crosses itself at ({{x}}, {{y}})", x=(x, "length"),
                         y=(y, "length")),
                "draw its corners in order", entity=one.entity))  # fmt: skip
        elif one.shape.area < SAME:
            found.append(fault("no_area", f"{one.kind} {one.entity} on {one.layer} has no area", "remove it",
                               entity=one.entity))  # fmt: skip
    return found


def _over_one_another(outlines: Sequence[Outline], what: str) -> list[Issue]:
    found = []
    shapes = [one.shape for one in outlines]
    for n, k in shapely.STRtree(shapes).query(shapes, predicate="intersects").T.tolist() if shapes else ():
        one, other = outlines[n], outlines[k]
        if k < n:
            shared = shapely.intersection(one.shape, other.shape).area
            if shared > 10 * SAME:
                found.append(fault(
                    f"{what}s_overlap",
                    sentence(f"{what}s {other.entity} and {one.entity} overlap by {{v}}", v=(shared, "area")),
                    "move one of them", entity=entity)
                    for entity in (other.entity, one.entity))  # fmt: skip
    return [each for pair in found for each in pair]


def _placed(
    walls: Sequence[Outline], openings: Sequence[Outline], faults: list[Issue]
) -> tuple[dict[int, list[Outline]], list[Outline]]:
    """Openings by the wall that they lie in; those in none."""
    placed: dict[int, list[Outline]] = {n: [] for n in range(len(walls))}
    outside: list[Outline] = []
    tree = shapely.STRtree([wall.shape for wall in walls])
    for one in openings:
        shares = {int(n): shapely.intersection(one.shape, walls[int(n)].shape).area for n in tree.query(one.shape)}
        best = max(shares, key=lambda n: shares[n], default=-1)
        if best < 0 or shares[best] < SAME:
            outside.append(one)
            continue
        if not walls[best].shape.buffer(_TOUCH, join_style="mitre").covers(one.shape):
            far = max(shapely.distance(walls[best].shape, shapely.Point(point)) for point in one.shape.exterior.coords)
            faults.append(fault(
                "opening_outside",
                sentence(f"opening {one.entity} leaves its wall {walls[best].entity} by {{v}}", v=(far, "length")),
                "move it, or make it smaller", entity=one.entity))  # fmt: skip
        placed[best].append(one)
    for own in placed.values():
        faults += _over_one_another(own, "opening")
    return placed, outside


def _wall(wall: Outline, openings: Sequence[Outline]) -> ReadWall:
    x, y, *_ = wall.shape.bounds
    return ReadWall(
        name="", entity=wall.entity, gross=wall.shape.area, outline=_ring(wall.shape, x, y),
        openings=tuple(ReadOpening(name="", entity=one.entity, area=one.shape.area, outline=_ring(one.shape, x, y))
                       for one in openings),
    )  # fmt: skip


def _ring(shape: shapely.Polygon, x: float, y: float) -> tuple[Point, ...]:
    return tuple((float(a) - x, float(b) - y) for a, b in shape.exterior.coords[:-1])


def _named(
    read: list[ReadWall], walls: Sequence[Outline], placed: dict[int, list[Outline]],
    texts: Sequence[tuple[str, Point]],
) -> tuple[ReadWall, ...]:  # fmt: skip
    """A text in an opening names it; one in a wall, or the nearest one under it, names the wall."""
    names: dict[int, str] = {}
    of: dict[str, str] = {}
    near: dict[int, float] = {}
    for text, point in texts:
        at = shapely.Point(point)
        inside = next((one for own in placed.values() for one in own if one.shape.covers(at)), None)
        if inside is not None:
            of.setdefault(inside.entity, text)
            continue
        for n, wall in enumerate(walls):
            left, low, right, high = wall.shape.bounds
            below = low - point[1]
            if left <= point[0] <= right and -(high - low) <= below <= max(0.5 * (high - low), 1.5):
                far = 0.0 if wall.shape.covers(at) else abs(below)
                if far < near.get(n, math.inf):
                    names[n], near[n] = text, far
    return tuple(
        ReadWall(name=names.get(n, ""), entity=one.entity, gross=one.gross, outline=one.outline, openings=tuple(
            ReadOpening(name=of.get(each.entity, ""), entity=each.entity, area=each.area, outline=each.outline)
            for each in one.openings))
        for n, one in enumerate(read)
    )  # fmt: skip

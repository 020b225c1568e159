"""Shapes of the six buildings: bodies, openings, and which edges the drawn joints stand for.

Among them are an inner corner, a stepped footing, a basement, a wall towards an unheated neighbour and a face with two
build-ups. One mistake is left in: W3 of the Main Laboratory stands 85 mm off the panel module.
"""

from __future__ import annotations

from dataclasses import replace

from nimble_shell.core.building.body import BodyOpening, BodySide, BuildingBody, WallPart
from nimble_shell.core.building.footprint import footprint
from nimble_shell.core.building.roof import Roof
from nimble_shell.core.geometry.face import OpeningKind
from nimble_shell.demo.units import unit_of

#: Of one side: mark, along it, sill above the body's base, width, height; doors begin with D.
_Row = tuple[str, float, float, float, float]


def _openings(body: str, side: int, window: str, door: str, *rows: _Row) -> tuple[BodyOpening, ...]:
    found = []
    for mark, u, sill, w, h in rows:
        kind: OpeningKind = "door" if mark.startswith("D") else "window"
        found.append(BodyOpening(id=mark.lower(), mark=mark, body=body, side=side, u=u, sill=sill, w=w, h=h, kind=kind,
                                 zone=door if kind == "door" else window))  # fmt: skip
    return tuple(found)


def _rectangle(x: float, long: float, wide: float) -> tuple[tuple[float, float], ...]:
    return tuple((x + a, b) for a, b in footprint("rectangle", long, wide))


def _hall(side: int, low: float) -> WallPart:
    return WallPart(side=side, zone="e3", low=low, high=30.0)


_SADDLE = Roof(form="two pitches", pitch=18.92, towards=180)
BODIES: dict[str, tuple[BuildingBody, ...]] = {
    "main-laboratory": (
        BuildingBody(id="b1", name="Laboratory", outline=_rectangle(0, 12.0, 8.4), storeys=(3.04, 1.56), wall="e2",
                     top="e1", floor="e5", roof=Roof(form="two pitches", pitch=35, towards=180, overhang=0.6)),
    ),
    "boat-workshop": (
        BuildingBody(id="b1", name="Workshop", outline=_rectangle(0, 8.0, 10.0), storeys=(2.058, 1.643), roof=_SADDLE,
                     parts=tuple(_hall(side, 2.058) for side in (0, 2, 3)), wall="e2", top="e1", floor="e5"),
        BuildingBody(id="b2", name="Boats, one step down", outline=_rectangle(8, 6.0, 10.0), storeys=(2.658, 1.643),
                     base=-0.6, ground=-0.6, roof=_SADDLE, sides=(BodySide(number=3, beyond="ground"),),
                     parts=tuple(_hall(side, 2.658) for side in (0, 1, 2)), wall="e2", top="e1", floor="e5"),
    ),
    "bunkhouse": (
        BuildingBody(id="b1", name="Beds", outline=footprint("L", 10.0, 10.0, 6.0, 5.0), storeys=(2.55, 1.55), base=0.6,
                     roof=Roof(form="hip", pitch=29.59, overhang=0.5), wall="e2", top="e1", floor="e5"),
    ),
    "sample-cold-store": (
        BuildingBody(id="b1", name="Store", outline=_rectangle(0, 9.0, 6.0), storeys=(3.2,),
                     roof=Roof(form="flat", parapet=0.3), wall="e2", top="e1", floor="e3"),
    ),
    "seed-barn": (
        BuildingBody(id="b1", name="Barn", outline=_rectangle(0, 10.0, 8.0), storeys=(3.315,),
                     roof=Roof(form="two pitches", pitch=24.62, towards=180, overhang=0.4),
                     sides=(BodySide(number=3, beyond="unheated"),), wall="e2", top="e1", floor="e5",
                     parts=(WallPart(side=1, zone="e3", low=0.0, high=3.315, left=1.9, right=6.123),)),
    ),
    "pump-house": (
        BuildingBody(id="b1", name="Pumps", outline=_rectangle(0, 5.0, 4.0), storeys=(2.195,), base=-1.2,
                     roof=Roof(form="one pitch", pitch=24.62, towards=180), wall="e2", top="e1", floor="e5",
                     parts=(WallPart(side=2, zone="e3", low=0.0, high=30.0, left=0.0, right=2.98),)),
    ),
}  # fmt: skip
OPENINGS: dict[str, tuple[BodyOpening, ...]] = {
    "main-laboratory": (
        *_openings("b1", 0, "e3", "e4", ("W1", 1.2, 0.9, 1.5, 1.4), ("D1", 3.6, 0.0, 1.0, 2.2),
                   ("W2", 6.0, 0.9, 1.5, 1.4), ("W3", 8.485, 0.9, 1.5, 1.4), ("W4", 2.4, 3.4, 1.2, 1.0),
                   ("W5", 6.0, 3.4, 1.2, 1.0), ("W6", 8.4, 3.4, 1.2, 1.0)),
        *_openings("b1", 1, "e3", "e4", ("W7", 1.2, 0.9, 1.5, 1.4), ("W8", 4.8, 0.9, 1.5, 1.4),
                   ("W9", 3.5, 5.0, 1.4, 1.0)),
        *_openings("b1", 2, "e3", "e4", ("W10", 1.2, 0.9, 1.5, 1.4), ("D2", 4.8, 0.0, 1.0, 2.2),
                   ("W11", 7.2, 0.9, 1.5, 1.4), ("W12", 9.6, 0.9, 1.5, 1.4), ("W13", 2.4, 3.4, 1.2, 1.0),
                   ("W14", 6.0, 3.4, 1.2, 1.0), ("W15", 8.4, 3.4, 1.2, 1.0)),
        *_openings("b1", 3, "e3", "e4", ("W16", 1.2, 0.9, 1.5, 1.4), ("W17", 4.8, 0.9, 1.5, 1.4),
                   ("W18", 3.5, 5.0, 1.4, 1.0)),
    ),
    "boat-workshop": (
        *_openings("b1", 0, "e4", "e4", ("W1", 1.0, 2.25, 2.0, 1.2), ("W2", 4.5, 2.25, 2.0, 1.2)),
        *_openings("b1", 2, "e4", "e4", ("W3", 1.0, 2.25, 2.0, 1.2), ("W4", 4.5, 2.25, 2.0, 1.2)),
        *_openings("b1", 3, "e4", "e4", ("W5", 1.0, 2.25, 2.0, 1.2), ("W6", 7.0, 2.25, 2.0, 1.2)),
        *_openings("b2", 0, "e4", "e4", ("W7", 0.6, 2.85, 2.0, 1.2), ("W8", 2.95, 2.85, 2.0, 1.2)),
        *_openings("b2", 1, "e4", "e4", ("D1", 3.0, 0.0, 4.0, 2.5)),
        *_openings("b2", 2, "e4", "e4", ("W9", 1.0, 2.85, 2.0, 1.2), ("W10", 3.4, 2.85, 2.0, 1.2)),
    ),
    "bunkhouse": (
        *_openings("b1", 0, "e3", "e4", *((f"W{n + 1}", 0.8 + 2.4 * n, 0.9, 1.5, 1.25) for n in range(4))),
        *_openings("b1", 1, "e3", "e4", ("W5", 0.6, 0.9, 1.5, 1.25), ("W6", 2.8, 0.9, 1.5, 1.25)),
        *_openings("b1", 2, "e3", "e4", ("D1", 1.5, 0.0, 1.0, 2.1)),
        *_openings("b1", 3, "e3", "e4", ("D2", 2.0, 0.0, 1.0, 2.1)),
        *_openings("b1", 4, "e3", "e4", ("W7", 1.0, 0.9, 1.5, 1.25), ("W8", 3.4, 0.9, 1.5, 1.25)),
        *_openings("b1", 5, "e3", "e4", *((f"W{n + 9}", 0.8 + 2.4 * n, 0.9, 1.5, 1.25) for n in range(4))),
    ),
    "seed-barn": _openings("b1", 0, "e4", "e4", ("D1", 2.0, 0.0, 3.0, 2.4), ("D2", 7.5, 0.0, 0.9, 2.0)),
    "pump-house": _openings("b1", 2, "e4", "e4", ("D1", 3.4, 1.2, 1.2, 2.0)),
}  # fmt: skip


def _around(wall: str, *zones: str) -> tuple[str, ...]:
    """Head, jamb and sill of openings in a wall."""
    return tuple("|".join((kind, *sorted((wall, zone)))) for zone in zones for kind in ("head", "jamb", "window_sill"))


#: Edges that a joint of a building stands for, by its name.
FOLLOWS: dict[tuple[str, str], tuple[str, ...]] = {
    ("main-laboratory", "Ridge"): ("ridge|e1",),
    ("main-laboratory", "Eave"): ("eave|e1|e2", "verge|e1|e2"),
    ("main-laboratory", "Wall seams"): ("seam|e2",),
    ("main-laboratory", "Outer corners"): ("corner_out|e2",),
    ("main-laboratory", "Window jambs"): _around("e2", "e3", "e4"),
    ("main-laboratory", "Store floor"): ("floor_line|e2",),
    ("main-laboratory", "Wall on slab"): ("foot|e2|e5", "threshold|e2|e4"),
    ("boat-workshop", "Corners below"): ("corner_out|e2",),
    ("boat-workshop", "Windows in the hall"): _around("e3", "e4"),
    ("boat-workshop", "Hall floor"): ("change|e2|e3",),
    ("boat-workshop", "Footing"): ("foot|e2|e5", "step|e2|e5"),
    ("bunkhouse", "Eave"): ("eave|e1|e2",),
    ("bunkhouse", "Cassette seams"): ("seam|e2",),
    ("bunkhouse", "Window jambs"): _around("e2", "e3", "e4"),
    ("sample-cold-store", "Panel side joints"): ("seam|e2",),
    ("sample-cold-store", "Corners"): ("corner_out|e2",),
    ("sample-cold-store", "Panel base"): ("foot|e2|e3",),
    ("seed-barn", "Panel joints"): ("seam|e2",),
    ("seed-barn", "Door frames"): _around("e2", "e4"),
    ("seed-barn", "Box plate"): ("foot|e2|e5",),
    ("pump-house", "Panel seams"): ("seam|e2",),
    ("pump-house", "Door"): _around("e2", "e4"),
    ("pump-house", "Foot"): ("foot|e2|e5",),
    ("pump-house", "Door threshold"): ("threshold|e2|e4",),
}


def openings_of(building: str) -> tuple[BodyOpening, ...]:
    """The openings of a building; those that have the size of one of its types are of it."""
    return tuple(replace(one, unit=unit_of(building, one.w, one.h)) for one in OPENINGS.get(building, ()))

"""Edges of roofs: upright sections; outside on the left of an eave, a ridge stands over x = 0.

An eave whose roof rises outwards is a high eave, one whose roof is level is a verge, cut at right angles to it. A hip
and a valley are ridges of another angle: two planes of pitch p over a square corner lean by acos(cos² p)/2 each.
"""

from __future__ import annotations

import math
from dataclasses import replace

import shapely

from nimble_shell.core.joints.drawing import Board, Drawing, box
from nimble_shell.core.joints.families.base import BOX, box_plate
from nimble_shell.core.joints.families.family import Family, Owned, Situation, Variant, fits, length, reach
from nimble_shell.core.joints.families.seam import BEAM_TIMBER, FRAMES, MESH, METAL, ROOFS, WALLS, air_gap
from nimble_shell.core.joints.stack import Stack
from nimble_shell.core.parameters import Choice, Parameter
from nimble_shell.core.quantities.sentence import sentence

_FAR = 20.0  #: beyond every section [m]


def draw_eave(at: Situation) -> Drawing:
    """Roof on wall, falling outwards."""
    return _eave(at, at.number("pitch"))


def draw_high_eave(at: Situation) -> Drawing:
    """Roof on wall, rising outwards: the upper end of one pitch."""
    return _eave(at, -at.number("pitch"))


def draw_verge(at: Situation) -> Drawing:
    """Roof on a gable wall, cut at right angles to the slope: there it is level."""
    return _eave(at, 0.0)


def _eave(at: Situation, falls: float) -> Drawing:
    """Roof on wall; the inner faces meet at (0, 0). The roof falls outwards by so much. [°]"""
    wall, roof = at.wall, at.stacks["roof"]
    H, L = reach(wall), reach(roof)
    pitch = math.radians(falls)
    tan, cos = math.tan(pitch), math.cos(pitch)
    u, n = (cos, math.sin(pitch)), (-math.sin(pitch), cos)
    out = at.number("overhang") if at.variant == "overhang" else 0.0
    board = Board()
    if falls < 0:
        _bevelled(board, wall, H, tan)
    else:
        board.strip(wall, origin=(0, 0), along=(0, 1), out=(-1, 0), start=-H, end=roof.d)
    a, b = wall.core_span
    plate = at.number("plate")
    timber = at.fill("softwood")
    x0, x1 = -b, -a
    if at.variant == "ring beam":  # the plate lies on the beam; the fill goes on outside of both
        x0 = -a - at.number("beam")
        fits(
            x0 > -b,
            "beam",
            sentence(
                "the beam is {v1} deep in a frame of {v2}", v1=(at.number("beam"), "length"), v2=(b - a, "length")
            ),
            "a thinner beam, or a deeper frame",
        )
    if at.variant == "plate on core":  # on the concrete of a form wall
        core = wall.of_family("concrete")
        if core is not None:
            inner, outer = wall.span(core)
            x0, x1 = -outer, -inner
    if wall.system not in (*MESH, *METAL):
        board.poly(((x0, x0 * tan - plate), (x1, x1 * tan - plate), (x1, x1 * tan), (x0, x0 * tan)), timber, "plate")
        board.dim("plate", (x0, x0 * tan - plate), (x0, x0 * tan))
    if at.variant in ("ring beam", "box plate"):
        _HEAD[at.variant](at, board, x0, x1, x0 * tan - plate)
    if falls < 0:
        _cut_plumb(board, roof, L, -wall.d, tan, cos, u, n)
    else:
        _over_the_head(board, wall, roof, L, out, tan, cos, u, n)
    if at.number("closure") > 0:
        _close(at, board, roof, out, tan, cos)
    x = -wall.d
    board.open_face(wall, -H, x * tan)
    board.air("inside", ((-wall.d / 2, -H), (_FAR, -H), (L * cos, L * u[1]), (-wall.d / 2, -wall.d / 2 * tan)))
    cut = tuple((L * u[0] + o * n[0], L * u[1] + o * n[1]) for o in (0, _FAR))
    over = (cut[0], cut[1], (-_FAR, _FAR), (-_FAR, -out * tan - _FAR), (x, -out * tan - _FAR))
    board.air("outside", (*((s * u[0] + roof.d / 2 * n[0], s * u[1] + roof.d / 2 * n[1]) for s in (L,)),
                          *over[1:3], (-_FAR, -H), (x / 2, -H), (x / 2, x / 2 * tan)), roof.R_se)  # fmt: skip
    apex = x * tan + roof.d / cos  # where the outer faces of both meet
    board.refer(wall.name, wall.U, H, H, H + apex)
    s_outer = x * cos + apex * math.sin(pitch)
    board.refer(roof.name, roof.U, L, L, L - s_outer)
    board.mark("bead", 0, 0)
    board.mark("tape", -wall.d, x * tan)
    foot = x0 * tan - plate - (at.number("beam_height") if at.variant == "ring beam" else 0.0)
    low = min(-0.35, (x - out) * tan - 0.15, foot - 0.12, 0.7 * tan - 0.08)
    high = max(0.7 * tan, (x - out) * tan) + roof.d / cos + 0.06
    return board.done((-wall.d - out - 0.08, low, 0.7, high))


def _over_the_head(
    board: Board, wall: Stack, roof: Stack, L: float, out: float, tan: float, cos: float,
    u: tuple[float, float], n: tuple[float, float],
) -> None:  # fmt: skip
    """The roof covers the wall's head: nothing of the wall stands above the roof's underside."""
    start = -(wall.d + out) / cos - roof.d * tan - 0.1
    above = tuple((s * u[0] + o * n[0], s * u[1] + o * n[1]) for s, o in ((start, 0), (L, 0), (L, _FAR), (start, _FAR)))
    board.poly(above, None)
    within = shapely.Polygon(box(-wall.d - out, -_FAR, _FAR, _FAR))
    board.strip(roof, origin=(0, 0), along=u, out=n, start=start, end=L, within=within)


def _bevelled(board: Board, wall: Stack, H: float, tan: float) -> None:
    """The wall up to a roof that rises outwards, its head cut at the roof's pitch: corners of both are the same."""
    for index, ply in enumerate(wall.plies):
        a, b = wall.span(index)
        board.poly(((-b, -H), (-a, -H), (-a, -a * tan), (-b, -b * tan)), ply.fill)


def _cut_plumb(
    board: Board, roof: Stack, L: float, x: float, tan: float, cos: float, u: tuple[float, float],
    n: tuple[float, float],
) -> None:  # fmt: skip
    """The roof from an upright end at x. [m]"""
    for index, ply in enumerate(roof.plies):
        a, b = roof.span(index)
        board.poly(((x, x * tan + a / cos), (L * u[0] + a * n[0], L * u[1] + a * n[1]),
                    (L * u[0] + b * n[0], L * u[1] + b * n[1]), (x, x * tan + b / cos)), ply.fill)  # fmt: skip


def _ring_beam(at: Situation, board: Board, x0: float, x1: float, low: float) -> None:
    """A beam round the wall's head, at the inside of the frame; its top follows the plate."""
    high = at.number("beam_height")
    top = low + (x1 - x0) * math.tan(math.radians(at.number("pitch")))
    ring = [(x0, low - high), (x1, low - high), (x1, top), (x0, low)]
    board.poly(ring, at.fill(at.word("timber")), "ring beam")
    board.dim("beam", (x0, low - high), (x1, low - high))
    board.dim("beam_height", (x0, low - high), (x0, low))


def _box_plate(at: Situation, board: Board, x0: float, x1: float, low: float) -> None:
    """An insulated box on the bales, under the bevelled plate."""
    high = at.number("box")
    box_plate(at, board, x0, x1, low - high, low)
    board.dim("box", (x0, low - high), (x0, low))


_HEAD = {"ring beam": _ring_beam, "box plate": _box_plate}


def _close(at: Situation, board: Board, roof: Stack, out: float, tan: float, cos: float) -> None:
    """Lumber in the end of the roof panel's core, cut plumb."""
    a, b = roof.core_span
    x = -at.wall.d - out
    t = at.number("closure")
    ring = [(x + dx, (x + dx) * tan + o / cos) for dx, o in ((0, a), (t, a), (t, b), (0, b))]
    board.poly(ring, at.fill("softwood"), "end lumber")
    board.dim("closure", (x, x * tan + b / cos), (x + t, (x + t) * tan + b / cos))
    board.mark("bead", x + t, (x + t) * tan + (a + b) / 2 / cos)


def draw_ridge(at: Situation) -> Drawing:
    """Two roof panels over a room."""
    return _two_planes(at, math.radians(at.number("pitch")))


def draw_hip(at: Situation) -> Drawing:
    """Two roof planes over an outer square corner of the plan, cut at right angles to the hip."""
    return _two_planes(at, _leaning(at))


def draw_valley(at: Situation) -> Drawing:
    """Two roof planes over an inner square corner, cut at right angles to the valley."""
    return _two_planes(at, -_leaning(at))


def _leaning(at: Situation) -> float:
    """How far each of two planes of one pitch over a square corner leans, at right angles to where they meet. [rad]"""
    return math.acos(math.cos(math.radians(at.number("pitch"))) ** 2) / 2


def _two_planes(at: Situation, falls: float) -> Drawing:
    """Two roof panels that fall away from each other, or towards it; their inner faces meet at (0, 0). [rad]"""
    roof = at.stacks["roof"]
    L = reach(roof)
    tan, cos, sin = math.tan(falls), math.cos(falls), math.sin(falls)
    board = Board()
    a, b = roof.core_span
    gap = at.number("gap")
    timber = at.fill("softwood")
    for side in (1.0, -1.0):
        half = shapely.Polygon(box(0, -_FAR, side * _FAR, _FAR)).normalize()
        u, n = (side * cos, -sin), (side * sin, cos)
        board.strip(roof, origin=(0, 0), along=u, out=n, start=-roof.d * abs(tan) - 0.05, end=L, within=half)
        t = at.number("lumber")
        if t > 0:  # plumb lumber in the end of each core
            x0, x1 = side * gap / 2, side * (gap / 2 + t)
            ring = [(x, -abs(x) * tan + o / cos) for x, o in ((x0, a), (x1, a), (x1, b), (x0, b))]
            board.poly(ring, timber, "end lumber")
    fill = at.fill("spray-closed") if at.word("joint") == "foamed" else air_gap(b - a, gap)
    board.poly([(-gap / 2, -gap / 2 * tan + a / cos), (gap / 2, -gap / 2 * tan + a / cos),
                (gap / 2, -gap / 2 * tan + b / cos), (-gap / 2, -gap / 2 * tan + b / cos)], fill, "joint")  # fmt: skip
    beam = _beam(at, board, tan) if at.variant in ("beam", "rafter") else 0.0
    _airs(board, roof, L, falls)
    board.refer(roof.name, roof.U, 2 * L, 2 * L, 2 * (L + roof.d * tan))
    board.mark("tape", 0, 0)
    board.mark("foam", 0, (a + b) / 2 / cos)
    wide = max(0.55, roof.d + 0.25)
    view = (-wide, -max(wide * tan, beam) - 0.08, wide, roof.d / cos + max(-wide * tan, 0.0) + 0.06)
    return board.done(view, sides=("room below", "outside above"))


def _beam(at: Situation, board: Board, tan: float) -> float:
    """A beam or rafter under both planes; how deep it is. [m]"""
    wide, deep = at.number("beam_width"), at.number("beam_depth")
    board.poly([(-wide / 2, -deep), (wide / 2, -deep), (wide / 2, -wide / 2 * tan), (0, 0),
                (-wide / 2, -wide / 2 * tan)], at.fill("glulam"), "beam under it")  # fmt: skip
    board.dim("beam_width", (-wide / 2, -deep), (wide / 2, -deep))
    board.dim("beam_depth", (wide / 2, -deep), (wide / 2, 0))
    return deep


def _airs(board: Board, roof: Stack, L: float, falls: float) -> None:
    cos, sin = math.cos(falls), math.sin(falls)
    X, low, middle = L * cos, -L * sin, roof.d / 2 / cos
    board.air("inside", ((-X, low), (0, -_FAR), (X, low), (X * 0.999, low + 1e-4), (0, middle),
                         (-X * 0.999, low + 1e-4)))  # fmt: skip
    x, y = L * cos + roof.d / 2 * sin, low + roof.d / 2 * cos
    far = (x + max(_FAR * sin, 0.0), y + _FAR * cos)
    board.air("outside", ((x, y), far, (0, 3 * _FAR), (-far[0], far[1]), (-x, y), (0, middle)), roof.R_se)


_PITCH = Parameter(key="pitch", text="pitch", start=35.0, least=0.0, most=55.0, dimension="angle")
_EAVE = (_PITCH, length("plate", "bevelled plate", 0.060, 0.020, 0.150),
         length("closure", "lumber in the end of the roof", 0.038, 0.0, 0.100))  # fmt: skip
_ROOFED = tuple(system for system in WALLS if system != "icf")
EAVE = Family(
    key="eave",
    name="Eave",
    station="C",
    roles=("wall", "roof"),
    owns=(Owned(role="wall", place="plate", lines="head"), Owned(role="roof", place="plate", lines=0.5)),
    draw=draw_eave,
    parameters=_EAVE,
    variants=(
        Variant(key="flush", text="roof ends at the wall's face", suits=_ROOFED),
        Variant(key="overhang", text="insulated roof runs out as an overhang", suits=_ROOFED,
                parameters=(length("overhang", "overhang", 0.500, 0.100, 1.000),)),
        Variant(key="ring beam", text="on a ring beam at the frame's inside", suits=FRAMES,
                parameters=(length("beam", "beam depth", 0.090, 0.045, 0.180),
                            length("beam_height", "beam height", 0.240, 0.120, 0.400), BEAM_TIMBER)),
        Variant(key="box plate", text="on an insulated box plate", suits=("straw-bale",), parameters=BOX),
        Variant(key="plate on core", text="plate on the concrete core", suits=("icf", "icf-one-sided")),
    ),
)  # fmt: skip
_LOW_PITCH = Parameter(key="pitch", text="pitch", start=15.0, least=0.0, most=40.0, dimension="angle")
HIGH_EAVE = replace(EAVE, key="high eave", name="High eave", draw=draw_high_eave, variants=EAVE.variants[:1],
                    parameters=(_LOW_PITCH, *_EAVE[1:]))  # fmt: skip
VERGE = replace(EAVE, key="verge", name="Verge", draw=draw_verge, variants=EAVE.variants[:2], parameters=_EAVE[1:])
_MEETING = (
    length("lumber", "lumber in the panels' ends", 0.038, 0.0, 0.100),
    length("gap", "joint", 0.010, 0.002, 0.040),
    Choice(key="joint", text="joint", start="foamed", options=("foamed", "open")),
)
_BEAM = (
    length("beam_width", "beam width", 0.140, 0.060, 0.300),
    length("beam_depth", "beam depth", 0.400, 0.150, 0.800),
)
RIDGE = Family(
    key="ridge",
    name="Ridge",
    station="A",
    roles=("roof",),
    owns=(Owned(role="roof", place="plate"),),  # half of them at the end of each slope
    draw=draw_ridge,
    parameters=(Parameter(key="pitch", text="pitch", start=35.0, least=5.0, most=55.0, dimension="angle"), *_MEETING),
    variants=(
        Variant(key="panel to panel", text="panel to panel", suits=ROOFS),
        Variant(key="beam", text="on a ridge beam", suits=ROOFS, parameters=_BEAM),
    ),
)
_HIPS = (
    Variant(key="panel to panel", text="panel to panel", suits=ROOFS),
    Variant(key="rafter", text="on a rafter below", suits=ROOFS, parameters=_BEAM),
)
HIP = replace(RIDGE, key="hip", name="Hip", draw=draw_hip, variants=_HIPS)
VALLEY = replace(RIDGE, key="valley", name="Valley", draw=draw_valley, variants=_HIPS)

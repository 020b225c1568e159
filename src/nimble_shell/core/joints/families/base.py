"""Where a wall meets the ground: upright section, outside on the left, top of the floor at y = 0."""

from __future__ import annotations

import math
from dataclasses import replace

from nimble_shell.core.ground.floor import Slab
from nimble_shell.core.ground.steady import ground_figures
from nimble_shell.core.joints.drawing import Board, Drawing, box
from nimble_shell.core.joints.families.family import Family, Owned, Situation, Variant, fits, length, reach
from nimble_shell.core.joints.families.seam import MESH, METAL, WALLS
from nimble_shell.core.joints.stack import Stack, row_of
from nimble_shell.core.parameters import Choice
from nimble_shell.core.quantities.sentence import sentence
from nimble_shell.core.working import value_of

#: One convention for the areas and for ψ, whatever the wall does below the floor.
EXTERNAL = (
    "external dimensions: walls to the underside of the floor (without hardcore), whatever stands below it, floors to "
    "the walls' outer faces; hardcore counts as ground"
)
SOIL_LAMBDA = 2.0  #: of ground that is not known, ISO 13370:2017, table 7 [W/(m·K)]


def draw(at: Situation) -> Drawing:
    """The foot of a wall."""
    wall, slab = at.wall, at.stacks["floor"]
    H, b = reach(wall), at.number("half_width")
    B = 2 * b  # characteristic dimension of a long floor
    ground = -at.number("ground")
    deep = 2.5 * B
    board = Board()
    soil(at, board, b, deep)
    edge = _DRAW[at.variant](at, board, b)
    out = wall.d + edge
    board.air("inside", box(-wall.d / 2, -slab.d / 2, b, H))
    foot = ground if at.variant.endswith("footing") else max(ground, -slab.depth(structural(slab)))
    board.open_face(wall, foot, H)
    board.air("outside", box(-wall.d - deep, ground - 0.05, -wall.d / 2, H), 0.04)
    U_ground = ground_U(slab, B, wall.d)
    board.refer(wall.name, wall.U, H, H, H + slab.d)  # outside, walls are measured to the floor's underside
    board.refer(f"{slab.name}, on the ground", U_ground, b, b, b + wall.d)
    view = (-out - 0.45, -max(slab.d, at.number("ground")) - at.number("view"), 0.75, 0.55)
    return board.done(view, assumptions=(*assumed(b), *_ROW.get(at.variant, ())))


def soil(at: Situation, board: Board, b: float, deep: float) -> None:
    """Ground under a slab of half width `b` and beside it, as deep and wide as `deep`. [m]"""
    out, slab, ground = -at.wall.d, at.stacks["floor"], -at.number("ground")
    earth = replace(at.fill("clay-soil"), name="ground", lambda_=SOIL_LAMBDA)
    low = min(ground, -slab.d)
    board.rect(out - deep, ground - deep, b, low, earth)
    board.rect(out - deep, low, out, ground, earth)
    board.rect(out, low, b, -slab.d, earth)


def assumed(b: float) -> tuple[str, ...]:
    """What is taken for granted about a slab of half width `b` and its ground. [m]"""
    return (
        sentence(
            "ground {soil}, {far} deep and wide; floor {wide} wide (ISO 10211:2017, 7.2.4)",
            soil=(SOIL_LAMBDA, "conductivity"),
            far=(5 * b, "distance"),
            wide=(2 * b, "distance"),
        ),
        "U of the floor with its ground by ISO 13370:2017, 7.2, so ψ is the joint alone",
        EXTERNAL,
    )


def ground_U(slab: Stack, B: float, wall_thickness: float) -> float:
    """Transmittance of a slab on the ground, insulated over all of it. [W/(m²·K)]

    Parameters
    ----------
    slab : Stack
        Its plies, without the ground.
    B : float
        Characteristic dimension: area over half the perimeter. [m]
    wall_thickness : float
        [m]

    References
    ----------
    .. [1] ISO 13370:2017, 7.2, d_t = w + λ(R_si + R_f + R_se).
    """
    R_f = sum(ply.d / ply.fill.lambda_ for ply in slab.plies)
    strip = Slab(A=B, P=2.0, lambda_=SOIL_LAMBDA, w=wall_thickness, Rf=R_f)
    return value_of(ground_figures(strip).U)


def _on_slab(at: Situation, board: Board, b: float) -> float:
    """The wall stands on the slab's structural ply; foam may stand at its edge."""
    wall, slab = at.wall, at.stacks["floor"]
    H = reach(wall)
    bearing = structural(slab)
    top = -slab.depth(bearing)
    foam = at.number("edge") if at.variant != "no edge foam" else 0.0
    deep = at.number("edge_depth") if foam else 0.0
    # The structural ply carries the wall; the plies above it stay inside.
    for index, ply in enumerate(slab.plies):
        a, z = slab.span(index)
        board.rect(-wall.d if index >= bearing else 0, -z, b, -a, ply.fill)
    board.strip(wall, origin=(0, 0), along=(0, 1), out=(-1, 0), start=top, end=H)
    _foot(at, board, top)
    if foam:
        board.rect(-wall.d - foam, top - deep, -wall.d, min(top, 0.0), at.fill("xps-033"), "edge foam")
        board.dim("edge", (-wall.d - foam, top - deep), (-wall.d, top - deep))
        board.dim("edge_depth", (-wall.d - foam, top - deep), (-wall.d - foam, top))
    board.mark("bead", -0.01, top)
    board.mark("lap", -wall.d, top)
    return foam


def _foot(at: Situation, board: Board, top: float) -> None:
    wall = at.wall
    a, z = wall.core_span
    if wall.system in METAL:
        # A steel angle carries the panel's foot: one leg under it, one against its inner skin.
        t = 0.002
        board.rect(-z, top, -a, top + t, at.fill("steel"), "base angle")
        board.rect(-a - t, top, -a, top + 0.05, at.fill("steel"), "base angle")
        board.mark("gasket", -(a + z) / 2, top)
        return
    if at.variant == "dowels":
        _dowels(at, board, top)
    if wall.system in MESH or wall.system.startswith("icf") or wall.system == "masonry":
        return
    gasket = at.number("gasket")
    board.rect(-z, top, -a, top + gasket, at.fill("spray-closed"), "sill gasket")
    board.mark("gasket", -(a + z) / 2, top + gasket / 2)
    foot = top + gasket
    if at.variant == "box plate":
        high = at.number("box")
        box_plate(at, board, -z, -a, foot, foot + high)
        board.dim("box", (-z, foot), (-z, foot + high))
        return
    plate = at.number("plate")
    count = 2 if wall.system == "straw-bale" else 1
    board.rect(-z, foot, -a, foot + count * plate, at.fill("softwood"), "bottom plate")
    board.dim("plate", (-z, foot), (-z, foot + count * plate))


def box_plate(at: Situation, board: Board, x0: float, x1: float, low: float, high: float) -> None:
    """A box of timber edges between two boards, its inside filled; bales or a roof stand on it. [m]"""
    edge, sheet = at.number("box_edge"), at.number("box_sheet")
    fits(2 * sheet < high - low, "box_sheet", "the boards fill the box", "thinner boards, or a higher box")
    timber, plywood = at.fill("softwood"), at.fill("plywood")
    board.rect(x0, low, x1, high, at.fill(at.word("box_fill")), "filled box")
    for x in (x0, x1 - edge):
        board.rect(x, low, x + edge, high, timber, "edge of the box")
    for y in (low, high - sheet):
        board.rect(x0, y, x1, y + sheet, plywood, "board of the box")


def _dowels(at: Situation, board: Board, top: float) -> None:
    """Bars set in grout stand in both mortar faces, at a spacing: each row as its mean."""
    wall, slab = at.wall, at.stacks["floor"]
    bar, up, down = at.number("bar"), at.number("bar_up"), at.number("bar_down")
    base = slab.plies[structural(slab)]
    fits(
        down < base.d,
        "bar_down",
        sentence("the dowels go {v1} into a slab of {v2}", v1=(down, "length"), v2=(base.d, "length")),
        "less deep, or a thicker slab",
    )
    share = math.pi / 4 * bar / at.number("bar_spacing")
    metal = at.fill(at.word("bar_metal"))
    for index, ply in enumerate(wall.plies):
        if ply.fill.family != "concrete":
            continue
        x = -(wall.span(index)[0] + wall.span(index)[1]) / 2
        board.rect(x - bar / 2, top - down, x + bar / 2, top, row_of(metal, base.fill, share), "dowels, a row")
        board.rect(x - bar / 2, top, x + bar / 2, top + up, row_of(metal, ply.fill, share), "dowels, a row")
        board.dim("bar_up", (x, top), (x, top + up))


def _through(at: Situation, board: Board, b: float) -> float:
    """The wall goes down to its footing; the slab stops inside of it, behind a strip of foam."""
    wall, slab = at.wall, at.stacks["floor"]
    H = reach(wall)
    deep, wide, high = at.number("footing_depth"), at.number("footing_width"), at.number("footing_height")
    strip = at.number("edge")
    fits(
        deep > slab.d,
        "footing_depth",
        sentence("the footing at {v1} lies in the slab of {v2}", v1=(deep, "length"), v2=(slab.d, "length")),
        "deeper than the slab",
    )
    for index, ply in enumerate(slab.plies):
        a, z = slab.span(index)
        board.rect(strip, -z, b, -a, ply.fill)
    board.rect(0, -slab.d, strip, 0, at.fill("xps-033"), "edge strip")
    board.strip(wall, origin=(0, 0), along=(0, 1), out=(-1, 0), start=-deep, end=H)
    for index in _linings(wall):  # board and air stop at the floor
        x0, x1 = wall.span(index)
        board.rect(-x1, -deep, -x0, 0, wall.plies[wall.core_at].fill, "foam runs down")
    middle = -wall.d / 2
    concrete = at.fill("concrete-reinforced")
    step = at.number("step") if at.variant == "stepped footing" else 0.0
    board.rect(middle - wide / 2, -deep - high - step, middle + wide / 2, -deep, concrete, "footing")
    board.dim("footing_depth", (middle - wide / 2, -deep), (middle - wide / 2, 0))
    if strip:
        board.dim("edge", (0, -slab.d), (strip, -slab.d))
    board.mark("bead", 0, 0)
    board.mark("lap", -wall.d, -at.number("ground"))
    board.mark("drain", -wall.d, -deep)
    return 0.0


def structural(slab: Stack) -> int:
    """The ply that carries: concrete if there is some, else the first one."""
    found = slab.of_family("concrete")
    return found if found is not None else 0


def _linings(wall: Stack) -> list[int]:
    """Plies inside of the first that is foam or concrete."""
    found: list[int] = []
    for index, ply in enumerate(wall.plies):
        if ply.fill.family in ("foam", "concrete"):
            break
        found.append(index)
    return found


_DRAW = {
    "no edge foam": _on_slab,
    "edge foam": _on_slab,
    "box plate": _on_slab,
    "dowels": _on_slab,
    "to footing": _through,
    "stepped footing": _through,
}
_ROW = {"dowels": ("a row of dowels is taken at the mean of its bars and what they stand in",)}
_PLATE = (
    length("plate", "plate", 0.038, 0.030, 0.100),
    length("gasket", "sill gasket", 0.006, 0.0, 0.020),
)
_EDGE = (
    length("edge", "edge foam", 0.080, 0.020, 0.200),
    length("edge_depth", "depth of edge foam", 0.500, 0.100, 1.200),
)
_BARE = (length("edge", "edge foam", 0.0, 0.0, 0.200), _EDGE[1])
BOX = (
    length("box", "height of the box", 0.140, 0.080, 0.300),
    length("box_edge", "edge of the box", 0.038, 0.020, 0.080),
    length("box_sheet", "boards of the box", 0.018, 0.009, 0.030),
    Choice(key="box_fill", text="fill of the box", start="wood-fibre-flex",
           options=("wood-fibre-flex", "straw-flat", "xps-033", "mineral-wool-035")),
)  # fmt: skip
_DOWELS = (
    length("bar", "dowel", 0.010, 0.006, 0.020),
    length("bar_spacing", "spacing of the dowels", 0.400, 0.150, 1.000),
    length("bar_up", "dowel in the mortar", 0.500, 0.150, 0.800),
    length("bar_down", "dowel in the slab", 0.080, 0.040, 0.140),
    Choice(key="bar_metal", text="dowel of", start="steel", options=("steel", "stainless-steel")),
)
_FOOTING = (
    length("edge", "strip at the slab's edge", 0.050, 0.0, 0.150),
    length("footing_depth", "underside of the wall", 1.200, 0.500, 2.500),
    length("footing_width", "footing width", 0.500, 0.300, 1.200),
    length("footing_height", "footing height", 0.250, 0.150, 0.600),
)
_DOWN = ("icf", "icf-one-sided", "mesh-mortar", "masonry")
FAMILY = Family(
    key="base",
    name="Foot of the wall on the ground",
    station="H",
    roles=("wall", "floor"),
    owns=(Owned(role="wall", place="plate", lines="foot"),),
    draw=draw,
    parameters=(
        length("half_width", "half width of the building", 4.0, 2.0, 12.0),
        length("ground", "ground below the floor", 0.200, 0.050, 0.800),
        length("view", "drawn below", 0.35, 0.1, 2.0),
    ),
    variants=(
        Variant(key="edge foam", text="on the slab, foam at its edge",
                suits=WALLS, parameters=(*_PLATE, *_EDGE)),
        Variant(key="no edge foam", text="on the slab, edge bare", suits=WALLS, parameters=_PLATE),
        Variant(key="box plate", text="on an insulated box plate", suits=("straw-bale",),
                parameters=(*BOX, _PLATE[1], *_BARE)),
        Variant(key="dowels", text="on the slab, dowels in both mortar faces", suits=("mesh-mortar",),
                parameters=(*_DOWELS, *_BARE),
                note="dowels, grout and spacing are set by the engineer"),
        Variant(key="to footing", text="down to a footing", suits=_DOWN, parameters=_FOOTING),
        Variant(key="stepped footing", text="down to a stepped footing", suits=_DOWN,
                parameters=(*_FOOTING, length("step", "rise of the step", 0.400, 0.150, 0.600))),
    ),
)  # fmt: skip

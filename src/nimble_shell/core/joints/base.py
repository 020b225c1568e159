"""Where a wall meets the ground: upright section, outside on the left, top of the floor at y = 0."""

from __future__ import annotations

import math

from nimble_shell.core.joints.drawing import Board, Drawing, box
from nimble_shell.core.joints.family import Family, Situation, Variant, fits, length, reach
from nimble_shell.core.joints.seam import CASSETTES, MESH, METAL
from nimble_shell.core.joints.stack import Stack

SOIL_LAMBDA = 2.0  #: of ground that is not known, ISO 13370:2017, table 7 [W/(m·K)]
_PLATED = ("sip", *CASSETTES, "site-framing", "straw-bale")


def draw(at: Situation) -> Drawing:
    """The foot of a wall."""
    wall, slab = at.wall, at.stacks["floor"]
    H, b = reach(wall), at.number("half_width")
    B = 2 * b  # characteristic dimension of a long floor
    ground = -at.number("ground")
    deep = 2.5 * B
    board = Board()
    soil = at.fill("clay-soil")
    soil = type(soil)(soil.key, "ground", soil.hatch, SOIL_LAMBDA)
    low = min(ground, -slab.d)
    board.rect(-wall.d - deep, ground - deep, b, low, soil)
    board.rect(-wall.d - deep, low, -wall.d, ground, soil)
    board.rect(-wall.d, low, b, -slab.d, soil)
    edge = _DRAW[at.variant](at, board, b)
    out = wall.d + edge
    board.air("inside", box(-wall.d / 2, -slab.d / 2, b, H))
    foot = ground if at.variant.endswith("footing") else max(ground, -slab.depth(_structural(slab)))
    board.open_face(wall, foot, H)
    board.air("outside", box(-wall.d - deep, ground - 0.05, -wall.d / 2, H), 0.04)
    U_ground = ground_U(slab, B, wall.d)
    board.refer(wall.name, wall.U, H, H, H + slab.d)
    board.refer(f"{slab.name}, on the ground", U_ground, b, b, b + wall.d)
    view = (-out - 0.45, -max(slab.d, at.number("ground")) - at.number("view"), 0.75, 0.55)
    return board.done(view, assumptions=(
        f"ground {SOIL_LAMBDA:g} W/(m·K), {deep:g} m deep and wide; floor {B:g} m wide (ISO 10211:2017, 5.2.4)",
        "U of the floor with its ground by ISO 13370:2017, 7.2, so ψ is the joint alone",
    ))  # fmt: skip


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
    d_t = wall_thickness + SOIL_LAMBDA * (0.17 + R_f + 0.04)
    if d_t < B:
        return 2 * SOIL_LAMBDA / (math.pi * B + d_t) * math.log(math.pi * B / d_t + 1)
    return SOIL_LAMBDA / (0.457 * B + d_t)


def _on_slab(at: Situation, board: Board, b: float) -> float:
    """The wall stands on the slab's structural ply; foam may stand at its edge."""
    wall, slab = at.wall, at.stacks["floor"]
    H = reach(wall)
    bearing = _structural(slab)
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
    plate = at.number("plate")
    if wall.system in METAL:
        # A steel angle carries the panel's foot: one leg under it, one against its inner skin.
        t = 0.002
        board.rect(-z, top, -a, top + t, at.fill("steel"), "base angle")
        board.rect(-a - t, top, -a, top + 0.05, at.fill("steel"), "base angle")
        board.mark("gasket", -(a + z) / 2, top)
        return
    if wall.system in MESH or wall.system.startswith("icf") or wall.system == "masonry":
        return
    gasket = at.number("gasket")
    count = 2 if wall.system == "straw-bale" else 1
    board.rect(-z, top, -a, top + gasket, at.fill("spray-closed"), "sill gasket")
    board.rect(-z, top + gasket, -a, top + gasket + count * plate, at.fill("softwood"), "bottom plate")
    board.dim("plate", (-z, top + gasket), (-z, top + gasket + count * plate))
    board.mark("gasket", -(a + z) / 2, top + gasket / 2)


def _through(at: Situation, board: Board, b: float) -> float:
    """The wall goes down to its footing; the slab stops inside of it, behind a strip of foam."""
    wall, slab = at.wall, at.stacks["floor"]
    H = reach(wall)
    deep, wide, high = at.number("footing_depth"), at.number("footing_width"), at.number("footing_height")
    strip = at.number("edge")
    fits(deep > slab.d, "footing_depth", f"the footing at {1000 * deep:g} mm lies in the slab of {1000 * slab.d:g} mm",
         "deeper than the slab")  # fmt: skip
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


def _structural(slab: Stack) -> int:
    """The ply that carries: concrete if there is some, else the first one."""
    found = slab.of_hatch("concrete")
    return found if found is not None else 0


def _linings(wall: Stack) -> list[int]:
    """Plies inside of the first that is foam or concrete."""
    found: list[int] = []
    for index, ply in enumerate(wall.plies):
        if ply.fill.hatch in ("foam", "concrete"):
            break
        found.append(index)
    return found


_DRAW = {"no edge foam": _on_slab, "edge foam": _on_slab, "to footing": _through, "stepped footing": _through}
_PLATE = (
    length("plate", "plate", 0.038, 0.030, 0.100),
    length("gasket", "sill gasket", 0.006, 0.0, 0.020),
)
_EDGE = (
    length("edge", "edge foam", 0.080, 0.020, 0.200),
    length("edge_depth", "depth of edge foam", 0.500, 0.100, 1.200),
)
_FOOTING = (
    length("edge", "strip at the slab's edge", 0.050, 0.0, 0.150),
    length("footing_depth", "underside of the wall", 1.200, 0.500, 2.500),
    length("footing_width", "footing width", 0.500, 0.300, 1.200),
    length("footing_height", "footing height", 0.250, 0.150, 0.600),
)
_DOWN = ("icf", "icf-one-sided", *MESH, "masonry")
FAMILY = Family(
    key="base",
    name="Foot of the wall on the ground",
    station="H",
    roles=("wall", "floor"),
    owns="plate",
    draw=draw,
    parameters=(
        length("half_width", "half width of the building", 4.0, 2.0, 12.0),
        length("ground", "ground below the floor", 0.200, 0.050, 0.800),
        length("view", "drawn below", 0.35, 0.1, 2.0),
    ),
    variants=(
        Variant(key="edge foam", text="on the slab, foam at its edge",
                suits=(*_PLATED, *METAL, *MESH, "straw-board", "icf", "icf-one-sided", "masonry"),
                parameters=(*_PLATE, *_EDGE)),
        Variant(key="no edge foam", text="on the slab, edge bare",
                suits=(*_PLATED, *METAL, *MESH, "straw-board", "icf", "icf-one-sided", "masonry"), parameters=_PLATE),
        Variant(key="to footing", text="down to a footing", suits=_DOWN, parameters=_FOOTING),
        Variant(key="stepped footing", text="down to a stepped footing", suits=_DOWN,
                parameters=(*_FOOTING, length("step", "rise of the step", 0.400, 0.150, 0.600))),
    ),
)  # fmt: skip

"""The threshold of a door on a slab: upright section, outside on the left, top of the floor at y = 0."""

from __future__ import annotations

from dataclasses import replace

from nimble_shell.core.joints.drawing import Board, Drawing, box
from nimble_shell.core.joints.families.base import assumed, ground_U, soil, structural
from nimble_shell.core.joints.families.family import Family, Situation, Variant, fits, length, reach
from nimble_shell.core.joints.families.seam import WALLS
from nimble_shell.core.parameters import Choice, Parameter
from nimble_shell.core.quantities.sentence import sentence

_LEAF = 1.0  #: of the door's leaf that is drawn, from the threshold [m]


def draw(at: Situation) -> Drawing:
    """A door's leaf over its threshold; the slab runs out under the wall's depth."""
    wall, slab = at.wall, at.stacks["floor"]
    b = at.number("half_width")
    ground, deep = -at.number("ground"), 5 * b
    edge, block = at.number("edge"), at.variant == "insulated block"
    bearing = structural(slab)
    top = -slab.depth(bearing)
    door, sill, wide = at.number("door"), at.number("sill"), at.number("sill_width")
    fits(
        door <= wall.d,
        "door",
        sentence("the leaf is {v1} thick in a wall of {v2}", v1=(door, "length"), v2=(wall.d, "length")),
        "a thinner leaf, or a thicker wall",
    )
    x = -wall.d + at.number("position") * (wall.d - door)  # the leaf's outer face
    board = Board()
    soil(at, board, b, deep)
    for index in range(len(slab.plies)):
        z0, z1 = slab.span(index)
        board.rect(-wall.d if index >= bearing else x + door, -z1, b, -z0, slab.plies[index].fill)
    if edge:
        low = top - at.number("edge_depth")
        board.rect(-wall.d - edge, low, -wall.d, top, at.fill("xps-033"), "edge foam")
        board.dim("edge", (-wall.d - edge, low), (-wall.d, low))
    if block:
        high = at.number("block")
        fits(
            high < slab.plies[bearing].d,
            "block",
            sentence(
                "the block is {v1} high in a slab of {v2}", v1=(high, "length"), v2=(slab.plies[bearing].d, "length")
            ),
            "a lower block, or a thicker slab",
        )
        inside = x + door + at.number("block_in")
        board.rect(-wall.d, top - high, inside, top, at.fill(at.word("block_of")), "bearing insulation")
        board.dim("block", (inside, top - high), (inside, top))
        board.dim("block_in", (x + door, top - high), (inside, top - high))
    left = x + door / 2 - wide / 2
    board.rect(left, top, left + wide, sill, at.fill(at.word("sill_of")), "threshold")
    board.dim("sill", (left, 0), (left, sill))
    board.dim("sill_width", (left, sill), (left + wide, sill))
    U = at.number("U_door")
    leaf = replace(at.fill("softwood"), key="door", name="door leaf", lambda_=door / (1 / U - 0.17))
    H = reach(wall) if reach(wall) > _LEAF else _LEAF
    board.opening(x, sill, x + door, H, leaf, "door leaf")
    board.dim("position", (-wall.d, sill + 0.1), (x, sill + 0.1))
    middle = x + door / 2
    board.air("inside", box(middle, -slab.d / 2, b, H))
    board.air("outside", box(-wall.d - deep, ground - 0.05, middle, H), 0.04)
    board.refer("door", U, H)
    board.refer(wall.name, wall.U, 0.0, 0.0, slab.d)  # the floor's edge below the door
    board.refer(f"{slab.name}, on the ground", ground_U(slab, 2 * b, wall.d), b, b, b + wall.d)
    board.mark("lap", left, top)
    board.mark("bead", left + wide, top)
    board.mark("gasket", middle, sill)
    board.mark("drain", left, sill)
    view = (-wall.d - edge - 0.25, -max(slab.d, -ground) - 0.15, 0.6, 0.45)
    return board.done(view, assumptions=(
        *assumed(b),
        sentence("leaf as a block of U {U}; its gaskets and the gap under it are in that U", U=(U, "transmittance")),
        f"the reveal is as deep as {wall.name}; floor finishes stop at the leaf",
    ))  # fmt: skip


_SILL = Choice(key="sill_of", text="threshold of", start="hardwood",
               options=("hardwood", "aluminium", "polypropylene", "xps-033"))  # fmt: skip
FAMILY = Family(
    key="threshold",
    name="Threshold of a door",
    station="H",
    roles=("wall", "floor"),
    draw=draw,
    parameters=(
        Parameter(key="position", text="place in the wall's depth", start=0.5, least=0.0, most=1.0, dimension="share"),
        length("door", "door leaf", 0.070, 0.040, 0.120),
        Parameter(key="U_door", text="U of the door", start=1.0, least=0.4, most=3.0, dimension="transmittance"),
        length("sill", "threshold above the floor", 0.020, 0.005, 0.080),
        length("sill_width", "threshold width", 0.100, 0.060, 0.200),
        _SILL,
        length("edge", "edge foam", 0.080, 0.0, 0.200),
        length("edge_depth", "depth of edge foam", 0.500, 0.100, 1.200),
        length("half_width", "half width of the building", 4.0, 2.0, 12.0),
        length("ground", "ground below the floor", 0.100, 0.020, 0.800),
    ),
    variants=(
        Variant(key="on the slab", text="threshold on the slab", suits=WALLS),
        Variant(key="insulated block", text="on a block of bearing insulation", suits=WALLS,
                parameters=(length("block", "block height", 0.100, 0.040, 0.140),
                            length("block_in", "block inside of the leaf", 0.060, 0.0, 0.200),
                            Choice(key="block_of", text="block of", start="xps-036",
                                   options=("xps-036", "xps-033", "foam-glass-gravel"))),
                note="the block carries the threshold and who steps on it: its strength is the supplier's"),
    ),
)  # fmt: skip

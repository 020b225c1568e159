"""A framed wall on a concrete form wall: upright section, outside on the left, the core's top at y = 0."""

from __future__ import annotations

from nimble_shell.core.joints.drawing import Board, Drawing
from nimble_shell.core.joints.families.family import Family, Owned, Situation, Variant, fits, length, reach
from nimble_shell.core.quantities.sentence import sentence


def draw(at: Situation) -> Drawing:
    """The sill of an upper wall, its plate over the lower wall's concrete."""
    wall, upper = at.wall, at.stacks["upper"]
    H, G = reach(wall), reach(upper)
    shift = at.number("shift")  # of the upper wall's inner face, inwards
    plate, wide = at.number("plate"), at.number("plate_width")
    board = Board()
    board.strip(wall, origin=(0, 0), along=(0, 1), out=(-1, 0), start=-H, end=0)
    core = wall.of_family("concrete")
    inner, outer = wall.span(core) if core is not None else wall.core_span
    floor = at.number("depth") if at.variant == "floor between" else 0.0
    bottom = plate + floor
    board.strip(upper, origin=(shift, 0), along=(0, 1), out=(-1, 0), start=bottom, end=bottom + G)
    a, b = upper.core_span
    x0 = min(-outer, shift - b)
    x1 = max(0.0, shift)
    foam = at.fill("eps-graphite")
    board.rect(min(-wall.d, shift - upper.d), 0, x1, plate, foam, "foam beside the plate")
    fits(
        wide <= max(outer - inner, b - a) + 0.2,
        "plate_width",
        sentence("the plate is {v1} wide", v1=(wide, "length")),
        "narrower",
    )
    left = -outer + at.number("plate_edge")
    board.rect(left, 0, left + wide, plate, at.fill("softwood"), "sill plate")
    board.dim("plate_width", (left, plate), (left + wide, plate))
    board.dim("plate_edge", (-outer, -0.05), (left, -0.05))
    if at.variant == "metal strip":
        t = 0.0006
        board.rect(-wall.d, 0, left + wide, t, at.fill("steel"), "flashing strip")
    if floor:
        board.rect(shift - b, plate, shift, plate + floor, at.fill("mineral-wool-035"), "joist ends, filled")
        board.rect(shift - b, plate, shift - b + 0.038, plate + floor, at.fill("softwood"), "rim")
        board.rect(shift, plate + floor - 0.018, 1.0, plate + floor, at.fill("osb"), "deck")
    board.rect(shift - b, bottom, shift - a, bottom + 0.038, at.fill("softwood"), "bottom plate")
    out = min(-wall.d, shift - upper.d, x0)
    board.open_face(wall, -H, 0)
    board.open_face(upper, bottom, bottom + G, shift)
    board.air("outside", ((out - 1, -H), (-wall.d / 2, -H), (-wall.d / 2, 0), (shift - upper.d / 2, bottom),
                          (shift - upper.d / 2, bottom + G), (out - 1, bottom + G)), 0.04)  # fmt: skip
    board.air("inside", ((-wall.d / 2, -H), (1.0, -H), (1.0, bottom + G), (shift - upper.d / 2, bottom + G),
                         (shift - upper.d / 2, bottom), (-wall.d / 2, 0)))  # fmt: skip
    board.refer(wall.name, wall.U, H)
    board.refer(upper.name, upper.U, G, G + bottom, G + bottom)
    board.mark("gasket", left + wide / 2, 0)
    board.mark("lap", -outer, plate)
    board.mark("drain", -wall.d, 0)
    return board.done((out - 0.06, -0.4, max(0.35, shift + 0.2), bottom + 0.4), assumptions=(
        "bearing on the concrete is shown, not checked: width, anchors and edge distance are the engineer's",
    ))  # fmt: skip


FAMILY = Family(
    key="sill",
    name="Framed wall on the form wall",
    station="G",
    roles=("wall", "upper"),
    owns=(Owned(role="upper", place="plate", lines="foot"),),
    draw=draw,
    parameters=(
        length("plate", "sill plate", 0.038, 0.030, 0.100),
        length("plate_width", "plate width", 0.140, 0.089, 0.250),
        length("plate_edge", "plate from the core's outer edge", 0.006, 0.0, 0.060),
        length("shift", "upper wall set in", 0.0, -0.060, 0.100),
    ),
    variants=(
        Variant(key="plate", text="sill plate on the core", suits=("icf", "icf-one-sided")),
        Variant(key="metal strip", text="sill plate on a metal flashing strip", suits=("icf", "icf-one-sided")),
        Variant(key="floor between", text="floor between plate and upper wall", suits=("icf", "icf-one-sided"),
                parameters=(length("depth", "floor depth", 0.240, 0.160, 0.400),)),
    ),
)  # fmt: skip

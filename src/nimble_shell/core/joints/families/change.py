"""Two build-ups in one face, one above or beside the other; outside on the left, they meet at y = 0."""

from __future__ import annotations

from nimble_shell.core.joints.drawing import Board, Drawing
from nimble_shell.core.joints.families.family import Family, Situation, Variant, length, reach
from nimble_shell.core.joints.families.seam import WALLS


def draw(at: Situation) -> Drawing:
    """The wall below, another one above it."""
    lower, upper = at.wall, at.stacks["upper"]
    H = max(reach(lower), reach(upper))
    x = 0.0 if at.variant == "inner faces" else upper.d - lower.d  # inner face of the upper one
    board = Board()
    board.strip(lower, origin=(0, 0), along=(0, 1), out=(-1, 0), start=-H, end=0)
    board.strip(upper, origin=(x, 0), along=(0, 1), out=(-1, 0), start=0, end=H)
    a, b = upper.core_span
    plate = at.number("plate")
    board.rect(x - b, 0, x - a, plate, at.fill("softwood"), "plate")
    board.dim("plate", (x - b, 0), (x - b, plate))
    low, high = -lower.d / 2, x - upper.d / 2
    far = max(lower.d, upper.d) + 1
    board.air("inside", ((low, -H), (far, -H), (far, H), (high, H), (high, 0), (low, 0)))
    board.air("outside", ((low, -H), (-far - lower.d, -H), (-far - lower.d, H), (high, H), (high, 0), (low, 0)),
              upper.R_se)  # fmt: skip
    board.refer(lower.name, lower.U, H)
    board.refer(upper.name, upper.U, H)
    board.mark("bead", x - a, 0)
    board.mark("lap", min(-lower.d, x - upper.d), 0)
    return board.done((min(-lower.d, x - upper.d) - 0.06, -0.4, max(x, 0.0) + 0.12, 0.4))


FAMILY = Family(
    key="change",
    name="Change of build-up",
    station="G",
    roles=("wall", "upper"),
    draw=draw,
    parameters=(length("plate", "plate between them", 0.038, 0.010, 0.120),),
    variants=(
        Variant(key="outer faces", text="outer faces in one plane", suits=WALLS),
        Variant(key="inner faces", text="inner faces in one plane", suits=WALLS),
    ),
)

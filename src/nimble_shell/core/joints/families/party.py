"""A party wall meets the outer wall, in plan: outside on the left, the party wall runs along y = 0."""

from __future__ import annotations

from nimble_shell.core.joints.drawing import Board, Drawing, box
from nimble_shell.core.joints.families.family import Family, Situation, Variant, reach
from nimble_shell.core.joints.families.seam import WALLS


def draw(at: Situation) -> Drawing:
    """Three environments, or two where the neighbour is as warm as the room."""
    wall, party = at.wall, at.stacks["party"]
    H, L, half = reach(wall), reach(party), party.d / 2
    board = Board()
    board.strip(wall, origin=(0, 0), along=(0, 1), out=(-1, 0), start=-half - H, end=half + H)
    if at.variant.endswith("through"):  # the party wall's own plies reach through the outer wall's lining and core
        _, b = wall.core_span
        board.strip(party, origin=(-b, half), along=(1, 0), out=(0, -1), start=0, end=b + L)
    else:
        board.strip(party, origin=(0, half), along=(1, 0), out=(0, -1), start=0, end=L)
    other = "neighbour" if at.variant.startswith("unheated") else "inside"
    board.air("outside", box(-wall.d - 1, -half - H, -wall.d / 2, half + H), wall.R_se)
    board.air("inside", box(-wall.d / 2, 0, L, half + H))
    board.air(other, box(-wall.d / 2, -half - H, L, 0))
    if other == "inside":
        board.refer(wall.name, wall.U, 2 * H, 2 * H + party.d, 2 * H + party.d)
    else:
        U_party = 1 / (1 / party.U - party.R_se + 0.13)
        board.refer(wall.name, wall.U, H, H + half, H + half)
        board.refer(wall.name, wall.U, H, H + half, H + half, ("neighbour", "outside"))
        board.refer(party.name, U_party, L, L, L, ("inside", "neighbour"))
    for y in (half, -half):
        board.mark("bead", 0, y)
    return board.done((-wall.d - 0.04, -half - 0.35, 0.6, half + 0.35), plan=True)


FAMILY = Family(
    key="party",
    name="Party wall",
    station="D",
    roles=("wall", "party"),
    draw=draw,
    variants=(
        Variant(key="heated", text="neighbour heated, outer wall goes past", suits=WALLS),
        Variant(key="heated, through", text="neighbour heated, party wall through the core", suits=WALLS),
        Variant(key="unheated", text="neighbour unheated, outer wall goes past", suits=WALLS),
        Variant(key="unheated, through", text="neighbour unheated, party wall through the core", suits=WALLS),
    ),
)

"""A pipe through the wall, as a body of revolution: x is the radius, inside is at the top."""

from __future__ import annotations

import math

from nimble_shell.core.joints.drawing import Board, Drawing, box
from nimble_shell.core.joints.families.family import Family, Situation, Variant, length
from nimble_shell.core.joints.families.seam import ROOFS, WALLS
from nimble_shell.core.parameters import Choice


def draw(at: Situation) -> Drawing:
    """A pipe that holds outdoor air, from outside into the room, lagged on a length or bare."""
    wall = at.wall
    R = max(0.6, 2.5 * wall.d)
    bore, t = at.number("bore") / 2, at.number("pipe")
    lag = at.number("lag") if at.variant == "lagged" else 0.0
    into = at.number("into")
    run = at.number("lag_length") if lag else 0.0
    board = Board()
    board.strip(wall, origin=(0, 0), along=(1, 0), out=(0, -1), start=bore + t, end=R)
    pipe = at.fill(at.word("material"))
    board.rect(bore, -wall.d, bore + t, into, pipe, "pipe")
    if lag:
        foam = at.fill("xps-033")
        board.rect(bore + t, -wall.d, bore + t + lag, min(run, into), foam, "lagging")
        board.dim("lag", (bore + t, 0), (bore + t + lag, 0))
        board.dim("lag_length", (bore + t + lag, 0), (bore + t + lag, min(run, into)))
    board.air("outside", box(0, -wall.d - 1, bore + t / 2, into), 0.04)
    board.air("outside", box(0, -wall.d - 1, R, -wall.d / 2), wall.R_se)
    board.air("inside", box(bore + t / 2, -wall.d / 2, R, into))
    board.refer(wall.name, wall.U, math.pi * R**2)
    board.mark("tape", bore + t + lag, 0)
    return board.done((0, -wall.d - 0.06, 0.45, into + 0.06), kind="axisymmetric", direction="horizontal", assumptions=(
        "outdoor air stands in the pipe; its first length in the room is counted",
    ))  # fmt: skip


FAMILY = Family(
    key="pipe",
    name="Pipe through the wall",
    station="D",
    roles=("wall",),
    point=True,
    draw=draw,
    parameters=(
        length("bore", "bore", 0.100, 0.020, 0.250),
        length("pipe", "pipe wall", 0.003, 0.001, 0.010),
        length("into", "length in the room", 0.500, 0.100, 1.500),
        Choice(key="material", text="pipe", start="polypropylene", options=("polypropylene", "steel",
                                                                            "stainless-steel", "aluminium")),
    ),
    variants=(
        Variant(key="bare", text="bare", suits=(*WALLS, *ROOFS)),
        Variant(key="lagged", text="lagged through the wall and into the room",
                suits=(*WALLS, *ROOFS),
                parameters=(length("lag", "lagging", 0.040, 0.010, 0.100),
                            length("lag_length", "lagged length in the room", 0.500, 0.100, 1.500))),
    ),
)  # fmt: skip

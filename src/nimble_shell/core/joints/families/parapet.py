"""Walls that go past a roof: a parapet round a flat one, and a roof against the wall of a higher body."""

from __future__ import annotations

from nimble_shell.core.joints.drawing import Board, Drawing, box
from nimble_shell.core.joints.families.family import Family, Owned, Situation, Variant, length, reach
from nimble_shell.core.joints.families.seam import WALLS


def draw_parapet(at: Situation) -> Drawing:
    """The wall goes on above a flat roof; the inner faces meet at (0, 0), outside is on the left."""
    wall, roof = at.wall, at.stacks["roof"]
    H, L = reach(wall), reach(roof)
    top = roof.d + at.number("height")
    board = Board()
    board.strip(wall, origin=(0, 0), along=(0, 1), out=(-1, 0), start=-H, end=top)
    board.strip(roof, origin=(0, 0), along=(1, 0), out=(0, 1), start=0, end=L)
    a, b = wall.core_span
    plate = at.number("plate")
    board.rect(-b, top - plate, -a, top, at.fill("softwood"), "plate")
    board.dim("plate", (-b, top - plate), (-b, top))
    foam = at.number("lining") if at.variant == "lined" else 0.0
    if foam:
        board.rect(0, roof.d, foam, top, at.fill("eps-graphite"), "foam behind it")
        board.rect(-wall.d, top, foam, top + foam, at.fill("eps-graphite"), "foam on it")
        board.dim("lining", (0, top), (foam, top))
    board.dim("height", (0.1, roof.d), (0.1, top))
    board.air("inside", box(-wall.d / 2, -H, L, roof.d / 2))
    board.air("outside", box(-wall.d - 1, -H, -wall.d / 2, top + 1), wall.R_se)
    board.air("outside", box(-wall.d / 2, roof.d / 2, L, top + 1), roof.R_se)
    board.refer(wall.name, wall.U, H, H, H + roof.d)
    board.refer(roof.name, roof.U, L, L, L + wall.d)
    board.mark("bead", 0, 0)
    board.mark("lap", foam, roof.d)
    return board.done((-wall.d - 0.08, -0.35, 0.7, top + foam + 0.08))


def draw_abutment(at: Situation) -> Drawing:
    """A roof against the wall of a higher body, which goes on below it between two rooms; outside is on the right."""
    wall, roof = at.wall, at.stacks["roof"]
    H, L, d = reach(wall), reach(roof), wall.d
    board = Board()
    board.strip(wall, origin=(0, 0), along=(0, 1), out=(1, 0), start=-H, end=H + roof.d)
    board.strip(roof, origin=(d, 0), along=(1, 0), out=(0, 1), start=0, end=L)
    ledger = at.number("ledger")
    a, b = roof.core_span
    board.rect(d, a, d + ledger, b, at.fill("softwood"), "ledger")
    board.dim("ledger", (d, b), (d + ledger, b))
    if at.variant == "cut":  # what is outside of the core stops at the roof, its foam goes through to the core
        outer = wall.core_span[1]
        board.rect(outer, a, d, b, roof.plies[roof.core_at].fill, "foam to the core")
    board.air("inside", box(-1, -H, d / 2, H + roof.d))
    board.air("inside", box(d / 2, -H, d + L, roof.d / 2))
    board.air("outside", box(d / 2, roof.d / 2, d + L, H + roof.d), wall.R_se)
    board.refer(wall.name, wall.U, H + roof.d, H + roof.d, H)
    board.refer(roof.name, roof.U, L + d, L + d, L)
    board.mark("bead", d, a)
    board.mark("lap", d, roof.d)
    return board.done((-0.1, -0.35, d + 0.7, roof.d + 0.45), sides=("room", "outside"))


PARAPET = Family(
    key="parapet",
    name="Parapet",
    station="C",
    roles=("wall", "roof"),
    owns=(Owned(role="wall", place="plate", lines="head"), Owned(role="roof", place="plate", lines=0.5)),
    draw=draw_parapet,
    parameters=(length("height", "height above the roof", 0.300, 0.050, 1.200),
                length("plate", "plate on top", 0.038, 0.020, 0.150)),
    variants=(
        Variant(key="lined", text="foam behind it and on it", suits=WALLS,
                parameters=(length("lining", "foam", 0.080, 0.020, 0.200),)),
        Variant(key="bare", text="the wall goes up as it is", suits=WALLS),
    ),
)  # fmt: skip
ABUTMENT = Family(
    key="abutment",
    name="Roof against a wall",
    station="C",
    roles=("wall", "roof"),
    draw=draw_abutment,
    parameters=(length("ledger", "ledger", 0.038, 0.020, 0.120),),
    variants=(
        Variant(key="past", text="the wall goes past with all its layers", suits=WALLS),
        Variant(key="cut", text="outer layers cut, the roof's foam runs to the core", suits=WALLS),
    ),
)

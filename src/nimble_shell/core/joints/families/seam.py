"""Seams between pieces of a wall, in plan: outside on the left, the seam at y = 0."""

from __future__ import annotations

import math

from nimble_shell.core.joints.drawing import Board, Drawing
from nimble_shell.core.joints.families.family import Family, Owned, Situation, Variant, fits, length, reach
from nimble_shell.core.joints.stack import Fill, air_fill
from nimble_shell.core.parameters import Choice
from nimble_shell.core.quantities.sentence import sentence

PANELS = ("sip", "sip-roof", "sip-floor")
CASSETTES = ("cassette", "bead-cassette", "cassette-roof", "bead-roof")
FORMS = ("icf", "icf-one-sided")
FRAMES = ("cassette", "bead-cassette")  #: of walls
METAL = ("metal-panel", "metal-panel-roof")
MESH = ("mesh-mortar", "mesh-mortar-roof")
ROOFS = ("sip-roof", "metal-panel-roof", "cassette-roof", "bead-roof", "mesh-mortar-roof")
WALLS = ("sip", "icf", "icf-one-sided", "masonry", "site-framing", "straw-bale", "straw-board", *FRAMES, "mesh-mortar",
         "metal-panel")  # fmt: skip


def draw(at: Situation) -> Drawing:
    """The seam of a wall, cut level."""
    wall = at.wall
    H = reach(wall)
    board = Board()
    board.strip(wall, origin=(0, 0), along=(0, 1), out=(-1, 0), start=-H, end=H)
    a, b = wall.core_span
    half = _DRAW[at.variant](at, board, -b, -a)
    board.air("outside", ((-wall.d - 1, -H), (-wall.d / 2, -H), (-wall.d / 2, H), (-wall.d - 1, H)), wall.R_se)
    board.air("inside", ((-wall.d / 2, -H), (1, -H), (1, H), (-wall.d / 2, H)))
    board.refer(wall.name, wall.U, 2 * H)
    look = max(0.75 * wall.d, half + 0.08)
    return board.done((-wall.d - 0.03, -look, 0.05, look), plan=True)


def _surface(at: Situation, board: Board, x0: float, x1: float) -> float:
    width, t, gap = at.number("width"), at.number("thickness"), at.number("gap")
    fits(
        2 * t < x1 - x0,
        "thickness",
        sentence("two splines of {v1} fill the core", v1=(t, "length")),
        "thinner splines, thicker core",
    )
    _foam_gap(at, board, x0, x1, gap)
    for x in (x0, x1 - t):
        board.rect(x, -width / 2, x + t, width / 2, at.fill("osb"), "spline")
    board.dim("width", (x1, -width / 2), (x1, width / 2))
    for x in (x0 + t / 2, x1 - t / 2):
        for y in (-width / 4, width / 4):
            board.mark("bead", x, y)
    return width / 2


def _block(at: Situation, board: Board, x0: float, x1: float) -> float:
    width, t, gap = at.number("width"), at.number("thickness"), at.number("gap")
    fits(
        2 * t < x1 - x0,
        "thickness",
        sentence("two skins of {v1} fill the core", v1=(t, "length")),
        "thinner skins, or a thicker core",
    )
    core = at.wall.plies[at.wall.core_at].fill
    board.rect(x0, -width / 2, x1, width / 2, core, "spline core")
    for x in (x0, x1 - t):
        board.rect(x, -width / 2, x + t, width / 2, at.fill("osb"), "spline skin")
    for y in (-width / 2, width / 2):
        board.rect(x0 + t, y - gap / 2, x1 - t, y + gap / 2, at.fill("spray-closed"), "sealing foam")
    board.dim("width", (x1, -width / 2), (x1, width / 2))
    for y in (-width / 2, width / 2):
        for x in (x0 + t, (x0 + x1) / 2, x1 - t):
            board.mark("bead", x, y)
    return width / 2


def _lumber(at: Situation, board: Board, x0: float, x1: float) -> float:
    width = at.number("width") * (2 if at.variant == "double lumber" else 1)
    board.rect(x0, -width / 2, x1, width / 2, at.fill(at.word("timber")), "spline")
    board.dim("width", (x1, -width / 2), (x1, width / 2 if at.variant == "single lumber" else 0))
    for y in (-width / 2, width / 2):
        for x in (x0 + 0.015, x1 - 0.015):
            board.mark("bead", x, y)
    return width / 2


def _i_section(at: Situation, board: Board, x0: float, x1: float) -> float:
    flange, depth, web = at.number("flange"), at.number("depth"), at.number("web")
    fits(2 * depth < x1 - x0, "depth", sentence("two flanges of {v1} fill the core", v1=(depth, "length")),
         "thinner flanges, or a thicker core")  # fmt: skip
    fits(
        web < flange,
        "web",
        sentence("the web is {v1} wide, the flange {v2}", v1=(web, "length"), v2=(flange, "length")),
        "a thinner web",
    )
    board.rect(x0 + depth, -web / 2, x1 - depth, web / 2, at.fill("osb"), "web")
    for x in (x0, x1 - depth):
        board.rect(x, -flange / 2, x + depth, flange / 2, at.fill("lvl"), "flange")
        board.mark("bead", x + depth / 2, flange / 2)
        board.mark("bead", x + depth / 2, -flange / 2)
    board.dim("flange", (x1, -flange / 2), (x1, flange / 2))
    return flange / 2


def _metal(at: Situation, board: Board, x0: float, x1: float) -> float:
    lip, gap = at.number("lip"), at.number("gap")
    fits(
        2 * lip < x1 - x0,
        "lip",
        sentence("two lips of {v1} meet in the core", v1=(lip, "length")),
        "shorter lips, or a thicker core",
    )
    skin = at.number("skin")
    steel = at.fill("steel")
    filled = at.fill("polypropylene") if at.variant == "two seals" else air_gap(x1 - x0, gap)
    board.rect(x0, -gap / 2, x1, gap / 2, filled, "joint")
    for face, inward in ((x0, 1.0), (x1, -1.0)):
        for side in (-1.0, 1.0):
            y = side * gap / 2
            board.rect(face, y, face + inward * lip, y + side * skin, steel, "lip")
        board.mark("gasket", face + inward * lip / 2, 0)
    board.dim("lip", (x0, gap), (x0 + lip, gap))
    return 0.08


def _studs(at: Situation, board: Board, x0: float, x1: float) -> float:
    width, gap = at.number("width"), at.number("gap")
    for side in (-1.0, 1.0):
        y = side * gap / 2
        board.rect(x0, y, x1, y + side * width, at.fill(at.word("timber")), "stud")
    board.rect(x0, -gap / 2, x1, gap / 2, at.fill("spray-open"), "sealing strip")
    board.dim("width", (x1, gap / 2), (x1, gap / 2 + width))
    for x in (x0 + 0.02, x1 - 0.02):
        board.mark("gasket", x, 0)
    return gap / 2 + width


def _straw(at: Situation, board: Board, x0: float, x1: float) -> float:
    gap = at.number("gap")
    fill = air_gap(x1 - x0, gap) if at.variant == "loose" else at.fill("straw-flat")
    board.rect(x0, -gap / 2, x1, gap / 2, fill, "gap" if at.variant == "loose" else "straw roll")
    board.dim("gap", (x1, -gap / 2), (x1, gap / 2))
    for x in (x0, x1):
        board.mark("tape", x, 0)
    return gap / 2 + 0.05


def _mesh(at: Situation, board: Board, x0: float, x1: float) -> float:
    gap = at.number("gap")
    fill = at.fill("structural-mortar") if at.variant == "mortar in the gap" else at.fill("spray-closed")
    board.rect(x0, -gap / 2, x1, gap / 2, fill, "gap")
    board.dim("gap", (x1, -gap / 2), (x1, gap / 2))
    return gap / 2 + 0.05


def _pour_stop(at: Situation, board: Board, x0: float, x1: float) -> float:
    """One pour ends at a buck across the concrete, which stays; the next one is poured against it."""
    t = at.number("buck")
    core = at.wall.of_family("concrete")
    inner, outer = (-x1, -x0) if core is None else at.wall.span(core)
    fill = at.fill("xps-033") if at.variant == "foam buck" else at.fill(at.word("timber"))
    board.rect(-outer, -t / 2, -inner, t / 2, fill, "buck")
    board.dim("buck", (-inner, -t / 2), (-inner, t / 2))
    board.mark("bead", -outer, 0)
    return t / 2 + 0.05


def _staggered(at: Situation, board: Board, x0: float, x1: float) -> float:  # noqa: ARG001 - as all seams
    """Every board has its own joint, foamed and meshed; the next one is set off."""
    gap, offset = at.number("gap"), at.number("offset")
    boards = [at_ply for at_ply, ply in enumerate(at.wall.plies) if ply.fill.key == "straw-board"]
    for number, index in enumerate(boards):
        a, b = at.wall.span(index)
        y = offset / 2 * (-1) ** number
        board.rect(-b, y - gap / 2, -a, y + gap / 2, at.fill("spray-open"), "joint")
        board.mark("foam", -(a + b) / 2, y)
    board.dim("offset", (0, -offset / 2), (0, offset / 2))
    return offset / 2


def _foam_gap(at: Situation, board: Board, x0: float, x1: float, gap: float) -> None:
    board.rect(x0, -gap / 2, x1, gap / 2, at.fill("spray-closed"), "sealing foam")


def air_gap(d: float, b: float) -> Fill:
    """A closed gap of depth d along the heat flow and width b across it, as a conductivity. [m]

    References
    ----------
    .. [1] ISO 10077-2:2017, 6.4.3 (unventilated rectangular cavities, ε 0.9, 10 K).
    """
    convection = max(0.025 / d, 1.57) if b >= 0.005 else 0.025 / d
    radiation = 2.11 * (1 + math.sqrt(1 + (d / b) ** 2) - d / b)
    return air_fill("air gap", (convection + radiation) * d)


_DRAW = {
    "surface": _surface,
    "block": _block,
    "single lumber": _lumber,
    "double lumber": _lumber,
    "I-section": _i_section,
    "one seal": _metal,
    "two seals": _metal,
    "double stud": _studs,
    "loose": _straw,
    "stuffed": _straw,
    "foam in the gap": _mesh,
    "mortar in the gap": _mesh,
    "staggered": _staggered,
    "timber buck": _pour_stop,
    "foam buck": _pour_stop,
}
_TIMBER = Choice(key="timber", text="timber", start="softwood", options=("softwood", "hardwood", "lvl", "glulam"))
BEAM_TIMBER = Choice(key="timber", text="beam of", start="lvl", options=("lvl", "glulam", "softwood", "hardwood"))
_GAP = length("gap", "foamed gap", 0.004, 0.001, 0.02)
_SPLINE = (
    length("width", "spline width", 0.150, 0.060, 0.400),
    length("thickness", "spline skin", 0.011, 0.006, 0.025),
    _GAP,
)
BUCK = length("buck", "buck", 0.038, 0.018, 0.100)
_LIP = (
    length("lip", "depth of the folded lip", 0.020, 0.005, 0.060),
    length("gap", "joint width", 0.003, 0.001, 0.020),
    length("skin", "skin of the lip", 0.0006, 0.0004, 0.0015),
)
FAMILY = Family(
    key="seam",
    name="Seam between panels",
    station="D",
    roles=("wall",),
    owns=(Owned(role="wall", place="seam"),),
    draw=draw,
    variants=(
        Variant(key="surface", text="surface splines", suits=PANELS, parameters=_SPLINE),
        Variant(key="block", text="insulated block spline", suits=PANELS, parameters=_SPLINE),
        Variant(key="single lumber", text="single lumber spline", suits=PANELS,
                parameters=(length("width", "lumber", 0.038, 0.030, 0.100), _TIMBER)),
        Variant(key="double lumber", text="double lumber spline", suits=PANELS,
                parameters=(length("width", "one piece of lumber", 0.038, 0.030, 0.100), _TIMBER)),
        Variant(key="I-section", text="I-section spline", suits=PANELS,
                parameters=(length("flange", "flange width", 0.063, 0.038, 0.120),
                            length("depth", "flange depth", 0.038, 0.020, 0.060),
                            length("web", "web", 0.010, 0.006, 0.020))),
        Variant(key="one seal", text="tongue and groove, one seal", suits=METAL, parameters=_LIP),
        Variant(key="two seals", text="tongue and groove, two seals", suits=METAL, parameters=_LIP),
        Variant(key="double stud", text="two studs and a sealing strip", suits=CASSETTES,
                parameters=(length("width", "stud", 0.045, 0.030, 0.090), _GAP, _TIMBER),
                owns=(Owned(role="wall", place="stud"),)),
        Variant(key="loose", text="gap left loose", suits=("straw-bale",),
                parameters=(length("gap", "gap", 0.020, 0.005, 0.060),)),
        Variant(key="stuffed", text="gap stuffed with a plastered straw roll", suits=("straw-bale",),
                parameters=(length("gap", "gap", 0.020, 0.005, 0.060),)),
        Variant(key="foam in the gap", text="splice mesh, gap foamed", suits=MESH,
                parameters=(length("gap", "gap", 0.006, 0.001, 0.030),)),
        Variant(key="mortar in the gap", text="splice mesh, mortar ran into the gap", suits=MESH,
                parameters=(length("gap", "gap", 0.006, 0.001, 0.030),)),
        Variant(key="staggered", text="board joints foamed and staggered", suits=("straw-board",),
                parameters=(length("gap", "foamed joint", 0.005, 0.001, 0.015),
                            length("offset", "offset of the layers", 0.300, 0.050, 0.600))),
        Variant(key="timber buck", text="pour stopped at a timber buck", suits=FORMS, parameters=(BUCK, _TIMBER)),
        Variant(key="foam buck", text="pour stopped at a foam buck", suits=FORMS, parameters=(BUCK,)),
    ),
)  # fmt: skip

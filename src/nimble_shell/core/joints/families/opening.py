"""Opening edges: the wall ends at y = 0, the opening is above it; outside on the left. Head, jamb and sill alike."""

from __future__ import annotations

from dataclasses import replace

from nimble_shell.core.joints.drawing import Board, Drawing, box
from nimble_shell.core.joints.families.family import Family, Owned, Situation, Variant, fits, length, reach
from nimble_shell.core.joints.families.seam import CASSETTES, MESH, METAL
from nimble_shell.core.joints.stack import Stack
from nimble_shell.core.parameters import Choice, Parameter
from nimble_shell.core.quantities.sentence import sentence

_FRAME_HIGH = 0.080  #: visible height of the frame [m]


def draw(at: Situation) -> Drawing:
    """An opening's edge with the frame of a window."""
    wall = at.wall
    H = reach(wall)
    board = Board()
    _DRAW[at.variant](at, board, H)
    deep = at.number("frame")
    position = at.number("position")
    slack = wall.d - deep
    fits(
        slack >= -1e-9,
        "frame",
        sentence("the frame is {v1} deep in a wall of {v2}", v1=(deep, "length"), v2=(wall.d, "length")),
        "a thinner frame, or a thicker wall",
    )
    x0 = -wall.d + position * slack
    frame = at.fill("softwood")
    lambda_f = deep / max(1 / at.number("U_frame") - 0.17, 0.02)
    frame = replace(frame, key="frame", name="window frame", lambda_=lambda_f)
    shim = at.number("shim")
    board.rect(x0, 0, x0 + deep, shim, at.fill("spray-open"), "shim space, foamed")
    board.opening(x0, shim, x0 + deep, shim + _FRAME_HIGH, frame, "frame")
    if at.word("fin") == "fin":
        board.rect(x0 - 0.0015, -0.035, x0, shim + 0.02, at.fill("polypropylene"), "fin")
        board.mark("tape", x0, -0.03)
    cover = at.number("cover")
    if cover > 0 and x0 > -wall.d + 0.005:
        face = max(-wall.d, x0 - 0.060)
        board.rect(face, 0, x0, cover, at.fill("xps-033"), "foam over the frame")
        board.dim("cover", (face, 0), (face, cover))
    board.dim("position", (-wall.d, 0.02), (x0, 0.02))
    board.mark("bead", x0 + deep, shim)
    board.mark("drain" if at.word("edge") == "sill" else "tape", x0, 0)
    top = shim + _FRAME_HIGH
    middle = x0 + deep / 2
    board.open_face(wall, -H, 0)
    board.air("outside", box(-wall.d - 1, -H, middle, top), 0.04)
    board.air("inside", box(middle, -H, 1, top))
    board.refer(wall.name, wall.U, H)
    board.refer("window frame", at.number("U_frame"), top)
    return board.done((-wall.d - 0.08, -0.55, 0.10, top + 0.03), plan=True, assumptions=(
        sentence("frame as a block of U {U} with the shim space, cut where the glass begins",
                 U=(at.number("U_frame"), "transmittance")),
    ))  # fmt: skip


def _wall(board: Board, wall: Stack, H: float) -> None:
    board.strip(wall, origin=(0, 0), along=(0, 1), out=(-1, 0), start=-H, end=0)


def _framed(at: Situation, board: Board, H: float) -> None:
    """Lumber round the opening; over it a header, beside it a post."""
    wall = at.wall
    _wall(board, wall, H)
    a, b = wall.core_span
    edge = at.word("edge")
    t = at.number("lumber")
    header = at.number("header") if edge == "head" else 0.0
    timber = at.fill("softwood")
    foam = at.number("header_foam")
    fits(
        foam < b - a,
        "header_foam",
        sentence("{v1} of foam in a core of {v2}", v1=(foam, "length"), v2=(b - a, "length")),
        "thinner foam",
    )
    if header:
        board.rect(-b, -t - header, -a, -t, at.fill("lvl"), "header")
        board.rect(-b, -t - header, -b + foam, -t, at.fill("eps-graphite"), "header foam")
    board.rect(-b, -t, -a, 0, timber, "edge lumber")
    if edge == "jamb":
        board.rect(-b, -2 * t, -a, -t, timber, "post")
    board.dim("lumber", (-b, -t), (-b, 0))
    for x in (-b, -a):
        board.mark("bead", x, -t)


def _buck(at: Situation, board: Board, H: float) -> None:
    """A buck lines the opening of a concrete form wall."""
    wall = at.wall
    _wall(board, wall, H)
    t = at.number("buck")
    core = wall.of_family("concrete")
    inner, outer = wall.span(core) if core is not None else wall.core_span
    timber = at.fill("softwood")
    if at.variant in ("timber buck", "flush buck"):
        board.rect(-wall.d, -t, 0, 0, timber, "buck")
    elif at.variant == "insulated buck":
        board.rect(-wall.d, -t, 0, 0, at.fill("xps-033"), "foam of the buck")
        board.rect(-wall.d, -t / 3, 0, 0, timber, "board of the buck")
    elif at.variant == "foam buck":
        board.rect(-wall.d, -t, 0, 0, at.fill("eps-form-graphite"), "foam buck")
        for x in (-outer, -inner):
            board.rect(x - 0.015, -t, x + 0.015, 0, at.fill("polypropylene"), "strip for screws")
    elif at.variant == "buck behind a return":
        deep = at.number("return")
        fits(deep < outer - inner, "return", "the return is as deep as the concrete", "a smaller return")
        board.rect(-wall.d, -t, -inner - deep, 0, timber, "buck behind the return")
        board.rect(-inner - deep, -t, -inner, 0, wall.plies[core or 0].fill, "concrete return")
        board.dim("return", (-inner - deep, 0), (-inner, 0))
    board.dim("buck", (-wall.d, -t), (-wall.d, 0))
    board.mark("bead", -wall.d, -t)
    board.mark("lap", -wall.d, 0)


def _metal(at: Situation, board: Board, H: float) -> None:
    """A folded trim closes the panel's edge; the steel frame member stands behind it."""
    wall = at.wall
    _wall(board, wall, H)
    t = at.number("trim")
    steel = at.fill("steel")
    gap = at.number("thermal_break")
    board.rect(-wall.d, -t, 0, 0, steel, "trim")
    if gap > 0:
        board.rect(-wall.d / 2 - gap / 2, -t, -wall.d / 2 + gap / 2, 0, at.fill("nylon"), "break in the trim")
        board.dim("thermal_break", (-wall.d / 2 - gap / 2, 0), (-wall.d / 2 + gap / 2, 0))
    board.mark("gasket", 0, 0)
    board.mark("lap", -wall.d, 0)


def _mortar(at: Situation, board: Board, H: float) -> None:
    """Mesh and mortar turned round the edge, or a strip of foam left in it."""
    wall = at.wall
    _wall(board, wall, H)
    t = at.number("return")
    a, b = wall.core_span
    if at.variant == "mortar return":
        board.rect(-wall.d, -t, 0, 0, at.fill("structural-mortar"), "mortar return")
    else:
        board.rect(-wall.d, -t, -b, 0, at.fill("structural-mortar"), "mortar edge")
        board.rect(-a, -t, 0, 0, at.fill("structural-mortar"), "mortar edge")
        board.rect(-b, -t, -a, 0, at.fill("xps-033"), "foam strip")
    board.dim("return", (-wall.d, -t), (-wall.d, 0))
    board.mark("bead", 0, 0)


def _straw(at: Situation, board: Board, H: float) -> None:
    """A timber box frames the opening in the bales, its inside filled."""
    wall = at.wall
    _wall(board, wall, H)
    a, b = wall.core_span
    t, board_t = at.number("box"), at.number("lumber")
    board.rect(-b, -t, -a, 0, at.fill("straw-flat"), "filled box")
    board.rect(-b, -board_t, -a, 0, at.fill("softwood"), "box board")
    board.rect(-b, -t, -a, -t + board_t, at.fill("softwood"), "box board")
    board.dim("box", (-b, -t), (-b, 0))
    board.mark("tape", 0, 0)
    board.mark("lap", -wall.d, 0)


_DRAW = {
    "framed": _framed,
    "timber buck": _buck,
    "insulated buck": _buck,
    "foam buck": _buck,
    "flush buck": _buck,
    "buck behind a return": _buck,
    "folded trim": _metal,
    "mortar return": _mortar,
    "foam strip": _mortar,
    "straw box": _straw,
}
_LUMBER = length("lumber", "edge lumber", 0.038, 0.030, 0.100)
_BUCK = length("buck", "buck", 0.038, 0.018, 0.100)
_ORDER = Choice(key="order", text="order of work", start="buck first", options=("buck first", "membrane first"))
_RETURN = length("return", "depth of the return", 0.030, 0.010, 0.080)
_FORMS = ("icf", "icf-one-sided", "masonry")
FAMILY = Family(
    key="opening",
    name="Opening edge",
    station="E",
    roles=("wall",),
    draw=draw,
    parameters=(
        Choice(key="edge", text="edge", start="jamb", options=("head", "jamb", "sill")),
        length("frame", "frame depth", 0.080, 0.060, 0.150),
        Parameter(key="position", text="place in the wall's depth", start=0.5, least=0.0, most=1.0, dimension="share"),
        Parameter(key="U_frame", text="U of the frame", start=1.1, least=0.5, most=3.0, dimension="transmittance"),
        length("shim", "shim space", 0.012, 0.003, 0.025),
        Choice(key="fin", text="fastening", start="non-fin", options=("fin", "non-fin")),
        length("cover", "foam over the frame", 0.0, 0.0, 0.060),
    ),
    variants=(
        Variant(key="framed", text="lumber edge, header over it", suits=("sip", *CASSETTES, "site-framing"),
                parameters=(_LUMBER, length("header", "header height", 0.235, 0.090, 0.400),
                            length("header_foam", "foam outside of the header", 0.040, 0.0, 0.080)),
                owns=(Owned(role="wall", place="frame", lines="drawn"),)),
        Variant(key="timber buck", text="timber buck", suits=_FORMS, parameters=(_BUCK, _ORDER)),
        Variant(key="insulated buck", text="timber board on a foam buck", suits=_FORMS, parameters=(_BUCK, _ORDER)),
        Variant(key="foam buck", text="foam buck with screw strips", suits=_FORMS, parameters=(_BUCK, _ORDER)),
        Variant(key="flush buck", text="buck flush with the concrete", suits=("icf-one-sided",),
                parameters=(_BUCK, _ORDER)),
        Variant(key="buck behind a return", text="buck behind a concrete return", suits=("icf-one-sided",),
                parameters=(_BUCK, _RETURN, _ORDER)),
        Variant(key="folded trim", text="folded trim at the panel's edge", suits=METAL,
                parameters=(length("trim", "trim", 0.001, 0.0005, 0.003),
                            length("thermal_break", "break in the trim", 0.0, 0.0, 0.030))),
        Variant(key="mortar return", text="mesh and mortar turned round", suits=MESH,
                parameters=(length("return", "mortar at the edge", 0.030, 0.015, 0.060),)),
        Variant(key="foam strip", text="foam strip between the mortar edges", suits=MESH,
                parameters=(length("return", "strip", 0.060, 0.020, 0.150),)),
        Variant(key="straw box", text="timber box in the bales", suits=("straw-bale", "straw-board"),
                parameters=(length("box", "box", 0.140, 0.080, 0.240), _LUMBER)),
    ),
)  # fmt: skip

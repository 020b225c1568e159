"""Where a floor between two heated storeys meets the wall: upright section, the floor's underside at y = 0."""

from __future__ import annotations

from nimble_shell.core.joints.drawing import Board, Drawing, box
from nimble_shell.core.joints.families.family import Family, Owned, Situation, Variant, fits, length, reach
from nimble_shell.core.joints.families.seam import BEAM_TIMBER, FRAMES, WALLS
from nimble_shell.core.joints.stack import Stack, row_of
from nimble_shell.core.parameters import Choice
from nimble_shell.core.quantities.sentence import sentence

_CONCRETE = ("icf", "icf-one-sided", "masonry", "mesh-mortar")
_PLATE = 0.038  #: [m]
_DECK = 0.018  #: [m]


def draw(at: Situation) -> Drawing:
    """A floor line."""
    wall = at.wall
    H, t = reach(wall), at.number("depth")
    board = Board()
    board.strip(wall, origin=(0, 0), along=(0, 1), out=(-1, 0), start=-H, end=t + H)
    R = reach(wall)
    _DRAW[at.variant](at, board, t, R)
    board.air("inside", box(-wall.d / 2, -H, R, t + H))
    board.air("outside", box(-wall.d - 1, -H, -wall.d / 2, t + H), wall.R_se)
    board.refer(wall.name, wall.U, 2 * H, 2 * H + t, 2 * H + t)
    return board.done((-wall.d - 0.04, -0.35, 0.6, t + 0.35))


def _lined(board: Board, wall: Stack, t: float, at: Situation) -> None:
    """The lining stops at the floor: the floor's timber takes its place."""
    for index in range(wall.core_at):
        if wall.plies[index].fill.surface == "board" or wall.plies[index].fill.family == "air":
            a, b = wall.span(index)
            board.rect(-b, 0, -a, t, at.fill("softwood"), "floor against the skin")


def _hung(at: Situation, board: Board, t: float, R: float) -> None:
    """Joists hang on a ledger at the inner face; the wall goes past."""
    width = at.number("ledger")
    _lined(board, at.wall, t, at)
    board.rect(0, 0, width, t, at.fill("softwood"), "ledger")
    board.rect(0, t, R, t + _DECK, at.fill("osb"), "deck")
    board.dim("ledger", (0, 0), (width, 0))
    board.dim("depth", (width, 0), (width, t))
    board.mark("bead", 0, t)
    board.mark("bead", 0, 0)


def _ring_beam(at: Situation, board: Board, t: float, R: float) -> None:
    """A beam runs round the storey in the frame's depth, and the floor bears on it; the fill goes on outside of it."""
    wall = at.wall
    a, b = wall.core_span
    deep, high = at.number("beam"), at.number("beam_height")
    fits(
        deep < b - a,
        "beam",
        sentence("the beam is {v1} deep in a frame of {v2}", v1=(deep, "length"), v2=(b - a, "length")),
        "a thinner beam, or a deeper frame",
    )
    _lined(board, wall, t, at)
    board.rect(-a - deep, t - high, -a, t, at.fill(at.word("timber")), "ring beam")
    board.rect(0, t, R, t + _DECK, at.fill("osb"), "deck")
    board.dim("beam", (-a - deep, t - high), (-a, t - high))
    board.dim("beam_height", (-a - deep, t - high), (-a - deep, t))
    board.dim("depth", (0.1, 0), (0.1, t))
    for y in (0.0, t):
        board.mark("bead", 0, y)


def _platform(at: Situation, board: Board, t: float, R: float) -> None:
    """The floor goes through: rim, deck and plates interrupt the core; foam may stand outside of the rim."""
    wall = at.wall
    a, b = wall.core_span
    foam, rim = at.number("rim_foam"), at.number("rim")
    fits(
        foam + rim <= b - a,
        "rim_foam",
        sentence("rim and foam are {v1} in a core of {v2}", v1=(foam + rim, "length"), v2=(b - a, "length")),
        "thinner, or a thicker core",
    )
    timber = at.fill("softwood")
    board.rect(-b, -_PLATE, -a, 0, timber, "top plate")
    board.rect(-b, 0, 0, t + _DECK, at.fill("mineral-wool-035"), "rim space")
    board.rect(-b, 0, -b + foam, t + _DECK, at.fill("eps-graphite"), "rim foam")
    board.rect(-b + foam, 0, -b + foam + rim, t, at.fill("lvl"), "rim")
    board.rect(-b + foam, t, R, t + _DECK, at.fill("osb"), "deck")
    board.rect(-b, t + _DECK, -a, t + _DECK + _PLATE, timber, "bottom plate")
    board.dim("rim_foam", (-b, t / 2), (-b + foam, t / 2))
    for y in (0.0, t + _DECK):
        board.mark("bead", -a, y)


def _ledger_icf(at: Situation, board: Board, t: float, R: float) -> None:
    """A ledger bolted through continuous foam."""
    width = at.number("ledger")
    wall = at.wall
    x = -_inner_foam_face(wall)
    board.rect(x, 0, 0, t, at.fill("softwood"), "ledger behind the board")
    board.rect(0, 0, width, t, at.fill("softwood"), "ledger")
    board.rect(0, t, R, t + _DECK, at.fill("osb"), "deck")
    board.dim("ledger", (0, 0), (width, 0))
    board.mark("bead", 0, t)


def _slab(at: Situation, board: Board, t: float, R: float) -> None:
    """A concrete deck on the core: the inner foam stops, and the outer one goes on or is cut back."""
    wall = at.wall
    core = wall.of_family("concrete")
    concrete = at.fill("concrete-reinforced")
    a, b = wall.span(core) if core is not None else wall.core_span
    cut = at.variant == "foam broken"
    board.rect(-wall.d if cut else -b, 0, R, t, concrete, "concrete floor")
    if cut:
        cover = at.number("cover")
        board.rect(-wall.d, 0, -wall.d + cover, t, at.fill("eps-graphite"), "foam at the floor's edge")
        board.dim("cover", (-wall.d, t), (-wall.d + cover, t))
    board.dim("depth", (0.1, 0), (0.1, t))
    board.mark("bead", -a, 0)


def _bracket(at: Situation, board: Board, t: float, R: float) -> None:
    """A balcony on brackets: steel at a spacing, as the mean of its row."""
    wall = at.wall
    core = wall.of_family("concrete")
    a = wall.span(core)[0] if core is not None else wall.core_span[0]
    steel, foam = at.fill(at.word("metal")), wall.plies[wall.core_at].fill
    mean = row_of(steel, foam, at.number("bracket") / at.number("spacing"))
    high = at.number("bracket_height")
    board.rect(-wall.d - 0.35, 0, -a, high, mean, "bracket row")
    board.rect(-a, 0, R, t, at.fill("softwood"), "floor inside")
    board.dim("bracket_height", (-wall.d - 0.2, 0), (-wall.d - 0.2, high))
    board.mark("bead", -wall.d, high)


def _inner_foam_face(wall: Stack) -> float:
    """Distance of the first foam from the inner face. [m]"""
    for index, ply in enumerate(wall.plies):
        if ply.fill.family in ("foam", "concrete"):
            return wall.depth(index)
    return 0.0


_DRAW = {
    "hung": _hung,
    "platform": _platform,
    "ring beam": _ring_beam,
    "ledger": _ledger_icf,
    "deck on core": _slab,
    "foam broken": _slab,
    "balcony brackets": _bracket,
}
_FRAMED = tuple(system for system in WALLS if system not in _CONCRETE)
_LEDGER = length("ledger", "ledger", 0.045, 0.030, 0.120)
_BRACKET = (
    Choice(key="metal", text="bracket of", start="stainless-steel", options=("stainless-steel", "steel", "aluminium")),
    length("bracket", "bracket", 0.012, 0.004, 0.060),
    length("spacing", "spacing", 0.600, 0.200, 2.000),
    length("bracket_height", "height of a bracket", 0.160, 0.040, 0.160),
)
FAMILY = Family(
    key="floor line",
    name="Intermediate floor",
    station="F",
    roles=("wall",),
    draw=draw,
    parameters=(length("depth", "floor depth", 0.240, 0.160, 0.500),),
    variants=(
        Variant(key="hung", text="hung on a ledger, the wall goes past", suits=_FRAMED, parameters=(_LEDGER,)),
        Variant(key="platform", text="platform, the floor goes through", suits=("sip", "cassette", "site-framing"),
                parameters=(length("rim", "rim", 0.045, 0.025, 0.050),
                            length("rim_foam", "foam outside of the rim", 0.020, 0.0, 0.040)),
                owns=(Owned(role="wall", place="plate"),)),
        Variant(key="ring beam", text="on a ring beam in the frame", suits=FRAMES,
                parameters=(length("beam", "beam depth", 0.090, 0.045, 0.180),
                            length("beam_height", "beam height", 0.240, 0.120, 0.400), BEAM_TIMBER)),
        Variant(key="ledger", text="ledger, foam behind it whole", suits=("icf", "icf-one-sided"),
                parameters=(_LEDGER,)),
        Variant(key="deck on core", text="concrete deck on the core, outer foam whole", suits=_CONCRETE),
        Variant(key="foam broken", text="concrete floor breaks the foam", suits=_CONCRETE,
                parameters=(length("cover", "foam left at its edge", 0.0, 0.0, 0.060),)),
        Variant(key="balcony brackets", text="row of balcony brackets", suits=(*_FRAMED, *_CONCRETE),
                parameters=_BRACKET,
                note="a row is taken at the mean of its brackets: a screening figure until it is solved in space"),
    ),
)  # fmt: skip

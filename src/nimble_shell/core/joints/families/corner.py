"""Corners, in plan: where x and y are above 0 is the room of an outer one, and the outside of an inner one."""

from __future__ import annotations

from nimble_shell.core.joints.drawing import Board, Drawing, box
from nimble_shell.core.joints.families.family import Family, Owned, Situation, Variant, length, reach
from nimble_shell.core.joints.families.seam import BUCK, CASSETTES, FORMS, MESH, METAL, PANELS
from nimble_shell.core.parameters import Choice

MASSIVE = ("icf", "icf-one-sided", "masonry", *MESH, "straw-bale", "straw-board")


def draw(at: Situation) -> Drawing:
    """An outer corner, cut level."""
    wall = at.wall
    L, d = reach(wall), wall.d
    board = Board()
    for index in range(len(wall.plies) - 1, -1, -1):  # from outside in: each covers what is further in
        outer = wall.span(index)[1]
        board.rect(-outer, -outer, L, L, wall.plies[index].fill)
    board.rect(0, 0, L, L, None)
    _DRAW[at.variant](at, board)
    board.air("outside", ((-d - 1, -d - 1), (L, -d - 1), (L, -d / 2), (-d / 2, -d / 2), (-d / 2, L), (-d - 1, L)),
              wall.R_se)  # fmt: skip
    board.air("inside", box(-d / 2, -d / 2, L, L))
    board.refer(wall.name, wall.U, 2 * L, 2 * L, 2 * (L + d))
    return board.done((-d - 0.06, -d - 0.06, 0.6, 0.6), plan=True)


def draw_inner(at: Situation) -> Drawing:
    """An inner corner, cut level: the room lies round it."""
    wall = at.wall
    L, d = reach(wall), wall.d
    board = Board()
    for index in range(len(wall.plies)):  # from inside out: each covers what is further out
        inner = d - wall.span(index)[0]
        board.rect(-inner, -inner, L, L, wall.plies[index].fill)
    board.rect(0, 0, L, L, None)
    _DRAW_INNER[at.variant](at, board)
    board.air("inside", ((-d - 1, -d - 1), (L, -d - 1), (L, -d / 2), (-d / 2, -d / 2), (-d / 2, L), (-d - 1, L)))
    board.air("outside", box(-d / 2, -d / 2, L, L), wall.R_se)
    board.refer(wall.name, wall.U, 2 * (L + d), 2 * (L + d), 2 * L)
    return board.done((-d - 0.06, -d - 0.06, 0.6, 0.6), plan=True, sides=("room", "outside"))


def _plain_inner(at: Situation, board: Board) -> None:
    d = at.wall.d
    board.mark("tape", -d, -d)
    board.mark("lap", 0, 0)


def _lumber_inner(at: Situation, board: Board) -> None:
    """One panel runs through, its end closed; the other stands against it with lumber in its edge."""
    a, b = (at.wall.d - one for one in at.wall.core_span)  # from the outer face
    t = at.number("lumber")
    timber = at.fill(at.word("timber"))
    board.rect(-a, -a, -a + t, -b, timber, "end plate")
    board.rect(-a, -b, -b, -b + t, timber, "edge lumber")
    board.dim("lumber", (-a, -a), (-a + t, -a))
    for x in (-a, -b):
        board.mark("bead", x, -b)


def _studs_inner(at: Situation, board: Board) -> None:
    a, b = (at.wall.d - one for one in at.wall.core_span)
    t = at.number("lumber")
    timber = at.fill(at.word("timber"))
    board.rect(-b - t, -a, -b, -b, timber, "stud of one cassette")
    board.rect(-a, -b, -b, -b + t, timber, "stud of the other")
    board.dim("lumber", (-b - t, -a), (-b, -a))
    board.mark("gasket", -b, -b)


def _buck(at: Situation, board: Board) -> None:
    """Forms cut on site: one wall runs through, the other ends at a buck against it and is poured for itself."""
    t = at.number("buck")
    core = at.wall.of_family("concrete")
    inner, outer = at.wall.core_span if core is None else at.wall.span(core)
    board.rect(-outer, -inner, -inner, -inner + t, at.fill(at.word("timber")), "buck")
    board.dim("buck", (-inner, -inner), (-inner, -inner + t))
    board.mark("bead", -outer, -inner)
    board.mark("lap", -at.wall.d, -at.wall.d)


def _buck_inner(at: Situation, board: Board) -> None:
    t = at.number("buck")
    core = at.wall.of_family("concrete")
    inner, outer = (at.wall.d - one for one in (at.wall.core_span if core is None else at.wall.span(core)))
    board.rect(-inner, -outer, -outer, -outer + t, at.fill(at.word("timber")), "buck")
    board.dim("buck", (-inner, -outer), (-inner, -outer + t))
    board.mark("bead", -outer, -outer)
    board.mark("lap", 0, 0)


def _plain(at: Situation, board: Board) -> None:
    for ply in (0, len(at.wall.plies) - 1):
        o = at.wall.span(ply)[1 if ply else 0]
        board.mark("lap" if ply else "tape", -o, -o)


def _lumber(at: Situation, board: Board) -> None:
    """One panel runs through and is closed with lumber; the other stands against it with lumber in its edge."""
    a, b = at.wall.core_span
    t = at.number("lumber")
    timber = at.fill(at.word("timber"))
    inner = at.wall.plies[at.wall.core_at - 1] if at.wall.core_at else at.wall.plies[at.wall.core_at]
    board.rect(-b, -b, -a, -b + t, timber, "end plate")
    if at.wall.core_at:
        skin = at.wall.span(at.wall.core_at - 1)
        board.rect(-skin[1], -b, -skin[0], 0, inner.fill, "skin runs through")
        board.rect(-skin[0], -b, -skin[0] + t, -a, timber, "edge lumber")
    board.dim("lumber", (-b, -b), (-b, -b + t))
    for y in (-b + t / 2, -a):
        board.mark("bead", -a, y)


def _studs(at: Situation, board: Board) -> None:
    a, b = at.wall.core_span
    t = at.number("lumber")
    timber = at.fill(at.word("timber"))
    board.rect(-b, -a - t, -a, -a, timber, "stud of one cassette")
    board.rect(-a - t, -b, -a, -a, timber, "stud of the other")
    board.rect(-b, -b, -b + t, -a - t, timber, "outer stud")
    board.dim("lumber", (-b, -b), (-b + t, -b))
    board.mark("gasket", -a, -a)


def _post(at: Situation, board: Board) -> None:
    a, b = at.wall.core_span
    board.rect(-b, -b, -a, -a, at.fill(at.word("timber")), "solid post")
    board.mark("gasket", -a, -a)


def _metal(at: Situation, board: Board) -> None:
    """The outer skin is folded round; the inner one may run through to it where the panel was cut short."""
    skin = at.wall.plies[0]
    outer = at.wall.d
    if at.variant == "skin through":
        board.rect(-skin.d, -outer, 0, 0, skin.fill, "inner skin runs through")
    board.mark("gasket", 0, 0)
    board.mark("gasket", -outer, -outer)


_DRAW = {
    "lumber": _lumber,
    "mitred": _plain,
    "plain": _plain,
    "studs": _studs,
    "post": _post,
    "cap": _metal,
    "skin through": _metal,
    "site-cut buck": _buck,
}
_DRAW_INNER = {"lumber": _lumber_inner, "plain": _plain_inner, "studs": _studs_inner, "cap": _plain_inner,
               "site-cut buck": _buck_inner}  # fmt: skip
_TIMBER = (
    length("lumber", "lumber", 0.038, 0.030, 0.100),
    Choice(key="timber", text="timber", start="softwood", options=("softwood", "hardwood", "lvl", "glulam")),
)
_SITE_CUT = (BUCK, _TIMBER[1])
#: The stud at the end of each wall, half of it the corner's; what a guess of posts and corners holds of it beside.
_FRAMED = (Owned(role="wall", place="stud"), Owned(role="wall", place="frame", lines="drawn"))
FAMILY = Family(
    key="corner",
    name="Outer corner",
    station="D",
    roles=("wall",),
    owns=(Owned(role="wall", place="seam"),),  # half a spline at the end of each wall
    draw=draw,
    variants=(
        Variant(key="lumber", text="one panel runs through, lumber in both edges", suits=PANELS, parameters=_TIMBER),
        Variant(key="mitred", text="mitred, foam runs round", suits=(*PANELS, *METAL)),
        Variant(key="plain", text="plain, every layer runs round", suits=MASSIVE),
        Variant(key="studs", text="three studs", suits=(*CASSETTES, "site-framing"), parameters=_TIMBER, owns=_FRAMED),
        Variant(
            key="post", text="solid post", suits=(*CASSETTES, "site-framing"), parameters=_TIMBER[1:], owns=_FRAMED
        ),
        Variant(key="cap", text="folded cap outside, inner skin cut", suits=METAL),
        Variant(key="skin through", text="inner skin runs through the core", suits=METAL),
        Variant(
            key="site-cut buck", text="forms cut on site, one wall closed by a buck", suits=FORMS, parameters=_SITE_CUT
        ),
    ),
)
INNER = Family(
    key="inner corner",
    name="Inner corner",
    station="D",
    roles=("wall",),
    owns=(Owned(role="wall", place="seam"),),
    draw=draw_inner,
    variants=(
        Variant(key="lumber", text="one panel runs through, lumber in both edges", suits=PANELS, parameters=_TIMBER),
        Variant(key="plain", text="plain, every layer runs round", suits=MASSIVE),
        Variant(key="studs", text="a stud at each end", suits=(*CASSETTES, "site-framing"), parameters=_TIMBER,
                owns=(Owned(role="wall", place="stud"),)),
        Variant(key="cap", text="folded cap inside, outer skin folded", suits=METAL),
        Variant(key="site-cut buck", text="forms cut on site, one wall closed by a buck", suits=FORMS,
                parameters=_SITE_CUT),
    ),
)  # fmt: skip

"""Panels of the neutral set-out case: an outline with openings, the rules of a system, and what is to be least."""

from __future__ import annotations

from collections.abc import Mapping
from typing import Annotated, Any, Literal, cast, get_args

from pydantic import Field, StrictBool

from nimble_shell.core.errors import Collector, DomainError, Issue
from nimble_shell.core.setout.elevation import Elevation, Opening, pitched
from nimble_shell.core.setout.panels import NoWay, Panel, SetOut, WhatIf, set_out, what_if
from nimble_shell.core.setout.pieces import Piece
from nimble_shell.core.setout.rules import MEASURED, AtOpening, Bale, Blank, Layout, Objective, Rules, Term
from nimble_shell.core.setout.strips import M2
from nimble_shell.formats.neutral_shell.values import NotNegative, Positive, missing
from nimble_shell.formats.strict import Number, Strict

KIND = "panels"
MOST_JOINTS = 200_000  #: places on the grid of a band
MOST_MOVES = 10_000
FileTerm = Literal["panels", "off_module", "members", "member_length", "waste"]  #: those that a case knows
TERMS: tuple[FileTerm, ...] = get_args(FileTerm)
Corner = Annotated[list[Number], Field(min_length=2, max_length=2)]
Sheet = Annotated[list[Positive | None], Field(min_length=2, max_length=2)]


class WallCase(Strict):
    outline: Annotated[list[Corner], Field(min_length=3)]
    levels: list[Number] = []
    pitch_deg: Annotated[Number, Field(ge=0, lt=90)] = 0.0


class OpeningCase(Strict):
    name: str
    x: Number
    y: Number
    w: Positive
    h: Positive
    mass_kg: NotNegative = 0.0


class BaleCase(Strict):
    length: Positive
    tight: NotNegative
    frame: NotNegative


class RulesCase(Strict):
    layout: Layout
    cover: Positive | None = None
    step: Positive
    origin: Number = 0.0
    joint_at_edge: StrictBool
    at_opening: AtOpening
    edge_clear: NotNegative
    min_strip: NotNegative
    min_piece: NotNegative = 0.0
    blanks: Annotated[list[Sheet], Field(min_length=1)] | None
    max_width: Positive | None = None
    max_length: Positive | None = None
    mass_per_m2: NotNegative = 0.0
    max_mass_kg: Positive | None = None
    module_widths: list[Positive] = []
    bale: BaleCase | None = None
    layers: Annotated[int, Field(strict=True, ge=1, le=2)] = 1
    stagger: NotNegative = 0.0
    header_bearing: NotNegative = 0.0


class WhatIfCase(Strict):
    opening: str
    max_move: NotNegative
    move_step: Positive


class PanelsCase(Strict):
    kind: Literal["panels"] = "panels"
    wall: WallCase
    openings: list[OpeningCase]
    rules: RulesCase
    objective: Annotated[list[FileTerm], Field(min_length=1)] | dict[FileTerm, NotNegative]
    what_if: WhatIfCase | None = None


def read(case: dict[str, Any]) -> PanelsCase:
    """A case as it stands in its file.

    Raises
    ------
    pydantic.ValidationError
        With what is wrong in the file.
    """
    return PanelsCase.model_validate(case)


def compute(case: PanelsCase) -> dict[str, Any]:
    """Answer a case.

    Raises
    ------
    DomainError
        With the path of what is wrong in the case file.
    """
    rules, objective = _rules(case), _objective(case)
    elevation = pitched(
        Elevation(
            outline=tuple((x, y) for x, y in case.wall.outline),
            openings=tuple(
                Opening(name=one.name, x=one.x, y=one.y, w=one.w, h=one.h, mass=one.mass_kg) for one in case.openings
            ),
            levels=tuple(case.wall.levels),
        ),
        case.wall.pitch_deg,
    )
    try:
        found = set_out(elevation, rules, objective)
        moved = None if case.what_if is None else _what_if(case, case.what_if, elevation, rules, objective)
    except DomainError as error:
        raise _in_file(error) from None
    answer: dict[str, Any] = (
        {"status": "infeasible", "reason": found.reason} if isinstance(found, NoWay) else _answer(found, objective)
    )
    if moved is not None:
        answer["what_if"] = {"panels_now": moved.now, "panels_best": moved.best, "min_move": moved.least}
    return answer


def _rules(case: PanelsCase) -> Rules:
    given, check = case.rules, Collector()
    at = ("rules",)
    if given.layout == "cover":
        check.check(given.cover is not None, (*at, "cover"), "missing", "“cover” is missing", "add it")
        check.check(given.at_opening in ("inside", "cut"), (*at, "at_opening"), "not_with_cover",
                    f"“{given.at_opening}” with strips of one cover", "“inside” or “cut”")  # fmt: skip
    for name in ("max_width", "max_length"):
        told = getattr(given, name) is not None
        if given.blanks is None:
            check.check(told, (*at, name), "missing", f"“{name}” is missing", "needed where there are no blanks")
        else:
            check.check(not told, (*at, name), "told_twice", f"“{name}” beside blanks", "leave one of them out")
    check.check(not (given.module_widths and given.bale), (*at, "bale"), "told_twice",
                "“module_widths” and “bale”", "at most one of them")  # fmt: skip
    if given.bale is not None:
        check.check(given.bale.tight < given.bale.length, (*at, "bale", "tight"), "out_of_range",
                    f"{given.bale.tight:g} of a bale of {given.bale.length:g}", "less than its length")  # fmt: skip
    for n, blank in enumerate(given.blanks or []):
        check.check(blank[0] is not None, (*at, "blanks", n, 0), "missing", "a blank without a width", "give it one")
    xs = [corner[0] for corner in case.wall.outline]
    places = (max(xs) - min(xs)) / given.step
    check.check(places <= MOST_JOINTS, (*at, "step"), "too_fine", f"{places:.3g} places for joints",
                f"at most {MOST_JOINTS}: a larger step")  # fmt: skip
    check.refuse()
    return Rules(
        layout=given.layout, cover=given.cover if given.layout == "cover" else None, step=given.step,
        origin=given.origin, joint_at_edge=given.joint_at_edge, at_opening=given.at_opening,
        edge_clear=given.edge_clear, min_strip=given.min_strip, min_piece=given.min_piece,
        blanks=None if given.blanks is None
        else tuple(Blank(width=width or 0.0, length=length) for width, length in given.blanks),
        max_width=given.max_width, max_length=given.max_length, mass_per_m2=given.mass_per_m2,
        max_mass=given.max_mass_kg, module_widths=tuple(given.module_widths),
        bale=None if given.bale is None else Bale(length=given.bale.length, tight=given.bale.tight,
                                                  frame=given.bale.frame),
        layers=given.layers, stagger=given.stagger, header_bearing=given.header_bearing,
    )  # fmt: skip


def _objective(case: PanelsCase) -> Objective:
    given = case.objective
    if isinstance(given, dict):
        if not given:
            raise missing("objective", TERMS[0])
        return Objective(weights=cast("Mapping[Term, float]", given))
    for at, term in enumerate(given):
        if term in given[:at]:
            raise DomainError(Issue(path=("objective", at), code="told_twice", message=f"“{term}” is there twice",
                                    hint="no term twice"))  # fmt: skip
        if term in MEASURED and at < len(given) - 1:
            raise DomainError(Issue(path=("objective", at), code="not_last", message=f"“{term}” before others",
                                    hint="in the last place: no two of it are ever equal"))  # fmt: skip
    return Objective(order=tuple(given))


def _what_if(case: PanelsCase, asked: WhatIfCase, elevation: Elevation, rules: Rules, objective: Objective) -> WhatIf:
    check, moves = Collector(), asked.max_move / asked.move_step
    check.check(asked.opening in {one.name for one in case.openings}, ("what_if", "opening"), "unknown_name",
                f"there is no opening “{asked.opening}”", "one of the openings")  # fmt: skip
    check.check(moves <= MOST_MOVES, ("what_if", "move_step"), "too_fine", f"{moves:.3g} moves each way",
                f"at most {MOST_MOVES}: a larger step")  # fmt: skip
    check.refuse()
    return what_if(elevation, rules, objective, asked.opening, asked.max_move, asked.move_step)


def _in_file(error: DomainError) -> DomainError:
    """With the places of the outline and the levels where they stand in the file."""
    return DomainError(
        *(
            Issue(path=("wall", *one.path) if one.path[:1] in (("outline",), ("levels",)) else one.path,
                  code=one.code, message=one.message, hint=one.hint)
            for one in error.issues
        )
    )  # fmt: skip


def _answer(found: SetOut, objective: Objective) -> dict[str, Any]:
    terms: dict[str, float] = {term: getattr(found.sum, term) for term in TERMS}
    if objective.weights is None:
        bound = terms[objective.order[0]]
    else:
        bound = sum(weight * terms[term] for term, weight in objective.weights.items())
    return {
        "status": "optimal",
        "bound": bound,
        "objective": terms,
        "bands": [
            {"band": band, "layer": layer, "joints": list(one.joints)}
            for band, layers in enumerate(found.bands) for layer, one in enumerate(layers)
        ],
        "panels": [_panel(one, one.piece) for one in found.panels],
        "splines": {"count": found.splines.count, "length_m": found.splines.length},
        "posts": {"count": found.posts.count, "length_m": found.posts.length},
        "plates": {"bottom_m": found.bottom, "top_m": found.top},
        "headers_m": found.headers,
    }  # fmt: skip


def _panel(one: Panel, piece: Piece) -> dict[str, Any]:
    return {
        "band": one.band, "layer": one.layer, "x0": piece.x0, "x1": piece.x1, "y0": piece.y0, "y1": piece.y1,
        "outline": [list(corner) for corner in piece.outline], "holes": list(piece.holes),
        "area_m2": piece.area * M2, "mass_kg": one.mass,
    }  # fmt: skip

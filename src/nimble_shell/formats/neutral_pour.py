"""The neutral pour case of the command line: pressure, lifts, braces and lean of one pour, as plain JSON."""

from __future__ import annotations

from itertools import pairwise
from typing import Annotated, Any, Literal

from pydantic import Field

from nimble_shell.core.errors import Collector
from nimble_shell.core.quantities.sentence import sentence
from nimble_shell.core.setout.points import NoPoint, fewest_points
from nimble_shell.core.site.lifts import brace_spacing, lean, lifts
from nimble_shell.core.site.pressure import Pour, SchoolA, SchoolB, greatest_height, greatest_rate, pressure
from nimble_shell.formats.neutral_shell.values import NotNegative, Positive, missing
from nimble_shell.formats.strict import Number, Strict

KIND = "pour"
_COLD, _HOT = -15.0, 60.0  #: of fresh concrete [°C]
_NEAR = 1e-9
_MOST_PLACES = 1_000_000
Pair = Annotated[list[Number], Field(min_length=2, max_length=2)]


class LiftsCase(Strict):
    joints_m: Annotated[list[NotNegative], Field(max_length=2000)]
    height_m: Positive
    max_lift_m: Positive
    wait_h: NotNegative


class BracesCase(Strict):
    length: Positive
    openings: Annotated[list[Pair], Field(max_length=2000)]
    table: Annotated[list[Annotated[list[Positive], Field(min_length=2, max_length=2)]], Field(min_length=1)]
    height: Positive
    end: NotNegative
    step: Positive
    clear: NotNegative


class LeanCase(Strict):
    height: Positive
    per_m: NotNegative
    brace_height: Positive
    brace_foot: Positive


class PourCase(Strict):
    kind: Literal["pour"] = "pour"
    formula: Literal["A", "B"]
    member: Literal["wall", "column"]
    density: Positive
    T: Annotated[Number, Field(gt=_COLD, le=_HOT)]
    C1: Positive | None = None
    C2: Positive | None = None
    Cw: Positive | None = None
    Cc: Positive | None = None
    form_height_m: Positive
    pour_height_m: Positive
    rate_m_h: Positive
    rated_kPa: Positive
    plan_area_m2: Positive
    lifts: LiftsCase | None = None
    braces: BracesCase | None = None
    lean: LeanCase | None = None


def read(case: dict[str, Any]) -> PourCase:
    """A case as it stands in its file.

    Raises
    ------
    pydantic.ValidationError
        With what is wrong in the file.
    """
    return PourCase.model_validate(case)


def compute(case: PourCase) -> dict[str, Any]:
    """Answer a case.

    Raises
    ------
    DomainError
        With the path of what is wrong in the case file.
    """
    _checked(case)
    school = (
        SchoolA(C1=case.C1 or 0.0, C2=case.C2 or 0.0) if case.formula == "A"
        else SchoolB(Cw=case.Cw or 0.0, Cc=case.Cc or 0.0)
    )  # fmt: skip
    pour = Pour(school=school, member=case.member, density=case.density, temperature=case.T,
                form_height=case.form_height_m, height=case.pour_height_m, rate=case.rate_m_h)  # fmt: skip
    found, high = pressure(pour), greatest_height(pour, case.rated_kPa)
    answer: dict[str, Any] = {
        "pressure_kPa": found.value, "governs": found.governs,
        "max_rate_m_h": greatest_rate(pour, case.rated_kPa), "max_height_m": high,
        "hours": case.pour_height_m / case.rate_m_h, "volume_m3_h": case.rate_m_h * case.plan_area_m2,
        "ok": found.value <= case.rated_kPa + _NEAR,
    }  # fmt: skip
    if case.lifts is not None:
        answer["lifts"] = _lifts(case, case.lifts, high)
    if case.braces is not None:
        answer["braces"] = _braces(case.braces)
    if case.lean is not None:
        leant = lean(case.lean.height, case.lean.per_m, case.lean.brace_height, case.lean.brace_foot)
        answer["lean"] = {"top_mm": leant.top, "brace_mm": leant.brace}
    return answer


def _checked(case: PourCase) -> None:
    for name in ("C1", "C2") if case.formula == "A" else ("Cw", "Cc"):
        if getattr(case, name) is None:
            raise missing(name)
    check = Collector()
    fits = case.pour_height_m <= case.form_height_m + _NEAR
    said = sentence("{a} in a form of {b}", a=(case.pour_height_m, "distance"), b=(case.form_height_m, "distance"))
    check.check(fits, ("pour_height_m",), "out_of_range", said, "no higher than the form")
    if case.lifts is not None:
        rising = all(a < b for a, b in pairwise(case.lifts.joints_m))
        check.check(rising, ("lifts", "joints_m"), "not_rising", "board joints that do not rise", "rising levels")
    if case.braces is not None:
        rising = all(a[0] < b[0] for a, b in pairwise(case.braces.table))
        check.check(rising, ("braces", "table"), "not_rising", "heights that do not rise", "rising heights")
        places = case.braces.length / case.braces.step
        check.check(places <= _MOST_PLACES, ("braces", "step"), "too_fine", f"{places:.3g} places for braces",
                    f"at most {_MOST_PLACES}: a larger step")  # fmt: skip
        for at, (a, b) in enumerate(case.braces.openings):
            check.check(a < b, ("braces", "openings", at), "not_rising", f"from {a:g} to {b:g}", "left before right")
    if case.lean is not None:
        lean_ = case.lean
        leant = sentence("{a} for each {b}", a=(lean_.per_m / 1000, "length"), b=(1.0, "distance"))
        check.check(lean_.per_m < 1000, ("lean", "per_m"), "out_of_range", leant, "less than a metre")
        check.check(lean_.brace_height <= lean_.height + _NEAR, ("lean", "brace_height"), "out_of_range",
                    f"at {lean_.brace_height:g} of {lean_.height:g}", "no higher than the wall")  # fmt: skip
    check.refuse()


def _lifts(case: PourCase, asked: LiftsCase, high: float) -> dict[str, Any]:
    most = min(asked.max_lift_m, high)
    found = lifts(asked.joints_m, asked.height_m, most)
    if found is None:
        return {
            "status": "infeasible",
            "reason": sentence("no board joints lie within lifts of {v}", v=(most, "distance")),
        }
    hours = [one / case.rate_m_h for one in found.heights]
    return {
        "status": "optimal",
        "bound": len(found.levels),
        "objective": {"lifts": len(found.levels), "greatest_m": found.greatest},
        "levels_m": list(found.levels),
        "hours": hours,
        "volume_m3": [one * case.plan_area_m2 for one in found.heights],
        "total_h": sum(hours) + (len(hours) - 1) * asked.wait_h,
    }


def _braces(asked: BracesCase) -> dict[str, Any]:
    spacing = brace_spacing([(height, most) for height, most in asked.table], asked.height)
    if spacing is None:
        return {"status": "outside_table"}
    found = fewest_points(asked.length, end=asked.end, spacing=spacing, step=asked.step,
                          blocked=[(a - asked.clear, b + asked.clear) for a, b in asked.openings])  # fmt: skip
    if isinstance(found, NoPoint):
        reason = f"no place from {found.a:g} to {found.b:g} is clear of the openings"
        return {"status": "infeasible", "reason": reason, "spacing": spacing}
    return {"status": "optimal", "bound": len(found), "spacing": spacing, "objective": {"braces": len(found)},
            "positions": list(found)}  # fmt: skip

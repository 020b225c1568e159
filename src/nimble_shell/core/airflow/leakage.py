"""What a shell leaks: sums over its joints, openings, services and areas, low, likely and high."""

from __future__ import annotations

import math
from collections.abc import Callable, Mapping, Sequence
from dataclasses import dataclass, field

from nimble_shell.core.airflow.density import RHO_STANDARD
from nimble_shell.core.errors import Collector
from nimble_shell.core.working import Given, Num, named, plain, power, value_of

GRADES = ("low", "likely", "high")
Range = tuple[Num, Num, Num]  #: low, likely, high
Entered = tuple[float, float, float]


@dataclass(frozen=True, slots=True, kw_only=True)
class LeakItem:
    """A part of the shell that leaks."""

    id: str
    amount: float  #: metres, square metres or pieces
    unit: str  #: of the amount: "m", "m²" or "" for pieces
    q: Entered  #: at 50 Pa, of one [m³/h]


@dataclass(frozen=True, slots=True, kw_only=True)
class Infiltration:
    """How leakage at 50 Pa becomes the year's infiltration, ISO 13789 annex."""

    e: float = 0.07  #: shelter; 0.05 balanced is the rule n50/20
    f: float = 15.0
    q_supply: float = 0.0  #: by fans [m³/h]
    q_extract: float = 0.0


@dataclass(frozen=True, slots=True, kw_only=True)
class Leaky:
    """A shell."""

    V: float  #: overall inner volume [m³]
    A_E: float  #: overall inner area of the envelope [m²]
    A_F: float  #: floor [m²]
    n: float  #: exponent of the flow, 0.5…1
    items: tuple[LeakItem, ...] = ()
    infiltration: Infiltration = field(default_factory=Infiltration)


@dataclass(frozen=True, slots=True, kw_only=True)
class LeakFigures:
    """What it comes to, each low, likely, high."""

    items: Mapping[str, Range]  #: at 50 Pa, by id [m³/h]
    largest: str | None  #: id of the item that most likely leaks most
    q50: Range  #: [m³/h]
    n50: Range  #: [1/h]
    qE50: Range  #: over the envelope [m³/(h·m²)]
    qF50: Range  #: over the floor [m³/(h·m²)]
    C: Range  #: [m³/(h·Paⁿ)]
    ELA4: Range  #: effective area at 4 Pa [cm²]
    q_inf: Range  #: infiltration [m³/h]


def leak_figures(shell: Leaky, given: Given = plain) -> LeakFigures:
    """Leakage of a shell at 50 Pa, and what of it is blown in over a year.

    Raises
    ------
    DomainError
        If three values are not in order, with the item's place in the path.

    References
    ----------
    .. [1] ISO 9972:2015, 6.4 (C, n50, qE50, qF50) and annex on effective leakage areas, no discharge coefficient.
    .. [2] ISO 13789:2017, annex C: infiltration by e, f and unbalanced fans.
    """
    _in_order(shell.items)
    items = {one.id: _item(one, str(n), given) for n, one in enumerate(shell.items, 1)}
    q50 = _three(lambda at: named(sum((one[at] for one in items.values()), 0.0), f"q50_{GRADES[at]}",
                                  f"leakage at 50 Pa, {GRADES[at]}", "m³/h", "Σ"))  # fmt: skip
    V = given(shell.V, "V", "overall inner volume", "m³", "of the shape, or entered")
    A_E = given(shell.A_E, "A_E", "area of the envelope", "m²", "of the shape, or entered")
    A_F = given(shell.A_F, "A_F", "floor area", "m²", "of the shape, or entered")
    fifty = 50.0**shell.n
    at_fifty = given(fifty, "fifty_n", "50 Pa to the exponent of the flow", "", f"50^{shell.n:g}")
    C = _three(lambda at: named(q50[at] / at_fifty, f"C_{GRADES[at]}", f"leakage coefficient, {GRADES[at]}",
                                "m³/(h·Paⁿ)", "ISO 9972:2015, 6.4, q50/50ⁿ"))  # fmt: skip
    return LeakFigures(
        items=items,
        largest=max(items, key=lambda key: value_of(items[key][1])) if items else None,
        q50=q50, n50=_over(q50, V, "n50", "changes of air at 50 Pa", "1/h"),
        qE50=_over(q50, A_E, "qE50", "leakage over the envelope", "m³/(h·m²)"),
        qF50=_over(q50, A_F, "qF50", "leakage over the floor", "m³/(h·m²)"),
        C=C, ELA4=_three(lambda at: leak_area(C[at], shell.n, given, f"ELA4_{GRADES[at]}")),
        q_inf=_three(lambda at: _infiltration(q50[at], shell.infiltration, given, GRADES[at])),
    )  # fmt: skip


def leak_area(C: Num, n: float, given: Given = plain, symbol: str = "ELA4") -> Num:
    """Opening that would leak as much at 4 Pa, without a discharge coefficient. [cm²]

    References
    ----------
    .. [1] ISO 9972:2015, annex on effective leakage areas.
    """
    factor = given(
        1e4 / 3600 * math.sqrt(RHO_STANDARD / 2) * 4 ** (n - 0.5),
        "k_4",
        "from flow to area at the low pressure",
        "",
        f"10⁴/3600·√(ρ₀/2)·4^({n:g} − 0.5)",
    )
    return named(C * factor, symbol, "effective leakage area", "cm²", "ISO 9972:2015, annex E")


def _in_order(items: Sequence[LeakItem]) -> None:
    check = Collector()
    for one in items:
        low, likely, high = one.q
        check.check(low <= likely <= high, (one.id, "q"), "not_in_order",
                    f"{one.id}: {low:g}, {likely:g}, {high:g} do not rise", "low, likely, high")  # fmt: skip
    check.refuse()


def _three(make: Callable[[int], Num]) -> Range:
    return make(0), make(1), make(2)


def _item(one: LeakItem, key: str, given: Given) -> Range:
    amount = given(one.amount, f"N_{key}", f"{one.id}, amount", one.unit, "of the shape, or entered")

    def leak(at: int) -> Num:
        q = given(one.q[at], f"q_{key}_{GRADES[at]}", f"{one.id}, {GRADES[at]}, of one", _each(one.unit),
                  "at 50 Pa, of its seals, or entered")  # fmt: skip
        return named(amount * q, f"Q_{key}_{GRADES[at]}", f"{one.id}, {GRADES[at]}", "m³/h", "amount × leakage of one")

    return _three(leak)


def _each(unit: str) -> str:
    return {"m": "m³/(h·m)", "m²": "m³/(h·m²)"}.get(unit, "m³/h")


def _over(q50: Range, size: Num, symbol: str, text: str, unit: str) -> Range:
    return _three(lambda at: named(q50[at] / size, f"{symbol}_{GRADES[at]}", f"{text}, {GRADES[at]}", unit,
                                   "ISO 9972:2015, 6.4"))  # fmt: skip


def _infiltration(q50: Num, by: Infiltration, given: Given, grade: str) -> Num:
    if not value_of(q50):
        return 0.0
    e = given(by.e, "e_sh", "shelter", "", "ISO 13789:2017, annex C")
    f = given(by.f, "f_sh", "shelter", "", "ISO 13789:2017, annex C")
    supply = given(by.q_supply, "q_sup", "supply by fans", "m³/h", "of the ventilation")
    extract = given(by.q_extract, "q_ext", "extract by fans", "m³/h", "of the ventilation")
    return named(q50 * e / (1 + f / e * power((supply - extract) / q50, 2.0)), f"q_inf_{grade}",
                 f"infiltration, {grade}", "m³/h", "ISO 13789:2017, annex C")  # fmt: skip

"""Dynamic behaviour of the field of an element under a sinusoidal swing, ISO 13786."""

from __future__ import annotations

import math
from dataclasses import dataclass, replace
from typing import cast

import numpy as np

from nimble_shell.core.errors import DomainError, Issue
from nimble_shell.core.thermal.element import Element, ElementLayer
from nimble_shell.core.working import Given, Num, apply, named, plain, value_of

_STEPS = 400  #: periods from the steady state down to the wanted one, along which the phase is followed
_CLAUSE = "ISO 13786:2017, 7.2"

_Pair = tuple[Num, Num]  # real and imaginary part
_Column = tuple[_Pair, _Pair]


@dataclass(frozen=True, slots=True, kw_only=True)
class Periodic:
    """Periodic characteristics for one period."""

    Y12: Num  #: modulus of the periodic thermal transmittance [W/(m²·K)]
    decrement: Num  #: Y12 over U
    lag_h: Num  #: the inside flux lags the outside temperature by this [h]
    kappa_i: Num  #: areal heat capacity, inside [J/(m²·K)]
    kappa_e: Num  #: areal heat capacity, outside [J/(m²·K)]


def periodic(element: Element, period_h: float, *, given: Given = plain) -> Periodic:
    """Periodic transmittance, decrement, lag and areal heat capacities of the field, films included.

    Parameters
    ----------
    element : Element
        Layers with a conductivity need ρ and c.
    period_h : float
        Period of the swing. [h]
    given : Given
        `plain` for figures, `traced` for working.

    Raises
    ------
    DomainError
        If a layer lacks ρ or c, or the period is not positive.

    Notes
    -----
    Z = Z_se·Z_N…Z_1·Z_si takes (θ, q) from inside to outside. Y12 = −1/Z12, κ = (T/2π)·|(Z11 − 1)/Z12| and with Z22
    outside. A lag can exceed half a period, so the phase is followed from the steady state (lag 0) down in period.

    References
    ----------
    .. [1] ISO 13786:2017, 7.2 (layer matrix), 7.3 (component), 6.4 and 6.5 (characteristics).
    """
    if not 1e-3 <= period_h < 1e6:
        raise DomainError(
            Issue(
                path=("periodic", "period_h"),
                code="period_not_positive",
                message=f"period is {period_h:g} h",
                hint="24 for a day; from a thousandth of an hour to a million",
            )
        )
    hours = given(period_h, "T_h", "period of the swing", "h", "a day has 24")
    pi = given(math.pi, "pi", "half a turn", "rad", "constant")
    try:
        first, second = _columns(element, hours, pi, given)
    except OverflowError as error:
        raise _too_short(period_h) from error
    R = element.R_si + sum((layer.resistance() for layer in element.layers), 0.0) + element.R_se
    R = named(R, "R_field", "resistance of the field, steady", "m²·K/W", "ISO 6946:2017, 6.7.1.2")
    Z12 = named(_modulus(second[0]), "Z12_abs", "modulus of Z12", "m²·K/W", _CLAUSE)
    Y12 = named(1 / Z12, "Y12", "periodic transmittance", "W/(m²·K)", "ISO 13786:2017, 6.4, Y12 = 1/|Z12|")
    re, im = second[0]
    turns = given(_turns(element, period_h), "turns", "whole turns of phase", "",
                  "phase followed from the steady state down to this period")  # fmt: skip
    phase = named(apply("atan2", -1 * im, -1 * re) + 2 * pi * turns, "phi_lag", "phase of −Z12", "rad", _CLAUSE)
    decrement = named(Y12 * R, "f_dec", "decrement", "", "ISO 13786:2017, 6.4, f = Y12/U0")
    lag = named(phase * hours / (2 * pi), "t_lag", "lag", "h", "ISO 13786:2017, 6.4, Δt = T·φ/2π")
    omega = named(2 * pi / (3600 * hours), "omega", "angular frequency", "1/s", "2π/T")
    capacity = {
        side: named(
            _modulus((one[0] - 1.0, one[1])) / Z12 / omega,
            f"kappa_{side}",
            f"areal heat capacity, {words}",
            "J/(m²·K)",
            "ISO 13786:2017, 6.5, κ = (T/2π)·|(Z − 1)/Z12|",
        )
        for side, one, words in (("i", first[0], "inside"), ("e", second[1], "outside"))
    }
    return Periodic(Y12=Y12, decrement=decrement, lag_h=lag, kappa_i=capacity["i"], kappa_e=capacity["e"])


def _too_short(period_h: float) -> DomainError:
    return DomainError(Issue(path=("periodic", "period_h"), code="period_too_short",
                             message=f"nothing of a swing of {period_h:g} h comes through",
                             hint="a longer period, or a thinner element"))  # fmt: skip


def _turns(element: Element, period_h: float) -> float:
    """Whole turns of the phase of −Z12 above its principal value."""
    periods = cast("float", period_h * _STEPS / np.arange(1, _STEPS + 1))
    _, ((re, im), _) = _columns(_untraced(element), periods, math.pi, plain)
    principal = np.arctan2(*(np.broadcast_to(np.negative(value_of(one)), (_STEPS,)) for one in (im, re)))
    return float(np.round((np.unwrap(principal)[-1] - principal[-1]) / (2 * np.pi)))


def _untraced(element: Element) -> Element:
    """The field of the element in plain numbers."""
    layers = tuple(
        replace(
            layer,
            d=value_of(layer.d),
            parts=tuple(
                replace(
                    part,
                    f=1.0,
                    lambda_=None if part.lambda_ is None else value_of(part.lambda_),
                    R=None if part.R is None else value_of(part.R),
                )
                for part in layer.parts[:1]
            ),
        )
        for layer in element.layers
    )
    return Element(layers=layers, R_si=value_of(element.R_si), R_se=value_of(element.R_se))


def _columns(element: Element, hours: Num, pi: Num, given: Given) -> tuple[_Column, _Column]:
    """Both columns of Z, (Z11, Z21) and (Z12, Z22), from the inner film outwards."""
    columns: list[_Column] = [((1.0, 0.0), (0.0, 0.0)), ((0.0, 0.0), (1.0, 0.0))]
    columns = [_through_resistance(column, element.R_si, at, "si") for at, column in enumerate(columns, 1)]
    for index, layer in enumerate(element.layers):
        tag = layer.tag or str(index + 1)
        if layer.parts[0].R is not None:
            R = layer.resistance()
            columns = [_through_resistance(column, R, at, tag) for at, column in enumerate(columns, 1)]
        else:
            matrix = _matrix(layer, index, tag, hours, pi, given)
            columns = [_through_mass(column, matrix, at, tag) for at, column in enumerate(columns, 1)]
    first, second = (_through_resistance(column, element.R_se, at, "se") for at, column in enumerate(columns, 1))
    return first, second


def _matrix(layer: ElementLayer, index: int, tag: str, hours: Num, pi: Num, given: Given) -> tuple[_Pair, _Pair, _Pair]:
    """M11 = M22, M12 and M21 of a layer with mass."""
    part = layer.parts[0]
    if part.rho is None or part.c is None:
        raise DomainError(
            Issue(
                path=("layers", index),
                code="no_heat_capacity",
                message=f"layer “{layer.name}” has no density or specific heat",
                hint="give rho in kg/m³ and c in J/(kg·K)",
            )
        )
    assert part.lambda_ is not None
    lambda_, source = part.lambda_, "material of the layer"
    rho = given(part.rho, f"rho_{tag}", f"density, {layer.name}", "kg/m³", source)
    c = given(part.c, f"c_{tag}", f"specific heat, {layer.name}", "J/(kg·K)", source)
    depth = apply("sqrt", lambda_ * hours * 3600 / (pi * rho * c))
    depth = named(depth, f"delta_{tag}", f"depth a swing reaches, {layer.name}", "m",
                  f"{_CLAUSE}, δ = √(λT/(πρc))")  # fmt: skip
    xi = named(layer.d / depth, f"xi_{tag}", f"thickness over that depth, {layer.name}", "", f"{_CLAUSE}, ξ = d/δ")
    sinh, cosh, sin, cos = (apply(function, xi) for function in ("sinh", "cosh", "sin", "cos"))
    sc, cs = sinh * cos, cosh * sin
    entries = {
        "11": (cosh * cos, sinh * sin),
        "12": (-1 * depth / (2 * lambda_) * (sc + cs), -1 * depth / (2 * lambda_) * (cs - sc)),
        "21": (-1 * lambda_ / depth * (sc - cs), -1 * lambda_ / depth * (sc + cs)),
    }
    M11, M12, M21 = (
        _name(entry, f"M{at}", tag, f"layer matrix M{at}, {layer.name}", units)
        for (at, entry), units in zip(entries.items(), ("", "m²·K/W", "W/(m²·K)"), strict=True)
    )
    return M11, M12, M21


def _through_resistance(column: _Column, R: Num, number: int, tag: str) -> _Column:
    upper, lower = column
    passed = tuple(_less(a, _times(R, b)) for a, b in zip(upper, lower, strict=True))
    return _name((passed[0], passed[1]), f"Z1{number}", tag, f"Z1{number} behind {tag}", ""), lower


def _through_mass(column: _Column, matrix: tuple[_Pair, _Pair, _Pair], number: int, tag: str) -> _Column:
    (M11, M12, M21), (upper, lower) = matrix, column
    new = (_sum(_product(M11, upper), _product(M12, lower)), _sum(_product(M21, upper), _product(M11, lower)))
    above, below = (
        _name(entry, f"Z{row}{number}", tag, f"Z{row}{number} behind layer {tag}", "")
        for row, entry in enumerate(new, 1)
    )
    return above, below


def _name(pair: _Pair, symbol: str, tag: str, text: str, unit: str) -> _Pair:
    re, im = pair
    return (
        named(re, f"{symbol}_{tag}_re", f"{text}, real part", unit, _CLAUSE),
        named(im, f"{symbol}_{tag}_im", f"{text}, imaginary part", unit, _CLAUSE),
    )


def _product(a: _Pair, b: _Pair) -> _Pair:
    return _less(_times(a[0], b[0]), _times(a[1], b[1])), _plus(_times(a[0], b[1]), _times(a[1], b[0]))


def _sum(a: _Pair, b: _Pair) -> _Pair:
    return _plus(a[0], b[0]), _plus(a[1], b[1])


def _times(a: Num, b: Num) -> Num:
    """The product, without a trace where a factor is nothing."""
    return 0.0 if _nothing(a) or _nothing(b) else a * b


def _plus(a: Num, b: Num) -> Num:
    """The sum, without a trace of what adds nothing."""
    return b if _nothing(a) else a if _nothing(b) else a + b


def _less(a: Num, b: Num) -> Num:
    """The difference, without a trace of what takes nothing away."""
    return a if _nothing(b) else -1 * b if _nothing(a) else a - b


def _nothing(number: Num) -> bool:
    return isinstance(number, float) and number == 0.0


def _modulus(pair: _Pair) -> Num:
    return apply("sqrt", pair[0] * pair[0] + pair[1] * pair[1])

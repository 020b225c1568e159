"""Steady temperatures through the field of an element, with λ(θ) solved together with the flux."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass

from nimble_shell.core.errors import DomainError, Issue, NotConverged
from nimble_shell.core.materials.material import ABSOLUTE_ZERO, ConductivityTable
from nimble_shell.core.quantities.sentence import sentence
from nimble_shell.core.thermal.conductivity import mean_conductivity, theta_behind
from nimble_shell.core.thermal.element import Element, ElementLayer
from nimble_shell.core.working import Given, Num, named, plain, value_of


@dataclass(frozen=True, slots=True, kw_only=True)
class SteadyState:
    """An element between two temperatures."""

    theta_i: Num  #: [°C]
    theta_e: Num  #: [°C]
    theta: tuple[Num, ...]  #: inner surface, interfaces, outer surface [°C]
    R: Num  #: total resistance at these temperatures [m²·K/W]
    q: Num  #: flux towards outside [W/m²]


def steady_state(
    element: Element, theta_i: float, theta_e: float, *, given: Given = plain, key: str = ""
) -> SteadyState:
    """Temperatures, flux and resistance of the field (first parts), with λ(θ) where a layer has a table.

    Parameters
    ----------
    element : Element
        Layers inside → outside with their films.
    theta_i, theta_e : float
        Internal and external temperature. [°C]
    given : Given
        `plain` for figures, `traced` for working.
    key : str
        Suffix of the symbols in the working.

    Returns
    -------
    SteadyState

    Raises
    ------
    DomainError
        If a temperature lies below absolute zero, or nothing resists at all.
    NotConverged
        If the flux was not found.

    Notes
    -----
    One flux crosses every layer. Given the flux, each face temperature follows from the one before by the exact
    inversion of ∫ λ dθ; the flux is the root of θ_e(q) − θ_e, which falls strictly (Brent's method, 1e-14 relative).

    References
    ----------
    .. [1] ISO 6946:2017, 6.7.1 (series); H. S. Carslaw, J. C. Jaeger, Conduction of Heat in Solids, 1.6 (Kirchhoff).
    """
    for name, theta in (("Ti", theta_i), ("Te", theta_e)):
        if not ABSOLUTE_ZERO <= theta < 2000:
            raise DomainError(
                Issue(
                    path=(name,),
                    code="temperature_not_physical",
                    message=sentence("temperature is {v1}", v1=(theta, "temperature")),
                    hint=sentence(
                        "temperatures lie from {v1} up to {v2}", v1=(-273.15, "temperature"), v2=(2000.0, "temperature")
                    ),
                )
            )
    q, thetas = _solve(element, theta_i, theta_e)
    solved: list[Num] = [
        given(
            theta,
            f"theta_{key}{number}",
            f"temperature at plane {number} from inside",
            "°C",
            "solved with the flux, Brent's method to 1e-14",
        )
        for number, theta in enumerate(thetas)
    ]
    total: Num = element.R_si
    for index, layer in enumerate(element.layers):
        total = total + _resistance_between(layer, solved[index], solved[index + 1], key)
    total = named(
        total + element.R_se,
        f"R_{key or 'theta'}",
        "total resistance with λ(θ)",
        "m²·K/W",
        "ISO 6946:2017, 6.7.1.2, with λ averaged over each layer's own temperatures",
    )
    ti = given(theta_i, f"theta_i{key and '_' + key}", "internal temperature", "°C", "Basis or case")
    te = given(theta_e, f"theta_e{key and '_' + key}", "external temperature", "°C", "Basis or case")
    flux = named((ti - te) / total, f"q{key and '_' + key}", "heat flux towards outside", "W/m²", "q = (θi − θe)/R")
    if abs(value_of(flux) - q) > 1e-7 * max(1.0, abs(q)):
        raise NotConverged(100, value_of(flux) - q)
    return SteadyState(theta_i=ti, theta_e=te, theta=tuple(solved), R=total, q=flux)


def temperatures_by_share(element: Element, state: SteadyState, key: str = "") -> list[Num]:
    """Face temperatures from the shares of resistance crossed, for the working. [°C]

    Parameters
    ----------
    element : Element
    state : SteadyState
        The solved state of the same element.
    key : str
        Suffix of the symbols, as given to `steady_state`.
    """
    crossed: Num = element.R_si
    result: list[Num] = []
    for number in range(len(element.layers) + 1):
        result.append(
            named(
                state.theta_i - state.q * crossed,
                f"theta_at_{number}",
                f"temperature at plane {number} from inside",
                "°C",
                "ISO 13788:2012, 6.3: θ falls with the resistance crossed",
            )
        )
        if number < len(element.layers):
            layer = element.layers[number]
            crossed = crossed + _resistance_between(layer, state.theta[number], state.theta[number + 1], key)
    return result


def _resistance_between(layer: ElementLayer, theta_a: Num, theta_b: Num, key: str) -> Num:
    part = layer.parts[0]
    if not part.table or part.R is not None:
        return layer.resistance()
    lambda_ = named(
        mean_conductivity(part.table, theta_a, theta_b),
        f"lambda_{key}{layer.tag}",
        f"mean conductivity of {layer.name} between its faces",
        "W/(m·K)",
        "(1/Δθ)·∫ λ dθ over the λ(θ) table",
    )
    return named(
        layer.d / lambda_,
        f"R_{key}{layer.tag}",
        f"resistance, {layer.name}",
        "m²·K/W",
        "ISO 6946:2017, 6.7.1.1, R = d/λ",
    )


def _crossed(element: Element) -> list[tuple[ConductivityTable | None, float]]:
    """Of each layer's field λ(θ) and thickness [m], or None and its resistance [m²·K/W]."""
    found: list[tuple[ConductivityTable | None, float]] = []
    for layer in element.layers:
        part = layer.parts[0]
        own = bool(part.table) and part.R is None
        found.append((part.table, value_of(layer.d)) if own else (None, value_of(layer.resistance())))
    return found


def _march(
    R_si: float, layers: Sequence[tuple[ConductivityTable | None, float]], theta_i: float, q: float
) -> list[float]:
    theta = theta_i - q * R_si
    faces = [theta]
    for table, over in layers:
        theta = theta - q * over if table is None else theta_behind(table, theta, q, over)
        faces.append(theta)
    return faces


def _solve(element: Element, theta_i: float, theta_e: float) -> tuple[float, list[float]]:
    if theta_i == theta_e:
        return 0.0, [theta_i] * (len(element.layers) + 1)
    R_si, R_se, layers = value_of(element.R_si), value_of(element.R_se), _crossed(element)
    least = most = R_si + R_se
    for table, over in layers:
        if table is None:
            least, most = least + over, most + over
        else:
            values = [row[1] for row in table]
            least, most = least + over / max(values), most + over / min(values)
    if not least > 0:
        raise DomainError(
            Issue(
                path=("layers",),
                code="nothing_resists",
                message="the total resistance is zero",
                hint="give at least one layer or film a resistance",
            )
        )
    span = theta_i - theta_e
    if most - least < 1e-15 * most:
        q = span / least
        return q, _march(R_si, layers, theta_i, q)

    def miss(q: float) -> float:
        return _march(R_si, layers, theta_i, q)[-1] - q * R_se - theta_e

    a, b = sorted((span / most * (1 - 1e-12), span / least * (1 + 1e-12)))
    from scipy.optimize import brentq  # not for every start

    q, report = brentq(miss, a, b, xtol=1e-14, rtol=4 * 2.3e-16, maxiter=200, full_output=True)
    if not report.converged:
        raise NotConverged(report.iterations, miss(q))
    return q, _march(R_si, layers, theta_i, q)

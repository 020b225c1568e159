"""The neutral wall case of the command line: plain JSON in, plain JSON out, lengths in metres, SI throughout.

A layer is homogeneous (`d`, `lambda`), a given resistance (`R`), bridged (`d`, `parts`, `group`) or has a
temperature table (`d`, `lambda_T`). Unknown keys are refused by name.
"""

from __future__ import annotations

from typing import Any, Literal

from pydantic import Field

from nimble_shell.core.errors import Collector, DomainError, Issue
from nimble_shell.core.thermal.conductivity import conductivity_at
from nimble_shell.core.thermal.element import LABEL_MEAN, Element, ElementLayer, Part
from nimble_shell.core.thermal.fasteners import Fasteners, fastener_correction
from nimble_shell.core.thermal.periodic import periodic
from nimble_shell.core.thermal.resistance import resistances
from nimble_shell.core.thermal.temperature import steady_state
from nimble_shell.core.working import value_of
from nimble_shell.formats.strict import Number, Strict

_HOW_LAYER = "give d with lambda, lambda_T or parts, or give R alone"


class PartCase(Strict):
    f: Number
    lambda_: Number | None = Field(None, alias="lambda")
    lambda_T: list[tuple[Number, Number]] | None = None
    R: Number | None = None


class LayerCase(Strict):
    name: str = ""
    d: Number | None = None
    lambda_: Number | None = Field(None, alias="lambda")
    lambda_T: list[tuple[Number, Number]] | None = None
    R: Number | None = None
    parts: list[PartCase] | None = None
    group: str = ""
    rho: Number | None = None
    c: Number | None = None


class FilmsCase(Strict):
    Rsi: Number
    Rse: Number


class TemperatureCase(Strict):
    name: str
    Ti: Number
    Te: Number


class FastenersCase(Strict):
    n: Number
    lambda_: Number = Field(alias="lambda")
    A: Number
    d0: Number
    d1: Number
    layer: int


class PeriodicCase(Strict):
    period_h: Number


class WallCase(Strict):
    """A wall in the neutral format."""

    kind: Literal["wall"]
    layers: list[LayerCase]
    films: FilmsCase
    temperatures: list[TemperatureCase] = []
    fasteners: FastenersCase | None = None
    periodic: PeriodicCase | None = None

    def to_core(self) -> Element:
        """The element to calculate.

        Raises
        ------
        DomainError
            With the path of every layer that is incomplete or not physical.
        """
        check = Collector()
        layers: list[ElementLayer] = []
        for index, layer in enumerate(self.layers):
            try:
                layers.append(layer_of(layer, index))
            except DomainError as error:
                check.add(error.under("layers", index).issues)
        seen: set[str] = set()
        for index, case in enumerate(self.temperatures):
            check.check(
                case.name not in seen,
                ("temperatures", index, "name"),
                "name_taken",
                f"“{case.name}” stands twice",
                "give every pair of temperatures a name of its own",
            )
            seen.add(case.name)
        check.refuse()
        return Element(layers=tuple(layers), R_si=self.films.Rsi, R_se=self.films.Rse)


def compute(case: WallCase) -> dict[str, Any]:
    """Results of a neutral wall case, in the neutral output format; R and U are totals with films.

    Raises
    ------
    DomainError
        If the case is not physical, with the path into the case.
    """
    element = case.to_core()
    total = resistances(element)
    R = {kind: value_of(getattr(total, kind)) for kind in ("nominal", "parallel", "isothermal", "combined")}
    if not min(R.values()) > 0:
        raise DomainError(
            Issue(
                path=("layers",),
                code="nothing_resists",
                message="the total resistance is zero",
                hint="give at least one layer or film a resistance",
            )
        )
    result: dict[str, Any] = {
        "R": R,
        "U": {kind: 1 / value for kind, value in R.items()},
        "error_e": value_of(total.error_e),
    }
    if case.temperatures:
        result["at"] = _between(case, element)
    if case.fasteners:
        result["delta_U_f"] = fastener_correction(element, Fasteners(**case.fasteners.model_dump()))
    if case.periodic:
        found = periodic(element, case.periodic.period_h)
        figures = ("Y12", "decrement", "lag_h", "kappa_i", "kappa_e")
        result["periodic"] = {name: value_of(getattr(found, name)) for name in figures}
    return result


def _between(case: WallCase, element: Element) -> dict[str, Any]:
    """R, U and temperatures at every pair of temperatures, by name."""
    found = {}
    for index, pair in enumerate(case.temperatures):
        try:
            state = steady_state(element, pair.Ti, pair.Te)
        except DomainError as error:
            raise error.under("temperatures", index) from error
        R = value_of(state.R)
        found[pair.name] = {"R": R, "U": 1 / R, "theta": [value_of(theta) for theta in state.theta]}
    return found


def layer_of(case: LayerCase, index: int) -> ElementLayer:
    """One layer of the case; `index` tags it. Raises DomainError with the path inside the layer."""
    given = [name for name in ("lambda_", "lambda_T", "R", "parts") if getattr(case, name) is not None]
    if len(given) != 1 or (case.R is None and case.d is None):
        have = ", ".join(name.rstrip("_") for name in given) or "nothing"
        message = f"the layer has {have}{'' if case.d is None else ' and d'}"
        raise DomainError(Issue(path=(), code="layer_incomplete", message=message, hint=_HOW_LAYER))
    parts = _parts(case)
    for name, value in (("rho", case.rho), ("c", case.c)):
        if value is not None and not value > 0:
            raise DomainError(
                Issue(path=(name,), code="not_positive", message=f"{name} is {value}", hint="it is above zero")
            )
    return ElementLayer(
        name=case.name or f"layer {index}", d=case.d or 0.0, parts=parts, group=case.group, tag=str(index)
    )


def _parts(case: LayerCase) -> tuple[Part, ...]:
    if case.parts is None:
        return (_part(case, 1.0, case.rho, case.c),)
    if not case.parts:
        raise DomainError(Issue(path=("parts",), code="no_parts", message="there are no parts",
                                hint="give at least one part with f and lambda"))  # fmt: skip
    check = Collector()
    for number, part in enumerate(case.parts):
        given = sum(value is not None for value in (part.lambda_, part.lambda_T, part.R))
        check.check(given == 1, ("parts", number), "part_incomplete", "the part has no single conductivity",
                    "give one of lambda, lambda_T or R")  # fmt: skip
    check.refuse()
    return tuple(_part(part, part.f, case.rho, case.c) for part in case.parts)


def _part(case: LayerCase | PartCase, f: float, rho: float | None, c: float | None) -> Part:
    table = tuple(case.lambda_T or ())
    if case.lambda_T is not None and not table:
        raise DomainError(
            Issue(
                path=("lambda_T",),
                code="empty_table",
                message="the λ(T) table is empty",
                hint="give at least one row [°C, W/(m·K)]",
            )
        )
    lambda_ = value_of(conductivity_at(table, LABEL_MEAN)) if table else case.lambda_
    return Part(f=f, lambda_=lambda_, table=table, R=case.R, rho=rho, c=c)

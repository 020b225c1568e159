"""The neutral moisture cases of the command line: by month (ISO 13788) and by hour (EN 15026); SI throughout."""

from __future__ import annotations

import time
from typing import Any, Literal

import numpy as np
from pydantic import Field

from nimble_shell.core.errors import Collector, DomainError, Issue
from nimble_shell.core.moisture.hourly import probe, transport
from nimble_shell.core.moisture.monthly import condensation
from nimble_shell.core.moisture.monthly.surface import critical_month, f_rsi_required
from nimble_shell.core.quantities.sentence import sentence
from nimble_shell.core.thermal.element import Element
from nimble_shell.core.thermal.films import R_SI_SURFACE
from nimble_shell.core.thermal.vapour import DELTA_0
from nimble_shell.core.working import value_of
from nimble_shell.formats.neutral_wall import FilmsCase, LayerCase, layer_of
from nimble_shell.formats.strict import Number, Strict

_R_SE = 0.04  #: at the outer surface of the factor [m²·K/W]
TOLERANCE = 0.3  #: of a step: finer than on the bench, where a year has to be there in a second
MOST_VALUES = 4_000_000  #: hours times cells that are kept for probes


class MonthlyLayer(LayerCase):
    mu: Number | None = None
    sd: Number | None = None


class MonthCase(Strict):
    Te: Number
    phi_e: Number
    Ti: Number
    phi_i: Number


class MonthlyCase(Strict):
    """An element by month in the neutral format."""

    kind: Literal["moisture_monthly"]
    layers: list[MonthlyLayer]
    films: FilmsCase
    delta_0: Number = DELTA_0
    max_R: Number = condensation.MAX_R
    months: list[MonthCase]

    def plies(self) -> list[condensation.MonthlyLayer]:
        """Layers by their first parts.

        Raises
        ------
        DomainError
            With the path of every layer that is incomplete or not physical.
        """
        check, layers = Collector(), []
        for at, case in enumerate(self.layers):
            try:
                layers.append((case, layer_of(case, at), _sd(case)))
            except DomainError as error:
                check.add(error.under("layers", at).issues)
        check.refuse()
        element = tuple(layer for _, layer, _ in layers)
        Element(layers=element, R_si=self.films.Rsi, R_se=self.films.Rse)  # refuses what cannot be
        return [
            condensation.MonthlyLayer(d=case.d or 0.0, R=value_of(layer.resistance()), sd=sd)
            for case, layer, sd in layers
        ]


class HourlyLayer(Strict):
    d: Number
    material: Literal["en15026"] | None = None
    rho: Number | None = None
    c: Number | None = None
    lambda_: Number | None = Field(None, alias="lambda")
    lambda_w: Number = 0.0
    lambda_theta: Number = 0.0
    mu: Number | list[tuple[Number, Number]] | None = None
    sorption: list[tuple[Number, Number]] | None = None
    Dw: list[tuple[Number, Number]] | None = None

    def slab(self) -> transport.Slab:
        """The layer.

        Raises
        ------
        DomainError
            If it is incomplete.
        """
        if self.material:
            return transport.Slab(stuff=transport.BENCHMARK, d=self.d)
        missing = [name.rstrip("_") for name in ("rho", "c", "lambda_", "mu") if getattr(self, name) is None]
        if missing:
            raise DomainError(Issue(path=(), code="layer_incomplete", message=f"the layer lacks {', '.join(missing)}",
                                    hint="give rho, c, lambda and mu, or a material"))  # fmt: skip
        mu = tuple(self.mu) if isinstance(self.mu, list) else ((0.5, float(self.mu or 0.0)),)
        stuff = transport.Stuff(
            rho=self.rho or 0.0, c=self.c or 0.0, lambda_=self.lambda_ or 0.0, lambda_w=self.lambda_w,
            lambda_theta=self.lambda_theta, mu=mu, sorption=None if self.sorption is None else tuple(self.sorption),
            Dw=None if self.Dw is None else tuple(self.Dw),
        )  # fmt: skip
        return transport.Slab(stuff=stuff, d=self.d)


class HourlyFilms(Strict):
    h_i: Number
    beta_i: Number
    h_e: Number
    beta_e: Number


class InitialCase(Strict):
    theta: Number
    phi: Number


Hour = tuple[Number, Number, Number, Number]


class ClimateCase(Strict):
    hours: list[Hour] | None = None
    repeat: int = Field(1, ge=1, le=50)
    constant: Hour | None = None
    hours_total: int | None = None


class ProbeCase(Strict):
    name: str
    x: Number


class HourlyCase(Strict):
    """An element by hour in the neutral format."""

    kind: Literal["moisture_hourly"]
    layers: list[HourlyLayer]
    films: HourlyFilms | None
    initial: InitialCase
    climate: ClimateCase
    probes: list[ProbeCase] = []
    output_hours: list[int] | None = None


def read(case: dict[str, Any]) -> MonthlyCase | HourlyCase:
    """A case of either kind. Raises ValidationError."""
    kind = MonthlyCase if case.get("kind") == "moisture_monthly" else HourlyCase
    return kind.model_validate(case)


def compute(case: MonthlyCase | HourlyCase) -> dict[str, Any]:
    """Results in the neutral output format.

    Raises
    ------
    DomainError
        If the case is not physical, with the path into the case.
    """
    return _monthly(case) if isinstance(case, MonthlyCase) else _hourly(case)


def _monthly(case: MonthlyCase) -> dict[str, Any]:
    planes = condensation.planes_of(case.plies(), case.films.Rsi, case.films.Rse, case.max_R)
    months = [condensation.Month(theta_e=m.Te, phi_e=m.phi_e, theta_i=m.Ti, phi_i=m.phi_i) for m in case.months]
    found = condensation.year(planes, months, case.delta_0)
    R = float(planes.R[-1] - planes.R[0])
    required = [f_rsi_required(month) for month in months]
    critical = critical_month(required)
    return {
        "start_month": None if found.start is None else found.start + 1,
        "interfaces": [
            {
                "x": float(planes.x[at + 1]),
                "months": [
                    {"g": float(g), "Ma": float(M)} for g, M in zip(found.g[:, at], found.M[:, at], strict=True)
                ],
            }
            for at in found.wet
        ],
        "peak_Ma": found.peak,
        "dries": found.dries,
        "f_rsi": 1 - R_SI_SURFACE / (R_SI_SURFACE + R + _R_SE),
        "f_rsi_required": required,
        "critical_month": None if critical is None else critical + 1,
    }


def _hourly(case: HourlyCase) -> dict[str, Any]:
    check, slabs = Collector(), []
    for at, layer in enumerate(case.layers):
        try:
            slabs.append(layer.slab())
        except DomainError as error:
            check.add(error.under("layers", at).issues)
    check.check(bool(case.layers), ("layers",), "no_layers", "there are no layers", "add at least one layer")
    climate = case.climate
    one_way = (climate.hours is None) != (climate.constant is None)
    check.check(one_way and (climate.constant is None or climate.hours_total is not None), ("climate",),
                "climate_unclear", "the climate is not one of its two forms",
                "give hours with repeat, or constant with hours_total")  # fmt: skip
    check.check(0 < case.initial.phi <= 1, ("initial", "phi"), "humidity_out_of_range",
                f"relative humidity is {case.initial.phi}", "above 0 and up to 1")  # fmt: skip
    check.check(
        -90 <= case.initial.theta <= 120,
        ("initial", "theta"),
        "temperature_not_physical",
        sentence("temperature is {v1}", v1=(case.initial.theta, "temperature")),
        sentence("from {v1} to {v2}", v1=(-90.0, "temperature"), v2=(120.0, "temperature")),
    )
    check.refuse()
    rows = np.array([climate.constant] if climate.constant is not None else climate.hours or [], dtype=float)
    rows = rows.reshape(-1, 4)
    total = (climate.hours_total or 0) if climate.constant is not None else len(rows) * climate.repeat
    boundaries = transport.Boundaries(theta_e=rows[:, 0], p_e=rows[:, 1], theta_i=rows[:, 2], p_i=rows[:, 3])
    films = transport.Films(prescribed=True) if case.films is None else transport.Films(**case.films.model_dump())
    grid = transport.cells(slabs, **_fine(slabs))
    wanted = range(1, total + 1) if case.output_hours is None else [h for h in case.output_hours if 0 < h <= total]
    keep = wanted if case.probes else []
    if len(keep) * len(grid.dx) > MOST_VALUES:
        raise DomainError(Issue(path=("output_hours",), code="output_too_large",
                                message=f"{len(keep)} hours of {len(grid.dx)} cells are asked for",
                                hint="name fewer output_hours"))  # fmt: skip
    began = time.perf_counter()
    run = transport.run(
        slabs,
        films,
        boundaries,
        case.initial.theta,
        case.initial.phi,
        total,
        transport.RunOptions(keep=keep, grid=grid, tolerance=TOLERANCE),
    )
    seconds = time.perf_counter() - began
    probes = {}
    for at, one in enumerate(case.probes):
        try:
            trace = probe.at(run, one.x)
        except DomainError as error:
            raise error.under("probes", at) from error
        probes[one.name] = {"hour": run.hours.tolist(), "theta": trace.theta.tolist(), "phi": trace.phi.tolist(),
                            "w": trace.w.tolist()}  # fmt: skip
    last = run.totals[-min(len(run.totals), transport.HOURS_A_YEAR) :]
    return {
        "probes": probes,
        "layers": {"start": run.totals[0].tolist(), "end": run.totals[-1].tolist(),
                   "max_last_year": last.max(axis=0).tolist()},
        "balance_error": run.balance_error,
        "steps": run.steps,
        "seconds": seconds,
    }  # fmt: skip


def _fine(slabs: list[transport.Slab]) -> dict[str, float]:
    """Fine cells; in very thick layers, as half-spaces are given, they grow gently but without limit."""
    if max((slab.d for slab in slabs), default=0.0) <= 1.5:
        return {"finest": 0.0005, "growth": 1.2}
    return {"finest": 0.0005, "growth": 1.06, "coarsest": 1.0}


def _sd(case: MonthlyLayer) -> float:
    if (case.mu is None) == (case.sd is None) or (case.mu is not None and case.d is None):
        raise DomainError(Issue(path=(), code="vapour_resistance_unclear",
                                message="the layer has no single vapour resistance",
                                hint="give mu with d, or sd alone"))  # fmt: skip
    if case.mu is not None and not case.mu > 0:
        raise DomainError(Issue(path=("mu",), code="mu_not_positive", message=f"μ is {case.mu}",
                                hint="still air has 1"))  # fmt: skip
    return case.sd if case.sd is not None else (case.mu or 0.0) * (case.d or 0.0)

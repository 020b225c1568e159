"""Plane elements: resistances, bridges, fasteners, periodic behaviour, climate, foam studies."""

from __future__ import annotations

import math
from collections.abc import Iterator

import numpy as np
from scipy.linalg import solve_banded

from nimble_shell.core.assemblies.systems import SYSTEMS
from nimble_shell.core.basis.basis import Basis
from nimble_shell.core.basis.stations import Direction
from nimble_shell.core.basis.targets import Targets
from nimble_shell.core.climate import INVENTED, heating_degree_hours, hourly_temperature, p_sat
from nimble_shell.core.materials import CATALOGUE
from nimble_shell.core.studies.variants import decide
from nimble_shell.core.thermal.air import air_layer_resistance
from nimble_shell.core.thermal.element import Element, ElementLayer, Part
from nimble_shell.core.thermal.fasteners import Fasteners, fastener_correction
from nimble_shell.core.thermal.figures import wall_figures
from nimble_shell.core.thermal.films import films
from nimble_shell.core.thermal.periodic import periodic
from nimble_shell.core.thermal.resistance import resistances
from nimble_shell.core.thermal.temperature import steady_state
from nimble_shell.core.working import value_of
from nimble_shell.references.rows import Row


def rows() -> list[Row]:
    """References of plane elements and their climate."""
    return [
        *_air_layers(),
        *_film_sets(),
        *_saturation(),
        *_bridged(),
        *_fasteners(),
        *_variable_conductivity(),
        *_periodic(),
        *_in_time(),
        *_degree_hours(),
        *_sweeps(),
    ]


def _air_layers() -> Iterator[Row]:
    #: ISO 6946:2017, table 8: unventilated layers between faces of high emissivity; printed to two decimals.
    printed: dict[Direction, dict[int, float]] = {
        "up": {5: 0.11, 7: 0.13, 10: 0.15, 15: 0.16, 25: 0.16, 50: 0.16, 100: 0.16, 300: 0.16},
        "horizontal": {5: 0.11, 7: 0.13, 10: 0.15, 15: 0.17, 25: 0.18, 50: 0.18, 100: 0.18, 300: 0.18},
        "down": {5: 0.11, 7: 0.13, 10: 0.15, 15: 0.17, 25: 0.19, 50: 0.21, 100: 0.22, 300: 0.23},
    }
    for direction, column in printed.items():
        for depth, R in column.items():
            ours = value_of(air_layer_resistance(depth / 1000, 0.9, 0.9, direction=direction))
            yield Row(name=f"air layer {depth} mm, heat flow {direction} [m²·K/W]", source="ISO 6946:2017, table 8",
                      reference=R, ours=ours, tolerance=0.0051)  # fmt: skip


def _film_sets() -> Iterator[Row]:
    for direction, R_si in (("horizontal", 0.13), ("up", 0.10), ("down", 0.17)):
        yield Row(name=f"R_si, heat flow {direction} [m²·K/W]", source="ISO 6946:2017, table 7", reference=R_si,
                  ours=films("iso6946", direction).R_si, tolerance=0.0)  # type: ignore[arg-type]  # fmt: skip


def _saturation() -> Iterator[Row]:
    # Measured values; the standard's formula is an approximation, within 0.3 % above −10 °C and 0.5 % below.
    for theta, p in ((0.01, 611.657), (10.0, 1228.2), (20.0, 2339.3), (30.0, 4247.0), (-10.0, 259.9), (-20.0, 103.2)):
        yield Row(name=f"saturation pressure at {theta:g} °C [Pa]", source="IAPWS formulations", reference=p,
                  ours=value_of(p_sat(theta)), tolerance=(0.003 if theta >= -10 else 0.005) * p)  # fmt: skip


def _bridged() -> Iterator[Row]:
    field, stud = Part(f=0.85, lambda_=0.035), Part(f=0.15, lambda_=0.13)
    layers = (
        ElementLayer(name="board", d=0.0125, parts=(Part(lambda_=0.25),)),
        ElementLayer(name="studs", d=0.14, parts=(field, stud)),
        ElementLayer(name="sheathing", d=0.012, parts=(Part(lambda_=0.13),)),
    )
    found = resistances(Element(layers=layers, R_si=0.13, R_se=0.04))
    rest = 0.13 + 0.05 + 0.012 / 0.13 + 0.04
    upper = 1 / (0.85 / (rest + 4.0) + 0.15 / (rest + 0.14 / 0.13))
    lower = rest + 1 / (0.85 / 4.0 + 0.15 / (0.14 / 0.13))
    for name, reference, ours in (
        ("nominal", 4.312307692307692, found.nominal), ("upper limit", upper, found.parallel),
        ("lower limit", lower, found.isothermal), ("combined", (upper + lower) / 2, found.combined),
    ):  # fmt: skip
        yield Row(name=f"framed wall, {name} [m²·K/W]", source="hand calculation, ISO 6946:2017, 6.7.2",
                  reference=reference, ours=value_of(ours), tolerance=1e-12)  # fmt: skip


def _variable_conductivity() -> Iterator[Row]:
    # λ = a + bθ between fixed face temperatures: q = (a + b·θm)·Δθ/d exactly.
    a, b, d = 0.030, 0.0002, 0.1
    part = Part(lambda_=a + 10 * b, table=((-40.0, a - 40 * b), (60.0, a + 60 * b)))
    element = Element(layers=(ElementLayer(name="foam", d=d, parts=(part,)),), R_si=0.0, R_se=0.0)
    state = steady_state(element, 20.0, -10.0)
    yield Row(name="flux with λ linear in θ [W/m²]", source="analytic (Kirchhoff)", reference=(a + b * 5.0) * 30 / d,
              ours=value_of(state.q), tolerance=1e-10)  # fmt: skip


def _periodic() -> Iterator[Row]:
    # A homogeneous slab without films: |Z12| = (d/λ)·|sinh γ/γ| with γ = (1+j)·d/δ.
    d, lambda_, rho, c, period = 0.2, 1.8, 2400.0, 1000.0, 86400.0
    part = Part(lambda_=lambda_, rho=rho, c=c)
    found = periodic(Element(layers=(ElementLayer(name="slab", d=d, parts=(part,)),), R_si=0.0, R_se=0.0), 24.0)
    xi = d / math.sqrt(lambda_ * period / (math.pi * rho * c))
    real, imaginary = math.sinh(xi) * math.cos(xi), math.cosh(xi) * math.sin(xi)
    Z12 = d / lambda_ * math.hypot(real, imaginary) / (math.sqrt(2) * xi)
    yield Row(name="periodic transmittance of a slab [W/(m²·K)]", source="ISO 13786:2017, 7.2, by hand",
              reference=1 / Z12, ours=value_of(found.Y12), tolerance=1e-9)  # fmt: skip
    lag = (math.atan2(imaginary, real) - math.pi / 4) * 24 / (2 * math.pi)
    yield Row(name="lag of a slab [h]", source="ISO 13786:2017, 7.2, by hand", reference=lag,
              ours=value_of(found.lag_h), tolerance=1e-9)  # fmt: skip


def _fasteners() -> Iterator[Row]:
    # four stainless screws of 6 mm through 140 mm of foam, in a wall of 4.3123 m²·K/W
    layers = (
        ElementLayer(name="board", d=0.0125, parts=(Part(lambda_=0.25),)),
        ElementLayer(name="foam", d=0.14, parts=(Part(lambda_=0.035),)),
        ElementLayer(name="sheathing", d=0.012, parts=(Part(lambda_=0.13),)),
    )
    element = Element(layers=layers, R_si=0.13, R_se=0.04)
    area = math.pi * 0.003**2
    ours = fastener_correction(element, Fasteners(n=4, lambda_=17, A=area, d0=0.14, d1=0.14, layer=1))
    R_tot = 0.13 + 0.05 + 4.0 + 0.012 / 0.13 + 0.04
    yield Row(name="ΔU of four screws [W/(m²·K)]", source="ISO 6946:2017, annex F, F.3, by hand",
              reference=0.8 * 17 * area * 4 / 0.14 * (4.0 / R_tot) ** 2, ours=ours, tolerance=1e-12)  # fmt: skip


def _in_time() -> Iterator[Row]:
    # A wall of foam on concrete, marched through ten days by Crank and Nicolson in 60 cells a layer.
    pieces = ((0.10, 0.035, 20.0, 1450.0), (0.15, 2.3, 2350.0, 1000.0))
    layers = tuple(
        ElementLayer(name=f"layer {n}", d=d, parts=(Part(lambda_=lambda_, rho=rho, c=c),))
        for n, (d, lambda_, rho, c) in enumerate(pieces)
    )
    found = periodic(Element(layers=layers, R_si=0.13, R_se=0.04), 24.0)
    swing, lag = _march(pieces, 0.13, 0.04, cells=60, steps=720, days=10)
    source = "finite volumes in time, an independent run"
    yield Row(name="periodic transmittance, foam on concrete [W/(m²·K)]", source=source, reference=swing,
              ours=value_of(found.Y12), tolerance=0.005 * swing)  # fmt: skip
    yield Row(
        name="lag, foam on concrete [h]", source=source, reference=lag, ours=value_of(found.lag_h), tolerance=0.05
    )


Pieces = tuple[tuple[float, float, float, float], ...]  #: d, λ, ρ, c of each layer


def _march(pieces: Pieces, R_si: float, R_se: float, *, cells: int, steps: int, days: int) -> tuple[float, float]:
    """Swing of the inside flux per kelvin of swing outside [W/(m²·K)], and its lag [h]."""
    capacity: list[float] = []
    R = [R_si]
    for d, lambda_, rho, c in pieces:
        half = d / cells / 2 / lambda_
        for _ in range(cells):
            R[-1] += half
            capacity.append(rho * c * d / cells)
            R.append(half)
    R[-1] += R_se
    G = 1 / np.array(R)
    heat = np.array(capacity) / (86400.0 / steps)
    bands = np.zeros((3, len(heat)))
    bands[0, 1:] = bands[2, :-1] = -0.5 * G[1:-1]
    bands[1] = heat + 0.5 * (G[:-1] + G[1:])
    theta = np.zeros(len(heat))
    angle = 2 * np.pi * np.arange(steps + 1) / steps
    flux = np.zeros(steps)
    for _ in range(days):
        for step in range(steps):
            right = (heat - 0.5 * (G[:-1] + G[1:])) * theta
            right[:-1] += 0.5 * G[1:-1] * theta[1:]
            right[1:] += 0.5 * G[1:-1] * theta[:-1]
            right[-1] += 0.5 * G[-1] * (np.cos(angle[step]) + np.cos(angle[step + 1]))
            theta = solve_banded((1, 1), bands, right)
            flux[step] = G[0] * theta[0]
    answer = 2 / steps * np.sum(flux * np.exp(-1j * angle[1:]))
    return float(abs(answer)), float(-np.angle(answer) % (2 * np.pi) * 24 / (2 * np.pi))


def _degree_hours() -> Iterator[Row]:
    for climate in INVENTED.values():
        monthly = climate.monthly()
        hours = hourly_temperature(monthly)
        summed = float(np.where(hours < 15, 20 - hours, 0.0).sum())
        yield Row(name=f"heating degree hours, {climate.key} [K·h/a]", source="sum over the hours of the formula",
                  reference=summed, ours=heating_degree_hours(monthly, 20.0, 15.0),
                  tolerance=max(0.02 * summed, 300.0))  # fmt: skip
        cool = float(np.maximum(0 - hours, 0.0).sum())
        yield Row(name=f"heating degree hours of a room at 0 °C, {climate.key} [K·h/a]",
                  source="sum over the hours colder than the room", reference=cool,
                  ours=heating_degree_hours(monthly, 0.0, 15.0), tolerance=max(0.04 * cool, 300.0))  # fmt: skip


def _sweeps() -> Iterator[Row]:
    basis = Basis(targets=Targets(R_wall=5.6))
    for key in ("sip", "mesh-mortar", "icf"):
        wall = SYSTEMS[key].assembly("w", "W")
        own = decide(wall, CATALOGUE, basis, (), asked=5.6).cores[0]
        thickness = float(own.d[-1])
        single = wall_figures(wall.with_core(thickness), CATALOGUE, basis, "0").figures
        for column, figure in (("R_winter", "R_winter_clear"), ("money", "money")):
            reference = value_of(single[figure].number)
            yield Row(name=f"{key} at {1000 * thickness:.0f} mm, {column}", source="the single wall against the sweep",
                      reference=reference, ours=float(own.columns[column][-1]), tolerance=1e-9 * reference)  # fmt: skip

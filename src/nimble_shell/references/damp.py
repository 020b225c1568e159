"""Liquid and latent heat by formula, the order in time, leaks by hand, mould and sun by published points."""

from __future__ import annotations

import math
from dataclasses import replace

import numpy as np
from numpy.typing import NDArray

from nimble_shell.core.assemblies.systems import SYSTEMS
from nimble_shell.core.basis.basis import Basis
from nimble_shell.core.basis.site import Site
from nimble_shell.core.climate.monthly import MonthlyClimate
from nimble_shell.core.materials import CATALOGUE
from nimble_shell.core.moisture.hourly import cell_state
from nimble_shell.core.moisture.hourly.hygric import stuff_of
from nimble_shell.core.moisture.hourly.life import Life
from nimble_shell.core.moisture.hourly.mould import mould_index
from nimble_shell.core.moisture.hourly.outdoors import Exposure, sun_on
from nimble_shell.core.moisture.hourly.probe import at
from nimble_shell.core.moisture.hourly.seasons import seasons
from nimble_shell.core.moisture.hourly.transport import Boundaries, Films, RunOptions, Slab, Stuff, cells, run
from nimble_shell.core.moisture.monthly.element import element_planes, months_of
from nimble_shell.core.moisture.monthly.leak import R_V, Leak, flow, leak_year, pressure, skin_plane
from nimble_shell.references.moisture import LINEAR, constant, saturated
from nimble_shell.references.rows import Row

FloatArray = NDArray[np.float64]

_W_F, _D = 200.0, 2e-9  #: of a body that drinks [kg/m³], [m²/s]
#: Holds much near saturation, and carries liquid with a constant diffusivity.
_DRINKS = Stuff(rho=1500.0, c=1000.0, lambda_=1000.0, mu=((0.5, 1e6),), sorption=((0.0, 0.0), (1.0, _W_F)),
                Dw=((0.0, _D), (_W_F, _D)))  # fmt: skip


def soaked(hours: int, stuff: Stuff = _DRINKS) -> float:
    """Water that a deep body takes up whose surface is held near saturation. [kg/m²]"""
    p = saturated(20.0)
    slab = Slab(stuff=stuff, d=0.4)
    ours = run(
        [slab],
        Films(prescribed=True),
        constant(20.0, 1e-4 * p, 20.0, 0.9 * p),
        20.0,
        1e-4,
        hours,
        RunOptions(keep=[], grid=cells([slab], 0.0004, 1.06, 0.01)),
    )
    return float(ours.totals[-1].sum() - ours.totals[0].sum())


def _liquid_rows() -> list[Row]:
    taken = [0.9 * _W_F * 2 * math.sqrt(_D * 3600 * hours / math.pi) for hours in (24, 240)]
    found = [
        Row(name=f"liquid: drunk in {hours} h [kg/m²]", source="half-space, 2·w·√(D·t/π)", reference=true,
            ours=soaked(hours), tolerance=0.01 * true)
        for hours, true in zip((24, 240), taken, strict=True)
    ]  # fmt: skip
    without = soaked(240, replace(_DRINKS, Dw=None)) / taken[1]
    found.append(Row(name="liquid: what is left of it without the term", source="vapour alone, μ 10⁶", reference=0.0,
                     ours=without, tolerance=0.05))  # fmt: skip
    return found


def _latent_rows() -> list[Row]:
    """A moist board in dry air, warm on neither side by anything else: it cools until heat and evaporation agree."""
    p = saturated(20.0)
    h, beta, phi_air = 12.0, 7e-8, 0.3
    moist = Stuff(rho=800.0, c=1000.0, lambda_=5.0, mu=((0.5, 1.0),), sorption=((0.0, 0.0), (1.0, 4000.0)))
    slab = Slab(stuff=moist, d=0.004)
    films = Films(h_i=1e-9, beta_i=0.0, h_e=h, beta_e=beta)
    ours = run([slab], films, constant(20.0, phi_air * p, 20.0, p), 20.0, 0.95, 12, RunOptions(keep=[12]))
    surface = at(ours, slab.d)
    theta, phi = float(surface.theta[0]), float(surface.phi[0])
    low, high = 0.0, 20.0
    for _ in range(60):
        middle = (low + high) / 2
        evaporates = cell_state.LATENT * beta * (phi * saturated(middle) - phi_air * p)
        low, high = (middle, high) if h * (20.0 - middle) > evaporates else (low, middle)
    return [Row(name="latent heat: a moist board in dry air of 20 °C [°C]", source="h·(θ_e − θ) = L·β·(p − p_e)",
                reference=low, ours=theta, tolerance=0.05)]  # fmt: skip


def _gradient_rows() -> list[Row]:
    """Vapour through a temperature gradient: pressure falls with the resistance of the air at each temperature."""
    slab = Slab(stuff=Stuff(rho=50.0, c=1000.0, lambda_=0.04, mu=((0.5, 30.0),)), d=0.2)
    cold, warm = -10.0, 20.0
    p_e, p_i = 0.5 * saturated(cold), 0.12 * saturated(warm)
    ours = run([slab], Films(prescribed=True), constant(cold, p_e, warm, p_i), 5.0, 0.1, 400, RunOptions(keep=[400],
               grid=cells([slab], 0.001, 1.2, 0.003)))  # fmt: skip
    x = np.linspace(0, 0.2, 4001)
    resist = np.array([1 / cell_state.air_permeability(float(warm + (cold - warm) * one / 0.2)) for one in x])
    crossed = np.concatenate([[0.0], np.cumsum((resist[1:] + resist[:-1]) / 2)])
    found = []
    for place in (0.05, 0.1, 0.15):
        true = p_i - (p_i - p_e) * float(np.interp(place, x, crossed)) / crossed[-1]
        there = at(ours, place)
        found.append(Row(name=f"vapour through a gradient at {place:g} m [Pa]", source="∫ dx/δ(θ)", reference=true,
                         ours=float(there.phi[0]) * saturated(float(there.theta[0])), tolerance=0.2))  # fmt: skip
    return found


def _order_rows() -> list[Row]:
    """The error of a day's wave in a wall against the number of steps: the stages are of the second order."""
    hours = np.arange(48)
    p = saturated(20.0)
    swing = 0.6 + 0.2 * np.sin(2 * np.pi * hours / 24)
    climate = Boundaries(theta_e=np.full(48, 20.0), p_e=swing * p, theta_i=np.full(48, 20.0), p_i=np.full(48, 0.6 * p))
    slab = Slab(stuff=LINEAR, d=0.02)
    grid = cells([slab], 0.001, 1.2, 0.002)

    def total(tolerance: float) -> tuple[float, int]:
        found = run([slab], Films(), climate, 20.0, 0.6, 48, RunOptions(keep=[], grid=grid, tolerance=tolerance))
        return float(found.totals[-1].sum()), found.steps

    best, _ = total(1e-4)
    (coarse, n_coarse), (fine, n_fine) = total(0.3), total(0.01)
    order = math.log(abs(coarse - best) / abs(fine - best)) / math.log(n_fine / n_coarse)
    return [Row(name="order of the error with the number of steps", source="two implicit stages", reference=2.0,
                ours=order, tolerance=0.6)]  # fmt: skip


def _grid_rows() -> list[Row]:
    """A wave of a day through even cells, once and twice as fine: the cells are of the second order."""
    hours = np.arange(48)
    p = saturated(20.0)
    swing = (0.6 + 0.2 * np.sin(2 * np.pi * hours / 24)) * p
    climate = Boundaries(theta_e=np.full(48, 20.0), p_e=swing, theta_i=np.full(48, 20.0), p_i=np.full(48, 0.6 * p))
    slab = Slab(stuff=LINEAR, d=0.02)
    held = [
        float(run([slab], Films(prescribed=True), climate, 20.0, 0.6, 48, RunOptions(keep=[], tolerance=0.01,
                  grid=cells([slab], d, 1.0, d))).totals[-1].sum())
        for d in (0.000625, 0.0003125, 0.00015625)
    ]  # fmt: skip
    order = math.log2(abs(held[0] - held[1]) / abs(held[1] - held[2]))
    return [Row(name="order of the error with the size of the cells", source="finite volumes", reference=2.0,
                ours=order, tolerance=0.3)]  # fmt: skip


def _render_rows() -> list[Row]:
    """A straw wall whose outer plaster drinks rain, through a wet year: each layer's water against a far finer grid."""
    stuffs = {key: stuff_of(CATALOGUE[key], 0.1)[0] for key in ("lime-cement-plaster", "straw-flat")}
    slabs = [Slab(stuff=stuffs["lime-cement-plaster"], d=0.03), Slab(stuff=stuffs["straw-flat"], d=0.36),
             Slab(stuff=stuffs["lime-cement-plaster"], d=0.03)]  # fmt: skip
    hours = np.arange(8760)
    theta = 9 - 6 * np.cos(2 * np.pi * hours / 8760) + 3 * np.sin(2 * np.pi * hours / 24)
    wet = np.where(hours % 96 < 6, 3e-5, 0.0)  # what the surface takes up of six hours of rain in four days
    climate = Boundaries(theta_e=theta, p_e=0.85 * np.array([saturated(float(one)) for one in theta]),
                         theta_i=np.full(8760, 20.0), p_i=np.full(8760, 1050.0), rain=wet)  # fmt: skip
    fine, ours = (
        run(slabs, Films(h_i=8, beta_i=2.5e-8, h_e=25, beta_e=1.2e-7), climate, 15.0, 0.7, 8760,
            RunOptions(keep=[], grid=grid)).totals
        for grid in (cells(slabs, 5e-5, 1.25), None)
    )  # fmt: skip
    return [
        Row(name=f"plastered straw in a wet year, {name}: water, {what} [kg/m²]", source="a grid of 0.05 mm",
            reference=float(read(fine[:, at])), ours=float(read(ours[:, at])),
            tolerance=0.01 * float(read(fine[:, at])))
        for at, name in ((1, "straw"), (2, "outer plaster"))
        for what, read in (("at the end", _last), ("its most", np.max))
    ]  # fmt: skip


def _last(water: FloatArray) -> float:
    return float(water[-1])


def _periodic_rows() -> list[Row]:
    """Where the count begins does not change the answer of what dries."""
    wall = SYSTEMS["sip"].assembly("w", "w")
    wet, dry = (seasons(wall, CATALOGUE, Basis(), Life(years=3, phi_0=phi, coarse=True)) for phi in (0.9, 0.5))
    held = float(wet.water[-1].sum())
    return [
        Row(name="by hour, begun dry: water at the end [kg/m²]", source="the same, begun wet", reference=held,
            ours=float(dry.water[-1].sum()), tolerance=0.01 * held),
        Row(name="a build-up through three years: water gained less let in [kg/m²]", source="balance",
            reference=0.0, ours=wet.balance_error, tolerance=1e-6),
        Row(name="a build-up through three years: heat gained less let in, of what flowed", source="balance",
            reference=0.0, ours=wet.heat_error, tolerance=1e-6),
    ]  # fmt: skip


def _leak_rows() -> list[Row]:
    basis = Basis()
    roof = SYSTEMS["sip-roof"].assembly("r", "r")
    planes, counted = element_planes(roof, CATALOGUE, basis, "up")
    plane, months = skin_plane(roof, planes, counted), months_of(basis)
    found = leak_year(roof, CATALOGUE, planes, months, Leak(leakage=0.9, height=3.5, plane=plane), basis.air,
                      basis.damp)  # fmt: skip
    month = months[0]
    theta = month.theta_i - (month.theta_i - month.theta_e) * float(planes.R[plane] / planes.R_total)
    T_e, T_i = month.theta_e + 273.15, month.theta_i + 273.15
    dp = 101325 / 287.05 * 9.80665 * 3.5 * (1 / T_e - 1 / T_i) + 1.0
    V = 0.15 * 0.9 * (dp / 50) ** 0.65 / 3600
    left = V * (month.p_i - saturated(theta)) / (R_V * T_i) * 31 * 86400
    return [
        Row(name="leak: pressure at a ridge in January [Pa]", source="two columns of air, and wind", reference=dp,
            ours=pressure(month.theta_i, month.theta_e, 3.5, basis.air), tolerance=1e-9),
        Row(name="leak: flow at 4 Pa of what has 1 m³/(h·m) at 50", source="ISO 9972, q = C·Δp^n",
            reference=(4 / 50) ** 0.65, ours=flow(1.0, 4.0, 0.65), tolerance=1e-12),
        Row(name="leak: left on the skin in January [kg/m]", source="V·(v_i − v_sat), by hand", reference=left,
            ours=float(found.carried[0]), tolerance=1e-9),
    ]  # fmt: skip


def _published_rows() -> list[Row]:
    weeks = math.exp(-0.68 * math.log(20) - 13.9 * math.log(97) + 66.02)
    hours = int(1.5 * 7 * 24 * weeks)
    index = mould_index(np.full((hours, 1), 20.0), np.full((hours, 1), 0.97), ["very sensitive"])[:, 0]
    first = float(np.interp(1.0, index, np.arange(1, hours + 1))) / (7 * 24)
    still = MonthlyClimate(name="", source="", theta_e=(20.0,) * 12, phi_e=(0.5,) * 12, swing=(9.0,) * 12)
    day = sun_on(Basis(site=Site(latitude=-20), climate=still), Exposure(tilt=0))[245 * 24 : 246 * 24]
    beyond = float(day.sum()) * 3600 / 1e6 / (0.16 * 3.0)
    return [
        Row(name="mould: weeks to index 1 on pine at 20 °C and 97 %", source="Hukka and Viitanen (1999), eq. 2",
            reference=weeks, ours=first, tolerance=0.03 * weeks),
        Row(name="sun: beyond the air at 20° south on 3 September [MJ/m²]", source="FAO Paper 56, example 8",
            reference=32.2, ours=beyond, tolerance=0.4),
    ]  # fmt: skip


def rows() -> list[Row]:
    """What the hours, leaks and seasons rest on."""
    return [*_liquid_rows(), *_latent_rows(), *_gradient_rows(), *_order_rows(), *_grid_rows(),
            *_render_rows(), *_periodic_rows(), *_leak_rows(), *_published_rows()]  # fmt: skip

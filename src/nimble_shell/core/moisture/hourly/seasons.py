"""A build-up by the hour, year after year until the years repeat: what its layers hold, what grows, what dries."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass, replace

import numpy as np
from numpy.typing import NDArray

from nimble_shell.core.assemblies.assembly import Assembly
from nimble_shell.core.basis.basis import Basis
from nimble_shell.core.basis.damp import MouldSurface
from nimble_shell.core.basis.stations import Direction
from nimble_shell.core.errors import DomainError, Issue
from nimble_shell.core.materials import Catalogue
from nimble_shell.core.materials.derived import feeds_mould, hygric_of, mould_class, wood_of
from nimble_shell.core.moisture.hourly.hygric import FILM, phi_of, stuff_of
from nimble_shell.core.moisture.hourly.life import REPEATS, REPEATS_LEAST, Life, MouldSpot, Seasons
from nimble_shell.core.moisture.hourly.mould import mould_index
from nimble_shell.core.moisture.hourly.outdoors import Exposure, Outdoors, outdoors, saturation
from nimble_shell.core.moisture.hourly.transport import (
    HOURS_A_YEAR,
    Boundaries,
    Films,
    Grid,
    Run,
    RunOptions,
    Slab,
    Stuff,
    cells,
    run,
)
from nimble_shell.core.moisture.monthly.element import element_planes
from nimble_shell.core.moisture.monthly.leak import conductance, flow, pressure, skin_plane
from nimble_shell.core.thermal.section import resolved_section, surroundings
from nimble_shell.core.thermal.vapour import AIR_LAYER_SD
from nimble_shell.core.working import value_of

FloatArray = NDArray[np.float64]
IntArray = NDArray[np.int64]

#: Hour of the year at which each month begins.
OPENS = tuple(24 * day for day in (0, 31, 59, 90, 120, 151, 181, 212, 243, 273, 304, 334))
KEPT_EVERY = 6  #: hours between the states that are kept
_MOST_SHOWN = 48  #: places of the section that are kept
_COARSE = (0.002, 1.6)  #: finest cell [m] and growth, where many runs are compared
_SKIN = 0.010  #: of a thick piece of wood, at either face, that is judged by itself [m]
_DRY_AT = 0.85  #: relative humidity below which a fresh layer counts as dried
_AIR = Stuff(rho=1.2, c=1006.0, lambda_=0.1)
_R_GAP = 0.18  #: of an air layer that takes no part in the monthly method [m²·K/W]


def seasons(
    assembly: Assembly, catalogue: Catalogue, basis: Basis, life: Life, direction: Direction = "horizontal"
) -> Seasons:
    """Run a build-up until its years repeat, or for so many years.

    Parameters
    ----------
    assembly : Assembly
        Layers inside → outside; first parts of bridged layers count.
    catalogue : mapping of key to Material
    basis : Basis
    life : Life
    direction : Direction
        Of the heat flow.

    Raises
    ------
    DomainError
        If the build-up cannot be resolved.
    NotConverged
        If no step of a second finds an answer.

    Notes
    -----
    Ventilated layers exchange air with the outside, and what lies outside of them takes sun and rain. Sorption and
    liquid transport are those of `hygric`. A leak brings air to the inner face of the outer skin, room air or outside
    air as the pressure has it, that comes to the skin's vapour pressure there: it wets, or dries.

    References
    ----------
    .. [1] EN 15026:2007.
    """
    slabs, notes = _slabs(assembly, catalogue, basis, life, direction)
    grid = cells(slabs, *_COARSE) if life.coarse else cells(slabs)
    films, bounds, (leak_layer, leak_outer) = _around(assembly, catalogue, basis, life, direction)
    theta, phi = np.full(len(grid.dx), 20.0), np.full(len(grid.dx), life.phi_0)
    fresh = [at for at in range(len(slabs)) if life.fresh and _fresh_water(assembly, catalogue, at)]
    for at in fresh:
        sorbs = slabs[at].stuff.sorption
        if sorbs is not None:
            phi[grid.layer == at] = phi_of(sorbs, _fresh_water(assembly, catalogue, at))
    years: list[_Year] = []
    places, wood = _places(assembly, catalogue, slabs), _wood(assembly, catalogue)
    M = np.zeros(len(places))
    repeats = False
    found: Run | None = None
    for number in range(life.years):
        found = run(
            slabs,
            films,
            bounds,
            theta,
            phi,
            HOURS_A_YEAR,
            RunOptions(
                leak_layer=leak_layer,
                leak_outer=leak_outer,
                grid=grid,
                after=found,
                before=number * HOURS_A_YEAR,
                of=life.years * HOURS_A_YEAR,
            ),
        )
        one = _read(found, places, wood, M, basis.damp.mould_surface)
        years.append(one)
        M = one.mould[-1]
        gained = np.abs(found.totals[-1] - found.totals[0])
        repeats = bool((gained <= np.maximum(REPEATS * found.totals[-1], REPEATS_LEAST)).all())
        if repeats and not life.whole:
            break
    shown = _shown(grid)
    judged = len(slabs) - 1 if assembly.outside == "ground" and len(slabs) > 1 else len(slabs)
    water = np.concatenate([years[0].water[:1], *[one.water[1:] for one in years]])
    return Seasons(
        years=len(years), begins=life.begins, repeats=repeats,
        layers=tuple(range(judged)), x=grid.x[shown], layer=grid.layer[shown],
        hours=np.concatenate([one.hours + at * HOURS_A_YEAR for at, one in enumerate(years)]),
        theta=np.concatenate([one.theta[:, shown] for one in years]).astype(np.float32),
        phi=np.concatenate([one.phi[:, shown] for one in years]).astype(np.float32),
        w=np.concatenate([one.w[:, shown] for one in years]).astype(np.float32),
        water=water, places=places, mould=np.concatenate([one.mould for one in years]),
        wood=wood, wood_share=np.concatenate([one.wood for one in years]),
        dry_after=tuple((at, _dry_after(slabs[at], water[:, at])) for at in fresh),
        came_in=sum(one.came_in for one in years), balance_error=sum(one.balance for one in years),
        heat_error=max(one.heat for one in years), steps=sum(one.steps for one in years), cells=len(grid.dx),
        notes=tuple(notes),
    )  # fmt: skip


def _around(
    assembly: Assembly, catalogue: Catalogue, basis: Basis, life: Life, direction: Direction
) -> tuple[Films, Boundaries, tuple[int | None, bool]]:
    """Films, hours of the boundaries from its beginning, the layer that a leak reaches, on its outer side or not."""
    pair = surroundings(basis.schools, direction).open_films
    R_si, R_se = value_of(pair.R_si), value_of(pair.R_se)
    weather = outdoors(basis, _on_ground(life.exposure, assembly), R_se)
    if "sun" in life.without:
        weather = replace(weather, theta_e=weather.theta_air)
    if life.damper:
        weather = _damper(weather, life.damper)
    leak_layer, leak_outer, leak_G, leak_p = _leak(assembly, catalogue, basis, life, weather, direction)
    opens = -OPENS[life.begins - 1]
    roll = {name: np.roll(getattr(weather, name), opens) for name in ("theta_e", "p_e", "theta_i", "p_i", "theta_air")}
    bounds = Boundaries(**roll, leak_G=np.roll(leak_G, opens), leak_p=np.roll(leak_p, opens),
                        rain=np.roll(weather.rain, opens))  # fmt: skip
    return Films(h_i=1 / R_si, h_e=1 / R_se), bounds, (leak_layer, leak_outer)


@dataclass(frozen=True, slots=True, kw_only=True, eq=False)
class _Year:
    """What is read of one year's run."""

    hours: IntArray
    theta: FloatArray
    phi: FloatArray
    w: FloatArray
    water: FloatArray
    mould: FloatArray
    wood: FloatArray
    came_in: float
    balance: float
    heat: float
    steps: int


def _read(
    found: Run, places: Sequence[MouldSpot], wood: Sequence[int], start: FloatArray, surface: MouldSurface
) -> _Year:
    layer = found.grid.layer
    of_place = [int(np.nonzero(layer == one.layer)[0][-1 if one.outer else 0]) for one in places]
    index = mould_index(found.theta[:, of_place], found.phi[:, of_place], [one.kind for one in places], start, surface)
    shares = [_wettest(found, at) for at in wood]
    kept = np.arange(KEPT_EVERY - 1, HOURS_A_YEAR, KEPT_EVERY)
    in_it = np.abs(found.entered[:, 1]).sum()
    return _Year(
        hours=kept + 1, theta=found.theta[kept], phi=found.phi[kept], w=found.w[kept], water=found.totals[::24],
        mould=index[23::24],
        wood=np.column_stack([one.reshape(-1, 24).mean(axis=1) for one in shares]) if shares else np.zeros((365, 0)),
        came_in=float(found.entered[:, 0].sum()), balance=found.balance_error,
        heat=abs(found.heat_balance_error) / max(float(in_it), 1.0), steps=found.steps,
    )  # fmt: skip


def _wettest(found: Run, at: int) -> FloatArray:
    """Water content by mass of the wetter 10 mm of a layer, hour by hour."""
    own = np.nonzero(found.grid.layer == at)[0]
    dx = found.grid.dx[own]
    inner = np.cumsum(dx) - dx < _SKIN
    zones = [inner, inner[::-1]]
    w = found.w[:, own]
    means = [(w[:, zone] * dx[zone]).sum(axis=1) / dx[zone].sum() for zone in zones]
    return np.asarray(np.maximum(*means) / found.slabs[at].stuff.rho, dtype=float)


def _slabs(
    assembly: Assembly, catalogue: Catalogue, basis: Basis, life: Life, direction: Direction
) -> tuple[list[Slab], list[str]]:
    """Every layer, and what was substituted."""
    resolved = resolved_section(assembly, catalogue, surroundings(basis.schools, direction)).resolved
    found: list[Slab] = []
    notes: list[str] = []
    for at, layer in enumerate(assembly.layers):
        own = resolved.element.layers[at] if at < resolved.counted else None
        d = layer.d if own is None else value_of(own.d)
        if not layer.material:
            R = _R_GAP if own is None else value_of(own.resistance())
            open_to = layer.air.ventilation if layer.air is not None else "unventilated"
            changes = life.gap if open_to == "well" else life.gap / 10 if open_to == "slightly" else 0.0
            stuff = Stuff(rho=_AIR.rho, c=_AIR.c, lambda_=d / R, mu=((0.5, max(AIR_LAYER_SD / d, 0.01)),))
            found.append(Slab(stuff=stuff, d=d, vent=changes * d / 3600))
            continue
        material = catalogue[layer.material]
        lambda_ = layer.lambda_entered if own is None else d / value_of(own.parts[0].R or own.resistance())
        if own is not None and own.parts[0].R is None:
            lambda_ = value_of(own.parts[0].lambda_ or material.lambda_)
        stuff, note = stuff_of(material, d, lambda_)
        if note and note not in notes:
            notes.append(note)
        if "storage" in life.without:
            stuff = replace(stuff, sorption=FILM, Dw=None)
        if "liquid" in life.without:
            stuff = replace(stuff, Dw=None)
        found.append(Slab(stuff=stuff, d=d))
    if assembly.outside == "ground":
        notes.append("the ground below follows a quarter of the air's swing, a month late, and is wet")
    return found, notes


def _on_ground(exposure: Exposure, assembly: Assembly) -> Exposure:
    """The exposure of a build-up that may lie on the ground."""
    if assembly.outside != "ground":
        return exposure
    return Exposure(azimuth=exposure.azimuth, tilt=exposure.tilt, absorptance=0.0, ground=True)


def _damper(weather: Outdoors, more: float) -> Outdoors:
    """The same weather with a room that is more humid."""
    limit = saturation(weather.theta_i)
    return Outdoors(
        theta_air=weather.theta_air, theta_e=weather.theta_e, p_e=weather.p_e, theta_i=weather.theta_i,
        p_i=np.clip(weather.p_i + more * limit, 0.01 * limit, 0.99 * limit), sun=weather.sun, rain=weather.rain,
    )  # fmt: skip


def _leak(
    assembly: Assembly, catalogue: Catalogue, basis: Basis, life: Life, weather: Outdoors, direction: Direction
) -> tuple[int | None, bool, FloatArray, FloatArray]:
    """The layer that a leak reaches, whether at its outer face; conductance and vapour pressure of its air by the hour.

    The layer that is named, or the outer skin; where that takes up nothing, the one before it. [kg/(m²·s·Pa)], [Pa]
    """
    nothing = np.zeros(HOURS_A_YEAR)
    if life.leakage <= 0:
        return None, False, nothing, nothing
    planes, counted = element_planes(assembly, catalogue, basis, direction)
    plane = skin_plane(assembly, planes, counted)
    if life.leak_layer is not None:
        if life.leak_layer >= counted:
            raise DomainError(Issue(path=("leak_layer",), code="layer_outside",
                                    message="that layer lies outside of the ventilated gap, or is not there",
                                    hint=f"a layer up to {counted}"))  # fmt: skip
        plane = int(np.nonzero(planes.layer == life.leak_layer)[0][0])
    inside, outside, drive = weather.theta_i, weather.theta_air, basis.air
    V = np.array([
        flow(life.leakage, pressure(float(i), float(e), life.height, drive), drive.exponent)
        for i, e in zip(inside, outside, strict=True)
    ])  # fmt: skip
    G = conductance(V, np.where(V >= 0, inside, outside), drive)
    inner, outer = (int(planes.layer[plane - side]) for side in (1, 0))
    skin_material = catalogue.get(assembly.layers[outer].material or "")
    tight = skin_material is None or hygric_of(skin_material)[0] is None
    return inner if tight else outer, tight, G, np.where(V >= 0, weather.p_i, weather.p_e)


def _places(assembly: Assembly, catalogue: Catalogue, slabs: Sequence[Slab]) -> tuple[MouldSpot, ...]:
    """Both faces of every layer that mould can feed on, as far as a ventilated gap, and the inner surface."""
    found: list[MouldSpot] = []
    x = 0.0
    for at, slab in enumerate(slabs):
        layer = assembly.layers[at]
        if layer.air is not None and layer.air.ventilation == "well":
            break
        material = catalogue.get(layer.material or "")
        if material is not None and (at == 0 or feeds_mould(material)):
            kind = mould_class(material)
            found.append(MouldSpot(layer=at, x=x, outer=False, kind=kind))
            if feeds_mould(material) and at < len(slabs) - 1:
                found.append(MouldSpot(layer=at, x=x + slab.d, outer=True, kind=kind))
        x += slab.d
    return tuple(found)


def _wood(assembly: Assembly, catalogue: Catalogue) -> tuple[int, ...]:
    found = []
    for at, layer in enumerate(assembly.layers):
        material = catalogue.get(layer.material or "")
        if material is None or hygric_of(material)[0] is None:
            continue
        if wood_of(material) != "no":
            found.append(at)
    return tuple(found)


def _fresh_water(assembly: Assembly, catalogue: Catalogue, at: int) -> float:
    """Water that a layer brings along. [kg/m³]"""
    material = catalogue.get(assembly.layers[at].material or "")
    return 0.0 if material is None else material.w_fresh


def _dry_after(slab: Slab, water: FloatArray) -> int | None:
    """The day from which a layer stays below the water of 85 %; None where it does not in the time."""
    sorbs = slab.stuff.sorption
    assert sorbs is not None
    phis, ws = zip(*sorbs, strict=True)
    limit = float(np.interp(_DRY_AT, phis, ws)) * slab.d
    above = np.nonzero(water > limit)[0]
    if not len(above):
        return 0
    return None if above[-1] == len(water) - 1 else int(above[-1]) + 1


def _shown(grid: Grid) -> IntArray:
    """Cells that are kept: both faces of each layer, and between them as many as there is room for."""
    n = len(grid.dx)
    if n <= _MOST_SHOWN:
        return np.arange(n)
    change = np.nonzero(np.diff(grid.layer))[0]
    faces = np.unique(np.r_[0, change, change + 1, n - 1])
    rest = np.setdiff1d(np.arange(n), faces)
    every = max(1, int(np.ceil(len(rest) / max(_MOST_SHOWN - len(faces), 1))))
    return np.unique(np.r_[faces, rest[::every]])

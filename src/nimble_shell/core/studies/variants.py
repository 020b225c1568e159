"""The foam decision: several cores at many thicknesses, every column of each, and the cheapest within the limits."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from typing import cast

import numpy as np
from numpy.typing import NDArray

from nimble_shell.core.assemblies.assembly import Assembly
from nimble_shell.core.basis.basis import Basis
from nimble_shell.core.basis.condition import condition
from nimble_shell.core.basis.stations import Direction
from nimble_shell.core.errors import DomainError, Issue
from nimble_shell.core.materials import Catalogue, Material
from nimble_shell.core.studies.sweep import Sweep, studied_layer
from nimble_shell.core.studies.thickness import crossing
from nimble_shell.core.thermal.amounts import wall_amounts
from nimble_shell.core.thermal.control import vapour_plane
from nimble_shell.core.thermal.figures import clear_wall_R
from nimble_shell.core.thermal.films import R_SI_SURFACE
from nimble_shell.core.thermal.life_cost import life_cost
from nimble_shell.core.thermal.resistance import Resistances
from nimble_shell.core.thermal.section import of_school
from nimble_shell.core.working import Derivation, Given, Num, derive_one, named, plain, traced, value_of

FloatArray = NDArray[np.float64]

MOST_CORES = 12
_NO_SAVING = 1e-12  #: a yearly saving too small to pay anything back [currency/(m²·a)]
#: Columns of a variant with the dimension each is shown in; SI.
COLUMNS: dict[str, str] = {
    "R_fresh": "resistance",
    "R_nominal": "resistance",
    "R_clear": "resistance",
    "R_winter": "resistance",
    "R_summer": "resistance",
    "U_clear": "transmittance",
    "thickness": "length",
    "floor": "floor_area",
    "weight": "surface_mass",
    "cost": "cost",
    "carbon": "carbon",
    "heat": "energy",
    "cool": "energy",
    "money": "cost",
    "carbon_life": "carbon",
    "payback": "years",
    "f_rsi": "ratio",
    "inside_share": "share",
}
#: Why a variant does not pass, in words.
STOPS = {
    "target": "R below what is asked",
    "thickness": "thicker than wanted",
    "weight": "heavier than wanted",
    "ratio": "too much of R inside the vapour-control plane",
    "stock": "not a stock size",
}


@dataclass(frozen=True, slots=True, kw_only=True)
class Variants:
    """One core at several thicknesses. Arrays have one entry for each thickness; nan where there is no value."""

    core: str  #: material key
    d: FloatArray  #: [m], rising
    columns: dict[str, FloatArray]
    stops: tuple[tuple[str, ...], ...]  #: keys of STOPS for each thickness; empty where it passes
    stocked: tuple[bool, ...]
    present: int | None  #: the wall as it is
    exact: float | None  #: thickness that reaches what is asked [m]
    why_not: str
    knee: int  #: where more foam begins to buy less


@dataclass(frozen=True, slots=True, kw_only=True)
class NextThickness:
    """The next thickness up from the wall as it is."""

    now: float  #: thickness of the core as it is [m]
    d: float  #: [m]
    saves: float  #: heat flux at the winter design temperature [W/m²]
    costs: float  #: [currency/m²]
    life: float  #: change of money over the life [currency/m²]


@dataclass(frozen=True, slots=True, kw_only=True)
class Decision:
    """Everything the foam study shows."""

    layer: int
    asked: float | None  #: [m²·K/W]
    cores: tuple[Variants, ...]
    cheapest: tuple[int, int] | None  #: core and thickness of the cheapest variant that passes every limit
    least_life: tuple[int, int] | None  #: the one with the least money over the life among those that pass
    least_beyond: tuple[int, int] | None  #: one that does not pass and costs still less over the life
    step: NextThickness | None


def decide(
    assembly: Assembly,
    catalogue: Catalogue,
    basis: Basis,
    cores: Sequence[str],
    *,
    asked: float | None,
    direction: Direction = "horizontal",
    thicknesses: FloatArray | None = None,
) -> Decision:
    """Sweep cores and thicknesses.

    Parameters
    ----------
    assembly : Assembly
        With a layer marked as core.
    catalogue : mapping of key to Material
    basis : Basis
    cores : sequence of str
        Material keys; the wall's own core is always among them.
    asked : float or None
        Clear-wall R wanted. [m²·K/W]
    direction : {"horizontal", "up", "down"}
    thicknesses : ndarray, optional
        Of the core; 40 around the present one if not given. [m]

    Raises
    ------
    DomainError
        If nothing is marked as core, a core is unknown, or there are too many.
    """
    index = studied_layer(assembly)
    own = assembly.layers[index]
    keys = list(dict.fromkeys([own.material, *cores]))
    unknown = [key for key in keys if key not in catalogue]
    if unknown or len(keys) > MOST_CORES:
        raise DomainError(
            Issue(
                path=("cores",),
                code="unknown_material" if unknown else "too_many_cores",
                message=f"there is no material “{unknown[0]}”" if unknown else f"{len(keys)} cores",
                hint=f"choose up to {MOST_CORES} of the catalogue",
            )
        )
    grid = _grid(own.d) if thicknesses is None else thicknesses
    base = _columns(Sweep(assembly, catalogue, basis, direction), np.array([own.d]))
    found = tuple(
        _variants(assembly.with_core(own.d, key), catalogue, basis, direction, grid, asked, base, own.material)
        for key in keys
    )
    passing, anywhere = (_least(found, "money", passing=only) for only in (True, False))
    return Decision(
        layer=index,
        asked=asked,
        cores=found,
        cheapest=_least(found, "cost", passing=True),
        least_life=passing,
        least_beyond=None if anywhere == passing else anywhere,
        step=_step(found[0], basis),
    )


def variant_working(
    assembly: Assembly,
    catalogue: Catalogue,
    basis: Basis,
    core: str,
    d: float,
    figure: str,
    *,
    direction: Direction = "horizontal",
) -> Derivation:
    """The working of a column that compares a variant with the wall as it is: "floor" or "payback".

    Parameters
    ----------
    assembly : Assembly
        The wall as it is.
    catalogue : mapping of key to Material
    basis : Basis
    core : str
        Material key of the variant.
    d : float
        Its thickness. [m]
    figure : {"floor", "payback"}
    direction : {"horizontal", "up", "down"}

    Raises
    ------
    DomainError
        If nothing is marked as core, the core is unknown, there is no such column, or nothing is paid back.
    """
    studied_layer(assembly)
    if core not in catalogue:
        raise DomainError(Issue(path=("core",), code="unknown_material", message=f"there is no material “{core}”",
                                hint="choose one of the catalogue"))  # fmt: skip
    other = assembly.with_core(d, core)
    now, then = (_sums(one, catalogue, basis, direction, given) for one, given in ((assembly, plain), (other, traced)))
    as_it_is = {
        key: traced(value_of(now[key]), symbol, f"{words}, as it is", unit, "its own working is in the row of the wall")
        for key, symbol, words, unit in (
            ("thickness", "d_now", "wall thickness", "m"),
            ("cost", "K_now", "cost of materials", "per m²"),
            ("yearly", "K_year_now", "energy a year", "per m²·a"),
        )
    }
    floor = named(as_it_is["thickness"] - then["thickness"], "A_floor", "floor won or lost", "m² per metre of wall",
                  "thickness as it is less the variant's")  # fmt: skip
    found = {"floor": floor}
    dearer, saved = then["cost"] - as_it_is["cost"], as_it_is["yearly"] - then["yearly"]
    if figure == "payback":
        if value_of(saved) <= _NO_SAVING:
            raise DomainError(Issue(path=("figure",), code="nothing_paid_back", message="this variant saves no energy",
                                    hint="payback is of a variant that saves some"))  # fmt: skip
        saved = named(saved, "K_saved", "energy saved a year", "per m²·a", "as it is less the variant's")
        if value_of(dearer) > 0:
            dearer = named(dearer, "K_more", "materials cost more by", "per m²", "the variant's less as it is")
        else:
            dearer = traced(0.0, "K_more", "materials cost no more", "per m²", "they cost the same or less")
        found["payback"] = named(dearer / saved, "t_payback", "payback", "a", "simple: no interest")
    return derive_one(found, figure)


def _sums(assembly: Assembly, catalogue: Catalogue, basis: Basis, direction: Direction, given: Given) -> dict[str, Num]:
    """Thickness, cost and yearly energy of a wall, by the arithmetic of the columns."""
    amounts = wall_amounts(assembly, catalogue, given=given)
    R = clear_wall_R(assembly, catalogue, basis, direction=direction, given=given)
    U = named(1 / R, "U_use", "transmittance in use", "W/(m²·K)", "clear wall by the school in use")
    return {**amounts, "yearly": life_cost(U, amounts["cost"], amounts["carbon"], basis, given=given).yearly}


def _grid(present: float) -> FloatArray:
    """Forty thicknesses in whole steps of 5 mm, from about a third to about twice and a half the present one. [m]"""
    step = max(round(2.2 * present / 40 / 0.005), 1) * 0.005
    low = max(round(0.35 * present / step), 1) * step
    return np.round(low + step * np.arange(40), 6)


def _variants(
    assembly: Assembly,
    catalogue: Catalogue,
    basis: Basis,
    direction: Direction,
    grid: FloatArray,
    asked: float | None,
    base: dict[str, FloatArray],
    own: str,
) -> Variants:
    layer = assembly.layers[studied_layer(assembly)]
    material = catalogue[layer.material]
    exact, why_not = (None, "") if asked is None else crossing(assembly, catalogue, basis, asked, direction)
    least = None if exact is None else value_of(exact)
    extra = [] if least is None else [float(np.ceil(least * 1000 - 1e-7) / 1000)]
    is_own = layer.material == own
    d = np.unique(np.round(np.concatenate([grid, material.stock, extra, [layer.d] if is_own else []]), 7))
    panels = assembly.panels
    d = d[np.all([over * d > assembly.layers[at].rib for at, over in panels.items()], axis=0)]  # ribs are shallower
    sweep = Sweep(assembly, catalogue, basis, direction)
    columns = _columns(sweep, d)
    columns["floor"] = base["thickness"][0] - columns["thickness"]
    dearer, saved = columns["cost"] - base["cost"][0], base["yearly"][0] - columns["yearly"]
    with np.errstate(divide="ignore", invalid="ignore"):
        payback = np.where(saved > _NO_SAVING, np.maximum(dearer, 0.0) / saved, np.nan)
    columns["payback"] = np.where(np.abs(dearer) + np.abs(saved) < 1e-12, np.nan, payback)
    stocked = tuple(all(_kept(material, over * one) for over in panels.values()) for one in d)
    return Variants(
        core=layer.material,
        d=d,
        columns={key: columns[key] for key in COLUMNS},
        stops=_stops(columns, stocked, basis, asked),
        stocked=stocked,
        present=int(np.argmin(np.abs(d - layer.d))) if is_own else None,
        exact=least,
        why_not=why_not,
        knee=_knee(columns["cost"], columns["U_clear"]),
    )


def _kept(material: Material, d: float) -> bool:
    """Whether a thickness [m] is kept in stock."""
    return any(abs(one - d) < 1e-7 for one in material.stock)


def _columns(sweep: Sweep, d: FloatArray) -> dict[str, FloatArray]:
    """Every column that depends on this wall alone, and the yearly money for energy."""
    basis = sweep.basis
    label = sweep.label(d)
    clear = _school(label, basis)
    nominal = cast("FloatArray", label.nominal)
    found = sweep.amounts(d)
    found["R_nominal"], found["R_clear"], found["U_clear"] = nominal, clear, 1 / clear
    found["R_winter"] = _school(sweep.season(d, "winter"), basis)
    found["R_summer"] = _school(sweep.season(d, "summer"), basis)
    fresh = sweep.catalogue[sweep.assembly.layers[sweep.layer].material].lambda_fresh
    found["R_fresh"] = np.full_like(d, np.nan) if fresh is None else cast("FloatArray", sweep.label(d, "fresh").nominal)
    R_si = value_of(sweep.resolved.element.R_si)
    found["f_rsi"] = 1 - R_SI_SURFACE / (nominal - R_si + R_SI_SURFACE)
    found["inside_share"] = _inside_share(sweep, d)
    life = life_cost(cast("float", 1 / clear), cast("float", found["cost"]), cast("float", found["carbon"]), basis)
    for key in ("heat", "cool", "yearly", "money", "carbon_life"):
        found[key] = cast("FloatArray", getattr(life, key))
    return found


def _school(totals: Resistances, basis: Basis) -> FloatArray:
    return cast("FloatArray", of_school(totals, basis.schools))


def _inside_share(sweep: Sweep, d: FloatArray) -> FloatArray:
    """Share of the field's resistance inside the vapour-control plane, nan without one."""
    layers = sweep.resolved.element.layers
    plane = vapour_plane(sweep.assembly, len(layers))
    if plane is None:
        return np.full_like(d, np.nan)
    swept = sweep.mean(d)
    table = [
        cast("FloatArray", value_of(layer.resistance(0, cast("float", swept[at]) if at in swept else None))) + 0 * d
        for at, layer in enumerate(layers)
    ]
    inside = np.sum(table[:plane], axis=0) if plane else np.zeros_like(d)
    return np.asarray(inside / np.sum(table, axis=0))


def _stops(
    columns: dict[str, FloatArray], stocked: tuple[bool, ...], basis: Basis, asked: float | None
) -> tuple[tuple[str, ...], ...]:
    limits = basis.limits
    none = np.zeros(len(stocked), dtype=bool)
    broken = {
        "target": none if asked is None else columns["R_clear"] < asked * (1 - 1e-12),
        "thickness": none if limits.thickness is None else columns["thickness"] > limits.thickness + 1e-9,
        "weight": none if limits.weight is None else columns["weight"] > limits.weight + 1e-9,
        "ratio": none if limits.inside_share is None else columns["inside_share"] > limits.inside_share + 1e-12,
        "stock": ~np.array(stocked) if limits.stock_only else none,
    }
    return tuple(tuple(key for key, bad in broken.items() if bad[at]) for at in range(len(stocked)))


def _knee(cost: FloatArray, U: FloatArray) -> int:
    """Index of the point of (cost, U) that lies furthest below the chord between the ends, both scaled to 0…1."""
    if len(cost) < 3 or np.ptp(cost) < 1e-12 or np.ptp(U) < 1e-12:
        return 0
    x, y = (cost - cost[0]) / (cost[-1] - cost[0]), (U - U[-1]) / (U[0] - U[-1])
    return int(np.argmax(1 - x - y))


def _least(found: tuple[Variants, ...], column: str, *, passing: bool) -> tuple[int, int] | None:
    candidates = [
        (float(variants.columns[column][at]), core, at)
        for core, variants in enumerate(found)
        for at in range(len(variants.d))
        if not (passing and variants.stops[at])
    ]
    return None if not candidates else min(candidates)[1:]


def _step(own: Variants, basis: Basis) -> NextThickness | None:
    """The next stock size, or else the next thickness that is at least 20 mm more."""
    if own.present is None:
        return None
    now = own.d[own.present]
    later = [at for at in range(len(own.d)) if own.d[at] > now + 1e-9]
    stock = [at for at in later if own.stocked[at]]
    far = [at for at in later if own.d[at] >= now + 0.020 - 1e-9]
    if not (stock or far):
        return None
    at = (stock or far)[0]
    winter = condition(basis, "winter")
    change = {key: float(own.columns[key][at] - own.columns[key][own.present]) for key in ("U_clear", "cost", "money")}
    return NextThickness(
        now=float(now),
        d=float(own.d[at]),
        saves=-change["U_clear"] * (winter.theta_i - winter.theta_e),
        costs=change["cost"],
        life=change["money"],
    )

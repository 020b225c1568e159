"""Heat and moisture by the hour (EN 15026): layers, boundaries, a run in pieces, and what it says."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

from nimble_shell.core.errors import Collector, DomainError, Issue, NotConverged
from nimble_shell.core.moisture.hourly import cell_state, kernel
from nimble_shell.core.progress import report
from nimble_shell.core.quantities.sentence import sentence

FloatArray = NDArray[np.float64]
IntArray = NDArray[np.int64]
Pairs = tuple[tuple[float, float], ...]
#: Constants of every different material, their tables, and the lengths of these: as in `cell_state.state`.
Stuffs = tuple[FloatArray, FloatArray, IntArray]

LEAST_MU, MOST_MU = 1.0, 1e7  #: what lies outside counts as these; a foil is a layer of MOST_MU
HOURS_A_YEAR = 8760
_PIECE = 730  #: hours between two looks whether to go on
_TOLERANCE = 1.0  #: of a step: times 1 K and times 0.05 of relative humidity
_FINEST, _GROWTH, _COARSEST = 0.001, 1.35, 0.02  #: cells: at a face [m], ratio of neighbours, widest [m]
_SKIN = 5e-6  #: cell at the surface of what draws water [m]
MOST_CELLS = 2000


@dataclass(frozen=True, slots=True, kw_only=True)
class Stuff:
    """What a material is to the hourly calculation."""

    rho: float  #: [kg/m³]
    c: float  #: [J/(kg·K)]
    lambda_: float  #: dry, at 10 °C [W/(m·K)]
    lambda_w: float = 0.0  #: ∂λ/∂w [W·m²/(K·kg)]
    lambda_theta: float = 0.0  #: ∂λ/∂θ about 10 °C [W/(m·K²)]
    mu: Pairs = ((0.5, 1.0),)  #: (φ, μ)
    sorption: Pairs | None = None  #: (φ, w [kg/m³]); None does not store
    Dw: Pairs | None = None  #: (w [kg/m³], D_w [m²/s]), log-linear; None has no liquid
    benchmark: bool = False  #: the functions of EN 15026, annex A, instead of all of these


BENCHMARK = Stuff(rho=1824.0, c=1000.0, lambda_=1.5, lambda_w=15.8e-3, benchmark=True)


@dataclass(frozen=True, slots=True, kw_only=True)
class Slab:
    """A layer."""

    stuff: Stuff
    d: float  #: [m]
    vent: float = 0.0  #: air exchanged with outside, per area of the element [m³/(m²·s)]


@dataclass(frozen=True, slots=True, kw_only=True)
class Films:
    """Surface films; `prescribed` surfaces have the temperature and pressure of the air."""

    h_i: float = 8.0  #: [W/(m²·K)]
    beta_i: float = 2.5e-8  #: [kg/(m²·s·Pa)]
    h_e: float = 25.0  #: [W/(m²·K)]
    beta_e: float = 1.2e-7  #: [kg/(m²·s·Pa)]
    prescribed: bool = False

    def array(self) -> FloatArray:
        return np.zeros(4) if self.prescribed else np.array([self.h_i, self.beta_i, self.h_e, self.beta_e])


@dataclass(frozen=True, slots=True, kw_only=True, eq=False)
class Boundaries:
    """Hours; those given are repeated as long as the run lasts."""

    theta_e: FloatArray  #: of the outer surface's surroundings, with radiation [°C]
    p_e: FloatArray  #: [Pa]
    theta_i: FloatArray  #: [°C]
    p_i: FloatArray  #: [Pa]
    theta_air: FloatArray | None = None  #: of the outside air, where layers are vented [°C]
    leak_G: FloatArray | None = None  #: of moving air to the cell that a leak reaches [kg/(m²·s·Pa)]
    leak_p: FloatArray | None = None  #: of that air [Pa]
    rain: FloatArray | None = None  #: taken up by the outer surface [kg/(m²·s)]

    def array(self) -> FloatArray:
        nothing = np.zeros(len(self.theta_e))
        air = self.theta_e if self.theta_air is None else self.theta_air
        rest = [nothing if one is None else one for one in (self.leak_G, self.leak_p, self.rain)]
        return np.column_stack([self.theta_e, self.p_e, self.theta_i, self.p_i, air, *rest]).astype(float)


@dataclass(frozen=True, slots=True, kw_only=True, eq=False)
class Grid:
    """Cells from the inner to the outer face."""

    dx: FloatArray  #: [m]
    layer: IntArray  #: of each cell

    @property
    def x(self) -> FloatArray:
        """Middles. [m]"""
        return np.cumsum(self.dx) - self.dx / 2


@dataclass(frozen=True, slots=True, kw_only=True, eq=False)
class Run:
    """What an hourly run found."""

    slabs: tuple[Slab, ...]
    grid: Grid
    films: Films
    boundaries: FloatArray  #: shape (hours of the climate, 8)
    hours: IntArray  #: at whose end the state is kept, 1 for the first
    theta: FloatArray  #: at cells, shape (kept, n) [°C]
    phi: FloatArray  #: at cells, shape (kept, n), at most 1
    w: FloatArray  #: at cells, shape (kept, n) [kg/m³]
    totals: FloatArray  #: of each layer at the start and after every hour, shape (1 + hours, layers) [kg/m²]
    entered: FloatArray  #: from inside, from outside, otherwise: moisture [kg/m²] and heat [J/m²], shape (3, 2)
    heat_gained: float  #: by the cells [J/m²]
    steps: int
    end: FloatArray  #: of cells when it ended: θ, φ, and θ and w by the sums of flows; shape (4, n)

    @property
    def balance_error(self) -> float:
        """Moisture that the layers gained less what came in. [kg/m²]"""
        gained = float((self.totals[-1] - self.totals[0]).sum())
        return gained - float(self.entered[:, 0].sum())

    @property
    def heat_balance_error(self) -> float:
        """Heat that the cells gained less what came in. [J/m²]"""
        return self.heat_gained - float(self.entered[:, 1].sum())


def cells(slabs: Sequence[Slab], finest: float = _FINEST, growth: float = _GROWTH, coarsest: float = _COARSEST) -> Grid:
    """Cells that are finest at the faces of every layer and grow towards its middle.

    Raises
    ------
    DomainError
        If a layer has no thickness, or the cells would be too many.
    """
    dx: list[FloatArray] = []
    layer: list[int] = []
    for at, slab in enumerate(slabs):
        if not slab.d > 0:
            raise DomainError(
                Issue(
                    path=("layers", at, "d"),
                    code="thickness_not_positive",
                    message=sentence("thickness is {v1}", v1=(slab.d, "distance")),
                    hint="above zero",
                )
            )
        half: list[float] = []
        while 2 * sum(half) < slab.d and len(half) < MOST_CELLS:
            half.append(min(finest * growth ** len(half), coarsest))
        own = np.array([*half, *half[::-1]])
        own = own * (slab.d / own.sum())
        if slab.stuff.Dw is not None:  # the surface of what draws water is wet or dry long before its first millimetre
            own = np.r_[_skinned(own[:1]), own[1:]] if at == 0 else own
            own = np.r_[own[:-1], _skinned(own[-1:])[::-1]] if at == len(slabs) - 1 else own
        dx.append(own)
        layer += [at] * len(own)
    if len(layer) > MOST_CELLS:
        raise DomainError(Issue(path=("layers",), code="too_many_cells",
                                message=f"the layers ask for {len(layer)} cells, {MOST_CELLS} can be solved",
                                hint="leave the grid to the program, or make it coarser"))  # fmt: skip
    return Grid(dx=np.concatenate(dx), layer=np.array(layer))


def _skinned(cell: FloatArray) -> FloatArray:
    """A cell with a skin so thin that it is the surface."""
    return np.array([_SKIN, float(cell[0]) - _SKIN]) if cell[0] > 4 * _SKIN else cell


@dataclass(frozen=True, slots=True, kw_only=True, eq=False)
class RunOptions:
    """How a run is done, where it is not the plain one."""

    keep: Sequence[int] | None = None  #: hours at whose end the state is kept, from 1; every hour if None
    leak_layer: int | None = None  #: whose innermost cell the boundaries' leak reaches
    leak_outer: bool = False  #: its outermost cell instead
    grid: Grid | None = None  #: the program's own if None
    tolerance: float = _TOLERANCE  #: of a step's error, in parts of 1 K and of 0.05 in φ
    after: Run | None = None  #: run of the same cells that this one goes on from, instead of the start
    before: int = 0  #: hours that were done before this run, for who watches
    of: int | None = None  #: hours that are asked in all, for who watches


def run(
    slabs: Sequence[Slab],
    films: Films,
    boundaries: Boundaries,
    theta_0: float | FloatArray,
    phi_0: float | FloatArray,
    hours: int,
    options: RunOptions | None = None,
) -> Run:
    """Solve heat and moisture from a start for so many hours.

    Parameters
    ----------
    theta_0, phi_0
        At the start: one value, or one of each cell. [°C], 0…1
    hours
        To go; boundaries are repeated.
    options : RunOptions, optional

    Raises
    ------
    DomainError
        If a layer, film or hour is not physical.
    NotConverged
        If no step of a second finds an answer.

    References
    ----------
    .. [1] EN 15026:2007, 5 and 6.
    """
    _check(slabs, films, boundaries, hours)
    options = options or RunOptions()
    grid = options.grid or cells(slabs)
    stuff, mat = tables_of(slabs)
    climate = boundaries.array()
    of_cell = mat[grid.layer]
    kept_hours = _kept_hours(options.keep, hours)
    theta, phi, warm, stock = _start(options.after, theta_0, phi_0, of_cell, stuff)
    totals: list[FloatArray] = [np.zeros((1, len(slabs)))]
    np.add.at(totals[0][0], grid.layer, stock * grid.dx)
    kept: list[FloatArray] = []
    row = (grid.dx, of_cell, _air_changes(slabs, grid), films.array(), _leak_cell(options, grid))
    sums, dt, steps, done = np.zeros(7), 60.0, 0, 0
    while done < hours:
        report(options.before + done, options.of or hours)
        count = min(_PIECE, hours - done)
        wanted = np.isin(np.arange(done + 1, done + count + 1), kept_hours)
        own_totals, own_kept = np.zeros((count, len(slabs))), np.zeros((int(wanted.sum()), 2, len(grid.dx)))
        dt, more, went = kernel.advance(
            theta, phi, warm, stock, row, stuff, climate, done, options.tolerance, dt, grid.layer, own_totals, sums,
            wanted, own_kept,
        )  # fmt: skip
        if went < count:
            raise NotConverged(steps + more, float(done + went))
        steps, done = steps + more, done + count
        totals.append(own_totals)
        kept.append(own_kept)
    end = np.stack([theta, phi, warm, stock])
    states = np.concatenate(kept) if kept else np.zeros((0, 2, len(grid.dx)))
    theta, phi = np.ascontiguousarray(states[:, 0]), np.ascontiguousarray(states[:, 1])
    return Run(
        slabs=tuple(slabs), grid=grid, films=films, boundaries=climate, hours=kept_hours,
        theta=theta, phi=np.minimum(phi, 1.0), w=cell_state.waters(theta, phi, of_cell, stuff),
        totals=np.concatenate(totals),
        entered=sums[:6].reshape(3, 2), heat_gained=float(sums[6]), steps=steps, end=end,
    )  # fmt: skip


def _kept_hours(keep: Sequence[int] | None, hours: int) -> IntArray:
    wanted = np.arange(1, hours + 1) if keep is None else np.array(sorted(set(keep)), dtype=np.int64)
    return wanted[(wanted > 0) & (wanted <= hours)]


def _start(
    after: Run | None, theta_0: float | FloatArray, phi_0: float | FloatArray, of_cell: IntArray, stuff: Stuffs
) -> tuple[FloatArray, FloatArray, FloatArray, FloatArray]:
    """θ, φ, the temperatures heat is counted from, and the water of every cell."""
    if after is not None:
        theta, phi, warm, stock = after.end.copy()
        return theta, phi, warm, stock
    n = len(of_cell)
    theta, phi = np.zeros(n) + theta_0, np.clip(np.zeros(n) + phi_0, kernel.LEAST_PHI, 1.5)
    return theta, phi, theta.copy(), cell_state.waters(theta[None], phi[None], of_cell, stuff)[0]


def _air_changes(slabs: Sequence[Slab], grid: Grid) -> FloatArray:
    """What each cell of a ventilated layer exchanges with the outside. [m³/(m²·s)]"""
    vent = np.zeros(len(grid.dx))
    for at, slab in enumerate(slabs):
        own = np.nonzero(grid.layer == at)[0]
        vent[own] = slab.vent * grid.dx[own] / grid.dx[own].sum()
    return vent


def _leak_cell(options: RunOptions, grid: Grid) -> int:
    """The cell that a leak reaches; −1 without one."""
    if options.leak_layer is None:
        return -1
    return int(np.nonzero(grid.layer == options.leak_layer)[0][-1 if options.leak_outer else 0])


def tables_of(slabs: Sequence[Slab]) -> tuple[Stuffs, IntArray]:
    """Constants, tables and their lengths of every different material, and the material of each layer."""
    stuffs = list(dict.fromkeys(slab.stuff for slab in slabs))
    most = max(max(len(s.mu), len(s.sorption or ()), len(s.Dw or ()), 1) for s in stuffs)
    consts, tables = np.zeros((len(stuffs), 7)), np.zeros((len(stuffs), 7, most))
    counts = np.ones((len(stuffs), 3), dtype=np.int64)
    for at, one in enumerate(stuffs):
        consts[at] = [
            one.rho * one.c,
            one.lambda_,
            one.lambda_w,
            one.lambda_theta,
            cell_state.BENCHMARK if one.benchmark else cell_state.TABLE,
            float(one.sorption is not None),
            float(one.Dw is not None and one.sorption is not None),
        ]
        mu = tuple((phi, float(np.clip(value, LEAST_MU, MOST_MU))) for phi, value in one.mu)
        flow = tuple((w, float(np.log(max(value, 1e-30)))) for w, value in one.Dw or ())
        for column, pairs in enumerate((one.sorption or (), mu, flow)):
            for place, (x, y) in enumerate(pairs):
                tables[at, 2 * column, place], tables[at, 2 * column + 1, place] = x, y
            counts[at, column] = max(len(pairs), 1)
        tables[at, cell_state.FLOWN, : len(flow)] = _flown(flow)
    return (consts, tables, counts), np.array([stuffs.index(slab.stuff) for slab in slabs])


def _flown(flow: Sequence[tuple[float, float]]) -> FloatArray:
    """∫ D_w dw up to each row, of rows w and ln D_w; straight in the logarithm between them."""
    w, log_D = np.array(flow).reshape(-1, 2).T
    D, rise = np.exp(log_D), np.diff(log_D)
    even = np.abs(rise) < 1e-9
    mean = np.where(even, D[:-1], np.diff(D) / np.where(even, 1.0, rise))
    return np.concatenate([np.zeros(min(len(w), 1)), np.cumsum(mean * np.diff(w))])


def _check(slabs: Sequence[Slab], films: Films, boundaries: Boundaries, hours: int) -> None:
    check = Collector()
    check.check(bool(slabs), ("layers",), "no_layers", "there is no layer", "give at least one")
    check.check(0 < hours <= 50 * HOURS_A_YEAR, ("hours",), "hours_out_of_range", f"{hours} hours are asked for",
                "between one hour and fifty years")  # fmt: skip
    for at, slab in enumerate(slabs):
        one, path = slab.stuff, ("layers", at)
        check.check(
            slab.d > 0,
            (*path, "d"),
            "thickness_not_positive",
            sentence("thickness is {v1}", v1=(slab.d, "distance")),
            "above zero",
        )
        check.check(
            one.rho > 0 and one.c > 0,
            (*path, "rho"),
            "density_not_positive",
            sentence("density is {v1}, specific heat {v2}", v1=(one.rho, "density"), v2=(one.c, "specific_heat")),
            "both above zero",
        )
        check.check(
            one.lambda_ > 0,
            (*path, "lambda"),
            "conductivity_not_positive",
            sentence("thermal conductivity is {v1}", v1=(one.lambda_, "conductivity")),
            "above zero",
        )
        check.check(all(mu > 0 for _, mu in one.mu) and bool(one.mu), (*path, "mu"), "mu_not_positive",
                    "μ has to be above zero", "still air has 1")  # fmt: skip
        for name, pairs, lead in (("mu", one.mu, "φ"), ("sorption", one.sorption, "φ"), ("Dw", one.Dw, "w")):
            xs = [x for x, _ in pairs or ()]
            check.check(xs == sorted(set(xs)), (*path, name), "rows_not_rising", f"{lead} of the table does not rise",
                        "sort the rows, each once")  # fmt: skip
        if one.sorption is not None:
            ws = [w for _, w in one.sorption]
            within = all(0 <= phi <= 1 for phi, _ in one.sorption)
            check.check(len(ws) > 1 and ws == sorted(ws) and ws[0] >= 0 and within,
                        (*path, "sorption"), "sorption_not_rising", "the water content falls, or φ is not within 0…1",
                        "two rows or more, φ from 0 to 1, w rising from zero or above")  # fmt: skip
        check.check(all(D >= 0 for _, D in one.Dw or ()), (*path, "Dw"), "transport_negative", "D_w is negative",
                    "zero or above")  # fmt: skip
    if not films.prescribed:
        check.check(min(films.h_i, films.h_e) > 0 and min(films.beta_i, films.beta_e) >= 0, ("films",),
                    "film_not_positive", "a film's transfer is not above zero",
                    "h in W/(m²·K), β in kg/(m²·s·Pa)")  # fmt: skip
    table = boundaries.array()
    check.check(len(table) > 0, ("climate",), "no_hours", "the climate has no hour", "give at least one")
    check.check(bool(np.isfinite(table).all()), ("climate",), "hours_missing", "an hour has no value",
                "fill missing hours before the run")  # fmt: skip
    if np.isfinite(table).all() and len(table):
        for column, name in ((0, "theta_e"), (2, "theta_i")):
            worst = int(np.argmax(np.abs(table[:, column])))
            check.check(
                -90 <= table[worst, column] <= 120,
                ("climate", "hours", worst),
                "temperature_not_physical",
                sentence(f"{name} is {{v1}}", v1=(table[worst, column], "temperature")),
                sentence("from {v1} to {v2}", v1=(-90.0, "temperature"), v2=(120.0, "temperature")),
            )
        for column, name in ((1, "p_e"), (3, "p_i")):
            worst = int(np.argmin(table[:, column]))
            check.check(
                table[worst, column] >= 0,
                ("climate", "hours", worst),
                "pressure_negative",
                sentence(f"{name} is {{v1}}", v1=(table[worst, column], "pressure")),
                "vapour pressures are zero or above",
            )
    check.refuse()

"""Every figure of a build-up that a screen or sheet shows, each computed once and able to show its working."""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import dataclass, replace

from nimble_shell.core.assemblies.assembly import Assembly
from nimble_shell.core.basis.basis import Basis
from nimble_shell.core.basis.condition import Condition, condition
from nimble_shell.core.basis.flow import direction_of_flow, over_the_year
from nimble_shell.core.basis.stations import Direction
from nimble_shell.core.climate import p_sat
from nimble_shell.core.materials import Catalogue
from nimble_shell.core.thermal.amounts import wall_amounts
from nimble_shell.core.thermal.conductivity import mean_conductivity, theta_behind
from nimble_shell.core.thermal.control import vapour_plane
from nimble_shell.core.thermal.element import Element, ElementLayer
from nimble_shell.core.thermal.films import R_SI_SURFACE, Season
from nimble_shell.core.thermal.life_cost import life_cost
from nimble_shell.core.thermal.resistance import Resistances, resistances, transmittance
from nimble_shell.core.thermal.resolve import Age, Resolved, fixings_transmittance
from nimble_shell.core.thermal.section import ResolvedSection, of_school, resolved_section, surroundings, with_points
from nimble_shell.core.thermal.temperature import SteadyState, steady_state, temperatures_by_share
from nimble_shell.core.thermal.vapour import diffusion_thicknesses, permeance, vapour_pressures
from nimble_shell.core.working import Derivation, Given, Num, derive_one, named, plain, traced, value_of

_SAMPLES = 8  #: points inside each layer, for drawing curves


@dataclass(frozen=True, slots=True, kw_only=True)
class Figure:
    """A number on a screen: what it is, its dimension, its value."""

    key: str
    text: str
    dimension: str  #: key of quantities.DIMENSIONS
    number: Num


@dataclass(frozen=True, slots=True, kw_only=True)
class Plane:
    """A face or interface, counted from inside."""

    x: float  #: distance from the inner face [m]
    theta: float  #: [°C]
    p: float  #: vapour pressure without condensation [Pa]
    p_sat: float  #: [Pa]


@dataclass(frozen=True, slots=True, kw_only=True)
class Profile:
    """Temperature and vapour lines through the field at one condition."""

    condition: Condition
    planes: tuple[Plane, ...]  #: inner face, interfaces, outer counted face
    curve: tuple[Plane, ...]  #: the same with points inside each layer
    closest: int  #: index into `curve` where p comes closest to saturation


@dataclass(frozen=True, slots=True, kw_only=True)
class WallFigures:
    """All figures of one build-up on one Basis."""

    figures: dict[str, Figure]
    profile: Profile
    counted: int  #: layers from inside that count
    in_range: bool  #: whether the combined method applies
    shares: tuple[tuple[float, ...], ...]  #: area shares per layer, field first
    R_layers: tuple[float, ...]  #: of the field of each counted layer [m²·K/W]


def wall_figures(
    assembly: Assembly,
    catalogue: Catalogue,
    basis: Basis,
    condition_key: str,
    *,
    direction: Direction = "horizontal",
    given: Given = plain,
) -> WallFigures:
    """Compute every figure of a build-up.

    Parameters
    ----------
    assembly : Assembly
        Layers inside → outside.
    catalogue : mapping of key to Material
    basis : Basis
    condition_key : str
        Month "0" … "11", "winter" or "summer": the moment of the profile.
    direction : {"horizontal", "up", "down"}
        Direction of heat flow.
    given : Given
        `plain` for figures, `traced` for working.

    Returns
    -------
    WallFigures
        SI values; R and U are totals with films.

    Raises
    ------
    DomainError
        If the assembly cannot be calculated.
    """
    return _Calculation(assembly, catalogue, basis, condition_key, direction, given).run()


def wall_working(
    assembly: Assembly,
    catalogue: Catalogue,
    basis: Basis,
    condition_key: str,
    figure: str,
    *,
    direction: Direction = "horizontal",
) -> Derivation:
    """The working of one figure: the same calculation, run with numbers that remember.

    Raises
    ------
    DomainError
        If there is no such figure, or the assembly cannot be calculated.
    """
    found = wall_figures(assembly, catalogue, basis, condition_key, direction=direction, given=traced).figures
    return derive_one({key: one.number for key, one in found.items()}, figure)


def clear_wall_R(
    assembly: Assembly,
    catalogue: Catalogue,
    basis: Basis,
    *,
    direction: Direction = "horizontal",
    given: Given = plain,
    prefix: str = "",
) -> Num:
    """Clear-wall total resistance by the bridged method of the Basis, nothing else. [m²·K/W]"""
    around = surroundings(basis.schools, direction)
    return of_school(resolved_section(assembly, catalogue, around, given=given, prefix=prefix).totals, basis.schools)


def points_U(assembly: Assembly, catalogue: Catalogue, basis: Basis, *, direction: Direction = "horizontal") -> float:
    """What fixings add to the transmittance, solved or approximate. [W/(m²·K)]"""
    section = resolved_section(assembly, catalogue, surroundings(basis.schools, direction))
    found = fixings_transmittance(section.resolved, section.totals.nominal)
    return 0.0 if found is None else value_of(found)


def surface_factor(
    assembly: Assembly, catalogue: Catalogue, basis: Basis, *, direction: Direction = "horizontal"
) -> float:
    """Temperature factor of the internal surface in the clear section, with R_si 0.25. [-]"""
    section = resolved_section(assembly, catalogue, surroundings(basis.schools, direction))
    return value_of(_surface_factor(section.totals.nominal, section.resolved, plain))


class _Calculation:
    """One run over an assembly; kept as a class only to share the inputs."""

    def __init__(
        self,
        assembly: Assembly,
        catalogue: Catalogue,
        basis: Basis,
        condition_key: str,
        direction: Direction,
        given: Given,
    ) -> None:
        self.assembly, self.catalogue, self.basis = assembly, catalogue, basis
        self.condition = condition(basis, condition_key)
        self.direction, self.outwards, self.given = direction, over_the_year(basis, direction), given
        self.found: dict[str, Figure] = {}

    def run(self) -> WallFigures:
        section = self._section()
        label, totals = section.resolved, section.totals
        self._resistance_figures(label, totals)
        self._seasons()
        self._amounts(of_school(totals, self.basis.schools))
        self._inside_share(label)
        profile = self._profile(self._section(moment=self.condition).resolved)
        self._add(
            "f_rsi",
            "surface factor, clear section",
            "ratio",
            _surface_factor(totals.nominal, label, self.given),
        )
        return WallFigures(
            figures=self.found,
            profile=profile,
            counted=label.counted,
            in_range=totals.in_range,
            shares=tuple(tuple(value_of(part.f) for part in layer.parts) for layer in label.element.layers),
            R_layers=tuple(value_of(layer.resistance()) for layer in label.element.layers),
        )

    def _section(
        self, age: Age = "aged", season: Season = "winter", prefix: str = "", moment: Condition | None = None
    ) -> ResolvedSection:
        """As labelled, or at a moment: then its films are those of the direction in which heat flows at it."""
        direction = self.direction
        if moment is not None:
            direction = direction_of_flow(self.outwards, moment.theta_i, moment.theta_e)
        around = surroundings(self.basis.schools, direction, age, season)
        return resolved_section(self.assembly, self.catalogue, around, given=self.given, prefix=prefix)

    def _add(self, key: str, text: str, dimension: str, number: Num) -> None:
        self.found[key] = Figure(key=key, text=text, dimension=dimension, number=number)

    def _pair(self, key: str, text: str, R: Num) -> None:
        self._add(f"R_{key}", f"R, {text}", "resistance", R)
        self._add(f"U_{key}", f"U, {text}", "transmittance", transmittance(R, f"U_{key}", f"transmittance, {text}"))

    def _resistance_figures(self, label: Resolved, totals: Resistances) -> None:
        self._pair("nominal", "nominal, as labelled", totals.nominal)
        self._pair("parallel", "clear wall, parallel paths", totals.parallel)
        self._pair("isothermal", "clear wall, isothermal planes", totals.isothermal)
        self._pair("combined", "clear wall, combined limits", totals.combined)
        points = fixings_transmittance(label, totals.nominal)
        if points is not None:
            self._add("delta_U_f", f"ΔU of screws, ties and wires, {self._points_method()}", "transmittance", points)
        self._add("error_e", "largest relative error of the combined method", "share", totals.error_e)
        R = of_school(totals, self.basis.schools)
        clear = named(
            R + 0.0,
            "R_clear",
            f"clear-wall resistance, {self.basis.schools.bridged}",
            "m²·K/W",
            "school in use",
        )
        self._pair("clear", f"clear wall, {self.basis.schools.bridged}", clear)
        bridging = named(
            totals.nominal - R, "R_lost", "resistance lost to members", "m²·K/W", "nominal less clear wall"
        )
        self._add("R_lost", "R lost to members", "resistance", bridging)
        if any(layer.material and self.catalogue[layer.material].lambda_fresh for layer in self.assembly.layers):
            fresh = self._section("fresh", prefix="fresh")
            self._pair("fresh", "nominal, as made (fresh foam)", fresh.totals.nominal)

    def _points_method(self) -> str:
        solved = [self.assembly.solved_ratio(one.id) is not None for one in self.assembly.fixings]
        return "solved" if all(solved) else "solved in part, else approximate" if any(solved) else "approximate"

    def _seasons(self) -> None:
        seasons: tuple[Season, ...] = ("winter", "summer")
        for season in seasons:
            moment = condition(self.basis, season)
            resolved = self._section(season=season, moment=moment).resolved
            state = steady_state(resolved.element, moment.theta_i, moment.theta_e, given=self.given, key=season)
            self._pair(season, f"{season}, field with λ(θ)", state.R)
            bridged = Element(
                layers=tuple(
                    _at_own_temperature(layer, state, n, season) for n, layer in enumerate(resolved.element.layers)
                ),
                R_si=resolved.element.R_si,
                R_se=resolved.element.R_se,
            )
            seasonal = resistances(bridged, f"_clear_{season}")
            points = fixings_transmittance(resolved, seasonal.nominal, key=f"_{season}",
                                           R_layers=[layer.resistance() for layer in bridged.layers])  # fmt: skip
            clear = of_school(with_points(seasonal, points, f"_clear_{season}"), self.basis.schools)
            self._pair(f"{season}_clear", f"{season}, clear wall with λ(θ)", clear)

    def _amounts(self, R_clear: Num) -> None:
        found = wall_amounts(self.assembly, self.catalogue, given=self.given)
        self._add("thickness", "wall thickness", "length", found["thickness"])
        self._add("weight", "weight", "surface_mass", found["weight"])
        self._add("cost", "cost of materials, example rates", "cost", found["cost"])
        self._add("carbon", "carbon of materials, example rates", "carbon", found["carbon"])
        U = named(1 / R_clear, "U_use", "transmittance in use", "W/(m²·K)", "clear wall by the school in use")
        life = life_cost(U, found["cost"], found["carbon"], self.basis, given=self.given)
        self._add("heat", "heat lost in heated hours", "energy", life.heat)
        self._add("cool", "heat gained in cooled hours, air temperature only", "energy", life.cool)
        self._add("money", "materials and energy over the life", "cost", life.money)
        self._add("carbon_life", "carbon of materials and energy over the life", "carbon", life.carbon_life)

    def _inside_share(self, label: Resolved) -> None:
        plane = vapour_plane(self.assembly, label.counted)
        if plane is None:
            return
        crossed = [layer.resistance() for layer in label.element.layers]
        inside, whole = sum(crossed[:plane], 0.0), sum(crossed, 0.0)
        share = named(inside / whole, "share_inside", "resistance inside the vapour-control plane over all of it", "",
                      "rule of ratio: of the field, without films")  # fmt: skip
        self._add("inside_share", "share of R inside the vapour-control plane", "share", share)

    def _profile(self, label: Resolved) -> Profile:
        given, moment = self.given, self.condition
        state = steady_state(label.element, moment.theta_i, moment.theta_e, given=given, key="t")
        thetas = temperatures_by_share(label.element, state, "t")
        sd = diffusion_thicknesses(self.assembly, self.catalogue, label.counted, given)
        for number, one in enumerate(sd, 1):
            if self.basis.schools.vapour == "perm":
                self._add(f"vapour_{number}", f"permeance of layer {number}", "permeance", permeance(one, number))
            else:
                self._add(f"vapour_{number}", f"s_d of layer {number}", "air_layer", one)
        pressures = []
        for side, theta, phi in (("i", state.theta_i, moment.phi_i), ("e", state.theta_e, moment.phi_e)):
            humidity = given(
                phi,
                f"phi_{side}",
                f"relative humidity, {'in' if side == 'i' else 'out'}side",
                "",
                moment.origin,
            )
            pressures.append(
                named(
                    humidity * p_sat(theta),
                    f"p_{side}",
                    f"vapour pressure, {'in' if side == 'i' else 'out'}side",
                    "Pa",
                    "ISO 13788:2012, annex E, p = φ·p_sat(θ)",
                )
            )
        p = vapour_pressures(sd, pressures[0], pressures[1])
        planes = []
        x = 0.0
        for number, (theta, pressure) in enumerate(zip(thetas, p, strict=True)):
            saturation = named(
                p_sat(theta),
                f"p_sat_at_{number}",
                f"saturation at plane {number} from inside",
                "Pa",
                "ISO 13788:2012, annex E",
            )
            self._add(f"theta_at_{number}", f"temperature at plane {number} from inside", "temperature", theta)
            self._add(f"p_at_{number}", f"vapour pressure at plane {number} from inside", "pressure", pressure)
            self._add(f"p_sat_at_{number}", f"saturation at plane {number} from inside", "pressure", saturation)
            spare = named(
                saturation - pressure,
                f"spare_at_{number}",
                f"pressure to spare at plane {number} from inside",
                "Pa",
                "p_sat − p",
            )
            self._add(f"spare_at_{number}", f"pressure to spare at plane {number} from inside", "pressure", spare)
            planes.append(Plane(x=x, theta=value_of(theta), p=value_of(pressure), p_sat=value_of(saturation)))
            if number < label.counted:
                x += self.assembly.layers[number].d
        self._add("q", "heat flux", "flux", state.q)
        curve = tuple(_curve(label.element, state, planes))
        closest = min(range(len(curve)), key=lambda index: curve[index].p_sat - curve[index].p)
        return Profile(condition=moment, planes=tuple(planes), curve=curve, closest=closest)


def _surface_factor(nominal: Num, label: Resolved, given: Given) -> Num:
    R_surface = given(
        R_SI_SURFACE, "R_si_surface", "internal surface resistance for surfaces", "m²·K/W", "ISO 13788:2012, table 2"
    )
    return named(
        1 - R_surface / (nominal - label.element.R_si + R_surface),
        "f_Rsi",
        "surface factor of the clear section",
        "",
        "ISO 13788:2012, 3.1.3, f = (θsi − θe)/(θi − θe)",
    )


def _at_own_temperature(layer: ElementLayer, state: SteadyState, number: int, key: str) -> ElementLayer:
    """The layer with its field's λ at the temperatures found, for the bridged methods."""
    part = layer.parts[0]
    if not part.table or part.R is not None:
        return layer
    lambda_ = named(
        mean_conductivity(part.table, state.theta[number], state.theta[number + 1]),
        f"lambda_{key}{layer.tag}",
        f"mean conductivity of {layer.name} between its faces",
        "W/(m·K)",
        "(1/Δθ)·∫ λ dθ over the λ(θ) table",
    )
    return replace(layer, parts=(replace(part, lambda_=lambda_, table=()), *layer.parts[1:]), tag=f"{key}{layer.tag}")


def _curve(element: Element, state: SteadyState, planes: list[Plane]) -> Iterator[Plane]:
    q = value_of(state.q)
    for number, (layer, a, b) in enumerate(zip(element.layers, planes, planes[1:], strict=False)):
        yield a
        part = layer.parts[0]
        for step in range(1, _SAMPLES):
            share = step / _SAMPLES
            theta = a.theta + (b.theta - a.theta) * share
            if part.table and part.R is None:
                theta = theta_behind(part.table, value_of(state.theta[number]), q, value_of(layer.d) * share)
            yield Plane(
                x=a.x + (b.x - a.x) * share,
                theta=theta,
                p=a.p + (b.p - a.p) * share,
                p_sat=value_of(p_sat(theta)),
            )
    yield planes[-1]

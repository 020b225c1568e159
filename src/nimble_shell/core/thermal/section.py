"""A build-up resolved once for everybody who asks: figures, studies, remarks and the ledger."""

from __future__ import annotations

from dataclasses import dataclass, replace

from nimble_shell.core.assemblies.assembly import Assembly
from nimble_shell.core.basis.schools import Schools
from nimble_shell.core.basis.stations import Direction
from nimble_shell.core.held import Held
from nimble_shell.core.materials import Catalogue
from nimble_shell.core.thermal.films import Season, films
from nimble_shell.core.thermal.resistance import Resistances, Swept, resistances
from nimble_shell.core.thermal.resolve import Age, Resolved, Surroundings, between, fixings_transmittance, resolve
from nimble_shell.core.working import Given, Num, named, plain

BRIDGED = ("parallel", "isothermal", "combined")


@dataclass(frozen=True, slots=True, eq=False)
class ResolvedSection:
    """A build-up as the physics sees it, with its totals at the label's mean temperature."""

    resolved: Resolved
    totals: Resistances  #: [m²·K/W]


_held: Held[ResolvedSection] = Held(512)


def resolved_section(
    assembly: Assembly, catalogue: Catalogue, around: Surroundings, *, given: Given = plain, prefix: str = ""
) -> ResolvedSection:
    """A build-up between its films; worked out once for both, unless it is traced.

    Raises
    ------
    DomainError
        If the build-up cannot be calculated.
    """
    if given is not plain:
        resolved = resolve(assembly, catalogue, around, given=given, prefix=prefix)
        return ResolvedSection(resolved, totals_by_method(resolved, f"_{prefix}" if prefix else ""))
    found = _held.get((assembly, catalogue), around)
    if found is None:
        resolved = resolve(assembly, catalogue, around)
        found = _held.put((assembly, catalogue), ResolvedSection(resolved, totals_by_method(resolved)), around)
    return found


def surroundings(schools: Schools, direction: Direction, age: Age = "aged", season: Season = "winter") -> Surroundings:
    """What the schools in use say about films and labels."""
    return Surroundings(
        open_films=films(schools.films, direction, season),
        sheltered_films=films(schools.films, direction, season, sheltered=True),
        direction=direction,
        label_mean=schools.label_mean,
        age=age,
    )


def totals_by_method(resolved: Resolved, key: str = "", swept: Swept | None = None) -> Resistances:
    """Totals by each method, interpolated where a layer is slightly ventilated. [m²·K/W]"""
    if swept is not None:
        swept = {at: d - resolved.hollows[at] if resolved.hollows[at] else d for at, d in swept.items()}
    inner = resistances(resolved.element, key, swept)
    if resolved.vented is not None and resolved.openings is not None:
        vented = resistances(resolved.vented, f"{key}_vented", swept)
        inner = replace(
            inner,
            **{
                kind: between(
                    getattr(inner, kind),
                    getattr(vented, kind),
                    resolved.openings,
                    f"R_{kind}{key}_slightly",
                    f"total resistance with a slightly ventilated layer, {kind}",
                )
                for kind in ("nominal", *BRIDGED)
            },
        )
    return with_points(inner, fixings_transmittance(resolved, inner.nominal, swept, key), key)


def with_points(totals: Resistances, delta_U: Num | None, key: str = "") -> Resistances:
    """The bridged totals with the correction for points; the nominal one is through the field and has none."""
    if delta_U is None:
        return totals
    fixed = {
        kind: named(
            1 / (1 / getattr(totals, kind) + delta_U),
            f"R_{kind}{key}_points",
            f"total resistance with points, {kind}",
            "m²·K/W",
            "ISO 6946:2017, 6.5.2, U_c = U + ΔU_f",
        )
        for kind in BRIDGED
    }
    return replace(totals, **fixed)


def of_school(totals: Resistances, schools: Schools) -> Num:
    """The clear-wall resistance by the bridged method in use. [m²·K/W]"""
    chosen: Num = getattr(totals, schools.bridged)
    return chosen

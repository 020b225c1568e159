"""The pages of a whole building in a specification: every loss at its station, sums, leaks, ground and year."""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import dataclass

from nimble_shell.core.shell.cut import BuildingSection
from nimble_shell.core.shell.plant import GAS_LINES, Ground
from nimble_shell.core.shell.whole_building import HungLoss, WholeBuilding
from nimble_shell.core.working import value_of
from nimble_shell.reports.building_section import building_section
from nimble_shell.reports.page import PageHeading, items, page_pdf, table
from nimble_shell.reports.written import Written, cleaned

CAUTIONS = (
    "Leakage is by the seals as scheduled. What the building comes to is found by a fan test before lining.",
    "Soil gas, frost and make-up air are decided by a licensed person under the local code.",
)
_MONTHS = ("Jan", "Feb", "Mar", "Apr", "May", "Jun", "Jul", "Aug", "Sep", "Oct", "Nov", "Dec")
_TALL = 56.0  #: of the drawing [mm]


@dataclass(frozen=True, slots=True, kw_only=True)
class WholePage:
    """A building summed up, for its specification."""

    heading: PageHeading
    found: WholeBuilding
    soil: Ground
    section: BuildingSection


def whole_pdf(page: WholePage) -> bytes:
    """The pages as PDF, A4. A sum that lacks a part says so and names what lacks."""
    svg, scale = building_section(page.section, page.heading.written, _TALL)
    so_far, symbol = page.found.so_far, page.heading.written.symbol
    sections = [
        table("What it comes to" + so_far, ("", ""), list(_sums(page))),
        items("Lacking", page.found.lacking),
        table("Losses by station", ("", "", symbol("coupling"), "share"), list(_losses(page))),
        table(
            "Walls and roofs with all that is their own" + so_far,
            ("", f"clear R, {symbol('resistance')}", "whole R"),
            list(_groups(page)),
        ),
        table("Leak budget", ("", "low", "likely", "high"), list(_leaks(page))),
        table("Ground", ("", ""), list(_ground(page))),
        table(
            f"Year, {symbol('heat')}{so_far}",
            ("", "lost", "gained", "of use", "needed"),
            list(_year(page)),
        ),
    ]
    return page_pdf(page.heading, svg, f"Cut across, scale 1:{scale:g}, from the shape.", sections, CAUTIONS)


def _sums(page: WholePage) -> Iterator[list[str]]:
    found, full = page.found, page.heading.written.full
    yield [
        "heated floor, volume, envelope",
        f"{full(found.sizes.A_F, 'area')}, {full(found.sizes.V, 'volume')}, {full(found.sizes.A_E, 'area')}",
    ]
    if found.R_effective is not None:
        yield ["effective R, ground and all, air apart", full(value_of(found.R_effective), "resistance")]
    for name, H in (
        ("heat loss", found.sums.H),
        ("  transmission", found.sums.H_tr),
        ("    of it to the ground", found.sums.H_g),
        ("  air", found.sums.H_ve),
    ):
        yield [name, full(value_of(H), "coupling")]
    yield ["heating need of a year", full(value_of(found.energy.Q_nd), "heat")]


def _losses(page: WholePage) -> Iterator[list[str]]:
    found, written = page.found, page.heading.written
    H = value_of(found.sums.H)
    for loss in sorted(found.losses, key=lambda one: one.station or "~"):
        name = cleaned(f"{loss.station}  {loss.name}".strip())
        if loss.H is None:
            yield [name, _amount(loss, written), "being solved", ""]
        else:
            share = written.full(loss.H / H, "share", 1) if found.whole and H else ""
            yield [name, _amount(loss, written), written.number(loss.H, "coupling"), share]


def _amount(loss: HungLoss, written: Written) -> str:
    if loss.unit == "air":
        return written.full(loss.amount, "leak_flow", 0)
    return written.full(loss.amount, loss.unit, 1) if loss.unit else f"{loss.amount:g}"


def _groups(page: WholePage) -> Iterator[list[str]]:
    number = page.heading.written.number
    for station, group in page.found.sums.groups.items():
        yield [station, *(number(value_of(R), "resistance") for R in (group.R_clear, group.R_whole))]


def _leaks(page: WholePage) -> Iterator[list[str]]:
    leaks, full = page.found.leaks, page.heading.written.full
    for row in sorted(page.found.leak_rows, key=lambda one: one.station):
        name = cleaned(f"{row.station}  {row.name}")
        yield [name, *(full(value_of(q), "leak_flow", 1) for q in leaks.items[row.id])]
    yield ["all, at the test pressure", *(full(value_of(q), "leak_flow", 0) for q in leaks.q50)]
    yield ["n50, 1/h", *(f"{value_of(n):.2f}" for n in leaks.n50)]


def _ground(page: WholePage) -> Iterator[list[str]]:
    written, soil, on = page.heading.written, page.soil, page.found.ground
    if on is None:
        return
    floor = on.floor
    yield ["floor, its exposed perimeter", f"{written.full(floor.A, 'area')}, {written.full(floor.P, 'distance')}"]
    yield ["U with the ground, ISO 13370", written.full(value_of(on.figures.U), "transmittance")]
    if soil.frost is not None and soil.footing is not None:
        saved = "below it" if soil.footing >= soil.frost else "above it, level foam keeps it"
        judged = "frost reaches under the footing" if soil.frost_bites else saved
        depths = f"{written.length(soil.frost)}, {written.length(soil.footing)}"
        yield ["frost, footing", f"{depths}: {judged}"]
    for key, said in soil.soil_gas.items():
        yield [f"soil gas: {GAS_LINES[key]}", "not known" if said == "unknown" else said]


def _year(page: WholePage) -> Iterator[list[str]]:
    number = page.heading.written.number
    for month, one in zip(_MONTHS, page.found.energy.months, strict=True):
        used = "" if one.eta is None else f"{100 * value_of(one.eta):.0f} %"
        lost, gained, needed = (number(value_of(Q), "heat", 0) for Q in (one.Q_ht, one.Q_gn, one.Q_nd))
        yield [month, lost, gained, used, needed]

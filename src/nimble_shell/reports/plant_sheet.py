"""One page for the plant contractor: what the building asks of heating, cooling and fresh air, from what, and what it
does not say."""

from __future__ import annotations

from dataclasses import dataclass

from nimble_shell.core.basis.basis import Basis
from nimble_shell.core.shell.cut import BuildingSection
from nimble_shell.core.shell.plant import Plant
from nimble_shell.core.shell.whole_building import WholeBuilding
from nimble_shell.core.working import value_of
from nimble_shell.reports.building_section import building_section
from nimble_shell.reports.page import PageHeading, items, page_pdf, table

CAUTIONS = (
    "Rooms, distribution, hot water and reserve are not in these loads. Equipment is chosen by the contractor and "
    "checked by a licensed engineer under the local code.",
    "Fires and hoods in a tight building are decided with make-up air by a licensed installer, and tried with all fans "
    "running.",
)
_TALL = 34.0  #: of the drawing, so that all stays on one page [mm]


@dataclass(frozen=True, slots=True, kw_only=True)
class PlantPage:
    """A building summed up, for its plant."""

    heading: PageHeading
    found: WholeBuilding
    basis: Basis
    plant: Plant
    section: BuildingSection
    open: int = 0  #: decisions that wait in the building
    unsaid: int = 0  #: others of which nobody has said anything yet


def _decisions(waiting: int, unsaid: int) -> list[str]:
    """As the strip and the list of open decisions count them."""
    counts = [f"{count} {how}" for count, how in ((waiting, "open"), (unsaid, "nobody has said yet")) if count]
    return [f"decisions in the building: {', '.join(counts)}"] if counts else []


def plant_pdf(page: PlantPage) -> bytes:
    """The page as PDF, A4."""
    svg, scale = building_section(page.section, page.heading.written, _TALL)
    sections = [
        table(
            "What the plant has to be" + page.found.so_far,
            ("", "computed", "by a rule of floor area", "rule over computed"),
            _loads(page),
        ),
        table("Fresh air", ("", ""), _air(page)),
        table("From what", ("", ""), _inputs(page)),
        items("Assumed", _assumed()),
        items(
            "Lacking",
            [
                *page.found.lacking,
                *_decisions(page.open, page.unsaid),
            ],
        ),
        items(
            "To be checked by a licensed person",
            [
                "loads room by room, and hot water",
                "flue, make-up air and hoods",
                "the tightness by a fan test before lining",
            ],
        ),
    ]
    return page_pdf(page.heading, svg, f"Cut across, scale 1:{scale:g}, from the shape.", sections, CAUTIONS)


def _loads(page: PlantPage) -> list[list[str]]:
    heating, cooling, full = page.found.heating, page.found.cooling, page.heading.written.full
    A_F, rule = page.found.sizes.A_F, page.plant.loads.rule_cooling
    ratio = "" if heating.ratio is None else f"{value_of(heating.ratio):.1f}"
    peak = max(cooling.peak, 0.0)
    rows = [
        [
            "heating, at design",
            full(value_of(heating.total), "heat_flow", 0),
            "" if heating.rule_total is None else full(value_of(heating.rule_total), "heat_flow", 0),
            ratio,
        ]
    ]
    rows += [
        [f"  {name}", full(value_of(part), "heat_flow", 0), "", ""]
        for name, part in (
            ("transmission", heating.transmission),
            ("ground", heating.ground),
            ("air", heating.ventilation),
            ("heating up again", heating.reheat),
        )
    ]
    rows.append(
        [
            f"cooling, clear day, at {cooling.hour}:00 solar time",
            full(peak, "heat_flow", 0),
            full(rule * A_F, "heat_flow", 0),
            f"{rule * A_F / peak:.1f}" if peak > 0 else "no load",
        ]
    )
    rows.append(
        ["  of it sun through windows at its highest", full(float(cooling.solar.max()), "heat_flow", 0), "", ""]
    )
    rows.append(["heating need of a year", full(value_of(page.found.energy.Q_nd), "heat"), "", ""])
    return rows


def _air(page: PlantPage) -> list[list[str]]:
    air, full = page.found.air, page.heading.written.full
    rows = [
        ["air required", full(value_of(air.q_required), "leak_flow")],
        ["moved on average", full(value_of(air.q_mean), "leak_flow")],
        ["recovery of heat, of moisture", f"{100 * page.plant.air.eta_t:g} %, {100 * page.plant.air.eta_x:g} %"],
        [
            "leakage at 50 Pa, likely" if page.heading.units == "SI" else "leakage at the test pressure, likely",
            f"n50 {value_of(page.found.leaks.n50[1]):.2f} 1/h",
        ],
    ]
    if page.found.drawn is not None and page.found.drawn.draught is not None:
        draught = page.found.drawn.draught
        rows.append(["a flue feels, on the cold day", full(value_of(draught.depressurisation), "small_pressure")])
        rows.append(["extract that keeps its limit", full(value_of(draught.allowed_extract), "leak_flow")])
    return rows


def _inputs(page: PlantPage) -> list[list[str]]:
    full, basis, found = page.heading.written.full, page.basis, page.found
    return [
        ["heated floor, volume", f"{full(found.sizes.A_F, 'area')}, {full(found.sizes.V, 'volume')}"],
        [
            "room, outside by design",
            f"{full(basis.indoor.theta_heating, 'temperature')}, {full(basis.site.theta_winter, 'temperature')}",
        ],
        [
            "room, outside on the hot day",
            f"{full(basis.indoor.theta_cooling, 'temperature')}, {full(basis.site.theta_summer, 'temperature')}",
        ],
        [
            "transmission, of it ground",
            f"{full(value_of(found.sums.H_tr), 'coupling')}, {full(value_of(found.sums.H_g), 'coupling')}",
        ],
        ["persons, lamps and things", f"{page.plant.air.persons:g}, {full(page.plant.loads.gains, 'flux')}"],
        [
            "shades, overhang",
            f"{100 * page.plant.loads.shade:g} %, {page.heading.written.length(page.plant.loads.overhang)}",
        ],
    ]


def _assumed() -> list[str]:
    return [
        "The building as one zone with its doors open; the room held at one temperature day and night.",
        "Heating: EN 12831-1 simplified. Cooling: a clear day that repeats itself, layer matrices of ISO 13786 with "
        "the masses of the build-ups, constant films, sensible heat alone.",
        "Joints and fixings by their solved ψ and χ; ground by ISO 13370; leakage by the seals as scheduled, not as "
        "tested.",
    ]

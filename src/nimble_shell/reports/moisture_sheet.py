"""The page of a build-up's moisture: verdict and margin, months, control plane, joints, and the hours if run."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from typing import Any

from nimble_shell.core.assemblies.assembly import Assembly
from nimble_shell.core.basis.damp import DampLimits
from nimble_shell.core.basis.schools import VapourQuantities
from nimble_shell.core.climate import MONTHS
from nimble_shell.core.materials import Catalogue
from nimble_shell.core.moisture.hourly.life import Seasons
from nimble_shell.core.moisture.monthly.element import ElementYear
from nimble_shell.core.moisture.monthly.position import Position
from nimble_shell.core.moisture.verdict.verdict import Advice, Verdict
from nimble_shell.core.moisture.verdict.words import advice_text, layer_name
from nimble_shell.core.quantities import unit_for
from nimble_shell.core.quantities.sentence import in_units, quantity_text
from nimble_shell.core.thermal.films import R_SI_SURFACE
from nimble_shell.reports.page import PageHeading, items, page_pdf, table
from nimble_shell.reports.written import Written, sentence_case

_VERDICTS = {
    "dry": "Dry in every month.",
    "dries": "Gets wet and dries within the year.",
    "slowly": "Gathers slowly: within the limits over the years that count.",
    "too wet": "Dries, but holds more than it may.",
    "gathers": "Does not dry within the year: water gathers.",
}
_REASONS = {"surface": "the inner surface", "outer surface": "the outer surface, below the dew point of the air",
            "gathers": "what gathers from year to year",
            "too wet": "the most a plane may hold", "leak": "room air through the joint", "": ""}  # fmt: skip
_HOURS = {"wood": "Wood gets wetter than is accepted.", "mould": "The mould index is higher than is accepted.",
          "gathers": "Water gathers from year to year.", "": "Accepted by the hour."}  # fmt: skip


@dataclass(frozen=True, slots=True, kw_only=True)
class MoisturePage:
    """What is known of a build-up."""

    heading: PageHeading
    svg: str
    scale: float
    assembly: Assembly
    catalogue: Catalogue
    year: ElementYear
    verdict: Verdict
    positions: Sequence[Position]
    rule: float | None
    room: str  #: where the room's humidity comes from
    joints: Sequence[tuple[str, Verdict]]
    hours: Seasons | None
    damp: DampLimits
    vapour: VapourQuantities


def moisture_pdf(page: MoisturePage) -> bytes:
    """The page as PDF, A4."""
    field = page.positions[0]
    sections: list[dict[str, Any]] = [
        items("Verdict", [*_verdict(page), *(_advice(one, page) for one in page.verdict.advice)]),
        table("Month by month", ("month", "outside", "room", "f asked", "condensed", "held"),
              _months(page.year, page.heading.written)),
        table("Control plane", ("section", "R inside now", "safe up to", "condenses from"),
              [[one.section, "–" if one.now is None else _percent(one.now), _percent(one.safe),
                _percent(one.condenses)] for one in page.positions]),
        items("Rule of ratio", [
            f"rule: {'none in the Basis' if page.rule is None else f'at most {_percent(page.rule)} of R inside'}; "
            f"computed for this climate and room: at most {_percent(field.safe)}."
        ]),
        items("Joints of this build-up", [
            f"{name}: {'passes' if one.passes else f'fails by {_REASONS[one.reason]}'}{_margin(one)}"
            for name, one in page.joints
        ]),
        items("By the hour", _hours(page)),
        items("Methods and their limits", [
            "Months: ISO 13788:2012, vapour only, steady in each month, all planes solved at once. Surfaces with R_si "
            f"{quantity_text(R_SI_SURFACE, 'resistance', page.heading.units)}. Stored water, liquid, sun and rain are "
            "not in it; air only where a joint is judged.",
            sentence_case(page.room) + ".",
            "Hours: EN 15026:2007 with sorption, liquid, latent heat, sun and sky, for an invented year that has the "
            "months of the Basis. Mould index for untreated surfaces.",
            "Every change that is named was run: it passes, and one step less fails.",
        ]),
    ]  # fmt: skip
    return page_pdf(page.heading, page.svg, f"Section, scale 1:{page.scale:g}, outside on the left.", sections, (
        "Mould and decay are matters of health: a licensed reviewer judges damage.",
        "Foam is protected from fire and from the sun as the local code asks.",
        "A tight building is ventilated: the room humidity here is what is supposed, not what will be.",
    ))  # fmt: skip


def _percent(share: float) -> str:
    return f"{100 * share:.1f} %"


def _margin(one: Verdict) -> str:
    if one.phi_fails is None:
        return ", up to a room at 95 %"
    return f", at a room of {100 * one.phi_fails:.0f} % (now {100 * one.phi_room:.0f} %)"


def _verdict(page: MoisturePage) -> list[str]:
    year, one = page.year, page.verdict
    found = [_VERDICTS[year.verdict]]
    found.append(f"Surface: f_Rsi {year.f_rsi:.3f}" + (
        f", asked {year.required[year.critical]:.3f} in {MONTHS[year.critical]}." if year.critical is not None else "."
    ))  # fmt: skip
    if one.phi_fails is None:
        found.append("It passes up to a room at 95 % in the cold months.")
    elif one.passes:
        found.append(f"It passes until the room has {100 * one.phi_fails:.0f} % in the cold months, "
                     f"now {100 * one.phi_room:.0f} %.")  # fmt: skip
    else:
        found.append(f"It fails by {_REASONS[one.reason]}, from a room at {100 * one.phi_fails:.0f} % on.")
    return found


def _advice(one: Advice, page: MoisturePage) -> str:
    layer = layer_name(page.assembly, page.catalogue, one.layer)
    text = in_units(advice_text(one, layer, page.vapour), page.heading.units)
    return sentence_case(text)


def _months(year: ElementYear, written: Written) -> list[list[str]]:
    held, gained = year.year.M.sum(axis=1), year.year.g.sum(axis=1)
    return [
        [
            MONTHS[n],
            f"{written.full(one.theta_e, 'temperature')}, {100 * one.phi_e:.0f} %",
            f"{written.full(one.theta_i, 'temperature')}, {100 * one.phi_i:.0f} %",
            "–" if asked is None else f"{asked:.3f}",
            written.full(float(gained[n]), "condensate"),
            written.full(float(held[n]), "condensate"),
        ]
        for n, (one, asked) in enumerate(zip(year.months, year.required, strict=True))
    ]


def _hours(page: MoisturePage) -> list[str]:
    run = page.hours
    if run is None:
        return ["Not run as saved, or not kept: run it on the sheet."]
    found = [_HOURS[run.fails(page.damp)]]
    unit = unit_for("condensate", page.heading.units)
    found.append(f"{run.years} years from October, {'repeating' if run.repeats else 'not repeating yet'}; water gained "
                 f"less water let in {run.balance_error * unit.per_si:.0e} {unit.symbol}.")  # fmt: skip
    for at, layer in enumerate(run.wood):
        name = page.catalogue[page.assembly.layers[layer].material].name
        most = float(run.wood_share[run.last, at].max())
        found.append(f"{name}: at most {_percent(most)} water by mass in the last year, accepted "
                     f"{_percent(page.damp.wood)}.")  # fmt: skip
    place, index = run.worst_mould
    if place >= 0:
        layer = run.places[place].layer
        found.append(f"Mould index at most {index:.1f} on {page.catalogue[page.assembly.layers[layer].material].name}, "
                     f"accepted {page.damp.mould:g}.")  # fmt: skip
    for layer, day in run.dry_after:
        name = page.catalogue[page.assembly.layers[layer].material].name
        found.append(f"{name}: {'not below 85 % in that time' if day is None else f'below 85 % after {day} days'}.")
    return [*found, *map(sentence_case, run.notes)]

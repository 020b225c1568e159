"""The specification sheet of a build-up: drawn section, layers, R with its kind and method, assumptions, cautions."""

from __future__ import annotations

import json
import re
from dataclasses import dataclass
from pathlib import Path
from typing import Any

from nimble_shell.core.assemblies.assembly import CONTROLS, Assembly, Layer, Member
from nimble_shell.core.assemblies.fixing import Fixing
from nimble_shell.core.basis.basis import Basis
from nimble_shell.core.basis.schools import VapourQuantities
from nimble_shell.core.materials import Catalogue
from nimble_shell.core.quantities import show, unit_for
from nimble_shell.core.quantities.units import UnitSystem
from nimble_shell.core.remarks.remark import Remark
from nimble_shell.core.thermal.figures import WallFigures
from nimble_shell.core.thermal.resistance import LARGEST_RATIO
from nimble_shell.core.working import value_of
from nimble_shell.reports.section import length_text, wall_section

_HERE = Path(__file__).parent
_FILMS = {"iso6946": "ISO 6946 surface resistances", "north_american": "North American film values"}
_METHODS = {"parallel": "parallel paths", "isothermal": "isothermal planes", "combined": "combined limits"}
#: C0 and C1 control characters, which no typesetter takes.
_CONTROL = re.compile(r"[\x00-\x08\x0b-\x1f\x7f-\x9f\ud800-\udfff]")


@dataclass(frozen=True, slots=True, kw_only=True)
class Sheet:
    """What goes on the sheet: results and the names around them."""

    project: str
    building: str
    system: str
    assembly: Assembly
    basis: Basis
    wall: WallFigures
    remarks: tuple[Remark, ...]
    cautions: tuple[str, ...]
    catalogue: Catalogue
    edition: str
    changed_at: str
    revision: int
    zone: str
    asked: float | None  #: clear-wall R [m²·K/W]


def specification_pdf(sheet: Sheet) -> bytes:
    """The sheet as PDF, A4. The text travels as data, never as markup."""
    drawing = wall_section(sheet.assembly, sheet.catalogue, sheet.wall.profile, sheet.basis.schools.units)
    data = json.dumps(_content(sheet, drawing.scale))
    import typst  # not for every start

    pdf: bytes = typst.compile(
        str(_HERE / "specification.typ"),
        font_paths=[str(_HERE / "fonts")],
        ignore_system_fonts=True,
        sys_inputs={"data": data, "drawing": drawing.svg},
    )
    return pdf


def remark_text(text: str, remark: Remark, units: UnitSystem) -> str:
    """A remark's sentence with its values in the project's units."""
    for said in remark.values:
        length = said.dimension == "length"
        shown = length_text(said.value, units) if length else show(said.value, said.dimension, units)
        unit = "" if length and units == "IP" else f" {unit_for(said.dimension, units).symbol}"
        text = text.replace("{" + said.name + "}", f"{shown}{unit}")
    return text


def _content(sheet: Sheet, scale: float) -> dict[str, Any]:
    units = sheet.basis.schools.units
    layers = list(enumerate(sheet.assembly.layers, 1))
    return {
        "project": cleaned(sheet.project),
        "building": cleaned(sheet.building),
        "zone": sheet.zone,
        "title": cleaned(sheet.assembly.name),
        "system": sheet.system,
        "scale": f"1:{scale:g}",
        "condition": _condition(sheet, units),
        "length_unit": "mm" if units == "SI" else "ft, in",
        "units": {name: unit_for(name, units).symbol for name in ("conductivity", "resistance", "transmittance")},
        "vapour": _vapour(sheet.basis.schools.vapour, units),
        "layers": [row for number, layer in reversed(layers) for row in _rows(sheet, number, layer, units)],
        "points": _points(sheet, units),
        "properties": _properties(sheet),
        "figures": _figures(sheet, units),
        "assumptions": _assumptions(sheet, units),
        "remarks": [
            f"{remark_text(r.text, r, units)} {remark_text(r.clears, r, units)}" for r in sheet.remarks
        ],
        "cautions": list(sheet.cautions),
        "footer": f"revision {sheet.revision} · saved {sheet.changed_at[:16].replace('T', ' ')} UTC · "
        f"catalogue {sheet.edition}",
    }  # fmt: skip


def _vapour(school: VapourQuantities, units: UnitSystem) -> str:
    return f"s_d, {unit_for('air_layer', units).symbol}" if school == "sd" else unit_for("permeance", units).symbol


def _condition(sheet: Sheet, units: UnitSystem) -> str:
    moment = sheet.wall.profile.condition
    symbol = unit_for("temperature", units).symbol
    inside, outside = (show(theta, "temperature", units) for theta in (moment.theta_i, moment.theta_e))
    return f"Temperature line: {moment.name}, {outside} {symbol} outside, {inside} {symbol} inside."


def _rows(sheet: Sheet, number: int, layer: Layer, units: UnitSystem) -> list[list[str]]:
    counted = number <= sheet.wall.counted
    shares = layer.shares()
    if layer.material:
        material = sheet.catalogue[layer.material]
        lambda_ = layer.lambda_entered or material.lambda_
        name, conductivity = material.name, show(lambda_, "conductivity", units)
        source = "entered" if layer.lambda_entered else material.source
    else:
        assert layer.air is not None
        name, conductivity, source = f"Air layer, {layer.air.ventilation} ventilated", "–", "ISO 6946"
        name = name.replace("unventilated ventilated", "unventilated")
    if not counted:
        source = "outside the well-ventilated layer, not counted"
    share = show(1 - sum(shares), "share", units) if shares else "100"
    vapour = sheet.wall.figures.get(f"vapour_{number}")
    passes = "–" if vapour is None else show(value_of(vapour.number), vapour.dimension, units)
    rows = [[str(number), name, length_text(layer.d, units), conductivity, passes, share, source]]
    for member, part in zip(layer.members, shares, strict=True):
        material = sheet.catalogue[member.material]
        rows.append(["", _member(member, material.name, units), "", show(material.lambda_, "conductivity", units),
                     "", show(part, "share", units), material.source])  # fmt: skip
    return rows


def _points(sheet: Sheet, units: UnitSystem) -> list[str]:
    """Screws, ties and wires, in a sentence each."""
    where = {layer.id: number for number, layer in enumerate(sheet.assembly.layers, 1)}
    return [
        f"{cleaned(fixing.name)}, {sheet.catalogue[fixing.material].name}, through layer {where[fixing.layer]}: "
        f"{show(fixing.per_area, 'count_per_area', units)} {unit_for('count_per_area', units).symbol}, "
        f"{shank(fixing, units)}; counted by "
        f"{_method(sheet.assembly, fixing)}. Spacing is the engineer's."
        for fixing in sheet.assembly.fixings
    ]


def _method(assembly: Assembly, fixing: Fixing) -> str:
    return "the approximate procedure" if assembly.solved_ratio(fixing.id) is None else "the solved point"


def shank(fixing: Fixing, units: UnitSystem) -> str:
    unit = " mm" if units == "SI" else ""
    if fixing.diameter is not None:
        return f"diameter {length_text(fixing.diameter, units)}{unit}"
    return f"{length_text(fixing.t or 0.0, units)} by {length_text(fixing.h or 0.0, units)}{unit}"


def _properties(sheet: Sheet) -> list[str]:
    """Control lines, where layers are fitted, what is declared and what was substituted."""
    layers = list(enumerate(sheet.assembly.layers, 1))
    lines = [
        f"{control} line: "
        + (", ".join(f"layer {n}" for n, layer in layers if control in layer.control) or "not decided")
        for control in CONTROLS
    ]
    said = [f"Control lines. {'; '.join(lines)}."]
    for fitted, words in (("shop", "in the shop"), ("late", "on site after the air test")):
        numbers = ", ".join(str(n) for n, layer in layers if layer.fitted == fitted)
        if numbers:
            said.append(f"Fitted {words}: layers {numbers}.")
    passes = {
        words: sum(layer.passes for _, layer in layers if layer.material and layer.fitted == fitted)
        for fitted, words in (("shop", "in the shop"), ("site", "on site"), ("late", "after the air test"))
    }
    said.append(f"Working passes: {', '.join(f'{count} {words}' for words, count in passes.items() if count)}.")
    for n, layer in layers:
        said += [
            f"Layer {n}, declared {one.kind}: {cleaned(one.value)} ({cleaned(one.source)})." for one in layer.declared
        ]
        change = layer.substitution
        if change is not None:
            asked = sheet.catalogue[change.asked].name
            approved = f"approved by {cleaned(change.approved)}" if change.approved else "not approved"
            said.append(
                f"Layer {n}: {asked} was asked, another delivered; {approved}. {cleaned(change.reason)}".rstrip()
            )
    return said


def _member(member: Member, material: str, units: UnitSystem) -> str:
    where = f"{material}, {cleaned(member.name)}"
    if member.width is not None and member.centres is not None:
        where += f", {length_text(member.width, units)} at {length_text(member.centres, units)}"
    return where


def _figures(sheet: Sheet, units: UnitSystem) -> list[list[str]]:
    found = sheet.wall.figures
    order = (
        "nominal",
        "fresh",
        "parallel",
        "isothermal",
        "combined",
        "winter",
        "winter_clear",
        "summer",
        "summer_clear",
    )
    return [
        [
            found[f"R_{key}"].text.removeprefix("R, "),
            show(value_of(found[f"R_{key}"].number), "resistance", units),
            show(value_of(found[f"U_{key}"].number), "transmittance", units),
        ]
        for key in order
        if f"R_{key}" in found
    ]


def _assumptions(sheet: Sheet, units: UnitSystem) -> list[str]:
    schools = sheet.basis.schools
    found = sheet.wall.figures
    lines = [
        f"R and U are totals, environment to environment, with {_FILMS[schools.films]}.",
        f"Clear wall by {_METHODS[schools.bridged]}; members are owned by their area share. Joints, fixings and "
        "openings' edges are not in these figures.",
        f"Labelled conductivities at {show(schools.label_mean, 'temperature', units)} "
        f"{unit_for('temperature', units).symbol} mean, foams aged unless said.",
        f"Weight {show(value_of(found['weight'].number), 'surface_mass', units)} "
        f"{unit_for('surface_mass', units).symbol}; wall thickness {length_text(sheet.assembly.thickness, units)}"
        f"{' mm' if units == 'SI' else ''}.",
    ]
    if sheet.asked is not None:
        lines.append(f"Asked here: clear-wall R {show(sheet.asked, 'resistance', units)} "
                     f"{unit_for('resistance', units).symbol}.")  # fmt: skip
    if not sheet.wall.in_range:
        lines.append(
            f"The limits are more than {LARGEST_RATIO:g} apart: the combined value is outside its method's range."
        )
    return lines


def cleaned(text: str) -> str:
    return _CONTROL.sub("", text)

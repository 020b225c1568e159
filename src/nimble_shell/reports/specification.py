"""The specification sheet of a build-up: drawn section, layers, R with its kind and method, assumptions, cautions."""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import dataclass
from typing import Any

from nimble_shell.core.assemblies.assembly import CONTROLS, Assembly, Layer, Member, Substitution
from nimble_shell.core.assemblies.fixing import Fixing
from nimble_shell.core.basis.basis import Basis
from nimble_shell.core.basis.schools import VapourQuantities
from nimble_shell.core.materials import Catalogue
from nimble_shell.core.quantities.sentence import in_units
from nimble_shell.core.quantities.units import UnitSystem
from nimble_shell.core.remarks.remark import Remark
from nimble_shell.core.thermal.figures import WallFigures
from nimble_shell.core.thermal.resistance import LARGEST_RATIO
from nimble_shell.core.working import value_of
from nimble_shell.reports.page import footer, typeset
from nimble_shell.reports.section import wall_section
from nimble_shell.reports.written import Written, cleaned, length_text

_FILMS = {"iso6946": "ISO 6946 surface resistances", "north_american": "North American film values"}
_METHODS = {"parallel": "parallel paths", "isothermal": "isothermal planes", "combined": "combined limits"}


@dataclass(frozen=True, slots=True, kw_only=True)
class Sheet:
    """What goes on the sheet: results and the names around them."""

    project: str
    building: str
    system: str
    assembly: Assembly
    basis: Basis
    units: UnitSystem
    wall: WallFigures
    remarks: tuple[Remark, ...]
    cautions: tuple[str, ...]
    catalogue: Catalogue
    edition: str
    changed_at: str
    revision: int
    zone: str
    asked: float | None  #: clear-wall R [m²·K/W]
    open: tuple[str, ...] = ()  #: what is open in the building, each with its place; sentences


def specification_pdf(sheet: Sheet) -> bytes:
    """The sheet as PDF, A4."""
    drawing = wall_section(sheet.assembly, sheet.catalogue, sheet.wall.profile, sheet.units)
    return typeset("specification.typ", _content(sheet, drawing.scale), drawing.svg)


def remark_text(text: str, remark: Remark, units: UnitSystem) -> str:
    """A remark's sentence with its values in the project's units."""
    written = Written(units)
    for said in remark.values:
        shown = written.length(said.value) if said.dimension == "length" else written.full(said.value, said.dimension)
        text = text.replace("{" + said.name + "}", shown)
    return text


def _content(sheet: Sheet, scale: float) -> dict[str, Any]:
    units = sheet.units
    written = Written(units)
    layers = list(enumerate(sheet.assembly.layers, 1))
    return {
        "project": cleaned(sheet.project),
        "building": cleaned(sheet.building),
        "zone": sheet.zone,
        "title": cleaned(sheet.assembly.name),
        "system": sheet.system,
        "scale": f"1:{scale:g}",
        "condition": _condition(sheet, written),
        "length_unit": "mm" if units == "SI" else "ft, in",
        "units": {name: written.symbol(name) for name in ("conductivity", "resistance", "transmittance")},
        "vapour": _vapour(sheet.basis.schools.vapour, written),
        "layers": [row for number, layer in reversed(layers) for row in _rows(sheet, number, layer, written)],
        "points": _points(sheet, written),
        "properties": _properties(sheet),
        "figures": _figures(sheet, written),
        "assumptions": _assumptions(sheet, written),
        "remarks": [
            f"{remark_text(r.text, r, units)} {remark_text(r.clears, r, units)}" for r in sheet.remarks
        ],
        "open": [cleaned(in_units(one, units)) for one in sheet.open],
        "cautions": list(sheet.cautions),
        "footer": footer(sheet.revision, sheet.changed_at, sheet.edition),
    }  # fmt: skip


def _vapour(school: VapourQuantities, written: Written) -> str:
    return f"s_d, {written.symbol('air_layer')}" if school == "sd" else written.symbol("permeance")


def _condition(sheet: Sheet, written: Written) -> str:
    moment = sheet.wall.profile.condition
    inside, outside = (written.full(theta, "temperature") for theta in (moment.theta_i, moment.theta_e))
    return f"Temperature line: {moment.name}, {outside} outside, {inside} inside."


def _rows(sheet: Sheet, number: int, layer: Layer, written: Written) -> list[list[str]]:
    """A layer, and each of its members below it."""
    shares = layer.shares()
    name, conductivity, source = _filling(sheet, layer, written)
    if number > sheet.wall.counted:
        source = "outside the well-ventilated layer, not counted"
    share = written.number(1 - sum(shares), "share") if shares else "100"
    vapour = sheet.wall.figures.get(f"vapour_{number}")
    passes = "–" if vapour is None else written.number(value_of(vapour.number), vapour.dimension)
    rows = [[str(number), name, length_text(layer.d, written.units), conductivity, passes, share, source]]
    for member, part in zip(layer.members, shares, strict=True):
        material = sheet.catalogue[member.material]
        rows.append(["", _member(member, material.name, written.units), "",
                     written.number(material.lambda_, "conductivity"), "", written.number(part, "share"),
                     material.source])  # fmt: skip
    return rows


def _filling(sheet: Sheet, layer: Layer, written: Written) -> tuple[str, str, str]:
    """What a layer is of: its name, its conductivity, and where that comes from."""
    if layer.air is not None:
        how = "unventilated" if layer.air.ventilation == "unventilated" else f"{layer.air.ventilation} ventilated"
        return f"Air layer, {how}", "–", "ISO 6946"
    material = sheet.catalogue[layer.material]
    conductivity = written.number(layer.lambda_entered or material.lambda_, "conductivity")
    return material.name, conductivity, "entered" if layer.lambda_entered else material.source


def _points(sheet: Sheet, written: Written) -> list[str]:
    """Screws, ties and wires, in a sentence each."""
    where = {layer.id: number for number, layer in enumerate(sheet.assembly.layers, 1)}
    return [
        f"{cleaned(fixing.name)}, {sheet.catalogue[fixing.material].name}, through layer {where[fixing.layer]}: "
        f"{written.full(fixing.per_area, 'count_per_area')}, {shank(fixing, written)}; counted by "
        f"{_method(sheet.assembly, fixing)}. Spacing is the engineer's."
        for fixing in sheet.assembly.fixings
    ]


def _method(assembly: Assembly, fixing: Fixing) -> str:
    return "the approximate procedure" if assembly.solved_ratio(fixing.id) is None else "the solved point"


def shank(fixing: Fixing, written: Written) -> str:
    """What runs through the layer, in words."""
    if fixing.diameter is not None:
        return f"diameter {written.length(fixing.diameter)}"
    return f"{length_text(fixing.t or 0.0, written.units)} by {written.length(fixing.h or 0.0)}"


def _properties(sheet: Sheet) -> list[str]:
    """Control lines, where layers are fitted, what is declared and what was substituted."""
    layers = list(enumerate(sheet.assembly.layers, 1))
    said = [*_control_lines(layers), *_work(layers)]
    for n, layer in layers:
        said += [
            f"Layer {n}, declared {one.kind}: {cleaned(one.value)} ({cleaned(one.source)})." for one in layer.declared
        ]
        if layer.substitution is not None:
            said.append(_substituted(sheet, n, layer.substitution))
    return said


def _control_lines(layers: list[tuple[int, Layer]]) -> Iterator[str]:
    lines = [
        f"{control} line: "
        + (", ".join(f"layer {n}" for n, layer in layers if control in layer.control) or "not decided")
        for control in CONTROLS
    ]
    yield f"Control lines. {'; '.join(lines)}."


def _work(layers: list[tuple[int, Layer]]) -> Iterator[str]:
    """What is fitted where, and how many passes that takes."""
    places = {"shop": "in the shop", "site": "on site", "late": "after the air test"}
    for fitted, words in (("shop", places["shop"]), ("late", "on site after the air test")):
        numbers = ", ".join(str(n) for n, layer in layers if layer.fitted == fitted)
        if numbers:
            yield f"Fitted {words}: layers {numbers}."
    passes = {
        words: sum(layer.passes for _, layer in layers if layer.material and layer.fitted == fitted)
        for fitted, words in places.items()
    }
    yield f"Rounds of work: {', '.join(f'{count} {words}' for words, count in passes.items() if count)}."


def _substituted(sheet: Sheet, number: int, change: Substitution) -> str:
    approved = f"approved by {cleaned(change.approved)}" if change.approved else "not approved"
    asked = sheet.catalogue[change.asked].name
    return f"Layer {number}: {asked} was asked, another delivered; {approved}. {cleaned(change.reason)}".rstrip()


def _member(member: Member, material: str, units: UnitSystem) -> str:
    where = f"{material}, {cleaned(member.name)}"
    if member.width is not None and member.centres is not None:
        where += f", {length_text(member.width, units)} at {length_text(member.centres, units)}"
    return where


def _figures(sheet: Sheet, written: Written) -> list[list[str]]:
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
            written.number(value_of(found[f"R_{key}"].number), "resistance"),
            written.number(value_of(found[f"U_{key}"].number), "transmittance"),
        ]
        for key in order
        if f"R_{key}" in found
    ]


def _assumptions(sheet: Sheet, written: Written) -> list[str]:
    schools, full = sheet.basis.schools, written.full
    weight = value_of(sheet.wall.figures["weight"].number)
    lines = [
        f"R and U are totals, environment to environment, with {_FILMS[schools.films]}.",
        f"Clear wall by {_METHODS[schools.bridged]}; members are owned by their area share. Joints, fixings and "
        "openings' edges are not in these figures.",
        f"Labelled conductivities at {full(schools.label_mean, 'temperature')} mean, foams aged unless said.",
        f"Weight {full(weight, 'surface_mass')}; wall thickness {written.length(sheet.assembly.thickness)}.",
    ]
    if sheet.asked is not None:
        lines.append(f"Asked here: clear-wall R {full(sheet.asked, 'resistance')}.")
    if not sheet.wall.in_range:
        lines.append(
            f"The limits are more than {LARGEST_RATIO:g} apart: the combined value is outside its method's range."
        )
    return lines

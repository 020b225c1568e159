"""Remarks on control layers, services, points, substitutions and carrying."""

from __future__ import annotations

from collections.abc import Iterator

from nimble_shell.core.assemblies.assembly import Assembly
from nimble_shell.core.basis.basis import Basis
from nimble_shell.core.materials import Catalogue
from nimble_shell.core.remarks.remark import Remark, Said
from nimble_shell.core.thermal.amounts import layer_weights
from nimble_shell.core.thermal.control import continuity, enclosed_wettable, services_outside_air_line, share_inside
from nimble_shell.core.thermal.figures import WallFigures
from nimble_shell.core.thermal.resolve import LEAST_FIXING_LAMBDA


def control_remarks(assembly: Assembly, catalogue: Catalogue, basis: Basis, found: WallFigures) -> Iterator[Remark]:
    """What the order of the layers breaks, and what the points and pieces need."""
    yield from _lines(assembly)
    yield from _enclosed(assembly, catalogue, found)
    yield from _ratio(assembly, basis, found)
    yield from _points(assembly, catalogue)
    yield from _substitutions(assembly, catalogue)
    yield from _carrying(assembly, catalogue, basis)


def _name(assembly: Assembly, index: int, catalogue: Catalogue) -> str:
    layer = assembly.layers[index]
    return catalogue[layer.material].name if layer.material else "air layer"


def _lines(assembly: Assembly) -> Iterator[Remark]:
    missing = [line.control for line in continuity(assembly) if not line.layers]
    if missing:
        yield Remark(
            code="line_undecided",
            weight="note",
            text=f"No layer carries the {' and the '.join(missing)} line.",
            clears="Mark the layer that does; every break of a line is a joint to be decided.",
        )
    crossing = services_outside_air_line(assembly)
    if crossing is not None:
        service, air = crossing
        same = service == air
        yield Remark(
            code="services_pierce_air_line",
            weight="caution",
            layer=service,
            text="Services run in the air line itself."
            if same
            else f"Services run outside of the air line (layer {air + 1}) and pierce it.",
            clears="Give them a void inside of it, or seal every box and pipe and count them.",
        )


def _enclosed(assembly: Assembly, catalogue: Catalogue, found: WallFigures) -> Iterator[Remark]:
    for one in enclosed_wettable(assembly, catalogue, found.counted):
        yield Remark(
            code="wettable_between_tight",
            weight="caution",
            layer=one.layer,
            text=f"{_name(assembly, one.layer, catalogue)} lies between two vapour-tight layers "
            "(s_d {inside} and {outside}); what gets in hardly gets out.",
            clears="Open one side, best the outer one; the moisture step tells how much it dries.",
            values=(Said("inside", one.sd_inside, "air_layer"), Said("outside", one.sd_outside, "air_layer")),
        )


def _ratio(assembly: Assembly, basis: Basis, found: WallFigures) -> Iterator[Remark]:
    asked = basis.limits.inside_share
    inside = share_inside(assembly, list(found.R_layers))
    if asked is None or inside is None or inside.share <= asked:
        return
    plane = found.profile.planes[inside.layer]
    yield Remark(
        code="inside_share_over_limit",
        weight="caution",
        layer=inside.layer,
        text="{share} of the resistance lies inside the vapour-control plane; the rule allows {most}. "
        "At this moment the plane is at {theta}, saturation there leaves {spare}.",
        clears="Less insulation inside of it, or more outside. The rule of ratio by resistance of the field; "
        "the calculation beside it decides.",
        values=(
            Said("share", inside.share, "share"),
            Said("most", asked, "share"),
            Said("theta", plane.theta, "temperature"),
            Said("spare", plane.p_sat - plane.p, "pressure"),
        ),
    )


def _points(assembly: Assembly, catalogue: Catalogue) -> Iterator[Remark]:
    where = {layer.id: index for index, layer in enumerate(assembly.layers)}
    for fixing in assembly.fixings:
        if assembly.solved_ratio(fixing.id) is not None or catalogue[fixing.material].lambda_ < LEAST_FIXING_LAMBDA:
            continue
        index = where[fixing.layer]
        sides = [assembly.layers[n] for n in (index - 1, index + 1) if 0 <= n < len(assembly.layers)]
        families = [catalogue[side.material].family if side.material else "" for side in sides]
        if families.count("metal") == 2:
            yield Remark(
                code="points_between_metal",
                weight="caution",
                layer=index,
                text=f"{fixing.name.capitalize()} end in metal sheets: the approximate correction does not hold there.",
                clears="Take it as a lower bound; the solved point replaces it.",
            )
        elif families.count("panel") == 2:
            yield Remark(
                code="points_between_panels",
                weight="note",
                layer=index,
                text=f"{fixing.name.capitalize()} between wood skins: the approximate correction says too much, "
                "by a factor of 2 to 4.",
                clears="It is on the careful side; the solved point replaces it.",
            )


def _substitutions(assembly: Assembly, catalogue: Catalogue) -> Iterator[Remark]:
    for index, layer in enumerate(assembly.layers):
        change = layer.substitution
        if change is not None and not change.approved.strip():
            yield Remark(
                code="substitution_open",
                weight="decision",
                layer=index,
                text=f"{_name(assembly, index, catalogue)} stands where {catalogue[change.asked].name} was asked.",
                clears="Say who approved it, or put the asked material back.",
            )


def _carrying(assembly: Assembly, catalogue: Catalogue, basis: Basis) -> Iterator[Remark]:
    handling, heaviest = basis.handling, basis.handling.heaviest
    weights = layer_weights(assembly, catalogue)
    shop = sum(weight for weight, layer in zip(weights, assembly.layers, strict=True) if layer.fitted == "shop")
    module = _module(assembly)
    if module is not None and module > handling.access + 1e-9:
        yield Remark(
            code="wider_than_access",
            weight="caution",
            text="Pieces come {module} wide; the way to their place is {access} at its narrowest: they pass on edge "
            "only, and do not turn there.",
            clears="A smaller module, a crane over the narrow place, or another way.",
            values=(Said("module", module, "length"), Said("access", handling.access, "length")),
        )
    if heaviest is None or shop <= 0:
        return
    yield Remark(
        code="carried_by_hand",
        weight="note",
        text="What comes from the shop weighs {shop}. Without a crane, "
        f"{basis.handling.people} people carry pieces of up to {{area}}, "
        "and {access} wide where they lie flat.",
        clears="Smaller pieces, more people or a crane; local rules on lifting by hand decide.",
        values=(
            Said("shop", shop, "surface_mass"),
            Said("area", heaviest / shop, "area"),
            Said("access", handling.access, "length"),
        ),
    )


def _module(assembly: Assembly) -> float | None:
    """Width of a piece from the shop, by the spacing of what stands in its seams; None if not known. [m]"""
    centres = [
        member.centres
        for layer in assembly.layers
        if layer.fitted == "shop"
        for member in layer.members
        if member.joint == "seam" and member.centres is not None
    ]
    return max(centres, default=None)

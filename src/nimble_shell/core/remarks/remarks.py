"""What the tool has to say about a build-up: what triggered it, and what would clear it."""

from __future__ import annotations

from collections.abc import Iterator

from nimble_shell.core.assemblies.assembly import Assembly
from nimble_shell.core.basis.basis import Basis
from nimble_shell.core.basis.stations import misses
from nimble_shell.core.materials import Catalogue
from nimble_shell.core.remarks.control import control_remarks
from nimble_shell.core.remarks.remark import Remark, Said
from nimble_shell.core.studies.thickness import Study
from nimble_shell.core.thermal.figures import WallFigures
from nimble_shell.core.thermal.resistance import LARGEST_RATIO
from nimble_shell.core.working import value_of

_USUAL = (0.0, 0.8)  #: thickness of a layer whose material has no range of its own [m]
_METAL = 10.0  #: conductivity from which a member counts as metal [W/(m·K)]
_FOAM_COVER = ("panel", "render", "concrete", "masonry")


def remarks(
    assembly: Assembly,
    catalogue: Catalogue,
    basis: Basis,
    found: WallFigures,
    study: Study | None,
    *,
    asked: float | None,
) -> list[Remark]:
    """Everything worth saying, decisions first; `asked` is the clear-wall R wanted. [m²·K/W]"""
    every = [
        *_target(asked, found, study),
        *_method(assembly, catalogue, found),
        *_limits(basis, found),
        *_moisture(found),
        *control_remarks(assembly, catalogue, basis, found),
        *_foam_cover(assembly, catalogue),
        *_unusual(assembly, catalogue),
        *_spline(assembly, catalogue, study),
    ]
    order = {"decision": 0, "caution": 1, "note": 2}
    return sorted(every, key=lambda remark: order[remark.weight])


def _target(asked: float | None, found: WallFigures, study: Study | None) -> Iterator[Remark]:
    R = value_of(found.figures["R_clear"].number)
    if asked is None or not misses(R, asked):
        return
    values = [Said("short", asked - R, "resistance"), Said("asked", asked, "resistance")]
    ways = "Other members, a core that conducts less or another layer can close it."
    if study is not None and study.d_asked is not None:
        values.append(Said("core", study.d_asked, "length"))
        ways = "A core of {core} reaches it."
        longer = [point.d for point in study.stock if point.R_clear >= asked]
        if longer:
            values.append(Said("stock", min(longer), "length"))
            ways = "A core of {core} reaches it; the next in stock is {stock}."
    yield Remark(
        code="target_missed",
        weight="decision",
        text="Clear wall is {short} short of the asked {asked}.",
        clears=ways,
        values=tuple(values),
    )


def _limits(basis: Basis, found: WallFigures) -> Iterator[Remark]:
    for key, dimension, most in (
        ("thickness", "length", basis.limits.thickness),
        ("weight", "surface_mass", basis.limits.weight),
    ):
        value = value_of(found.figures[key].number)
        if most is not None and value > most:
            yield Remark(
                code=f"{key}_over_limit",
                weight="decision",
                text=f"The build-up's {key} is {{value}}; at most {{most}} is wanted.",
                clears="The foam study marks which variants keep it.",
                values=(Said("value", value, dimension), Said("most", most, dimension)),
            )


def _method(assembly: Assembly, catalogue: Catalogue, found: WallFigures) -> Iterator[Remark]:
    upper = value_of(found.figures["R_parallel"].number)
    lower = value_of(found.figures["R_isothermal"].number)
    if not found.in_range:
        yield Remark(
            code="combined_out_of_range",
            weight="caution",
            text=f"The upper limit is {upper / lower:.2f} times the lower; "
            f"the combined method holds up to {LARGEST_RATIO:g} (ISO 6946, 6.7.2.1).",
            clears="Take the isothermal value as the careful one until the joint is solved in two dimensions.",
        )
    for index, layer in enumerate(assembly.layers[: found.counted]):
        field = catalogue[layer.material].lambda_ if layer.material else 0.0
        for member in layer.members:
            if catalogue[member.material].lambda_ >= _METAL > field:
                yield Remark(
                    code="metal_through_insulation",
                    weight="caution",
                    layer=index,
                    text=f"Metal ({member.name}) runs through this layer; area shares do not describe it.",
                    clears="A plastic member, or the solved point value, replaces the estimate.",
                )


def _moisture(found: WallFigures) -> Iterator[Remark]:
    profile = found.profile
    closest = profile.curve[profile.closest]
    spare = closest.p_sat - closest.p
    if spare < 0:
        yield Remark(
            code="dew_in_section",
            weight="caution",
            text="At this moment vapour pressure passes saturation by {over} inside the section.",
            clears="A tighter layer inside of that plane or more insulation outside of it. A steady screen: "
            "it does not tell how much water gathers, nor whether it dries.",
            values=(Said("over", -spare, "pressure"),),
        )


def _foam_cover(assembly: Assembly, catalogue: Catalogue) -> Iterator[Remark]:
    first = assembly.layers[0]
    inside = catalogue[first.material] if first.material else None
    if inside is not None and inside.family == "foam":
        yield Remark(
            code="foam_exposed_inside",
            weight="caution",
            layer=0,
            text="Foam faces the room.",
            clears="Cover it with a thermal barrier; local fire rules decide which.",
        )
    last = assembly.layers[-1]
    outside = catalogue[last.material] if last.material else None
    if outside is not None and outside.family == "foam":
        yield Remark(
            code="foam_exposed_outside",
            weight="caution",
            layer=len(assembly.layers) - 1,
            text="Foam faces the weather; sun chalks it.",
            clears="Cover it with render or cladding.",
        )


def _unusual(assembly: Assembly, catalogue: Catalogue) -> Iterator[Remark]:
    for index, layer in enumerate(assembly.layers):
        if not layer.material:
            continue
        material = catalogue[layer.material]
        usual = material.usual or _USUAL
        if not usual[0] <= layer.d <= usual[1]:
            yield Remark(
                code="unusual_thickness",
                weight="note",
                layer=index,
                text=f"{material.name} is {{d}} thick; {{least}} to {{most}} is usual.",
                clears="Check the entry; it is calculated as it stands.",
                values=(
                    Said("d", layer.d, "length"),
                    Said("least", usual[0], "length"),
                    Said("most", usual[1], "length"),
                ),
            )
        if layer.lambda_entered and not 0.7 <= layer.lambda_entered / material.lambda_ <= 1.4:
            yield Remark(
                code="unusual_conductivity",
                weight="note",
                layer=index,
                text=f"λ of {material.name} is entered as {{entered}}; the catalogue has {{known}}.",
                clears="Note the test report that declares it, its mean temperature and whether it is aged.",
                values=(
                    Said("entered", layer.lambda_entered, "conductivity"),
                    Said("known", material.lambda_, "conductivity"),
                ),
            )


def _spline(assembly: Assembly, catalogue: Catalogue, study: Study | None) -> Iterator[Remark]:
    if study is None:
        return
    layer = assembly.layers[study.layer]
    core = catalogue[layer.material]
    lambda_core = layer.lambda_entered or core.lambda_
    for member, share in zip(layer.members, layer.shares(), strict=True):
        ratio = catalogue[member.material].lambda_ / lambda_core
        if ratio > 2:
            yield Remark(
                code="lossy_member",
                weight="note",
                layer=study.layer,
                text=f"Area for area, {member.name} conducts {ratio:.1f} times as much as the core; "
                f"it takes {{share}} of it.",
                clears="Wider centres, fewer pieces or a member with foam in it.",
                values=(Said("share", share, "share"),),
            )

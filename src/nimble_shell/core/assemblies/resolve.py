"""From what a designer edits to what the physics sees."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Literal

from nimble_shell.core.assemblies.air import A_V_LARGE, A_V_SMALL, air_layer_resistance
from nimble_shell.core.assemblies.assembly import Assembly, Layer, Member, check_materials
from nimble_shell.core.assemblies.conductivity import conductivity_at
from nimble_shell.core.assemblies.element import Element, ElementLayer, Part
from nimble_shell.core.assemblies.films import Direction, Films
from nimble_shell.core.errors import DomainError, Issue
from nimble_shell.core.materials import Catalogue, ConductivityTable, Material
from nimble_shell.core.working import Given, Num, named, plain, value_of

Age = Literal["aged", "fresh"]


@dataclass(frozen=True, slots=True, kw_only=True)
class Surroundings:
    """What a resolution needs to know beyond the assembly itself."""

    open_films: Films  #: where the outer layer meets the wind
    sheltered_films: Films  #: behind a well-ventilated layer
    direction: Direction = "horizontal"
    label_mean: float = 10.0  #: mean temperature of labelled conductivities [°C]
    age: Age = "aged"


@dataclass(frozen=True, slots=True, kw_only=True)
class Resolved:
    """The element, and what was left out of it."""

    element: Element
    counted: int  #: layers from inside that are part of the element
    openings: Num | None = None  #: of a slightly ventilated layer [m²/m]
    vented: Element | None = None  #: the element if that layer were well ventilated


def resolve(
    assembly: Assembly,
    catalogue: Catalogue,
    surroundings: Surroundings,
    *,
    given: Given = plain,
    prefix: str = "",
) -> Resolved:
    """The plane element of an assembly.

    Parameters
    ----------
    assembly : Assembly
        Layers inside → outside.
    catalogue : mapping of key to Material
    surroundings : Surroundings
    given : Given
        `plain` for figures, `traced` for working.
    prefix : str
        Set before the layer numbers in symbols, where one working needs the assembly twice.

    Raises
    ------
    DomainError
        If a material is unknown.

    Notes
    -----
    A well-ventilated layer and all outside of it are left out, and the outer film is still air. A slightly ventilated
    layer gives two elements to be interpolated between.

    References
    ----------
    .. [1] ISO 6946:2017, 6.9.3 (slightly ventilated), 6.9.4 (well ventilated).
    """
    check_materials(assembly, catalogue)
    cut = next((i for i, layer in enumerate(assembly.layers) if layer.air and layer.air.ventilation == "well"), None)
    if cut == 0:
        raise DomainError(
            Issue(
                path=("layers", 0),
                code="nothing_inside",
                message="the innermost layer is open to outside air, so nothing of the assembly counts",
                hint="put a layer inside of it, or make the air layer unventilated",
            )
        )
    counted = len(assembly.layers) if cut is None else cut
    layers = tuple(_layer(assembly, index, catalogue, surroundings, given, prefix) for index in range(counted))
    element = _element(layers, surroundings, given, sheltered=cut is not None)
    slight = next(
        (i for i, layer in enumerate(assembly.layers[:counted]) if layer.air and layer.air.ventilation == "slightly"),
        None,
    )
    if slight is None or slight == 0:
        return Resolved(element=element, counted=counted)
    air = assembly.layers[slight].air
    assert air is not None
    openings = given(air.A_v, "A_v", "openings of the slightly ventilated layer", "m²/m", "entered")
    vented = _element(layers[:slight], surroundings, given, sheltered=True)
    return Resolved(element=element, counted=counted, openings=openings, vented=vented)


def between(unventilated: Num, ventilated: Num, openings: Num, symbol: str, text: str) -> Num:
    """Resistance with a slightly ventilated layer, from the two it lies between. [m²·K/W]

    References
    ----------
    .. [1] ISO 6946:2017, 6.9.3.
    """
    span = A_V_LARGE - A_V_SMALL
    return named(
        (A_V_LARGE - openings) / span * unventilated + (openings - A_V_SMALL) / span * ventilated,
        symbol,
        text,
        "m²·K/W",
        "ISO 6946:2017, 6.9.3",
    )


def _element(layers: tuple[ElementLayer, ...], around: Surroundings, given: Given, *, sheltered: bool) -> Element:
    pair = around.sheltered_films if sheltered else around.open_films
    still = "_still" if sheltered else ""
    return Element(
        layers=layers,
        R_si=given(pair.R_si, "R_si", "internal surface resistance", "m²·K/W", pair.clause),
        R_se=given(pair.R_se, f"R_se{still}", "external surface resistance", "m²·K/W", pair.clause),
    )


def _layer(
    assembly: Assembly, index: int, catalogue: Catalogue, around: Surroundings, given: Given, prefix: str
) -> ElementLayer:
    layer = assembly.layers[index]
    tag = f"{prefix}{index + 1}"
    name = catalogue[layer.material].name if layer.material else "air layer"
    d = given(layer.d, f"d_{tag}", f"thickness, {name}", "m", "entered")
    shares = _member_shares(layer, tag, given)
    if layer.air is not None:
        faces = [
            given(_face(assembly, at, catalogue), f"epsilon_{tag}{side}", f"emissivity {words}", "", "catalogue")
            for at, side, words in ((index - 1, "in", "on the inside"), (index + 1, "out", "on the outside"))
        ]
        R = air_layer_resistance(d, faces[0], faces[1], direction=around.direction, theta_m=around.label_mean, tag=tag)
        main = Part(f=_rest(shares, tag), R=R)
    else:
        material = catalogue[layer.material]
        lambda_, table = _conductivity(material, layer.lambda_entered, around, given, tag)
        main = Part(f=_rest(shares, tag), lambda_=lambda_, table=table, rho=material.rho, c=material.c)
    bridges = [
        _bridge(catalogue[member.material], share, given, f"{tag}{chr(ord('b') + number)}", member)
        for number, (member, share) in enumerate(zip(layer.members, shares, strict=True))
    ]
    return ElementLayer(name=name, d=d, parts=(main, *bridges), group="", tag=tag)


def _rest(shares: list[Num], tag: str) -> Num:
    if not shares:
        return 1.0
    left: Num = 1.0
    for share in shares:
        left = left - share
    return named(left, f"f_{tag}", "area share of the field", "", "what the members leave")


def _member_shares(layer: Layer, tag: str, given: Given) -> list[Num]:
    own = [_own_share(member, f"{tag}{chr(ord('b') + n)}", given) for n, member in enumerate(layer.members)]
    horizontal: Num = 0.0
    for member, share in zip(layer.members, own, strict=True):
        if member.run == "horizontal":
            horizontal = horizontal + share
    result: list[Num] = []
    for number, (member, share) in enumerate(zip(layer.members, own, strict=True)):
        between_plates = member.run == "vertical" and value_of(horizontal) > 0
        symbol = f"f_{tag}{chr(ord('b') + number)}"
        result.append(
            named(
                share * (1 - horizontal),
                symbol,
                f"area share, {member.name} between the horizontal members",
                "",
                "vertical members stand between the horizontal ones",
            )
            if between_plates
            else share
        )
    return result


def _own_share(member: Member, tag: str, given: Given) -> Num:
    if member.share is not None:
        return given(member.share, f"s_{tag}", f"area share, {member.name}", "", "entered")
    assert member.width is not None
    assert member.centres is not None
    width = given(member.width, f"w_{tag}", f"width, {member.name}", "m", "entered")
    centres = given(member.centres, f"a_{tag}", f"centres, {member.name}", "m", "entered")
    return named(width / centres, f"s_{tag}", f"area share, {member.name}", "", "width over centres")


def _bridge(material: Material, share: Num, given: Given, tag: str, member: Member) -> Part:
    origin = f"catalogue: {material.name}, {material.source}"
    lambda_ = given(material.lambda_, f"lambda_{tag}", f"conductivity, {member.name}", "W/(m·K)", origin)
    return Part(f=share, lambda_=lambda_, rho=material.rho, c=material.c)


def _conductivity(
    material: Material, entered: float | None, around: Surroundings, given: Given, tag: str
) -> tuple[Num, ConductivityTable]:
    """λ at the label's mean temperature and the λ(θ) table that passes through it."""
    table = material.lambda_T
    base = material.lambda_
    origin = f"catalogue: {material.source}"
    if entered is not None:
        at_label = value_of(conductivity_at(table, around.label_mean)) if table else base
        table = tuple((theta, value * entered / at_label) for theta, value in table)
        origin = "entered"
    elif around.age == "fresh" and material.lambda_fresh is not None:
        table = tuple((theta, value * material.lambda_fresh / base) for theta, value in table)
        base = material.lambda_fresh
        origin += ", fresh"
    elif material.lambda_fresh is not None:
        origin += ", aged"
    label = value_of(conductivity_at(table, around.label_mean)) if table else entered or base
    text = f"conductivity, {material.name}" + (f", at {around.label_mean:g} °C mean" if table else "")
    return given(label, f"lambda_{tag}", text, "W/(m·K)", origin), table


def _face(assembly: Assembly, index: int, catalogue: Catalogue) -> float:
    if 0 <= index < len(assembly.layers) and assembly.layers[index].material:
        return catalogue[assembly.layers[index].material].emissivity
    return 0.9

"""From what a designer edits to what the physics sees."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from typing import Literal

from nimble_shell.core.assemblies.assembly import Assembly, Layer, Member, check_materials
from nimble_shell.core.assemblies.course import Course, ratio_at
from nimble_shell.core.assemblies.fixing import Fixing
from nimble_shell.core.basis.stations import Direction
from nimble_shell.core.errors import DomainError, Issue
from nimble_shell.core.materials import Catalogue, ConductivityTable, Material
from nimble_shell.core.materials.derived import is_hardcore
from nimble_shell.core.quantities.sentence import sentence
from nimble_shell.core.thermal.air import A_V_LARGE, A_V_SMALL, air_layer_resistance
from nimble_shell.core.thermal.conductivity import conductivity_at
from nimble_shell.core.thermal.element import LABEL_MEAN, Element, ElementLayer, Part
from nimble_shell.core.thermal.films import Films
from nimble_shell.core.thermal.resistance import Swept
from nimble_shell.core.working import Given, Num, named, plain, value_of

Age = Literal["aged", "fresh"]
LEAST_FIXING_LAMBDA = 1.0  #: points that conduct less need no correction, ISO 6946:2017, F.3 [W/(m·K)]


@dataclass(frozen=True, slots=True, kw_only=True)
class Surroundings:
    """What a resolution needs to know beyond the assembly itself."""

    open_films: Films  #: where the outer layer meets the wind
    sheltered_films: Films  #: behind a well-ventilated layer
    direction: Direction = "horizontal"
    label_mean: float = 10.0  #: mean temperature of labelled conductivities [°C]
    age: Age = "aged"


@dataclass(frozen=True, slots=True, kw_only=True)
class ResolvedFixing:
    """A group of points with the conductance it would have alone."""

    layer: int  #: index of the layer it goes through
    share: Num  #: of that layer's resistance which is gone through, 0…1
    conductance: Num  #: α·λ·A·n, per thickness still to be divided by [W/(m·K)]
    tag: str
    core: int = -1  #: the layer by whose thickness the solved part of it goes
    course: Course = ()  #: that part over its own now, by the layer's mean thickness [m]


@dataclass(frozen=True, slots=True, kw_only=True)
class Resolved:
    """The element, and what was left out of it."""

    element: Element
    counted: int  #: layers from inside that are part of the element
    openings: Num | None = None  #: of a slightly ventilated layer [m²/m]
    vented: Element | None = None  #: the element if that layer were well ventilated
    fixings: tuple[ResolvedFixing, ...] = ()
    hollows: tuple[float, ...] = ()  #: what ribs take off each layer's thickness [m]


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
    layer gives two elements to be interpolated between. Hardcore below a floor is as the ground is, and left to it.

    References
    ----------
    .. [1] ISO 6946:2017, 6.9.3 (slightly ventilated), 6.9.4 (well ventilated); ISO 13370:2017, 7.1 (hardcore).
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
    counted = _above_hardcore(assembly, catalogue) if cut is None else cut
    layers = tuple(_layer(assembly, index, catalogue, surroundings, given, prefix) for index in range(counted))
    element = _element(layers, surroundings, given, sheltered=cut is not None, ground=assembly.outside == "ground")
    slight = next(
        (i for i, layer in enumerate(assembly.layers[:counted]) if layer.air and layer.air.ventilation == "slightly"),
        None,
    )
    fixings = _fixings(assembly, counted, catalogue, given, prefix)
    hollows = tuple(layer.rib / 2 for layer in assembly.layers[:counted])
    if slight is None or slight == 0:
        return Resolved(element=element, counted=counted, fixings=fixings, hollows=hollows)
    air = assembly.layers[slight].air
    assert air is not None
    openings = given(air.A_v, "A_v", "openings of the slightly ventilated layer", "m²/m", "entered")
    vented = _element(layers[:slight], surroundings, given, sheltered=True)
    return Resolved(
        element=element, counted=counted, openings=openings, vented=vented, fixings=fixings, hollows=hollows
    )


def _above_hardcore(assembly: Assembly, catalogue: Catalogue) -> int:
    """Layers from inside, without gravel and soil that lie outermost below a floor; at least one."""
    counted = len(assembly.layers)
    while assembly.outside == "ground" and counted > 1:
        material = catalogue.get(assembly.layers[counted - 1].material or "")
        if material is None or not is_hardcore(material):
            break
        counted -= 1
    return counted


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


def _element(
    layers: tuple[ElementLayer, ...], around: Surroundings, given: Given, *, sheltered: bool, ground: bool = False
) -> Element:
    pair = around.sheltered_films if sheltered else around.open_films
    if ground:
        pair = Films(pair.R_si, 0.0, "ground contact: no outer film; the ground's own resistance is not in it")
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
    if layer.rib:
        rib = given(layer.rib, f"t_{tag}", f"profile depth, {name}", "m", "entered")
        d = named(d - rib / 2, f"dm_{tag}", f"mean thickness, {name}", "m", "ribs as wide as the hollows")
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


def _fixings(
    assembly: Assembly, counted: int, catalogue: Catalogue, given: Given, prefix: str
) -> tuple[ResolvedFixing, ...]:
    """Groups of points in counted layers; those that hardly conduct need no correction (ISO 6946:2017, F.3)."""
    where = {layer.id: index for index, layer in enumerate(assembly.layers[:counted])}
    found: list[ResolvedFixing] = []
    for number, fixing in enumerate(assembly.fixings, 1):
        material = catalogue[fixing.material]
        solved = assembly.solved_ratio(fixing.id)
        if fixing.layer not in where or (solved is None and not _approximated(assembly, fixing, material)):
            continue
        index = where[fixing.layer]
        tag = f"{prefix}f{number}"
        d = assembly.layers[index].d_mean
        depth = min(fixing.depth or d, d)
        share = given(depth / d, f"x_{tag}", f"share of the layer gone through, {fixing.name}", "", "entered")
        n = given(fixing.per_area, f"n_{tag}", f"number, {fixing.name}", "1/m²", "entered")
        area = given(fixing.area, f"A_{tag}", f"cross-section of one, {fixing.name}", "m²", "entered")
        lambda_ = given(material.lambda_, f"lambda_{tag}", f"conductivity, {fixing.name}", "W/(m·K)",
                        f"catalogue: {material.source}")  # fmt: skip
        core, course = -1, assembly.solved_course(fixing.id)
        if solved and len(course) > 1 and assembly.core_index is not None:
            core = assembly.core_index
            hollow = assembly.layers[core].d - assembly.layers[core].d_mean
            course = tuple((thickness - hollow, ratio / solved) for thickness, ratio in course)
        conductance = named(
            0.8 * share * lambda_ * area * n,
            f"G_{tag}",
            f"α·λ·A·n, {fixing.name}",
            "W/(m·K)",
            "ISO 6946:2017, F.3, α = 0.8·d₁/d₀",
        )
        if solved is not None:
            ratio = given(solved, f"k_{tag}", f"solved χ over the approximate one, {fixing.name}", "",
                          "solved in step 4; owned by the solved point")  # fmt: skip
            conductance = named(ratio * conductance, f"Gs_{tag}", f"α·λ·A·n as solved, {fixing.name}", "W/(m·K)",
                                "ISO 10211:2017, 11; by the ratio at the core's thickness")  # fmt: skip
        found.append(ResolvedFixing(layer=index, share=share, conductance=conductance, tag=tag, core=core,
                                    course=course))  # fmt: skip
    return tuple(found)


def _approximated(assembly: Assembly, fixing: Fixing, material: Material) -> bool:
    """Whether the approximate procedure counts a group: one that conducts, and is no web which members stand for."""
    stands = any(member.joint == "web" for layer in assembly.layers for member in layer.members)
    return material.lambda_ >= LEAST_FIXING_LAMBDA and not (fixing.kind == "web" and stands)


def fixings_transmittance(
    resolved: Resolved,
    nominal: Num,
    swept: Swept | None = None,
    key: str = "",
    R_layers: Sequence[Num] | None = None,
) -> Num | None:
    """ΔU_f of all groups of points; None without any. [W/(m²·K)]

    Parameters
    ----------
    resolved : Resolved
    nominal : float or Traced
        Total resistance through the field. [m²·K/W]
    swept : mapping of index to float, optional
        Layers and the mean thicknesses given to them. [m]
    key : str
        Suffix of the symbols.
    R_layers : sequence of float or Traced, optional
        Of the field of each layer where it is not the label's; of the same temperatures as `nominal`. [m²·K/W]

    References
    ----------
    .. [1] ISO 6946:2017, annex F, F.3: ΔU_f = α·(λ_f·A_f·n_f/d_0)·(R_1/R_tot)².
    """
    total: Num | None = None
    swept = swept or {}
    for fixing in resolved.fixings:
        layer = resolved.element.layers[fixing.layer]
        d = swept.get(fixing.layer, layer.d)
        R_layer = layer.resistance(0, d) if R_layers is None else R_layers[fixing.layer]
        R_1 = named(fixing.share * R_layer, f"R1_{fixing.tag}{key}", "resistance gone through",
                    "m²·K/W", "ISO 6946:2017, F.3")  # fmt: skip
        ratio = R_1 / nominal
        conductance = fixing.conductance
        if fixing.core in swept:
            conductance = conductance * ratio_at(fixing.course, value_of(swept[fixing.core]))
        one = named(conductance / d * ratio * ratio, f"dU_{fixing.tag}{key}", "correction of one group",
                    "W/(m²·K)", "ISO 6946:2017, F.3")  # fmt: skip
        total = one if total is None else total + one
    if total is None:
        return None
    return named(total + 0.0, f"dU_f{key}", "correction for points", "W/(m²·K)", "ISO 6946:2017, F.3, sum over groups")


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
    """λ at the label's mean temperature and the λ(θ) table that passes through it.

    The table gives the course with temperature; how high it lies is said by the design value, which is what is edited.
    """
    base = material.lambda_
    table = material.lambda_T
    if table and (passes := value_of(conductivity_at(table, LABEL_MEAN))) != base:
        table = tuple((theta, value * base / passes) for theta, value in table)
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
    text = f"conductivity, {material.name}"
    if table:
        text = sentence(f"{text}, at {{theta}} mean", theta=(around.label_mean, "temperature"))
    return given(label, f"lambda_{tag}", text, "W/(m·K)", origin), table


def _face(assembly: Assembly, index: int, catalogue: Catalogue) -> float:
    if 0 <= index < len(assembly.layers) and assembly.layers[index].material:
        return catalogue[assembly.layers[index].material].emissivity
    return 0.9

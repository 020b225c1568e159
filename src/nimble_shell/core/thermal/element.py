"""A plane element as the physics sees it: layers of parts between two films, inside → outside."""

from __future__ import annotations

from dataclasses import dataclass

from nimble_shell.core.errors import Collector, DomainError
from nimble_shell.core.materials import ConductivityTable
from nimble_shell.core.materials.material import check_table
from nimble_shell.core.quantities import limits
from nimble_shell.core.quantities.limits import within
from nimble_shell.core.quantities.sentence import sentence
from nimble_shell.core.working import Num, named, value_of

_THICKNESS = (1e-9, 10.0)  #: [m]
_MOST_PATHS = 1024  #: from side to side through bridged layers that cross each other
LABEL_MEAN = 10.0  #: mean temperature at which λ is declared in SI practice [°C]


@dataclass(frozen=True, slots=True, kw_only=True)
class Part:
    """One material across a share of a layer's area."""

    f: Num = 1.0  #: share of the layer's area, 0…1
    lambda_: Num | None = None  #: thermal conductivity at the label's mean temperature [W/(m·K)]
    table: ConductivityTable = ()  #: λ(θ), where known
    R: Num | None = None  #: given resistance, instead of a conductivity [m²·K/W]
    rho: float | None = None  #: density [kg/m³]
    c: float | None = None  #: specific heat capacity [J/(kg·K)]


@dataclass(frozen=True, slots=True, kw_only=True)
class ElementLayer:
    """A layer: one part if homogeneous, several if bridged; the first part is the field of the layer."""

    name: str
    d: Num = 0.0  #: thickness; 0 for a given resistance [m]
    parts: tuple[Part, ...]
    group: str = ""  #: layers of one group have their parts aligned; different groups cross independently
    tag: str = ""  #: distinguishes the symbols of this layer in the working

    def resistance(self, part: int = 0, d: Num | None = None) -> Num:
        """Thermal resistance of one of the parts, at the layer's own or another thickness [m]. [m²·K/W]"""
        chosen = self.parts[part]
        if chosen.R is not None:
            return chosen.R
        assert chosen.lambda_ is not None
        return named(
            (self.d if d is None else d) / chosen.lambda_,
            f"R_{self.tag}{_letter(part)}",
            f"resistance, {self.name}{', bridge' if part else ''}",
            "m²·K/W",
            "ISO 6946:2017, 6.7.1.1, R = d/λ",
        )


@dataclass(frozen=True, slots=True, kw_only=True)
class Element:
    """Layers inside → outside, between an internal and an external film."""

    layers: tuple[ElementLayer, ...]
    R_si: Num
    R_se: Num

    def __post_init__(self) -> None:
        check = Collector()
        groups: dict[str, tuple[int, tuple[float, ...]]] = {}
        paths = 1
        for where, film in (("Rsi", self.R_si), ("Rse", self.R_se)):
            check.check(
                0 <= value_of(film) < 10,
                ("films", where),
                "film_out_of_range",
                sentence("surface resistance is {v1}", v1=(value_of(film), "resistance")),
                "it lies from 0 to 10",
            )
        check.check(bool(self.layers), ("layers",), "no_layers", "there are no layers", "add at least one layer")
        for index, layer in enumerate(self.layers):
            try:
                _check_layer(layer)
            except DomainError as error:
                check.add(error.under("layers", index).issues)
                continue
            if layer.group not in groups:  # of one group only the first is a choice
                paths *= len(layer.parts)
            if layer.group and len(layer.parts) > 1:
                shares = tuple(value_of(part.f) for part in layer.parts)
                first, known = groups.setdefault(layer.group, (index, shares))
                same = len(known) == len(shares) and all(abs(a - b) < 1e-9 for a, b in zip(known, shares, strict=True))
                check.check(
                    same,
                    ("layers", index, "parts"),
                    "group_not_aligned",
                    f"shares {list(shares)} differ from {list(known)} of layer {first} in the same group "
                    f"“{layer.group}”",
                    "layers of one group are aligned and have equal shares; give another group name to cross them",
                )
        check.check(
            paths <= _MOST_PATHS,
            ("layers",),
            "too_many_paths",
            f"bridged layers that cross each other make {paths:,} paths from side to side",
            f"up to {_MOST_PATHS:,} are computed; give layers whose members are aligned one group",
        )
        check.refuse()


def _letter(part: int) -> str:
    return "" if part == 0 else chr(ord("a") + part)


def _check_layer(layer: ElementLayer) -> None:
    check = Collector()
    total = sum(value_of(part.f) for part in layer.parts)
    check.check(
        abs(total - 1) <= 1e-6,
        ("parts",),
        "shares_not_whole",
        f"the shares add up to {100 * total:.6g} %",
        "the shares of a layer add up to 100 %",
    )
    for index, part in enumerate(layer.parts):
        path: tuple[str | int, ...] = ("parts", index) if len(layer.parts) > 1 else ()
        f = value_of(part.f)
        check.check(
            0 < f <= 1,
            (*path, "f"),
            "share_out_of_range",
            f"share is {100 * f:g} %",
            "a share lies above 0 and up to 100 %",
        )
        check_table(part.table, check, (*path, "lambda_T"))
        if part.R is not None:
            R = value_of(part.R)
            if not 0 <= R < 1000:  # asked first: a sentence for every good layer would cost more than the rest
                check.check(
                    False,
                    (*path, "R"),
                    "resistance_not_physical",
                    sentence("resistance is {v1}", v1=(R, "resistance")),
                    sentence("a resistance lies from 0 to {v1}", v1=(1000.0, "resistance")),
                )
            continue
        d = value_of(layer.d)
        within(check, d, _THICKNESS, ("d",), "thickness_not_positive", "thickness", "distance")
        if part.lambda_ is not None:
            within(check, value_of(part.lambda_), limits.CONDUCTIVITY, (*path, "lambda"), "conductivity_not_positive",
                   "thermal conductivity", "conductivity")  # fmt: skip
        if part.rho is not None:
            within(check, part.rho, limits.DENSITY, (*path, "rho"), "density_not_positive", "density", "density")
        if part.c is not None:
            within(check, part.c, limits.SPECIFIC_HEAT, (*path, "c"), "density_not_positive", "specific heat",
                   "specific_heat")  # fmt: skip
    check.refuse()

"""What is taken of a material where it does not say itself: by its family, and flagged where water is concerned.

A material that says a thing itself is asked first, always; so a copy under another key is the same to every figure.
"""

from __future__ import annotations

from dataclasses import dataclass

from nimble_shell.core.materials.material import Material, MouldClass, SealingSurface, Wood


@dataclass(frozen=True, slots=True)
class Hygric:
    """Three figures from which the curves of sorption and liquid transport are drawn."""

    w80: float  #: at 80 % [kg/m³]
    w_f: float  #: free saturation [kg/m³]
    A: float  #: water absorption coefficient; 0 carries no liquid [kg/(m²·s^0.5)]


#: Sorption by family: w80 and w_f as shares of the density, and A [kg/(m²·s^0.5)].
_SORPTION: dict[str, tuple[float, float, float]] = {
    "timber": (0.15, 0.80, 0.003), "panel": (0.12, 0.60, 0.003), "concrete": (0.035, 0.08, 0.010),
    "masonry": (0.010, 0.12, 0.050), "render": (0.025, 0.14, 0.020), "fibre": (0.10, 1.00, 0.0),
    "fill": (0.005, 0.15, 0.0), "ground": (0.08, 0.25, 0.010),
}  # fmt: skip
_NO_STORE = frozenset({"foam", "metal", "membrane", "plastic", "glass"})
#: Growth of λ with each per cent of water by mass, by family. [%]
_LAMBDA_MOIST = {
    "timber": 1.4, "panel": 1.4, "concrete": 4.0, "masonry": 4.0, "render": 4.0, "fibre": 0.5, "fill": 4.0,
}  # fmt: skip
_HARDCORE_RHO, _HARDCORE_LAMBDA = 1000.0, 1.0  #: [kg/m³], [W/(m·K)]
_MOULD: dict[str, MouldClass] = {
    "timber": "very sensitive", "panel": "sensitive", "fibre": "sensitive", "concrete": "medium resistant",
    "masonry": "medium resistant", "render": "medium resistant", "foam": "medium resistant", "fill": "medium resistant",
}  # fmt: skip
_GREW = frozenset({"timber", "panel", "fibre"})
_TIGHT = frozenset({"foam", "metal", "membrane"})
_SURFACE: dict[str, SealingSurface] = {
    "foam": "foam", "timber": "wood", "concrete": "concrete", "masonry": "concrete", "metal": "metal",
    "plastic": "metal", "membrane": "membrane", "panel": "board", "render": "board",
}  # fmt: skip


def hygric_of(material: Material) -> tuple[Hygric | None, str]:
    """What a material holds of water, or None where that is nothing that counts; and what is said of a substitution."""
    if material.w80 is not None:
        if material.w80 == 0 or material.w_f is None or material.A_w is None:
            return None, ""
        return Hygric(material.w80, material.w_f, material.A_w), ""
    if material.family in _NO_STORE or material.sd is not None:
        return None, ""
    shares = _SORPTION.get(material.family)
    if shares is None:
        return None, f"{material.name} has no sorption data: taken not to store water"
    w80, w_f, A = shares[0] * material.rho, shares[1] * material.rho, shares[2]
    return Hygric(w80, w_f, A), f"{material.name} has no sorption data: derived from its density as {material.family}"


def is_hardcore(material: Material) -> bool:
    """Whether a layer of it below a floor is as the ground is: gravel, sand, soil, not a fill that insulates."""
    return material.family == "ground" or (
        material.family == "fill" and material.rho >= _HARDCORE_RHO and material.lambda_ >= _HARDCORE_LAMBDA
    )


def lambda_moist(material: Material) -> float:
    """Growth of λ with each per cent of water by mass. [%]"""
    own = material.lambda_moist
    return _LAMBDA_MOIST.get(material.family, 0.0) if own is None else own


def mould_class(material: Material) -> MouldClass:
    """Sensitivity to mould."""
    return material.mould or _MOULD.get(material.family, "resistant")


def feeds_mould(material: Material) -> bool:
    """Whether mould can live on it."""
    if material.feeds_mould is not None:
        return material.feeds_mould
    return material.family in _GREW and mould_class(material) in ("very sensitive", "sensitive")


def wood_of(material: Material) -> Wood:
    """Which limits of wood it has to keep."""
    return material.wood or ("solid" if material.family == "timber" else "no")


def wets(material: Material) -> bool:
    """Whether it swells, rots or loses its use when it is wet."""
    return material.family in _GREW if material.wets is None else material.wets


def takes_up(material: Material) -> bool:
    """Whether its face takes up water that condenses on it."""
    return material.family not in _TIGHT if material.takes_up is None else material.takes_up


def sealing_surface(material: Material) -> SealingSurface:
    """What a sealant or tape finds on it."""
    return material.surface or _SURFACE.get(material.family, "none")

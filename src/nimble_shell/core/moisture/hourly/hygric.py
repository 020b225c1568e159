"""What materials hold and carry of water: sorption, liquid transport, vapour resistance by humidity.

Values of the catalogue's materials are usual ones of their kind; what has none of its own is derived from its family,
and says so. A practice that has measured curves enters them in the neutral format.
"""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np

from nimble_shell.core.materials import Material
from nimble_shell.core.moisture.hourly.transport import Pairs, Stuff

_PHI = (0.0, 0.1, 0.2, 0.35, 0.5, 0.65, 0.8, 0.9, 0.95, 0.98, 0.99, 0.995, 1.0)
_AT_80 = 0.8
_DRY_CUP, _WET_CUP = 0.25, 0.8  #: mean relative humidities of both cups


@dataclass(frozen=True, slots=True)
class Hygric:
    """Three figures from which the curves are drawn."""

    w80: float  #: at 80 % [kg/m³]
    w_f: float  #: free saturation [kg/m³]
    A: float  #: water absorption coefficient; 0 carries no liquid [kg/(m²·s^0.5)]


#: Usual values; None stores nothing that counts.
_OWN: dict[str, Hygric] = {
    "concrete-reinforced": Hygric(85, 150, 0.008), "concrete": Hygric(80, 150, 0.012),
    "concrete-light": Hygric(40, 250, 0.030), "structural-mortar": Hygric(60, 240, 0.020),
    "brick": Hygric(9, 200, 0.170), "brick-hollow": Hygric(9, 180, 0.100), "concrete-block": Hygric(40, 180, 0.050),
    "aerated-block": Hygric(17, 340, 0.080), "lime-cement-plaster": Hygric(45, 220, 0.040),
    "cement-render": Hygric(40, 240, 0.010), "lime-plaster": Hygric(30, 250, 0.050),
    "clay-plaster": Hygric(25, 300, 0.060), "gypsum-plaster": Hygric(7, 400, 0.120),
    "thin-render": Hygric(35, 200, 0.002), "gypsum-board": Hygric(7, 400, 0.030),
    "gypsum-fibre": Hygric(14, 400, 0.030),
    "gypsum-sheathing": Hygric(7, 350, 0.008), "fibre-cement": Hygric(100, 350, 0.012),
    "magnesium-board": Hygric(60, 350, 0.015), "cement-particle": Hygric(100, 350, 0.006),
    "osb": Hygric(95, 470, 0.002), "plywood": Hygric(75, 380, 0.003), "particleboard": Hygric(95, 500, 0.005),
    "hardboard": Hygric(120, 550, 0.003), "mdf-open": Hygric(80, 420, 0.002), "softwood": Hygric(75, 420, 0.004),
    "hardwood": Hygric(105, 480, 0.003), "glulam": Hygric(72, 420, 0.004), "lvl": Hygric(75, 420, 0.003),
    "larch-boards": Hygric(88, 430, 0.003), "softwood-battens": Hygric(68, 420, 0.004),
    "wood-fibre-flex": Hygric(7.5, 300, 0.0), "wood-fibre-board": Hygric(20, 400, 0.004),
    "wood-fibre-sarking": Hygric(28, 450, 0.003), "cellulose-blown": Hygric(7, 350, 0.030),
    "hemp-batt": Hygric(5, 250, 0.0), "sheep-wool": Hygric(3, 150, 0.0), "straw-flat": Hygric(14, 300, 0.010),
    "straw-edge": Hygric(14, 300, 0.010), "straw-board": Hygric(50, 450, 0.015), "gravel": Hygric(5, 300, 0.050),
    "clay-soil": Hygric(150, 400, 0.010),
}  # fmt: skip
#: Of materials that have none of their own, by family: w80 and w_f as shares of the density, and A.
_DERIVED: dict[str, tuple[float, float, float]] = {
    "timber": (0.15, 0.80, 0.003), "panel": (0.12, 0.60, 0.003), "concrete": (0.035, 0.08, 0.010),
    "masonry": (0.010, 0.12, 0.050), "render": (0.025, 0.14, 0.020), "fibre": (0.10, 1.00, 0.0),
    "fill": (0.005, 0.15, 0.0), "ground": (0.08, 0.25, 0.010),
}  # fmt: skip
#: Families, and fibres by the beginning of their key, that store nothing which counts.
_NO_STORE = ("foam", "metal", "membrane", "plastic", "glass")
_MINERAL = ("mineral", "glass-wool", "stone-wool", "still-air", "foam-glass")
#: μ in the dry cup; the catalogue has the wet one.
_MU_DRY: dict[str, float] = {
    "osb": 150, "plywood": 200, "particleboard": 50, "hardboard": 30, "softwood": 50, "hardwood": 200, "glulam": 50,
    "lvl": 200, "larch-boards": 50, "softwood-battens": 50, "concrete-reinforced": 130, "concrete": 120,
    "structural-mortar": 40, "cement-particle": 80,
}  # fmt: skip
#: What everything else holds on its surfaces (φ, w [kg/m³]): so little that it counts nowhere, and enough that a tight
#: layer has a humidity of its own.
FILM: Pairs = ((0.0, 0.0), (1.0, 0.1))
VARIABLE = {"vapour-variable": 0.3}  #: s_d of a sheet when it is moist [m]
#: Growth of λ with each per cent of water by mass, by family.
_LAMBDA_W = {"timber": 1.4, "panel": 1.4, "concrete": 4.0, "masonry": 4.0, "render": 4.0, "fibre": 0.5, "fill": 4.0}
#: Water that a material brings along when it is fresh: concrete that was poured, plaster that was wet. [kg/m³]
FRESH = {
    "concrete-reinforced": 125.0, "concrete": 125.0, "concrete-light": 180.0, "structural-mortar": 180.0,
    "lime-cement-plaster": 200.0, "cement-render": 200.0, "lime-plaster": 220.0, "clay-plaster": 260.0,
    "gypsum-plaster": 300.0, "thin-render": 150.0,
}  # fmt: skip


def hygric_of(material: Material) -> tuple[Hygric | None, str]:
    """A material's three figures, or None where it stores nothing that counts; and what is said of a substitution."""
    own = _OWN.get(material.key)
    if own is not None:
        return own, ""
    if material.family in _NO_STORE or material.key.startswith(_MINERAL) or material.sd is not None:
        return None, ""
    shares = _DERIVED.get(material.family)
    if shares is None:
        return None, f"{material.name} has no sorption data: taken not to store water"
    w80, w_f, A = shares[0] * material.rho, shares[1] * material.rho, shares[2]
    return Hygric(w80, w_f, A), f"{material.name} has no sorption data: derived from its density as {material.family}"


def sorption(one: Hygric) -> Pairs:
    """(φ, w [kg/m³]) through zero, w80 and free saturation.

    References
    ----------
    .. [1] w = w_f·(b − 1)·φ/(b − φ), with b so that w(0.8) = w80.
    """
    b = _AT_80 * (one.w_f - one.w80) / (_AT_80 * one.w_f - one.w80)
    return tuple((phi, one.w_f * (b - 1) * phi / (b - phi)) for phi in _PHI)


def liquid(one: Hygric) -> Pairs | None:
    """(w, D_w [m²/s]); None where nothing is carried.

    References
    ----------
    .. [1] D_w = 3.8·(A/w_f)²·1000^(w/w_f − 1), log-linear in w.
    """
    if one.A <= 0:
        return None
    top = 3.8 * (one.A / one.w_f) ** 2
    return ((0.0, top / 1000), (one.w_f, top))


def stuff_of(material: Material, d: float, lambda_: float | None = None) -> tuple[Stuff, str]:
    """A material as the hourly calculation takes it, in a layer of thickness d [m]; and what was substituted.

    Parameters
    ----------
    lambda_ : float, optional
        Entered in its place. [W/(m·K)]
    """
    one, note = hygric_of(material)
    if material.sd is not None:
        moist = VARIABLE.get(material.key)
        mu: Pairs = (
            ((0.5, material.sd / d),)
            if moist is None
            else ((0.35, material.sd / d), (0.85, min(moist, material.sd) / d))
        )
    else:
        dry = _MU_DRY.get(material.key)
        mu = ((0.5, material.mu),) if dry is None else ((_DRY_CUP, dry), (_WET_CUP, material.mu))
    value = material.lambda_ if lambda_ is None else lambda_
    grows = _LAMBDA_W.get(material.family, 0.0) if one is not None else 0.0
    return Stuff(
        rho=material.rho, c=material.c, lambda_=value, lambda_w=value * grows / material.rho, mu=mu,
        sorption=FILM if one is None else sorption(one), Dw=None if one is None else liquid(one),
    ), note  # fmt: skip


def phi_of(pairs: Pairs, w: float) -> float:
    """Relative humidity at which a material holds w; at most 1. [kg/m³]"""
    phis, ws = zip(*pairs, strict=True)
    return float(np.interp(w, ws, phis))

"""What materials hold and carry of water as curves: sorption, liquid transport, vapour resistance by humidity.

A practice that has measured curves enters them in the neutral format.
"""

from __future__ import annotations

import numpy as np

from nimble_shell.core.materials import Material
from nimble_shell.core.materials.derived import Hygric, hygric_of, lambda_moist
from nimble_shell.core.moisture.hourly.transport import Pairs, Stuff

#: Rows of a known curve, so near to one another that its chords are the curve.
_PHI = (*(n / 20 for n in range(18)), *(0.9 + n / 100 for n in range(9)), 0.985, 0.99, 0.9925, 0.995, 0.9975, 1.0)
_AT_80 = 0.8
_DRY_CUP, _WET_CUP = 0.25, 0.8  #: mean relative humidities of both cups


#: What everything else holds on its surfaces (φ, w [kg/m³]): so little that it counts nowhere, and enough that a tight
#: layer has a humidity of its own.
FILM: Pairs = ((0.0, 0.0), (1.0, 0.1))


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
        moist = material.sd_moist
        mu: Pairs = (
            ((0.5, material.sd / d),)
            if moist is None
            else ((0.35, material.sd / d), (0.85, min(moist, material.sd) / d))
        )
    else:
        dry = material.mu_dry
        mu = ((0.5, material.mu),) if dry is None else ((_DRY_CUP, dry), (_WET_CUP, material.mu))
    value = material.lambda_ if lambda_ is None else lambda_
    grows = lambda_moist(material) if one is not None else 0.0
    return Stuff(
        rho=material.rho, c=material.c, lambda_=value, lambda_w=value * grows / material.rho, mu=mu,
        sorption=FILM if one is None else sorption(one), Dw=None if one is None else liquid(one),
    ), note  # fmt: skip


def phi_of(pairs: Pairs, w: float) -> float:
    """Relative humidity at which a material holds w; at most 1. [kg/m³]"""
    phis, ws = zip(*pairs, strict=True)
    return float(np.interp(w, ws, phis))

"""Correction for point fasteners through insulation, ISO 6946's approximate procedure."""

from __future__ import annotations

from dataclasses import dataclass

from nimble_shell.core.errors import Collector
from nimble_shell.core.quantities.limits import within
from nimble_shell.core.thermal.element import Element
from nimble_shell.core.thermal.resistance import resistances
from nimble_shell.core.working import value_of

_LIMITS = (1e-9, 1e6)  #: of every value, in its own unit


@dataclass(frozen=True, slots=True, kw_only=True)
class Fasteners:
    """Point fasteners through one layer."""

    n: float  #: number per area [1/m²]
    lambda_: float  #: conductivity of the fastener [W/(m·K)]
    A: float  #: cross-section of one [m²]
    d0: float  #: thickness of the layer that holds it [m]
    d1: float  #: length of fastener in that layer [m]
    layer: int  #: index of the layer, from inside


def fastener_correction(element: Element, fasteners: Fasteners) -> float:
    """ΔU for point fasteners, to be added to U. [W/(m²·K)]

    Parameters
    ----------
    element : Element
    fasteners : Fasteners

    Raises
    ------
    DomainError
        If a value is not positive or the layer does not exist.

    Notes
    -----
    ΔU_f = α·(λ_f·A_f·n_f/d_0)·(R_1/R_tot)², α = 0.8 for a fastener through the whole layer and 0.8·d_1/d_0 for a
    recessed one, whose R_1 is then that of the penetrated depth d_1. R_tot is the resistance without bridges. There
    is no correction when λ_f is below 1 W/(m·K). The procedure does not hold where both ends touch metal sheets.

    References
    ----------
    .. [1] ISO 6946:2017, annex F, F.3.
    """
    check = Collector()
    for name in ("n", "lambda_", "A", "d0", "d1"):
        value = getattr(fasteners, name)
        wire = name.rstrip("_")
        within(check, value, _LIMITS, ("fasteners", wire), "not_positive", wire)
    check.check(
        0 <= fasteners.layer < len(element.layers),
        ("fasteners", "layer"),
        "no_such_layer",
        f"there is no layer {fasteners.layer}",
        f"layers are numbered 0 to {len(element.layers) - 1}",
    )
    check.refuse()
    if fasteners.lambda_ < 1.0:
        return 0.0
    depth = min(fasteners.d1 / fasteners.d0, 1.0)
    R_1 = value_of(element.layers[fasteners.layer].resistance()) * depth
    R_tot = value_of(resistances(element).nominal)
    alpha = 0.8 * fasteners.d1 / fasteners.d0
    return alpha * fasteners.lambda_ * fasteners.A * fasteners.n / fasteners.d0 * (R_1 / R_tot) ** 2

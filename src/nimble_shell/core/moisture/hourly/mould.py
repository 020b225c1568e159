"""Growth of mould on building materials: an index from 0, nothing, to 6, all covered."""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

from nimble_shell.core.basis.damp import MouldSurface
from nimble_shell.core.materials.material import MouldClass
from nimble_shell.core.moisture.hourly.mould_kernel import MOST, follow

FloatArray = NDArray[np.float64]


@dataclass(frozen=True, slots=True, kw_only=True)
class Class:
    """A class of sensitivity."""

    k1: tuple[float, float]  #: rate against pine, below and from index 1
    A: float
    B: float
    C: float  #: of the largest index that a humidity allows
    RH_min: float  #: below which nothing grows [%]
    decline: float  #: against pine


#: Ojanen et al. (2010), tables 2 to 4: classes of materials, and of their decline.
CLASSES: dict[MouldClass, Class] = {
    "very sensitive": Class(k1=(1.0, 2.0), A=1.0, B=7.0, C=2.0, RH_min=80.0, decline=1.0),
    "sensitive": Class(k1=(0.578, 0.386), A=0.3, B=6.0, C=1.0, RH_min=80.0, decline=0.5),
    "medium resistant": Class(k1=(0.072, 0.097), A=0.0, B=5.0, C=1.5, RH_min=85.0, decline=0.25),
    "resistant": Class(k1=(0.033, 0.014), A=0.0, B=3.0, C=1.0, RH_min=85.0, decline=0.1),
}


SQ: dict[MouldSurface, float] = {"sawn": 0.0, "moderate": 0.5, "kiln dried": 1.0}  #: of the growth equation


def critical_humidity(theta: FloatArray, one: Class) -> FloatArray:
    """Relative humidity from which it grows. [%]"""
    grows = np.where(theta <= 20, -0.00267 * theta**3 + 0.160 * theta**2 - 3.13 * theta + 100.0, one.RH_min)
    return np.maximum(grows, one.RH_min)


def mould_index(
    theta: FloatArray, phi: FloatArray, classes: list[MouldClass], start: FloatArray | float = 0.0,
    surface: MouldSurface = "sawn",
) -> FloatArray:  # fmt: skip
    """The index after every hour.

    Parameters
    ----------
    theta, phi : ndarray, shape (hours, places)
        At the surface of the material. [°C], 0…1; above 1 counts as 1
    classes : list of str
        Of each place.
    start : float or ndarray, shape (places,)
        Index before the first hour.
    surface : {"sawn", "moderate", "kiln dried"}
        Its quality; on a dried surface it grows faster.

    Returns
    -------
    ndarray, shape (hours, places)

    Notes
    -----
    It declines once conditions have been unfavourable: for six hours, then not until a day has gone by, then slower.
    The clock begins anew after every hour of growth. Below 0 °C and above 50 °C nothing grows.

    References
    ----------
    .. [1] Hukka and Viitanen (1999); Ojanen et al. (2010), eq. 1 to 8, pine (W = 0); SQ by the surface.
    """
    kinds = [CLASSES[one] for one in classes]
    RH = 100 * np.minimum(phi, 1.0)
    crit = np.column_stack([critical_humidity(theta[:, at], kind) for at, kind in enumerate(kinds)])
    grows = (crit <= RH) & (theta > 0) & (theta <= 50)
    over = np.clip((crit - RH) / (crit - 100.0 - 1e-9), 0.0, 1.0)
    A, B, C = (np.array([getattr(kind, name) for kind in kinds]) for name in "ABC")
    most = np.clip(A + B * over - C * over**2, 0.0, MOST)
    warm = np.maximum(theta, 0.1)
    rate = 1 / (24 * 7 * np.exp(-0.68 * np.log(warm) - 13.9 * np.log(np.maximum(RH, 1.0)) - 0.33 * SQ[surface] + 66.02))
    k1 = np.array([kind.k1 for kind in kinds])
    decline = np.array([kind.decline for kind in kinds])
    M = np.zeros(theta.shape[1]) + start
    found: FloatArray = follow(rate, most, grows, k1, decline, M)
    return found

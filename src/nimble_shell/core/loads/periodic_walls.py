"""How walls answer a day's swings: layer matrices of ISO 13786 for all walls and harmonics at once."""

from __future__ import annotations

import math
from collections.abc import Iterable, Sequence
from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

from nimble_shell.core.errors import DomainError, Issue

ComplexArray = NDArray[np.complex128]
FloatArray = NDArray[np.float64]
HARMONICS = 12  #: of 24 values, beside the mean
_OMEGA = 2 * math.pi * np.arange(1, HARMONICS + 1) / 86400.0  #: [1/s]


@dataclass(frozen=True, slots=True, kw_only=True)
class MassLayer:
    """A layer with mass, or a bare resistance."""

    d: float = 0.0  #: [m]
    lambda_: float = 1.0  #: [W/(m·K)]
    rho: float = 0.0  #: [kg/m³]
    c: float = 0.0  #: [J/(kg·K)]
    R: float | None = None  #: alone [m²·K/W]

    @property
    def resistance(self) -> float:
        return self.d / self.lambda_ if self.R is None else self.R


@dataclass(frozen=True, slots=True, kw_only=True)
class MassWall:
    """Layers from inside to outside, between their films."""

    layers: tuple[MassLayer, ...]
    Rsi: float  #: [m²·K/W]
    Rse: float = 0.0
    adiabatic: bool = False  #: whether nothing passes its back

    @property
    def R(self) -> float:
        """From room to what lies beyond. [m²·K/W]"""
        return self.Rsi + sum(one.resistance for one in self.layers) + self.Rse


@dataclass(frozen=True, slots=True)
class Answers:
    """Of each wall to each harmonic from the mean on, shape (walls, 13)."""

    Y_ii: ComplexArray  #: heat into its inner side per kelvin of the room [W/(m²·K)]
    Y_ie: ComplexArray  #: heat into the room per kelvin outside [W/(m²·K)]
    F: ComplexArray  #: of a radiant gain on its inner side, what reaches the room


def answers(walls: Sequence[MassWall]) -> Answers:
    """Admittances and transmittances of walls to the harmonics of a day.

    Raises
    ------
    DomainError
        If a wall has no resistance at all, with its place in the path.

    Notes
    -----
    Every matrix is taken without the growth exp(Re κd) of its entries, so that no thickness overflows: the
    admittance is a ratio that does not see it, and the transmittance falls by it.

    References
    ----------
    .. [1] ISO 13786:2017, 7.2 and 7.3. θ and q from inside to outside by Z = Z_se·Z_N…Z_1·Z_si.
    """
    for at, wall in enumerate(walls):
        if wall.R <= 0:
            raise DomainError(Issue(path=("elements", at, "layers"), code="nothing_resists",
                                    message="neither its layers nor its films resist the heat",
                                    hint="a layer, or a film"))  # fmt: skip
    count, deep = len(walls), max((len(one.layers) for one in walls), default=0)
    shape = (count, HARMONICS)
    Z11, Z12 = np.ones(shape, complex), np.broadcast_to(-_column(one.Rsi for one in walls), shape).astype(complex)
    Z21, Z22, grown = np.zeros(shape, complex), np.ones(shape, complex), np.zeros(shape)
    for at in range(deep):
        M11, M12, M21, x = _matrices([one.layers[at] if at < len(one.layers) else _NOTHING for one in walls])
        Z11, Z12, Z21, Z22 = (
            M11 * Z11 + M12 * Z21,
            M11 * Z12 + M12 * Z22,
            M21 * Z11 + M11 * Z21,
            M21 * Z12 + M11 * Z22,
        )
        grown = grown + x
    Rse = _column(one.Rse for one in walls)
    Z11, Z12 = Z11 - Rse * Z21, Z12 - Rse * Z22
    closed = np.array([[one.adiabatic] for one in walls])
    with np.errstate(divide="ignore", invalid="ignore"):  # a massless wall with a closed back takes nothing up
        shut = np.where(Z21 == 0, 0.0, -Z21 / np.where(Z22 == 0, 1.0, Z22))
    Y_ii = np.where(closed, shut, -Z11 / Z12)
    Y_ie = np.where(closed, 0.0, -np.exp(-grown) / Z12)
    U = np.array([[0.0 if one.adiabatic else 1 / one.R] for one in walls])
    Y_ii, Y_ie = np.hstack([U, Y_ii]), np.hstack([U, Y_ie])
    F: ComplexArray = 1 - _column(one.Rsi for one in walls).astype(complex) * Y_ii
    return Answers(Y_ii, Y_ie, F)


_NOTHING = MassLayer(R=0.0)


def _column(values: Iterable[float]) -> FloatArray:
    return np.array([[one] for one in values])


def _matrices(layers: Sequence[MassLayer]) -> tuple[ComplexArray, ComplexArray, ComplexArray, FloatArray]:
    """M11, M12 and M21 of one layer of each wall over exp(x), and x."""
    mass = np.array([[one.R is None and one.rho * one.c > 0] for one in layers])
    lambda_ = _column(one.lambda_ for one in layers)
    capacity = np.where(mass, _column(one.rho * one.c for one in layers), 1.0)
    root = np.sqrt(_OMEGA * capacity / (2 * lambda_))
    kappa = (1 + 1j) * root
    x = np.where(mass, root * _column(one.d for one in layers), 0.0)
    near, far = np.exp(1j * x) / 2, np.exp(-2 * x - 1j * x) / 2
    cosh, sinh = near + far, near - far
    R = _column(one.resistance for one in layers)
    return (np.where(mass, cosh, 1.0), np.where(mass, -sinh / (lambda_ * kappa), -R),
            np.where(mass, -lambda_ * kappa * sinh, 0.0), x)  # fmt: skip

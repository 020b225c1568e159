"""The hot day of a room left alone whose vents stand open whenever it is colder outside."""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

from nimble_shell.core.airflow.venting import Vents, stack_flows
from nimble_shell.core.errors import NotConverged
from nimble_shell.core.loads.cooling_day import AIR, HOURS, CoolingCase, CoolingFigures

FloatArray = NDArray[np.float64]
_NEAR = 1e-9  #: [K]
_MOST = 200


@dataclass(frozen=True, slots=True, kw_only=True)
class VentedDay:
    """At each of 24 hours."""

    theta: FloatArray  #: of the room [°C]
    q: FloatArray  #: through the vents [m³/h]
    hour: int  #: of the greatest flow


def vented_day(case: CoolingCase, alone: CoolingFigures, vents: Vents) -> VentedDay:
    """The room of a cooling day with vents, on a day that repeats itself.

    Parameters
    ----------
    case : CoolingCase
    alone : CoolingFigures
        Of the same case.
    vents : Vents

    Raises
    ------
    NotConverged
        If no day is found that repeats itself.

    Notes
    -----
    At each hour the heat that the room lets go of, by its walls' answers and by q/3 for the vents, is what comes in;
    24 equations, solved again with the flow of the temperatures found, until these stay.
    """
    theta_e = np.array(case.theta_e)
    coming = alone.load + case.theta_i * alone.Y[0].real  # into a room at 0 °C
    answers = np.fft.irfft(alone.Y[:, None] * np.fft.rfft(np.eye(HOURS), axis=0), HOURS, axis=0)
    theta, off = alone.free, np.inf
    for _ in range(_MOST):
        q = stack_flows(vents, theta, theta_e)
        found = np.linalg.solve(answers + np.diag(q / AIR), coming + q / AIR * theta_e)
        theta, off = found, float(np.abs(found - theta).max())
        if off < _NEAR:
            return VentedDay(theta=theta, q=q, hour=int(np.argmax(q)))
    raise NotConverged(_MOST, off)

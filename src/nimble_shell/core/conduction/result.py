"""What a solved section tells: flows, couplings, temperatures, and the error they carry."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

FloatArray = NDArray[np.float64]


@dataclass(frozen=True, slots=True, kw_only=True)
class Extremes:
    """Coldest and warmest place of the surfaces of one environment. [°C], [m]"""

    min: float
    at: tuple[float, ...]
    max: float
    at_max: tuple[float, ...]


@dataclass(frozen=True, slots=True, eq=False, kw_only=True)
class Result:
    """A solved model. Flows in W/m for plane sections, in W for boxes and whole circles."""

    temperatures: Mapping[str, float]
    heat_flow: Mapping[str, float | None]  #: into the model through each environment; None where unbounded
    coupling: Mapping[tuple[str, str], float | None]  #: [W/(m·K)] or [W/K]
    points: FloatArray  #: temperatures where they were wanted, nan outside of the model [°C]
    surface: Mapping[str, Extremes]
    estimated_error: float  #: relative, of couplings, or of temperatures where a flow is unbounded; inf if not known
    unknowns: int
    steps: int  #: grids solved
    f_error: float | None = None  #: of `f_rsi`, estimated; None if not known [-]

    @property
    def balance(self) -> float | None:
        """Sum of the flows over the largest of them."""
        flows = [flow for flow in self.heat_flow.values() if flow is not None]
        if len(flows) < len(self.heat_flow):
            return None
        most = max(abs(flow) for flow in flows)
        return abs(sum(flows)) / most if most > 0 else 0.0

    @property
    def f_rsi(self) -> float | None:
        """Temperature factor of the coldest inner surface; for two environments only (ISO 10211, 3.1)."""
        if len(self.temperatures) != 2:
            return None
        (_, low), (warm, high) = sorted(self.temperatures.items(), key=lambda item: item[1])
        if high - low < 1e-9:
            return None
        return (self.surface[warm].min - low) / (high - low)


def flows_of(
    envs: tuple[str, ...], G: FloatArray, T: FloatArray, touching: frozenset[tuple[int, int]]
) -> tuple[dict[str, float | None], dict[tuple[str, str], float | None]]:
    """Flow into the model by environment, and coupling of every pair.

    Between two prescribed temperatures that meet in a point the flow has no finite value: None.
    """
    unbounded = {at for pair in touching if T[pair[0]] != T[pair[1]] for at in pair}
    flows: dict[str, float | None] = {}
    coupling: dict[tuple[str, str], float | None] = {}
    for i, env in enumerate(envs):
        flows[env] = None if i in unbounded else float(G[i] @ (T - T.mean()))
        for j in range(i + 1, len(envs)):
            coupling[(env, envs[j])] = None if (i, j) in touching else float(-G[i, j])
    return flows, coupling

"""Figures of joints that nobody has to solve."""

from __future__ import annotations

from nimble_shell.core.conduction.result import Extremes
from nimble_shell.core.joints.solved import JointFigures

NOWHERE = (0.0, 0.0)


def figures_of(psi: float, f_rsi: float | None) -> JointFigures:
    """Of a joint between inside and outside: the same ψ in every dimension system. [W/(m·K)]"""
    return JointFigures(
        coupling={("inside", "outside"): 1.0},
        psi={("inside", "outside"): {"internal": psi, "overall": psi, "external": psi}},
        error=1e-4,
        certain=None,
        heat_flow={"inside": 30.0, "outside": -30.0},
        balance=0.0,
        f_rsi=f_rsi,
        f_error=1e-4,
        coldest=Extremes(min=17.0, at=NOWHERE, max=19.0, at_max=NOWHERE),
        temperatures={"inside": 20.0, "outside": -10.0},
        unknowns=1000,
    )

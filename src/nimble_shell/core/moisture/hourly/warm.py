"""Run what is compiled once, so that no question waits for it."""

from __future__ import annotations

import numpy as np

from nimble_shell.core.materials import CATALOGUE
from nimble_shell.core.moisture.hourly.hygric import stuff_of
from nimble_shell.core.moisture.hourly.mould import mould_index
from nimble_shell.core.moisture.hourly.transport import Boundaries, Films, Slab, run


def warm() -> None:
    """A few hours of a board; the first call after a change of the source compiles, the others load."""
    board = stuff_of(CATALOGUE["osb"], 0.012)[0]
    hours = np.full(2, 10.0)
    climate = Boundaries(theta_e=hours, p_e=80 * hours, theta_i=2 * hours, p_i=100 * hours)
    found = run([Slab(stuff=board, d=0.012)], Films(), climate, 15.0, 0.6, 2)
    mould_index(found.theta, found.phi, ["sensitive"] * found.theta.shape[1])


if __name__ == "__main__":
    warm()

"""Types of windows and doors of the Main Laboratory; the other buildings have entered U until somebody chooses."""

from __future__ import annotations

from nimble_shell.core.windows.transmittance import Frame, Glass
from nimble_shell.core.windows.unit import UnitType

_TIMBER = Frame(left=0.105, right=0.105, top=0.105, bottom=0.115, U=1.0)
_TRIPLE = Glass(U=0.6, g=0.5, psi=0.036)
_SPACER = "warm edge, plastic"
UNITS: tuple[UnitType, ...] = (
    UnitType(id="laboratory", name="Laboratory window", w=1.5, h=1.4, sill=0.9, frame=_TIMBER, glass=_TRIPLE,
             spacer=_SPACER, columns=2, division=0.14, deep=0.09, position=0.3, fin=True, flashing=0.01, mass=95.0,
             price=1180.0),
    UnitType(id="store", name="Store window", w=1.2, h=1.0, sill=0.36, frame=_TIMBER, glass=_TRIPLE, spacer=_SPACER,
             opens="top hung", deep=0.09, position=0.3, fin=True, flashing=0.01, mass=56.0, price=690.0),
    UnitType(id="gable", name="Gable light", opens="fixed", w=1.4, h=1.0, sill=1.96, glass=_TRIPLE, spacer=_SPACER,
             frame=Frame(left=0.07, right=0.07, top=0.07, bottom=0.08, U=0.95), deep=0.09, position=0.3, fin=True,
             flashing=0.01, mass=61.0, price=620.0),
    UnitType(id="entrance", name="Entrance door", kind="door", opens="inward", w=1.0, h=2.2, sill=0.0,
             frame=Frame(left=0.12, right=0.12, top=0.12, bottom=0.08, U=1.2), glass=_TRIPLE, spacer=_SPACER, rows=2,
             division=0.15, filled=1, panel_U=0.7, panel_psi=0.03, deep=0.08, position=0.4, shim=0.01, mass=88.0,
             price=2150.0),
)  # fmt: skip


def unit_of(building: str, w: float, h: float) -> str:
    """The type of an opening by its size [m]; empty for none."""
    if building != "main-laboratory":
        return ""
    return next((one.id for one in UNITS if (one.w, one.h) == (w, h)), "")

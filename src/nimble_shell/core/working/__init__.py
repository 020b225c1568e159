"""Show working: numbers that remember how they were made.

The physics is written once, for plain floats and for `Traced` numbers alike. Run with floats it is the live
figure; run with traced numbers the same lines of code leave a `Derivation`, so the working shown to the user is
the executed calculation and cannot drift from it.
"""

from nimble_shell.core.working.derivation import Derivation, Step, derive, derive_one
from nimble_shell.core.working.traced import Given, Num, Traced, apply, exp, named, plain, power, traced, value_of

__all__ = [
    "Derivation",
    "Given",
    "Num",
    "Step",
    "Traced",
    "apply",
    "derive",
    "derive_one",
    "exp",
    "named",
    "plain",
    "power",
    "traced",
    "value_of",
]

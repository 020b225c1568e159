"""What is decided of the Boat Workshop's forms, with mistakes left in.

Its foam blocks came short and were measured in two courses; it is to be filled faster than its forms are rated for; one
day ended between two board joints.
"""

from __future__ import annotations

from nimble_shell.core.setout.courses.choices import CastIn, FootingLevel, FormChoices, ReadBlocks
from nimble_shell.core.shop.wet_choices import BaleReading, CastLog, MortarTest, WetChoices
from nimble_shell.core.site.choices import (
    BraceRow,
    CraneRow,
    LiftChoices,
    LoggedDay,
    PourChoices,
    StringLine,
)

_ENGINEER = "structural engineer's sheet S-11"
FORMS: dict[str, FormChoices] = {
    "boat-workshop": FormChoices(
        long=0.6, short=0.4,
        read=(ReadBlocks(wall="b1.4.p1", courses=(
            (1.197, 1.196, 1.198, 1.195, 1.197, 1.198, 1.196), (1.196, 1.197, 1.197, 1.196, 1.198, 1.197, 1.196),
        )),),
        levels=(FootingLevel(wall="b1.1", u=0.5, z=0.003), FootingLevel(wall="b1.1", u=7.4, z=-0.006)),
        cast=(
            CastIn(kind="hanger", name="LH-2", wall="b1.1", z=1.83, spacing=0.6, by=_ENGINEER),
            CastIn(kind="dowel", name="D16", wall="b1.4", z=0.1, spacing=0.4, by=_ENGINEER),
            CastIn(kind="service sleeve", name="water", wall="b1.4", z=0.45, at=(1.4,), by="services drawing 3"),
        ),
        sheet_uses=17, sheet_most=20,
    ),
}  # fmt: skip
POURS: dict[str, PourChoices] = {
    "boat-workshop": PourChoices(
        C2=0.45, temperature=12.0, rate=1.6, rated=40.0, in_lifts=False, max_lift=2.7, month=10,
        braces=(BraceRow(height=0.6, spacing=3.0), BraceRow(height=2.4, spacing=1.8),
                BraceRow(height=3.6, spacing=1.2)),
        strings=(StringLine(wall="b1.1", u=0.6, before=0.006, after=0.001),
                 StringLine(wall="b1.1", u=4.0, before=0.005, after=-0.007)),
        days=(LoggedDay(run="b1.3", level=0.74),),
    ),
}  # fmt: skip
#: A cold week stopped the clock, and the second panel was lifted as if it had gone on.
WETS: dict[str, WetChoices] = {
    "seed-barn": WetChoices(
        month=5, days=(11.0, 10.5, 9.0, 7.0, 4.0, 3.5, 3.0, 4.5, 6.5, 9.5, 11.0, 12.0),
        cast=(CastLog(panel="A-01", cast=0), CastLog(panel="A-02", cast=0, lifted=10)),
        bales=(BaleReading(panel="A-01", moisture=0.15), BaleReading(panel="A-03", moisture=0.17)),
    ),
    "pump-house": WetChoices(
        dowel=0.4, probes=(MortarTest(face="A", thickness=0.034), MortarTest(face="B", thickness=0.026)),
    ),
}  # fmt: skip
LIFTS: dict[str, LiftChoices] = {
    "seed-barn": LiftChoices(
        table=(CraneRow(radius=4.0, mass=4800.0), CraneRow(radius=8.0, mass=2600.0), CraneRow(radius=12.0, mass=1500.0),
               CraneRow(radius=16.0, mass=950.0), CraneRow(radius=20.0, mass=650.0)),
        radius=8.0,
    ),
    "main-laboratory": LiftChoices(
        table=(CraneRow(radius=4.0, mass=3000.0), CraneRow(radius=10.0, mass=1400.0),
               CraneRow(radius=18.0, mass=600.0)),
        radius=12.0,
    ),
}  # fmt: skip

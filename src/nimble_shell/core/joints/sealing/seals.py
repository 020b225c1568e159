"""How a joint is kept tight: its seals in the order of work, what each carries, and what they come to together."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from typing import Literal

from nimble_shell.core.basis.damp import LEAKAGES
from nimble_shell.core.joints.drawing import Seal

SealedLine = Literal["rain", "air", "vapour", "heat"]
LineState = Literal["continuous", "broken", "undecided"]
LINES: tuple[SealedLine, ...] = ("rain", "air", "vapour", "heat")
#: Grades by how many seals carry air.
GRADES = ("open", "one line", "two lines", "three lines")
Leakages = Sequence[tuple[float, float]]


def graded(leakages: Leakages = LEAKAGES) -> tuple[tuple[str, float, float], ...]:
    """Grades with their leakages at 50 Pa, low and high. [m³/(h·m)]"""
    return tuple((name, low, high) for name, (low, high) in zip(GRADES, leakages, strict=True))


SEALANTS = ("polyurethane", "silicone", "acrylic", "butyl", "solvent-borne")
TAPES = ("acrylic tape", "butyl tape", "bitumen tape")
#: What a sealant or tape does on a surface; what is not named holds.
_ON: dict[tuple[str, str], str] = {
    ("solvent-borne", "foam"): "dissolves the foam",
    ("bitumen tape", "foam"): "its plasticisers soften the foam; ask the maker of both",
    ("silicone", "membrane"): "does not hold on polyolefin membranes",
    ("silicone", "wood"): "needs a primer on raw wood",
    ("acrylic", "metal"): "needs a primer on bare metal",
    ("acrylic tape", "concrete"): "needs a primer on concrete",
    ("acrylic tape", "foam"): "foam that chalked in the sun is washed first",
    ("butyl tape", "concrete"): "needs a primer on concrete",
    ("bitumen tape", "concrete"): "needs a primer on concrete",
    ("acrylic tape", "render"): "needs a primer on plaster and mortar",
    ("butyl tape", "wood"): "needs a primer on rough OSB",
}
DrainsTo = Literal["", "outside", "inside"]
LEAST_FALL = 0.05  #: from which a sill or flashing drains by itself; a starting value [-]
_STOPS = ("dissolves", "does not hold")


@dataclass(frozen=True, slots=True, kw_only=True)
class SealingStep:
    """One thing that is done, in the order of work."""

    key: str
    kind: Seal | Literal["work"]
    text: str
    carries: tuple[SealedLine, ...] = ()  #: lines it keeps whole here
    covers: tuple[str, ...] = ()  #: steps that can no longer be seen after it
    over: str = ""  #: of a lap: the step whose sheet this one lies over
    needed: bool = False  #: a seal that must not be left out, or a gap that must stay open
    falls: bool = False  #: water runs off on it: it has to fall outwards, and to end outside
    beads: int = 1  #: of a bead: how many lie beside one another


@dataclass(frozen=True, slots=True, kw_only=True)
class SealingFinding:
    """Something about the seals to be decided or known."""

    weight: Literal["decision", "caution", "note"]
    text: str


@dataclass(frozen=True, slots=True, kw_only=True)
class Sealing:
    """A schedule with what was left out of it, judged."""

    steps: tuple[SealingStep, ...]
    omitted: tuple[str, ...]
    lines: tuple[tuple[SealedLine, LineState], ...]
    grade: str
    leakage: tuple[float, float]  #: at 50 Pa [m³/(h·m)]
    falls: bool  #: whether water runs off on anything of it
    findings: tuple[SealingFinding, ...]


@dataclass(frozen=True, slots=True, kw_only=True)
class Sealed:
    """How a joint is sealed, as far as somebody has said."""

    omitted: Sequence[str] = ()  #: keys of the steps that are left out
    decided: bool = False  #: somebody has said that this is how it is built
    sealant: str = "polyurethane"  #: of SEALANTS
    tape: str = "acrylic tape"  #: of TAPES
    fall: float | None = None  #: of what water runs off on, outwards; rise over run [-]
    drains_to: DrainsTo = ""  #: where the drained path ends


def judge(
    steps: Sequence[SealingStep],
    sealed: Sealed,
    *,
    heat: bool,
    surfaces: Sequence[str],
    leakages: Leakages = LEAKAGES,
) -> Sealing:
    """What the chosen seals come to.

    Parameters
    ----------
    steps : sequence of SealingStep
        The schedule, in the order of work.
    sealed : Sealed
    heat : bool
        Whether the insulation goes through the joint.
    surfaces : sequence of str
        Kinds of surface they meet: "foam", "wood", "concrete", "metal", "membrane", "render".
    leakages : sequence of (float, float)
        Of each grade, low and high. [m³/(h·m)]

    Notes
    -----
    A line is continuous where at least one chosen step carries it. Undecided lines stay undecided until somebody says.
    A lap is wrong where the sheet that lies over is fitted before the one under it, where it does not fall outwards, or
    where what runs off on it ends inside of the rain line; then that line is broken.
    """
    done = [step for step in steps if step.key not in sealed.omitted]
    order = {step.key: at for at, step in enumerate(done)}
    falling = [step for step in done if step.falls]
    count = min(sum("air" in step.carries for step in done), len(GRADES) - 1)
    grade, low, high = graded(leakages)[count]
    findings = [
        *_left_out(steps, sealed.omitted),
        *_laps(done, order),
        *_falls(falling, sealed.fall, sealed.drains_to),
        *_hidden(done, order),
        *_materials(done, sealed.sealant, sealed.tape, surfaces),
    ]
    if not sealed.decided:
        findings.append(SealingFinding(weight="note", text="Nobody has said yet that the joint is sealed this way."))
    if count == 0:
        findings.insert(0, SealingFinding(weight="decision", text="No seal carries the air line: room air reaches the "
                                                           "cold side here. Add one on the warm side."))  # fmt: skip
    return Sealing(
        steps=tuple(steps),
        omitted=tuple(sealed.omitted),
        lines=tuple((line, _state(line, steps, done, sealed, heat=heat)) for line in LINES),
        grade=grade,
        leakage=(low, high),
        falls=any(step.falls for step in steps),
        findings=tuple(findings),
    )


def _state(
    line: SealedLine, steps: Sequence[SealingStep], done: Sequence[SealingStep], sealed: Sealed, *, heat: bool
) -> LineState:
    if line == "heat":
        return "continuous" if heat else "broken"
    inwards = sealed.drains_to == "inside" or (sealed.fall is not None and sealed.fall <= 0)
    if line == "rain" and inwards and any(step.falls for step in done):
        return "broken"
    if not any(line in step.carries for step in steps):
        return "undecided"
    if not any(line in step.carries for step in done):
        return "broken"
    return "continuous" if sealed.decided else "undecided"


def _left_out(steps: Sequence[SealingStep], omitted: Sequence[str]) -> list[SealingFinding]:
    return [
        SealingFinding(
            weight="decision",
            text=f"{'This has to stay open' if step.kind == 'drain' else 'This must not be left out'}: {step.text}.",
        )
        for step in steps
        if step.needed and step.key in omitted
    ]


def _laps(done: Sequence[SealingStep], order: dict[str, int]) -> list[SealingFinding]:
    found = []
    for step in done:
        if step.over and step.over in order and order[step.over] > order[step.key]:
            under = next(one for one in done if one.key == step.over)
            found.append(
                SealingFinding(
                    weight="decision",
                    text=f"Reversed lap: “{step.text}” lies over “{under.text}”, "
                    "which is fitted later. Upper over lower.",
                )
            )
    return found


def _falls(falling: Sequence[SealingStep], fall: float | None, drains_to: DrainsTo) -> list[SealingFinding]:
    """Whether what water runs off on is sloped, and where its path ends."""
    if not falling:
        return []
    words = " and ".join(f"“{step.text}”" for step in falling)
    found = []
    if fall is None:
        found.append(SealingFinding(weight="note", text=f"Nobody has said yet how {words} falls."))
    elif fall <= 0:
        found.append(
            SealingFinding(weight="decision", text=f"Water stands or runs in: {words} does not fall outwards.")
        )
    elif fall < LEAST_FALL:
        found.append(SealingFinding(weight="caution", text=f"{words} falls by {100 * fall:.1f} %; it drains by itself "
                                                    f"from {100 * LEAST_FALL:.0f} %."))  # fmt: skip
    if not drains_to:
        found.append(SealingFinding(weight="note", text="Nobody has said yet where the drained path ends."))
    elif drains_to == "inside":
        found.append(
            SealingFinding(
                weight="decision",
                text="The drained path ends inside of the rain line. Lead it out over the membrane or flashing below.",
            )
        )
    return found


def _hidden(done: Sequence[SealingStep], order: dict[str, int]) -> list[SealingFinding]:
    return [
        SealingFinding(
            weight="caution", text=f"Look before it is covered: {step.text} hides {_words(done, step.covers)}."
        )
        for step in done
        if any(key in order and order[key] < order[step.key] for key in step.covers)
    ]


def _words(done: Sequence[SealingStep], keys: Sequence[str]) -> str:
    return " and ".join(f"“{step.text}”" for step in done if step.key in keys)


def _materials(done: Sequence[SealingStep], sealant: str, tape: str, surfaces: Sequence[str]) -> list[SealingFinding]:
    kinds = {step.kind for step in done}
    used = [sealant] if kinds & {"bead", "gasket"} else []
    used += [tape] if kinds & {"tape", "lap"} else []
    found = []
    for one in used:
        for surface in dict.fromkeys(surfaces):
            said = _ON.get((one, surface))
            if said:
                weight: Literal["decision", "caution"] = "decision" if said.startswith(_STOPS) else "caution"
                found.append(SealingFinding(weight=weight, text=f"{one.capitalize()} on {surface}: {said}."))
    return found

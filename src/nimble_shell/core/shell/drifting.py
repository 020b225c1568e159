"""Foam blocks of a one-sided form against its rigid sheets, as they were measured wall by wall."""

from __future__ import annotations

from dataclasses import dataclass

from nimble_shell.core.setout.courses.choices import FormChoices, ReadBlocks
from nimble_shell.core.setout.courses.form_runs import FormRun
from nimble_shell.core.setout.drift import DriftCase, Mended, back_to_nought, mend

_M = 1000.0


@dataclass(frozen=True, slots=True, kw_only=True)
class WallDrift:
    """Of one wall: what is measured, and what brings it back."""

    wall: str
    blocks: int  #: along the wall
    case: DriftCase | None  #: of its whole courses; None while none is measured to its end
    begun: tuple[float, ...]  #: drift of a course that is only begun [mm]
    mended: Mended | None  #: None where nothing brings it back, or nothing is measured
    back: tuple[float, ...]  #: trims that bring each joint back to nought [mm]

    @property
    def worst(self) -> float:
        """Left alone, sheets over nominal cut. [mm]"""
        rows = () if self.case is None else self.case.before
        return max((abs(one) for row in (*rows, self.begun) for one in row), default=0.0)


def blocks_along(run: FormRun, wall: int) -> int:
    """Whole blocks between the longest legs of a wall: the places that are measured."""
    legs = [run.run.legs(wall, course) for course in (0, 1)]
    clear = run.run.walls[wall].length - max(one.left for one in legs) - max(one.right for one in legs)
    return max(1, int((clear + 1e-6) // run.run.block.length))


def drift_of(run: FormRun, wall: int, choices: FormChoices) -> WallDrift:
    """One wall of a one-sided run."""
    blocks, key = blocks_along(run, wall), run.walls[wall].id
    read = choices.read_of(key) or ReadBlocks(wall=key)
    nominal = choices.block * _M
    sheets = tuple(read.sheets[n] * _M if n < len(read.sheets) else nominal for n in range(blocks))
    whole = [row[:blocks] for row in read.courses if len(row) >= blocks]
    begun = next((row for row in read.courses if len(row) < blocks), ())
    case = DriftCase(
        nominal=nominal, sheets=sheets, courses=tuple(tuple(one * _M for one in row) for row in whole),
        tolerance=choices.tolerance * _M, step=choices.step * _M, max_trim=choices.max_trim * _M,
        thickness=(run.form.thickness + choices.sheet) * _M,
    )  # fmt: skip
    part, off = list[float](), 0.0
    for block, sheet in zip(begun, sheets, strict=False):
        off += block * _M - min(sheet, nominal)
        part.append(off)
    if not whole:
        return WallDrift(wall=key, blocks=blocks, case=None, begun=tuple(part), mended=None, back=())
    return WallDrift(wall=key, blocks=blocks, case=case, begun=tuple(part), mended=mend(case),
                     back=back_to_nought(case))  # fmt: skip

"""Windows of the neutral shell case: ISO 10077-1 by parts, and what their setting adds."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from typing import Annotated

from pydantic import Field

from nimble_shell.core.errors import Collector, DomainError, Path
from nimble_shell.core.windows.transmittance import (
    Bar,
    Division,
    Frame,
    Glass,
    Panel,
    Window,
    WindowFigures,
    window_figures,
)
from nimble_shell.core.working import value_of
from nimble_shell.formats.neutral_shell.values import NotNegative, Positive, Share, each, only_once
from nimble_shell.formats.strict import Number, Strict

Place = Annotated[int, Field(ge=0, strict=True)]


class FrameCase(Strict):
    left: NotNegative
    right: NotNegative
    top: NotNegative
    bottom: NotNegative
    U: Positive


class GlassCase(Strict):
    U: Positive
    g: Share
    psi: Number


class MullionCase(Strict):
    x: Number
    b: Positive
    U: Positive | None = None


class TransomCase(Strict):
    z: Number
    b: Positive
    U: Positive | None = None


class PanelCase(Strict):
    col: Place
    row: Place
    U: Positive
    psi: Number


class BarCase(Strict):
    l: Positive  # noqa: E741 - as the format writes it
    psi: Number


class InstallCase(Strict):
    head: Number
    sill: Number
    jamb: Number


class WindowCase(Strict):
    id: str
    w: Positive
    h: Positive
    frame: FrameCase
    glass: GlassCase
    mullions: list[MullionCase] = []
    transoms: list[TransomCase] = []
    panels: list[PanelCase] = []
    bars: list[BarCase] = []
    install: InstallCase | None = None
    shutter_dR: NotNegative | None = None

    def window(self) -> Window:
        return Window(
            w=self.w, h=self.h, frame=Frame(**self.frame.model_dump()), glass=Glass(**self.glass.model_dump()),
            mullions=tuple(Division(at=one.x, b=one.b, U=one.U) for one in self.mullions),
            transoms=tuple(Division(at=one.z, b=one.b, U=one.U) for one in self.transoms),
            panels=tuple(Panel(**one.model_dump()) for one in self.panels),
            bars=tuple(Bar(**one.model_dump()) for one in self.bars),
        )  # fmt: skip


@dataclass(frozen=True, slots=True)
class AnsweredWindow:
    """A unit, and what its setting adds."""

    figures: WindowFigures
    L_install: float  #: [W/K]
    answer: dict[str, float]


def windows_of(cases: Sequence[WindowCase]) -> dict[str, AnsweredWindow]:
    """Figures of each unit by its id.

    Raises
    ------
    DomainError
        With the path of what is wrong in the case file.
    """
    check = Collector()
    only_once(check, (one.id for one in cases), "windows")
    check.refuse()
    return dict(each(cases, _answer, "windows"))


def _answer(case: WindowCase, path: Path) -> tuple[str, AnsweredWindow]:
    try:
        found = window_figures(case.window())
    except DomainError as error:
        raise error.under(*path) from None
    U_w, added = value_of(found.U_w), 0.0
    names = ("A", "A_g", "A_p", "A_f", "l_g", "l_p")
    answer = {name: getattr(found, name) for name in names} | {"U_w": U_w, "g_w": found.g_w}
    if case.shutter_dR is not None:
        answer["U_ws"] = 1 / (1 / U_w + case.shutter_dR)
    if case.install is not None:
        added = case.w * (case.install.head + case.install.sill) + 2 * case.h * case.install.jamb
        answer |= {"L_install": added, "U_installed": U_w + added / found.A}
    return case.id, AnsweredWindow(found, added, answer)

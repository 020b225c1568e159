"""Heat through a window or door, from its frame, its glass and the edge between them."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from itertools import pairwise

from nimble_shell.core.errors import Collector
from nimble_shell.core.quantities.sentence import sentence
from nimble_shell.core.working import Given, Num, named, plain


@dataclass(frozen=True, slots=True, kw_only=True)
class Frame:
    """What runs round the unit."""

    left: float  #: visible width [m]
    right: float
    top: float
    bottom: float
    U: float  #: [W/(m²·K)]


@dataclass(frozen=True, slots=True, kw_only=True)
class Glass:
    """A glazing with its spacer."""

    U: float  #: of its centre [W/(m²·K)]
    g: float  #: total solar energy transmittance, 0…1
    psi: float  #: of its edge, with the spacer in the frame [W/(m·K)]


@dataclass(frozen=True, slots=True, kw_only=True)
class Division:
    """A mullion, which runs the full clear height, or a transom between mullions."""

    at: float  #: its axis, from the unit's left edge or from its bottom [m]
    b: float  #: visible width [m]
    U: float | None = None  #: that of the frame where there is none [W/(m²·K)]


@dataclass(frozen=True, slots=True, kw_only=True)
class Panel:
    """A light that is no glass."""

    col: int  #: from the left, from 0
    row: int  #: from below, from 0
    U: float  #: [W/(m²·K)]
    psi: float  #: of its edge [W/(m·K)]


@dataclass(frozen=True, slots=True, kw_only=True)
class Bar:
    """Glazing bars that lie on or in the glass."""

    l: float  # noqa: E741 - length as the standard writes it [m]
    psi: float  #: [W/(m·K)]


@dataclass(frozen=True, slots=True, kw_only=True)
class Window:
    """A unit by its parts."""

    w: float  #: outer size of the frame [m]
    h: float
    frame: Frame
    glass: Glass
    mullions: tuple[Division, ...] = ()
    transoms: tuple[Division, ...] = ()
    panels: tuple[Panel, ...] = ()
    bars: tuple[Bar, ...] = ()


@dataclass(frozen=True, slots=True, kw_only=True)
class Light:
    """An opening of the frame. [m]"""

    col: int
    row: int
    x: float  #: of its left edge, from the unit's
    z: float  #: of its lower edge, from the unit's
    w: float
    h: float


@dataclass(frozen=True, slots=True, kw_only=True)
class WindowFigures:
    """What it comes to."""

    A: float  #: [m²]
    A_g: float
    A_p: float
    A_f: float
    l_g: float  #: visible perimeter of the glass [m]
    l_p: float
    U_w: Num  #: [W/(m²·K)]
    g_w: float


def lights(window: Window) -> tuple[Light, ...]:
    """The openings of its frame, from below and from the left.

    Raises
    ------
    DomainError
        If a width leaves no light, with the path of the part.
    """
    frame = window.frame
    check = Collector()
    columns = _spans(check, ("mullions",), frame.left, window.w - frame.right, window.mullions)
    rows = _spans(check, ("transoms",), frame.bottom, window.h - frame.top, window.transoms)
    check.refuse()
    return tuple(
        Light(col=c, row=r, x=left, z=low, w=right - left, h=high - low)
        for r, (low, high) in enumerate(rows)
        for c, (left, right) in enumerate(columns)
    )


def _spans(
    check: Collector, path: tuple[str, ...], start: float, end: float, divisions: Sequence[Division]
) -> list[tuple[float, float]]:
    """What is clear between the frame's two sides and the divisions."""
    if end - start <= 0:
        check.check(False, ("frame",), "frame_too_wide",
                    sentence("the frame leaves {v} of clear width", v=(end - start, "length")),
                    "a wider unit, or a narrower frame")  # fmt: skip
        return []
    order = sorted(range(len(divisions)), key=lambda n: divisions[n].at)
    cuts = [(start, start), *((divisions[n].at - divisions[n].b / 2, divisions[n].at + divisions[n].b / 2)
                              for n in order), (end, end)]  # fmt: skip
    found = []
    for place, ((_, low), (high, _)) in enumerate(pairwise(cuts)):
        n = order[min(place, len(order) - 1)] if order else 0
        check.check(high > low, (*path, n), "no_light_between",
                    sentence("{v} is left for a light beside it", v=(high - low, "length")),
                    "place it further from what is beside it")  # fmt: skip
        found.append((low, high))
    return found


def window_figures(window: Window, given: Given = plain) -> WindowFigures:
    """Transmittance of a window or door.

    Parameters
    ----------
    window : Window
    given : Given
        `plain` for figures, `traced` for working.

    Returns
    -------
    WindowFigures
        Areas [m²], visible perimeters [m], U_w [W/(m²·K)], g_w.

    Raises
    ------
    DomainError
        If the parts leave no light, or a panel names one that is not there.

    References
    ----------
    .. [1] ISO 10077-1:2017, 6.4.2, equation (1): areas of glass, panels and frame, and the edges of each light.
    """
    clear = lights(window)
    places = {(one.col, one.row): one for one in clear}
    _check_panels(window, places)
    panels = {(one.col, one.row): one for one in window.panels}
    glazed = [one for one in clear if (one.col, one.row) not in panels]
    A = window.w * window.h
    A_g, l_g = sum(one.w * one.h for one in glazed), sum(2 * (one.w + one.h) for one in glazed)
    A_p = sum(places[key].w * places[key].h for key in panels)
    l_p = sum(2 * (places[key].w + places[key].h) for key in panels)
    whole = given(A, "A_w", "area of the unit", "m²", "width × height")
    loss = _frame_loss(window, A - A_g - A_p, given)
    if A_g:
        loss = loss + _times(given, A_g, "A_g", "area of the glass", "m²", "visible, all lights",
                             window.glass.U, "U_g", "transmittance of the glass", "W/(m²·K)")  # fmt: skip
        loss = loss + _times(given, l_g, "l_g", "visible perimeter of the glass", "m", "each light on its own",
                             window.glass.psi, "psi_g", "edge of the glass with its spacer", "W/(m·K)")  # fmt: skip
    for n, (key, panel) in enumerate(panels.items(), 1):
        light = places[key]
        loss = loss + _times(given, light.w * light.h, f"A_p{n}", "area of a panel", "m²", "visible",
                             panel.U, f"U_p{n}", "transmittance of a panel", "W/(m²·K)")  # fmt: skip
        loss = loss + _times(given, 2 * (light.w + light.h), f"l_p{n}", "visible perimeter of a panel", "m", "visible",
                             panel.psi, f"psi_p{n}", "edge of a panel", "W/(m·K)")  # fmt: skip
    for n, bar in enumerate(window.bars, 1):
        loss = loss + _times(given, bar.l, f"l_bar{n}", "glazing bars", "m", "together",
                             bar.psi, f"psi_bar{n}", "a glazing bar", "W/(m·K)")  # fmt: skip
    U_w = named(loss / whole, "U_w", "transmittance of the unit", "W/(m²·K)", "ISO 10077-1:2017, 6.4.2, eq. (1)")
    return WindowFigures(A=A, A_g=A_g, A_p=A_p, A_f=A - A_g - A_p, l_g=l_g, l_p=l_p, U_w=U_w,
                         g_w=window.glass.g * A_g / A)  # fmt: skip


def _check_panels(window: Window, places: dict[tuple[int, int], Light]) -> None:
    check = Collector()
    taken: set[tuple[int, int]] = set()
    for n, panel in enumerate(window.panels):
        key = (panel.col, panel.row)
        check.check(key in places, ("panels", n), "unknown_light",
                    f"there is no light {panel.col + 1} from the left, {panel.row + 1} from below",
                    "name one that mullions and transoms leave")  # fmt: skip
        check.check(key not in taken, ("panels", n), "panel_twice", "two panels lie in one light", "one for each")
        taken.add(key)
    check.refuse()


def _frame_loss(window: Window, A_f: float, given: Given) -> Num:
    """Of the frame with its mullions and transoms. [W/K]"""
    across = sum(one.b for one in window.mullions)
    tall = window.h - window.frame.top - window.frame.bottom
    wide = window.w - window.frame.left - window.frame.right - across
    parts = [(one.b * tall, one.U, "mullion") for one in window.mullions]
    parts += [(one.b * wide, one.U, "transom") for one in window.transoms]
    apart = [(area, U, name) for area, U, name in parts if U is not None]
    own = A_f - sum(area for area, _, _ in apart)
    loss = _times(given, own, "A_f", "area of the frame", "m²", "unit less its lights, mullions and transoms in it",
                  window.frame.U, "U_f", "transmittance of the frame", "W/(m²·K)")  # fmt: skip
    for n, (area, U, name) in enumerate(apart, 1):
        loss = loss + _times(given, area, f"A_f{n}", f"area of a {name}", "m²", "width × clear length",
                             U, f"U_f{n}", f"transmittance of a {name}", "W/(m²·K)")  # fmt: skip
    return loss


def _times(
    given: Given, size: float, symbol: str, text: str, unit: str, origin: str, rate: float, rate_symbol: str,
    rate_text: str, rate_unit: str,
) -> Num:  # fmt: skip
    return given(size, symbol, text, unit, origin) * given(rate, rate_symbol, rate_text, rate_unit, "of the unit type")

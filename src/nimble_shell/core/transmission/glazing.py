"""How much glass a wall bears: its share against the wall's mean resistance."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass

from nimble_shell.core.errors import DomainError, Issue
from nimble_shell.core.working import Given, Num, named, plain, value_of


@dataclass(frozen=True, slots=True, kw_only=True)
class GlazedWall:
    """A wall, and the unit that is put into it again and again."""

    A: float  #: gross [m²]
    U_wall: float  #: [W/(m²·K)]
    w: float  #: of a unit [m]
    h: float
    U_w: float  #: [W/(m²·K)]
    psi: float  #: of its setting, round its perimeter [W/(m·K)]
    H_other: float = 0.0  #: joints and fixings, whatever the share [W/K]


def resistance_at(wall: GlazedWall, share: float, given: Given = plain) -> Num:
    """Mean resistance of the wall with a share of it glazed. [m²·K/W]

    Raises
    ------
    DomainError
        If so much is gained at joints that nothing is lost.
    """
    A = given(wall.A, "A", "wall, gross", "m²", "of the shape, or entered")
    r = given(share, "r", "share of it glazed", "", "tried")
    H = _opaque(wall, given) + r * _each(wall, given)
    if value_of(H) <= 0:
        raise DomainError(Issue(path=("H_other",), code="nothing_lost", message="the wall would lose nothing",
                                hint="look for a ψ of the wrong sign"))  # fmt: skip
    return named(A / H, "R_mean", "mean resistance with its glazing", "m²·K/W", "A/H")


def share_at(wall: GlazedWall, R: float, given: Given = plain) -> Num | None:
    """The share at which the wall has a resistance; None where none from 0 to 1 has it."""
    A = given(wall.A, "A", "wall, gross", "m²", "of the shape, or entered")
    each = _each(wall, given)
    if not value_of(each):
        return None
    wanted = given(R, "R_asked", "resistance asked for", "m²·K/W", "asked")
    share = named((A / wanted - _opaque(wall, given)) / each, "r_asked", "share that has it", "", "A/R = H(r)")
    return share if 0 <= value_of(share) <= 1 else None


def resistances(wall: GlazedWall, shares: Sequence[float]) -> list[float]:
    """`resistance_at` of several shares. [m²·K/W]"""
    return [value_of(resistance_at(wall, one)) for one in shares]


def _opaque(wall: GlazedWall, given: Given) -> Num:
    A = given(wall.A, "A", "wall, gross", "m²", "of the shape, or entered")
    U = given(wall.U_wall, "U_wall", "transmittance of the wall", "W/(m²·K)", "of its build-up, or entered")
    other = given(wall.H_other, "H_other", "joints and fixings of the wall", "W/K", "Σ ψ·l + Σ χ·n")
    return named(A * U + other, "H_opaque", "without glazing", "W/K", "A·U + H_other")


def _each(wall: GlazedWall, given: Given) -> Num:
    """What is lost more if the whole wall were units of that size, one beside another. [W/K]"""
    A = given(wall.A, "A", "wall, gross", "m²", "of the shape, or entered")
    U = given(wall.U_wall, "U_wall", "transmittance of the wall", "W/(m²·K)", "of its build-up, or entered")
    U_w = given(wall.U_w, "U_w", "transmittance of the unit", "W/(m²·K)", "of its type, or entered")
    w = given(wall.w, "w_u", "width of the unit", "m", "of its type, or entered")
    h = given(wall.h, "h_u", "height of the unit", "m", "of its type, or entered")
    psi = given(wall.psi, "psi_u", "its setting", "W/(m·K)", "of the joint, or entered")
    number = named(A / (w * h), "n_u", "units of that size in the wall", "", "A/(w·h)")
    return named(A * (U_w - U) + number * 2 * (w + h) * psi, "H_glass", "all glazed, less none", "W/K",
                 "A·(U_w − U) + n·2(w + h)·ψ")  # fmt: skip

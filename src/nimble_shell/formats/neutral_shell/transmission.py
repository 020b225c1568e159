"""Transmission of the neutral shell case, and what glazing makes of a wall: ISO 13789."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from typing import Annotated, Any, Literal

from pydantic import Discriminator, Field, Tag

from nimble_shell.core.errors import Collector, DomainError, Issue, Path
from nimble_shell.core.takeoff.takeoff import Takeoff
from nimble_shell.core.transmission.glazing import GlazedWall, resistances, share_at
from nimble_shell.core.transmission.rows import (
    HEATED,
    OUTSIDE,
    AreaRow,
    FixedSpace,
    JointRow,
    PointRow,
    Space,
    Transmission,
    UnheatedSpace,
    WindowRow,
)
from nimble_shell.core.transmission.sums import Sums
from nimble_shell.formats.neutral_shell.ground import AnsweredGround
from nimble_shell.formats.neutral_shell.lengths import Dimensions, Named
from nimble_shell.formats.neutral_shell.values import (
    NotNegative,
    Positive,
    Share,
    Temperature,
    each,
    missing,
    not_there,
    number,
    numbers,
    one_of,
    only_once,
)
from nimble_shell.formats.neutral_shell.windows import AnsweredWindow
from nimble_shell.formats.strict import Number, Strict


class _Part(Strict):
    id: str
    to: str = OUTSIDE
    group: str = ""

    def common(self) -> dict[str, str]:
        return {"id": self.id, "to": self.to, "group": self.group}


class ElementPart(_Part):
    A: Positive | None = None
    face: str | None = None
    U: Positive
    glazing: bool = False


class WindowPart(_Part):
    window: str | None = None
    A: Positive | None = None
    U: Positive | None = None
    n: NotNegative = 1.0


class JointPart(_Part):
    l: Positive | None = None  # noqa: E741 - as the format writes it
    joint: str | None = None
    at: str | None = None
    psi: Number


class PointPart(_Part):
    n: NotNegative
    chi: Number


class AreaOut(Strict):
    A: Positive
    U: Positive


class LineOut(Strict):
    l: Positive  # noqa: E741 - as the format writes it
    psi: Number


class UnheatedCase(Strict):
    id: str
    kind: Literal["unheated"]
    elements: list[AreaOut] = []
    joints: list[LineOut] = []
    H_ground: NotNegative = 0.0
    V: NotNegative = 0.0
    n_ue: NotNegative = 0.0

    def space(self) -> Space:
        return UnheatedSpace(id=self.id, elements=tuple((one.A, one.U) for one in self.elements),
                             joints=tuple((one.l, one.psi) for one in self.joints), H_ground=self.H_ground, V=self.V,
                             n_ue=self.n_ue)  # fmt: skip


class FixedCase(Strict):
    id: str
    kind: Literal["fixed"]
    theta: Temperature

    def space(self) -> Space:
        return FixedSpace(id=self.id, theta=self.theta)


def _branch(value: Any) -> str:
    return f"tagged-{value.get('kind') if isinstance(value, dict) else ''}"


SpaceCase = Annotated[
    Annotated[UnheatedCase, Tag("tagged-unheated")] | Annotated[FixedCase, Tag("tagged-fixed")],
    Discriminator(_branch, custom_error_type="unknown_kind",
                  custom_error_message="a space is of kind “unheated” or “fixed”"),
]  # fmt: skip


class TransmissionCase(Strict):
    dimensions: Dimensions = "overall_internal"
    elements: list[ElementPart] = []
    windows: list[WindowPart] = []
    joints: list[JointPart] = []
    points: list[PointPart] = []
    ground: list[str] = []
    air_q: NotNegative = 0.0
    theta_i: Temperature | None = None
    theta_e: Temperature | None = None
    spaces: list[SpaceCase] = []


def transmission_of(
    case: TransmissionCase,
    takeoff: Takeoff | None,
    windows: Mapping[str, AnsweredWindow],
    grounds: Mapping[str, AnsweredGround],
) -> Transmission:
    """A building's parts, with what they name in other blocks.

    Raises
    ------
    DomainError
        With the path of what is wrong in the case file.
    """
    _check(case, grounds)
    sizes = Named(takeoff, case.dimensions)
    at = "transmission"
    return Transmission(
        areas=tuple(each(case.elements, lambda one, path: _area(one, path, sizes), at, "elements")),
        windows=tuple(each(case.windows, lambda one, path: _window(one, path, windows), at, "windows")),
        joints=tuple(each(case.joints, lambda one, path: _joint(one, path, sizes), at, "joints")),
        points=tuple(PointRow(**one.common(), n=one.n, chi=one.chi) for one in case.points),
        spaces=tuple(one.space() for one in case.spaces), H_ground=sum(grounds[one].H_g for one in case.ground),
        air_q=case.air_q, theta_i=case.theta_i, theta_e=case.theta_e,
    )  # fmt: skip


def _check(case: TransmissionCase, grounds: Mapping[str, AnsweredGround]) -> None:
    check = Collector()
    lists: dict[str, Sequence[_Part]] = {
        "elements": case.elements,
        "windows": case.windows,
        "joints": case.joints,
        "points": case.points,
    }
    spaces = {one.id for one in case.spaces}
    for name, parts in lists.items():
        only_once(check, (one.id for one in parts), "transmission", name)
    only_once(check, (one.id for one in case.spaces), "transmission", "spaces")
    for name, rows in lists.items():
        for at, one in enumerate(rows):
            check.check(
                one.to in spaces or one.to in (OUTSIDE, HEATED),
                ("transmission", name, at, "to"),
                "unknown_name",
                f"there is no space “{one.to}”",
                "outside, heated, or the id of a space",
            )
    for at, name in enumerate(case.ground):
        check.check(name in grounds, ("transmission", "ground", at), "unknown_name", f"there is no ground “{name}”",
                    "check its spelling, or add it to the block ground")  # fmt: skip
        check.check(name not in case.ground[:at], ("transmission", "ground", at), "id_taken",
                    f"“{name}” is there already", "count it once")  # fmt: skip
    for key in ("theta_i", "theta_e"):
        if getattr(case, key) is None and any(isinstance(one, FixedCase) for one in case.spaces):
            check.add(missing("transmission", key).issues)
    if case.theta_i is not None and case.theta_i == case.theta_e:
        check.check(
            not any(isinstance(one, FixedCase) for one in case.spaces),
            ("transmission", "theta_e"),
            "no_difference",
            "room and outside are equally warm",
            "b of a fixed space is measured by them",
        )
    check.refuse()


def _area(case: ElementPart, path: Path, sizes: Named) -> AreaRow:
    one_of(case, ("A", "face"), *path)
    A = case.A if case.A is not None else sizes.net_area(case.face or "", *path, "face")
    if A <= 0:
        raise DomainError(Issue(path=(*path, "face"), code="no_area", message=f"nothing is left of face “{case.face}”",
                                hint="its openings, storeys and partitions take all of it"))  # fmt: skip
    return AreaRow(**case.common(), A=A, U=case.U, glazing=case.glazing)


def _window(case: WindowPart, path: Path, windows: Mapping[str, AnsweredWindow]) -> WindowRow:
    if one_of(case, ("window", "A"), *path) == "A":
        if case.U is None:
            raise missing(*path, "U")
        assert case.A is not None
        return WindowRow(**case.common(), A=case.A, U=case.U, n=case.n, L_install=0.0)
    unit = windows.get(case.window or "")
    if unit is None:
        raise not_there("window", case.window or "", *path, "window")
    U = unit.answer["U_w"] if case.U is None else case.U
    return WindowRow(
        id=case.id, to=case.to, group=case.group, A=unit.figures.A, U=U, n=case.n, L_install=unit.L_install
    )


def _joint(case: JointPart, path: Path, sizes: Named) -> JointRow:
    if one_of(case, ("l", "joint"), *path) == "l":
        assert case.l is not None
        if case.at is not None:
            raise missing(*path, "joint")
        return JointRow(**case.common(), l=case.l, psi=case.psi)
    return JointRow(**case.common(), l=sizes.length(case.joint or "", case.at, *path), psi=case.psi)


def answer_transmission(found: Sums) -> dict[str, Any]:
    """Answer the block."""
    groups = {name: numbers(one, "A", "H", "R_clear", "R_whole", "R_with_windows")
              for name, one in found.groups.items()}  # fmt: skip
    return {
        **numbers(found, "H_D", "H_g", "H_U", "H_A", "H_tr", "H_ve", "H"),
        "b": {name: number(one) for name, one in found.b.items()},
        "shares": {name: number(one) for name, one in found.shares.items()}, "whole_wall": groups,
    }  # fmt: skip


class UnitCase(Strict):
    w: Positive
    h: Positive
    U_w: Positive
    psi: Number


class GlazingCase(Strict):
    A: Positive
    U_wall: Positive
    H_other: Number = 0.0
    unit: UnitCase
    ratios: Annotated[list[Share], Field(min_length=1)]
    R_target: Positive | None = None


def answer_glazing(case: GlazingCase) -> dict[str, Any]:
    """Answer the block.

    Raises
    ------
    DomainError
        If the wall would lose nothing.
    """
    wall = GlazedWall(A=case.A, U_wall=case.U_wall, H_other=case.H_other, w=case.unit.w, h=case.unit.h,
                      U_w=case.unit.U_w, psi=case.unit.psi)  # fmt: skip
    answer: dict[str, Any] = {"R": resistances(wall, case.ratios)}
    if case.R_target is not None:
        answer["ratio_at_target"] = number(share_at(wall, case.R_target))
    return answer

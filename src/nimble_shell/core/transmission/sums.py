"""The sums over a building's parts, ISO 13789."""

from __future__ import annotations

from collections.abc import Iterable, Mapping, Sequence
from dataclasses import dataclass
from typing import Literal

from nimble_shell.core.errors import DomainError, Issue
from nimble_shell.core.transmission.rows import HEATED, OUTSIDE, FixedSpace, Row, Transmission, UnheatedSpace
from nimble_shell.core.working import Given, Num, named, plain, value_of

AIR = 3.0  #: heat that a flow carries, J/(m³·K) of air being 1200: q/3 W/K for q in m³/h [m³·K/(h·W)]
SHARES = ("areas", "joints", "fixings", "glazing", "ground", "air")
_CLAUSE = "ISO 13789:2017"


@dataclass(frozen=True, slots=True, kw_only=True)
class Loss:
    """What a part loses before the temperature beyond it is looked at."""

    row: Row
    share: str  #: one of SHARES
    H: Num  #: [W/K]
    A: Num = 0.0  #: of an area or of units [m²]


@dataclass(frozen=True, slots=True, kw_only=True)
class Group:
    """A wall or roof with all that is its own."""

    A: Num  #: opaque [m²]
    H: Num  #: with its joints, settings and fixings, without its windows [W/K]
    R_clear: Num  #: [m²·K/W]
    R_whole: Num
    R_with_windows: Num


@dataclass(frozen=True, slots=True, kw_only=True)
class Sums:
    """A building's heat transfer coefficients. [W/K]"""

    H_D: Num
    H_g: Num
    H_U: Num
    H_A: Num
    H_tr: Num
    H_ve: Num
    H: Num
    b: Mapping[str, Num]  #: of each space
    shares: Mapping[str, Num | None]  #: of H, 0…1; None where nothing is lost
    groups: Mapping[str, Group]
    losses: tuple[Loss, ...]


def sums(building: Transmission, given: Given = plain) -> Sums:
    """All heat transfer coefficients of a building.

    Parameters
    ----------
    building : Transmission
    given : Given
        `plain` for figures, `traced` for working.

    Raises
    ------
    DomainError
        If a space that a part leads to does not exist, or a fixed temperature has nothing to be measured by.

    References
    ----------
    .. [1] ISO 13789:2017, 7.2 (outside), 7.3 (ground), 8.4 (unheated spaces), 7.4 (spaces of fixed temperature).
    """
    losses = tuple(_losses(building, given))
    b = _adjacent(building, losses, given)
    by_kind: dict[str, list[Num]] = {"H_D": [], "H_U": [], "H_A": []}
    kinds = {one.id: "H_A" if isinstance(one, FixedSpace) else "H_U" for one in building.spaces}
    shares: dict[str, list[Num]] = {name: [] for name in SHARES}
    for one in losses:
        if one.row.to == HEATED:
            continue
        H = one.H if one.row.to == OUTSIDE else b[one.row.to] * one.H
        by_kind["H_D" if one.row.to == OUTSIDE else kinds[one.row.to]].append(H)
        shares[one.share].append(H)
    H_D = _sum(by_kind["H_D"], "H_D", "to the outside", "7.2", given)
    H_U = _sum(by_kind["H_U"], "H_U", "through unheated spaces", "8.4", given)
    H_A = _sum(by_kind["H_A"], "H_A", "to spaces of fixed temperature", "7.4", given)
    H_g = given(building.H_ground, "H_gr", "into the ground", "W/K", "ISO 13370, of its ground floors")
    H_tr = named(H_D + H_g + H_U + H_A, "H_tr", "transmission", "W/K", f"{_CLAUSE}, 7.1")
    q = given(building.air_q, "q_ve", "air from outside", "m³/h", "infiltration and ventilation together")
    H_ve = named(q / AIR, "H_ve", "air", "W/K", "1200 J/(m³·K)")
    H = named(H_tr + H_ve, "H", "transmission and air", "W/K", f"{_CLAUSE}, 6")
    shares["ground"].append(H_g)
    shares["air"].append(H_ve)
    return Sums(H_D=H_D, H_g=H_g, H_U=H_U, H_A=H_A, H_tr=H_tr, H_ve=H_ve, H=H, b=b, losses=losses,
                shares={name: _share(parts, H, name, given) for name, parts in shares.items()},
                groups=_groups(losses))  # fmt: skip


def _losses(building: Transmission, given: Given) -> Iterable[Loss]:
    for n, area in enumerate(building.areas, 1):
        A, U = _area(given, area.A, str(n), area.id), _U(given, area.U, str(n), area.id)
        yield Loss(row=area, share="glazing" if area.glazing else "areas", H=_H(A * U, str(n), area.id, "U·A"), A=A)
    for n, unit in enumerate(building.windows, 1):
        count, one = _count(given, unit.n, f"w{n}", unit.id), _area(given, unit.A, f"w{n}", unit.id)
        U = _U(given, unit.U, f"w{n}", unit.id)
        yield Loss(row=unit, share="glazing", H=_H(count * one * U, f"w{n}", unit.id, "n·A·U"), A=count * one)
        if unit.L_install:
            L = given(unit.L_install, f"L_w{n}", f"{unit.id}, setting of one", "W/K", "ψ·l round it")
            yield Loss(row=unit, share="joints", H=_H(count * L, f"i{n}", f"{unit.id}, setting", "ψ·l"))
    for n, joint in enumerate(building.joints, 1):
        l = given(joint.l, f"l_j{n}", f"{joint.id}, length", "m", "of the shape, or entered")  # noqa: E741
        psi = given(joint.psi, f"psi_j{n}", f"{joint.id}, ψ", "W/(m·K)", "solved, or entered")
        yield Loss(row=joint, share="joints", H=_H(l * psi, f"j{n}", joint.id, "ψ·l"))
    for n, point in enumerate(building.points, 1):
        chi = given(point.chi, f"chi_p{n}", f"{point.id}, χ", "W/K", "solved, or entered")
        yield Loss(row=point, share="fixings",
                   H=_H(_count(given, point.n, f"p{n}", point.id) * chi, f"p{n}", point.id, "χ·n"))  # fmt: skip


def _area(given: Given, A: float, key: str, name: str) -> Num:
    return given(A, f"A_{key}", f"{name}, area", "m²", "of the shape, or entered")


def _U(given: Given, U: float, key: str, name: str) -> Num:
    return given(U, f"U_{key}", f"{name}, transmittance", "W/(m²·K)", "of its build-up or unit, or entered")


def _count(given: Given, n: float, key: str, name: str) -> Num:
    return given(n, f"n_{key}", f"{name}, number", "", "of the shape, or entered")


def _H(number: Num, key: str, name: str, clause: str) -> Num:
    return named(number, f"H_{key}", name, "W/K", f"{_CLAUSE}, 7.2, {clause}")


def _sum(parts: Sequence[Num], symbol: str, text: str, clause: str, given: Given) -> Num:
    if not parts:
        return given(0.0, symbol, text, "W/K", "nothing of the kind")
    return named(sum(parts, 0.0), symbol, text, "W/K", f"{_CLAUSE}, {clause}")


def _share(parts: Sequence[Num], H: Num, name: str, given: Given) -> Num | None:
    if not value_of(H):
        return None
    if not parts:
        return given(0.0, f"share_{name}", f"lost at {name}", "", "nothing of the kind")
    return named(sum(parts, 0.0) / H, f"share_{name}", f"lost at {name}", "", "of H")


def _adjacent(building: Transmission, losses: Iterable[Loss], given: Given) -> dict[str, Num]:
    """b of each space: the share of the difference between room and outside that a wall to it bears."""
    into: dict[str, list[Num]] = {one.id: [] for one in building.spaces}
    for one in losses:
        if one.row.to not in into and one.row.to not in (OUTSIDE, HEATED):
            raise DomainError(Issue(path=(one.row.id, "to"), code="unknown_space",
                                    message=f"there is no space “{one.row.to}”",
                                    hint="outside, heated, or the id of a space"))  # fmt: skip
        if one.row.to in into:
            into[one.row.to].append(one.H)
    return {one.id: _unheated(one, f"s{n}", sum(into[one.id], 0.0), given) if isinstance(one, UnheatedSpace)
            else _fixed(one, f"s{n}", building, given) for n, one in enumerate(building.spaces, 1)}  # fmt: skip


def _unheated(space: UnheatedSpace, key: str, H_iu: Num, given: Given) -> Num:
    H_iu = named(H_iu, f"H_iu_{key}", f"from our rooms to {space.id}", "W/K", f"{_CLAUSE}, 8.4")
    areas, joints = sum(A * U for A, U in space.elements), sum(l * psi for l, psi in space.joints)  # noqa: E741
    outwards = [
        given(areas, f"H_el_{key}", f"{space.id}, areas outwards", "W/K", "Σ U·A"),
        given(joints, f"H_jo_{key}", f"{space.id}, joints outwards", "W/K", "Σ ψ·l"),
        given(space.H_ground, f"H_gr_{key}", f"{space.id}, into the ground", "W/K", "entered"),
    ]
    V = given(space.V, f"V_{key}", f"{space.id}, its air", "m³", "entered")
    n = given(space.n_ue, f"n_ue_{key}", f"{space.id}, changes of its air", "1/h", "entered")
    H_ue = sum(outwards, 0.0) + V * n / AIR
    H_ue = named(H_ue, f"H_ue_{key}", f"from {space.id} outwards", "W/K", f"{_CLAUSE}, 8.4")
    whole = value_of(H_iu) + value_of(H_ue)
    b = H_ue / (H_iu + H_ue) if whole else given(0.0, f"b_none_{key}", "nothing leads through it", "", "no loss")
    return named(b, f"b_{key}", f"adjustment to {space.id}", "", f"{_CLAUSE}, 8.4, H_ue/(H_iu + H_ue)")


def _fixed(space: FixedSpace, key: str, building: Transmission, given: Given) -> Num:
    inside, outside = (_needed(building, name, space) for name in ("theta_i", "theta_e"))
    if inside == outside:
        raise DomainError(Issue(path=("theta_e",), code="no_difference", message="room and outside are equally warm",
                                hint="the temperatures that b of a fixed space is measured by"))  # fmt: skip
    theta_i = given(inside, "theta_i", "room", "°C", "of the room")
    theta_e = given(outside, "theta_e", "outside", "°C", "of the climate")
    theta = given(space.theta, f"theta_{key}", space.id, "°C", "entered")
    return named((theta_i - theta) / (theta_i - theta_e), f"b_{key}", f"adjustment to {space.id}", "",
                 f"{_CLAUSE}, 7.4; more than 1 towards a colder one")  # fmt: skip


def _needed(building: Transmission, name: Literal["theta_i", "theta_e"], space: FixedSpace) -> float:
    found = building.theta_i if name == "theta_i" else building.theta_e
    if found is None:
        raise DomainError(Issue(path=(name,), code="missing", message=f"{name} is needed by “{space.id}”",
                                hint="the temperatures that b of a fixed space is measured by"))  # fmt: skip
    return found


def _groups(losses: Sequence[Loss]) -> dict[str, Group]:
    """Every group with an opaque area."""
    names = dict.fromkeys(one.row.group for one in losses if one.row.group and one.share == "areas")
    return {name: _group(name, f"g{n}", [one for one in losses if one.row.group == name])
            for n, name in enumerate(names, 1)}  # fmt: skip


def _group(name: str, key: str, own: Sequence[Loss]) -> Group:
    opaque, glazed = ([one for one in own if (one.share == kind)] for kind in ("areas", "glazing"))
    A, panes = (sum((one.A for one in some), 0.0) for some in (opaque, glazed))
    UA, UA_w = (sum((one.H for one in some), 0.0) for some in (opaque, glazed))
    H = sum((one.H for one in own if one.share != "glazing"), 0.0)
    if value_of(H) <= 0:
        raise DomainError(Issue(path=(name,), code="nothing_lost",
                                message=f"“{name}” loses nothing: what its joints gain outweighs its areas",
                                hint="look for a ψ of the wrong sign, or of another system of dimensions"))  # fmt: skip
    return Group(
        A=named(A, f"A_{key}", f"{name}, opaque", "m²", "Σ A"),
        H=named(H, f"H_{key}", f"{name}, with joints and fixings", "W/K", "Σ U·A + Σ ψ·l + Σ χ·n"),
        R_clear=named(A / UA, f"R_clear_{key}", f"{name}, clear", "m²·K/W", "A/Σ U·A"),
        R_whole=named(A / H, f"R_whole_{key}", f"{name}, whole", "m²·K/W", "A/H"),
        R_with_windows=named((A + panes) / (H + UA_w), f"R_windows_{key}", f"{name}, with its windows", "m²·K/W",
                             "(A + A_w)/(H + U·A_w)"),
    )  # fmt: skip

"""The ledger: what a build-up or a joint means for the whole shell. What is not counted is named."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from typing import Literal

from nimble_shell.core.basis.basis import Basis
from nimble_shell.core.basis.stations import STATIONS, asked_R, misses
from nimble_shell.core.quantities.sentence import sentence
from nimble_shell.core.shell.project import Building, ShellElement
from nimble_shell.core.working import Given, Num, named, plain, value_of

#: Parts of the heat loss that the ledger does not know yet, with the step that will bring them.
NOT_COUNTED = (
    "joints (step 3)",
    "fixings that are no group of a build-up",
    "the ground under a building without a shape",
)


UKind = Literal["", "entered", "of its units", "clear", "without members of its joints", "with the ground"]
_SAME = 1e-9  #: that two U differ by if they are one, relative


@dataclass(frozen=True, slots=True, kw_only=True)
class LedgerLine:
    """One element's share of the transmission."""

    element_id: str
    station: str
    name: str
    area: Num  #: net of openings [m²]
    U: Num | None  #: None where neither a build-up nor a U is set [W/(m²·K)]
    H: Num | None  #: [W/K]
    from_assembly: bool
    asked: float | None  #: clear-wall R asked of it [m²·K/W]
    H_fixings: Num | None = None  #: of H, what its build-up's fixings lose [W/K]
    from_units: bool = False  #: whether its U is that of the types of its openings
    U_clear: float | None = None  #: of its build-up with every member and fixing, solved joints or not [W/(m²·K)]
    on_ground: bool = False  #: whether its U is that of ISO 13370

    @property
    def U_kind(self) -> UKind:
        """Which U it is that counts."""
        if self.U is None:
            return ""
        if self.on_ground:
            return "with the ground"
        if self.U_clear is None:
            return "of its units" if self.from_units else "entered"
        return (
            "clear" if abs(self.U_clear - value_of(self.U)) < _SAME * self.U_clear else "without members of its joints"
        )

    @property
    def R(self) -> float | None:
        """Of the clear section, which is asked; None where nothing is known of it. [m²·K/W]"""
        U = self.U_clear or (None if self.U is None else value_of(self.U))
        return None if U is None else 1 / U

    @property
    def falls_short(self) -> bool:
        """Whether a build-up misses the R asked of it: a decision is open."""
        return self.from_assembly and self.R is not None and misses(self.R, self.asked)


@dataclass(frozen=True, slots=True, kw_only=True)
class JointLoss:
    """A joint as the ledger takes it: ψ per metre, or χ per piece."""

    joint_id: str
    station: str
    name: str
    length: float  #: [m], or pieces
    psi: float | None  #: in the dimension system of the areas; None while it is being solved [W/(m·K)] or [W/K]
    point: bool = False
    owner_of: str = ""  #: what it has taken over from the area shares, in words
    why_not: str = ""  #: why it will have no ψ; empty while one may still come
    from_shape: bool = False  #: whether its length follows the shape


@dataclass(frozen=True, slots=True, kw_only=True)
class JointLine:
    """A joint's share of the transmission."""

    joint_id: str
    station: str
    name: str
    length: float
    psi: Num | None
    H: Num | None  #: [W/K]
    point: bool


@dataclass(frozen=True, slots=True, kw_only=True)
class ShellLedger:
    """Transmission of a building's shell: areas, and the joints that are drawn."""

    lines: tuple[LedgerLine, ...]
    H: Num | None  #: Σ U·A + Σ ψ·l of what is known [W/K]
    R_effective: Num | None  #: area over H [m²·K/W]
    area: Num  #: counted area [m²]
    missing: tuple[str, ...]  #: elements without a U, and joints that cannot be solved, with the reason
    joints: tuple[JointLine, ...] = ()
    H_joints: Num | None = None  #: Σ ψ·l; None without a joint that has a length and a ψ [W/K]
    H_fixings: Num | None = None  #: of the areas' U·A, what fixings lose; None without any [W/K]
    share_joints: Num | None = None  #: of H, what is lost at joints and fixings, 0…1
    pending: tuple[str, ...] = ()  #: joints and fixings whose ψ or χ is still to come
    not_counted: tuple[str, ...] = NOT_COUNTED

    @property
    def whole(self) -> bool:
        """Whether its sums lack nothing that is drawn: no element, no joint, no fixing."""
        return not self.pending and not self.missing

    def open(self, R_asked: float | None, H_asked: float | None) -> tuple[str, ...]:
        """Which of its sums miss what is asked of the building: R_effective, H_shell. A part is never judged."""
        if not self.whole:
            return ()
        found = []
        if self.R_effective is not None and misses(value_of(self.R_effective), R_asked):
            found.append("R_effective")
        if self.H is not None and H_asked is not None and misses(H_asked, value_of(self.H)):
            found.append("H_shell")
        return tuple(found)


def shell_ledger(
    building: Building,
    U_of: Mapping[str, Num],
    *,
    basis: Basis | None = None,
    joints: Sequence[JointLoss] = (),
    points_of: Mapping[str, Num] | None = None,
    clear_of: Mapping[str, float] | None = None,
    waiting: Sequence[str] = (),
    ground_of: Mapping[str, Num] | None = None,
    adjusted: Mapping[str, float] | None = None,
    given: Given = plain,
) -> ShellLedger:
    """Areas times transmittance over the shell, and lengths of joints times ψ.

    Parameters
    ----------
    building : Building
    U_of : mapping of assembly id to float or Traced
        Clear-wall transmittance of each build-up in use. [W/(m²·K)]
    basis : Basis, optional
        What is asked of each station; nothing if not given.
    joints : sequence of JointLoss
        Joints with their ψ; none if not given.
    points_of : mapping of assembly id to float or Traced, optional
        What fixings add to the U of each build-up; it is part of that U already. [W/(m²·K)]
    clear_of : mapping of assembly id to float, optional
        U of each build-up with the members that its joints have taken over, where that is another one. [W/(m²·K)]
    waiting : sequence of str
        What else is still to come.
    ground_of : mapping of element id to float or Traced, optional
        U with the ground of what lies on it or stands in it, ISO 13370. [W/(m²·K)]
    adjusted : mapping of element id to float, optional
        What is left of the loss of elements that lie in part towards an unheated space.
    given : Given
        `plain` for figures, `traced` for working.

    Returns
    -------
    ShellLedger
        H [W/K] and effective R [m²·K/W] over the elements whose U is known.

    Notes
    -----
    Gross wall areas include openings: where a shape says which lie in a wall those are taken off it, else the openings'
    area is taken off the walls in proportion to their area.

    References
    ----------
    .. [1] ISO 13789:2017, 7.2 (transmission, direct to outside).
    """
    areas, ground_of = net_areas(building, given), ground_of or {}
    lines = tuple(
        _line(
            building,
            element,
            number,
            area,
            _transmittance(building, element, number, U_of, given),
            basis,
            points_of or {},
            clear_of or {},
            ground_of.get(element.id),
            _adjustment(element, number, adjusted or {}, given),
        )
        for number, (element, area) in enumerate(zip(building.elements, areas, strict=True), 1)
    )
    missing = (
        *(f"{STATIONS[element.station]}: {element.name}{_untyped(building, element)}"
          for element, line in zip(building.elements, lines, strict=True)
          if line.H is None and not (building.follows_shape(element.id) and value_of(line.area) == 0)),
        *(sentence(f"{one.name}, {{v}}: no joint", v=(one.length, "distance"))
          for one in building.without_joint()),
    )  # fmt: skip
    counted = [line for line in lines if line.H is not None]
    area = _sum([line.area for line in counted])
    if not counted:
        return ShellLedger(lines=lines, H=None, R_effective=None, area=area, missing=missing)
    joint_lines = tuple(_joint_line(joint, number, given) for number, joint in enumerate(joints, 1))
    sums = _sums(_sum([line.H for line in counted if line.H is not None]), lines, joint_lines)
    A_total = named(area, "A_shell", "counted area of the shell", "m²", "sum of net areas with a known U")
    words = "areas and joints" if sums.H_joints is not None else "areas only"
    R = named(A_total / sums.H, "R_effective", f"effective R of the shell, {words}", "m²·K/W", "R = ΣA / H")
    return ShellLedger(
        lines=lines,
        H=sums.H,
        R_effective=R,
        area=A_total,
        missing=(*missing, *(f"{joint.name}: {joint.why_not}" for joint in joints if joint.why_not)),
        joints=joint_lines,
        H_joints=sums.H_joints,
        H_fixings=sums.H_fixings,
        share_joints=sums.share,
        pending=(*(joint.name for joint in joints if joint.psi is None and not joint.why_not), *waiting),
        not_counted=_not_counted(sums, ground_of),
    )


def _not_counted(sums: _Sums, ground_of: Mapping[str, Num]) -> tuple[str, ...]:
    joints, fixings, ground = NOT_COUNTED
    return (*((joints,) if sums.H_joints is None else ()), fixings, *(() if ground_of else (ground,)))


def _sum(parts: Sequence[Num]) -> Num:
    return sum(parts, 0.0)


def net_areas(building: Building, given: Given = plain) -> list[Num]:
    """Areas of the elements, in order; openings are taken off the walls that they lie in. [m²]"""
    gross = [
        given(element.area, f"A_{number}", f"gross area, {element.name}", "m²",
              "from the shape" if building.follows_shape(element.id) else f"Basis, station {element.station}")
        for number, element in enumerate(building.elements, 1)
    ]  # fmt: skip
    of = {
        station: [area for area, element in zip(gross, building.elements, strict=True) if element.station == station]
        for station in ("D", "E")
    }
    openings, walls = _sum(of["E"]), _sum(of["D"])
    if not (value_of(openings) > 0 and value_of(walls) > 0):
        return gross
    exact = [building.opened(element.id) for element in building.elements]
    if all(of is not None for of, element in zip(exact, building.elements, strict=True) if element.station == "D"):
        return [
            _less(area, of, number, element.name) if element.station == "D" and of else area
            for number, (element, area, of) in enumerate(zip(building.elements, gross, exact, strict=True), 1)
        ]
    openings = named(openings, "A_openings", "area of openings", "m²", "sum over station E")
    walls = named(walls, "A_walls", "gross area of walls", "m²", "sum over station D")
    return [
        named(area * (1 - openings / walls), f"A_net_{number}", f"net area, {element.name}", "m²",
              "gross area less its share of the openings")
        if element.station == "D"
        else area
        for number, (element, area) in enumerate(zip(building.elements, gross, strict=True), 1)
    ]  # fmt: skip


def _less(area: Num, openings: float, number: int, name: str) -> Num:
    return named(area - openings, f"A_net_{number}", f"net area, {name}", "m²", "gross area less the openings in it")


def _line(
    building: Building, element: ShellElement, number: int, area: Num, U: Num | None, basis: Basis | None,
    points_of: Mapping[str, Num], clear_of: Mapping[str, float], in_ground: Num | None, adjustment: Num | None,
) -> LedgerLine:  # fmt: skip
    H = through = None
    clear = _clear(element, U, clear_of)
    if U is not None and in_ground is not None:
        U, points_of = in_ground, {}  # its fixings are in the floor's own resistance
    if U is not None and value_of(area) > 0:
        H = U * area if adjustment is None else U * area * adjustment
        H = named(H, f"H_{number}", f"transmission, {element.name}", "W/K", "ISO 13789:2017, 7.2, U·A")
        added = points_of.get(element.assembly_id or "")
        if added is not None and value_of(added) > 0:
            lost = added * area if adjustment is None else added * area * adjustment
            through = named(lost, f"H_fixings_{number}", f"of it through fixings, {element.name}", "W/K",
                            "n·χ·A, part of U·A")  # fmt: skip
    return LedgerLine(
        element_id=element.id,
        station=element.station,
        name=element.name,
        area=area,
        U=U,
        H=H,
        asked=None if basis is None else asked_R(basis.targets, element.station),
        H_fixings=through,
        U_clear=clear,
        on_ground=U is not None and in_ground is not None,
        from_assembly=element.assembly_id is not None and U is not None,
        from_units=U is not None and element.assembly_id is None and _has_units(building, element),
    )


def _adjustment(element: ShellElement, number: int, adjusted: Mapping[str, float], given: Given) -> Num | None:
    if element.id not in adjusted:
        return None
    return given(adjusted[element.id], f"k_{number}", f"{element.name}, in part towards an unheated space", "",
                 "ISO 13789:2017, 8.4, 1 − s·(1 − b)")  # fmt: skip


@dataclass(frozen=True, slots=True, kw_only=True)
class _Sums:
    H: Num  #: of the shell [W/K]
    H_joints: Num | None  #: [W/K]
    H_fixings: Num | None  #: part of what the areas lose [W/K]
    share: Num | None  #: lost at joints and fixings, 0…1


def _sums(areas: Num, lines: Sequence[LedgerLine], joints: Sequence[JointLine]) -> _Sums:
    """What the areas, the joints and the fixings come to."""
    at_joints = [line.H for line in joints if line.H is not None]
    at_fixings = [line.H_fixings for line in lines if line.H_fixings is not None]
    H_areas = named(areas, "H_areas", "transmission of the areas", "W/K", "ISO 13789:2017, 7.2, Σ U·A")
    H_fixings = None
    if at_fixings:
        H_fixings = named(_sum(at_fixings), "H_fixings", "transmission through fixings", "W/K",
                          "Σ n·χ·A, part of Σ U·A")  # fmt: skip
    if not at_joints:
        H = named(H_areas, "H_shell", "transmission of the shell, areas only", "W/K", "no joint counts yet")
        share = None
        if H_fixings is not None:
            share = named(H_fixings / H, "share_joints", "share lost at fixings", "", "Σ χ over H")
        return _Sums(H=H, H_joints=None, H_fixings=H_fixings, share=share)
    H_joints = named(_sum(at_joints), "H_joints", "transmission of the joints", "W/K",
                     "ISO 13789:2017, 7.2, Σ ψ·l + Σ χ")  # fmt: skip
    H = named(H_areas + H_joints, "H_shell", "transmission of the shell, areas and joints", "W/K",
              "ISO 13789:2017, 7.2, Σ U·A + Σ ψ·l")  # fmt: skip
    lost = H_joints if H_fixings is None else H_joints + H_fixings
    where = "joints" if H_fixings is None else "joints and fixings"
    share = named(lost / H, "share_joints", f"share lost at {where}", "", "Σ ψ·l + Σ χ over H")
    return _Sums(H=H, H_joints=H_joints, H_fixings=H_fixings, share=share)


def _joint_line(joint: JointLoss, number: int, given: Given) -> JointLine:
    psi = H = None
    if joint.psi is not None:
        origin = f"solved in {joint.station}3" + (f"; {joint.owner_of}" if joint.owner_of else "")
        if joint.point:
            psi = given(joint.psi, f"chi_{number}", f"point transmittance, {joint.name}", "W/K", origin)
        else:
            psi = given(joint.psi, f"psi_{number}", f"linear transmittance, {joint.name}", "W/(m·K)", origin)
        if joint.length > 0:
            words = ("pieces", "") if joint.point else ("length", "m")
            length = given(joint.length, f"l_{number}", f"{words[0]}, {joint.name}", words[1],
                           "from the shape" if joint.from_shape else "entered with the joint")  # fmt: skip
            H = named(psi * length, f"H_joint_{number}", f"transmission, {joint.name}", "W/K",
                      "ISO 13789:2017, 7.2, ψ·l or χ·n")  # fmt: skip
    return JointLine(
        joint_id=joint.joint_id,
        station=joint.station,
        name=joint.name,
        length=joint.length,
        psi=psi,
        H=H,
        point=joint.point,
    )


def _transmittance(
    building: Building, element: ShellElement, number: int, U_of: Mapping[str, Num], given: Given
) -> Num | None:
    """Of its build-up; else of the types of its openings, where one of them has a type; else as entered."""
    if element.assembly_id is not None and element.assembly_id in U_of:
        return U_of[element.assembly_id]
    entered = None
    if element.U_entered is not None:
        origin = f"entered{': ' + element.origin if element.origin else ''}"
        entered = given(element.U_entered, f"U_entered_{number}", f"transmittance, {element.name}", "W/(m²·K)", origin)
    return _of_units(building, element, number, entered, given) if _has_units(building, element) else entered


def _has_units(building: Building, element: ShellElement) -> bool:
    return any(one.unit is not None for one in building.filled(element.id))


def _untyped(building: Building, element: ShellElement) -> str:
    """What keeps an element with unit types from having a U, in words."""
    without = sum(one.n for one in building.filled(element.id) if one.unit is None)
    return f", {without} of its openings have no type" if without and _has_units(building, element) else ""


def _of_units(building: Building, element: ShellElement, number: int, entered: Num | None, given: Given) -> Num | None:
    """Mean over its openings by area; those without a type count as entered, and without that nothing is known."""
    loss: Num = 0.0
    area: Num = 0.0
    for n, one in enumerate(building.filled(element.id), 1):
        name = one.unit.name if one.unit else "without a type"
        size = given(one.area, f"A_{number}_{n}", f"{one.n} × {name}", "m²", "from the shape")
        U = entered
        if one.unit is not None:
            how = (
                "declared" if one.unit.U_declared is not None else "by its parts at this size, ISO 10077-1:2017, 6.4.2"
            )
            U = given(value_of(one.unit.transmittance(one.w, one.h)), f"U_{number}_{n}", f"transmittance, {name}",
                      "W/(m²·K)", how)  # fmt: skip
        if U is None:
            return None
        loss, area = loss + U * size, area + size
    return named(loss / area, f"U_units_{number}", f"transmittance, {element.name}", "W/(m²·K)",
                 "mean of its openings by area")  # fmt: skip


def _clear(element: ShellElement, U: Num | None, clear_of: Mapping[str, float]) -> float | None:
    if element.assembly_id is None or U is None:
        return None
    return clear_of.get(element.assembly_id, value_of(U))

"""Where the pieces of a building look, and what its openings are filled with there."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import replace

from nimble_shell.core.geometry.face import Face
from nimble_shell.core.shell.hot_day import Facing, Pane
from nimble_shell.core.shell.measured import MeasuredBuilding
from nimble_shell.core.shell.quantities import in_system
from nimble_shell.core.windows.unit import UnitType
from nimble_shell.core.working import value_of

G_UNKNOWN, F_UNKNOWN = 0.5, 0.7  #: of glass, and glass of the whole, where nobody has named a type


def facings_of(building: MeasuredBuilding) -> tuple[Facing, ...]:
    """Opaque areas of a building's elements, those that look one way to the same together."""
    found = building.shape.takeoff
    names = {one.id: one.name for one in building.elements}
    by: dict[tuple[str, float, float, str], Facing] = {}
    for face in found.body.faces:
        if not face.zone or face.to == "heated":
            continue
        azimuth, tilt = _looks(face, building.north)
        area = in_system(found.faces[face.id].net, building.dimensions)
        key = (face.zone, azimuth, tilt, face.to)
        held = by.get(key)
        by[key] = (
            Facing(
                element=face.zone,
                name=names.get(face.zone, face.zone),
                area=area,
                azimuth=azimuth,
                tilt=tilt,
                to=face.to,
            )
            if held is None
            else replace(held, area=held.area + area)
        )
    return tuple(one for one in by.values() if one.area > 0)


def panes_of(building: MeasuredBuilding, units: Mapping[str, UnitType], U_of: Mapping[str, float]) -> tuple[Pane, ...]:
    """Units of a building by their type, their size and where they look.

    Parameters
    ----------
    building : MeasuredBuilding
    units : mapping of id to UnitType
    U_of : mapping of element id to float
        Of openings without a type, by what they are counted with. [W/(m²·K)]
    """
    known = {one.id: one for one in building.openings}
    by: dict[tuple[str, str, float, float, float], Pane] = {}
    for face in building.shape.takeoff.body.faces:
        azimuth, tilt = _looks(face, building.north)
        for opening in face.openings:
            body = known.get(opening.id)
            unit = units.get(body.unit) if body else None
            element = body.zone if body else ""
            key = (unit.id if unit else "", element, azimuth, opening.w, opening.h)
            held = by.get(key)
            by[key] = (
                _pane(unit, element, azimuth, tilt, opening.w, opening.h, U_of)
                if held is None
                else replace(held, n=held.n + 1)
            )
    return tuple(one for one in by.values() if one.U > 0)


def _pane(
    unit: UnitType | None, element: str, azimuth: float, tilt: float, w: float, h: float, U_of: Mapping[str, float]
) -> Pane:
    if unit is None:
        U, solar = U_of.get(element, 0.0), G_UNKNOWN * F_UNKNOWN
    else:
        U, solar = value_of(unit.transmittance(w, h)), unit.solar(w, h)
    return Pane(
        unit=unit.name if unit else "", element=element, azimuth=azimuth, tilt=tilt, w=w, h=h, n=1, U=U, solar=solar
    )


def _looks(face: Face, north: float) -> tuple[float, float]:
    """Azimuth from north, and tilt: 0 up, 180 down. [°]"""
    if face.kind == "floor":
        return 0.0, 180.0
    tilt = 90.0 if face.kind == "wall" else face.pitch
    return (round((face.azimuth + north) % 360, 3) if tilt else 0.0), tilt


def by_orientation(panes: Sequence[Pane]) -> dict[float, float]:
    """Area of glazing by azimuth. [m²]"""
    found: dict[float, float] = {}
    for one in panes:
        found[one.azimuth] = found.get(one.azimuth, 0.0) + one.area
    return found

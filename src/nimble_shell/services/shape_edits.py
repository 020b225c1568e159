"""Edits of a shape as one undoable change: joints for every edge, quantities given back, an opening schedule."""

from __future__ import annotations

import math
from collections.abc import Sequence
from dataclasses import replace
from itertools import repeat

from nimble_shell.core.building.body import BodyOpening, BuildingBody
from nimble_shell.core.errors import Collector, DomainError, Issue
from nimble_shell.core.shell.fitted import as_units_are
from nimble_shell.core.shell.measured import MeasuredBuilding, measured
from nimble_shell.core.shell.project import Building, Project
from nimble_shell.core.shell.wanted import adopted, wanted_joints
from nimble_shell.formats.openings_csv import ScheduleLine
from nimble_shell.formats.reading.reading import ReadWall
from nimble_shell.services.joints import building_in
from nimble_shell.services.projects import ChangeNote, ProjectService, new_id
from nimble_shell.store import Stored


def draw_joints(service: ProjectService, project_id: str, building_id: str, note: ChangeNote) -> Stored:
    """A joint for each edge of the shape that has none, where a family suits. Raises DomainError, NotFound."""
    return service.edit(project_id, lambda stored: with_joints(stored.project, building_id), note)


def give_back(service: ProjectService, project_id: str, building_id: str, note: ChangeNote) -> Stored:
    """Areas and lengths follow the shape, wherever it has them; joints take the edges that they are drawn for.

    Raises DomainError, NotFound.
    """

    def change(stored: Stored) -> Project:
        building = shaped(stored.project, building_id)
        elements = tuple(
            replace(one, area=0.0) if of.derived is not None else one
            for one, of in zip(building.as_stored().elements, building.areas, strict=True)
        )
        joints = tuple(replace(one, length=0.0) if one.follows else one for one in adopted(stored.project, building))
        return with_building(stored.project, replace(building.as_stored(), elements=elements, joints=joints))

    return service.edit(project_id, change, note)


def with_joints(project: Project, building_id: str) -> Project:
    """The project with a joint for each edge of a building's shape, as far as families suit. Raises as above."""
    building = shaped(project, building_id)
    stored = building.as_stored()
    joints = as_units_are(project, building, wanted_joints(project, building, (new_id() for _ in repeat(None))))
    return with_building(project, replace(stored, joints=(*stored.joints, *joints)))


def shaped(project: Project, building_id: str) -> MeasuredBuilding:
    """A building with its shape. Raises DomainError where it has none, and NotFound."""
    found = measured(project, building_in(project, building_id).as_stored())
    if not isinstance(found, MeasuredBuilding):
        raise DomainError(Issue(path=("bodies",), code="no_shape", message=f"“{found.name}” has no shape yet",
                                hint="draw a body first"))  # fmt: skip
    return found


def with_building(project: Project, building: Building) -> Project:
    """The project with a building in the place of that of its id."""
    buildings = tuple(building if one.id == building.id else one for one in project.buildings)
    return replace(project, buildings=buildings)


def schedule_of(project: Project, building: Building) -> tuple[ScheduleLine, ...]:
    """The openings of a building as a schedule names them."""
    units = {one.id: one.name for one in project.units}
    bodies = {one.id: one for one in building.bodies}
    elements = {one.id: one.name for one in building.elements}
    return tuple(
        ScheduleLine(line=n, wall=f"{bodies[one.body].name or one.body} {one.side + 1}", mark=one.mark or one.id,
                     kind=one.kind, w=one.w, h=one.h, sill=one.sill, u=one.u, counted_with=elements.get(one.zone, ""),
                     unit=units.get(one.unit, ""))
        for n, one in enumerate(building.openings, 2)
    )  # fmt: skip


def take_schedule(
    service: ProjectService, project_id: str, building_id: str, lines: Sequence[ScheduleLine], note: ChangeNote
) -> Stored:
    """Openings of a schedule: those of a known mark are changed, others are added, none is taken away.

    Raises DomainError, with the line, and NotFound.
    """

    def change(stored: Stored) -> Project:
        building = shaped(stored.project, building_id).as_stored()
        by_mark = {one.mark or one.id: one for one in building.openings}
        units = {one.name: one.id for one in stored.project.units}
        taken = {one.id: one for one in building.openings}
        check = Collector()
        for line in lines:
            place = _side_called(building, line.wall)
            if place is None:
                check.add([Issue(path=("line", line.line, "wall"), code="unknown_wall",
                                 message=f"line {line.line}, column wall: there is no wall “{line.wall}”",
                                 hint="name body and side, as “House 2”, or where it faces, as “North”")])  # fmt: skip
                continue
            check.check(not line.unit or line.unit in units, ("line", line.line, "unit"), "unknown_unit",
                        f"line {line.line}, column unit: there is no type “{line.unit}”",
                        "name a type of the project, or leave it empty")  # fmt: skip
            known = by_mark.get(line.mark)
            one = known.id if known is not None else new_id()
            taken[one] = BodyOpening(
                id=one, mark=line.mark, body=place[0], side=place[1], u=line.u, sill=line.sill, w=line.w, h=line.h,
                kind=line.kind, zone=_counted_with(building, line, known.zone if known is not None else ""),
                unit=units.get(line.unit, known.unit if known is not None and not line.unit else ""),
            )  # fmt: skip
        check.refuse()
        return with_building(stored.project, replace(building, openings=tuple(taken.values())))

    return service.edit(project_id, change, note)


_FACING = {"north": 0.0, "east": 90.0, "south": 180.0, "west": 270.0}


def _side_called(building: Building, name: str) -> tuple[str, int] | None:
    """By body and number, or by where it faces."""
    plain = name.strip()
    body_name, _, number = plain.rpartition(" ")
    for body in building.bodies:
        if number.isdigit() and body_name in (body.name, body.id) and 1 <= int(number) <= len(body.outline):
            return body.id, int(number) - 1
    facing = _FACING.get(plain.lower())
    if facing is None:
        return None
    sides = [(abs((_bearing(building, body, n) - facing + 180) % 360 - 180), -math.dist(*body.side(n)), body.id, n)
             for body in building.bodies for n in range(len(body.outline))]  # fmt: skip
    away, _, body_id, n = min(sides)
    return (body_id, n) if away < 45 else None


def _bearing(building: Building, body: BuildingBody, number: int) -> float:
    p, q = body.side(number)
    return (math.degrees(math.atan2(q[1] - p[1], p[0] - q[0])) + building.north) % 360


def _counted_with(building: Building, line: ScheduleLine, known: str) -> str:
    named = next((one.id for one in building.elements if line.counted_with and one.name == line.counted_with), "")
    if named or known:
        return named or known
    alike = next((one.zone for one in building.openings if one.kind == line.kind and one.zone), "")
    return alike or next((one.id for one in building.elements if one.station == "E"), "")


def sides_for(building: Building, walls: Sequence[ReadWall]) -> list[str]:
    """The side of the shape that each wall of a reading seems to be, as "body/number"; empty where none does.

    By where it faces and how wide it is; a drawing that does not say where its walls face goes by width alone.
    """
    sides = [(body, n) for body in building.bodies for n in range(len(body.outline))]
    taken: set[tuple[str, int]] = set()
    found = []
    for wall in walls:
        best, least = "", 1.0
        for body, n in sides:
            away = 0.0
            if wall.bearing is not None:
                away = abs((_bearing(building, body, n) - wall.bearing + 180) % 360 - 180) / 22.5
            apart = abs(math.dist(*body.side(n)) - wall.size[0]) + away
            if (body.id, n) not in taken and apart < least and wall.shell:
                best, least = f"{body.id}/{n}", apart
        if best:
            one, _, number = best.rpartition("/")
            taken.add((one, int(number)))
        found.append(best)
    return found

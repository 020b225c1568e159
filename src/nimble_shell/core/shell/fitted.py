"""Unit types and the joints round them: frame, place in the wall, shim and fin of a joint are those of its units."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import replace

from nimble_shell.core.building.body import BodyOpening, BuildingBody
from nimble_shell.core.joints.families import FAMILIES
from nimble_shell.core.joints.joint import JointValue, ShellJoint
from nimble_shell.core.parameters import Choice
from nimble_shell.core.shell.measured import MeasuredBuilding
from nimble_shell.core.shell.project import Project
from nimble_shell.core.windows.unit import UnitType

#: Which edge of a unit an edge of the shape is.
_EDGES = {"head": "head", "jamb": "jamb", "window_sill": "sill", "threshold": "threshold"}
_REACH = 1e-6  #: that a sill lies on its floor by [m]


def filled_with(opening: BodyOpening, body: BuildingBody, unit: UnitType) -> BodyOpening:
    """An opening of a unit's kind and size, its middle where it was, its sill above the floor of its storey."""
    floors = [0.0]
    for height in body.storeys[:-1]:
        floors.append(floors[-1] + height)
    floor = max((one for one in floors if one <= opening.sill + _REACH), default=floors[0])
    middle = opening.u + opening.w / 2
    return replace(opening, unit=unit.id, kind=unit.kind, w=unit.w, h=unit.h, u=round(middle - unit.w / 2, 4),
                   sill=round(floor + unit.sill, 4))  # fmt: skip


def as_units_are(project: Project, building: MeasuredBuilding, joints: Sequence[ShellJoint]) -> tuple[ShellJoint, ...]:
    """Joints round openings with what their unit type says; unchanged where openings of several types share one."""
    units = {one.id: one for one in project.units}
    filled = {one.id: units.get(one.unit) for one in building.openings}
    found = []
    for joint in joints:
        edges = {_EDGES[key.partition("|")[0]] for key in joint.follows if key.partition("|")[0] in _EDGES}
        there = {filled[one] for key in joint.follows for one in building.shape.at_openings.get(key, ())}
        unit = next(iter(there)) if len(there) == 1 else None
        found.append(joint if unit is None or len(edges) != 1 else _with_unit(joint, unit, edges.pop()))
    return tuple(found)


def _with_unit(joint: ShellJoint, unit: UnitType, edge: str) -> ShellJoint:
    family = FAMILIES.get(joint.family)
    if family is None:
        return joint
    named = unit.variant(edge)
    variant = named if any(one.key == named for one in family.variants) else joint.variant
    told: dict[str, float | str] = {
        "frame": unit.deep, "door": unit.deep, "position": unit.position, "U_frame": unit.frame.U,
        "U_door": unit.frame.U, "shim": unit.shim, "fin": "fin" if unit.fin else "non-fin",
    }  # fmt: skip
    values = {one.key: one for one in joint.values}
    for parameter in family.turned(variant):
        value = told.get(parameter.key)
        if isinstance(value, str) and isinstance(parameter, Choice):
            values[parameter.key] = JointValue(key=parameter.key, word=value)
        elif (
            isinstance(value, float)
            and not isinstance(parameter, Choice)
            and parameter.least <= value <= parameter.most
        ):
            # A frame that the drawing does not reach stays as the joint has it.
            values[parameter.key] = JointValue(key=parameter.key, number=value)
    return replace(joint, variant=variant, values=tuple(values.values()), decided=joint.decided or variant == named)

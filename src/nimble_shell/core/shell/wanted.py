"""The joints that a shape wants: one for each edge that no joint stands for, of the family that suits its build-ups."""

from __future__ import annotations

from collections.abc import Iterable, Mapping
from dataclasses import dataclass, field

from nimble_shell.core.assemblies.assembly import Assembly
from nimble_shell.core.joints.families import FAMILIES
from nimble_shell.core.joints.families.family import Family, Variant
from nimble_shell.core.joints.joint import JointRole, JointValue, ShellJoint
from nimble_shell.core.parameters import Parameter
from nimble_shell.core.shell.measured import MeasuredBuilding
from nimble_shell.core.shell.project import Project
from nimble_shell.core.shell.quantities import EDGES, ShapeEdge


@dataclass(frozen=True, slots=True, kw_only=True)
class _Kind:
    """Which family an edge is drawn by, and what of it is given."""

    family: str
    values: Mapping[str, str] = field(default_factory=dict)


#: Edges without a line here, or whose family suits none of their build-ups, stay visible without a joint.
_KINDS: dict[str, _Kind] = {
    "ridge": _Kind(family="ridge"), "hip": _Kind(family="hip"), "valley": _Kind(family="valley"),
    "eave": _Kind(family="eave"), "roof_edge": _Kind(family="eave"), "verge": _Kind(family="verge"),
    "high_eave": _Kind(family="high eave"), "parapet": _Kind(family="parapet"), "abutment": _Kind(family="abutment"),
    "roof_seam": _Kind(family="roof seam"), "seam": _Kind(family="seam"), "corner_out": _Kind(family="corner"),
    "corner_in": _Kind(family="inner corner"), "head": _Kind(family="opening", values={"edge": "head"}),
    "jamb": _Kind(family="opening", values={"edge": "jamb"}),
    "window_sill": _Kind(family="opening", values={"edge": "sill"}), "floor_line": _Kind(family="floor line"),
    "change": _Kind(family="change"), "threshold": _Kind(family="threshold"), "foot": _Kind(family="base"),
    "step": _Kind(family="base"), "party": _Kind(family="party"),
}  # fmt: skip


def family_of(kind: str) -> str:
    """Key of the family that an edge is drawn by; empty for none."""
    found = _KINDS.get(kind)
    return "" if found is None else found.family


#: Role of an element in a joint by its station.
_ROLES = {"B": "roof", "D": "wall", "F": "floor", "H": "floor"}


def wanted_joints(project: Project, building: MeasuredBuilding, ids: Iterable[str]) -> tuple[ShellJoint, ...]:
    """A joint for every edge of the shape that has none, as far as a family suits; equal ones together.

    Parameters
    ----------
    project : Project
    building : MeasuredBuilding
    ids : iterable of str
        New identifiers, as many as are taken.

    Notes
    -----
    Where several variants suit, the first of them stands in and the joint says that nobody has decided.
    """
    known = {one.id: one for one in project.assemblies}
    together: dict[tuple[object, ...], tuple[ShapeEdge, Family, list[Variant], dict[str, str], list[str]]] = {}
    for edge in building.unclaimed:
        kind = _KINDS.get(edge.kind)
        family = None if kind is None else FAMILIES.get(kind.family)
        if kind is None or family is None:
            continue
        roles = _met(building, edge, family, known)
        if roles is None:
            continue
        first = known[roles[family.roles[0]]]
        suiting = [one for one in family.variants if first.system in one.suits]
        if suiting:
            key = (edge.kind, *sorted(roles.items()))
            together.setdefault(key, (edge, family, suiting, roles, []))[4].append(edge.key)
    names = [EDGES[edge.kind][0] for edge, *_ in together.values()]
    taken = iter(ids)
    return tuple(
        _joint(next(taken), building, edge, family, suiting, roles, tuple(keys), several=names.count(
            EDGES[edge.kind][0]) > 1)
        for edge, family, suiting, roles, keys in together.values()
    )  # fmt: skip


def _met(
    building: MeasuredBuilding, edge: ShapeEdge, family: Family, known: Mapping[str, Assembly]
) -> dict[str, str] | None:
    """Build-ups by role; None where one is not drawn."""
    elements = {one.id: one for one in building.elements}
    drawn = [elements[one] for one in edge.elements if elements[one].assembly_id in known]
    found: dict[str, str] = {}
    neighbours = {face.zone for face in building.shape.takeoff.body.faces if face.to == "heated"}
    walls = sorted((one for one in drawn if one.station == "D"), key=lambda one: _height(building, one.id))
    for element in (*walls, *(one for one in drawn if one.station != "D")):
        role = _ROLES.get(element.station, "")
        if edge.kind == "party" and element.id in neighbours:
            role = "party"
        elif role == "wall" and role in found:
            role = "upper"
        if role and element.assembly_id:
            found.setdefault(role, element.assembly_id)
    if "floor" in family.roles and "floor" not in found:  # a door's threshold lies on the floor of its building
        floors = [one for one in building.elements if _ROLES.get(one.station) == "floor" and one.assembly_id in known]
        if floors and floors[0].assembly_id:
            found["floor"] = floors[0].assembly_id
    if not all(role in found for role in family.roles):
        return None
    return {role: found[role] for role in family.roles}


def _height(building: MeasuredBuilding, element: str) -> float:
    """Mean height of the faces of an element. [m]"""
    faces = [face for face in building.shape.takeoff.body.faces if face.zone == element]
    return sum(float(face.corners[:, 2].mean()) for face in faces) / max(len(faces), 1)


def _joint(
    joint_id: str, building: MeasuredBuilding, edge: ShapeEdge, family: Family, suiting: list[Variant],
    roles: Mapping[str, str], keys: tuple[str, ...], *, several: bool,
) -> ShellJoint:  # fmt: skip
    variant = suiting[0]
    values = [JointValue(key=key, word=word) for key, word in _KINDS[edge.kind].values.items()]
    pitch = next((one for one in family.turned(variant.key) if one.key == "pitch"), None)
    if isinstance(pitch, Parameter):
        values.append(JointValue(key="pitch", number=min(max(_pitch(building, edge), pitch.least), pitch.most)))
    names = {one.id: one.name for one in building.elements}
    name, station = EDGES[edge.kind]
    if several:
        name = f"{name}, {' and '.join(names[one] for one in edge.elements)}"[:80]
    return ShellJoint(
        id=joint_id, station=station, name=name, family=family.key, variant=variant.key,
        roles=tuple(JointRole(role=role, assembly_id=one) for role, one in roles.items()), values=tuple(values),
        follows=keys, decided=len(suiting) == 1,
    )  # fmt: skip


def _pitch(building: MeasuredBuilding, edge: ShapeEdge) -> float:
    """Of the steepest roof face that is counted with an element of the edge. [°]"""
    return max((face.pitch for face in building.shape.takeoff.body.faces
                if face.kind == "roof" and face.zone in edge.elements), default=0.0)  # fmt: skip


def adopted(project: Project, building: MeasuredBuilding) -> tuple[ShellJoint, ...]:
    """The joints as stored; one that follows nothing takes the edges that its family is drawn for."""
    free = list(building.unclaimed)
    known = {one.id: one for one in project.assemblies}
    found = []
    for joint in building.as_stored().joints:
        mine = [] if joint.follows else [one for one in free if _drawn_for(building, joint, one, known)]
        free = [one for one in free if one not in mine]
        found.append(_following(joint, tuple(one.key for one in mine)) if mine else joint)
    return tuple(found)


def _following(joint: ShellJoint, keys: tuple[str, ...]) -> ShellJoint:
    plain = {name: getattr(joint, name) for name in ShellJoint.__dataclass_fields__}
    return ShellJoint(**(plain | {"follows": keys, "length": 0.0}))


def _drawn_for(building: MeasuredBuilding, joint: ShellJoint, edge: ShapeEdge, known: Mapping[str, Assembly]) -> bool:
    kind, family = _KINDS.get(edge.kind), FAMILIES.get(joint.family)
    if kind is None or family is None or kind.family != joint.family:
        return False
    words = {one.key: one.word for one in joint.values}
    if any(words.get(key, word) != word for key, word in kind.values.items()):
        return False
    roles = _met(building, edge, family, known)
    return roles is not None and set(roles.values()) == set(joint.assembly_ids)

"""Things of a project: what is written, logged and locked on its own, and how they make up a project again.

A project is a heading, a Basis, own materials, unit types, buildings with elements, joints, bodies, openings and faces,
build-ups with fixings. Each is one small document. `KINDS` is the only list of them: a new kind of thing is a line
there and a field of what holds it.
"""

from __future__ import annotations

from collections.abc import Iterator, Mapping
from dataclasses import dataclass, field, replace
from functools import lru_cache
from itertools import chain
from typing import Any

from nimble_shell.core.basis.basis import Basis
from nimble_shell.core.errors import DomainError, Issue
from nimble_shell.core.held import Held
from nimble_shell.core.shell.project import Project
from nimble_shell.formats.document import Document, Text
from nimble_shell.formats.project import (
    AssemblyDoc,
    BasisDoc,
    BodyDoc,
    BuildingDoc,
    ElementDoc,
    FixingDoc,
    FlatFaceDoc,
    JointDoc,
    MaterialDoc,
    OpeningDoc,
    UnitDoc,
)


@dataclass(frozen=True, slots=True, kw_only=True)
class Heading:
    """What a project is called."""

    name: str


class HeadingDoc(Document, core=Heading):
    name: Text


@dataclass(frozen=True, slots=True, kw_only=True)
class ThingKind:
    """A kind of thing: its document, and the fields of it that hold things of their own."""

    name: str
    words: str  #: what it is called on screens
    document: type[Document]
    holds: Mapping[str, str] = field(default_factory=dict)  #: field → kind
    id_field: str = "id"

    def id_of(self, value: Any) -> str:
        """The identifier of a value of this kind."""
        found: str = getattr(value, self.id_field)
        return found

    def bare(self, value: Any) -> Any:
        """The value without the things it holds."""
        return replace(value, **dict.fromkeys(self.holds, ())) if self.holds else value

    def to_json(self, value: Any) -> str:
        """The document of a bare value."""
        return self.document.from_core(value).model_dump_json(by_alias=True, exclude=set(self.holds))


KINDS: dict[str, ThingKind] = {
    kind.name: kind
    for kind in (
        ThingKind(name="project", words="name of the project", document=HeadingDoc),
        ThingKind(name="basis", words="Basis", document=BasisDoc),
        ThingKind(name="material", words="material", document=MaterialDoc, id_field="key"),
        ThingKind(name="unit", words="window or door type", document=UnitDoc),
        ThingKind(name="building", words="building", document=BuildingDoc,
                  holds={"elements": "element", "joints": "joint", "bodies": "body", "openings": "opening",
                         "faces": "face"}),
        ThingKind(name="element", words="element of the shell", document=ElementDoc),
        ThingKind(name="joint", words="joint", document=JointDoc),
        ThingKind(name="body", words="body of the shape", document=BodyDoc),
        ThingKind(name="opening", words="opening", document=OpeningDoc),
        ThingKind(name="face", words="flat face", document=FlatFaceDoc),
        ThingKind(name="assembly", words="build-up", document=AssemblyDoc, holds={"fixings": "fixing"}),
        ThingKind(name="fixing", words="group of fixings", document=FixingDoc),
    )
}  # fmt: skip
#: Fields of a project, in the order in which their things are written and read.
ROOTS: dict[str, str] = {"materials": "material", "assemblies": "assembly", "units": "unit", "buildings": "building"}


@dataclass(frozen=True, slots=True, order=True)
class Key:
    """Which thing of a project: its kind, what owns it, and its id; there is one heading and one Basis."""

    kind: str
    owner: str = ""
    id: str = ""

    def __str__(self) -> str:
        """`basis`, `building/hall`, `joint/hall/j3`."""
        return "/".join(filter(None, (self.kind, self.owner, self.id)))


HEADING, BASIS = Key("project"), Key("basis")


def holder_of(key: Key) -> tuple[Key, ...]:
    """The thing that holds a thing; none for those of the project itself."""
    return tuple(
        Key(kind.name, "", key.owner) for kind in KINDS.values() if key.owner and key.kind in kind.holds.values()
    )


@lru_cache(maxsize=8192)
def read_thing(kind: str, text: str) -> Any:
    """The bare core value of a document; the same text gives the same object, so that caches of results hit.

    Raises
    ------
    ValidationError, DomainError
        If the text does not hold such a thing.
    """
    return KINDS[kind].document.model_validate_json(text).to_core()


def groups(project: Project) -> Iterator[tuple[str, str, tuple[Any, ...]]]:
    """Things of one kind and owner, in order, as they hang in the project: (kind, owner, values)."""
    for root, kind in ROOTS.items():
        values = getattr(project, root)
        yield kind, "", values
        for value in values:
            yield from _held(kind, value)


def _held(kind: str, value: Any) -> Iterator[tuple[str, str, tuple[Any, ...]]]:
    for name, held in KINDS[kind].holds.items():
        yield held, KINDS[kind].id_of(value), getattr(value, name)


def value_at(project: Project, key: Key) -> Any:
    """The bare value of a thing; None where there is none."""
    if key == HEADING:
        return Heading(name=project.name)
    if key == BASIS:
        return project.basis
    kind = KINDS[key.kind]
    for value in _siblings(project, key):
        if kind.id_of(value) == key.id:
            return kind.bare(value)
    return None


def _siblings(project: Project, key: Key) -> tuple[Any, ...]:
    for kind, owner, values in groups(project):
        if (kind, owner) == (key.kind, key.owner):
            return values
    return ()


_WHOLE: Held[Any] = Held()


def compose(project_id: str, things: Mapping[Key, Any]) -> Project:
    """The project of its things, given in their order.

    The same things make the same building or build-up, as the same text makes the same thing: a copy of a project, or
    one that is opened again, finds all that was worked out for it.

    Raises
    ------
    DomainError
        If they do not make one.
    """
    held: dict[tuple[str, str], list[Any]] = {}
    for key, value in things.items():
        held.setdefault((key.kind, key.owner), []).append(value)

    def whole(kind: str, value: Any) -> Any:
        of = KINDS[kind]
        if not of.holds:
            return value
        parts = {name: tuple(held.get((part, of.id_of(value)), ())) for name, part in of.holds.items()}
        if not any(parts.values()):
            return value
        these = (value, *chain.from_iterable(parts.values()))
        return _WHOLE.get(these) or _WHOLE.put(these, replace(value, **parts))

    heading: Heading = things[HEADING]
    basis: Basis = things[BASIS]
    roots = {root: tuple(whole(kind, one) for one in held.get((kind, ""), ())) for root, kind in ROOTS.items()}
    return Project(id=project_id, name=heading.name, basis=basis, **roots)


def put_thing(project: Project, key: Key, value: Any) -> Project:
    """The project with one thing exchanged, added behind its siblings, or taken away (None).

    Raises
    ------
    DomainError
        If the project would not hold together, or what would hold the thing is not there.
    """
    if key == HEADING:
        return replace(project, name=value.name)
    if key == BASIS:
        return replace(project, basis=value)
    for root, name in ROOTS.items():
        if key.kind == name:
            return _with_root(project, root, _exchanged(getattr(project, root), KINDS[name], key.id, value))
        for part, held in KINDS[name].holds.items():
            if held == key.kind:
                return _put_held(project, root, KINDS[name], part, key, value)
    raise _missing(key)


def _put_held(project: Project, root: str, holder: ThingKind, part: str, key: Key, value: Any) -> Project:
    owners = getattr(project, root)
    owner = next((one for one in owners if holder.id_of(one) == key.owner), None)
    if owner is None:
        raise _missing(Key(holder.name, "", key.owner))
    changed = replace(owner, **{part: _exchanged(getattr(owner, part), KINDS[key.kind], key.id, value)})
    return _with_root(project, root, tuple(changed if one is owner else one for one in owners))


def _with_root(project: Project, root: str, values: tuple[Any, ...]) -> Project:
    changes: dict[str, Any] = {root: values}
    return replace(project, **changes)


def _exchanged(values: tuple[Any, ...], kind: ThingKind, one: str, value: Any) -> tuple[Any, ...]:
    at = next((n for n, each in enumerate(values) if kind.id_of(each) == one), len(values))
    return (*values[:at], *(() if value is None else (value,)), *values[at + 1 :])


def _missing(key: Key) -> DomainError:
    return DomainError(Issue(path=(), code="no_such_thing", message=f"there is no {key.kind} “{key.id or key.owner}”",
                             hint="it may have been removed in another window"))  # fmt: skip


def held_by(project: Project, key: Key, value: Any) -> Any:
    """A bare value with all that the thing of that key holds in the project."""
    kind = KINDS[key.kind]
    known = next((one for one in _siblings(project, key) if kind.id_of(one) == key.id), None)
    return value if known is None else replace(value, **{name: getattr(known, name) for name in kind.holds})

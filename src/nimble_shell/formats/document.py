"""The bridge between core values and the JSON that carries them.

`class LayerDoc(Document, core=Layer)` is the JSON form of the dataclass `Layer`: fields, types and defaults are read
from the dataclass, so that none can be forgotten. What a class writes itself takes the place of what was read: a
narrower type, a name on the wire, a default of files. `Model` does the same for answers, which go one way only.
"""

from __future__ import annotations

import types
import typing
from dataclasses import MISSING, Field, fields, is_dataclass
from typing import Annotated, Any, ClassVar, Self

import pydantic
from pydantic import BaseModel, ConfigDict, StringConstraints

from nimble_shell.core.errors import Collector, DomainError
from nimble_shell.core.working import Traced
from nimble_shell.formats.reader import Prose

if typing.TYPE_CHECKING:  # its name is private, what it is is not
    from pydantic._internal._model_construction import ModelMetaclass as _OfModel
else:
    _OfModel = type(BaseModel)

Identifier = Annotated[str, StringConstraints(pattern=r"^[A-Za-z0-9_-]{1,64}$")]
Pair = Annotated[list[float], pydantic.Field(min_length=2, max_length=2)]
LONGEST = 2000  #: text [letters]
Text = Annotated[str, StringConstraints(max_length=LONGEST)]


class _OfDataclass(_OfModel):
    """Reads the fields of `core` into the class that is being made."""

    def __new__(
        mcs, name: str, bases: tuple[type, ...], namespace: dict[str, Any], core: type[Any] | None = None, **more: Any
    ) -> Any:
        if core is not None:
            own = namespace.get("__annotations__", {})
            read: dict[str, Any] = {}
            hints = typing.get_type_hints(core)
            for field in fields(core):
                read[field.name] = own.pop(field.name, None) or _wire(hints[field.name], bases)
                if field.name not in namespace and issubclass(bases[0], Document):  # an answer gives every field
                    _keep_default(namespace, field, read[field.name])
            namespace["__annotations__"] = read | own
            if issubclass(bases[0], Document):
                namespace["core"] = core
            namespace.setdefault("__doc__", core.__doc__)
        told: dict[str, Any] = more if core is None else {"core": core, **more}
        return super().__new__(mcs, name, bases, namespace, **told)


def _keep_default(namespace: dict[str, Any], field: Field[Any], wire: Any) -> None:
    default = field.default if field.default_factory is MISSING else field.default_factory()
    if default is not MISSING:
        namespace[field.name] = _plain_default(default, wire)


def _plain_default(value: Any, wire: Any) -> Any:
    if isinstance(value, tuple):
        of = next(iter(typing.get_args(wire)), wire)  # of a list on the wire what is in it
        return [_plain_default(one, of) for one in value]
    return wire.from_core(value) if is_dataclass(value) else value


def _wire(kind: Any, bases: tuple[type, ...]) -> Any:
    """The type on the wire of a dataclass's field."""
    origin, args = typing.get_origin(kind), typing.get_args(kind)
    if isinstance(kind, type) and is_dataclass(kind):
        return _document(kind, bases)
    if origin in (typing.Union, types.UnionType):
        sent = tuple(_wire(one, bases) for one in args if one is not Traced)  # of `Num` the float is sent
        return typing.Union[sent]  # noqa: UP007 - of a tuple made here
    if origin is tuple and len(args) == 2 and args[1] is not Ellipsis:
        return Pair
    if origin is tuple:
        return list[_wire(args[0], bases)]  # type: ignore[misc]  # made as it runs
    if kind is str:
        return Text if issubclass(bases[0], Document) else Prose
    return kind


def _document(kind: type[Any], bases: tuple[type, ...]) -> type[Any]:
    known: dict[type[Any], type[Any]] = bases[0].known  # type: ignore[attr-defined]  # of both bases
    if kind not in known:
        raise TypeError(f"{kind.__name__} needs a class of its own before what holds it")
    return known[kind]


class Model(BaseModel, metaclass=_OfDataclass):
    """What the API sends or takes; with `core`, the fields of that dataclass. Answers go one way."""

    model_config = ConfigDict(extra="forbid", allow_inf_nan=False, from_attributes=True)

    known: ClassVar[dict[type[Any], type[Any]]] = {}  #: the class of each dataclass

    def __init_subclass__(cls, core: type[Any] | None = None, **more: Any) -> None:
        super().__init_subclass__(**more)
        if core is not None:
            Model.known[core] = cls


class Document(BaseModel, metaclass=_OfDataclass):
    """JSON form of one core dataclass. Unknown keys and numbers that are not finite are refused."""

    model_config = ConfigDict(extra="forbid", allow_inf_nan=False, populate_by_name=True, from_attributes=True)

    core: ClassVar[type[Any]]  #: the dataclass it stands for
    known: ClassVar[dict[type[Any], type[Any]]] = {}  #: the document of each dataclass

    def __init_subclass__(cls, core: type[Any] | None = None, **more: Any) -> None:
        super().__init_subclass__(**more)
        if core is not None:
            Document.known[core] = cls

    def to_core(self) -> Any:
        """The core value.

        Raises
        ------
        DomainError
            With the path of everything that is not possible, in the document's own names.
        """
        check = Collector()
        values: dict[str, Any] = {}
        for name, field in type(self).model_fields.items():
            wire = field.alias or name
            value = getattr(self, name)
            try:
                if isinstance(value, list):
                    values[name] = tuple(_item(item, wire, index, check) for index, item in enumerate(value))
                else:
                    values[name] = value.to_core() if isinstance(value, Document) else value
            except DomainError as error:
                check.add(error.under(wire).issues)
        check.refuse()
        return type(self).core(**values)

    @classmethod
    def from_core(cls, value: Any) -> Self:
        """The document of a core value."""
        return cls.model_validate(value, from_attributes=True)

    def to_wire(self) -> dict[str, Any]:
        """Plain JSON values, in wire names."""
        return self.model_dump(mode="json", by_alias=True)


def _item(item: Any, wire: str, index: int, check: Collector) -> Any:
    if not isinstance(item, Document):
        return tuple(item) if isinstance(item, list) else item
    try:
        return item.to_core()
    except DomainError as error:
        check.add(error.under(wire, index).issues)
        return None

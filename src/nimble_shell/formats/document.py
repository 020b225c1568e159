"""The bridge between core values and the JSON that carries them: same field names, one class each side."""

from __future__ import annotations

from typing import Any, ClassVar, Self

from pydantic import BaseModel, ConfigDict

from nimble_shell.core.errors import Collector, DomainError


class Document(BaseModel):
    """JSON form of one core dataclass. Unknown keys and numbers that are not finite are refused."""

    model_config = ConfigDict(extra="forbid", allow_inf_nan=False, populate_by_name=True, from_attributes=True)

    core: ClassVar[type[Any]]  #: the dataclass it stands for

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

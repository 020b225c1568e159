"""Neutral cases of one verb, each answered by its kind."""

from __future__ import annotations

from collections.abc import Callable, Mapping
from typing import Any

from pydantic import BaseModel

from nimble_shell.core.errors import DomainError, Issue

Kind = tuple[type[BaseModel], Callable[[Any], dict[str, Any]]]


class Cases:
    """Kinds of a verb: how each is read, and how it is answered."""

    def __init__(self, by_kind: Mapping[str, Kind]) -> None:
        self._by_kind = by_kind
        self.kinds = tuple(by_kind)

    def read(self, case: dict[str, Any]) -> BaseModel:
        """A case as it stands in its file.

        Raises
        ------
        pydantic.ValidationError, DomainError
            With what is wrong in the file.
        """
        kind: Any = case.get("kind")
        if kind not in self._by_kind:
            raise DomainError(Issue(path=("kind",), code="missing", message="“kind” is missing",
                                    hint=" or ".join(f"“{one}”" for one in self.kinds)))  # fmt: skip
        return self._by_kind[kind][0].model_validate(case)

    def compute(self, case: BaseModel) -> dict[str, Any]:
        """Answer a case.

        Raises
        ------
        DomainError
            With the path of what is wrong in the case file.
        """
        answer = next(answer for model, answer in self._by_kind.values() if isinstance(case, model))
        return answer(case)

"""One case, by its kind."""

from __future__ import annotations

from collections.abc import Callable
from typing import Any

from pydantic import BaseModel

from nimble_shell.core.errors import DomainError, Issue
from nimble_shell.formats.neutral_setout import courses, drift, panels

_BY_KIND: dict[str, tuple[type[BaseModel], Callable[[Any], dict[str, Any]]]] = {
    "panels": (panels.PanelsCase, panels.compute),
    "courses": (courses.CoursesCase, courses.compute),
    "drift": (drift.DriftCase, drift.compute),
}
KINDS = tuple(_BY_KIND)


def read(case: dict[str, Any]) -> BaseModel:
    """A case as it stands in its file.

    Raises
    ------
    pydantic.ValidationError, DomainError
        With what is wrong in the file.
    """
    kind = case.get("kind")
    if kind not in _BY_KIND:
        raise DomainError(Issue(path=("kind",), code="missing", message="“kind” is missing",
                                hint=" or ".join(f"“{one}”" for one in KINDS)))  # fmt: skip
    return _BY_KIND[kind][0].model_validate(case)


def compute(case: BaseModel) -> dict[str, Any]:
    """Answer a case.

    Raises
    ------
    DomainError
        With the path of what is wrong in the case file.
    """
    answer = next(answer for model, answer in _BY_KIND.values() if isinstance(case, model))
    return answer(case)

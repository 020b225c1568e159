"""Whole ones of something."""

from __future__ import annotations

import math

from nimble_shell.core.errors import DomainError, Issue

MOST = 1e15  #: above it a count is none


def whole(count: float) -> int:
    """Rounded up; what is above a whole number by 1e-9 alone is that number.

    Raises
    ------
    DomainError
        If there are more than anyone counts.
    """
    if count > MOST:
        raise DomainError(Issue(path=(), code="too_many", message=f"{count:.3g} of them", hint="check the sizes"))
    return math.ceil(count - 1e-9)

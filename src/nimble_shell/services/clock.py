"""The moment."""

from __future__ import annotations

from datetime import UTC, datetime


def now() -> str:
    """The moment, as it is stored."""
    return datetime.now(UTC).isoformat(timespec="seconds")

"""The last sum of each building that lacked nothing: it stands while a newer one is being solved."""

from __future__ import annotations

import threading
from collections import OrderedDict
from typing import Generic, Protocol, TypeVar

_MOST = 512  #: buildings


class Sum(Protocol):
    """What may lack a part."""

    @property
    def whole(self) -> bool: ...


T = TypeVar("T", bound=Sum)


class LastWhole(Generic[T]):
    """Of saved projects alone: what is drafted is never the last word."""

    def __init__(self) -> None:
        self._lock = threading.Lock()
        self._seen: OrderedDict[tuple[str, str], T] = OrderedDict()

    def beside(self, project_id: str, building_id: str, now: T, *, saved: bool = True) -> T | None:
        """What stands in the place of a sum that lacks a part; None where it lacks none, or none was whole yet."""
        key = (project_id, building_id)
        with self._lock:
            if not now.whole:
                return self._seen.get(key)
            if saved:
                self._seen[key] = now
                self._seen.move_to_end(key)
                while len(self._seen) > _MOST:
                    self._seen.popitem(last=False)
            return None

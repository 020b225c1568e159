"""What was made of some values, held as long as they are the very same objects: no value is worked out twice."""

from __future__ import annotations

import threading
from collections import OrderedDict
from collections.abc import Callable
from typing import Any, Generic, TypeVar

from nimble_shell.core.progress import report

T = TypeVar("T")
_MOST = 2048
_PATIENCE = 0.25  #: [s]


class Held(Generic[T]):
    """By identity of what it was made of: projects share the parts that did not change, so nothing is hashed.

    Values are compared by `is`, and are kept alive, so that no other object can take their place in memory.
    """

    def __init__(self, most: int = _MOST) -> None:
        self._most = most
        self._lock = threading.Lock()
        self._kept: OrderedDict[tuple[Any, ...], tuple[tuple[Any, ...], T]] = OrderedDict()
        self._making: dict[tuple[Any, ...], threading.Lock] = {}

    def get(self, parts: tuple[Any, ...], *more: Any) -> T | None:
        """What was made of these very objects, and of equal further words and numbers; else None."""
        key = (*map(id, parts), *more)
        with self._lock:
            found = self._kept.get(key)
            if found is None:
                return None
            self._kept.move_to_end(key)
            return found[1]

    def put(self, parts: tuple[Any, ...], value: T, *more: Any) -> T:
        with self._lock:
            self._kept[(*map(id, parts), *more)] = (parts, value)
            while len(self._kept) > self._most:
                self._kept.popitem(last=False)
        return value

    def once(self, parts: tuple[Any, ...], make: Callable[[], T], *more: Any) -> T:
        """What was made of them, else what is made now: who asks meanwhile waits for it instead of making it as well.

        Where it cannot be made, or is stopped, the next one who waits tries.
        """
        key = (*map(id, parts), *more)
        with self._lock:
            making = self._making.setdefault(key, threading.Lock())
        try:
            while not making.acquire(timeout=_PATIENCE):
                report(0, 0)  # whoever waits may be stopped, too
            try:
                found = self.get(parts, *more)
                return self.put(parts, make(), *more) if found is None else found
            finally:
                making.release()
        finally:
            with self._lock:
                self._making.pop(key, None)

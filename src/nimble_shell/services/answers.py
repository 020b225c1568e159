"""Answers, by what was asked: in memory, and those that took long in the database, so that a restart has them."""

from __future__ import annotations

import logging
import threading
from collections import OrderedDict
from collections.abc import Callable
from typing import Any

from nimble_shell.formats.answers import from_plain, to_bytes, unpacked
from nimble_shell.services.clock import now
from nimble_shell.store import AnswerRepository, Database, StoreError

log = logging.getLogger(__name__)

MOST = 64 * 1024**2  #: in memory [bytes]
LASTING = 0.005  #: an answer that took longer than this is kept in the database [s]


def figures_of(value: Any) -> Any:
    """The figures of an answer that has fields as well; any other answer is its own figures."""
    return getattr(value, "figures", value)


class Answers:
    """Every answer once; the least used leave the memory first. Without a database nothing outlasts the process."""

    def __init__(self, database: Database | None = None, most: int = MOST) -> None:
        self._database, self._most = database, most
        self._lock = threading.Lock()
        self._held: OrderedDict[str, tuple[Any, int]] = OrderedDict()
        self._size = 0
        self._absent: set[str] = set()  #: keys that the database is known not to have

    def get(self, key: str) -> Any:
        """An answer that is there, else None."""
        return self._found(key, key, AnswerRepository.body)

    def figures(self, key: str) -> Any:
        """Its figures: of an answer with fields much less than the answer; else the answer."""
        whole = self._of_memory(key)
        if whole is not None:
            return figures_of(whole)
        return self._found(key, f"figures of {key}", AnswerRepository.figures)

    def _found(self, key: str, name: str, read: Callable[[AnswerRepository, str], bytes | None]) -> Any:
        found = self._of_memory(name)
        if found is not None or self._database is None or key in self._absent:
            return found
        value, size = self._kept(self._database, key, read)
        if value is None:
            self._absent.add(key)
        else:
            self._hold(name, value, size)
        return value

    def _of_memory(self, name: str) -> Any:
        with self._lock:
            found = self._held.get(name)
            if found is None:
                return None
            self._held.move_to_end(name)
            return found[0]

    def hold(self, key: str, value: Any, size: int = 0) -> None:
        """Have an answer in memory.

        Parameters
        ----------
        size : int
            Of the value, about. [bytes]
        """
        self._hold(key, value, size)
        self._absent.discard(key)

    def keep(self, key: str, kind: str, value: Any, took: float) -> None:
        """Write an answer to the database, if it took long enough. One that cannot be written is told in the log.

        Parameters
        ----------
        took : float
            How long it was solved. [s]
        """
        if self._database is None or took < LASTING:
            return
        try:
            body, brief = to_bytes(value), figures_of(value)
            figures = None if brief is value else to_bytes(brief)
            with self._database.write() as session:
                AnswerRepository(session).put(key, kind, body, now(), figures)
        except (StoreError, TypeError) as error:
            log.warning("an answer of %s is not kept: %s", kind, error)

    def _kept(
        self, database: Database, key: str, read: Callable[[AnswerRepository, str], bytes | None]
    ) -> tuple[Any, int]:
        try:
            with database.read() as session:
                body = read(AnswerRepository(session), key)
            plain = b"" if body is None else unpacked(body)
            return (from_plain(plain), len(plain)) if plain else (None, 0)
        except (StoreError, ValueError, KeyError, TypeError) as error:
            log.warning("an answer that was kept cannot be read: %s", error)
            return None, 0

    def _hold(self, key: str, value: Any, size: int) -> None:
        with self._lock:
            self._size += size - self._held.pop(key, (None, 0))[1]
            self._held[key] = (value, size)
            while self._size > self._most and len(self._held) > 1:
                self._size -= self._held.popitem(last=False)[1][1]

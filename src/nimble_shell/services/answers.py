"""Answers, by what was asked: in memory, and those that took long in the database, so that a restart has them."""

from __future__ import annotations

import logging
import pickle
import threading
from collections import OrderedDict
from typing import Any

from nimble_shell.formats.answers import from_bytes, to_bytes
from nimble_shell.services.clock import now
from nimble_shell.store import AnswerRepository, Database, StoreError

log = logging.getLogger(__name__)

MOST = 64 * 1024**2  #: in memory [bytes]
LASTING = 0.050  #: an answer that took longer than this is kept in the database [s]


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
        with self._lock:
            found = self._held.get(key)
            if found is not None:
                self._held.move_to_end(key)
                return found[0]
            if self._database is None or key in self._absent:
                return None
        value = self._kept(self._database, key)
        if value is None:
            self._absent.add(key)
        else:
            self._hold(key, value)
        return value

    def put(self, key: str, kind: str, value: Any, took: float) -> None:
        """Keep an answer. What cannot be kept in the database is in memory still: who asked is answered all the same.

        Parameters
        ----------
        took : float
            How long it was solved. [s]
        """
        self._hold(key, value)
        self._absent.discard(key)
        if self._database is None or took < LASTING:
            return
        try:
            body = to_bytes(value)
            with self._database.write() as session:
                AnswerRepository(session).put(key, kind, body, now())
        except (StoreError, TypeError) as error:
            log.warning("an answer of %s is not kept: %s", kind, error)

    def _kept(self, database: Database, key: str) -> Any:
        try:
            with database.read() as session:
                body = AnswerRepository(session).body(key)
            return None if body is None else from_bytes(body)
        except (StoreError, ValueError, KeyError, TypeError) as error:
            log.warning("an answer that was kept cannot be read: %s", error)
            return None

    def _hold(self, key: str, value: Any) -> None:
        size = len(pickle.dumps(value, pickle.HIGHEST_PROTOCOL))  # measured, and thrown away
        with self._lock:
            self._size += size - self._held.pop(key, (None, 0))[1]
            self._held[key] = (value, size)
            while self._size > self._most and len(self._held) > 1:
                self._size -= self._held.popitem(last=False)[1][1]

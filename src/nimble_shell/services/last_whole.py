"""The last ledger of each building that lacked nothing: it stands while a newer one is being solved."""

from __future__ import annotations

import threading
from collections import OrderedDict

from nimble_shell.services.bench import Summed

_MOST = 512  #: buildings


class LastWhole:
    """Of saved projects alone: what is drafted is never the last word."""

    def __init__(self) -> None:
        self._lock = threading.Lock()
        self._seen: OrderedDict[tuple[str, str], Summed] = OrderedDict()

    def beside(self, project_id: str, building_id: str, now: Summed, *, saved: bool = True) -> Summed | None:
        """What stands in the place of a ledger that lacks a part; None where it lacks none, or none was whole yet."""
        key = (project_id, building_id)
        with self._lock:
            if not now.ledger.whole:
                return self._seen.get(key)
            if saved:
                self._seen[key] = now
                self._seen.move_to_end(key)
                while len(self._seen) > _MOST:
                    self._seen.popitem(last=False)
            return None

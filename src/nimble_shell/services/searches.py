"""What a thread of this process works out itself, told and stopped by its ticket as a question of the queue is."""

from __future__ import annotations

from collections.abc import Callable
from concurrent.futures import Future, ThreadPoolExecutor
from dataclasses import dataclass
from functools import partial
from typing import TypeVar

from nimble_shell.core.progress import Stopped, watched

T = TypeVar("T")
_MOST = 4  #: at the same time; they take turns on one processor


@dataclass(slots=True)
class Search:
    """How far one is, in its own counts; zero before its first."""

    done: int = 0
    of: int = 0
    stopped: bool = False

    def watch(self, done: int, of: int) -> None:
        """Raises Stopped."""
        if self.stopped:
            raise Stopped
        self.done, self.of = done, of


class Searches:
    """Runs work that tells where it is through `core.progress.report`, and ends it there where it is stopped."""

    def __init__(self, begun: Callable[[str], None]) -> None:
        self._begun = begun  #: is told the ticket of every search that begins
        self._threads = ThreadPoolExecutor(_MOST, thread_name_prefix="search")
        self.under: dict[str, Search] = {}

    def begin(self, ticket: str, work: Callable[[], T]) -> Future[T]:
        """What the work returns, later. The future raises what it raises, and Stopped."""
        search = self.under[ticket] = Search()
        self._begun(ticket)
        future = self._threads.submit(_run, search, work)
        future.add_done_callback(partial(self._ended, ticket, search))
        return future

    def cancel(self, ticket: str) -> int:
        """End the work of a ticket where it next tells where it is. How many that are."""
        search = self.under.get(ticket)
        if search is None:
            return 0
        search.stopped = True
        return 1

    def stop(self) -> None:
        """End everything, and begin no more."""
        for ticket in list(self.under):
            self.cancel(ticket)
        self._threads.shutdown(wait=False, cancel_futures=True)

    def _ended(self, ticket: str, search: Search, _: object) -> None:
        if self.under.get(ticket) is search:
            self.under.pop(ticket)


def _run(search: Search, work: Callable[[], T]) -> T:
    with watched(search.watch):
        search.watch(0, 0)
        return work()

"""Long solutions tell where they are, and end where somebody wants them to: between two grids."""

from __future__ import annotations

from collections.abc import Callable, Iterator
from contextlib import contextmanager
from contextvars import ContextVar

#: Is told the number of the grid and its unknowns; raises Stopped to end the solution.
Watch = Callable[[int, int], None]

_watch: ContextVar[Watch | None] = ContextVar("watch", default=None)


class Stopped(Exception):
    """Somebody has stopped the solution."""

    def __init__(self) -> None:
        super().__init__("stopped before the answer was there")

    def __reduce__(self) -> tuple[type[Stopped], tuple[()]]:
        """As it is, through a worker."""
        return type(self), ()


@contextmanager
def watched(watch: Watch) -> Iterator[None]:
    """Solutions in the block are watched."""
    token = _watch.set(watch)
    try:
        yield
    finally:
        _watch.reset(token)


def report(grids: int, unknowns: int) -> None:
    """A grid is about to be solved. Raises Stopped."""
    watch = _watch.get()
    if watch is not None:
        watch(grids, unknowns)

"""What workers are asked in tests of the solver queue."""

from __future__ import annotations

import os
import time
from pathlib import Path

from nimble_shell.core.errors import DomainError, Issue
from nimble_shell.core.progress import report


def squared(number: float) -> float:
    return number * number


def process(number: int) -> int:
    """The worker's own number; asked with different numbers it is asked anew."""
    return os.getpid() + 0 * number


def slept(seconds: float, name: str = "") -> str:
    """Takes its time, and can be stopped."""
    end = time.monotonic() + seconds
    while time.monotonic() < end:
        report(int(100 * (end - time.monotonic())), 100)
        time.sleep(0.01)
    return name


def dies(file: str, times: int) -> str:
    """Ends its worker so many times, then answers."""
    seen = Path(file)
    done = len(seen.read_text()) if seen.exists() else 0
    seen.write_text("x" * (done + 1))
    if done < times:
        os._exit(9)
    return f"answered at attempt {done + 1}"


def refuses(number: int) -> None:
    raise DomainError(Issue(path=(), code="no", message=f"no to {number}", hint=""))


def unspeakable() -> object:
    return lambda: None

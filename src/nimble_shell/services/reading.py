"""Files of others are read in a process of their own: what brings a reader down takes nobody's question along."""

from __future__ import annotations

import multiprocessing
import signal
import sys
from collections.abc import Callable
from dataclasses import dataclass
from multiprocessing.connection import Connection
from typing import Any, TypeVar

from nimble_shell.core.errors import DomainError, Issue

T = TypeVar("T")


@dataclass(frozen=True, slots=True, kw_only=True)
class Limits:
    """What reading one file may take."""

    memory: int = 1536 * 1024**2  #: address space [bytes]
    cpu: int = 10  #: [s]
    patience: float = 60.0  #: by the clock [s]


LIMITS = Limits()


def read_apart(read: Callable[..., T], *args: Any, limits: Limits = LIMITS) -> T:
    """What a reader makes of a file.

    Parameters
    ----------
    read : callable
        A function of a module; it runs in a process of its own.
    args
        What it is asked of: the bytes of the file, its name.
    limits : Limits
        Memory and processor time are limited where the system can do that, the clock everywhere.

    Raises
    ------
    DomainError
        As the reader raises it; or that the file takes more time or memory than is allowed, or ends the reader.
    """
    context = multiprocessing.get_context("spawn")
    here, there = context.Pipe(duplex=False)
    process = context.Process(target=_read, args=(there, limits, read, args), daemon=True, name="reader")
    process.start()
    there.close()
    try:
        if not here.poll(limits.patience):
            raise _refused("file_takes_too_long", f"reading it takes longer than {limits.patience:g} s")
        found = here.recv()
    except EOFError:
        process.join(timeout=5)
        raise _ended(process.exitcode, limits) from None
    finally:
        process.kill()
        process.join()
        here.close()
    if isinstance(found, _Raised):
        raise found.error
    return found  # type: ignore[no-any-return]  # what `read` returns, through a pipe


@dataclass(frozen=True, slots=True)
class _Raised:
    error: Exception


def _read(pipe: Connection, limits: Limits, read: Callable[..., Any], args: tuple[Any, ...]) -> None:
    _limit(limits)
    try:
        found = read(*args)
    except MemoryError:
        found = _Raised(_too_much(limits))
    except Exception as error:
        found = _Raised(error)
    pipe.send(found)


def _limit(limits: Limits) -> None:
    if sys.platform == "win32":
        return  # the clock alone
    import resource

    resource.setrlimit(resource.RLIMIT_CORE, (0, 0))
    resource.setrlimit(resource.RLIMIT_CPU, (limits.cpu, limits.cpu + 1))
    resource.setrlimit(resource.RLIMIT_AS, (limits.memory, limits.memory))


def _ended(code: int | None, limits: Limits) -> DomainError:
    """Why a reader ended without a word."""
    if code in (-getattr(signal, "SIGXCPU", 0), -getattr(signal, "SIGKILL", 0)) and code:
        return _refused("file_takes_too_long", f"reading it takes more than {limits.cpu} s of computing")
    return _refused("file_ends_reader", "it brings the reader down")


def _too_much(limits: Limits) -> DomainError:
    return _refused("file_takes_too_much", f"reading it takes more than {limits.memory // 1024**2} MB of memory")


def _refused(code: str, message: str) -> DomainError:
    return DomainError(Issue(path=("content",), code=code, message=message,
                             hint="the file is damaged, or not what its name says; nothing was changed"))  # fmt: skip

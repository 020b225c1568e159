"""Readers that do what a bad file makes a library do."""

from __future__ import annotations

import ctypes
import os

from nimble_shell.core.errors import DomainError, Issue


def whole(content: bytes, name: str) -> tuple[str, int]:
    return name, len(content)


def refusing(content: bytes) -> None:
    raise DomainError(Issue(path=("content", "lines", 3), code="bad_line", message=content.decode(), hint="mend it"))


def crashing(_: bytes) -> None:
    ctypes.string_at(0)


def leaving(_: bytes) -> None:
    os._exit(3)


def growing(_: bytes) -> int:
    return len(bytearray(8 * 1024**3))


def turning(_: bytes) -> None:
    while True:
        pass


def waiting(_: bytes) -> None:
    import threading

    threading.Event().wait()


def stumbling(_: bytes) -> None:
    raise KeyError("a fault of ours")

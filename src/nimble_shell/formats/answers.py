"""Answers as bytes: dataclasses of the core, with their arrays one after the other. Nothing in them can run."""

from __future__ import annotations

import importlib
import json
import math
import zlib
from dataclasses import fields, is_dataclass
from typing import Any

import numpy as np

_LEVEL = 1  #: of compression: higher ones take longer and make the numbers of a field no smaller
_LENGTH = 8  #: of the number that tells how long the words are [bytes]
_ROOMS = ("nimble_shell.core.", "nimble_shell.services.")


def to_bytes(value: Any) -> bytes:
    """A value made of numbers, texts, tuples, lists, mappings, arrays and dataclasses of the program.

    Raises
    ------
    TypeError
        If it holds anything else.
    """
    arrays: list[np.ndarray[Any, Any]] = []
    words = json.dumps(_plain(value, arrays)).encode()
    body = b"".join(one.tobytes() for one in arrays)
    return zlib.compress(len(words).to_bytes(_LENGTH, "little") + words + body, _LEVEL)


def from_bytes(body: bytes) -> Any:
    """The value again.

    Raises
    ------
    ValueError, KeyError, TypeError
        If the bytes are not of this program, or of an older shape of it.
    """
    return from_plain(unpacked(body))


def unpacked(body: bytes) -> bytes:
    """The bytes without their compression. Raises ValueError."""
    try:
        return zlib.decompress(body)
    except zlib.error as error:
        raise ValueError("not the bytes of an answer") from error


def from_plain(plain: bytes) -> Any:
    """The value of bytes without compression; errors as of `from_bytes`."""
    begin = _LENGTH + int.from_bytes(plain[:_LENGTH], "little")
    return _value(json.loads(plain[_LENGTH:begin].decode()), _Arrays(plain, begin))


class _Arrays:
    """Arrays as they come one after the other in the bytes."""

    def __init__(self, body: bytes, at: int) -> None:
        self._body, self._at = body, at

    def next(self, kind: str, shape: list[int]) -> np.ndarray[Any, Any]:
        dtype = np.dtype(kind)
        if dtype.hasobject:
            raise ValueError(f"{kind} is no number")
        count = math.prod(shape)
        found = np.frombuffer(self._body, dtype, count, self._at).reshape(shape).copy()
        self._at += count * dtype.itemsize
        return found


def _plain(value: Any, arrays: list[np.ndarray[Any, Any]]) -> Any:
    if value is None or isinstance(value, bool | int | float | str):
        return value
    if isinstance(value, np.generic):
        return value.item()
    if isinstance(value, np.ndarray):
        arrays.append(value)
        return {"array": [value.dtype.str, list(value.shape)]}
    if isinstance(value, tuple | list):
        return {type(value).__name__: [_plain(one, arrays) for one in value]}
    if isinstance(value, dict):
        return {"dict": [[_plain(key, arrays), _plain(one, arrays)] for key, one in value.items()]}
    if is_dataclass(value) and type(value).__module__.startswith(_ROOMS):
        kind = f"{type(value).__module__}:{type(value).__qualname__}"
        return {"of": kind, "is": {one.name: _plain(getattr(value, one.name), arrays) for one in fields(value)}}
    raise TypeError(f"{type(value).__name__} cannot be kept")


def _value(plain: Any, arrays: _Arrays) -> Any:
    if not isinstance(plain, dict):
        return plain
    if "of" in plain:
        return _class(plain["of"])(**{name: _value(one, arrays) for name, one in plain["is"].items()})
    ((kind, held),) = plain.items()
    if kind == "array":
        return arrays.next(*held)
    if kind == "dict":
        return {_value(key, arrays): _value(one, arrays) for key, one in held}
    made = [_value(one, arrays) for one in held]
    return tuple(made) if kind == "tuple" else made


def _class(kind: str) -> Any:
    module, _, name = kind.partition(":")
    if not module.startswith(_ROOMS):
        raise ValueError(f"{kind} is not of this program")
    try:
        found = getattr(importlib.import_module(module), name)
    except (ImportError, AttributeError) as error:
        raise ValueError(f"there is no {kind}") from error
    if not is_dataclass(found):
        raise ValueError(f"{kind} is no value")
    return found

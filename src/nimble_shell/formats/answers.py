"""Answers as bytes: dataclasses of the core, with arrays in NumPy's own compressed format. Nothing in them can run."""

from __future__ import annotations

import importlib
import io
import json
from dataclasses import fields, is_dataclass
from typing import Any

import numpy as np

_ROOMS = ("nimble_shell.core.", "nimble_shell.services.")


def to_bytes(value: Any) -> bytes:
    """A value made of numbers, texts, tuples, lists, mappings, arrays and dataclasses of the program.

    Raises
    ------
    TypeError
        If it holds anything else.
    """
    arrays: list[np.ndarray[Any, Any]] = []
    said = json.dumps(_plain(value, arrays))
    out = io.BytesIO()
    kept = {f"a{at}": one for at, one in enumerate(arrays)}
    np.savez_compressed(out, said=np.frombuffer(said.encode(), dtype=np.uint8), allow_pickle=False, **kept)
    return out.getvalue()


def from_bytes(body: bytes) -> Any:
    """The value again.

    Raises
    ------
    ValueError, KeyError, TypeError
        If the bytes are not of this program, or of an older shape of it.
    """
    with np.load(io.BytesIO(body), allow_pickle=False) as found:
        return _value(json.loads(found["said"].tobytes().decode()), found)


def _plain(value: Any, arrays: list[np.ndarray[Any, Any]]) -> Any:
    if value is None or isinstance(value, bool | int | float | str):
        return value
    if isinstance(value, np.generic):
        return value.item()
    if isinstance(value, np.ndarray):
        arrays.append(value)
        return {"array": len(arrays) - 1}
    if isinstance(value, tuple | list):
        return {type(value).__name__: [_plain(one, arrays) for one in value]}
    if isinstance(value, dict):
        return {"dict": [[_plain(key, arrays), _plain(one, arrays)] for key, one in value.items()]}
    if is_dataclass(value) and type(value).__module__.startswith(_ROOMS):
        kind = f"{type(value).__module__}:{type(value).__qualname__}"
        return {"of": kind, "is": {one.name: _plain(getattr(value, one.name), arrays) for one in fields(value)}}
    raise TypeError(f"{type(value).__name__} cannot be kept")


def _value(plain: Any, arrays: Any) -> Any:
    if not isinstance(plain, dict):
        return plain
    if "of" in plain:
        return _class(plain["of"])(**{name: _value(one, arrays) for name, one in plain["is"].items()})
    ((kind, held),) = plain.items()
    if kind == "array":
        return arrays[f"a{held}"]
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

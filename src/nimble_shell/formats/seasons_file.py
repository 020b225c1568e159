"""An hourly run as bytes: arrays in NumPy's own compressed format, the rest as JSON beside them."""

from __future__ import annotations

import io
import json
from dataclasses import asdict, fields

import numpy as np

from nimble_shell.core.moisture.hourly.life import MouldSpot, Seasons

_ARRAYS = ("x", "layer", "hours", "theta", "phi", "w", "water", "mould", "wood_share")


def to_bytes(found: Seasons) -> bytes:
    """The whole of a run."""
    rest = {
        field.name: getattr(found, field.name)
        for field in fields(Seasons)
        if field.name not in (*_ARRAYS, "places")
    }  # fmt: skip
    rest["places"] = [asdict(one) for one in found.places]
    arrays = {name: getattr(found, name) for name in _ARRAYS}
    out = io.BytesIO()
    np.savez_compressed(out, said=np.array(json.dumps(rest)), allow_pickle=False, **arrays)
    return out.getvalue()


def from_bytes(body: bytes) -> Seasons:
    """A run that was kept. Raises ValueError or KeyError where it is not one."""
    with np.load(io.BytesIO(body), allow_pickle=False) as found:
        rest = json.loads(str(found["said"]))
        arrays = {name: found[name] for name in _ARRAYS}
    rest["places"] = tuple(MouldSpot(**one) for one in rest["places"])
    for name in ("layers", "wood", "notes"):
        rest[name] = tuple(rest[name])
    rest["dry_after"] = tuple((layer, day) for layer, day in rest["dry_after"])
    return Seasons(**rest, **arrays)

"""Answers as bytes, and the edition they are of."""

from __future__ import annotations

import json
from dataclasses import fields, is_dataclass
from typing import Any

import numpy as np
import pytest

from nimble_shell.core.assemblies.systems import SYSTEMS
from nimble_shell.core.basis.basis import Basis
from nimble_shell.core.fixings.cell import cell_of
from nimble_shell.core.fixings.solved import solve_fixing
from nimble_shell.core.joints.solved import solve_joint
from nimble_shell.core.materials import CATALOGUE
from nimble_shell.core.moisture.hourly.life import Life
from nimble_shell.core.moisture.hourly.seasons import seasons
from nimble_shell.core.moisture.verdict.verdict import judge_alone
from nimble_shell.demo.heron_flats import campus
from nimble_shell.formats.answers import from_bytes, to_bytes
from nimble_shell.services.edition import edition, reach
from nimble_shell.services.joints import drawn, question


def same(a: Any, b: Any) -> bool:
    if isinstance(a, np.ndarray):
        return bool(a.dtype == b.dtype and np.array_equal(a, b, equal_nan=a.dtype.kind == "f"))
    if is_dataclass(a):
        return type(a) is type(b) and all(same(getattr(a, f.name), getattr(b, f.name)) for f in fields(a))
    if isinstance(a, tuple | list):
        return type(a) is type(b) and len(a) == len(b) and all(same(x, y) for x, y in zip(a, b, strict=True))
    if isinstance(a, dict):
        return list(a) == list(b) and all(same(a[key], b[key]) for key in a)
    return bool(a == b)


def test_every_kind_of_answer_comes_back_as_it_was() -> None:
    wall = SYSTEMS["sip"].assembly("w", "W")
    cell = cell_of(wall, wall.fixings[0], CATALOGUE, Basis()) if wall.fixings else None
    project = campus()
    joint = project.buildings[0].joints[1]
    what = drawn(project, joint)
    kept: list[Any] = [
        solve_joint(*question(project, what, "working")),
        seasons(wall, CATALOGUE, Basis(), Life(years=1)),
        judge_alone(wall, CATALOGUE, Basis(), "horizontal"),
        {("a", "b"): (1.5, None, float("inf")), "n": [np.float64(2.0), True]},
    ]
    if cell is not None:
        kept.append(solve_fixing(cell, {"inside": 20.0, "outside": -10.0}, "iso6946", "working"))
    for value in kept:
        assert same(from_bytes(to_bytes(value)), value), type(value)


def test_nothing_but_values_of_the_program_is_made_of_bytes() -> None:
    with pytest.raises(TypeError):
        to_bytes(object())
    good = to_bytes(Life())
    said = np.load(__import__("io").BytesIO(good))["said"].tobytes().decode()
    for wrong in ("os:system", "nimble_shell.core.errors:DomainError", "nimble_shell.core.nothing:Life"):
        plain = json.loads(said)
        plain["of"] = wrong
        out = __import__("io").BytesIO()
        np.savez_compressed(out, said=np.frombuffer(json.dumps(plain).encode(), dtype=np.uint8))
        with pytest.raises(ValueError, match=r"program|value|there is no"):
            from_bytes(out.getvalue())
    with pytest.raises((ValueError, KeyError, OSError)):
        from_bytes(b"PK not an archive")


def test_an_edition_is_of_what_the_answer_can_depend_on() -> None:
    reached = reach("nimble_shell.core.joints.solved")
    assert "nimble_shell.core.conduction.solve" in reached
    assert "nimble_shell.core.moisture.hourly.kernel" not in reached
    assert not any(one.startswith(("nimble_shell.api", "nimble_shell.store")) for one in reached)
    assert "nimble_shell.core.moisture.hourly.kernel" in reach("nimble_shell.services.hours")
    assert edition(solve_joint) != edition(judge_alone)
    assert edition(solve_joint) == edition(solve_joint)

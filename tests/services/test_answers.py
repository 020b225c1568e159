"""Answers as bytes, and the edition they are of."""

from __future__ import annotations

import json
import zlib
from dataclasses import fields, is_dataclass
from typing import Any, cast

import numpy as np
import pytest

from nimble_shell.core.assemblies.systems import SYSTEMS
from nimble_shell.core.basis.basis import Basis
from nimble_shell.core.conduction.result import Extremes
from nimble_shell.core.fixings.cell import cell_of
from nimble_shell.core.fixings.solved import FixingFigures, SolvedFixing, solve_fixing
from nimble_shell.core.joints.solved import JointFigures, SolvedJoint, solve_joint
from nimble_shell.core.materials import CATALOGUE
from nimble_shell.core.moisture.hourly.life import Life
from nimble_shell.core.moisture.hourly.seasons import seasons
from nimble_shell.core.moisture.verdict.verdict import judge_alone
from nimble_shell.demo.heron_flats import campus
from nimble_shell.formats.answers import from_bytes, to_bytes
from nimble_shell.services.answers import Answers
from nimble_shell.services.joints import drawn, question
from nimble_shell.store import Database


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


def written(words: object, body: bytes = b"") -> bytes:
    """Bytes of an answer whose words somebody wrote."""
    said = json.dumps(words).encode()
    return zlib.compress(len(said).to_bytes(8, "little") + said + body)


def test_nothing_but_values_of_the_program_is_made_of_bytes() -> None:
    with pytest.raises(TypeError):
        to_bytes(object())
    for wrong in ("os:system", "nimble_shell.core.errors:DomainError", "nimble_shell.core.nothing:Life"):
        with pytest.raises(ValueError, match=r"program|value|there is no"):
            from_bytes(written({"of": wrong, "is": {}}))


@pytest.mark.parametrize(
    "bad",
    [
        b"PK not an answer",
        b"",
        zlib.compress(b"short"),
        written({"array": ["<f8", [3]]}, b"\0" * 8),  # more numbers than there are
        written({"array": ["|O", [1]]}, b"\0" * 8),  # objects are no numbers
        written({"array": ["no type", [1]]}),
        written({"of": "nimble_shell.core.moisture.hourly.life:Life", "is": {"nobody": 1}}),
    ],
)
def test_bytes_that_are_no_answer_are_refused(bad: bytes) -> None:
    with pytest.raises((ValueError, KeyError, TypeError)):
        from_bytes(bad)


def test_arrays_keep_their_kind_and_shape_and_are_free_to_be_written_on() -> None:
    given = (
        np.arange(6.0).reshape(2, 3),
        np.array([], dtype=np.float32),
        np.array(3, dtype=np.int64),
        np.zeros((0, 2)),
    )
    for one, again in zip(given, from_bytes(to_bytes(given)), strict=True):
        assert again.dtype == one.dtype
        assert again.shape == one.shape
        assert (again == one).all()
        assert again.flags.writeable


class TestFigures:
    """What is read often of a large answer stands beside it."""

    @pytest.fixture
    def solved(self) -> SolvedFixing:
        figures = JointFigures(coupling={("inside", "outside"): 0.3}, psi={}, error=0.0, certain=None, heat_flow={},
                               balance=0.0, f_rsi=0.9, f_error=0.001, coldest=Extremes(min=1, at=(0, 0), max=2, at_max=(0, 0)),
                               temperatures={}, unknowns=9)  # fmt: skip
        field = SolvedJoint(**{one.name: getattr(figures, one.name) for one in fields(JointFigures)},
                            field=cast("Any", np.zeros(200_000)), trace=np.zeros((0, 3, 3)), segments=(), starts=np.zeros((0, 2)))  # fmt: skip
        return SolvedFixing(chi=0.01, error=1e-5, field=field)

    def test_are_read_without_the_answer(self, database: Database, solved: SolvedFixing) -> None:
        Answers(database).keep("k", "solve_fixing", solved, took=1.0)
        again = Answers(database)
        figures = again.figures("k")
        assert (type(figures), figures.chi) == (FixingFigures, 0.01)
        assert again._size < 2000
        assert again.figures("k") is figures  # and once only
        assert np.array_equal(again.get("k").field.field, solved.field.field)

    def test_come_from_the_answer_where_that_is_in_memory(self, solved: SolvedFixing) -> None:
        answers = Answers()
        answers.hold("k", solved)
        assert answers.figures("k").chi == 0.01
        assert answers.figures("other") is None

    def test_of_an_answer_without_fields_are_the_answer(self, database: Database) -> None:
        Answers(database).keep("k", "life", Life(), took=1.0)
        assert Answers(database).figures("k") == Life()

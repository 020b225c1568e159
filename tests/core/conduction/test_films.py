"""A section with other films on the same mesh, by the factors of the first; slopes; and fields that add up to 1."""

from __future__ import annotations

from dataclasses import replace

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st

from nimble_shell.core.conduction.elements import shape_functions, shape_slopes
from nimble_shell.core.conduction.mesh import build
from nimble_shell.core.conduction.section import Section
from nimble_shell.core.conduction.solve import begun, once_more, solve_mesh, with_films
from nimble_shell.core.joints.bound import judged, section_of
from nimble_shell.demo.heron_flats import campus
from nimble_shell.services.joints import drawn, question

PROJECT = campus()
LAB = PROJECT.within("main-laboratory")


def section(joint_id: str, *, mould: bool = False) -> Section:
    joint = next(one for one in PROJECT.buildings[0].joints if one.id == joint_id)
    drawing, temperatures, school, _ = question(LAB, drawn(LAB, joint), "final")
    plain = section_of(drawing, temperatures, school)
    return judged(drawing, plain) if mould else plain


@pytest.mark.parametrize("joint_id", ["j2", "j4", "j6"])
def test_other_films_on_the_same_mesh_are_solved_as_from_the_start(joint_id: str) -> None:
    plain, mould = section(joint_id), section(joint_id, mould=True)
    found = begun(plain)
    T = np.array(list(plain.temperatures.values()))
    directly = solve_mesh(mould, found.fields.space.mesh).theta @ T
    assert with_films(mould, found.fields) == pytest.approx(directly, abs=1e-6)


@pytest.mark.parametrize("joint_id", ["j2", "j6"])
def test_the_same_films_change_nothing(joint_id: str) -> None:
    plain = section(joint_id)
    found = begun(plain)
    T = np.array(list(plain.temperatures.values()))
    assert with_films(plain, found.fields) == pytest.approx(found.fields.theta @ T, abs=1e-6)


@pytest.mark.parametrize("joint_id", ["j2", "j4", "j6"])
def test_the_fields_of_all_environments_add_up_to_one_and_no_heat_is_lost(joint_id: str) -> None:
    fields = once_more(section(joint_id), begun(section(joint_id))).fields
    assert fields.theta.sum(axis=1) == pytest.approx(np.ones(len(fields.theta)), abs=1e-12)
    size = np.abs(fields.G).max()
    assert np.abs(fields.G.sum(axis=0)).max() < 1e-9 * size  # what one gives, the others take
    assert np.abs(fields.G - fields.G.T).max() < 1e-9 * size  # and as much the other way


def test_a_section_all_at_one_temperature_stays_there() -> None:
    plain = section("j2")
    level = replace(plain, temperatures=dict.fromkeys(plain.temperatures, 7.0))
    fields = solve_mesh(level, build(level, begun(plain).grid))
    assert fields.theta @ np.full(len(level.temperatures), 7.0) == pytest.approx(7.0, abs=1e-9)


@given(st.floats(0, 1), st.floats(0, 1))
def test_slopes_of_the_shape_functions_are_those_of_their_values(u: float, v: float) -> None:
    L = np.array([u, v * (1 - u), 0.0])
    L[2] = 1 - L[0] - L[1]
    step = 1e-6
    for at in range(3):
        ahead, behind = L.copy(), L.copy()
        ahead[at] += step
        behind[at] -= step
        numeric = (shape_functions(ahead) - shape_functions(behind)) / (2 * step)
        assert shape_slopes(L)[:, at] == pytest.approx(numeric, abs=1e-8)


def test_slopes_of_many_points_are_those_of_each() -> None:
    many = np.random.default_rng(3).dirichlet([1, 1, 1], size=(4, 5))
    found = shape_slopes(many)
    assert found.shape == (4, 5, 6, 3)
    for at in np.ndindex(4, 5):
        assert np.array_equal(found[at], shape_slopes(many[at]))

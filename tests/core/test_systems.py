"""Every generator gives a valid wall over its whole range, and refuses beyond it."""

from __future__ import annotations

from typing import Any

import pytest
from hypothesis import given
from hypothesis import strategies as st

from nimble_shell.core.assemblies.figures import wall_figures
from nimble_shell.core.assemblies.systems import SYSTEMS, Choice, Parameter, System
from nimble_shell.core.errors import DomainError
from nimble_shell.core.materials import CATALOGUE
from nimble_shell.core.shell.basis import Basis
from nimble_shell.core.working import value_of


@st.composite
def chosen(draw: st.DrawFn) -> tuple[System, dict[str, Any]]:
    system = draw(st.sampled_from(list(SYSTEMS.values())))
    values: dict[str, Any] = {}
    for parameter in system.parameters:
        if isinstance(parameter, Choice):
            values[parameter.key] = draw(st.sampled_from(parameter.options))
        else:
            values[parameter.key] = draw(st.floats(min_value=parameter.least, max_value=parameter.most))
    return system, values


@given(chosen())
def test_every_wall_a_generator_makes_can_be_calculated(made: tuple[System, dict[str, Any]]) -> None:
    system, values = made
    wall = system.assembly("w", "W", values)
    found = wall_figures(wall, CATALOGUE, Basis(), "0").figures
    assert value_of(found["thickness"].number) == pytest.approx(sum(layer.d for layer in wall.layers))
    assert value_of(found["R_nominal"].number) > value_of(found["R_clear"].number) * (1 - 1e-12)
    assert wall.core_index is not None


@pytest.mark.parametrize("system", SYSTEMS.values(), ids=lambda system: str(system.key))
def test_parameters_beyond_their_range_are_refused(system: System) -> None:
    for parameter in system.parameters:
        if isinstance(parameter, Parameter):
            bad: list[Any] = [parameter.least - 1, parameter.most + 1, "wide"]
        else:
            bad = ["something else", 3.0]
        for value in bad:
            with pytest.raises(DomainError) as refused:
                system.assembly("w", "W", {parameter.key: value})
            assert refused.value.issues[0].code == "parameter_out_of_range"
            assert refused.value.issues[0].path == (parameter.key,)


def test_an_unknown_parameter_is_refused_by_name() -> None:
    with pytest.raises(DomainError) as refused:
        SYSTEMS["sip"].assembly("w", "W", {"colour": "blue"})
    assert refused.value.issues[0].code == "unknown_parameter"


def test_lumber_splines_cost_what_they_cost() -> None:
    def R(spline: str) -> float:
        wall = SYSTEMS["sip"].assembly("w", "W", {"spline": spline})
        return value_of(wall_figures(wall, CATALOGUE, Basis(), "0").figures["R_clear"].number)

    assert R("double lumber") < R("single lumber") < R("block") == R("surface")


def test_every_system_carries_its_cautions_and_names_who_decides() -> None:
    for system in SYSTEMS.values():
        text = " ".join(system.cautions)
        assert "engineer" in text
        assert len(system.cautions) >= 4

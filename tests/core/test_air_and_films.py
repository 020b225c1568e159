"""Films by school, and air layers from first principles against the printed table."""

from __future__ import annotations

import pytest
from hypothesis import given
from hypothesis import strategies as st

from nimble_shell.core.basis.stations import Direction
from nimble_shell.core.thermal.air import air_layer_resistance
from nimble_shell.core.thermal.films import films
from nimble_shell.core.working import value_of

DIRECTIONS: tuple[Direction, ...] = ("horizontal", "up", "down")


@given(
    st.floats(min_value=0.002, max_value=0.3), st.sampled_from(DIRECTIONS), st.floats(min_value=0.05, max_value=0.95)
)
def test_a_shinier_face_resists_more(d: float, direction: Direction, emissivity: float) -> None:
    dull = value_of(air_layer_resistance(d, 0.95, 0.95, direction=direction))
    shiny = value_of(air_layer_resistance(d, emissivity, 0.95, direction=direction))
    assert shiny >= dull


@given(st.floats(min_value=0.002, max_value=0.3), st.floats(min_value=0.05, max_value=0.95))
def test_heat_going_down_is_resisted_most_and_going_up_least(d: float, emissivity: float) -> None:
    up, across, down = (
        value_of(air_layer_resistance(d, emissivity, 0.9, direction=direction))
        for direction in ("up", "horizontal", "down")
    )
    assert up <= across * (1 + 1e-12)
    assert across <= down * (1 + 1e-12)


def test_the_two_faces_are_alike_to_radiation() -> None:
    assert value_of(air_layer_resistance(0.02, 0.2, 0.9)) == value_of(air_layer_resistance(0.02, 0.9, 0.2))


def test_a_cold_air_layer_radiates_less() -> None:
    cold, warm = (value_of(air_layer_resistance(0.05, 0.9, 0.9, theta_m=theta)) for theta in (-10.0, 30.0))
    assert cold > warm


def test_behind_a_well_ventilated_layer_the_outer_film_is_still_air() -> None:
    for direction in DIRECTIONS:
        pair = films("iso6946", direction, sheltered=True)
        assert pair.R_se == pair.R_si


def test_the_north_american_set_is_the_known_one() -> None:
    per_ip = 0.176110
    winter, summer = films("north_american", "horizontal", "winter"), films("north_american", "horizontal", "summer")
    assert winter.R_si == pytest.approx(0.68 * per_ip)
    assert winter.R_se == pytest.approx(0.17 * per_ip)
    assert summer.R_se == pytest.approx(0.25 * per_ip)
    assert "ISO 6946" not in winter.clause

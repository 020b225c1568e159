"""Build-ups through the year: which planes get wet, what they may hold, and the room at which a surface fails."""

from __future__ import annotations

from dataclasses import replace

import pytest

from nimble_shell.core.assemblies.assembly import Assembly, Layer
from nimble_shell.core.assemblies.systems import SYSTEMS
from nimble_shell.core.basis.basis import Basis
from nimble_shell.core.basis.indoor import Indoor
from nimble_shell.core.materials import CATALOGUE
from nimble_shell.core.moisture.monthly.element import closest_to_saturation, element_year, months_of
from nimble_shell.core.moisture.monthly.surface import f_rsi_required, phi_at_failure
from nimble_shell.demo.heron_flats import campus

BASIS = campus().basis


def wall(*layers: tuple[str, float]) -> Assembly:
    return Assembly(id="a", name="A", system="sip", layers=tuple(
        Layer(id=f"l{at}", material=material, d=d, studied=material.startswith("eps")) for at, (material, d)
        in enumerate(layers)))  # fmt: skip


def humid(phi: float) -> Basis:
    return replace(BASIS, indoor=Indoor(phi_heating=phi, phi_cooling=phi))


@pytest.mark.parametrize("key", SYSTEMS)
def test_every_drawn_system_has_a_year(key: str) -> None:
    found = element_year(SYSTEMS[key].assembly("w", key), CATALOGUE, BASIS)
    assert 0 < found.f_rsi < 1
    assert found.verdict in {"dry", "dries", "too wet", "gathers"}
    month, plane, share = closest_to_saturation(found.year)
    assert 0 <= share <= 1 + 1e-9
    assert found.year.p[month, plane] <= found.year.p_sat[month, plane] * (1 + 1e-9)


def test_a_tight_skin_outside_gets_wetter_the_more_humid_the_room() -> None:
    one = wall(("gypsum-board", 0.0125), ("eps-035", 0.14), ("plywood", 0.024))
    peaks = [element_year(one, CATALOGUE, humid(phi)).year.peak for phi in (0.3, 0.5, 0.7)]
    assert peaks == sorted(peaks)
    assert peaks[-1] > 0.1
    turned = replace(one, layers=one.layers[::-1])
    assert element_year(turned, CATALOGUE, humid(0.7)).year.peak < peaks[-1]


def test_a_limit_is_the_least_that_the_layers_beside_a_plane_allow() -> None:
    found = element_year(wall(("gypsum-board", 0.0125), ("eps-035", 0.14), ("osb", 0.011), ("concrete", 0.1)),
                         CATALOGUE, humid(0.7))  # fmt: skip
    by_sides = {(one.inner, one.outer): one for one in found.wet}
    skin = by_sides[2, 3]
    assert skin.limit == pytest.approx(0.03 * 0.011 * CATALOGUE["osb"].rho)
    assert "3 % of the mass of OSB" in skin.reason
    assert found.verdict in {"too wet", "gathers"}


def test_a_surface_fails_at_the_humidity_that_is_told() -> None:
    found = element_year(wall(("concrete", 0.2), ("eps-035", 0.04)), CATALOGUE, BASIS)
    assert found.critical is not None
    phi = found.phi_fails[found.critical]
    assert phi is not None
    month = months_of(BASIS)[found.critical]
    assert f_rsi_required(replace(month, phi_i=phi)) == pytest.approx(found.f_rsi, abs=1e-6)
    assert found.surface_passes == (month.phi_i <= phi)
    assert phi_at_failure(replace(month, theta_i=month.theta_e), 0.5) is None


def test_layers_behind_a_ventilated_gap_take_no_part() -> None:
    drawn = SYSTEMS["sip"].assembly("w", "sip")
    found = element_year(drawn, CATALOGUE, humid(0.8))
    assert found.counted < len(drawn.layers)
    assert all(one.outer < found.counted for one in found.wet)

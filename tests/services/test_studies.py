"""Studies of a build-up where it stands, and that every figure of one opens to a working that says the same."""

from __future__ import annotations

from dataclasses import replace
from typing import Any

import pytest
from replaying import replay

from nimble_shell.core.errors import DomainError
from nimble_shell.core.studies.claim import Claim
from nimble_shell.core.studies.variants import decide
from nimble_shell.core.working import value_of
from nimble_shell.demo.heron_flats import campus
from nimble_shell.services import workings
from nimble_shell.services.studies import (
    REFERENCE_ID,
    PlacedDraft,
    claim,
    compare,
    day_through,
    foam,
    probe,
)
from nimble_shell.services.workings import study_working
from nimble_shell.store import NotFound

PROJECT = campus()
WALL = next(one for one in PROJECT.assemblies if one.id == "wall-w-a")
ROOF = next(one for one in PROJECT.assemblies if one.id == "roof-r-a")
HERE = PlacedDraft(building_id="main-laboratory", assembly=WALL)


class TestWhereItStands:
    def test_a_draft_has_the_station_of_its_build_up(self) -> None:
        assert HERE.station(PROJECT) == "D"
        assert PlacedDraft(building_id="main-laboratory", assembly=ROOF).station(PROJECT) == "B"

    def test_a_building_that_is_not_there_is_told(self) -> None:
        with pytest.raises(NotFound):
            PlacedDraft(building_id="nowhere", assembly=WALL).station(PROJECT)


class TestComparing:
    def test_the_first_one_leads_and_every_side_has_its_figures(self) -> None:
        sides = compare(PROJECT, "main-laboratory", "winter", [WALL.id, REFERENCE_ID], "as drawn")
        assert [one.assembly.id for one in sides] == [WALL.id, REFERENCE_ID]
        assert all(value_of(one.bench.wall.figures["R_clear"].number) > 0 for one in sides)

    def test_to_equal_R_the_others_are_brought_by_their_core(self) -> None:
        first, second = compare(PROJECT, "main-laboratory", "winter", ["wall-w-b", WALL.id], "equal R")
        assert second.why_not == ""
        R = [value_of(one.bench.wall.figures["R_clear"].number) for one in (first, second)]
        assert R[0] == pytest.approx(R[1], rel=1e-6)
        assert second.assembly.thickness != WALL.thickness

    def test_to_equal_thickness_both_are_as_thick(self) -> None:
        first, second = compare(PROJECT, "main-laboratory", "winter", ["wall-w-b", WALL.id], "equal thickness")
        assert second.why_not == ""
        assert first.assembly.thickness == pytest.approx(second.assembly.thickness)

    def test_one_that_cannot_be_brought_is_as_it_is_with_the_reason(self) -> None:
        thin = replace(WALL, id="thin", layers=tuple(replace(one, studied=False) for one in WALL.layers))
        project = replace(PROJECT, assemblies=(*PROJECT.assemblies, thin))
        _, side = compare(project, "main-laboratory", "winter", [WALL.id, "thin"], "equal R")
        assert side.why_not
        assert side.assembly == thin

    @pytest.mark.parametrize("ids", [["wall-w-a"], ["wall-w-a"] * 5])
    def test_two_to_four(self, ids: list[str]) -> None:
        with pytest.raises(DomainError) as caught:
            compare(PROJECT, "main-laboratory", "winter", ids, "as drawn")
        assert caught.value.issues[0].code == "two_to_four"

    def test_a_build_up_that_is_gone_is_told(self) -> None:
        with pytest.raises(NotFound):
            compare(PROJECT, "main-laboratory", "winter", [WALL.id, "gone"], "as drawn")


class TestTheFoamDecision:
    def test_without_cores_named_takes_those_of_the_system(self) -> None:
        found = foam(PROJECT, HERE, []).decision
        assert len(found.cores) > 2

    def test_with_cores_named_takes_those(self) -> None:
        found = foam(PROJECT, HERE, ["xps-036"]).decision
        assert "xps-036" in [one.core for one in found.cores]

    def test_says_what_moves_it_the_largest_first(self) -> None:
        swings = foam(PROJECT, HERE, []).swings
        sizes = [max(abs(one) for one in swing.money) for swing in swings]
        assert sizes == sorted(sizes, reverse=True)


class TestAProbe:
    def test_of_the_inner_face_is_warmer_than_of_the_outer_one(self) -> None:
        asked = {"chased": None, "chase_depth": 0.0, "chase_share": 0.0}
        inner = probe(PROJECT, HERE, depth=0.001, **asked)
        outer = probe(PROJECT, HERE, depth=0.2, **asked)
        assert inner.winter is not None
        assert outer.winter is not None
        assert inner.winter > outer.winter
        assert inner.coldest is not None
        assert inner.coldest > inner.winter  # the coldest month is milder than the design day

    def test_without_a_depth_or_a_groove_has_nothing_to_say(self) -> None:
        found = probe(PROJECT, HERE, depth=None, chased=None, chase_depth=0.0, chase_share=0.0)
        assert (found.winter, found.coldest, found.chase) == (None, None, None)


CLAIM = Claim(R=5.0, d=0.185, theta=24.0, age="fresh")
DAY = workings.OfDay(month=6, rise=10.0)
CORE = next(n for n, layer in enumerate(WALL.layers) if layer.studied)
OPENED: list[tuple[Any, str]] = [
    (DAY, "Y12"),
    (DAY, "decrement"),
    (DAY, "kappa_i"),
    (DAY, "peak_flux"),
    (CLAIM, "lambda_aged"),
    (CLAIM, "R_combined"),
    (CLAIM, "remains"),
    (workings.OfProbe(depth=0.05, layer=None, groove=0.0, share=0.0), "winter"),
    (workings.OfProbe(depth=0.05, layer=None, groove=0.0, share=0.0), "coldest"),
    (workings.OfVariant(core="xps-036", d=0.2), "floor"),
    (workings.OfSide(leader=WALL.id, condition="winter"), "R_clear"),
    (workings.OfMoisture(month=0), "f_required"),
    (workings.OfMoisture(month=0), "phi_fails"),
    (workings.OfMoisture(month=0), "share_safe"),
    (workings.OfMargin(), "margin"),
]


@pytest.mark.parametrize(("of", "figure"), OPENED, ids=[f"{type(of).__name__}-{figure}" for of, figure in OPENED])
def test_a_figure_of_a_study_opens_to_a_working_that_replays(of: Any, figure: str) -> None:
    found = study_working(PROJECT, HERE, of, figure)
    assert found.steps
    assert replay(found) == pytest.approx(found.value, rel=1e-9, abs=1e-9)
    assert all(step.text for step in found.steps)


def test_the_working_of_a_day_is_the_days_own_figure() -> None:
    shown = day_through(PROJECT, HERE, DAY.month, DAY.rise)
    assert len(shown.figures) == 8
    for figure, number in shown.figures.items():
        assert study_working(PROJECT, HERE, DAY, figure).value == pytest.approx(value_of(number))


def test_the_working_of_a_claim_is_the_claims_own_figure() -> None:
    shown = claim(PROJECT, HERE, CLAIM)
    assert study_working(PROJECT, HERE, CLAIM, "remains").value == pytest.approx(value_of(shown.remains))
    for figure in ("R_nominal", "R_combined", "R_winter_clear"):
        assert study_working(PROJECT, HERE, CLAIM, figure).value == pytest.approx(value_of(shown.figures[figure]))


def test_a_leak_of_a_month_opens_too() -> None:
    of = workings.OfLeak(joint_id="j1", month=0)
    ridge = PlacedDraft(building_id="main-laboratory", assembly=ROOF)
    found = study_working(PROJECT, ridge, of, "carried")
    assert replay(found) == pytest.approx(found.value, rel=1e-9)
    tight = study_working(PROJECT, ridge, replace(of, leakage=1e-6), "carried")
    assert abs(tight.value) < abs(found.value)


def test_a_cold_room_pays_for_the_foam_that_keeps_heat_out() -> None:
    """At −5 °C all year what flows in has to be cooled away: the least money over the life is at 270 mm."""
    store = PROJECT.within("sample-cold-store")
    wall = next(one for one in store.assemblies if one.id == "wall-w-d")
    found = decide(wall, store.catalogue, store.basis, (), asked=None)
    assert found.least_life is not None
    core, at = found.least_life
    assert found.cores[core].d[at] == pytest.approx(0.27)
    assert (value_of(found.cores[core].columns["heat"]) >= 0).all()

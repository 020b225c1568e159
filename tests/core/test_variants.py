"""The foam decision: the sweep is each wall on its own, limits stop what they should, and the picks are the best."""

from __future__ import annotations

import itertools
from dataclasses import replace
from typing import Any

import numpy as np
import pytest

from nimble_shell.core.assemblies.assembly import AirGap, Assembly, Fixing, Layer, Member
from nimble_shell.core.assemblies.systems import SYSTEMS
from nimble_shell.core.basis.basis import Basis
from nimble_shell.core.basis.economy import Economy
from nimble_shell.core.basis.schools import Schools
from nimble_shell.core.basis.stations import Direction
from nimble_shell.core.basis.targets import Limits, Targets
from nimble_shell.core.errors import DomainError
from nimble_shell.core.materials import CATALOGUE
from nimble_shell.core.studies.sensitivity import sensitivity
from nimble_shell.core.studies.sweep import possible
from nimble_shell.core.studies.thickness import crossing
from nimble_shell.core.studies.variants import COLUMNS, Decision, decide
from nimble_shell.core.thermal.control import share_inside
from nimble_shell.core.thermal.figures import wall_figures
from nimble_shell.core.working import value_of

BASIS = Basis(targets=Targets(R_wall=5.6))
#: Column of the sweep → figure of the single wall.
SAME = {
    "R_fresh": "R_fresh",
    "R_nominal": "R_nominal",
    "R_clear": "R_clear",
    "R_winter": "R_winter_clear",
    "R_summer": "R_summer_clear",
    "U_clear": "U_clear",
    "thickness": "thickness",
    "weight": "weight",
    "cost": "cost",
    "carbon": "carbon",
    "heat": "heat",
    "cool": "cool",
    "money": "money",
    "carbon_life": "carbon_life",
    "f_rsi": "f_rsi",
}


def awkward() -> Assembly:
    """A slightly ventilated layer, members by share, points and ribs at once."""
    return Assembly(
        id="w",
        name="W",
        system="",
        layers=(
            Layer(id="a", material="gypsum-board", d=0.0125),
            Layer(id="v", material="vapour-variable", d=0.0005, control=("vapour",)),
            Layer(id="c", material="pir-core", d=0.12, rib=0.01, studied=True,
                  members=(Member(name="m", material="softwood", share=0.08),)),
            Layer(id="s", d=0.03, air=AirGap(ventilation="slightly", A_v=0.0009)),
            Layer(id="b", material="larch-boards", d=0.022),
        ),
        fixings=(Fixing(id="f", name="screws", material="steel", n=5, diameter=0.006, layer="c"),),
    )  # fmt: skip


def decided(assembly: Assembly, basis: Basis = BASIS, cores: tuple[str, ...] = (), **more: Any) -> Decision:
    return decide(assembly, CATALOGUE, basis, cores, asked=basis.targets.R_wall, **more)


@pytest.mark.parametrize("bridged", ["combined", "parallel"])
@pytest.mark.parametrize(
    "wall", ["sip", "mesh-mortar", "icf", "icf-one-sided", "metal-panel-roof", "loft", "slab", "awkward"]
)
def test_every_column_is_the_single_walls_own_to_1e_9(wall: str, bridged: Any) -> None:
    assembly = awkward() if wall == "awkward" else SYSTEMS[wall].assembly("w", "W")
    direction: Direction = "horizontal" if wall == "awkward" else (
        {"wall": "horizontal", "roof": "up", "floor": "down"}[SYSTEMS[wall].place]  # type: ignore[assignment]
    )  # fmt: skip
    basis = replace(BASIS, schools=Schools(bridged=bridged))
    found = decided(assembly, basis, ("pir-core", "wood-fibre-flex", "eps-038"), direction=direction)
    for variants in found.cores:
        for at in (0, len(variants.d) // 2, len(variants.d) - 1):
            one = assembly.with_core(float(variants.d[at]), variants.core)
            single = wall_figures(one, CATALOGUE, basis, "0", direction=direction)
            for column, key in SAME.items():
                swept = float(variants.columns[column][at])
                if column == "R_fresh" and np.isnan(swept):
                    # the core has no fresh value; the figure may stand for another foam in the wall
                    assert CATALOGUE[variants.core].lambda_fresh is None
                    continue
                assert swept == pytest.approx(value_of(single.figures[key].number), rel=1e-9, abs=1e-9), column
            inside = share_inside(one, list(single.R_layers))
            share = float(variants.columns["inside_share"][at])
            assert np.isnan(share) if inside is None else share == pytest.approx(inside.share, rel=1e-12)


class TestBothPanelsOfAForm:
    FORM = SYSTEMS["icf"].assembly("w", "W", {"outer": 0.1, "inner": 0.06})

    def test_are_one_core_in_proportion_and_of_one_material(self) -> None:
        other = self.FORM.with_core(0.2, "pir-board-open")
        by_id = {layer.id: layer for layer in self.FORM.layers}
        changed = {(layer.material, round(layer.d, 9)) for layer in other.layers if layer != by_id[layer.id]}
        assert changed == {("pir-board-open", 0.2), ("pir-board-open", 0.12)}
        assert self.FORM.with_core(0.1, "eps-form") == self.FORM

    def test_of_two_materials_stay_so_until_another_core_is_chosen(self) -> None:
        inner = next(at for at, layer in enumerate(self.FORM.layers) if layer.goes_with_core)
        layers = list(self.FORM.layers)
        layers[inner] = replace(layers[inner], material="eps-form-graphite", lambda_entered=0.03)
        mixed = replace(self.FORM, layers=tuple(layers))
        assert mixed.with_core(0.1, "eps-form") == mixed
        assert mixed.with_core(0.1, "xps-033").layers[inner].lambda_entered is None
        own = decided(mixed).cores[0]
        assert own.present is not None
        single = wall_figures(mixed, CATALOGUE, BASIS, "0").figures["R_clear"]
        assert own.columns["R_clear"][own.present] == pytest.approx(value_of(single.number))

    def test_are_in_stock_where_both_are(self) -> None:
        def stocked(form: Assembly) -> list[float]:
            own = decided(form).cores[0]
            return [float(d) for d, kept in zip(own.d, own.stocked, strict=True) if kept]

        stock = CATALOGUE["eps-form"].stock
        equal = SYSTEMS["icf"].assembly("w", "W")
        assert stocked(equal) == pytest.approx(stock)
        assert stocked(self.FORM) == [d for d in stock if any(abs(0.6 * d - one) < 1e-7 for one in stock)]

    def test_stand_by_themselves_where_a_designer_says_so(self) -> None:
        alone = replace(self.FORM, layers=tuple(replace(one, goes_with_core=False) for one in self.FORM.layers))
        both, one = (crossing(form, CATALOGUE, BASIS, 5.6)[0] for form in (self.FORM, alone))
        assert both is not None
        assert one is not None
        assert 0.1 < value_of(both) < value_of(one)

    def test_are_never_thinner_or_thicker_than_can_be(self) -> None:
        thin = SYSTEMS["icf"].assembly("w", "W", {"outer": 0.2, "inner": 0.051})
        least, most = possible(thin)
        assert (least * 0.051 / 0.2, most) == (pytest.approx(0.005), 1.0)

    def test_are_both_counted_where_an_input_swings(self) -> None:
        swing = next(one for one in sensitivity(self.FORM, CATALOGUE, BASIS, asked=5.6) if one.key == "core_cost")
        cost = value_of(wall_figures(self.FORM, CATALOGUE, BASIS, "0").figures["money"].number)
        dearer = {"eps-form": replace(CATALOGUE["eps-form"], cost=CATALOGUE["eps-form"].cost * 1.2)}
        then = value_of(wall_figures(self.FORM, CATALOGUE | dearer, BASIS, "0").figures["money"].number)
        assert swing.money[1] == pytest.approx(then - cost)

    def test_an_air_gap_goes_with_no_core(self) -> None:
        with pytest.raises(DomainError, match="no core"):
            Layer(id="a", d=0.03, air=AirGap(), goes_with_core=True)


def test_every_column_has_a_value_for_every_thickness() -> None:
    for variants in decided(SYSTEMS["sip"].assembly("w", "W")).cores:
        assert set(variants.columns) == set(COLUMNS)
        assert all(len(values) == len(variants.d) == len(variants.stops) for values in variants.columns.values())
        assert list(variants.d) == sorted(set(variants.d))


def test_the_exact_thickness_of_each_core_reaches_what_is_asked() -> None:
    wall = SYSTEMS["sip"].assembly("w", "W")
    for variants in decided(wall, cores=SYSTEMS["sip"].cores).cores:
        assert variants.exact is not None
        layer = replace(wall.layers[3], material=variants.core, d=variants.exact)
        one = replace(wall, layers=(*wall.layers[:3], layer, *wall.layers[4:]))
        R = wall_figures(one, CATALOGUE, BASIS, "0").figures["R_clear"].number
        assert value_of(R) == pytest.approx(5.6, abs=1e-9)


@pytest.mark.parametrize(
    ("limits", "stop"),
    [
        (Limits(thickness=0.330), "thickness"),
        (Limits(weight=54.0), "weight"),
        (Limits(inside_share=0.02), "ratio"),
        (Limits(stock_only=True), "stock"),
    ],
)
def test_a_limit_stops_exactly_what_breaks_it(limits: Limits, stop: str) -> None:
    basis = replace(BASIS, limits=limits)
    found = decided(SYSTEMS["sip"].assembly("w", "W"), basis, SYSTEMS["sip"].cores)
    broken = {
        "thickness": lambda core, at: core.columns["thickness"][at] > 0.330 + 1e-9,
        "weight": lambda core, at: core.columns["weight"][at] > 54.0 + 1e-9,
        "ratio": lambda core, at: core.columns["inside_share"][at] > 0.02,
        "stock": lambda core, at: not core.stocked[at],
    }[stop]
    for core in found.cores:
        for at in range(len(core.d)):
            assert (stop in core.stops[at]) == bool(broken(core, at))
            assert ("target" in core.stops[at]) == bool(core.columns["R_clear"][at] < 5.6 * (1 - 1e-12))


def test_the_cheapest_passes_and_none_that_passes_is_cheaper() -> None:
    basis = replace(BASIS, limits=Limits(thickness=0.340))
    found = decided(SYSTEMS["sip"].assembly("w", "W"), basis, SYSTEMS["sip"].cores)
    assert found.cheapest is not None
    core, at = found.cheapest
    assert found.cores[core].stops[at] == ()
    cost = found.cores[core].columns["cost"][at]
    passing = [v.columns["cost"][n] for v in found.cores for n in range(len(v.d)) if not v.stops[n]]
    assert cost == min(passing)
    assert found.least_life is not None
    least_core, least_at = found.least_life
    least = found.cores[least_core].columns["money"][least_at]
    assert least == min(v.columns["money"][n] for v in found.cores for n in range(len(v.d)) if not v.stops[n])
    everything = np.concatenate([variants.columns["money"] for variants in found.cores])
    assert least > everything.min()  # this limit forbids what would cost least: that is told apart
    assert found.least_beyond is not None
    core, at = found.least_beyond
    assert found.cores[core].stops[at] == ("thickness",)
    assert found.cores[core].columns["money"][at] == everything.min()


def test_without_a_limit_in_the_way_the_least_is_the_least_of_all() -> None:
    found = decided(SYSTEMS["sip"].assembly("w", "W"), replace(BASIS, limits=Limits()), SYSTEMS["sip"].cores)
    assert found.least_beyond is None
    assert found.least_life is not None
    core, at = found.least_life
    everything = np.concatenate([variants.columns["money"] for variants in found.cores])
    assert found.cores[core].columns["money"][at] == everything.min()


def test_where_nothing_passes_there_is_no_cheapest() -> None:
    found = decided(SYSTEMS["sip"].assembly("w", "W"), replace(BASIS, limits=Limits(thickness=0.1)))
    assert (found.cheapest, found.least_life) == (None, None)
    assert found.least_beyond is not None


def test_the_next_step_is_the_difference_of_two_walls() -> None:
    wall = SYSTEMS["sip"].assembly("w", "W")
    step = decided(wall).step
    assert step is not None
    assert (step.now, step.d) == (0.185, 0.235)  # the next stock size
    now = wall_figures(wall, CATALOGUE, BASIS, "0").figures
    then = wall_figures(wall.with_thickness(3, 0.235), CATALOGUE, BASIS, "0").figures
    change = {key: value_of(then[key].number) - value_of(now[key].number) for key in ("U_clear", "cost", "money")}
    assert step.saves == pytest.approx(-change["U_clear"] * (20 - BASIS.site.theta_winter))
    assert (step.costs, step.life) == (pytest.approx(change["cost"]), pytest.approx(change["money"]))


def test_payback_is_what_is_paid_more_over_what_is_saved_a_year() -> None:
    found = decided(SYSTEMS["sip"].assembly("w", "W"))
    own = found.cores[0]
    assert own.present is not None
    assert np.isnan(own.columns["payback"][own.present])
    later = next(at for at in range(len(own.d)) if own.d[at] > 0.21)
    economy = BASIS.economy
    saved = sum(
        (own.columns[key][own.present] - own.columns[key][later]) / getattr(economy, f"{key}_yield")
        * getattr(economy, f"{key}_price")
        for key in ("heat", "cool")
    )  # fmt: skip
    dearer = own.columns["cost"][later] - own.columns["cost"][own.present]
    assert own.columns["payback"][later] == pytest.approx(dearer / saved)


def test_the_knee_lies_furthest_below_the_chord() -> None:
    own = decided(SYSTEMS["sip"].assembly("w", "W")).cores[0]
    cost, U = own.columns["cost"], own.columns["U_clear"]
    ends = (cost[0], U[0]), (cost[-1], U[-1])
    chord = U[0] + (cost - cost[0]) * (ends[1][1] - ends[0][1]) / (ends[1][0] - ends[0][0])
    assert own.knee == int(np.argmax(chord - U))


def test_an_unknown_core_and_too_many_are_refused() -> None:
    wall = SYSTEMS["sip"].assembly("w", "W")
    with pytest.raises(DomainError) as refused:
        decided(wall, cores=("unobtainium",))
    assert refused.value.issues[0].code == "unknown_material"
    with pytest.raises(DomainError) as refused:
        decided(wall, cores=tuple(CATALOGUE)[:13])
    assert refused.value.issues[0].code == "too_many_cores"


def test_sensitivity_varies_one_input_at_a_time_the_largest_first() -> None:
    wall = SYSTEMS["sip"].assembly("w", "W")
    swings = {swing.key: swing for swing in sensitivity(wall, CATALOGUE, BASIS, asked=5.6)}
    sizes = [max(map(abs, swing.money)) for swing in swings.values()]
    assert all(a >= b for a, b in itertools.pairwise(sizes))
    start = value_of(wall_figures(wall, CATALOGUE, BASIS, "0").figures["money"].number)
    dearer = replace(BASIS, economy=replace(BASIS.economy, heat_price=0.12 * 1.3, cool_price=0.25 * 1.3))
    money = value_of(wall_figures(wall, CATALOGUE, dearer, "0").figures["money"].number)
    assert swings["energy"].money[1] == pytest.approx(money - start)
    assert swings["energy"].money[0] < 0 < swings["energy"].money[1]
    assert swings["core_cost"].money == (pytest.approx(-swings["core_cost"].money[1]), swings["core_cost"].money[1])
    low, high = swings["lambda"].core
    exact, _ = crossing(wall, CATALOGUE, BASIS, 5.6)
    assert low is not None
    assert high is not None
    assert exact is not None
    assert low < value_of(exact) < high
    assert swings["life"].core == (pytest.approx(value_of(exact)), pytest.approx(value_of(exact)))


@pytest.mark.parametrize(
    ("life", "discount", "years"), [(50, 0.0, 50.0), (1, 0.1, 1 / 1.1), (2, 0.1, 1 / 1.1 + 1 / 1.21)]
)
def test_present_years_are_the_sum_of_discounted_ones(life: float, discount: float, years: float) -> None:
    assert Economy(life=life, discount=discount).present_years == pytest.approx(years)


@pytest.mark.parametrize(
    ("change", "code"),
    [
        ({"life": 0}, "life_not_positive"),
        ({"heat_price": -1}, "rate_negative"),
        ({"heat_yield": 0}, "yield_out_of_range"),
    ],
)
def test_an_economy_that_cannot_be_is_refused(change: dict[str, float], code: str) -> None:
    with pytest.raises(DomainError) as refused:
        Economy(**change)
    assert refused.value.issues[0].code == code

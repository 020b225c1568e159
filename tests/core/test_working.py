"""Show working: the derivation is the executed calculation, and can be evaluated again from its inputs."""

from __future__ import annotations

import math

import pytest
from hypothesis import given
from hypothesis import strategies as st
from replaying import replay

from nimble_shell.core.assemblies.assembly import AirGap, Assembly, Layer, Member
from nimble_shell.core.assemblies.systems import SYSTEMS
from nimble_shell.core.basis.basis import Basis
from nimble_shell.core.basis.schools import Schools
from nimble_shell.core.basis.targets import Targets
from nimble_shell.core.errors import DomainError
from nimble_shell.core.materials import CATALOGUE
from nimble_shell.core.shell.ledger import shell_ledger
from nimble_shell.core.shell.project import Building, ShellElement
from nimble_shell.core.studies.claim import Claim, check_claim
from nimble_shell.core.studies.day import day
from nimble_shell.core.studies.probe import chase, temperature_at
from nimble_shell.core.studies.thickness import crossing, crossing_working
from nimble_shell.core.studies.variants import decide, variant_working
from nimble_shell.core.thermal.figures import wall_figures, wall_working
from nimble_shell.core.working import Traced, derive, exp, named, traced, value_of


def awkward_wall() -> Assembly:
    """Everything at once: crossing members, a slightly ventilated layer, an entered λ, fresh and aged foam."""
    return Assembly(
        id="w",
        name="Awkward",
        system="",
        layers=(
            Layer(id="1", material="gypsum-board", d=0.0125),
            Layer(
                id="2",
                d=0.045,
                air=AirGap(),
                members=(Member(name="batten", material="softwood", run="horizontal", share=0.08),),
            ),
            Layer(id="3", material="osb", d=0.011, lambda_entered=0.14),
            Layer(
                id="4",
                material="pur-core",
                d=0.14,
                studied=True,
                members=(
                    Member(name="spline", material="softwood", width=0.076, centres=1.2),
                    Member(name="plates", material="lvl", run="horizontal", width=0.114, centres=2.7),
                ),
            ),
            Layer(id="5", material="osb", d=0.011),
            Layer(id="6", d=0.03, air=AirGap(ventilation="slightly", A_v=900e-6)),
            Layer(id="7", material="brick", d=0.1),
        ),
    )


WALLS = {
    **{key: system.assembly("w", system.name) for key, system in SYSTEMS.items()},
    "awkward": awkward_wall(),
}
BASES = {
    "si": Basis(),
    "north american": Basis(schools=Schools(films="north_american", bridged="isothermal", label_mean=24.0)),
    "parallel": Basis(schools=Schools(bridged="parallel")),
}


@pytest.mark.parametrize("wall", WALLS)
@pytest.mark.parametrize(
    ("school", "condition"),
    [("si", "0"), ("si", "winter"), ("si", "summer"), ("north american", "winter"), ("parallel", "winter")],
)
def test_every_figure_replays_from_its_working_to_the_shown_value(wall: str, school: str, condition: str) -> None:
    shown = wall_figures(WALLS[wall], CATALOGUE, BASES[school], condition).figures
    remembering = wall_figures(WALLS[wall], CATALOGUE, BASES[school], condition, given=traced).figures
    assert len(shown) > 30
    assert shown.keys() == remembering.keys()
    assert wall_working(WALLS[wall], CATALOGUE, BASES[school], condition, "R_clear") == derive(
        remembering["R_clear"].number
    )
    for key, figure in shown.items():
        derivation = derive(remembering[key].number)
        value = value_of(figure.number)
        assert derivation.value == pytest.approx(value, rel=1e-12, abs=1e-12), key
        assert replay(derivation) == pytest.approx(value, rel=1e-9, abs=1e-9), key


@pytest.mark.parametrize("wall", WALLS)
def test_every_step_says_where_it_comes_from(wall: str) -> None:
    for key in ("R_clear", "R_winter_clear", "weight", "cost", "spare_at_1", "f_rsi"):
        steps = wall_working(WALLS[wall], CATALOGUE, Basis(), "0", key).steps
        assert all(step.source and step.text for step in steps), key
        assert len({step.symbol for step in steps}) == len(steps)


@pytest.mark.parametrize("wall", WALLS)
def test_the_exact_core_replays_too(wall: str) -> None:
    found, _ = crossing(WALLS[wall], CATALOGUE, Basis(), 5.2)
    assert found is not None
    derivation = crossing_working(WALLS[wall], CATALOGUE, Basis(), 5.2)
    assert derivation.value == value_of(found)
    assert replay(derivation) == pytest.approx(value_of(found), rel=1e-9)


@pytest.mark.parametrize("wall", WALLS)
@pytest.mark.parametrize(("month", "rise"), [(0, 0.0), (6, 12.0)])
def test_the_day_replays(wall: str, month: int, rise: float) -> None:
    shown = day(WALLS[wall], CATALOGUE, Basis(), month, rise=rise).figures
    remembering = day(WALLS[wall], CATALOGUE, Basis(), month, rise=rise, given=traced).figures
    assert len(shown) == 8
    for key, number in shown.items():
        assert replay(derive(remembering[key])) == pytest.approx(number, rel=1e-9), key


@pytest.mark.parametrize("wall", WALLS)
@pytest.mark.parametrize("claim", [Claim(R=5.0, d=0.16, theta=24, age="fresh"), Claim(R=3.0, d=0.1, age="aged")])
def test_a_claim_replays(wall: str, claim: Claim) -> None:
    shown = check_claim(WALLS[wall], CATALOGUE, Basis(), claim).figures
    remembering = check_claim(WALLS[wall], CATALOGUE, Basis(), claim, given=traced).figures
    for key in ("lambda_claimed", "lambda_aged", "remains", "R_nominal", "R_winter_clear"):
        assert replay(derive(remembering[key])) == pytest.approx(value_of(shown[key]), rel=1e-9), key


@pytest.mark.parametrize("wall", WALLS)
def test_a_probe_replays(wall: str) -> None:
    one = WALLS[wall]
    for depth in (0.004, one.layers[0].d, 0.07):
        for moment in ("winter", "6"):
            shown = temperature_at(one, CATALOGUE, Basis(), depth, moment)
            remembering = temperature_at(one, CATALOGUE, Basis(), depth, moment, given=traced)
            assert replay(derive(remembering)) == pytest.approx(shown, rel=1e-8, abs=1e-9), (depth, moment)
    cut = next(at for at, layer in enumerate(one.layers) if layer.material)
    args = (one, CATALOGUE, Basis(), cut, one.layers[cut].d / 3, 0.04)
    there = chase(*args, given=traced)
    for key in ("R_there", "R_clear", "R_without"):
        assert replay(derive(getattr(there, key))) == pytest.approx(getattr(chase(*args), key), rel=1e-9), key


@pytest.mark.parametrize("core", ["eps-graphite", "pur-core"])
def test_the_columns_that_compare_replay_to_the_table(sip: Assembly, core: str) -> None:
    table = decide(sip, CATALOGUE, Basis(), [core], asked=5.0)
    variants = next(one for one in table.cores if one.core == core)
    for at in (3, 20, len(variants.d) - 1):
        args = (sip, CATALOGUE, Basis(), core, float(variants.d[at]))
        floor, payback = variants.columns["floor"][at], variants.columns["payback"][at]
        assert replay(variant_working(*args, "floor")) == pytest.approx(floor, rel=1e-9, abs=1e-12)
        if math.isnan(payback):
            with pytest.raises(DomainError):
                variant_working(*args, "payback")
        else:
            assert replay(variant_working(*args, "payback")) == pytest.approx(payback, rel=1e-9)


def test_the_ledger_replays() -> None:
    building = Building(
        id="b",
        name="B",
        elements=(
            ShellElement(id="1", station="D", name="Wall", area=200, assembly_id="w"),
            ShellElement(id="2", station="D", name="Gable", area=40, U_entered=0.3),
            ShellElement(id="3", station="E", name="Windows", area=30, U_entered=0.9),
            ShellElement(id="4", station="B", name="Roof", area=120, U_entered=0.12),
        ),
    )
    U = traced(0.189, "U_wall_1", "clear-wall U", "W/(m²·K)", "computed in D2")
    ledger = shell_ledger(building, {"w": U}, given=traced)
    assert ledger.H is not None
    assert ledger.R_effective is not None
    net = 240 - 30
    H = 0.189 * 200 * net / 240 + 0.3 * 40 * net / 240 + 0.9 * 30 + 0.12 * 120
    assert replay(derive(ledger.H)) == pytest.approx(H, rel=1e-12)
    assert replay(derive(ledger.R_effective)) == pytest.approx((net + 30 + 120) / H, rel=1e-12)


def test_a_figure_that_does_not_exist_is_refused(sip: Assembly, basis: Basis) -> None:
    with pytest.raises(DomainError) as refused:
        wall_working(sip, CATALOGUE, basis, "0", "R_wishful")
    assert refused.value.issues[0].code == "unknown_figure"


def test_a_target_out_of_reach_says_so(sip: Assembly, basis: Basis) -> None:
    with pytest.raises(DomainError) as refused:
        crossing_working(sip, CATALOGUE, Basis(targets=Targets(R_wall=45)), 45.0)
    assert refused.value.issues[0].code == "no_crossing"


@given(
    st.floats(min_value=0.1, max_value=10),
    st.floats(min_value=-10, max_value=-0.1),
    st.floats(min_value=0.1, max_value=3),
)
def test_brackets_keep_the_order_of_operations(a: float, b: float, c: float) -> None:
    x, y, z = (traced(v, s, s, "", "given") for v, s in ((a, "x"), (b, "y"), (c, "z")))
    number = x - (y - z) - x / (y / z) * (x + y) + (x - 1.5) * exp(z / (x + 2.0)) - (2.0 - y) / (z * x)
    assert replay(derive(named(number, "n", "n", "", "made up"))) == pytest.approx(value_of(number), rel=1e-9)


def test_one_symbol_for_two_quantities_is_a_fault() -> None:
    both = traced(1.0, "x", "one", "", "a") + traced(2.0, "x", "other", "", "b")
    with pytest.raises(ValueError, match="two quantities"):
        derive(named(both, "sum", "sum", "", "made up"))


def test_a_plain_number_has_no_working() -> None:
    with pytest.raises(TypeError):
        derive(3.0)
    with pytest.raises(TypeError):
        derive(Traced(3.0))

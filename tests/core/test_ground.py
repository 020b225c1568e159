"""ISO 13370: every kind of floor against its limits, its neighbours and its own working."""

from __future__ import annotations

from dataclasses import replace

import pytest
from hypothesis import given
from hypothesis import strategies as st
from replaying import replay

from nimble_shell.core.errors import DomainError
from nimble_shell.core.ground.floor import EdgeFoam, GroundFloor, HeatedBasement, Slab, Suspended, UnheatedBasement
from nimble_shell.core.ground.seasons import GroundYear, ground_swing, monthly_flow
from nimble_shell.core.ground.steady import ground_figures
from nimble_shell.core.working import derive, traced, value_of

SLAB = Slab(A=100.0, P=40.0, lambda_=2.0, w=0.3, rho_c=2e6, Rf=2.0, psi=0.05)
FOAM = EdgeFoam(kind="vertical", D=0.6, d=0.08, lambda_=0.035)
SUSPENDED = Suspended(A=100.0, P=40.0, lambda_=2.0, w=0.3, rho_c=2e6, U_f=0.25, h=0.5, U_w=1.5, eps=0.0015, f_w=0.05,
                      v=4.0)  # fmt: skip
HEATED = HeatedBasement(A=100.0, P=40.0, lambda_=2.0, w=0.3, rho_c=2e6, Rf=2.0, Rw=3.0, z=2.4)
CELLAR = UnheatedBasement(A=100.0, P=40.0, lambda_=2.0, w=0.3, rho_c=2e6, Rf=0.2, Rw=0.4, z=2.0, U_f=0.3, U_w=1.0, h=0.4,
                          n=0.3, V=220.0)  # fmt: skip
FLOORS = [SLAB, replace(SLAB, edges=(FOAM,)), SUSPENDED, HEATED, CELLAR]
YEAR = GroundYear(theta_i=20.0, theta_i_amplitude=2.0, theta_e=9.0, theta_e_amplitude=10.0, tau=1.0)
resistances = st.floats(0.0, 10.0)


@given(resistances, st.floats(0.1, 3.0), st.floats(10.0, 400.0), st.floats(8.0, 120.0))
def test_more_insulation_never_loses_more(Rf: float, more: float, A: float, P: float) -> None:
    floor = replace(SLAB, A=A, P=P, Rf=Rf)
    assert value_of(ground_figures(replace(floor, Rf=Rf + more)).U) < value_of(ground_figures(floor).U)


@given(resistances, st.floats(0.3, 2.0), st.floats(0.02, 0.2))
def test_foam_at_the_edge_saves_and_of_several_the_best_alone_counts(Rf: float, D: float, d: float) -> None:
    bare = replace(SLAB, Rf=Rf)
    weak = EdgeFoam(kind="horizontal", D=D, d=d, lambda_=0.04)
    strong = replace(weak, d=2 * d)
    U = {name: value_of(ground_figures(replace(bare, edges=edges)).U)
         for name, edges in {"bare": (), "weak": (weak,), "strong": (strong,), "both": (weak, strong)}.items()}  # fmt: skip
    assert U["both"] == U["strong"] < U["weak"] < U["bare"]


def test_both_formulas_of_the_slab_meet_where_insulation_becomes_good() -> None:
    """At d_t = B they are not one, but less than a twentieth apart."""
    width = 5.0
    R = (width - 0.3) / 2.0 - 0.21
    below, above = (value_of(ground_figures(replace(SLAB, Rf=R + one)).U) for one in (-1e-6, 1e-6))
    assert above == pytest.approx(below, rel=0.05)
    assert below != pytest.approx(above, rel=1e-4)


def test_a_basement_without_depth_is_nearly_a_slab() -> None:
    shallow = HeatedBasement(A=100.0, P=40.0, lambda_=2.0, w=0.3, Rf=2.0, Rw=2.0, z=1e-6)
    assert value_of(ground_figures(shallow).H_g) == pytest.approx(
        value_of(ground_figures(replace(SLAB, psi=0.0)).H_g), rel=1e-3
    )


def test_a_cellar_open_to_the_wind_leaves_the_floor_alone() -> None:
    gale = replace(CELLAR, n=1e9)
    assert value_of(ground_figures(gale).U) == pytest.approx(CELLAR.U_f, rel=1e-4)


@pytest.mark.parametrize("floor", FLOORS, ids=lambda one: type(one).__name__)
def test_the_mean_of_the_months_is_the_year(floor: GroundFloor) -> None:
    figures = ground_figures(floor)
    flow = monthly_flow(figures, ground_swing(floor, figures), YEAR)
    assert sum(map(value_of, flow)) / 12 == pytest.approx(value_of(figures.H_g) * 11.0)


@pytest.mark.parametrize("floor", FLOORS, ids=lambda one: type(one).__name__)
def test_every_figure_opens_to_a_working_that_gives_it(floor: GroundFloor) -> None:
    live, shown = ground_figures(floor), ground_figures(floor, traced)
    swing = ground_swing(floor, shown, traced)
    for name in ("B", "d_t", "U", "H_g"):
        assert replay(derive(getattr(shown, name))) == pytest.approx(value_of(getattr(live, name)), rel=1e-12)
    for name in ("delta", "H_pi", "H_pe"):
        assert replay(derive(getattr(swing, name))) == pytest.approx(value_of(getattr(ground_swing(floor, live), name)))
    january = monthly_flow(shown, swing, YEAR, traced)[0]
    assert replay(derive(january)) == pytest.approx(value_of(monthly_flow(live, ground_swing(floor, live), YEAR)[0]))


@pytest.mark.parametrize(
    ("floor", "path"),
    [
        (replace(SLAB, w=0.0, Rf=0.0, Rsi=0.0, Rse=0.0), ("Rf",)),
        (replace(HEATED, Rw=0.0, Rsi_wall=0.0, Rse=0.0), ("Rw",)),
        (
            replace(SLAB, Rf=0.0, edges=(EdgeFoam(kind="horizontal", D=1.0, d=3.0, lambda_=50.0),)),
            ("edge", 0, "lambda"),
        ),
    ],
)
def test_what_has_no_answer_is_refused_at_its_place(floor: GroundFloor, path: tuple[str | int, ...]) -> None:
    with pytest.raises(DomainError) as refused:
        ground_figures(floor)
    assert [one.path for one in refused.value.issues] == [path]

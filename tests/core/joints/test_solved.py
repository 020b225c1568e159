"""ψ: nothing for a joint that is none, certain within its interval, moved by what should move it."""

from __future__ import annotations

import pickle

import numpy as np
import pytest
from core.joints.test_families import T, drawing, stack

from nimble_shell.core.assemblies.systems import SYSTEMS
from nimble_shell.core.basis.basis import Basis
from nimble_shell.core.basis.schools import Schools
from nimble_shell.core.conduction.field import lower_bound
from nimble_shell.core.conduction.solve import begun, once_more
from nimble_shell.core.errors import DomainError, Issue, NotConverged
from nimble_shell.core.joints.bound import judged, section_of
from nimble_shell.core.joints.drawing import Board, Drawing, box
from nimble_shell.core.joints.families import FAMILIES
from nimble_shell.core.joints.solved import PSI_ERROR, solve_joint
from nimble_shell.core.joints.stack import fill_of, stack_of
from nimble_shell.core.materials import CATALOGUE
from nimble_shell.core.thermal.figures import clear_wall_R

PAIR = ("inside", "outside")


def plain_wall(system: str) -> Drawing:
    wall = stack(system, "horizontal")
    board = Board()
    board.strip(wall, origin=(0, 0), along=(0, 1), out=(-1, 0), start=-1, end=1)
    board.air("outside", box(-wall.d - 1, -1, -wall.d / 2, 1), wall.R_se)
    board.air("inside", box(-wall.d / 2, -1, 1, 1))
    board.refer("wall", wall.U, 2.0)
    return board.done((-1, -1, 1, 1), plan=True)


@pytest.mark.parametrize("system", ["sip", "icf", "metal-panel", "cassette", "straw-bale", "mesh-mortar"])
def test_a_wall_without_a_joint_has_none(system: str) -> None:
    found = solve_joint(plain_wall(system), T)
    for value in found.psi[PAIR].values():
        assert value == pytest.approx(0, abs=1e-7)
    assert found.certain is not None
    low, high = found.certain
    assert low == pytest.approx(high, rel=1e-6)


@pytest.mark.parametrize("system", ["icf", "straw-bale", "masonry", "icf-one-sided"])
def test_the_plies_have_the_U_of_the_build_up(system: str) -> None:
    wall = SYSTEMS[system].assembly("w", system)
    bare = wall.__class__(id="w", name="w", system=system, layers=wall.layers)  # without its points
    basis = Basis(schools=Schools(bridged="isothermal"))
    assert pytest.approx(clear_wall_R(bare, CATALOGUE, basis), rel=1e-9) == 1 / stack_of(bare, CATALOGUE, basis).U


@pytest.mark.parametrize(
    ("family", "variant", "system"),
    [("seam", "double lumber", "sip"), ("corner", "plain", "icf"), ("floor line", "foam broken", "icf"),
     ("eave", "flush", "sip"), ("opening", "timber buck", "icf"), ("corner", "skin through", "metal-panel")],
)  # fmt: skip
def test_the_interval_is_narrow_and_holds_what_a_finer_mesh_finds(family: str, variant: str, system: str) -> None:
    shape = drawing(FAMILIES[family], variant, system)
    final, working = solve_joint(shape, T), solve_joint(shape, T, accuracy="working")
    assert final.certain is not None
    low, high = final.certain
    assert low <= high
    assert high - low < 0.03 * high
    assert final.error <= PSI_ERROR
    assert low <= final.coupling[PAIR] <= high * (1 + 1e-9)
    section = section_of(shape, T, "iso6946")
    finest = begun(section)
    while finest.fields.space.size < 40_000:
        finest = once_more(section, finest)
    best_low = lower_bound(section, finest.fields)
    assert best_low is not None
    # What a much finer mesh allows, and the error that was stated.
    assert final.coupling[PAIR] <= finest.fields.G[0, 0] + final.error
    assert final.coupling[PAIR] >= best_low - final.error
    assert abs(final.coupling[PAIR] - finest.fields.G[0, 0]) <= 2 * final.error + 1e-4
    assert working.coupling[PAIR] >= low
    assert working.coupling[PAIR] == pytest.approx(final.coupling[PAIR], rel=0.005)


def psi(family: str, variant: str, system: str, **values: float) -> float:
    return solve_joint(drawing(FAMILIES[family], variant, system, values), T, accuracy="working").psi[PAIR]["internal"]


def test_the_splines_stand_in_the_order_everybody_knows() -> None:
    ordered = [psi("seam", variant, "sip") for variant in ("block", "I-section", "single lumber", "double lumber")]
    assert ordered == sorted(ordered)
    assert ordered[-1] > 8 * ordered[0]


def test_foam_at_the_slabs_edge_helps_and_more_of_it_helps_more() -> None:
    bare = psi("base", "no edge foam", "sip")
    some, more = (psi("base", "edge foam", "sip", edge=edge) for edge in (0.04, 0.16))
    assert bare > some > more


def test_a_floor_that_breaks_the_foam_costs_many_times_a_ledger() -> None:
    assert psi("floor line", "foam broken", "icf") > 5 * psi("floor line", "ledger", "icf")


def test_a_window_in_the_foam_costs_less_than_one_at_the_rooms_edge() -> None:
    depths = {at: psi("opening", "framed", "sip", position=at) for at in (0.0, 0.25, 0.5, 0.75, 1.0)}
    assert min(depths, key=lambda at: depths[at]) not in (0.0, 1.0)


def test_a_frame_is_judged_with_the_film_of_frames_and_the_wall_beside_it_with_its_own() -> None:
    window, door = drawing(FAMILIES["opening"], "framed", "sip"), drawing(FAMILIES["threshold"], "on the slab", "sip")
    found = judged(window, section_of(window, T, "iso6946"))
    by_film = {
        R_s: [(one.a, one.b) for one in found.segments if one.env == "inside" and one.R_s == R_s]
        for R_s in {one.R_s for one in found.segments if one.env == "inside"}
    }
    assert set(by_film) == {0.13, 0.25}
    shim = 0.012
    assert all(min(a[1], b[1]) >= shim - 1e-9 for a, b in by_film[0.13])  # the frame stands on its shims
    assert all(max(a[1], b[1]) <= shim + 1e-9 for a, b in by_film[0.25])
    assert sum(abs(a[1] - b[1]) for a, b in by_film[0.13]) == pytest.approx(0.080)
    leaf = judged(door, section_of(door, T, "iso6946"))
    assert {one.R_s for one in leaf.segments if one.env == "inside" and max(one.a[1], one.b[1]) > 0.03} == {0.13}


def test_a_warm_frame_lets_the_bucks_differ_where_the_frame_alone_would_decide() -> None:
    def factor(variant: str) -> float:
        found = solve_joint(drawing(FAMILIES["opening"], variant, "icf"), T, accuracy="working").f_rsi
        assert found is not None
        return found

    own = 1 - 0.25 / (1 / 1.1 + 0.12)  # of the frame, judged like a wall: no buck could be better
    timber, foam, insulated = (factor(variant) for variant in ("timber buck", "foam buck", "insulated buck"))
    assert timber < own < insulated
    assert timber + 0.04 < foam < insulated - 0.01


def test_a_joint_follows_its_build_up() -> None:
    thick = stack_of(SYSTEMS["sip"].assembly("w", "w", {"core": 0.285}), CATALOGUE, Basis(), owned=frozenset({"seam"}))
    family = FAMILIES["seam"]
    other = family.drawing("double lumber", {"wall": thick}, CATALOGUE)
    found = solve_joint(other, T, accuracy="working").psi[PAIR]["internal"]
    assert 0 < found < 0.8 * psi("seam", "double lumber", "sip")


def test_three_environments_have_a_coupling_each_and_their_own_psi() -> None:
    found = solve_joint(drawing(FAMILIES["party"], "unheated", "sip"), T, accuracy="working")
    assert set(found.coupling) == {("inside", "outside"), ("inside", "neighbour"), ("outside", "neighbour")}
    assert all(value > 0 for value in found.coupling.values())
    assert sum(found.heat_flow.values()) == pytest.approx(0, abs=1e-6)
    assert found.certain is None


def test_a_mirrored_joint_is_the_same_joint() -> None:
    shape = drawing(FAMILIES["corner"], "mitred", "sip")
    turned = Drawing(
        shapes=tuple(
            type(one)(ring=tuple((y, x) for x, y in one.ring), fill=one.fill, part=one.part) for one in shape.shapes
        ),
        airs=tuple(type(one)(env=one.env, ring=tuple((y, x) for x, y in one.ring), R_s=one.R_s) for one in shape.airs),
        references=shape.references,
        view=shape.view,
        plan=True,
    )
    assert solve_joint(turned, T).coupling[PAIR] == pytest.approx(solve_joint(shape, T).coupling[PAIR], rel=1e-5)


def test_the_field_is_drawable_and_heat_flows_downhill() -> None:
    found = solve_joint(drawing(FAMILIES["corner"], "lumber", "sip"), T)
    assert found.field.triangles.max() < len(found.field.xy)
    assert found.field.theta.min() >= T["outside"] - 1e-6
    assert found.field.theta.max() <= T["inside"] + 1e-6
    assert len(found.starts) >= 12
    room = (found.field.xy >= -1e-9).all(axis=1)
    assert np.float32(found.trace[..., 2].min()) == found.field.theta[room].min()  # drawn in single precision
    assert fill_of(CATALOGUE, "softwood").lambda_ == 0.13


def test_refusals_come_through_a_worker_unharmed() -> None:
    refusal = DomainError(Issue(path=("values", "width"), code="does_not_fit", message="too wide", hint="narrower"))
    assert pickle.loads(pickle.dumps(refusal)).issues == refusal.issues
    failure = pickle.loads(pickle.dumps(NotConverged(3, 0.5)))
    assert (failure.iterations, failure.residual) == (3, 0.5)


@pytest.mark.parametrize("pitch", [5.0, 9.0 + 1 / 6, 17.3, 33.3, 44.9, 55.0])
def test_a_ridge_is_solved_at_awkward_pitches(pitch: float) -> None:
    found = solve_joint(
        drawing(FAMILIES["ridge"], "panel to panel", "sip-roof", {"pitch": pitch}), T, accuracy="working"
    )
    assert found.balance < 1e-6
    assert found.psi[PAIR]["internal"] > found.psi[PAIR]["external"]


def test_a_ring_beam_costs_by_its_depth_in_the_frame_and_the_fill_outside_of_it_pays() -> None:
    for family in ("eave", "floor line"):
        thin, deep = (psi(family, "ring beam", "bead-cassette", beam=beam) for beam in (0.045, 0.180))
        assert thin < deep


def test_an_insulated_box_plate_costs_less_than_solid_plates() -> None:
    solid = psi("base", "edge foam", "straw-bale")
    filled, bare = (psi("base", "box plate", "straw-bale", edge=edge, box=0.140) for edge in (0.080, 0.0))
    assert filled < solid
    assert filled < bare


def test_dowels_count_with_their_metal_and_their_spacing() -> None:
    none = psi("base", "no edge foam", "mesh-mortar")
    few, many = (psi("base", "dowels", "mesh-mortar", bar_spacing=spacing) for spacing in (1.0, 0.15))
    assert none < few < many


def test_a_block_under_the_threshold_keeps_its_inner_edge_warmer() -> None:
    found = {
        variant: solve_joint(drawing(FAMILIES["threshold"], variant, "bead-cassette"), T, accuracy="working")
        for variant in ("on the slab", "insulated block")
    }
    assert found["insulated block"].psi[PAIR]["internal"] < found["on the slab"].psi[PAIR]["internal"]
    warm, cold = found["insulated block"].f_rsi, found["on the slab"].f_rsi
    assert warm is not None
    assert cold is not None
    assert warm > cold

"""The critical surface temperature of joints: how far it may be off is said, and holds against a much finer grid."""

from __future__ import annotations

from dataclasses import replace

import pytest
from core.joints.test_families import EVERY, T, drawing

from nimble_shell.core.conduction.coldest import watched
from nimble_shell.core.conduction.section import Region, Section, SurfaceSegment
from nimble_shell.core.conduction.solution import solve
from nimble_shell.core.conduction.solve import MOST_UNKNOWNS, begun, once_more
from nimble_shell.core.conduction.window import window
from nimble_shell.core.joints.bound import judged, section_of
from nimble_shell.core.joints.drawing import Drawing
from nimble_shell.core.joints.families import FAMILIES
from nimble_shell.core.joints.solved import F_ERROR, solve_joint

#: Of all families, variants and systems a 16th, another one for each accuracy. Where thin metal skins meet, the finer grid
#: is none: below 100,000 unknowns it lies further from the limit than the answer.
SAMPLES = [(accuracy, one.values) for at, accuracy in enumerate(F_ERROR) for one in EVERY[at::16]]
#: Audited by an independent model: a timber buck in a form wall, the leaf of a door, a corner without insulation.
HARD = [("opening", "timber buck", "icf"), ("threshold", "insulated block", "masonry"), ("corner", "studs", "site-framing")]  # fmt: skip


def finer(shape: Drawing) -> float:
    """f_Rsi on a grid with several times the unknowns."""
    section = section_of(shape, {env: T[env] for env in {air.env for air in shape.airs}}, "iso6946")
    found = begun(section)
    while found.fields.space.size < 25_000:
        found = once_more(section, found)
    seen = watched(section, judged(shape, section), "inside", found, target=1.0, most=MOST_UNKNOWNS)
    return (seen.extremes.min - T["outside"]) / (T["inside"] - T["outside"])


@pytest.mark.parametrize(("accuracy", "which"), SAMPLES)
def test_the_stated_error_of_a_factor_holds(accuracy: str, which: tuple[object, str, str]) -> None:
    shape = drawing(*which)  # type: ignore[arg-type]  # a family, a variant and a system
    found = solve_joint(shape, T, accuracy=accuracy)  # type: ignore[arg-type]
    assert found.f_rsi is not None
    assert found.f_error is not None
    assert abs(found.f_rsi - finer(shape)) <= found.f_error


@pytest.mark.parametrize(("family", "variant", "system"), HARD)
@pytest.mark.parametrize("accuracy", ["working", "final"])
def test_corners_are_as_warm_as_they_are(family: str, variant: str, system: str, accuracy: str) -> None:
    shape = drawing(FAMILIES[family], variant, system)
    found = solve_joint(shape, T, accuracy=accuracy)  # type: ignore[arg-type]
    assert found.f_rsi == pytest.approx(finer(shape), abs=F_ERROR[accuracy])  # type: ignore[index]


def wall(ribs: bool) -> Section:
    """A plane wall, or one with a rib of another conductivity inside."""
    outer = ((0.0, 0.0), (0.3, 0.0), (0.3, 1.0), (0.0, 1.0))
    rib = ((0.0, 0.48), (0.2, 0.48), (0.2, 0.52), (0.0, 0.52))
    regions = (Region(ring=outer, lambda_=0.04), *([Region(ring=rib, lambda_=1.0)] if ribs else []))
    return Section(
        regions=regions,
        segments=(SurfaceSegment(a=(0.0, 0.0), b=(0.0, 1.0), env="inside", R_s=0.13),
                  SurfaceSegment(a=(0.3, 0.0), b=(0.3, 1.0), env="outside", R_s=0.04)),
        temperatures={"inside": 20.0, "outside": 0.0},
    )  # fmt: skip


def test_a_plane_wall_is_exact_and_a_window_in_it_changes_nothing() -> None:
    plain = wall(ribs=False)
    found = begun(plain)
    theta = found.fields.theta @ [20.0, 0.0]
    near = window(plain, found.fields.space, found.grid, theta, (0.0, 0.5))
    exact = 20 - 20 * 0.13 / (0.13 + 0.3 / 0.04 + 0.04)
    inside = near.theta[[plain.segments[at].env == "inside" for at in near.segment]]
    assert inside == pytest.approx(exact, abs=1e-9)


def test_a_colder_room_s_warmest_place_is_watched() -> None:
    ribbed = wall(ribs=True)
    turned = replace(ribbed, temperatures={"inside": 0.0, "outside": 20.0})
    cold, warm = (
        watched(one, one, "inside", begun(one), target=1e-3, most=MOST_UNKNOWNS) for one in (ribbed, turned)
    )  # fmt: skip
    assert 20 - cold.extremes.min == pytest.approx(warm.extremes.max, abs=1e-6)
    assert warm.extremes.at_max == pytest.approx(cold.extremes.at)


def test_a_section_says_how_far_its_factor_may_be_off() -> None:
    found = solve(wall(ribs=True), points=begun(wall(ribs=True)).fields.space.places[:1])
    assert found.f_error is not None
    assert found.f_rsi is not None
    ribbed = wall(ribs=True)
    best = begun(ribbed)
    while best.fields.space.size < 20_000:
        best = once_more(ribbed, best)
    true = watched(ribbed, ribbed, "inside", best, target=1.0, most=MOST_UNKNOWNS).extremes.min / 20
    assert abs(found.f_rsi - true) <= found.f_error <= 1e-3

"""Windows by parts: the standard's sum, invariants, and what each unit type does in a building."""

from __future__ import annotations

from dataclasses import replace

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from nimble_shell.core.errors import DomainError
from nimble_shell.core.shell.ledger import shell_ledger
from nimble_shell.core.shell.measured import MeasuredBuilding, measured
from nimble_shell.core.shell.project import Project
from nimble_shell.core.windows.transmittance import Division, Frame, Glass, Panel, Window, lights, window_figures
from nimble_shell.core.windows.unit import UnitJoint, UnitType
from nimble_shell.core.working import derive, traced, value_of
from nimble_shell.demo.heron_flats import campus

FRAME = Frame(left=0.1, right=0.1, top=0.1, bottom=0.12, U=1.2)
GLASS = Glass(U=0.7, g=0.52, psi=0.04)
sizes = st.floats(0.6, 3.0)
counts = st.integers(1, 3)


def unit(**changes: object) -> UnitType:
    return UnitType(**({"id": "u", "name": "Window", "w": 1.2, "h": 1.3} | changes))  # type: ignore[arg-type]  # of any field


@settings(max_examples=60, deadline=None)
@given(sizes, sizes, counts, counts)
def test_lights_and_frame_fill_the_unit_and_U_lies_between_its_parts(
    w: float, h: float, columns: int, rows: int
) -> None:
    one = unit(w=w, h=h, columns=columns, rows=rows, division=0.05, frame=FRAME, glass=GLASS)
    found, clear = one.figures(), lights(one.parts())
    assert len(clear) == columns * rows
    assert found.A_g == pytest.approx(sum(each.w * each.h for each in clear))
    assert found.A_g + found.A_f == pytest.approx(w * h)
    edges = GLASS.psi * found.l_g / found.A
    assert GLASS.U < value_of(found.U_w) - edges < FRAME.U
    assert one.solar() == pytest.approx(GLASS.g * found.A_g / found.A)
    assert max(each.w for each in clear) == pytest.approx(min(each.w for each in clear))


def test_a_frame_without_width_leaves_glass_and_its_edge() -> None:
    bare = Window(w=2.0, h=1.0, frame=replace(FRAME, left=0, right=0, top=0, bottom=0), glass=GLASS)
    assert window_figures(bare).U_w == pytest.approx(0.7 + 6 * 0.04 / 2)


def test_a_mullion_of_its_own_counts_at_its_own_transmittance() -> None:
    plain = Window(w=1.5, h=1.2, frame=FRAME, glass=GLASS, mullions=(Division(at=0.75, b=0.12),))
    own = replace(plain, mullions=(Division(at=0.75, b=0.12, U=2.2),))
    clear = 1.2 - 0.22
    difference = value_of(window_figures(own).U_w) - value_of(window_figures(plain).U_w)
    assert difference == pytest.approx(0.12 * clear * 1.0 / 1.8)


def test_turned_a_quarter_it_is_the_same() -> None:
    frame = replace(FRAME, bottom=0.1)
    upright = Window(w=1.5, h=1.2, frame=frame, glass=GLASS, mullions=(Division(at=0.6, b=0.1),))
    lying = Window(w=1.2, h=1.5, frame=frame, glass=GLASS, transoms=(Division(at=0.6, b=0.1),))
    assert window_figures(upright).U_w == pytest.approx(window_figures(lying).U_w)


def test_a_panel_takes_the_place_of_its_light() -> None:
    door = Window(w=1.0, h=2.2, frame=FRAME, glass=GLASS, transoms=(Division(at=0.8, b=0.1),),
                  panels=(Panel(col=0, row=0, U=0.5, psi=0.08),))  # fmt: skip
    found = window_figures(door)
    assert (found.A_p, found.l_p) == (pytest.approx(0.8 * 0.63), pytest.approx(2 * (0.8 + 0.63)))
    assert found.A_g + found.A_p + found.A_f == pytest.approx(2.2)


@pytest.mark.parametrize(
    ("changes", "path"),
    [
        ({"frame": replace(FRAME, left=0.7, right=0.7)}, ("frame",)),
        ({"columns": 6, "division": 0.3}, ("mullions",)),
        ({"glass": replace(GLASS, g=1.4)}, ("glass", "g")),
        ({"filled": 2}, ("filled",)),
        ({"w": 0.0}, ("w",)),
        ({"name": " "}, ("name",)),
        ({"U_declared": 0.0}, ("U_declared",)),
    ],
)
def test_what_cannot_be_built_is_refused_at_its_place(changes: dict[str, object], path: tuple[str, ...]) -> None:
    with pytest.raises(DomainError) as error:
        unit(**changes)
    assert error.value.issues[0].path[: len(path)] == path


def test_panels_name_lights_that_are_there() -> None:
    one = Window(w=1.0, h=1.0, frame=FRAME, glass=GLASS, panels=(Panel(col=1, row=0, U=1, psi=0),) * 2)
    with pytest.raises(DomainError) as error:
        window_figures(one)
    assert [issue.code for issue in error.value.issues] == ["unknown_light", "unknown_light", "panel_twice"]


def test_a_declared_figure_counts_and_the_parts_stay_known() -> None:
    one = unit(U_declared=0.95, g_declared=0.41)
    assert (one.transmittance(2.0, 1.0), one.solar(2.0, 1.0)) == (0.95, 0.41)
    assert value_of(one.figures().U_w) != pytest.approx(0.95)


def test_the_working_ends_in_the_figure() -> None:
    one = unit(rows=2, filled=1)
    steps = derive(one.transmittance(1.2, 1.3, traced)).steps
    assert all(step.symbol.isascii() for step in steps)  # the window sets them with their Greek letters
    last = steps[-1]
    assert (last.symbol, last.value) == ("U_w", pytest.approx(value_of(one.figures().U_w)))


def test_the_hole_is_larger_than_the_unit_by_shim_and_flashing() -> None:
    assert unit(shim=0.015, flashing=0.02).rough() == pytest.approx((1.23, 1.35))
    assert unit(joints=(UnitJoint(edge="head", variant="framed"),)).variant("head") == "framed"


def laboratory(project: Project) -> MeasuredBuilding:
    found = measured(project, project.buildings[0])
    assert isinstance(found, MeasuredBuilding)
    return found


def test_an_element_has_the_mean_of_its_units_by_area() -> None:
    project = campus()
    windows = next(line for line in shell_ledger(laboratory(project), {}).lines if line.element_id == "e3")
    rows = laboratory(project).filled("e3")
    assert sum(one.n for one in rows) == 18
    losses = [one.area * value_of(one.unit.transmittance(one.w, one.h)) for one in rows if one.unit is not None]
    assert windows.U is not None
    assert value_of(windows.U) == pytest.approx(sum(losses) / sum(one.area for one in rows))
    assert windows.U_kind == "of its units"


def test_openings_without_a_type_count_as_entered_and_without_that_nothing_is_known() -> None:
    project = campus()
    first = project.buildings[0]
    bare = tuple(replace(one, unit="") if one.id == "w1" else one for one in first.openings)

    def line(entered: float | None) -> tuple[float | None, tuple[str, ...]]:
        elements = tuple(replace(one, U_entered=entered) if one.id == "e3" else one for one in first.elements)
        building = replace(first, openings=bare, elements=elements)
        ledger = shell_ledger(laboratory(replace(project, buildings=(building,))), {})
        U = next(one.U for one in ledger.lines if one.element_id == "e3")
        return (None if U is None else value_of(U)), ledger.missing

    low, _ = line(0.5)
    high, _ = line(1.5)
    assert low is not None
    assert high is not None
    assert high - low == pytest.approx(1.0 * 1.5 * 1.4 / 31.0)
    U, missing = line(None)
    assert U is None
    assert any("1 of its openings have no type" in one for one in missing)


def test_a_type_that_leaves_no_light_at_an_openings_size_is_refused_at_the_opening() -> None:
    project = campus()
    first = project.buildings[0]
    small = tuple(replace(one, w=0.15) if one.id == "w1" else one for one in first.openings)
    with pytest.raises(DomainError) as error:
        measured(project, replace(first, openings=small))
    assert error.value.issues[0].path == ("openings", 0)

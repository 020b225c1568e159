"""What a draft means for the shell: the ledger with and without it, whose working says the same, and what it misses."""

from __future__ import annotations

from dataclasses import replace

import pytest
from services.solved_joints import figures_of
from shapeless import typed

from nimble_shell.core.assemblies.assembly import Assembly
from nimble_shell.core.joints.solved import JointFigures
from nimble_shell.core.moisture.monthly.element import factor_asked
from nimble_shell.core.shell.project import Building, Project
from nimble_shell.core.working import value_of
from nimble_shell.demo.heron_flats import campus
from nimble_shell.services.bench import (
    area_of,
    bench,
    consequence,
    is_of_the_shell,
    ledger_working,
    station_of,
    to_outside,
    with_draft,
)
from nimble_shell.services.joints import KnownJoint, building_in
from nimble_shell.store import NotFound

PROJECT = typed(campus())
LAB = PROJECT.buildings[0]
WALL = next(one for one in PROJECT.assemblies if one.id == "wall-w-a")


def thicker(assembly: Assembly, by: float) -> Assembly:
    core = assembly.core_index
    assert core is not None
    return assembly.with_thickness(core, assembly.layers[core].d + by)


def drawn(joint_id: str, psi: float, f_rsi: float = 0.9) -> KnownJoint:
    joint = next(one for one in LAB.joints if one.id == joint_id)
    return KnownJoint(joint=replace(joint, length=10.0), solved=figures_of(psi, f_rsi), takes=(), point=False)


class TestADraft:
    def test_takes_the_place_of_the_stored_one_and_of_no_other(self) -> None:
        draft = thicker(WALL, 0.05)
        project = with_draft(PROJECT, draft)
        assert next(one for one in project.assemblies if one.id == WALL.id) == draft
        assert [one.id for one in project.assemblies] == [one.id for one in PROJECT.assemblies]
        assert sum(a != b for a, b in zip(project.assemblies, PROJECT.assemblies, strict=True)) == 1

    def test_shows_what_the_shell_comes_to_beside_what_it_was(self) -> None:
        found = consequence(with_draft(PROJECT, thicker(WALL, 0.05)), PROJECT, LAB.id)
        assert found.before is not None
        assert value_of(found.now.ledger.H) < value_of(found.before.ledger.H)
        alone = consequence(PROJECT, None, LAB.id)
        assert value_of(alone.now.ledger.H) == value_of(found.before.ledger.H)
        assert alone.before is None

    def test_changes_only_the_building_that_uses_it(self) -> None:
        other = next(one for one in PROJECT.buildings if one.id == "bunkhouse")
        found = consequence(with_draft(PROJECT, thicker(WALL, 0.05)), PROJECT, other.id)
        assert found.before is not None
        assert value_of(found.now.ledger.H) == value_of(found.before.ledger.H)

    def test_of_a_building_that_is_new_has_no_before(self) -> None:
        fewer = replace(PROJECT, buildings=PROJECT.buildings[1:])
        assert consequence(PROJECT, fewer, LAB.id).before is None

    def test_of_a_building_that_is_not_there_is_refused(self) -> None:
        with pytest.raises(NotFound):
            consequence(PROJECT, None, "nowhere")


class TestTheLedger:
    def test_is_the_sum_of_its_lines(self) -> None:
        ledger = consequence(PROJECT, None, LAB.id).now.ledger
        assert value_of(ledger.H) == pytest.approx(sum(value_of(one.H) for one in ledger.lines if one.H is not None))
        assert value_of(ledger.R_effective) == pytest.approx(value_of(ledger.area) / value_of(ledger.H))

    def test_adds_joints_by_their_length(self) -> None:
        plain = consequence(PROJECT, None, LAB.id).now.ledger
        found = consequence(PROJECT, None, LAB.id, [drawn("j2", 0.1), drawn("j6", -0.02)]).now.ledger
        assert value_of(found.H_joints) == pytest.approx(0.8)
        assert value_of(found.H) == pytest.approx(value_of(plain.H) + 0.8)

    def test_names_joints_that_are_still_to_come(self) -> None:
        waiting = replace(drawn("j2", 0.0), solved=None)
        found = consequence(PROJECT, None, LAB.id, [waiting, drawn("j6", 0.1)]).now.ledger
        assert found.pending == (waiting.joint.name,)
        assert value_of(found.H_joints) == pytest.approx(1.0)

    def test_names_joints_that_cannot_be_solved_and_waits_for_none_of_them(self) -> None:
        lost = replace(drawn("j2", 0.0), solved=None, why_not="the build-up is gone")
        found = consequence(PROJECT, None, LAB.id, [lost]).now.ledger
        assert found.pending == ()
        assert f"{lost.joint.name}: the build-up is gone" in found.missing

    @pytest.mark.parametrize("figure", ["R_effective", "H_shell", "share_joints", "H_e2", "f_rsi_lowest"])
    def test_says_the_same_as_its_working(self, figure: str) -> None:
        joints = [drawn("j2", 0.1), drawn("j6", 0.4, f_rsi=0.99)]
        found = consequence(PROJECT, None, LAB.id, joints)
        lines = {line.element_id: line for line in found.now.ledger.lines}
        shown = {
            "R_effective": value_of(found.now.ledger.R_effective),
            "H_shell": value_of(found.now.ledger.H),
            "share_joints": value_of(found.now.ledger.share_joints),
            "H_e2": value_of(lines["e2"].H),
            "f_rsi_lowest": found.now.lowest.f_rsi if found.now.lowest else None,
        }[figure]
        if figure == "f_rsi_lowest":
            joints = []
            shown = consequence(PROJECT, None, LAB.id).now.lowest.f_rsi  # type: ignore[union-attr]
        assert is_of_the_shell(figure)
        assert ledger_working(PROJECT, LAB.id, figure, joints).value == pytest.approx(shown, rel=1e-9)

    def test_shows_the_lowest_surface_of_clear_sections_and_joints(self) -> None:
        plain = consequence(PROJECT, None, LAB.id).now.lowest
        assert plain is not None
        assert plain.station == "D" or plain.station in {one.station for one in LAB.elements}
        cold = consequence(PROJECT, None, LAB.id, [drawn("j6", 0.1, f_rsi=0.5)]).now.lowest
        assert cold is not None
        assert (cold.f_rsi, cold.name) == (0.5, next(one.name for one in LAB.joints if one.id == "j6"))


class TestWhatIsMissed:
    """One place decides what needs a decision; every screen and page reads it."""

    @staticmethod
    def with_targets(**asked: float | None) -> Project:
        return replace(PROJECT, basis=replace(PROJECT.basis, targets=replace(PROJECT.basis.targets, **asked)))

    def test_a_line_falls_short_of_the_R_asked_of_its_station(self) -> None:
        R = 1 / value_of(
            next(one for one in consequence(PROJECT, None, LAB.id).now.ledger.lines if one.element_id == "e2").U
        )
        for asked, short in ((R - 0.01, False), (R, False), (R + 0.01, True), (None, False)):
            lines = consequence(self.with_targets(R_wall=asked), None, LAB.id).now.ledger.lines
            assert next(one for one in lines if one.element_id == "e2").falls_short is short

    def test_an_entered_U_asks_for_no_decision(self) -> None:
        lines = consequence(self.with_targets(R_wall=50.0), None, LAB.id).now.ledger.lines
        assert not any(one.falls_short for one in lines if not one.from_assembly)

    def test_sums_are_open_where_they_miss_what_the_building_is_asked(self) -> None:
        found = consequence(PROJECT, None, LAB.id).now.ledger
        R, H = value_of(found.R_effective), value_of(found.H)
        for R_asked, H_asked, expected in (
            (R + 0.1, H - 1, ("R_effective", "H_shell")), (R - 0.1, H + 1, ()), (None, None, ()), (R, H, ()),
        ):  # fmt: skip
            buildings = tuple(replace(one, asked_H=H_asked) if one.id == LAB.id else one for one in PROJECT.buildings)
            project = replace(self.with_targets(R_shell=R_asked), buildings=buildings)
            assert consequence(project, None, LAB.id).open == expected

    def test_the_lowest_surface_says_what_is_asked_of_it(self) -> None:
        months = factor_asked(self.with_targets(f_rsi=None).basis)  # the worst month asks, whatever the Basis does
        assert months is not None
        assert 0.5 < months < 0.9
        for target, asked, short in ((0.5, months, False), (0.9999, 0.9999, True), (None, months, False)):
            lowest = consequence(self.with_targets(f_rsi=target), None, LAB.id).now.lowest
            assert lowest is not None
            assert (lowest.asked, lowest.falls_short) == (asked, short)

    def test_a_study_is_met_exactly_where_its_wall_is(self) -> None:
        for asked, met in ((1.0, True), (50.0, False), (None, True)):
            study = bench(WALL, PROJECT.catalogue, self.with_targets(R_wall=asked).basis, "winter").study
            assert study is not None
            assert study.met is met


class TestWhereAnAssemblyIsUsed:
    def test_its_station_is_that_of_the_element_that_uses_it(self) -> None:
        assert station_of(LAB, "roof-r-a") == "B"
        assert station_of(LAB, "slab-s-a") == "H"
        assert station_of(LAB, "used-nowhere") == "D"

    def test_its_area_is_net_of_openings(self) -> None:
        gross = sum(one.area for one in LAB.elements if one.assembly_id == WALL.id)
        openings = sum(one.area for one in LAB.elements if one.station == "E")
        assert area_of(LAB, WALL.id) == pytest.approx(gross - openings)
        assert area_of(LAB, "used-nowhere") == 0


class TestToOutside:
    """What goes by way of a neighbour counts by the neighbour's temperature."""

    @staticmethod
    def through(neighbour: float) -> JointFigures:
        psi = {("inside", "outside"): {"external": 0.1}, ("inside", "neighbour"): {"external": 0.4}}
        temperatures = {"inside": 20.0, "outside": -10.0, "neighbour": neighbour}
        return replace(figures_of(0.0, 0.9), psi=psi, temperatures=temperatures)  # type: ignore[arg-type]

    @pytest.mark.parametrize(("neighbour", "expected"), [(20.0, 0.1), (-10.0, 0.5), (5.0, 0.3)])
    def test_a_share_of_the_way(self, neighbour: float, expected: float) -> None:
        assert to_outside(self.through(neighbour), "external") == pytest.approx(expected)


def test_a_building_is_found_by_its_id() -> None:
    found: Building = building_in(PROJECT, "bunkhouse")
    assert found.id == "bunkhouse"
    with pytest.raises(NotFound):
        building_in(PROJECT, "nobody")

"""The register of open decisions: one verdict for every screen, and ways out that settle what they say they settle."""

from __future__ import annotations

from dataclasses import replace

import pytest
from services.answering import Answering
from shapeless import typed

from nimble_shell.core.assemblies.assembly import Assembly, Layer
from nimble_shell.core.joints.joint import ShellJoint
from nimble_shell.core.moisture.monthly.element import factor_asked
from nimble_shell.core.moisture.verdict.verdict import Verdict, judge, judge_alone, judge_joint
from nimble_shell.core.shell.decisions import JudgedPart, OpenDecision, WayOut
from nimble_shell.core.shell.project import Building, Project
from nimble_shell.demo.heron_flats import campus
from nimble_shell.services.bench import bench, ledger_working
from nimble_shell.services.decisions import Register, register
from nimble_shell.services.joints import JointResults
from nimble_shell.services.projects import ProjectService
from nimble_shell.services.verdicts import VerdictResults, leak_question
from nimble_shell.services.ways_out import Settling

LAB = "main-laboratory"


def read(projects: ProjectService, project: Project) -> Register:
    stored = projects.bring_in(project)
    queue = Answering()
    joints, judges = JointResults(queue), VerdictResults(queue)
    for _ in range(3):  # verdicts of leaks rest on solved joints
        found = register(stored, stored.project, LAB, joints, judges)
    return found


def by_key(found: Register) -> dict[str, OpenDecision]:
    return {one.key: one for one in found.decisions}


def with_ridge_only(project: Project) -> Project:
    """The laboratory with one joint, so that little is solved."""
    lab, *others = project.buildings
    return replace(
        project, buildings=(replace(lab, joints=tuple(one for one in lab.joints if one.family == "ridge")), *others)
    )


def changed(project: Project, way: WayOut) -> Project:
    thing = way.changed
    if isinstance(thing, Building):
        return replace(project, buildings=tuple(thing if one.id == thing.id else one for one in project.buildings))
    if isinstance(thing, Assembly):
        return replace(project, assemblies=tuple(thing if one.id == thing.id else one for one in project.assemblies))
    assert isinstance(thing, ShellJoint)
    lab, *others = project.buildings
    joints = tuple(thing if one.id == thing.id else one for one in lab.joints)
    return replace(project, buildings=(replace(lab, joints=joints), *others))


@pytest.fixture
def project() -> Project:
    return with_ridge_only(campus())


def test_a_wall_that_misses_its_R_stays_open_whatever_its_joints_own(projects: ProjectService) -> None:
    project = campus()
    found = by_key(read(projects, project))
    wall = next(one for one in project.buildings[0].elements if one.assembly_id == "wall-w-a")
    one = found[f"R-{wall.id}"]
    assert (one.state, one.step, one.station) == ("open", 2, "D")


def test_its_way_out_is_the_next_core_in_stock_and_settles_it(projects: ProjectService, project: Project) -> None:
    found = by_key(read(projects, project))
    key, one = next((key, one) for key, one in found.items() if key.startswith("R-"))
    way = one.ways[0]
    assert isinstance(way.changed, Assembly)
    thicker = changed(project, way)
    assert key not in by_key(read(projects, thicker))
    core = way.changed.core_index
    assert core is not None
    assert way.changed.layers[core].d in project.catalogue[way.changed.layers[core].material].stock


def test_a_broken_seal_line_names_each_seal_that_would_close_it(projects: ProjectService, project: Project) -> None:
    found = by_key(read(projects, project))
    one = next(one for one in found.values() if one.key.startswith("broken-A"))
    assert one.matter == "joint"
    for way in one.ways:
        assert isinstance(way.changed, ShellJoint)
        closed = by_key(read(projects, changed(project, way)))
        assert one.key not in closed or closed[one.key].text != one.text


def test_what_nobody_has_said_is_unknown_and_settled_by_saying_it(projects: ProjectService) -> None:
    project = with_ridge_only(campus())
    (ridge,) = project.buildings[0].joints
    project = changed(project, WayOut(text="", changed=replace(ridge, omitted=(), sealed=False)))
    one = by_key(read(projects, project))[f"undecided-A-{ridge.id}"]
    assert one.state == "unknown"
    (way,) = one.ways
    assert one.key not in by_key(read(projects, changed(project, way)))


def test_a_damp_wall_offers_the_changes_that_were_searched_and_each_settles_it(projects: ProjectService) -> None:
    lab, *others = typed(campus()).buildings
    wall = next(one for one in lab.elements if one.assembly_id == "wall-w-a")
    layers = (
        Layer(id="l1", material="gypsum-board", d=0.0125),
        Layer(id="l2", material="mineral-wool-035", d=0.2, studied=True),
        Layer(id="l4", material="osb", d=0.022),
        Layer(id="l5", material="thin-render", d=0.02),
    )
    damp = replace(next(one for one in campus().assemblies if one.id == "wall-w-a"), layers=layers, fixings=())
    project = replace(
        campus(), buildings=(replace(lab, joints=(), elements=(wall,)), *others),
        assemblies=tuple(damp if one.id == damp.id else one for one in campus().assemblies),
    )  # fmt: skip
    stored = projects.bring_in(project)
    queue = Answering()
    joints, judges = JointResults(queue), VerdictResults(queue)

    def ways() -> list[Assembly]:
        one = by_key(register(stored, project, LAB, joints, judges))[f"moisture-{wall.id}"]
        return [way.changed for way in one.ways if isinstance(way.changed, Assembly)]

    register(stored, project, LAB, joints, judges)
    asked = queue.questions[queue.asked.index("judge_alone")]
    queue.tell(judge_alone, asked, judge_alone(*asked))
    assert ways() == []  # nobody has searched yet
    queue.tell(judge, asked, judge(*asked))
    offered = ways()
    assert offered
    for one in offered:
        assert len({layer.id for layer in one.layers}) == len(one.layers)
        _, _, basis, direction = asked
        assert judge_alone(one, project.catalogue, basis, direction).passes
    assert any(layer.material == "vapour-variable" for one in offered for layer in one.layers)


def test_a_joint_that_leaks_a_little_too_much_for_its_room_is_settled_by_a_drier_one() -> None:
    project = campus()
    lab = project.buildings[0]
    eave = next(one for one in lab.joints if one.family == "eave")

    def judged(of: Project) -> Verdict:
        return judge_joint(*leak_question(of.within(LAB), eave, None).args)[0]

    now = judged(project)
    assert not now.passes
    part = JudgedPart(id=eave.id, station="C", name="Eave", joint=True, verdict=now)
    ways = Settling(project.within(LAB), lab, [], [part], None).ways([])[f"moisture-{eave.id}"]
    (way,) = [way for way in ways if isinstance(way.changed, Building)]
    assert "43 %" in way.text
    drier = changed(project, way)
    assert drier.buildings[0].joints == lab.joints
    assert judged(drier).passes


def test_a_limit_names_the_core_in_stock_that_keeps_it(projects: ProjectService) -> None:
    project = campus()
    slab = next(one for one in project.buildings[0].elements if one.station == "H")
    key = f"thickness_over_limit-{slab.id}"
    one = by_key(read(projects, with_ridge_only(project)))[key]
    (way,) = [way for way in one.ways if isinstance(way.changed, Assembly)]
    assert "in stock" in way.text
    thinner = replace(changed(with_ridge_only(project), way), id="thinner")
    assert key not in by_key(read(projects, thinner))


def test_a_substituted_material_is_put_back(projects: ProjectService) -> None:
    project = campus()
    store = next(one for one in project.buildings if one.id == "sample-cold-store")
    project = replace(project, buildings=(replace(store, id=LAB, joints=()),))
    one = next(one for one in read(projects, project).decisions if one.key.startswith("substitution_open"))
    (way,) = [way for way in one.ways if isinstance(way.changed, Assembly)]
    back = replace(changed(project, way), id="back")
    assert one.key not in by_key(read(projects, back))


def test_open_stands_before_unknown_and_a_station_before_the_whole(projects: ProjectService, project: Project) -> None:
    states = [one.state for one in read(projects, project).decisions]
    assert states == sorted(states, key=lambda state: state != "open")


def test_no_sum_is_judged_while_a_part_of_it_is_still_to_come(projects: ProjectService) -> None:
    project = typed(campus())
    lab, *others = project.buildings
    basis = replace(project.basis, targets=replace(project.basis.targets, R_shell=50.0))
    project = replace(project, basis=basis, buildings=(replace(lab, joints=()), *others))
    stored = projects.bring_in(project)
    queue = Answering()
    whole, part = (
        register(stored, stored.project, LAB, JointResults(queue), VerdictResults(queue), points)
        for points in ((), ("screws",))
    )
    assert "R_effective" in by_key(whole)
    assert "R_effective" not in by_key(part)
    assert part.waiting == whole.waiting + 1


def test_the_stricter_of_basis_and_worst_month_is_asked() -> None:
    basis = campus().basis
    assert factor_asked(basis) == basis.targets.f_rsi
    lenient = replace(basis, targets=replace(basis.targets, f_rsi=0.1))
    assert 0.6 < (factor_asked(lenient) or 0) < 0.79


def test_the_way_from_the_field_to_the_U_that_counts_adds_up() -> None:
    project = campus()
    lab = project.buildings[0]
    wall = next(one for one in lab.elements if one.assembly_id == "wall-w-a")
    assembly = next(one for one in project.assemblies if one.id == "wall-w-a")
    derivation = ledger_working(project, LAB, f"U_of_{wall.id}")
    values = {step.symbol: step.value for step in derivation.steps}
    assert values["U_field"] + values["dU_members"] + values["dU_fixings"] == pytest.approx(
        values["U_clear"], rel=1e-12
    )
    assert values["U_clear"] - values["dU_joints"] == pytest.approx(values["U_counted"], rel=1e-12)
    shown = bench(assembly, project.catalogue, project.within(LAB).basis, "0", "D").wall.figures["U_clear"]
    assert values["U_clear"] == pytest.approx(float(shown.number), rel=1e-9)  # type: ignore[arg-type]

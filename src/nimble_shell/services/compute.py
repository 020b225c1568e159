"""What a project file comes to, without a server: every build-up's figures and remarks, every building's ledger."""

from __future__ import annotations

from typing import Any

from nimble_shell.core.basis.condition import condition as condition_of
from nimble_shell.core.shell.project import Building, Project
from nimble_shell.core.working import Num, value_of
from nimble_shell.services.bench import Bench, bench, consequence
from nimble_shell.services.fixings import solved_here


def compute_project(project: Project, condition: str = "winter") -> dict[str, Any]:
    """Results as plain JSON values; SI. Raises DomainError."""
    condition_of(project.basis, condition)  # one that there is not is refused before anything is solved
    project = solved_here(project)
    return {
        "project": project.name,
        "condition": condition,
        "buildings": [_building(project, building, condition) for building in project.buildings],
    }


def _building(project: Project, building: Building, condition: str) -> dict[str, Any]:
    project = project.within(building.id)
    known = {assembly.id: assembly for assembly in project.assemblies}
    ledger = consequence(project, None, building.id).now.ledger
    elements = []
    for element, line in zip(building.elements, ledger.lines, strict=True):
        assembly = known.get(element.assembly_id or "")
        found = (
            None if assembly is None else bench(assembly, project.catalogue, project.basis, condition, element.station)
        )
        elements.append(
            {
                "id": element.id,
                "station": element.station,
                "name": element.name,
                "area": value_of(line.area),
                "U": _number(line.U),
                "H": _number(line.H),
                "build_up": None if assembly is None or found is None else {"name": assembly.name, **_figures(found)},
            }
        )
    return {
        "id": building.id,
        "name": building.name,
        "H": _number(ledger.H),
        "R_effective": _number(ledger.R_effective),
        "missing": list(ledger.missing),
        "not_counted": list(ledger.not_counted),
        "elements": elements,
    }


def _figures(found: Bench) -> dict[str, Any]:
    return {
        "figures": {key: value_of(figure.number) for key, figure in found.wall.figures.items()},
        "remarks": [{"code": remark.code, "weight": remark.weight} for remark in found.remarks],
        "core_asked": None if found.study is None else found.study.d_asked,
    }


def _number(value: Num | None) -> float | None:
    return None if value is None else value_of(value)

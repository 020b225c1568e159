"""From fixings and their answers to responses."""

from __future__ import annotations

from nimble_shell.api import fixing_schemas as f
from nimble_shell.api import joint_views
from nimble_shell.api.views import working
from nimble_shell.core.basis.condition import condition
from nimble_shell.core.fixings.shown import whole
from nimble_shell.core.fixings.solved import SolvedFixing
from nimble_shell.core.joints.solved import Accuracy
from nimble_shell.core.shell.project import Project
from nimble_shell.formats.project import FixingDoc
from nimble_shell.services.fixings import LookedAtFixing, Swept, remaining, workings
from nimble_shell.services.studies import PlacedDraft


def fixing(
    project: Project, at: PlacedDraft, looked: LookedAtFixing, solved: SolvedFixing, moment: str, accuracy: Accuracy
) -> f.FixingOut:
    cell, one = looked.cell, looked.fixing
    drawing, shown = whole(cell.drawing, solved.field)
    left = remaining(project, at, one, solved.chi / cell.chi_approximate)
    return f.FixingOut(
        fixing=FixingDoc.from_core(one),
        drawing=joint_views.drawn(drawing, {dim.key: getattr(one, dim.key) for dim in drawing.dims}),
        solved=joint_views.answered(drawing, shown, condition(project.basis, moment), accuracy, project.basis),
        method=cell.method,
        says=list(cell.says),
        chi=solved.chi,
        error=solved.error,
        chi_approximate=cell.chi_approximate,
        approximate_counts=project.catalogue[one.material].lambda_ >= 1.0,
        ratio=solved.chi / cell.chi_approximate,
        per_area=cell.per_area,
        length=cell.length,
        delta_U=solved.chi * cell.per_area,
        U_field=cell.U,
        R_without=left.R_without,
        R_with=left.R_with,
        R_all=left.R_all,
        area=left.area,
        count=left.area * cell.per_area,
        H=left.area * cell.per_area * solved.chi,
        working={key: working(each) for key, each in workings(project, at, looked, solved).items()},
    )


def nothing(one: Swept, why: str) -> f.FixingSweepPoint:
    return f.FixingSweepPoint(value=one.value, along=one.along, per_area=None, chi=None, delta_U=None,
                              delta_U_approximate=None, why_not=why)  # fmt: skip

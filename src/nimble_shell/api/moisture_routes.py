"""Version 1 of the API, `/api/v1/…`: moisture of build-ups and surfaces. Nothing here is saved."""

from __future__ import annotations

from dataclasses import replace

from fastapi import APIRouter

from nimble_shell.api import moisture_schemas as m
from nimble_shell.api.ground import REFUSALS, Fixings, Id, Joints, Projects
from nimble_shell.api.study_schemas import AtIn
from nimble_shell.core.moisture.element import ElementYear, closest_to_saturation
from nimble_shell.services import bench as benches
from nimble_shell.services import moisture
from nimble_shell.services.fixings import carried

router = APIRouter(prefix="/api/v1", responses=REFUSALS)


@router.post("/projects/{project_id}/moisture")
def through_the_year(project_id: Id, asked: AtIn, service: Projects, fixings: Fixings) -> m.MoistureOut:
    """A build-up as drafted, month by month: its surface, and what condenses and dries inside."""
    project = fixings.owned(service.load(project_id).project)
    at = asked.place()
    return _shown(moisture.through_the_year(project, replace(at, assembly=carried(project, at.assembly))))


@router.get("/projects/{project_id}/buildings/{building_id}/surfaces")
def surfaces(project_id: Id, building_id: Id, service: Projects, book: Joints, fixings: Fixings) -> m.LeagueOut:
    """Inner surfaces of a building's elements and joints, the worst first."""
    stored = service.load(project_id)
    project = fixings.owned(stored.project)
    joints = book.known(stored.project, stored.revision, benches.find_building(stored.project, building_id))
    return m.LeagueOut.model_validate(moisture.league(project, building_id, joints))


def _shown(found: ElementYear) -> m.MoistureOut:
    year = found.year
    month, plane, _ = closest_to_saturation(year)
    return m.MoistureOut(
        months=[
            m.MonthOut(theta_e=one.theta_e, phi_e=one.phi_e, theta_i=one.theta_i, phi_i=one.phi_i, required=asked,
                       phi_fails=fails)
            for one, asked, fails in zip(found.months, found.required, found.phi_fails, strict=True)
        ],
        counted=found.counted,
        start=year.start,
        wet=[m.WetOut.model_validate(one) for one in found.wet],
        peak=year.peak,
        left=float(year.left.sum()),
        dries=year.dries,
        verdict=found.verdict,
        f_rsi=found.f_rsi,
        critical=found.critical,
        surface_passes=found.surface_passes,
        x=year.planes.x.tolist(),
        share=(year.p / year.p_sat).tolist(),
        closest_month=month,
        closest_plane=plane,
    )  # fmt: skip

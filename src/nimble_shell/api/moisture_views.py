"""What the moisture routes show, from what the core has found."""

from __future__ import annotations

from collections.abc import Sequence

import numpy as np

from nimble_shell.api import moisture_schemas as m
from nimble_shell.api.views import working
from nimble_shell.core.assemblies.assembly import Assembly
from nimble_shell.core.climate.saturation import p_sat
from nimble_shell.core.joints.sealing.seals import graded
from nimble_shell.core.moisture.hourly.life import Failing, Seasons
from nimble_shell.core.moisture.hourly.working import run_working
from nimble_shell.core.moisture.monthly.element import ElementYear, closest_to_saturation, element_planes, months_of
from nimble_shell.core.moisture.monthly.leak import R_V, Leak, LeakYear, leak_year
from nimble_shell.core.moisture.monthly.position import Position
from nimble_shell.core.moisture.verdict.verdict import Advice, Reason, Verdict
from nimble_shell.core.moisture.verdict.words import advice_text, layer_name
from nimble_shell.core.shell.decisions import JudgedPart
from nimble_shell.core.shell.project import Project
from nimble_shell.core.working import value_of
from nimble_shell.services.hours import Cause
from nimble_shell.services.remedies import JointSurface, Remedy
from nimble_shell.services.verdicts import LeakQuestion, safe_grade

EVERY = 3  #: days between two points of a fan


def year(found: ElementYear) -> m.MoistureOut:
    own = found.year
    month, plane, _ = closest_to_saturation(own)
    return m.MoistureOut(
        months=[
            m.MonthOut(theta_e=one.theta_e, phi_e=one.phi_e, theta_i=one.theta_i, phi_i=one.phi_i, required=asked,
                       phi_fails=fails, outer_required=outer)
            for one, asked, fails, outer in zip(
                found.months, found.required, found.phi_fails, found.outer_required, strict=True
            )
        ],
        counted=found.counted,
        start=own.start,
        wet=[m.WetOut.model_validate(one) for one in found.wet],
        peak=own.peak,
        left=float(own.left.sum()),
        dries=own.dries,
        verdict=found.verdict,
        years=found.years,
        f_rsi=found.f_rsi,
        critical=found.critical,
        surface_passes=found.surface_passes,
        f_outer=found.f_outer,
        outer_passes=found.outer_passes,
        x=own.planes.x.tolist(),
        share=(own.p / own.p_sat).tolist(),
        closest_month=month,
        closest_plane=plane,
    )  # fmt: skip


def positions(project: Project, found: Sequence[Position]) -> m.PositionsOut:
    return m.PositionsOut(
        sections=[
            m.PositionOut(
                section=one.section, layer=one.layer, x_now=one.x_now, now=one.now, x=one.x.tolist(),
                share=one.share.tolist(), thickness=one.thickness.tolist(), theta=one.theta.tolist(),
                phi=one.phi.tolist(), month=one.month, safe=one.safe, condenses=one.condenses, x_safe=one.x_safe,
            )
            for one in found
        ],
        rule=project.basis.limits.inside_share,
    )  # fmt: skip


def verdict(found: Verdict) -> m.VerdictOut:
    return m.VerdictOut.model_validate(found)


def element_verdict(
    project: Project, assembly: Assembly, found: Verdict, by_hour: Failing | None
) -> m.ElementVerdictOut:
    told = advice(project, assembly, found.advice)
    return m.ElementVerdictOut(**verdict(found).model_dump(), advice=told, hours=by_hour)


def advice(
    project: Project, assembly: Assembly, found: Sequence[Advice], *, by_points: bool = False
) -> list[m.AdviceOut]:
    vapour = project.basis.schools.vapour
    return [
        m.AdviceOut(kind=one.kind, found=one.found,
                    text=advice_text(one, layer_name(assembly, project.catalogue, one.layer), vapour,
                                     by_points=by_points))
        for one in found
    ]  # fmt: skip


def places(found: Sequence[JudgedPart]) -> m.PlacesOut:
    return m.PlacesOut(places=[m.PlaceOut.model_validate(one) for one in found])


def leak(
    project: Project, asked: LeakQuestion, found: tuple[Verdict, LeakYear | None, float | None]
) -> m.LeakOut | None:
    """None where nothing of the build-up lies outside of its core."""
    judged, own, safe = found
    if own is None:
        return None
    assembly, materials, basis, direction, _, height, _ = asked.args
    planes, _ = element_planes(assembly, materials, basis, direction)
    months = months_of(basis)
    by_grade = [
        (name, low, high, leak_year(assembly, materials, planes, months,
                                    Leak(leakage=high, height=height, plane=own.plane), basis.air, basis.damp))
        for name, low, high in graded(basis.air.leakages)
    ]  # fmt: skip
    theta = own.year.theta[:, own.plane]
    return m.LeakOut(
        verdict=verdict(judged), assembly=asked.assembly.name, x_skin=float(planes.x[own.plane]),
        inner=int(planes.layer[own.plane - 1]), outer=int(planes.layer[own.plane]), grade=asked.grade,
        low=asked.leakage[0], high=asked.leakage[1], leakage=asked.judged, largest_safe=safe,
        safe_grade=safe_grade(safe, basis.air.leakages), start=own.year.start,
        limit=own.limit, reason=own.reason, peak=own.peak,
        months=[
            m.LeakMonthOut(
                theta_skin=float(theta[n]), v_skin=value_of(p_sat(float(theta[n]))) / (R_V * (theta[n] + 273.15)),
                v_room=one.p_i / (R_V * (one.theta_i + 273.15)), pressure=float(own.pressure[n]),
                flow=float(own.flow[n]), carried=float(own.carried[n]), gained=float(own.gained[n]),
                held=float(own.held[n]),
            )
            for n, one in enumerate(months)
        ],
        grades=[
            m.GradeOut(name=name, low=low, high=high, peak=one.peak, safe=one.safe, held=one.held.tolist())
            for name, low, high, one in by_grade
        ],
        height=height, reaching=project.basis.air.reaching, strip=project.basis.air.strip,
    )  # fmt: skip


def joint_surface(found: JointSurface, least: float | None, changes: Sequence[Remedy]) -> m.JointSurfaceOut:
    return m.JointSurfaceOut(
        f_rsi=found.f_rsi, required=found.required, month=found.month, least=least,
        passes=least is None or found.f_rsi >= least,
        remedies=[m.RemedyOut.model_validate(one) for one in changes],
    )  # fmt: skip


def hours(
    project: Project, assembly: Assembly, key: str, found: Seasons, months_fail: Reason, cause: Cause | None
) -> m.HoursOut:
    damp = project.basis.damp
    return m.HoursOut(
        key=key, years=found.years, begins=found.begins,
        repeats=found.repeats, fails=found.fails(damp), months_fail=months_fail,
        cause=cause,
        water=np.round(found.water.T, 4).tolist(),
        mould=[
            m.MouldOut(layer=one.layer, x=one.x, outer=one.outer, kind=one.kind, most=float(found.mould[:, at].max()),
                       index=np.round(found.mould[:, at], 3).tolist())
            for at, one in enumerate(found.places)
        ],
        wood=[
            m.WoodOut(layer=layer, most=float(found.wood_share[found.last, at].max()),
                      share=np.round(found.wood_share[:, at], 4).tolist())
            for at, layer in enumerate(found.wood)
        ],
        wood_limit=damp.wood, mould_limit=damp.mould,
        dry_after=[m.DriedOut(layer=layer, day=day) for layer, day in found.dry_after], came_in=found.came_in,
        balance_error=found.balance_error, heat_error=found.heat_error, steps=found.steps, cells=found.cells,
        notes=list(found.notes), x=found.x.tolist(), layer=found.layer.tolist(), hours=len(found.hours),
        working={
            figure: working(one) for figure, one in run_working(found, assembly, project.catalogue).items()
        },
    )  # fmt: skip


def field(found: Seasons) -> bytes:
    """θ [1/100 °C], φ [1/100 %] and w [1/10 kg/m³] of each place, state by state, as 16-bit integers."""
    whole = np.stack([found.theta * 100, found.phi * 10000, found.w * 10], axis=1)
    return np.clip(np.round(whole), -32768, 32767).astype("<i2").tobytes()


def fan_run(project: Project, name: str, found: Seasons | None, why_not: str = "") -> m.FanRunOut:
    if found is None:
        return m.FanRunOut(name=name, fails="", wood=[], mould=[], water=[], why_not=why_not)
    wood = found.wood_share.max(axis=1) if found.wood else np.zeros(0)
    mould = found.mould.max(axis=1) if found.places else np.zeros(0)
    return m.FanRunOut(
        name=name, fails=found.fails(project.basis.damp), wood=np.round(wood[::EVERY], 4).tolist(),
        mould=np.round(mould[::EVERY], 3).tolist(), water=np.round(found.water[1::EVERY].sum(axis=1), 3).tolist(),
        why_not="",
    )  # fmt: skip

"""From joints and their answers to responses."""

from __future__ import annotations

import base64
from dataclasses import replace
from typing import Any, cast

import numpy as np

from nimble_shell.api import joint_schemas as j
from nimble_shell.api.views import parameter_out, working
from nimble_shell.core.basis.basis import Basis
from nimble_shell.core.basis.condition import Condition, critical_temperature
from nimble_shell.core.basis.stations import misses
from nimble_shell.core.conduction.field import Field
from nimble_shell.core.conduction.flow_lines import heat_flow_lines
from nimble_shell.core.joints.drawing import SYSTEMS, Drawing, visible
from nimble_shell.core.joints.families import FAMILIES, Family
from nimble_shell.core.joints.joint import ShellJoint
from nimble_shell.core.joints.sealing.seals import SEALANTS, TAPES, Sealing
from nimble_shell.core.joints.sealing.walk import Walk
from nimble_shell.core.joints.shown import lying, lying_answer
from nimble_shell.core.joints.solved import Accuracy, SolvedJoint
from nimble_shell.core.joints.working import joint_working
from nimble_shell.core.parameters import Value
from nimble_shell.services.bench import to_outside
from nimble_shell.services.joints import Drawn, values_of


def families() -> list[j.FamilyOut]:
    return [_family(family) for family in FAMILIES.values()]


def _family(family: Family) -> j.FamilyOut:
    return j.FamilyOut(
        key=family.key,
        name=family.name,
        station=family.station,
        roles=list(family.roles),
        point=family.point,
        variants=[
            j.VariantOut(
                key=variant.key,
                text=variant.text,
                suits=list(variant.suits),
                note=variant.note,
                parameters=[parameter_out(one) for one in family.turned(variant.key)],
                owns=[j.OwnedOut.model_validate(one) for one in family.owned(variant.key)],
            )
            for variant in family.variants
        ],
    )


def drawing(found: Drawn, joint: ShellJoint, variant: str) -> j.DrawingOut:
    values = {parameter.key: parameter.start for parameter in found.family.turned(variant)}
    values |= values_of(joint, found.family, variant)
    return drawn(found.drawing, values)


def drawn(drawing: Drawing, values: dict[str, Value]) -> j.DrawingOut:
    """A drawing as it is looked at."""
    shown = lying(drawing)
    return j.DrawingOut(
        shapes=[
            j.ShapeOut(
                rings=[[list(point) for point in ring] for ring in rings],
                material=fill.key,
                hatch=fill.hatch,
                name=fill.name,
                part=shape.part,
            )
            for shape, rings in visible(shown)
            if (fill := shape.fill) is not None
        ],
        dims=[j.DimOut(key=dim.key, a=list(dim.a), b=list(dim.b)) for dim in shown.dims],
        marks=[j.MarkOut(kind=mark.kind, at=list(mark.at)) for mark in shown.marks],
        view=list(shown.view),
        plan=shown.plan,
        kind=shown.kind,
        sides=list(shown.sides),
        assumptions=list(shown.assumptions),
        values=values,
    )


def solved(found: Drawn, answer: SolvedJoint, accuracy: Accuracy, basis: Basis) -> j.SolvedOut:
    return answered(found.drawing, answer, found.moment, accuracy, basis)


def answered(drawing: Drawing, found: SolvedJoint, moment: Condition, accuracy: Accuracy, basis: Basis) -> j.SolvedOut:
    """What is solved of a drawing, in the places where it is shown."""
    answer = lying_answer(drawing, found)
    return j.SolvedOut(
        coupling={f"{a}|{b}": value for (a, b), value in answer.coupling.items()},
        psi={f"{a}|{b}": cast("dict[str, float]", dict(values)) for (a, b), values in answer.psi.items()},
        psi_out={system: to_outside(answer, system) for system in SYSTEMS},
        error=answer.error,
        f_error=answer.f_error,
        certain=None if answer.certain is None else list(answer.certain),
        heat_flow=answer.heat_flow,
        balance=answer.balance,
        f_rsi=answer.f_rsi,
        falls_short=answer.f_rsi is not None and misses(answer.f_rsi, basis.targets.f_rsi),
        coldest=answer.coldest.min,
        coldest_at=list(answer.coldest.at),
        critical=critical_temperature(moment),
        temperatures=dict(answer.temperatures),
        field=_field(answer.field),
        trace=answer.trace.reshape(-1, 3).tolist(),
        lines=[line.tolist() for line in heat_flow_lines(answer.field, answer.starts)],
        segments=[
            j.FlowOut(env=env, a=list(a), b=list(b), flow=None if np.isnan(flow) else flow)
            for env, a, b, flow in answer.segments
        ],
        references=[
            j.ReferenceOut(name=one.name, U=one.U, lengths=list(one.lengths), envs=list(one.envs))
            for one in drawing.references
        ],
        working={key: working(one) for key, one in joint_working(drawing, found, basis.schools.dimensions).items()},
        unknowns=answer.unknowns,
        accuracy=accuracy,
    )


def sealing(found: Sealing) -> j.SealingOut:
    return j.SealingOut(
        steps=[
            j.SealOut(key=step.key, kind=step.kind, text=step.text, carries=list(step.carries), needed=step.needed)
            for step in found.steps
        ],
        omitted=list(found.omitted),
        lines=dict(found.lines),
        grade=found.grade,
        leakage=list(found.leakage),
        falls=found.falls,
        findings=[j.FindingOut(weight=one.weight, text=one.text) for one in found.findings],
        sealants=list(SEALANTS),
        tapes=list(TAPES),
    )


def walk(found: Walk) -> j.WalkOut:
    return j.WalkOut(
        stops=[
            j.StopOut(
                station=stop.station,
                kind=stop.kind,
                id=stop.id,
                name=stop.name,
                lines=dict(stop.lines),
                why=list(stop.why),
                left_out=[list(seal) for seal in stop.left_out],
            )
            for stop in found.stops
        ],
        breaks=len(found.breaks),
        undecided=len(found.undecided),
    )


def warmer(drawing: Drawing, field: Field) -> j.WarmerOut:
    """A difference, as the second drawing is shown."""
    x0, y0, x1, y1 = drawing.view
    x, y = field.xy.T
    seen = np.zeros(len(x), dtype=bool)
    seen[field.triangles] = True
    seen &= (x >= x0) & (x <= x1) & (y >= y0) & (y <= y1)
    shown = field.theta[seen] if seen.any() else np.zeros(1)
    if drawing.kind == "axisymmetric":
        field = replace(field, xy=field.xy[:, ::-1])
    return j.WarmerOut(field=_field(field), low=float(shown.min()), high=float(shown.max()))


def _field(field: Field) -> j.FieldOut:
    return j.FieldOut(
        xy=_packed(field.xy, "<f4"),
        theta=_packed(field.theta, "<f4"),
        triangles=_packed(field.triangles, "<u4"),
    )


def _packed(values: Any, kind: str) -> str:
    return base64.b64encode(np.ascontiguousarray(values, dtype=kind).tobytes()).decode()

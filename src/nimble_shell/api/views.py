"""From core results to responses."""

from __future__ import annotations

import json
from collections.abc import Mapping, Sequence
from dataclasses import asdict
from functools import lru_cache

from nimble_shell import __version__
from nimble_shell.api import schemas as s
from nimble_shell.core.assemblies.systems import SYSTEMS, System
from nimble_shell.core.basis.basis import Basis
from nimble_shell.core.basis.condition import MOULD
from nimble_shell.core.basis.criteria import CRITERIA
from nimble_shell.core.basis.schools import Schools
from nimble_shell.core.basis.stations import direction_through
from nimble_shell.core.basis.targets import TARGET_SETS, TargetSet
from nimble_shell.core.climate import INVENTED
from nimble_shell.core.errors import DomainError
from nimble_shell.core.held import Held
from nimble_shell.core.materials import CATALOGUE, EDITION
from nimble_shell.core.parameters import Choice, Parameter, Value
from nimble_shell.core.quantities import DIMENSIONS
from nimble_shell.core.shell.project import Project
from nimble_shell.core.studies.variants import COLUMNS, STOPS
from nimble_shell.core.thermal.figures import wall_figures
from nimble_shell.core.working import Derivation, Num, value_of
from nimble_shell.formats.project import AssemblyDoc, ClimateDoc, ProjectDoc, SchoolsDoc, TargetsDoc
from nimble_shell.formats.things import KINDS, groups
from nimble_shell.reports.hatches import HATCHES
from nimble_shell.services.bench import Bench, Consequence, Summed
from nimble_shell.services.projects import Delta
from nimble_shell.store import Change, Stored
from nimble_shell.store.backups import Backup


def project(stored: Stored) -> s.ProjectOut:
    return s.ProjectOut(
        project=ProjectDoc.from_core(stored.project),
        versions=stored.versions,
        revision=stored.revision,
        undo=change(stored.undo),
        redo=change(stored.redo),
        changed_at=stored.changed_at,
        derived=derived(stored.project),
    )


def derived(project: Project) -> s.Derived:
    changed = [one for key, one in project.catalogue.items() if one is not CATALOGUE.get(key)]
    return s.Derived(
        findings={criterion.key: criterion.finding for criterion in project.basis.criteria},
        catalogue=[s.MaterialOut.model_validate(one) for one in changed],
    )


def delta(found: Delta) -> s.DeltaOut:
    stored = found.stored
    things = [
        s.ThingOut(kind=one.key.kind, owner=one.key.owner, id=one.key.id, revision=one.revision,
                   document=None if one.document is None else json.loads(one.document))
        for one in found.written
    ]  # fmt: skip
    touched = {(one.kind, one.owner) for one in things}
    orders = [
        s.OrderOut(kind=kind, owner=owner, ids=[KINDS[kind].id_of(one) for one in values])
        for kind, owner, values in groups(stored.project)
        if (kind, owner) in touched
    ]
    return s.DeltaOut(
        project_id=stored.project.id,
        revision=stored.revision,
        undo=change(stored.undo),
        redo=change(stored.redo),
        changed_at=stored.changed_at,
        things=things,
        orders=orders,
        derived=derived(stored.project) if any(one.kind in ("basis", "material") for one in things) else None,
    )


def backup(found: Backup) -> s.BackupOut:
    there = () if found.contents is None else found.contents.projects
    return s.BackupOut(name=found.name, made_at=found.made_at, reason=found.reason, size=found.size,
                       projects=[s.ProjectThereOut.model_validate(one) for one in there],
                       why_not=found.why_not)  # fmt: skip


def change(value: Change | None) -> s.ChangeOut | None:
    return None if value is None else s.ChangeOut.model_validate(value)


def bench(found: Bench, effect: Consequence, last: Summed | None, *, settled: bool, preview: bool) -> s.BenchOut:
    wall = found.wall
    return s.BenchOut(
        figures={
            key: s.FigureOut(text=figure.text, dimension=figure.dimension, value=value_of(figure.number))
            for key, figure in wall.figures.items()
        },
        profile=s.ProfileOut.model_validate(wall.profile),
        counted=wall.counted,
        in_range=wall.in_range,
        shares=[list(shares) for shares in wall.shares],
        R_layers=list(wall.R_layers),
        lines=[s.LineOut.model_validate(line) for line in found.lines],
        inside=None if found.inside is None else s.ShareOut.model_validate(found.inside),
        R_asked_materials=found.R_asked_materials,
        study=None if found.study is None else s.StudyOut.model_validate(found.study),
        settled=settled,
        remarks=[s.RemarkOut.model_validate(remark) for remark in found.remarks],
        consequence=consequence(effect, last, preview=preview),
    )


def consequence(effect: Consequence, last: Summed | None, *, preview: bool) -> s.ConsequenceOut:
    return s.ConsequenceOut(
        now=_ledger(effect.now),
        before=None if effect.before is None else _ledger(effect.before),
        last=None if last is None else _ledger(last),
        preview=preview,
        open=list(effect.open),
    )


def working(found: Derivation) -> s.WorkingOut:
    return s.WorkingOut(steps=[s.StepOut.model_validate(step) for step in found.steps])


@lru_cache(maxsize=1)
def shipped() -> s.ShippedOut:
    """Materials, systems, climates and units, as they ship."""
    return s.ShippedOut(
        version=__version__,
        edition=EDITION,
        materials=[s.MaterialOut.model_validate(material) for material in CATALOGUE.values()],
        systems=[_system(system) for system in SYSTEMS.values()],
        climates=[
            s.ClimateOut(
                key=climate.key,
                theta_winter=climate.theta_winter,
                theta_summer=climate.theta_summer,
                climate=ClimateDoc.from_core(climate.monthly()),
            )
            for climate in INVENTED.values()
        ],
        target_sets=[s.TargetSetOut(name=one.name, targets=TargetsDoc.from_core(one.targets)) for one in TARGET_SETS],
        criteria=[
            s.CriterionKind(key=key, text=text, dimension=dimension) for key, (text, dimension) in CRITERIA.items()
        ],
        mould_phi=MOULD,
        schools=SchoolsDoc.from_core(Schools()),
        columns=COLUMNS,
        stops=STOPS,
        dimensions={key: s.DimensionOut.model_validate(dimension) for key, dimension in DIMENSIONS.items()},
        hatches={key: s.HatchOut.model_validate(hatch) for key, hatch in HATCHES.items()},
    )


def target_sets(own: Sequence[TargetSet]) -> list[s.TargetSetOut]:
    return [s.TargetSetOut(name=one.name, targets=TargetsDoc.from_core(one.targets), own=True) for one in own]


def system_preview(system: System, values: Mapping[str, Value]) -> s.SystemPreview:
    """A system with some of its parameters, on a plain Basis. Raises DomainError, naming the parameter."""
    try:
        preview = system.assembly(system.key, system.name, values)
    except DomainError as error:
        raise error.under("values") from error
    figures = wall_figures(preview, CATALOGUE, Basis(), "0", direction=direction_through(system.place)).figures
    return s.SystemPreview(
        preview=AssemblyDoc.from_core(preview),
        figures=s.SystemFigures(
            **{key: value_of(figures[key].number) for key in ("R_nominal", "R_clear", "thickness", "weight")}
        ),
    )


def _system(system: System) -> s.SystemOut:
    at_start = system_preview(system, {})
    return s.SystemOut(
        key=system.key,
        kind=system.kind,
        place=system.place,
        figures=at_start.figures,
        cores=list(system.cores),
        name=system.name,
        anatomy=system.anatomy,
        parameters=[parameter_out(parameter) for parameter in system.parameters],
        cautions=list(system.cautions),
        preview=at_start.preview,
    )


def parameter_out(parameter: Parameter | Choice) -> s.ParameterOut:
    kind = "number" if isinstance(parameter, Parameter) else "choice"
    return s.ParameterOut.model_validate({"kind": kind, **asdict(parameter)})


def _number(value: Num | None) -> float | None:
    return None if value is None else value_of(value)


_LEDGERS: Held[s.LedgerOut] = Held(32)  #: what a draft is put beside is the same at each of its steps


def _ledger(summed: Summed) -> s.LedgerOut:
    return _LEDGERS.get((summed,)) or _LEDGERS.put((summed,), _ledger_anew(summed))


def _ledger_anew(summed: Summed) -> s.LedgerOut:
    ledger, lowest = summed.ledger, summed.lowest
    return s.LedgerOut(
        whole=ledger.whole,
        lines=[
            s.LedgerLineOut(
                element_id=line.element_id,
                station=line.station,
                name=line.name,
                area=value_of(line.area),
                U=_number(line.U),
                U_kind=line.U_kind,
                U_clear=line.U_clear,
                R=line.R,
                H=_number(line.H),
                from_assembly=line.from_assembly,
                asked=line.asked,
                falls_short=line.falls_short,
            )
            for line in ledger.lines
        ],
        joints=[
            s.JointLineOut(
                joint_id=line.joint_id,
                station=line.station,
                name=line.name,
                length=line.length,
                psi=_number(line.psi),
                H=_number(line.H),
                point=line.point,
            )
            for line in ledger.joints
        ],
        H_joints=_number(ledger.H_joints),
        H_fixings=_number(ledger.H_fixings),
        share_joints=_number(ledger.share_joints),
        pending=list(ledger.pending),
        H=_number(ledger.H),
        R_effective=_number(ledger.R_effective),
        area=value_of(ledger.area),
        missing=list(ledger.missing),
        not_counted=list(ledger.not_counted),
        lowest=None if lowest is None else s.LowestOut.model_validate(lowest),
    )

"""States of a building beside one another: as it is, as it was, with measures, and as a plain framed one would be."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass, replace

from nimble_shell.core.assemblies.systems import REFERENCE, SYSTEMS
from nimble_shell.core.shell.measured import MeasuredBuilding
from nimble_shell.core.shell.plant import Plant
from nimble_shell.core.shell.project import Project
from nimble_shell.core.shell.whole_building import WholeBuilding
from nimble_shell.core.working import value_of
from nimble_shell.services.joints import building_in
from nimble_shell.services.measures import MeasureResults
from nimble_shell.services.shape_edits import with_building
from nimble_shell.services.whole_shell import shaped, summed_up
from nimble_shell.store import Stored

_PLAIN = "plain-framed"


@dataclass(frozen=True, slots=True, kw_only=True)
class StateFigures:
    """What is compared. Of a state that lacks a part nothing is given."""

    R_effective: float | None  #: [m²·K/W]
    H_tr: float  #: [W/K]
    H_ve: float
    n50: float  #: [1/h]
    heating: float  #: [W]
    cooling: float  #: [W]
    free_max: float  #: [°C]
    Q_nd: float  #: [kWh]
    per_area: float  #: [kWh/m²]


@dataclass(frozen=True, slots=True, kw_only=True)
class State:
    """A state of a building."""

    key: str
    text: str
    figures: StateFigures | None
    why_not: str = ""


def states(results: MeasureResults, stored: Stored, building_id: str, keys: Sequence[str] = ()) -> list[State]:
    """The states that a building can be looked at in. Raises DomainError, NotFound."""
    now = results.sum(stored, building_id)
    found = [_state("now", "as it is", now)]
    before = stored.before
    if before is not None and _has_shape(before, building_id):
        found.append(
            _state(
                "before",
                "before the last change",
                results.sum(replace(stored, project=before, before=None), building_id),
            )
        )
    if keys:
        found.append(
            _state(
                "measures",
                "with the measures that are picked",
                results.sum(results.with_measures(stored, building_id, keys), building_id),
            )
        )
    plain = plain_framed(stored.project, building_id)
    unsealed = [replace(one, drawn=None) for one in results.known(stored, building_id)]
    found.append(
        _state(
            "plain",
            "walls framed on site; joints as they are, without seals; no recovery of heat",
            summed_up(plain, shaped(plain, building_id), unsealed),
        )
    )
    return found


def plain_framed(project: Project, building_id: str) -> Project:
    """The building with the reference wall in the place of its walls, and air without recovery."""
    building = building_in(project, building_id).as_stored()
    wall = SYSTEMS[REFERENCE].assembly(_PLAIN, "Plain framed wall")
    elements = tuple(
        replace(one, assembly_id=_PLAIN, U_entered=None) if one.station == "D" else one for one in building.elements
    )
    known = replace(project, assemblies=(*project.assemblies, wall))
    plant = _without_recovery(building.plant)
    return with_building(known, replace(building, elements=elements, plant=plant))


def _without_recovery(plant: Plant) -> Plant:
    return replace(plant, air=replace(plant.air, eta_t=0.0, eta_x=0.0))


def _has_shape(project: Project, building_id: str) -> bool:
    return any(one.id == building_id for one in project.buildings) and isinstance(
        building_in(project, building_id), MeasuredBuilding
    )


def _state(key: str, text: str, found: WholeBuilding) -> State:
    if not found.whole:
        lacks = f"{len(found.pending)} parts are being solved" if found.pending else found.missing[0]
        return State(key=key, text=text, figures=None, why_not=lacks)
    return State(
        key=key,
        text=text,
        figures=StateFigures(
            R_effective=None if found.R_effective is None else value_of(found.R_effective),
            H_tr=value_of(found.sums.H_tr),
            H_ve=value_of(found.sums.H_ve),
            n50=value_of(found.leaks.n50[1]),
            heating=value_of(found.heating.total),
            cooling=max(found.cooling.peak, 0.0),
            free_max=float(found.cooling.free.max()),
            Q_nd=value_of(found.energy.Q_nd),
            per_area=value_of(found.energy.per_area),
        ),
    )

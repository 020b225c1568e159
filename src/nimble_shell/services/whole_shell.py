"""A building summed up: what its ledger, joints, build-ups and shape know, and what they come to together."""

from __future__ import annotations

from collections.abc import Iterator, Sequence
from dataclasses import dataclass

from nimble_shell.core.assemblies.systems import REFERENCE, SYSTEMS
from nimble_shell.core.basis.flow import direction_in
from nimble_shell.core.errors import DomainError, Issue
from nimble_shell.core.loads.cooling_day import peak_working
from nimble_shell.core.shell.coursed import as_laid
from nimble_shell.core.shell.facings import facings_of, panes_of
from nimble_shell.core.shell.glazed import Orientation, Shading, orientations, shadings
from nimble_shell.core.shell.hot_day import mass_wall
from nimble_shell.core.shell.leaks import JointLeak
from nimble_shell.core.shell.measured import MeasuredBuilding
from nimble_shell.core.shell.project import Building, Project
from nimble_shell.core.shell.set_out import as_set_out
from nimble_shell.core.shell.whole_building import Known, WholeBuilding, whole_building
from nimble_shell.core.thermal.figures import clear_wall_R
from nimble_shell.core.thermal.section import resolved_section, surroundings
from nimble_shell.core.working import Derivation, Given, Num, Traced, derive, plain, traced, value_of
from nimble_shell.services import bench as benches
from nimble_shell.services import joints as joint_service
from nimble_shell.services.fixings import FixingResults
from nimble_shell.services.joints import JointResults, KnownJoint, building_in
from nimble_shell.services.last_whole import LastWhole
from nimble_shell.store import Stored


@dataclass(frozen=True, slots=True, kw_only=True)
class Summed:
    """A building now, and the last time that nothing was lacking, where that is another one."""

    now: WholeBuilding
    last: WholeBuilding | None
    rule_cooling: float  #: [W/m²]


class WholeShells:
    """Sums buildings up; the last one of each that was whole is remembered, so that it can stand beside a part."""

    def __init__(self, joints: JointResults, fixings: FixingResults) -> None:
        self._joints, self._fixings = joints, fixings
        self._last: LastWhole[WholeBuilding] = LastWhole()

    def of(self, stored: Stored, building_id: str) -> Summed:
        """What a building comes to.

        Raises
        ------
        DomainError
            With code "no_shape" where it has none.
        NotFound
        """
        now = self._whole(stored, building_id, plain)
        rule = building_in(stored.project, building_id).plant.loads.rule_cooling
        return Summed(now=now, last=self._last.beside(stored.project.id, building_id, now), rule_cooling=rule)

    def working(self, stored: Stored, building_id: str, figure: str) -> Derivation:
        """The working of one of its figures. Raises DomainError, NotFound."""
        found = self._whole(stored, building_id, traced)
        building = shaped(self._fixings.owned(stored), building_id)
        if figure.startswith("cooling_"):
            known = peak_working(found.cooling, found.sizes.A_F, building.plant.loads.rule_cooling)
            chosen = known.get(figure.removeprefix("cooling_"))
            if chosen is not None:
                return chosen
        number = figures_of(found).get(figure)
        if not isinstance(number, Traced) or number.label is None:
            raise DomainError(
                Issue(
                    path=("figure",),
                    code="unknown_figure",
                    message=f"there is no working of “{figure}”",
                    hint="a figure of the whole shell has one once all that it is made of is known",
                )
            )
        return derive(number)

    def _whole(self, stored: Stored, building_id: str, given: Given) -> WholeBuilding:
        project = self._fixings.owned(stored)
        building = shaped(project, building_id)
        joints = self._joints.known(stored.project, building_in(stored.project, building_id))
        waiting = self._fixings.waiting(stored.project, building_id)
        return summed_up(project, building, joints, waiting, given)


def summed_up(
    project: Project,
    building: MeasuredBuilding,
    joints: Sequence[KnownJoint],
    waiting: Sequence[str] = (),
    given: Given = plain,
) -> WholeBuilding:
    """A building of a project whose fixings are as solved, with its joints as they are known. Raises DomainError."""
    basis = project.within(building.id).basis
    return whole_building(building, basis, known_of(project, building, joints, waiting), given)


@dataclass(frozen=True, slots=True, kw_only=True)
class Glazed:
    """The windows of a building by where they look."""

    orientations: tuple[Orientation, ...]
    shadings: tuple[Shading, ...]
    R_plain: float  #: of the plain framed wall beside it [m²·K/W]
    lacking: tuple[str, ...]  #: what the resistances are still without


def glazed(
    project: Project, building: MeasuredBuilding, joints: Sequence[KnownJoint], waiting: Sequence[str] = ()
) -> Glazed:
    """What windows make of the walls, and what sun they get. Raises DomainError."""
    known = known_of(project, building, joints, waiting)
    basis, plain_wall = project.within(building.id).basis, SYSTEMS[REFERENCE].assembly("plain", "Plain framed wall")
    R_plain = value_of(clear_wall_R(plain_wall, project.catalogue, basis))
    return Glazed(
        orientations=tuple(orientations(known.facings, known.panes, known.ledger, R_plain)),
        R_plain=R_plain,
        shadings=tuple(shadings(known.panes, building.plant.loads, basis.site.latitude)),
        lacking=_unset(known),
    )


def _unset(known: Known) -> tuple[str, ...]:
    """What the walls with their windows are still without."""
    around = [one for one in known.ledger.joints if one.station == "E" and not one.point]
    met = (one for one in known.ledger.joints if one.station in ("D", "E"))
    lost = (one.name for one in met if one.psi is None and one.name not in known.ledger.pending)
    nothing = ("a joint round the windows",) if known.panes and not around else ()
    return (*known.ledger.pending, *lost, *nothing)


def shaped(project: Project, building_id: str) -> MeasuredBuilding:
    """A building with its shape. Raises DomainError, with code "no_shape" where it has none, and NotFound."""
    building = building_in(project, building_id)
    if not isinstance(building, MeasuredBuilding):
        raise DomainError(
            Issue(
                path=("bodies",),
                code="no_shape",
                message=f"“{building.name}” has no shape yet",
                hint="draw its shape in the Basis: volume, heights and where it looks follow from that",
            )
        )
    return building


def known_of(
    project: Project, building: MeasuredBuilding, joints: Sequence[KnownJoint], waiting: Sequence[str]
) -> Known:
    """What the sums take of a building as it is known."""
    ledger = benches.shell_of(project, building, joints, plain, waiting)
    project = as_set_out(project, building)
    assemblies = {one.id: one for one in project.assemblies}
    basis, catalogue = project.within(building.id).basis, project.catalogue
    walls = {}
    for element in building.elements:
        assembly = assemblies.get(element.assembly_id or "")
        if assembly is None:
            continue
        hot = surroundings(basis.schools, direction_in(basis, element.station), season="summer")
        walls[element.id] = mass_wall(resolved_section(assembly, catalogue, hot).resolved.element)
    U_of = {line.element_id: value_of(line.U) for line in ledger.lines if line.U is not None}
    units = {one.id: one for one in project.units}
    return Known(
        ledger=ledger,
        leaks=[*(_leak(project, building, one) for one in joints if not one.point), *_gaps(project, building)],
        R_of=benches.bare_resistances(project, building),
        walls=walls,
        panes=panes_of(building, units, U_of),
        facings=facings_of(building),
    )


def _gaps(project: Project, building: MeasuredBuilding) -> Iterator[JointLeak]:
    """Foamed corners and cut joints of form walls, where the courses are what counts."""
    if not building.forms.counts:
        return
    found, q = as_laid(project, building).values(), (building.forms.gap_low, building.forms.gap_high)
    for key, name, length in (
        ("form-corners", "Corners of forms, foamed on site", sum(one.corners for one in found)),
        ("form-gaps", "Stack joints of forms, foamed", sum(one.gaps for one in found)),
    ):
        yield JointLeak(id=key, name=name, station="D", length=length, drawn=False, q=q)


def _leak(project: Project, building: Building, known: KnownJoint) -> JointLeak:
    joint = known.joint
    length = next((one.length for one in building.joints if one.id == joint.id), joint.length)
    q = None
    if known.drawn is not None:
        sealing = joint_service.sealing(project, joint, known.drawn)
        q = sealing.leakage
    return JointLeak(id=joint.id, name=joint.name, station=joint.station, length=length, q=q)


def figures_of(found: WholeBuilding) -> dict[str, Num | None]:
    """Every figure that opens its working, by its name."""
    sums, leaks, air, heating, energy = found.sums, found.leaks, found.air, found.heating, found.energy
    named: dict[str, Num | None] = {name: getattr(sums, name) for name in ("H_D", "H_g", "H_U", "H_tr", "H_ve", "H")}
    named |= {f"share_{name}": one for name, one in sums.shares.items()}
    named |= {f"R_whole_{name}": one.R_whole for name, one in sums.groups.items()}
    named |= {name: getattr(leaks, name)[1] for name in ("q50", "n50", "qE50", "qF50", "ELA4", "q_inf")}
    named |= {name: getattr(air, name) for name in ("q_required", "q_mean", "H_ve_without", "saved", "fan_W")}
    named |= {
        f"heating_{name}": getattr(heating, name)
        for name in ("transmission", "ground", "ventilation", "reheat", "total", "per_area", "rule_total", "ratio")
    }
    named |= {name: getattr(energy, name) for name in ("Q_nd", "per_area", "tau", "degree_kKh")}
    named |= {f"b_{name}": one for name, one in sums.b.items()}
    named |= {
        "R_effective": found.R_effective,
        "vent_flow": found.vent_flow,
        "neutral_z": found.natural.neutral_z,
        "p_int": found.natural.p_int,
    }
    if found.ground is not None:
        named |= {f"ground_{name}": getattr(found.ground.figures, name) for name in ("U", "H_g", "B", "d_t")}
    if found.drawn is not None and found.drawn.draught is not None:
        draught = found.drawn.draught
        named |= {
            "depressurisation": draught.depressurisation,
            "allowed_extract": draught.allowed_extract,
            "makeup_A": draught.makeup_A,
        }
    return named

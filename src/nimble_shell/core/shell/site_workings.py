"""Show working of what happens on site: pressure and concrete of a run, mortar and plaster, a panel on its hook."""

from __future__ import annotations

import math
from collections.abc import Callable

from nimble_shell.core.assemblies.assembly import Assembly
from nimble_shell.core.errors import DomainError, Issue
from nimble_shell.core.setout.courses.form_runs import FormRun
from nimble_shell.core.setout.faces import FaceSetOut
from nimble_shell.core.shell.coursed import runs_of
from nimble_shell.core.shell.lifting import Lifted, lifted
from nimble_shell.core.shell.measured import MeasuredBuilding
from nimble_shell.core.shell.pouring import centre_of, gross_area, pour_of, poured
from nimble_shell.core.shell.project import Project
from nimble_shell.core.shell.set_out import set_out_building
from nimble_shell.core.shell.wetting import mortared, plastered
from nimble_shell.core.shop.handling import G
from nimble_shell.core.site.pressure import SchoolA
from nimble_shell.core.working import Num, named, power, traced, value_of

_M, _TWO = 1000.0, 2
_ENTERED = "as entered"
_PRESSES = "pressure, filled to the top in one"


def _run(project: Project, building: MeasuredBuilding, of: str) -> FormRun:
    found = next((one for one in runs_of(project, building) if one.id == of), None)
    if found is None:
        raise DomainError(Issue(path=("of",), code="no_run", message=f"“{of}” is no run of forms", hint="one of them"))
    return found


def pressure_working(project: Project, building: MeasuredBuilding, of: str) -> Num:
    """Of a run that is filled to its top in one. [kN/m²]"""
    pour, choices = pour_of(_run(project, building, of), building.pour), building.pour
    rho = traced(pour.density, "rho", "fresh concrete", "kg/m³", _ENTERED)
    g = traced(G, "g", "gravity", "m/s²", "standard value")
    D = named(rho * g / 1000, "D", "weight of fresh concrete", "kN/m³", "density by gravity")
    h = traced(pour.height, "h", "height of the pour", "m", "courses of the run")
    R = traced(pour.rate, "R", "rate of rise", "m/h", _ENTERED)
    T = traced(pour.temperature, "T", "concrete as placed", "°C", _ENTERED)
    found = poured(_run(project, building, of), choices).one_go
    if found.governs == "hydrostatic":
        return named(D * h, "p", _PRESSES, "kN/m²", "as deep as it stands: hydrostatic governs")
    if isinstance(pour.school, SchoolA):
        C1 = traced(pour.school.C1, "C1", "by the section", "", _ENTERED)
        C2 = traced(pour.school.C2, "C2", "by cement and admixtures", "", _ENTERED)
        H = traced(pour.form_height, "H", "height of the form", "m", "courses of the run")
        K = named(power(36 / (T + 16), 2), "K", "by temperature", "", "CIRIA Report 108, 3.1")
        reach = named(C1 * power(R, 0.5), "d", "depth by rate", "m", "CIRIA Report 108, 3.1")
        return named(D * (reach + C2 * K * power(H - reach, 0.5)), "p", _PRESSES, "kN/m²", "CIRIA Report 108, 3.1")
    Cw = traced(pour.school.Cw, "Cw", "by unit weight", "", _ENTERED)
    if found.governs == "minimum":
        return named(30 * Cw, "p", _PRESSES, "kN/m²", "ACI 347R-14, 4.2: never below its least")
    Cc = traced(pour.school.Cc, "Cc", "by chemistry", "", _ENTERED)
    warm = T + 17.8
    slow = pour.rate < 2.1 and pour.height <= 4.2
    q = 7.2 + 785 * R / warm if slow else 7.2 + 1156 / warm + 244 * R / warm
    by = named(q, "q", "by rate and temperature", "kN/m²", "ACI 347R-14, 4.2")
    return named(Cw * Cc * by, "p", _PRESSES, "kN/m²", "ACI 347R-14, 4.2")


def concrete_working(project: Project, building: MeasuredBuilding, of: str) -> Num:
    """Of a run, in place. [m³]"""
    run = _run(project, building, of)
    holes = sum(one.w * one.h for one in run.run.openings) / _M**2
    if run.gable:
        gross: Num = traced(gross_area(run), "A", "gable, as far as it reaches", "m²", "shape")
    else:
        line = traced(centre_of(run), "L", "centre line of the core", "m", "walls less their corners")
        high = traced(run.run.height / _M, "h", "height of the run", "m", "shape")
        gross = named(line * high, "A", "wall at the core", "m²", "length by height")
    bucks = traced(holes, "A_b", "bucks", "m²", "units with what goes round them")
    core = traced(run.form.core, "t", "concrete", "m", "build-up")
    return named((gross - bucks) * core, "V", "concrete in place", "m³", "net area by thickness")


def mortar_working(project: Project, building: MeasuredBuilding, of: str) -> Num:
    """Of a build-up, as it is sprayed. [m³]"""
    faces, assembly = _faces(project, building, of)
    found = mortared(building, faces, assembly, building.wet)
    area = traced(found.area, "A", "panels", "m²", "set-out")
    inner = traced(found.covers[0], "t_i", "mortar inside", "m", "build-up")
    outer = traced(found.covers[1], "t_o", "mortar outside", "m", "build-up")
    rib = traced(found.rib, "r", "depth of the ribs", "m", "build-up")
    around = traced(found.perimeter, "P", "round all openings", "m", "set-out")
    reveal = traced(found.reveal, "d", "depth of a reveal", "m", "build-up")
    loss = traced(building.wet.loss, "s", "rebound, share of what is sprayed", "", _ENTERED)
    place = named(area * (inner + outer + rib / 2) + around * reveal * outer, "V", "in place", "m³",
                  "waves of both sides spread over the face; reveals once")  # fmt: skip
    return named(place / (1.0 - loss), "V_s", "sprayed", "m³", "what rebounds is lost")


def plaster_working(project: Project, building: MeasuredBuilding, of: str) -> Num:
    """Of a build-up of plastered straw. [m³]"""
    faces, assembly = _faces(project, building, of)
    choices = building.wet
    found = plastered(faces, assembly, choices, project.within(building.id).basis)
    area = traced(found.area, "A", "panels", "m²", "set-out")
    coats = traced(sum(found.coats), "t", "coats of both sides", "m", "build-up")
    bond = traced(choices.bond, "b", "bond coat of one side", "m", _ENTERED)
    rolls = traced(found.rolls, "l", "joints between panels", "m", "set-out")
    gap = traced(choices.gap, "g", "width of a joint", "m", _ENTERED)
    deep = traced(assembly.layers[assembly.core_index or 0].d, "d", "depth of a joint", "m", "build-up")
    share = traced(choices.roll, "s", "plaster of a roll, as share of its joint", "", _ENTERED)
    return named(area * (coats + 2 * bond) + rolls * gap * deep * share, "V", "plaster", "m³", "faces and rolls")


def _faces(project: Project, building: MeasuredBuilding, of: str) -> tuple[list[FaceSetOut], Assembly]:
    assembly = next((one for one in project.assemblies if one.id == of), None)
    zones = {one.id for one in building.elements if one.assembly_id == of}
    faces = [one for one in set_out_building(project, building).faces if one.zone in zones]
    if assembly is None or not faces:
        raise DomainError(Issue(path=("of",), code="not_set_out", message=f"“{of}” is not set out",
                                hint="a build-up that is"))  # fmt: skip
    return faces, assembly


def _lift(project: Project, building: MeasuredBuilding, of: str) -> Lifted:
    known = {one.id: one for one in project.assemblies}
    zones = {one.id: known[one.assembly_id] for one in building.elements if one.assembly_id in known}
    for face in set_out_building(project, building).faces:
        for one in face.panels:
            if one.mark == of:
                return lifted(one, face, None, zones[face.zone], project.catalogue, building.lifting, building.setout)
    raise DomainError(Issue(path=("of",), code="not_set_out", message=f"there is no panel “{of}”", hint="one that is"))


def pull_working(project: Project, building: MeasuredBuilding, of: str) -> Num:
    """In the first leg of a panel's slings. [N]"""
    lift = _lift(project, building, of)
    if lift.slung is None:
        raise DomainError(Issue(path=("of",), code="cannot_hang", message=lift.problem, hint="other picks"))
    m = traced(lift.weight.mass, "m", f"mass of {of}", "kg", "layers, openings and units")
    f = traced(building.lifting.dynamic, "f", "dynamic factor", "", _ENTERED)
    g = traced(G, "g", "gravity", "m/s²", "standard value")
    load = named(m * f * g, "F", "on the hook, without rigging", "N", "mass by factor by gravity")
    if len(lift.picks) != _TWO:
        share = traced(lift.slung.tension[0] / value_of(load), "s", "share of the first leg", "",
                       "least squares of the pulls that hold it level")  # fmt: skip
        return named(load * share, "T_1", "pull in leg 1", "N", "statics of four legs")
    a, b = (math.radians(one) for one in lift.slung.angles)
    other = traced(math.cos(b), "c_2", "cosine of leg 2 to the horizontal", "", "places of picks and hook")
    both = traced(math.sin(a + b), "s_12", "sine of both angles together", "", "places of picks and hook")
    return named(load * other / both, "T_1", "pull in leg 1", "N", "upright, and along the line of picks")


SITE_FIGURES: dict[str, Callable[[Project, MeasuredBuilding, str], Num]] = {
    "pressure": pressure_working, "concrete": concrete_working, "mortar": mortar_working, "plaster": plaster_working,
    "pull": pull_working,
}  # fmt: skip

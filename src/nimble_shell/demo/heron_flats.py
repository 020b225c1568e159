"""Heron Flats Field Laboratory: an invented lakeside campus of six small buildings.

Plausible mistakes are left in on purpose: the Main Laboratory's wall has double lumber splines and misses what is
asked; the Bunkhouse's services run outside of its air line; the Cold Store's core is not what was asked and nobody
approved it, and its slab has the vapour sheet on the side that is cold there; the Pump House counts its nominal foam
and leaves its through wires steel; the site's snow is beyond what the SIP kit was engineered for; the Boat Workshop's
windows still stand on a schedule's U; W3 of the Main Laboratory stands 85 mm off the panel module. Five buildings have
edges that nobody has drawn a joint for.
"""

from __future__ import annotations

from dataclasses import replace
from functools import cache

from nimble_shell.core.assemblies.assembly import Assembly, Substitution
from nimble_shell.core.assemblies.systems import SYSTEMS
from nimble_shell.core.basis.basis import Basis
from nimble_shell.core.basis.criteria import Criterion, Handling
from nimble_shell.core.basis.indoor import Indoor
from nimble_shell.core.basis.schools import Schools
from nimble_shell.core.basis.site import Site
from nimble_shell.core.basis.stations import Station
from nimble_shell.core.basis.targets import Limits, Targets
from nimble_shell.core.climate import cold_continental
from nimble_shell.core.fixings.kinds import started
from nimble_shell.core.joints.joint import JointRole, JointValue, ShellJoint
from nimble_shell.core.parameters import Value
from nimble_shell.core.setout.choices import SetOutChoices
from nimble_shell.core.setout.courses.choices import FormChoices
from nimble_shell.core.shell.plant import Plant
from nimble_shell.core.shell.project import Building, Project, ShellElement
from nimble_shell.core.shell.standard import JointStandard, Standard
from nimble_shell.core.shop.choices import ShopChoices
from nimble_shell.core.shop.wet_choices import WetChoices
from nimble_shell.core.site.choices import LiftChoices, PourChoices
from nimble_shell.demo.forms import FORMS, LIFTS, POURS, WETS
from nimble_shell.demo.plants import PLANTS
from nimble_shell.demo.set_outs import SET_OUTS, SHOPS
from nimble_shell.demo.shapes import BODIES, FOLLOWS, openings_of
from nimble_shell.demo.units import UNITS
from nimble_shell.services.joint_standards import JointStandardService
from nimble_shell.services.projects import ChangeNote, ProjectService
from nimble_shell.services.standards import StandardService
from nimble_shell.store import Stored

PROJECT_ID = "heron-flats"


def plant(
    service: ProjectService, standards: StandardService | None = None, joints: JointStandardService | None = None
) -> Stored:
    """Store the campus and its practice's standards, and do the edits that its change log tells of."""
    if standards is not None:
        standards.bring_in(_standards())
    if joints is not None:
        joints.bring_in(_joint_standards())
    project = campus()
    stored = service.bring_in(project)
    wall = next(a for a in project.assemblies if a.id == "wall-w-a")
    core = wall.core_index
    assert core is not None
    version = stored.versions["assembly/wall-w-a"]
    note = ChangeNote(text="Core ⟨0.14 length⟩ to ⟨0.185 length⟩", zone="D2")
    return service.save_assembly(stored.project.id, wall.with_thickness(core, 0.185), version, note)


@cache
def campus() -> Project:
    """The project as first drawn; drawn once, so that what is worked out of it is worked out once."""
    basis = Basis(
        site=Site(place="Heron Flats, Heron County (invented)", latitude=46.2, altitude=214.0, theta_winter=-26.0,
                  theta_summer=31.0),
        climate=cold_continental(),
        indoor=Indoor(theta_heating=20.0, phi_heating=0.45, theta_cooling=25.0, phi_cooling=0.55, heated_below=15.0),
        targets=Targets(R_wall=5.6, R_roof=7.5, R_floor=4.5, R_shell=4.8, f_rsi=0.79),
        schools=Schools(),
        limits=Limits(thickness=0.450, inside_share=0.30),
        criteria=_criteria(),
        handling=Handling(crane=False, people=4, kg_per_person=25.0, access=2.4),
    )  # fmt: skip
    return Project(
        id=PROJECT_ID,
        name="Heron Flats Field Laboratory",
        basis=basis,
        buildings=_buildings(),
        assemblies=_assemblies(),
        units=UNITS,
    )


def _standards() -> list[Standard]:
    """What the practice already trusts when the demo opens."""
    wall = SYSTEMS["sip"].assembly("standard-sip", "SIP 235, block spline", {"core": 0.235, "spline": "block"})
    loft = SYSTEMS["loft"].assembly("standard-loft", "Loft, 140 + 260 crossing", {"over": 0.260})
    return [
        Standard(id="standard-sip-235", version=1, place="wall", assembly=wall, trusted_since="2019",
                 reason="four houses, none above 0.6 air changes", source="blower-door reports 2019 to 2024"),
        Standard(id="standard-loft-260", version=1, place="roof", assembly=loft, trusted_since="2016",
                 reason="dry in every look behind the hatch", source="practice log"),
    ]  # fmt: skip


def _joint_standards() -> list[JointStandard]:
    """Joints that the practice trusts: a seam and a ridge with every seal of their schedules."""
    seam = ShellJoint(id="standard", station="D", name="SIP seam, block spline, three seals", family="seam",
                      variant="block", roles=())  # fmt: skip
    ridge = ShellJoint(id="standard", station="A", name="SIP ridge on a beam, sealed inside", family="ridge",
                       variant="beam", roles=(), sealant="butyl")  # fmt: skip
    return [
        JointStandard(id="standard-seam-block", version=1, joint=seam, trusted_since="2019",
                      reason="four houses, none above 0.6 air changes", source="blower-door reports 2019 to 2024"),
        JointStandard(id="standard-ridge-beam", version=1, joint=ridge, trusted_since="2021",
                      reason="dry outer skins at three winters' look", source="practice log"),
    ]  # fmt: skip


def _criteria() -> tuple[Criterion, ...]:
    return (
        Criterion(key="floor", site="3.0", kit="4.0", responsible="structural engineer"),
        Criterion(key="roof", site="2.1", kit="2.5", responsible="structural engineer"),
        Criterion(key="snow", site="3.2", kit="2.4", responsible="structural engineer"),
        Criterion(key="wind", site="41", kit="45", responsible="structural engineer", stamped=True),
        Criterion(key="frost", site="1.2", kit="1.2", responsible="geotechnical engineer"),
        Criterion(key="code", site="county code, as adopted", kit="", responsible="designer"),
    )


def _assemblies() -> tuple[Assembly, ...]:
    """Every building's build-ups: key, system, name, parameters."""
    rows: tuple[tuple[str, str, str, dict[str, Value]], ...] = (
        ("wall-w-a", "sip", "Wall W-A", {"core": 0.140, "spline": "double lumber"}),
        ("roof-r-a", "sip-roof", "Roof R-A", {"core": 0.285, "spline": "block", "screws": 2.5}),
        ("slab-s-a", "slab", "Slab S-A", {"insulation": 0.200}),
        ("wall-w-b", "icf", "Wall W-B, lower storey", {"extra": 0.060, "foam": "eps-form"}),
        ("wall-w-h", "icf-one-sided", "Wall W-H, hall", {"panel": 0.102, "extra": 0.060}),
        ("roof-r-b", "metal-panel-roof", "Roof R-B, hall", {"core": 0.150}),
        ("slab-s-b", "slab", "Slab S-B", {"insulation": 0.120}),
        ("wall-w-c", "cassette", "Wall W-C", {"stud": 0.200, "board": 0.060, "void": 0.045}),
        ("roof-r-c", "bead-roof", "Roof R-C", {"frame": 0.360}),
        ("floor-f-c", "cassette-floor", "Floor F-C", {"stud": 0.220}),
        ("wall-w-d", "metal-panel", "Wall W-D", {"core": 0.200}),
        ("roof-r-d", "metal-panel-roof", "Roof R-D", {"core": 0.200}),
        ("slab-s-d", "slab", "Slab S-D", {"insulation": 0.240, "foam": "xps-036"}),
        ("wall-w-e", "straw-bale", "Wall W-E", {"laid": "on edge", "bale": 0.360}),
        ("wall-p-e", "straw-board", "Partition P-E", {"boards": "3", "fill_thickness": 0.060}),
        ("roof-r-e", "loft", "Roof R-E", {"joist": 0.140, "over": 0.200}),
        ("slab-s-e", "slab", "Slab S-E", {"insulation": 0.140}),
        ("wall-w-f", "mesh-mortar", "Wall W-F", {"foam_thickness": 0.120, "rib": 0.020}),
        ("roof-r-f", "mesh-mortar-roof", "Roof R-F", {"foam_thickness": 0.160}),
        ("slab-s-f", "slab", "Slab S-F", {"insulation": 0.100}),
    )
    made = {key: SYSTEMS[system].assembly(key, name, values) for key, system, name, values in rows}
    made["wall-w-b"] = _with_webs(made["wall-w-b"])
    made["wall-w-c"] = _services_outside(made["wall-w-c"])
    made["wall-w-d"] = _substituted(made["wall-w-d"], "mineral-core", "the PIR was out of stock for ten weeks")
    return tuple(made.values())


def _with_webs(wall: Assembly) -> Assembly:
    """The form's webs as a group that is solved, in the place of their share of the area."""
    core = next(layer.id for layer in wall.layers if layer.studied)
    return replace(wall, fixings=(started("web", wall, core, "f1"),))


def _services_outside(wall: Assembly) -> Assembly:
    """A mistake: pipes in the stud layer, outside of the air line, instead of in the void."""
    layers = tuple(replace(layer, services=layer.studied or layer.services) for layer in wall.layers)
    return replace(wall, layers=layers)


def _substituted(wall: Assembly, delivered: str, reason: str) -> Assembly:
    """A mistake: another core came, and nobody said yes."""
    layers = tuple(
        replace(layer, material=delivered, substitution=Substitution(asked=layer.material, reason=reason))
        if layer.studied
        else layer
        for layer in wall.layers
    )
    return replace(wall, layers=layers)


def _buildings() -> tuple[Building, ...]:
    return (
        _building("main-laboratory", "Main Laboratory", "wet laboratory and store", 95.0,
                  ("B", "SIP roof R-A", "roof-r-a", None, ""),
                  ("D", "Wall W-A", "wall-w-a", None, ""),
                  ("E", "Windows", None, 0.82, "unit schedule"),
                  ("E", "Doors", None, 1.05, "unit schedule"),
                  ("H", "Slab on ground", "slab-s-a", None, "")),
        _building("boat-workshop", "Boat Workshop", "boats below, hall above", 210.0,
                  ("B", "Hall roof", "roof-r-b", None, ""),
                  ("D", "Wall W-B, lower storey", "wall-w-b", None, ""),
                  ("D", "Hall, one-sided form", "wall-w-h", None, ""),
                  ("E", "Windows and boat door", None, 1.1, "unit schedule"),
                  ("H", "Slab on ground", "slab-s-b", None, "")),
        _building("bunkhouse", "Bunkhouse", "twelve beds", 68.0,
                  ("B", "Bead-filled roof", "roof-r-c", None, ""),
                  ("D", "Wall W-C", "wall-w-c", None, ""),
                  ("E", "Windows", None, 0.78, "unit schedule"),
                  ("E", "Doors", None, 1.0, "unit schedule"),
                  ("F", "Floor over crawl space", "floor-f-c", None, "")),
        _building("sample-cold-store", "Sample Cold Store", "samples at −5 °C", None,
                  ("B", "Metal panel roof", "roof-r-d", None, ""),
                  ("D", "Metal panel wall", "wall-w-d", None, ""),
                  ("H", "Slab, insulated", "slab-s-d", None, ""),
                  indoor=Indoor(theta_heating=-5.0, phi_heating=0.8, theta_cooling=-5.0, phi_cooling=0.8)),
        _building("seed-barn", "Seed Barn", "dry seed store", None,
                  ("B", "Loft", "roof-r-e", None, ""),
                  ("D", "Straw panel wall", "wall-w-e", None, ""),
                  ("D", "Partition to the porch", "wall-p-e", None, ""),
                  ("E", "Doors", None, 1.3, "unit schedule"),
                  ("H", "Slab", "slab-s-e", None, "")),
        _building("pump-house", "Pump House", "lake water intake", None,
                  ("B", "Mortar panel roof", "roof-r-f", None, ""),
                  ("D", "Mortar panel wall", "wall-w-f", None, ""),
                  ("D", "Store wall, not drawn yet", None, None, ""),
                  ("E", "Door", None, 1.4, "unit schedule"),
                  ("H", "Slab", "slab-s-f", None, "")),
    )  # fmt: skip


#: Joints by building: station, name, family, variant, compared with, build-ups by role, parameters.
_JOINTS: dict[str, tuple[tuple[Station, str, str, str, str, dict[str, str], dict[str, Value]], ...]] = {
    "main-laboratory": (
        ("A", "Ridge", "ridge", "panel to panel", "beam", {"roof": "roof-r-a"}, {"joint": "open"}),
        ("C", "Eave", "eave", "overhang", "flush", {"wall": "wall-w-a", "roof": "roof-r-a"}, {}),
        ("D", "Wall seams", "seam", "double lumber", "block", {"wall": "wall-w-a"}, {}),
        ("D", "Outer corners", "corner", "lumber", "mitred", {"wall": "wall-w-a"}, {}),
        ("E", "Window jambs", "opening", "framed", "", {"wall": "wall-w-a"}, {"position": 1.0}),
        ("H", "Wall on slab", "base", "no edge foam", "edge foam", {"wall": "wall-w-a", "floor": "slab-s-a"}, {}),
        ("F", "Store floor", "floor line", "hung", "platform", {"wall": "wall-w-a"}, {}),
    ),
    "boat-workshop": (
        ("D", "Corners below", "corner", "plain", "", {"wall": "wall-w-b"}, {}),
        ("E", "Windows in the hall", "opening", "buck behind a return", "flush buck", {"wall": "wall-w-h"}, {}),
        ("F", "Hall floor", "floor line", "foam broken", "ledger", {"wall": "wall-w-b"}, {"depth": 0.220}),
        ("H", "Footing", "base", "to footing", "", {"wall": "wall-w-b", "floor": "slab-s-b"}, {}),
    ),
    "bunkhouse": (
        ("C", "Eave", "eave", "ring beam", "flush", {"wall": "wall-w-c", "roof": "roof-r-c"}, {}),
        ("D", "Cassette seams", "seam", "double stud", "", {"wall": "wall-w-c"}, {}),
        ("D", "Ventilation pipe", "pipe", "bare", "lagged", {"wall": "wall-w-c"}, {}),
        ("E", "Window jambs", "opening", "framed", "", {"wall": "wall-w-c"}, {"position": 0.4}),
    ),
    "sample-cold-store": (
        ("D", "Panel side joints", "seam", "one seal", "two seals", {"wall": "wall-w-d"}, {}),
        ("D", "Corners", "corner", "skin through", "cap", {"wall": "wall-w-d"}, {}),
        ("H", "Panel base", "base", "no edge foam", "edge foam", {"wall": "wall-w-d", "floor": "slab-s-d"}, {}),
    ),
    "seed-barn": (
        ("D", "Panel joints", "seam", "loose", "stuffed", {"wall": "wall-w-e"}, {}),
        ("E", "Door frames", "opening", "straw box", "", {"wall": "wall-w-e"}, {}),
        (
            "H",
            "Box plate",
            "base",
            "box plate",
            "edge foam",
            {"wall": "wall-w-e", "floor": "slab-s-e"},
            {"edge": 0.080},
        ),
    ),
    "pump-house": (
        ("D", "Panel seams", "seam", "mortar in the gap", "foam in the gap", {"wall": "wall-w-f"}, {}),
        ("E", "Door", "opening", "mortar return", "foam strip", {"wall": "wall-w-f"}, {}),
        ("H", "Foot", "base", "dowels", "to footing", {"wall": "wall-w-f", "floor": "slab-s-f"}, {"edge": 0.060}),
        (
            "H",
            "Door threshold",
            "threshold",
            "on the slab",
            "insulated block",
            {"wall": "wall-w-f", "floor": "slab-s-f"},
            {"U_door": 1.4},
        ),
    ),
}


#: What no shape counts.
_PIECES = {("bunkhouse", "Ventilation pipe"): 2.0}
#: Joints whose sealing is decided: what was left out. The ridge without a seal is a mistake left in.
_SEALED: dict[tuple[str, str], tuple[str, ...]] = {
    ("main-laboratory", "Ridge"): ("bead-in", "foam", "tape-in"),
    ("main-laboratory", "Wall seams"): (),
    ("bunkhouse", "Cassette seams"): (),
    ("sample-cold-store", "Panel side joints"): ("drain",),
}


def _joints(building: str) -> tuple[ShellJoint, ...]:
    return tuple(
        ShellJoint(
            id=f"j{number}",
            station=station,
            name=name,
            family=family,
            variant=variant,
            other=other,
            roles=tuple(JointRole(role=role, assembly_id=assembly) for role, assembly in roles.items()),
            values=tuple(
                JointValue(key=key, word=value) if isinstance(value, str) else JointValue(key=key, number=value)
                for key, value in values.items()
            ),
            length=_PIECES.get((building, name), 0.0),
            follows=FOLLOWS.get((building, name), ()),
            sealed=(building, name) in _SEALED,
            omitted=_SEALED.get((building, name), ()),
        )
        for number, (station, name, family, variant, other, roles, values) in enumerate(_JOINTS.get(building, ()), 1)
    )


def _building(
    key: str, name: str, use: str, asked_H: float | None,
    *rows: tuple[Station, str, str | None, float | None, str], indoor: Indoor | None = None,
) -> Building:  # fmt: skip
    elements = tuple(
        ShellElement(id=f"e{number}", station=station, name=words, assembly_id=assembly, U_entered=U, origin=origin)
        for number, (station, words, assembly, U, origin) in enumerate(rows, 1)
    )
    return Building(id=key, name=name, use=use, elements=elements, asked_H=asked_H, joints=_joints(key), indoor=indoor,
                    bodies=BODIES[key], openings=openings_of(key), plant=PLANTS.get(key, Plant()),
                    setout=SET_OUTS.get(key, SetOutChoices()), shop=SHOPS.get(key, ShopChoices()),
                    forms=FORMS.get(key, FormChoices()), pour=POURS.get(key, PourChoices()),
                    wet=WETS.get(key, WetChoices()),
                    lifting=LIFTS.get(key, LiftChoices()))  # fmt: skip

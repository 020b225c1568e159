"""Heron Flats Field Laboratory: an invented lakeside campus of six small buildings.

Plausible mistakes are left in on purpose: the Main Laboratory's wall has double lumber splines and misses what is
asked, and the Boat Workshop's hall still stands on a leaflet's U.
"""

from __future__ import annotations

from nimble_shell.core.assemblies.assembly import Assembly
from nimble_shell.core.assemblies.systems import SYSTEMS
from nimble_shell.core.climate import cold_continental
from nimble_shell.core.shell.basis import Basis, Indoor, Schools, Site, Targets
from nimble_shell.core.shell.project import Building, Project, ShellElement, Station
from nimble_shell.services.projects import Note, ProjectService
from nimble_shell.store import Stored

PROJECT_ID = "heron-flats"
_LEAFLET = "supplier's leaflet, not checked"


def plant(service: ProjectService) -> Stored:
    """Store the campus and do the edits that its change log tells of."""
    project = campus()
    stored = service.bring_in(project)
    wall = next(a for a in project.assemblies if a.id == "wall-w-a")
    core = wall.core_index
    assert core is not None
    version = stored.versions["assembly/wall-w-a"]
    note = Note(text="Core 140 to 185 mm", zone="D2")
    return service.save_assembly(stored.project.id, wall.with_thickness(core, 0.185), version, note)


def campus() -> Project:
    """The project as first drawn."""
    basis = Basis(
        site=Site(place="Heron Flats, Heron County (invented)", latitude=46.2, altitude=214.0, theta_winter=-26.0,
                  theta_summer=31.0),
        climate=cold_continental(),
        indoor=Indoor(theta_heating=20.0, phi_heating=0.45, theta_cooling=25.0, phi_cooling=0.55, heated_below=15.0),
        targets=Targets(R_wall=5.6, R_shell=4.8, f_rsi=0.79),
        schools=Schools(),
    )  # fmt: skip
    return Project(
        id=PROJECT_ID,
        name="Heron Flats Field Laboratory",
        basis=basis,
        buildings=_buildings(),
        assemblies=_assemblies(),
    )


def _assemblies() -> tuple[Assembly, ...]:
    return (
        SYSTEMS["sip"].assembly("wall-w-a", "Wall W-A", {"core": 0.140, "spline": "double lumber"}),
        SYSTEMS["icf"].assembly("wall-w-b", "Wall W-B, lower storey", {"extra": 0.060, "foam": "eps-form"}),
        SYSTEMS["cassette"].assembly("wall-w-c", "Wall W-C", {"stud": 0.200, "board": 0.060, "void": 0.045}),
    )


def _buildings() -> tuple[Building, ...]:
    return (
        _building("main-laboratory", "Main Laboratory", "wet laboratory and store", 95.0,
                  ("B", "SIP roof R-A", 123.1, None, 0.118, _LEAFLET),
                  ("D", "Wall W-A", 212.4, "wall-w-a", None, ""),
                  ("E", "Windows", 31.0, None, 0.82, "unit schedule"),
                  ("E", "Doors", 4.4, None, 1.05, "unit schedule"),
                  ("H", "Slab on ground", 100.8, None, 0.108, "estimate with ground")),
        _building("boat-workshop", "Boat Workshop", "boats below, hall above", 210.0,
                  ("B", "Hall roof", 148.0, None, 0.14, _LEAFLET),
                  ("D", "Wall W-B, lower storey", 118.0, "wall-w-b", None, ""),
                  ("D", "Hall, one-sided form", 96.0, None, 0.24, _LEAFLET),
                  ("E", "Windows and boat door", 34.0, None, 1.1, "unit schedule"),
                  ("H", "Slab on ground", 140.0, None, 0.17, "estimate with ground")),
        _building("bunkhouse", "Bunkhouse", "twelve beds", 68.0,
                  ("B", "Bead-filled roof", 92.0, None, 0.105, _LEAFLET),
                  ("D", "Wall W-C", 164.0, "wall-w-c", None, ""),
                  ("E", "Windows", 22.5, None, 0.78, "unit schedule"),
                  ("E", "Doors", 4.2, None, 1.0, "unit schedule"),
                  ("F", "Floor over crawl space", 80.0, None, 0.13, "estimate")),
        _building("sample-cold-store", "Sample Cold Store", "samples at −5 °C", None,
                  ("B", "Metal panel roof", 54.0, None, 0.16, _LEAFLET),
                  ("D", "Metal panel wall", 96.0, None, 0.19, _LEAFLET),
                  ("H", "Slab, insulated", 54.0, None, 0.15, "estimate")),
        _building("seed-barn", "Seed Barn", "dry seed store", None,
                  ("B", "Roof", 88.0, None, 0.15, "estimate"),
                  ("D", "Straw panel wall", 120.0, None, 0.16, "estimate"),
                  ("E", "Doors", 9.0, None, 1.3, "unit schedule"),
                  ("H", "Slab", 80.0, None, 0.2, "estimate")),
        _building("pump-house", "Pump House", "lake water intake", None,
                  ("B", "Roof", 22.0, None, 0.22, "estimate"),
                  ("D", "Mortar panel wall", 44.0, None, None, ""),
                  ("E", "Door", 2.4, None, 1.4, "unit schedule"),
                  ("H", "Slab", 20.0, None, 0.3, "estimate")),
    )  # fmt: skip


def _building(
    key: str, name: str, use: str, asked_H: float | None,
    *rows: tuple[Station, str, float, str | None, float | None, str],
) -> Building:  # fmt: skip
    elements = tuple(
        ShellElement(id=f"e{number}", station=station, name=words, area=area, assembly_id=assembly, U_entered=U,
                     origin=origin)
        for number, (station, words, area, assembly, U, origin) in enumerate(rows, 1)
    )  # fmt: skip
    return Building(id=key, name=name, use=use, elements=elements, asked_H=asked_H)

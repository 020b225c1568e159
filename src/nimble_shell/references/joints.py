"""Joints and points as part of a wall: areas and seams against solved strips, seasons, surfaces against finer grids."""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import replace

from nimble_shell.core.assemblies.assembly import Assembly, JointPlace
from nimble_shell.core.assemblies.systems import SYSTEMS
from nimble_shell.core.basis.basis import Basis
from nimble_shell.core.basis.stations import Direction
from nimble_shell.core.conduction.coldest import watched
from nimble_shell.core.conduction.solve import MOST_UNKNOWNS, begun, once_more
from nimble_shell.core.fixings.cell import cell_of
from nimble_shell.core.fixings.solved import solve_fixing
from nimble_shell.core.joints.bound import judged, section_of
from nimble_shell.core.joints.drawing import Board, Drawing
from nimble_shell.core.joints.families import FAMILIES
from nimble_shell.core.joints.families.family import Role
from nimble_shell.core.joints.ownership import left_in, taken_by
from nimble_shell.core.joints.solved import F_ERROR, solve_joint
from nimble_shell.core.joints.stack import Stack, stack_of
from nimble_shell.core.materials import CATALOGUE, Catalogue
from nimble_shell.core.thermal.figures import clear_wall_R, wall_figures
from nimble_shell.core.thermal.solved import with_solved
from nimble_shell.core.working import value_of
from nimble_shell.demo.heron_flats import campus
from nimble_shell.references.rows import Row

_T = {"inside": 20.0, "outside": -10.0}
_AREA = 26.0  #: of a wall with its seams [m²]
#: System, what its seams take over, the seam, and the width of a strip with one of them [m].
_STRIPS: list[tuple[str, JointPlace, str, float]] = [
    ("sip", "seam", "double lumber", 1.2),
    ("sip-floor", "seam", "double lumber", 1.2),
    ("metal-panel", "seam", "two seals", 1.2),
    ("cassette", "stud", "double stud", 1.2),
    ("bead-cassette", "stud", "double stud", 1.2),
]
_SURFACES = [
    ("opening", "timber buck", "icf"),
    ("threshold", "insulated block", "masonry"),
    ("corner", "studs", "site-framing"),
    ("ridge", "beam", "cassette-roof"),
]


def rows() -> Iterator[Row]:
    """References of joints."""
    for system, place, variant, width in _STRIPS:
        strip, ours = _strip(system, place, variant, width)
        yield Row(name=f"{system}, areas and every {variant} seam [W/(m·K)]", source="a strip of the wall, solved",
                  reference=strip, ours=ours, tolerance=3e-3 * strip)  # fmt: skip
    for season in ("winter", "summer"):
        whole, ours = _season(season)
        yield Row(name=f"mortar panel with wires, R of the {season} [m²·K/W]",
                  source="the same with the season's conductivities throughout, χ solved with them",
                  reference=whole, ours=ours, tolerance=3e-3 * whole)  # fmt: skip
    for family, variant, system in _SURFACES:
        shape = _drawing(family, variant, system)
        found = solve_joint(shape, _T).f_rsi
        yield Row(name=f"{family}, {variant}, {system}: f_Rsi", source="a grid with several times the unknowns",
                  reference=_on_finer_grid(shape), ours=found or 0.0, tolerance=F_ERROR["final"])  # fmt: skip


def _strip(system: str, place: JointPlace, variant: str, width: float) -> tuple[float, float]:
    """L2D of a strip with one seam, and of the wall's area and seams by their sum, for as much of it."""
    assembly = _with_only(system, place, width)
    stacks: dict[Role, Stack] = {"wall": stack_of(assembly, CATALOGUE, Basis(), owned=frozenset({place}))}
    drawing = FAMILIES["seam"].drawing(variant, stacks, CATALOGUE)
    length = _AREA / width
    taken = [taken_by(one, "w", stacks["wall"], drawing, length) for one in FAMILIES["seam"].owned(variant)]
    U = 1 / value_of(clear_wall_R(left_in(assembly, _AREA, taken), CATALOGUE, Basis()))
    psi = solve_joint(drawing, _T).psi[("inside", "outside")]["internal"]
    strip = solve_joint(_cut(drawing, width), _T).coupling[("inside", "outside")]
    return strip, (_AREA * U + psi * length) / length


def _with_only(system: str, place: JointPlace, centres: float) -> Assembly:
    """A shipped build-up with the members of one place alone, so far apart, and no fixings."""
    made = SYSTEMS[system].assembly("w", system)
    layers = tuple(
        replace(layer, members=tuple(
            replace(member, centres=centres) for member in layer.members if member.joint == place
        ))
        for layer in made.layers
    )  # fmt: skip
    return replace(made, layers=layers, fixings=())


def _cut(drawing: Drawing, width: float) -> Drawing:
    """The seam in the middle of one spacing: what lies further from it than half of that is cut off."""
    board = Board()
    for shape in drawing.shapes:
        board.poly([(x, min(max(y, -width / 2), width / 2)) for x, y in shape.ring], shape.fill, shape.part)
    for air in drawing.airs:
        board.air(air.env, [(x, min(max(y, -width / 2), width / 2)) for x, y in air.ring], air.R_s)
    return board.done(drawing.view, plan=True)


def _season(season: str) -> tuple[float, float]:
    """Clear-wall R of a season: with its conductivities as if they were the labelled ones, and as it is shown."""
    project = campus()
    wall = next(one for one in project.assemblies if one.id == "wall-w-f")
    [wire] = wall.fixings

    def solved(assembly: Assembly, catalogue: Catalogue) -> Assembly:
        cell = cell_of(assembly, wire, catalogue, project.basis)
        return with_solved(assembly, {wire.id: solve_fixing(cell, _T).chi / cell.chi_approximate})

    materials = project.catalogue
    found = wall_figures(solved(wall, project.catalogue), project.catalogue, project.basis, season)
    planes = [plane.theta for plane in found.profile.planes]
    layers = list(wall.layers)
    for at, layer in enumerate(wall.layers[: found.counted]):
        material = materials[layer.material]
        if material.lambda_T:
            by_theta = dict(material.lambda_T)
            low, high = min(by_theta), max(by_theta)
            slope = (by_theta[high] - by_theta[low]) / (high - low)  # of a foam, straight
            share = slope * ((planes[at] + planes[at + 1]) / 2 - 10.0) / (by_theta[low] + slope * (10.0 - low))
            layers[at] = replace(layer, lambda_entered=material.lambda_ * (1 + share))
    even: Catalogue = {key: replace(one, lambda_T=()) for key, one in materials.items()}
    whole = clear_wall_R(
        solved(replace(wall, layers=tuple(layers)), even), even, project.basis
    )  # fmt: skip
    return value_of(whole), value_of(found.figures[f"R_{season}_clear"].number)


def _drawing(family: str, variant: str, system: str) -> Drawing:
    one = FAMILIES[family]
    others: dict[str, tuple[str, Direction]] = {"roof": (system, "up"), "floor": ("slab", "down")}
    stacks: dict[Role, Stack] = {}
    for role in one.roles:
        key, direction = others.get(role, (system, "horizontal"))
        owned = frozenset(each.place for each in one.owned(variant) if each.role == role)
        stacks[role] = stack_of(SYSTEMS[key].assembly("w", key), CATALOGUE, Basis(), direction, owned)
    return one.drawing(variant, stacks, CATALOGUE)


def _on_finer_grid(shape: Drawing) -> float:
    section = section_of(shape, _T, "iso6946")
    found = begun(section)
    while found.fields.space.size < 25_000:
        found = once_more(section, found)
    seen = watched(section, judged(shape, section), "inside", found, target=1.0, most=MOST_UNKNOWNS)
    return (seen.extremes.min - _T["outside"]) / (_T["inside"] - _T["outside"])

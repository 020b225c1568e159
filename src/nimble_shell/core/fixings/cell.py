"""The cell of build-up around one fixing: what is drawn and what is solved. s is the depth from the inner face."""

from __future__ import annotations

import math
from collections.abc import Iterator
from dataclasses import dataclass, replace

from nimble_shell.core.assemblies.assembly import Assembly
from nimble_shell.core.assemblies.fixing import Fixing
from nimble_shell.core.basis.basis import Basis
from nimble_shell.core.basis.stations import Direction
from nimble_shell.core.conduction.boxes import Box, BoxModel, Face
from nimble_shell.core.errors import DomainError, Issue
from nimble_shell.core.joints.drawing import Board, Drawing, box
from nimble_shell.core.joints.stack import THINNEST, Fill, Stack, fill_of, stack_of
from nimble_shell.core.materials import Catalogue
from nimble_shell.core.quantities.sentence import sentence
from nimble_shell.core.thermal.resistance import resistances
from nimble_shell.core.thermal.resolve import fixings_transmittance, resolve
from nimble_shell.core.thermal.section import surroundings
from nimble_shell.core.thermal.solved import with_solved
from nimble_shell.core.working import Given, Num, named, plain, value_of

_LONGEST = 0.5  #: that may stand free of the build-up [m]
_READABLE = 0.02  #: a shorter length is not dimensioned on the drawing [m]
_SEEN = 0.08  #: half width of what is drawn, or more for a thick build-up [m]


@dataclass(frozen=True, slots=True, kw_only=True)
class Cell:
    """One fixing and its share of the build-up."""

    drawing: Drawing  #: solved itself, or where `boxes` is given a cut through it
    boxes: BoxModel | None  #: a quarter of the cell
    times: float  #: χ of one fixing over what the model gives beyond its reference
    per_area: float  #: [1/m²]
    length: float  #: of the shank [m]
    U: float  #: of the field without fixings [W/(m²·K)]
    chi_approximate: float  #: by ISO 6946, F.3, its limits of use left aside [W/K]
    says: tuple[str, ...]  #: what the drawing shows that should be looked at
    method: str


@dataclass(frozen=True, slots=True)
class _Part:
    """A segment of the fixing: depths, half widths across and along, material."""

    a: float
    b: float
    x: float
    z: float
    fill: Fill
    name: str


def cell_of(
    assembly: Assembly, fixing: Fixing, catalogue: Catalogue, basis: Basis, direction: Direction = "horizontal"
) -> Cell:
    """The cell of a fixing.

    Parameters
    ----------
    assembly : Assembly
        The build-up; its members are left out, its other fixings too.
    fixing : Fixing
    catalogue : mapping of key to Material
    basis : Basis
        Films and the label's temperature.
    direction : {"horizontal", "up", "down"}
        Of the heat flow.

    Raises
    ------
    DomainError
        If the fixing is wider than its share of the wall, or does not lie in what is counted.

    Notes
    -----
    A round shank stands in a body of revolution of the same area, a flat one in a quarter of its rectangle, a flat one
    as high as its spacing in half a plan. Skins and what they spread belong to the cell.

    References
    ----------
    .. [1] ISO 10211:2017, 7.2 and 11 (point thermal transmittance); ISO 6946:2017, annex F.
    """
    bare = _bare(assembly)
    stack = stack_of(bare, catalogue, basis, direction)
    index = next((n for n, layer in enumerate(assembly.layers) if layer.id == fixing.layer), -1)
    at = next((n for n, ply in enumerate(stack.plies) if ply.layer == index), None)
    if at is None:
        raise DomainError(Issue(path=("layer",), code="fixing_not_counted",
                                message=f"“{fixing.name}” goes through a layer outside of the ventilated one",
                                hint="choose a layer inside of it"))  # fmt: skip
    parts = _parts(fixing, stack, at, catalogue)
    _check(fixing, parts, stack)
    U = _reference(stack, parts)
    drawing = (_revolved if fixing.diameter is not None else _plan)(fixing, stack, parts, U, direction)
    boxes, times, method = None, 1.0, "body of revolution"
    if fixing.diameter is None and _runs_through(fixing):
        times, method = 2 * _height(fixing), "repeating plan"
    elif fixing.diameter is None:
        boxes, times, method = _boxes(fixing, stack, parts), 4.0, "boxes, a quarter of the repeating cell"
    return Cell(
        drawing=drawing,
        boxes=boxes,
        times=times,
        per_area=fixing.per_area,
        length=parts[-1].b - parts[-1].a,
        U=U,
        chi_approximate=value_of(chi_approximate(assembly, fixing, catalogue, basis, direction)),
        says=tuple(_says(fixing, parts, stack)),
        method=method,
    )


def _bare(assembly: Assembly) -> Assembly:
    """The build-up without members and fixings."""
    return replace(assembly, layers=tuple(replace(layer, members=()) for layer in assembly.layers), fixings=())


def chi_approximate(
    assembly: Assembly, fixing: Fixing, catalogue: Catalogue, basis: Basis, direction: Direction = "horizontal",
    given: Given = plain,
) -> Num:  # fmt: skip
    """χ by the approximate procedure, also where it does not hold; arguments as of `cell_of`. [W/K]

    References
    ----------
    .. [1] ISO 6946:2017, annex F, F.3.
    """
    only = with_solved(replace(_bare(assembly), fixings=(fixing,)), {fixing.id: 1.0})
    resolved = resolve(only, catalogue, surroundings(basis.schools, direction), given=given)
    found = fixings_transmittance(resolved, resistances(resolved.element).nominal)
    if found is None:
        return 0.0
    n = given(fixing.per_area, "n", f"number, {fixing.name}", "1/m²", "entered")
    return named(found / n, "chi_a", "of one fixing, by the approximate procedure", "W/K", "ISO 6946:2017, F.3, ΔU/n")


def _height(fixing: Fixing) -> float:
    return fixing.along or math.sqrt(1 / fixing.per_area)


def _width(fixing: Fixing) -> float:
    return fixing.across or math.sqrt(1 / fixing.per_area)


def _runs_through(fixing: Fixing) -> bool:
    return fixing.h is not None and fixing.h >= _height(fixing) * (1 - 1e-9)


def _parts(fixing: Fixing, stack: Stack, at: int, catalogue: Catalogue) -> list[_Part]:
    """Later ones take the place of earlier ones."""
    a, b = stack.span(at)
    depth = fixing.depth if fixing.depth is not None and fixing.depth < b - a else None
    start, end = a - fixing.inner, b + fixing.outer if depth is None else a + depth
    if 0 < end - stack.d < THINNEST:  # a membrane that is not drawn
        end = stack.d
    x, z = (fixing.diameter / 2,) * 2 if fixing.diameter else ((fixing.t or 0.0) / 2, (fixing.h or 0.0) / 2)
    parts: list[_Part] = []
    if fixing.mesh > 0:
        steel = fill_of(catalogue, "steel")
        R = _radius(fixing)
        parts += [_Part(s, s + fixing.mesh, R, R, steel, "mesh") for s in (start, end - fixing.mesh)]
    if fixing.sleeve is not None:
        fill = fill_of(catalogue, fixing.sleeve_material)
        parts.append(_Part(a, min(b, end), fixing.sleeve / 2, fixing.sleeve / 2, fill, "sleeve"))
    for plate, s, name in (
        (fixing.head, end - (fixing.head.t if fixing.head else 0.0), "head"),
        (fixing.foot, start, "foot"),
    ):
        if plate is not None:
            half = plate.size / 2
            high = max(z, half) if not _runs_through(fixing) else z
            parts.append(_Part(s, s + plate.t, half, high, fill_of(catalogue, plate.material), name))
    parts.append(_Part(start, end, x, z, fill_of(catalogue, fixing.material), fixing.name))
    return parts


def _radius(fixing: Fixing) -> float:
    """Of the circle of a fixing's share of the wall. [m]"""
    return math.sqrt(1 / (math.pi * fixing.per_area))


def _check(fixing: Fixing, parts: list[_Part], stack: Stack) -> None:
    solid = [part for part in parts if part.name != "mesh"]
    room_x, room_z = (_radius(fixing),) * 2 if fixing.diameter else (_width(fixing) / 2, _height(fixing) / 2)
    wide = next((p for p in solid if p.x >= room_x or (p.z > room_z * (1 + 1e-9) and not _runs_through(fixing))), None)
    if wide is not None:
        raise DomainError(
            Issue(
                path=("n",),
                code="fixing_wider_than_its_cell",
                message=sentence(
                    f"the {wide.name} is {{v1}} wide, its share of the wall {{v2}}",
                    v1=((2000 * max(wide.x, wide.z)) / 1000, "length"),
                    v2=((2000 * min(room_x, room_z)) / 1000, "length"),
                ),
                hint="fewer per m², or a smaller one",
            )
        )
    free = max(max(p.b for p in parts) - stack.d, -min(p.a for p in parts))
    if free > _LONGEST:
        raise DomainError(Issue(path=("outer",), code="fixing_too_long",
                                message=sentence("{v1} of it stand free of the build-up", v1=(free, "length")),
                                hint=sentence("at most {v1}", v1=(_LONGEST, "length"))))  # fmt: skip
    if any(p.b <= p.a for p in parts):
        raise DomainError(Issue(path=("head",), code="plate_thicker_than_fixing",
                                message="a plate is thicker than the fixing is long",
                                hint="a longer fixing or a thinner plate"))  # fmt: skip


def _says(fixing: Fixing, parts: list[_Part], stack: Stack) -> Iterator[str]:
    start, end = min(p.a for p in parts), max(p.b for p in parts)
    if start < -1e-6:
        yield sentence("comes out on the room side by {by}", by=(-start, "length"))
    elif start < 0.003:
        yield "reaches the inner face"
    if end > stack.d + 1e-6:
        yield sentence("stands {by} free on the outside", by=(end - stack.d, "length"))
    if fixing.kind in ("screw", "dowel") and fixing.inner < 0.010:
        yield "holds in nothing inside of the insulation"


def _reference(stack: Stack, parts: list[_Part]) -> float:
    """U of the field; a mesh is part of it. [W/(m²·K)]"""
    R = 1 / stack.U
    for mesh in (part for part in parts if part.name == "mesh"):
        for at, ply in enumerate(stack.plies):
            a, b = stack.span(at)
            d = max(min(b, mesh.b) - max(a, mesh.a), 0.0)
            R += d / mesh.fill.lambda_ - d / ply.fill.lambda_
    return 1 / R


def _revolved(fixing: Fixing, stack: Stack, parts: list[_Part], U: float, direction: Direction) -> Drawing:
    """A body of revolution: x is the radius, the outside below."""
    R = _radius(fixing)
    board = Board()
    board.strip(stack, origin=(0, 0), along=(1, 0), out=(0, -1), start=0, end=R)
    for part in parts:
        board.rect(0, -part.b, min(part.x, R), -part.a, part.fill, part.name)
    far = _LONGEST + 0.1
    board.air("outside", box(0, -stack.d - far, R, -stack.d / 2), stack.R_se)
    board.air("inside", box(0, -stack.d / 2, R, far), None)
    board.refer(stack.name, U, math.pi * R**2)
    free_in, free_out = max(-min(p.a for p in parts), 0.0), max(max(p.b for p in parts) - stack.d, 0.0)
    for key, a, b in _dims(fixing, parts):
        board.dim(key, (_clear(parts), -a), (_clear(parts), -b))
    seen = min(R, max(_SEEN, 0.3 * stack.d))
    return board.done((0, -stack.d - free_out - 0.012, seen, free_in + 0.012), kind="axisymmetric",
                      direction=direction)  # fmt: skip


def _plan(fixing: Fixing, stack: Stack, parts: list[_Part], U: float, direction: Direction) -> Drawing:
    """Half a plan from the middle of the fixing: the outside to the left, y across."""
    W = _width(fixing) / 2
    board = Board()
    board.strip(stack, origin=(0, 0), along=(0, 1), out=(-1, 0), start=0, end=W)
    for part in parts:
        board.rect(-part.b, 0, -part.a, min(part.x, W), part.fill, part.name)
    far = _LONGEST + 0.1
    board.air("outside", box(-stack.d - far, 0, -stack.d / 2, W), stack.R_se)
    board.air("inside", box(-stack.d / 2, 0, far, W), None)
    board.refer(stack.name, U, W)
    free_in, free_out = max(-min(p.a for p in parts), 0.0), max(max(p.b for p in parts) - stack.d, 0.0)
    for key, a, b in _dims(fixing, parts):
        board.dim(key, (-a, _clear(parts)), (-b, _clear(parts)))
    seen = min(W, max(_SEEN, 0.3 * stack.d))
    return board.done((-stack.d - free_out - 0.012, 0, free_in + 0.012, seen), plan=True, direction=direction)


def _clear(parts: list[_Part]) -> float:
    """Beside the fixing. [m]"""
    return max(part.x for part in parts if part.name != "mesh") + 0.01


def _dims(fixing: Fixing, parts: list[_Part]) -> Iterator[tuple[str, float, float]]:
    """Lengths that can be typed on the drawing, as depths."""
    shank = parts[-1]
    if fixing.inner > _READABLE:
        yield "inner", shank.a, shank.a + fixing.inner
    if fixing.outer > _READABLE:
        yield "outer", shank.b - fixing.outer, shank.b
    if fixing.depth is not None:
        yield "depth", shank.a + fixing.inner, shank.b


def _boxes(fixing: Fixing, stack: Stack, parts: list[_Part]) -> BoxModel:
    """A quarter of the cell: x across, y the depth, z along."""
    W, H = _width(fixing) / 2, _height(fixing) / 2
    boxes = []
    for at, ply in enumerate(stack.plies):
        a, b = stack.span(at)
        boxes.append(Box(low=(0, a, 0), high=(W, b, H), lambda_=ply.fill.lambda_))
    faces = [
        Face(low=(0, 0, 0), high=(W, 0, H), env="inside", R_s=stack.R_si),
        Face(low=(0, stack.d, 0), high=(W, stack.d, H), env="outside", R_s=stack.R_se),
    ]
    for part in parts:
        x, z = min(part.x, W), min(part.z, H)
        boxes.append(Box(low=(0, part.a, 0), high=(x, part.b, z), lambda_=part.fill.lambda_))
        for env, R_s, a, b in (
            ("inside", stack.R_si, part.a, min(part.b, 0.0)),
            ("outside", stack.R_se, max(part.a, stack.d), part.b),
        ):
            if b - a > 1e-9:
                faces += [
                    Face(low=(x, a, 0), high=(x, b, z), env=env, R_s=R_s),
                    Face(low=(0, a, z), high=(x, b, z), env=env, R_s=R_s),
                    Face(low=(0, a, 0), high=(x, a, z), env=env, R_s=R_s),
                    Face(low=(0, b, 0), high=(x, b, z), env=env, R_s=R_s),
                ]
    T = {"inside": 1.0, "outside": 0.0}
    return BoxModel(boxes=tuple(boxes), faces=tuple(faces), temperatures=T)

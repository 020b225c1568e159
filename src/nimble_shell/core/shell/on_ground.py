"""What of a building stands on or in the ground, and what it loses there by ISO 13370."""

from __future__ import annotations

import math
from collections.abc import Mapping, Sequence
from dataclasses import dataclass

from nimble_shell.core.climate import MonthlyClimate
from nimble_shell.core.geometry.face import Face
from nimble_shell.core.ground.floor import EdgeFoam, EdgeKind, GroundFloor, HeatedBasement, Slab
from nimble_shell.core.ground.seasons import GroundYear
from nimble_shell.core.ground.steady import GroundFigures, ground_figures
from nimble_shell.core.shell.measured import MeasuredBuilding
from nimble_shell.core.shell.plant import Ground
from nimble_shell.core.working import Given, Num, plain

_SHALLOW = 0.3  #: depth of walls below the ground up to which a floor counts as a slab [m]


@dataclass(frozen=True, slots=True, kw_only=True)
class OnGround:
    """A building's contact with the ground."""

    floor: GroundFloor
    figures: GroundFigures
    floors: tuple[str, ...]  #: elements that lie on it
    walls: tuple[str, ...]  #: elements that stand in it; counted with it in a basement

    @property
    def transmittances(self) -> dict[str, Num]:
        """U of each of its elements. [W/(m²·K)]"""
        figures = self.figures
        below = figures.U if figures.U_bf is None else figures.U_bf
        walls = {} if figures.U_bw is None else dict.fromkeys(self.walls, figures.U_bw)
        return dict.fromkeys(self.floors, below) | walls


def on_ground(
    building: MeasuredBuilding, soil: Ground, R_of: Mapping[str, float], given: Given = plain
) -> OnGround | None:
    """What a building loses to the ground; None where no floor of it lies there, or none of it is exposed.

    Parameters
    ----------
    building : MeasuredBuilding
    soil : Ground
    R_of : mapping of element id to float
        Of each build-up, without films. [m²·K/W]
    given : Given
        `plain` for figures, `traced` for working.

    Notes
    -----
    Several floors count as one by their area, as ISO 13370:2017, 7.1 has it for one building; walls in the ground by
    theirs, and the basement is as deep as those walls over its perimeter.
    """
    found = building.shape.takeoff
    if found.ground is None or found.ground.B is None:
        return None
    system = "external" if building.dimensions == "external" else "overall_internal"
    A, P = getattr(found.ground.A, system), getattr(found.ground.P, system)
    touching = [face for face in found.body.faces if face.to == "ground" and face.zone]
    floors = [face for face in touching if face.kind == "floor"]
    walls = [face for face in touching if face.kind == "wall"]

    def area(face: Face) -> float:
        return float(getattr(found.faces[face.id].gross, system))

    depth = sum(map(area, walls)) / P
    outer = [face for face in found.body.faces if face.kind == "wall" and face.to == "outside"]
    thick = sum(face.thickness * area(face) for face in outer) / (sum(map(area, outer)) or 1.0)
    R_floor = _mean([(area(face), R_of.get(face.zone)) for face in floors])
    if R_floor is None:
        return None
    ids = tuple(dict.fromkeys(face.zone for face in floors))
    if depth <= _SHALLOW:
        placed: tuple[tuple[EdgeKind, float], ...] = (("vertical", soil.edge_depth), ("horizontal", soil.edge_width))
        edges = tuple(EdgeFoam(kind=kind, D=D, d=soil.edge_d, lambda_=soil.edge_lambda) for kind, D in placed if D > 0)
        floor: GroundFloor = Slab(A=A, P=P, lambda_=soil.lambda_, rho_c=soil.rho_c, w=thick, Rf=R_floor, edges=edges)
        return OnGround(floor=floor, figures=ground_figures(floor, given), floors=ids, walls=())
    R_walls = _mean([(area(face), R_of.get(face.zone)) for face in walls])
    if R_walls is None:
        return None
    floor = HeatedBasement(A=A, P=P, lambda_=soil.lambda_, rho_c=soil.rho_c, w=thick, Rf=R_floor, Rw=R_walls, z=depth)
    return OnGround(floor=floor, figures=ground_figures(floor, given), floors=ids,
                    walls=tuple(dict.fromkeys(face.zone for face in walls)))  # fmt: skip


def _mean(parts: Sequence[tuple[float, float | None]]) -> float | None:
    """Resistance of areas side by side, by their transmittance; None where one is not known. [m²·K/W]"""
    area = sum(A for A, _ in parts)
    if not area or any(R is None for _, R in parts):
        return None
    films = 0.21  # of a floor; what each area loses is by its whole resistance
    return area / sum(A / ((R or 0.0) + films) for A, R in parts) - films


def year_of(climate: MonthlyClimate, rooms: Sequence[float]) -> GroundYear:
    """Mean and first harmonic of a year's months, outside and in the rooms. [°C]"""
    mean, amplitude, coldest = _harmonic(climate.theta_e)
    mean_i, amplitude_i, _ = _harmonic(rooms)
    return GroundYear(
        theta_i=mean_i, theta_i_amplitude=amplitude_i, theta_e=mean, theta_e_amplitude=amplitude, tau=coldest
    )


def _harmonic(values: Sequence[float]) -> tuple[float, float, float]:
    """Mean, amplitude, and the month of the lowest value, January being 1."""
    a, b = (2 / 12 * sum(value * turn(2 * math.pi * m / 12) for m, value in enumerate(values, 1))
            for turn in (math.cos, math.sin))  # fmt: skip
    return sum(values) / 12, math.hypot(a, b), (math.atan2(-b, -a) * 12 / (2 * math.pi)) % 12

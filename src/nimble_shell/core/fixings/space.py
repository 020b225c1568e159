"""A cell of boxes solved in space, and the cut through it that is drawn."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import replace

import numpy as np
from numpy.typing import NDArray

from nimble_shell.core.conduction.boxes import BoxModel
from nimble_shell.core.conduction.field import Field
from nimble_shell.core.conduction.result import Extremes
from nimble_shell.core.conduction.solve_boxes import (
    CellFields,
    SolvedCells,
    extremes_of,
    face_temperatures,
    refined_boxes,
    solve_cells,
)
from nimble_shell.core.joints.drawing import SYSTEMS
from nimble_shell.core.joints.solved import SolvedJoint
from nimble_shell.core.thermal.films import R_SI_SURFACE

FloatArray = NDArray[np.float64]

_LEAST = 2e-5  #: of the whole coupling; what is beyond the field needs no more digits than that


def solve_space(model: BoxModel, temperatures: Mapping[str, float], *, target: float, U: float) -> SolvedJoint:
    """A quarter cell, refined until what it gives beyond U·A is known to a relative target.

    Parameters
    ----------
    model : BoxModel
        x across, y the depth from inside, z along; "inside" and "outside".
    temperatures : mapping
        [°C]
    target : float
        Error of what is beyond the field, relative to it.
    U : float
        Of the field. [W/(m²·K)]
    """
    model = replace(model, temperatures={env: temperatures[env] for env in ("inside", "outside")})
    area = model.boxes[0].high[0] * model.boxes[0].high[2]

    def good(G: FloatArray, error: float) -> bool:
        return bool(error * abs(G[0, 1]) <= max(target * abs(-G[0, 1] - U * area), _LEAST * abs(G[0, 1])))

    found = refined_boxes(model, good)
    T = np.array([model.temperatures["inside"], model.temperatures["outside"]])
    L3D = float(-found.G[0, 1])
    cold = _coldest(model, found)
    chi = L3D - U * area
    span = T[0] - T[1]
    flow = L3D * span
    return SolvedJoint(
        coupling={("inside", "outside"): L3D},
        psi={("inside", "outside"): dict.fromkeys(SYSTEMS, chi)},
        error=found.error * L3D,
        certain=None,
        heat_flow={"inside": flow, "outside": -flow},
        balance=0.0,
        f_rsi=None if abs(span) < 1e-9 else float((cold.min - T[1]) / span),
        f_error=None,
        coldest=Extremes(
            min=cold.min, at=(-cold.at[1], cold.at[0]), max=cold.max, at_max=(-cold.at_max[1], cold.at_max[0])
        ),
        temperatures=model.temperatures,
        field=_cut(found.fields, found.fields.theta @ T, model.temperatures),
        trace=np.zeros((0, 3, 3)),
        segments=(),
        starts=np.zeros((0, 2)),
        unknowns=len(found.fields.theta),
    )


def _coldest(model: BoxModel, found: SolvedCells) -> Extremes:
    """Of the inner surface, with the resistance that surfaces are judged by (ISO 13788:2012, 4.4.1)."""
    faces = tuple(replace(face, R_s=R_SI_SURFACE) if face.env == "inside" else face for face in model.faces)
    judged = replace(model, faces=faces)
    fields = solve_cells(judged, found.fields.cells.lines)
    T = np.array(list(model.temperatures.values()))
    return extremes_of(fields.cells, "inside", fields.theta @ T, model.temperatures["inside"])


def _cut(fields: CellFields, theta: FloatArray, temperatures: Mapping[str, float]) -> Field:
    """Temperatures in the plane z = 0, as (−y, x): at both faces and the middle of every cell along the depth."""
    cells = fields.cells
    grid = np.where(cells.number >= 0, theta[cells.number], np.nan)[:, :, 0]
    low, high = (face[:, :, 0] for face in face_temperatures(cells, theta, temperatures)[1])
    deep = cells.lines[1]
    values = np.stack([low, grid, high], axis=2).reshape(len(grid), -1)
    places = np.stack([deep[:-1], (deep[:-1] + deep[1:]) / 2, deep[1:]], axis=1).ravel()
    across = np.concatenate([[0.0], cells.middles[0], [cells.lines[0][-1]]])
    values = np.concatenate([values[:1], values, values[-1:]])
    xy = np.stack(np.meshgrid(-places, across), axis=-1).reshape(-1, 2)
    nx, ny = values.shape
    at = np.arange(nx * ny).reshape(nx, ny)
    a, b, c, d = at[:-1, :-1].ravel(), at[:-1, 1:].ravel(), at[1:, 1:].ravel(), at[1:, :-1].ravel()
    triangles = np.concatenate([np.stack([a, b, c], axis=1), np.stack([a, c, d], axis=1)])
    flat = values.ravel()
    return Field(xy=xy, theta=np.nan_to_num(flat), triangles=triangles[np.isfinite(flat[triangles]).all(axis=1)])

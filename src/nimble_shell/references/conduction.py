"""Steady conduction: the published cases, and models whose solution is known in closed form."""

from __future__ import annotations

import json
import math
from collections.abc import Iterator
from importlib import resources
from typing import Any

import numpy as np

from nimble_shell.core.conduction.boxes import Box, BoxModel, Face
from nimble_shell.core.conduction.field import lower_bound
from nimble_shell.core.conduction.limit import extrapolated
from nimble_shell.core.conduction.mesh import first_grid
from nimble_shell.core.conduction.section import Region, Section, SurfaceSegment
from nimble_shell.core.conduction.solution import solve
from nimble_shell.core.conduction.solve import refined, solve_on
from nimble_shell.core.conduction.solve_boxes import solve_boxes
from nimble_shell.formats import neutral_section
from nimble_shell.references.rows import Row

_PAIR = ("outside", "inside")
_NOWHERE = np.empty((0, 2))


def rows() -> list[Row]:
    """References of sections, bodies of revolution and boxes."""
    return [
        *_square_column(),
        *_case_2(),
        *_iron_bar(),
        *_corner(),
        *_conductivity_by_temperature(),
        *_annulus(),
        *_rotated(),
        *_drawn_out(),
    ]


def published(number: int) -> dict[str, Any]:
    """A validation case of ISO 10211 with its reference, in the neutral format."""
    file = resources.files("nimble_shell.references") / "cases" / f"iso10211_case{number}.json"
    found: dict[str, Any] = json.loads(file.read_text("utf-8"))
    return found


def _computed(number: int) -> tuple[dict[str, Any], dict[str, Any]]:
    both = published(number)
    return neutral_section.compute(neutral_section.SectionCase.model_validate(both["case"])), both["reference"]


def _square_column() -> Iterator[Row]:
    found, reference = _computed(1)
    for name, printed in reference["points"].items():
        yield Row(name=f"half square column, {name} [°C]", source="ISO 10211, validation case 1", reference=printed,
                  ours=found["points"][name], tolerance=reference["tolerance_K"])  # fmt: skip
    # The series of separated variables, at every point of the table; the section is solved far enough for 0.1 mK.
    case = published(1)["case"] | {"target_error": 1e-4}
    found = neutral_section.compute(neutral_section.SectionCase.model_validate(case))
    worst = max(
        abs(found["points"][point["name"]] - _series(point["x"] / 1000, point["y"] / 1000)) for point in case["points"]
    )
    yield Row(name="half square column, farthest from the series [K]", source="analytic series", reference=0.0,
              ours=worst, tolerance=1e-4)  # fmt: skip


def _series(x: float, y: float) -> float:
    """Temperature of a column of 2 m by 2 m with one side at 20 and three at 0. [°C]"""
    terms = (
        4 * 20 / (n * math.pi) * math.sin(n * math.pi * x / 2) * math.sinh(n * math.pi * y / 2) / math.sinh(n * math.pi)
        for n in range(1, 200, 2)
    )
    return sum(terms)


def _case_2() -> Iterator[Row]:
    found, reference = _computed(2)
    source = "ISO 10211, validation case 2"
    for name, printed in reference["points"].items():
        yield Row(name=f"covered metal section, {name} [°C]", source=source, reference=printed,
                  ours=found["points"][name], tolerance=reference["tolerance_K"])  # fmt: skip
    yield Row(name="covered metal section, flow [W/m]", source=source, reference=reference["heat_flow_W_m"],
              ours=found["heat_flow"]["inside"], tolerance=reference["tolerance_W_m"])  # fmt: skip


def _iron_bar() -> Iterator[Row]:
    found, reference = _computed(4)
    source = "ISO 10211, validation case 4"
    flow = reference["heat_flow_W"]
    yield Row(name="iron bar through insulation, flow [W]", source=source, reference=flow,
              ours=4 * found["heat_flow"]["inside"], tolerance=reference["tolerance_heat_rel"] * flow)  # fmt: skip
    yield Row(name="iron bar, warmest outer surface [°C]", source=source, reference=reference["Tmax_outside"],
              ours=found["surface"]["outside"]["max"], tolerance=reference["tolerance_K"])  # fmt: skip


def _rectangle(x0: float, y0: float, x1: float, y1: float, lambda_: float) -> Region:
    return Region(ring=((x0, y0), (x1, y0), (x1, y1), (x0, y1)), lambda_=lambda_)


def corner() -> Section:
    """Two walls of 1 m that meet in a corner, with prescribed surfaces and legs of 3 m."""
    return Section(
        regions=(_rectangle(0, 0, 4, 1, 1.0), _rectangle(0, 0, 1, 4, 1.0)),
        segments=(
            SurfaceSegment(a=(0, 0), b=(4, 0), env="outside", R_s=0.0),
            SurfaceSegment(a=(0, 0), b=(0, 4), env="outside", R_s=0.0),
            SurfaceSegment(a=(1, 1), b=(4, 1), env="inside", R_s=0.0),
            SurfaceSegment(a=(1, 1), b=(1, 4), env="inside", R_s=0.0),
        ),
        temperatures={"outside": 0.0, "inside": 1.0},
    )


def _corner() -> Iterator[Row]:
    # Conformal map: the corner square adds 1 − (2/π)·ln 2 squares to the two legs.
    reference = 6 + 1 - 2 / math.pi * math.log(2)
    found = solve(corner(), _NOWHERE).coupling[_PAIR]
    assert found is not None
    yield Row(name="corner of two walls, L2D [W/(m·K)]", source="analytic (conformal map)", reference=reference,
              ours=found, tolerance=0.002 * reference)  # fmt: skip
    limit = extrapolated(corner(), target=1e-4, absolute=np.inf, most=200_000)
    assert limit.limit is not None
    yield Row(name="the same by the limit of its grids", source="analytic (conformal map)", reference=reference,
              ours=-float(limit.limit[0, 1]), tolerance=1e-4 * reference)  # fmt: skip
    low, high = lower_bound(corner(), limit.fields), -float(limit.fields.G[0, 1])
    assert low is not None
    yield Row(name="middle of the interval that is certain", source="Thomson's and Dirichlet's principles",
              reference=reference, ours=(low + high) / 2, tolerance=(high - low) / 2)  # fmt: skip


def _conductivity_by_temperature() -> Iterator[Row]:
    # Kirchhoff: the flux through a slab is the mean of λ over the span of temperatures.
    table = ((0.0, 0.02), (20.0, 0.06))
    slab = Section(
        regions=(Region(ring=((0, 0), (0.2, 0), (0.2, 0.1), (0, 0.1)), lambda_=0.04, table=table),),
        segments=(
            SurfaceSegment(a=(0, 0), b=(0, 0.1), env="outside", R_s=0.0),
            SurfaceSegment(a=(0.2, 0), b=(0.2, 0.1), env="inside", R_s=0.0),
        ),
        temperatures={"outside": 0.0, "inside": 20.0},
    )
    found = refined(slab, _NOWHERE, target=1e-6).fields
    yield Row(name="slab with λ(θ), flow [W/m]", source="analytic (Kirchhoff)", reference=0.04 * 20 / 0.2 * 0.1,
              ours=float(found.G[1] @ np.array([0.0, 20.0])), tolerance=2e-3 * 0.4)  # fmt: skip


def annulus() -> Section:
    """A pipe lagged by 0.1 m, 0.3 m long, with films on both surfaces."""
    return Section(
        regions=(_rectangle(0.05, 0, 0.15, 0.3, 0.04),),
        segments=(
            SurfaceSegment(a=(0.05, 0), b=(0.05, 0.3), env="pipe", R_s=0.10),
            SurfaceSegment(a=(0.15, 0), b=(0.15, 0.3), env="room", R_s=0.13),
        ),
        temperatures={"pipe": 60.0, "room": 20.0},
        kind="axisymmetric",
    )


def _annulus() -> Iterator[Row]:
    reference = 2 * math.pi * 0.3 / (math.log(3) / 0.04 + 0.10 / 0.05 + 0.13 / 0.15)
    found = solve(annulus(), _NOWHERE).coupling[("pipe", "room")]
    assert found is not None
    yield Row(name="lagged pipe, coupling [W/K]", source="analytic (ln r)", reference=reference, ours=found,
              tolerance=1e-4 * reference)  # fmt: skip
    # Quadratic elements: the energy, and with it the coupling, converges with the fourth power of the size.
    errors = []
    grid = first_grid(annulus())
    for _ in range(2):
        every = np.ones(len(grid.x) - 1, dtype=bool)
        grid = grid.refined(every, np.zeros(len(grid.y) - 1, dtype=bool))
        errors.append(abs(-float(solve_on(annulus(), grid).G[0, 1]) - reference))
    yield Row(name="order of convergence, quadratic elements", source="theory of finite elements", reference=4.0,
              ours=math.log2(errors[0] / errors[1]), tolerance=0.2)  # fmt: skip


def rotated(case: dict[str, Any], degrees: float) -> dict[str, Any]:
    """The same section turned about its origin, with its rectangles as polygons."""
    cos, sin = math.cos(math.radians(degrees)), math.sin(math.radians(degrees))

    def turned(x: float, y: float) -> tuple[float, float]:
        return x * cos - y * sin, x * sin + y * cos

    found = {key: value for key, value in case.items() if key != "rects"}
    found["polygons"] = [
        {"points": [turned(r[x], r[y]) for x, y in (("x0", "y0"), ("x1", "y0"), ("x1", "y1"), ("x0", "y1"))],
         "lambda": r["lambda"]} for r in case["rects"]
    ]  # fmt: skip
    for name, keys in (("boundaries", (("x0", "y0"), ("x1", "y1"))), ("points", (("x", "y"),))):
        found[name] = [dict(place) for place in case[name]]
        for place in found[name]:
            for x, y in keys:
                place[x], place[y] = turned(place[x], place[y])
    return found


def _rotated() -> Iterator[Row]:
    case = published(2)["case"]
    straight = neutral_section.compute(neutral_section.SectionCase.model_validate(case))
    reference = straight["coupling"]["outside|inside"]
    for degrees in (30.0, 90.0):
        found = neutral_section.compute(neutral_section.SectionCase.model_validate(rotated(case, degrees)))
        yield Row(name=f"covered metal section, turned by {degrees:g}° [W/(m·K)]", source="invariance",
                  reference=reference, ours=found["coupling"]["outside|inside"],
                  tolerance=0.002 * reference)  # fmt: skip


def _drawn_out() -> Iterator[Row]:
    # A section drawn out into boxes and solved by cells agrees with the triangles: two methods, one from each side.
    def box(r: Region) -> Box:
        (x0, y0), _, (x1, y1), _ = r.ring
        return Box(low=(x0, y0, 0.0), high=(x1, y1, 0.5), lambda_=r.lambda_)

    flat = Section(
        regions=(_rectangle(0, 0, 1, 0.3, 0.04), _rectangle(0.45, 0, 0.55, 0.3, 0.5)),
        segments=(
            SurfaceSegment(a=(0, 0), b=(1, 0), env="outside", R_s=0.04),
            SurfaceSegment(a=(0, 0.3), b=(1, 0.3), env="inside", R_s=0.13),
        ),
        temperatures={"outside": 0.0, "inside": 20.0},
    )
    long = BoxModel(
        boxes=tuple(box(region) for region in flat.regions),
        faces=(
            Face(low=(0, 0, 0), high=(1, 0, 0.5), env="outside", R_s=0.04),
            Face(low=(0, 0.3, 0), high=(1, 0.3, 0.5), env="inside", R_s=0.13),
        ),
        temperatures=flat.temperatures,
    )
    plane = solve(flat, _NOWHERE, target=5e-4).coupling[_PAIR]
    solid = solve_boxes(long, np.empty((0, 3)), target=5e-4).coupling[_PAIR]
    assert plane is not None
    assert solid is not None
    yield Row(name="studded wall drawn out to 0.5 m, per metre [W/(m·K)]", source="triangles against cells",
              reference=plane, ours=solid / 0.5, tolerance=0.001 * plane)  # fmt: skip

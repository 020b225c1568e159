"""The neutral section case of the command line: plain JSON in and out, lengths in millimetres.

A plane section, a half section of a body of revolution (`"axisymmetric"`: x is the radius, y the axis), or a model of
boxes. Later rectangles overwrite earlier ones, polygons come after them; `"lambda": null` is a void.
"""

from __future__ import annotations

import math
from collections.abc import Sequence
from dataclasses import replace
from typing import Any, Literal

import numpy as np
from pydantic import Field

from nimble_shell.core.conduction.boxes import Box, BoxModel, Face, Point3
from nimble_shell.core.conduction.result import Extremes, Result
from nimble_shell.core.conduction.section import Point, Region, Section, SurfaceSegment
from nimble_shell.core.conduction.solution import solve
from nimble_shell.core.conduction.solve_boxes import solve_boxes
from nimble_shell.core.errors import Collector, DomainError, Path
from nimble_shell.core.quantities.sentence import sentence
from nimble_shell.formats.strict import Number, Strict

_MM = 1e-3


class RectCase(Strict):
    x0: Number
    y0: Number
    x1: Number
    y1: Number
    lambda_: Number | None = Field(alias="lambda")


class BoxCase(RectCase):
    z0: Number
    z1: Number


class PolygonCase(Strict):
    points: list[tuple[Number, Number]]
    lambda_: Number | None = Field(alias="lambda")


class BoundaryCase(Strict):
    x0: Number
    y0: Number
    z0: Number | None = None
    x1: Number
    y1: Number
    z1: Number | None = None
    temperature: Number = Field(gt=-273.15, le=5000)
    R_s: Number = Field(alias="Rs")
    env: str


class PointCase(Strict):
    name: str
    x: Number
    y: Number
    z: Number | None = None


class SectionCase(Strict):
    kind: Literal["section"] = "section"
    dimension: Literal[2, 3, "axisymmetric"]
    rects: list[RectCase] = []
    polygons: list[PolygonCase] = []
    boxes: list[BoxCase] = []
    boundaries: list[BoundaryCase]
    points: list[PointCase] = []
    target_error: Number = Field(0.002, ge=1e-6, le=0.1)


def compute(case: SectionCase) -> dict[str, Any]:
    """Solve a case.

    Raises
    ------
    DomainError
        With the path of what is wrong in the case file.
    """
    temperatures = _checked(case)
    try:
        return _printed(case, _solved(case, temperatures))
    except DomainError as error:
        raise DomainError(*(replace(issue, path=_in_file(case, issue.path)) for issue in error.issues)) from None


def _solved(case: SectionCase, temperatures: dict[str, float]) -> Result:
    if case.dimension == 3:
        points = np.array([(point.x, point.y, point.z) for point in case.points], dtype=float).reshape(-1, 3) * _MM
        return solve_boxes(_model(case, temperatures), points, target=case.target_error)
    points = np.array([(point.x, point.y) for point in case.points], dtype=float).reshape(-1, 2) * _MM
    return solve(_section(case, temperatures), points, target=case.target_error)


def _in_file(case: SectionCase, path: Path) -> Path:
    """Where a region is in the file: rectangles first, then polygons."""
    match path:
        case ("regions", int(at), *rest):
            count = len(case.rects)
            return ("rects", at, *rest) if at < count else ("polygons", at - count, *rest)
        case ("regions",):
            return ("rects" if case.rects else "polygons",)
    return path


def _checked(case: SectionCase) -> dict[str, float]:
    """Environments and their temperatures."""
    check = Collector()
    flat = case.dimension != 3
    for name, used in (("rects", case.rects), ("polygons", case.polygons)):
        check.check(flat or not used, (name,), "wrong_dimension", f"a model of boxes has no {name}", "give boxes")
    check.check(
        not (flat and case.boxes), ("boxes",), "wrong_dimension", "a section has no boxes", "give rects or polygons"
    )
    for name, places in (("boundaries", case.boundaries), ("points", case.points)):
        for at, place in enumerate(places):
            depths = {getattr(place, key) is None for key in ("z", "z0", "z1") if hasattr(place, key)}
            check.check(depths == {flat}, (name, at), "wrong_dimension",
                        "z belongs to models of boxes, and is needed there",
                        "leave it out of sections, give it with boxes")  # fmt: skip
    temperatures: dict[str, float] = {}
    for at, boundary in enumerate(case.boundaries):
        known = temperatures.setdefault(boundary.env, boundary.temperature)
        check.check(
            known == boundary.temperature,
            ("boundaries", at, "temperature"),
            "two_temperatures",
            sentence(
                f"“{boundary.env}” has {{v1}} and {{v2}}",
                v1=(known, "temperature"),
                v2=(boundary.temperature, "temperature"),
            ),
            "one environment has one temperature; give the other a name of its own",
        )
    names = [point.name for point in case.points]
    for at, point_name in enumerate(names):
        check.check(point_name not in names[:at], ("points", at, "name"), "name_taken",
                    f"two points are called “{point_name}”", "give each its own name")  # fmt: skip
    check.refuse()
    return temperatures


def _section(case: SectionCase, temperatures: dict[str, float]) -> Section:
    rings: list[tuple[Sequence[Point], float | None]] = [
        (((r.x0, r.y0), (r.x1, r.y0), (r.x1, r.y1), (r.x0, r.y1)), r.lambda_) for r in case.rects
    ]
    rings += [(polygon.points, polygon.lambda_) for polygon in case.polygons]
    return Section(
        regions=tuple(Region(ring=tuple(_metres(p) for p in ring), lambda_=lambda_) for ring, lambda_ in rings),
        segments=tuple(
            SurfaceSegment(a=_metres((b.x0, b.y0)), b=_metres((b.x1, b.y1)), env=b.env, R_s=b.R_s)
            for b in case.boundaries
        ),
        temperatures=temperatures,
        kind="axisymmetric" if case.dimension == "axisymmetric" else "plane",
    )


def _model(case: SectionCase, temperatures: dict[str, float]) -> BoxModel:
    return BoxModel(
        boxes=tuple(Box(low=low, high=high, lambda_=box.lambda_) for box in case.boxes for low, high in [_ends(box)]),
        faces=tuple(
            Face(low=low, high=high, env=b.env, R_s=b.R_s) for b in case.boundaries for low, high in [_ends(b)]
        ),
        temperatures=temperatures,
    )


def _ends(part: BoxCase | BoundaryCase) -> tuple[Point3, Point3]:
    """Lowest and highest corner. [m]"""
    ends = np.sort([[part.x0, part.y0, part.z0 or 0.0], [part.x1, part.y1, part.z1 or 0.0]], axis=0) * _MM
    low, high = ((float(x), float(y), float(z)) for x, y, z in ends)
    return low, high


def _metres(point: Point) -> Point:
    return (point[0] * _MM, point[1] * _MM)


def _printed(case: SectionCase, result: Result) -> dict[str, Any]:
    return {
        "heat_flow": dict(result.heat_flow),
        "coupling": {f"{a}|{b}": value for (a, b), value in result.coupling.items()},
        "points": {
            point.name: None if math.isnan(value) else float(value)
            for point, value in zip(case.points, result.points, strict=True)
        },
        "surface": {env: _surface(extremes) for env, extremes in result.surface.items()},
        "f_rsi": result.f_rsi,
        "f_rsi_error": result.f_error,
        "estimated_error": result.estimated_error if math.isfinite(result.estimated_error) else None,
        "unknowns": result.unknowns,
        "balance": result.balance,
    }


def _surface(extremes: Extremes) -> dict[str, Any]:
    return {
        "min": extremes.min,
        "at": [round(value / _MM, 6) for value in extremes.at],
        "max": extremes.max,
        "at_max": [round(value / _MM, 6) for value in extremes.at_max],
    }

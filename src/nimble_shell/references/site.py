"""The site: a pour, a roof panel on its hook, an order of work, a drift of forms and a run in courses."""

from __future__ import annotations

from collections.abc import Iterator

from nimble_shell.formats import neutral_lift, neutral_pour, neutral_setout
from nimble_shell.references.rows import Row
from nimble_shell.references.setout import case

_RELATIVE, _LEAST = 1e-6, 1e-6


def rows() -> list[Row]:
    """References of the site."""
    return [*_pour(), *_lift(), *_order(), *_drift(), *_courses()]


def _row(name: str, reference: float, ours: float) -> Row:
    return Row(name=name, source="worked case", reference=reference, ours=ours,
               tolerance=max(_LEAST, _RELATIVE * abs(reference)))  # fmt: skip


def _pour() -> Iterator[Row]:
    given = case("pour_wall")
    found, reference = neutral_pour.compute(neutral_pour.read(given["case"])), given["reference"]
    for key in ("pressure_kPa", "max_rate_m_h", "max_height_m", "hours", "volume_m3_h"):
        yield _row(f"pour: {key}", reference[key], found[key])
    yield _row("lifts: total_h", reference["lifts"]["total_h"], found["lifts"]["total_h"])
    yield _row("braces", reference["braces"]["objective"]["braces"], found["braces"]["objective"]["braces"])
    for key in ("top_mm", "brace_mm"):
        yield _row(f"lean: {key}", reference["lean"][key], found["lean"][key])


def _lift() -> Iterator[Row]:
    given = case("lift_roof_panel")
    found, reference = neutral_lift.compute(neutral_lift.read(given["case"])), given["reference"]
    yield _row("roof panel: mass_kg", reference["mass_kg"], found["mass_kg"])
    for key in ("cg", "legs_mm", "leg_angles_deg", "tension_N", "tension_max_N"):
        for n, expected in enumerate(reference[key]):
            yield _row(f"roof panel: {key} {n}", expected, found[key][n])


def _order() -> Iterator[Row]:
    given = case("lift_order")
    found, reference = neutral_lift.compute(neutral_lift.read(given["case"])), given["reference"]
    for key, expected in reference["earliest_h"].items():
        yield _row(f"order: {key} begins", expected, found["earliest_h"][key])
    yield _row("order: total_h", reference["total_h"], found["total_h"])


def _drift() -> Iterator[Row]:
    given = case("drift")
    found = neutral_setout.compute(neutral_setout.read(given["case"]))
    for key, expected in given["reference"]["objective"].items():
        yield _row(f"drift: {key}", expected, found["objective"][key])


def _courses() -> Iterator[Row]:
    given = case("courses_l")
    found = neutral_setout.compute(neutral_setout.read(given["case"]))
    for key, expected in given["reference"]["objective"].items():
        yield _row(f"courses: {key}", expected, found["objective"][key])

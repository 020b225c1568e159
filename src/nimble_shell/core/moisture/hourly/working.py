"""Show working of what a run by the hour says: water in wood, mould index, and whether the water adds up."""

from __future__ import annotations

import numpy as np

from nimble_shell.core.assemblies.assembly import Assembly
from nimble_shell.core.climate.monthly import MONTHS
from nimble_shell.core.materials import Catalogue
from nimble_shell.core.moisture.hourly.life import Seasons
from nimble_shell.core.quantities.sentence import sentence
from nimble_shell.core.working import Derivation, Num, derive, named, traced


def run_working(found: Seasons, assembly: Assembly, catalogue: Catalogue) -> dict[str, Derivation]:
    """The working of "balance", and where they are judged of "wood" and "mould", the worst place of each.

    Parameters
    ----------
    found : Seasons
        A run of the build-up.
    assembly : Assembly
    catalogue : mapping of key to Material
    """
    numbers = {"balance": _balance(found)}
    if found.wood:
        numbers["wood"] = _wood(found, assembly, catalogue)
    if found.places:
        numbers["mould"] = _mould(found, assembly, catalogue)
    return {key: derive(number) for key, number in numbers.items()}


def _run(found: Seasons) -> str:
    return f"EN 15026:2007, run by the hour: {found.cells} cells, {found.steps:,} steps with an error control"


def _day(found: Seasons, day: int) -> str:
    """A day of a run, counted from where it begins."""
    return f"day {day % 365 + 1} of year {day // 365 + 1} from {MONTHS[found.begins - 1]}"


def _wood(found: Seasons, assembly: Assembly, catalogue: Catalogue) -> Num:
    at, most = found.worst_wood
    day = found.last.start + int(found.wood_share[found.last, at].argmax())
    layer = assembly.layers[found.wood[at]]
    material = catalogue[layer.material]
    depth = sentence(f"water in the wetter {{d}} of {material.name}, mean of {_day(found, day)}", d=(0.010, "length"))
    w = traced(most * material.rho, "w_wet", depth, "kg/m³", _run(found))
    rho = traced(material.rho, "rho_dry", f"density, {material.name}", "kg/m³", f"catalogue: {material.source}")
    return named(w / rho, "u_most", "water by mass, most of the last year", "", "of the dry mass; a daily mean")


def _mould(found: Seasons, assembly: Assembly, catalogue: Catalogue) -> Num:
    at, most = found.worst_mould
    place = found.places[at]
    day = int(found.mould[:, at].argmax())
    before = float(found.mould[day - 1, at]) if day else 0.0
    name = catalogue[assembly.layers[place.layer].material].name
    cells = np.nonzero(found.layer == place.layer)[0]
    states = np.nonzero((found.hours > 24 * day) & (found.hours <= 24 * (day + 1)))[0]
    cell = cells[-1 if place.outer else 0]
    theta, phi = (float(one[states, cell].mean()) for one in (found.theta, found.phi))
    words = f"growth less decline of {_day(found, day)} at the {'outer' if place.outer else 'inner'} face of {name}"
    start = traced(before, "M_before", "mould index at the end of the day before", "", _run(found))
    gain = traced(
        most - before,
        "dM_day",
        sentence(f"{words}, at {{theta}} and {{phi}} in the mean", theta=(theta, "temperature"), phi=(phi, "share")),
        "",
        f"Hukka and Viitanen (1999), Ojanen et al. (2010), hour by hour, class “{place.kind}”",
    )
    return named(start + gain, "M_most", "mould index, highest of all years", "", "from 0, nothing, to 6, all covered")


def _balance(found: Seasons) -> Num:
    total: Num | None = None
    for at in range(found.water.shape[1]):
        end, start = (
            traced(float(found.water[when, at]), f"w_{at + 1}_{tag}", f"water in layer {at + 1} at the {tag}", "kg/m²",
                   _run(found))
            for when, tag in ((-1, "end"), (0, "start"))
        )  # fmt: skip
        total = end - start if total is None else total + (end - start)
    assert total is not None  # a build-up has a layer
    gained = named(total, "w_gained", "water gained by all layers", "kg/m²", "Σ of the layers")
    came = traced(found.came_in, "w_came_in", "water that came in through both faces, by leaks and with rain", "kg/m²",
                  _run(found))  # fmt: skip
    return named(gained - came, "w_error", "water that is missing from the balance", "kg/m²", "gained less came in")

"""Copies of the demo campus with as much in them to be solved as a test looks at."""

from __future__ import annotations

from shapeless import typed

from nimble_shell.demo.heron_flats import campus
from tools.window import Server


def copied(server: Server, solved: tuple[str, ...] = (), units: str = "SI") -> str:
    """The id of a copy; joints, shape and fixings stay in the buildings named and are to be solved there alone."""
    file = server.call("GET", "/projects/heron-flats/file")
    file["project"]["basis"]["schools"]["units"] = units
    areas = {one.id: {each.id: each.area for each in one.elements} for one in typed(campus()).buildings}
    for building in file["project"]["buildings"]:
        if building["id"] in solved:
            continue
        # A shape without joints is no whole: here areas are typed, as they are where nobody has drawn one.
        building.update(joints=[], bodies=[], openings=[])
        for element in building["elements"]:
            element["area"] = areas[building["id"]][element["id"]]
    if not solved:
        for assembly in file["project"]["assemblies"]:
            assembly["fixings"] = []
    return str(server.call("POST", "/projects/import", file)["project"]["id"])

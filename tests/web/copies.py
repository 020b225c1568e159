"""Copies of the demo campus with as much in them to be solved as a test looks at."""

from __future__ import annotations

import json
from functools import cache
from typing import Any

from shapeless import typed

from nimble_shell.demo.heron_flats import campus
from tools.window import Server


def copied(server: Server, solved: tuple[str, ...] = (), units: str = "SI") -> str:
    """The id of a copy of `file_of`."""
    return brought_in(server, file_of(server, solved, units))


def brought_in(server: Server, file: Any) -> str:
    """The id of a project file's project."""
    return str(server.call("POST", "/projects/import", file)["project"]["id"])


@cache
def _campus(server: Server) -> str:
    """The campus as a project file; a test changes what it reads of it."""
    return json.dumps(server.call("GET", "/projects/heron-flats/file"))


def campus_file(server: Server) -> Any:
    """The campus as a project file."""
    return json.loads(_campus(server))


@cache
def _typed_areas() -> dict[str, dict[str, float | None]]:
    return {one.id: {each.id: each.area for each in one.elements} for one in typed(campus()).buildings}


def file_of(server: Server, solved: tuple[str, ...] = (), units: str = "SI", *, fixings: bool = False) -> Any:
    """The campus; joints, shape and fixings stay in the buildings named and are to be solved there alone.

    With `fixings` they stay in every build-up.
    """
    file = campus_file(server)
    file["project"]["basis"]["schools"]["units"] = units
    areas = _typed_areas()
    for building in file["project"]["buildings"]:
        if building["id"] in solved:
            continue
        # A shape without joints is no whole: here areas are typed, as they are where nobody has drawn one.
        building.update(joints=[], bodies=[], openings=[])
        for element in building["elements"]:
            element["area"] = areas[building["id"]][element["id"]]
    if not solved and not fixings:
        for assembly in file["project"]["assemblies"]:
            assembly["fixings"] = []
    return file

"""What a practice's largest project costs: twelve buildings, eighty build-ups, a hundred and fifty joints."""

from __future__ import annotations

import json
import os
import resource
import tempfile
import time
from collections.abc import Callable, Iterator
from contextlib import contextmanager
from dataclasses import replace
from pathlib import Path

from fastapi.testclient import TestClient

from nimble_shell.api.main import create_app
from nimble_shell.core.assemblies.assembly import Assembly
from nimble_shell.core.joints.joint import ShellJoint
from nimble_shell.core.shell.project import Building, Project, ShellElement
from nimble_shell.demo.heron_flats import campus
from nimble_shell.formats.project import AssemblyDoc
from nimble_shell.services.answers import Answers
from nimble_shell.services.projects import ProjectService
from nimble_shell.services.recompute import Recompute
from nimble_shell.services.solver_queue import SolverQueue
from nimble_shell.store import Database
from tools.percentiles import percentiles

BUILDINGS, BUILD_UPS, JOINTS = 12, 80, 150
ID = "design-size"
V1 = f"/api/v1/projects/{ID}"


def design_size() -> Project:
    """The campus, copied with other cores until it is as large as the program is made for."""
    one = campus()
    copies = BUILD_UPS // len(one.assemblies)
    assemblies = [_thicker(each, copy) for copy in range(copies) for each in one.assemblies]
    buildings: list[Building] = []
    for number in range(BUILDINGS):
        building = one.buildings[number % len(one.buildings)]
        wanted = JOINTS // BUILDINGS + (number < JOINTS % BUILDINGS)
        first = 2 * (number // len(one.buildings))
        elements = tuple(_element(each, first) for each in building.elements)
        joints = tuple(_joint(building, at, first) for at in range(wanted)) if building.joints else ()
        buildings.append(replace(building, id=f"b{number}", name=f"{building.name} {number}", elements=elements,
                                 joints=joints))  # fmt: skip
    return replace(one, id=ID, name="Design size", assemblies=tuple(assemblies), buildings=tuple(buildings))


def _thicker(assembly: Assembly, copy: int) -> Assembly:
    named = replace(assembly, id=f"{assembly.id}-{copy}", name=f"{assembly.name} {copy}")
    core = assembly.core_index
    return named if core is None or not copy else named.with_thickness(core, assembly.layers[core].d + 0.004 * copy)


def _element(element: ShellElement, copy: int) -> ShellElement:
    return replace(element, assembly_id=element.assembly_id and f"{element.assembly_id}-{copy}")


def _joint(building: Building, at: int, first: int) -> ShellJoint:
    joint = building.joints[at % len(building.joints)]
    copy = (first + at // len(building.joints)) % (BUILD_UPS // 20)
    roles = tuple(replace(role, assembly_id=f"{role.assembly_id}-{copy}") for role in joint.roles)
    return replace(joint, id=f"j{at}", name=f"{joint.name} {at}", roles=roles, length=max(joint.length, 1.0))


@contextmanager
def served(folder: Path, workers: int) -> Iterator[tuple[TestClient, Database, SolverQueue]]:
    database = Database(folder)
    database.migrate()
    queue = SolverQueue(workers, Answers(database))
    yield TestClient(create_app(database, queue=queue), "http://127.0.0.1"), database, queue
    queue.stop()
    database.close()


def main() -> None:
    with tempfile.TemporaryDirectory() as held:
        folder = Path(held)
        with served(folder, 0) as (client, database, _):
            ProjectService(database).bring_in(design_size())
            _edits(client)
        with served(folder, 2) as (_, database, queue):
            _recompute(database, queue)
        with served(folder, 2) as (client, database, queue):
            begun = time.perf_counter()
            stored = ProjectService(database).load(ID)
            for building in stored.project.buildings:
                client.get(f"{V1}/buildings/{building.id}/ledger").raise_for_status()
            print(f"  restart: every ledger with solved figures {time.perf_counter() - begun:.1f} s (asked: 3)")
            again = Recompute(queue, stored)
            begun = time.perf_counter()
            again.run()
            print(f"  a second full recompute {time.perf_counter() - begun:.1f} s (asked: 2)")


def _edits(client: TestClient) -> None:
    print(f"design size: {BUILDINGS} buildings, {BUILD_UPS} build-ups, {JOINTS} joints")
    begun = time.perf_counter()
    opened = client.get(V1)
    took = time.perf_counter() - begun
    project = opened.json()
    print(f"  open: {took:.2f} s, {len(opened.content) / 1000:.0f} kB before compression (asked: 0.5 s)")
    wall = next(one for one in project["project"]["assemblies"] if one["id"] == "wall-w-a-0")
    state = {"revision": project["revision"], "bytes": 0}

    def save(run: int) -> None:
        layers = [{**one, "d": 0.1 + 0.0005 * run} if one["studied"] else one for one in wall["layers"]]
        document = {**wall, "layers": layers}
        document.pop("fixings")
        item = {"kind": "assembly", "id": wall["id"], "read": state["revision"], "document": document}
        reply = client.post(f"{V1}/edit?since={state['revision']}", json={"text": "core", "items": [item]})
        reply.raise_for_status()
        state["revision"], state["bytes"] = reply.json()["revision"], max(state["bytes"], len(reply.content))

    def effect(run: int) -> None:
        save(run)
        client.get(f"{V1}/buildings/b0/ledger").raise_for_status()

    p50, p95 = percentiles(save, 60)
    print(
        f"  edit: p50 {p50:.0f} ms, p95 {p95:.0f} ms, answer {state['bytes'] / 1000:.1f} kB (asked: p95 60 ms, 20 kB)"
    )
    p50, p95 = percentiles(effect, 40)
    print(f"  edit and its ledger: p50 {p50:.0f} ms, p95 {p95:.0f} ms")
    draft = AssemblyDoc.model_validate(wall).to_core()
    core = draft.core_index
    assert core is not None
    live = _live(client, draft, core)
    p50, p95 = percentiles(live, 60)
    print(f"  live edit: p50 {p50:.0f} ms, p95 {p95:.0f} ms (asked: p95 25 ms on the campus)")


def _live(client: TestClient, draft: Assembly, core: int) -> Callable[[int], None]:
    def live(run: int) -> None:
        body = AssemblyDoc.from_core(draft.with_thickness(core, 0.1 + 0.0003 * run)).to_wire()
        reply = client.post(f"{V1}/bench", json={"building_id": "b0", "condition": "0", "assembly": body})
        reply.raise_for_status()

    return live


def _recompute(database: Database, queue: SolverQueue) -> None:
    begun = time.perf_counter()
    whole = Recompute(queue, ProjectService(database).load(ID))
    whole.run()
    took = time.perf_counter() - begun
    memory = sum(_resident(one) for one in [os.getpid(), *queue.processes])
    print(f"  full recompute of {whole.total} questions on two workers {took:.1f} s (asked: 30), "
          f"{whole.refused} without an answer, memory {memory / 1e6:.0f} MB with workers (asked: 1000)")  # fmt: skip


def _resident(process: int) -> float:
    """What a process holds that it does not share. [bytes]"""
    try:
        lines = Path(f"/proc/{process}/smaps_rollup").read_text().splitlines()
        return sum(float(line.split()[1]) for line in lines if line.startswith(("Pss:",))) * 1024
    except OSError:
        return resource.getrusage(resource.RUSAGE_SELF).ru_maxrss * 1024


if __name__ == "__main__":
    print(json.dumps({"joints": sum(len(one.joints) for one in design_size().buildings)}))
    main()

"""Version 1 of the API, `/api/v1/…`: the one stream by which a window is told what it did not ask for."""

from __future__ import annotations

import json
from collections.abc import AsyncIterator
from dataclasses import asdict
from typing import Annotated

from fastapi import APIRouter, Query
from sse_starlette.sse import EventSourceResponse

from nimble_shell.api.ground import REFUSALS, Id, Joints, Projects
from nimble_shell.api.strict_body import StrictRoute
from nimble_shell.services.watching import Watching

router = APIRouter(prefix="/api/v1", responses=REFUSALS, route_class=StrictRoute)


@router.get("/projects/{project_id}/events")
async def events(
    project_id: Id, window: Annotated[str, Query(pattern=r"^[A-Za-z0-9_-]{1,64}$")], service: Projects, results: Joints
) -> EventSourceResponse:
    """Server-sent events: changed (revision), answered (waiting), under (tickets of the window), gone."""
    service.revision(project_id)
    watching = Watching(results.queue, service, project_id, window)

    async def said() -> AsyncIterator[dict[str, str]]:
        async for event in watching.events():
            yield {"event": type(event).__name__.lower(), "data": json.dumps(asdict(event))}

    return EventSourceResponse(said(), ping=15)

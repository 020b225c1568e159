"""The application: database, services, API, and the built front end."""

from __future__ import annotations

import gc
import importlib
import threading
from collections.abc import AsyncIterator
from contextlib import asynccontextmanager
from pathlib import Path

from fastapi import FastAPI
from starlette.exceptions import HTTPException
from starlette.middleware.body_limit import RequestBodyLimitMiddleware
from starlette.middleware.gzip import GZipMiddleware
from starlette.responses import Response
from starlette.staticfiles import StaticFiles
from starlette.types import Scope

from nimble_shell import __version__
from nimble_shell.api import (
    backup_routes,
    bench_routes,
    bill_routes,
    course_routes,
    decision_routes,
    edit_routes,
    event_routes,
    fixing_routes,
    joint_routes,
    lift_routes,
    measure_routes,
    moisture_routes,
    problems,
    routes,
    setout_routes,
    shape_routes,
    shop_routes,
    standard_routes,
    unit_routes,
    wet_routes,
    whole_routes,
)
from nimble_shell.api.description import describe
from nimble_shell.api.guard import Guard
from nimble_shell.services.answers import Answers
from nimble_shell.services.backups import BackupService
from nimble_shell.services.fixings import FixingResults
from nimble_shell.services.hours import HoursResults
from nimble_shell.services.joint_standards import JointStandardService
from nimble_shell.services.joints import JointResults
from nimble_shell.services.last_whole import LastWhole
from nimble_shell.services.measures import MeasureResults
from nimble_shell.services.on_the_whole import WholeResults
from nimble_shell.services.projects import ProjectService
from nimble_shell.services.remedies import RemedyResults
from nimble_shell.services.solver_queue import SolverQueue
from nimble_shell.services.standards import StandardService
from nimble_shell.services.targets import TargetService
from nimble_shell.services.verdicts import VerdictResults
from nimble_shell.services.whole_shell import WholeShells
from nimble_shell.store import Database

#: Every part of the API; each has a router.
PARTS = (routes, edit_routes, event_routes, decision_routes, bench_routes, shape_routes, unit_routes, joint_routes,
         fixing_routes, moisture_routes, whole_routes, measure_routes, setout_routes,
         shop_routes, course_routes, lift_routes, wet_routes, bill_routes, standard_routes, backup_routes)  # fmt: skip


def create_app(
    database: Database, web: Path | None = None, queue: SolverQueue | None = None, key: str | None = None
) -> FastAPI:
    """Everything, on one database.

    Parameters
    ----------
    database : Database
        Already migrated.
    web : Path, optional
        Folder of the built front end; without it only the API is served.
    queue : SolverQueue, optional
        Where joints and fixings are solved; one of two workers if not given.
    key : str, optional
        That a request must bring; without it everybody on this machine is let in.
    """
    app = FastAPI(
        title="Nimble Shell",
        version=__version__,
        docs_url=None,
        redoc_url=None,
        openapi_url="/api/v1/openapi.json",
        lifespan=_workers,
    )
    app.state.projects = ProjectService(database)
    app.state.standards = StandardService(database, app.state.projects)
    app.state.joint_standards = JointStandardService(database, app.state.projects)
    app.state.targets = TargetService(database)
    app.state.backups = BackupService(database, app.state.projects)
    queue = queue or SolverQueue(answers=Answers(database))
    app.state.queue = queue
    app.state.joints = JointResults(queue)
    app.state.fixings = FixingResults(queue)
    app.state.wholes = LastWhole()
    app.state.hours = HoursResults(queue)
    app.state.verdicts = VerdictResults(queue)
    app.state.remedies = RemedyResults()
    app.state.whole_shells = WholeShells(app.state.joints, app.state.fixings)
    app.state.measures = MeasureResults(app.state.joints, app.state.fixings, app.state.verdicts)
    app.state.on_the_whole = WholeResults(app.state.joints, app.state.fixings, app.state.verdicts)
    problems.install(app)
    # As they are: each knows its whole path and its refusals, and to include a router builds all of its routes anew.
    app.router.routes.extend(route for part in PARTS for route in part.router.routes)
    describe(app)
    app.add_middleware(RequestBodyLimitMiddleware, max_body_size=problems.LARGEST_BODY)
    # Whole projects are packed, and the interface. An answer to an edit is not: to a window on the same machine, and no
    # other is let in, it comes sooner as it is. Level 4 takes a quarter of the time of the usual 9.
    app.add_middleware(GZipMiddleware, minimum_size=65_536, compresslevel=4)
    app.add_middleware(Guard, key=key)
    if web is not None and web.is_dir():
        app.mount("/", SinglePage(directory=web, html=True))
    return app


@asynccontextmanager
async def _workers(app: FastAPI) -> AsyncIterator[None]:
    """Worker processes from the first moment to the last."""
    queue: SolverQueue = app.state.queue
    threading.Thread(target=_begin, args=(queue,), daemon=True).start()
    yield
    queue.stop()


def _begin(queue: SolverQueue) -> None:
    """What the first click needs and the start did not: workers, and libraries that take long to import."""
    queue.start()
    importlib.import_module("scipy.optimize")
    gc.freeze()  # what was read up to here stays: no collection stops an edit to look through it


class SinglePage(StaticFiles):
    """Static files, with the page itself for every address that is neither API nor asset."""

    async def get_response(self, path: str, scope: Scope) -> Response:
        try:
            response = await super().get_response(path, scope)
        except HTTPException as error:
            if error.status_code != 404 or path.startswith(("api/", "assets/")):
                raise
            response = await super().get_response("index.html", scope)
        lasting = path.startswith("assets/")
        response.headers["Cache-Control"] = "public, max-age=31536000, immutable" if lasting else "no-cache"
        return response

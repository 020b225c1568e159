"""Every refusal as problem details (RFC 9457); nothing reaches the client as a bare 500 page."""

from __future__ import annotations

import logging

from fastapi import FastAPI, Request
from fastapi.exceptions import RequestValidationError
from fastapi.responses import JSONResponse
from pydantic import ValidationError
from starlette.exceptions import HTTPException

from nimble_shell.api.strict_body import NotReadable
from nimble_shell.core.errors import DomainError, NotConverged
from nimble_shell.core.progress import Stopped
from nimble_shell.formats import problems
from nimble_shell.formats.problems import Problem, ProblemError
from nimble_shell.store import Crossed, NotFound, Stale, StoreError

log = logging.getLogger(__name__)

LARGEST_BODY = 16 * 1024 * 1024  #: [bytes]
_GONE = {
    "project": "It may have been deleted in another window. The project list can bring it back.",
    "change": "There is nothing left to take back or to do again.",
}


def too_large() -> Problem:
    size = LARGEST_BODY // 1024**2
    hint = "A project file is rarely over 5 MB; check which file it is. Nothing was changed."
    return Problem(title=f"The file is larger than {size} MB", status=413, hint=hint)


def respond(problem: Problem) -> JSONResponse:
    return JSONResponse(problem.model_dump(), problem.status, media_type="application/problem+json")


def install(app: FastAPI) -> None:
    """Register a handler for each family of errors."""

    @app.exception_handler(DomainError)
    @app.exception_handler(ValidationError)
    def _refused(_: Request, error: DomainError | ValidationError) -> JSONResponse:
        return respond(problems.of(error))

    @app.exception_handler(RequestValidationError)
    def _malformed(_: Request, error: RequestValidationError) -> JSONResponse:
        return respond(problems.from_validation(error.errors()))

    @app.exception_handler(NotConverged)
    def _unanswered(_: Request, error: NotConverged) -> JSONResponse:
        log.warning("%s", error)
        hint = "Two parts may touch in one point, or a sliver lie between them: change a dimension a little."
        item = ProblemError(pointer="#", code="no_answer", detail=str(error), hint=hint)
        return respond(Problem(title="No answer was found for this input", status=422, errors=[item]))

    @app.exception_handler(Stopped)
    def _stopped(_: Request, error: Stopped) -> JSONResponse:
        hint = "The last answer stands. Ask again to have it solved."
        item = ProblemError(pointer="#", code="stopped", detail=str(error), hint=hint)
        return respond(Problem(title="This was stopped", status=409, hint=hint, errors=[item]))

    @app.exception_handler(NotFound)
    def _missing(_: Request, error: NotFound) -> JSONResponse:
        hint = _GONE.get(error.kind, "It may have been removed in another window; load the project again.")
        code = f"{error.kind}_not_found"
        item = ProblemError(pointer="#", code=code, detail=f"there is no such {error.kind}", hint=hint)
        return respond(Problem(title=f"The {error.kind} is not there", status=404, hint=hint, errors=[item]))

    @app.exception_handler(Stale)
    def _stale(_: Request, error: Stale) -> JSONResponse:
        hint = "Load the newer version, then do your edit again; nothing was overwritten."
        detail = f"you edited version {error.have}, the stored one is {error.current}"
        item = ProblemError(pointer="#/version", code="stale", detail=detail, hint=hint)
        title = f"This {error.kind} was changed in another window"
        return respond(Problem(title=title, status=409, detail=detail, hint=hint, errors=[item]))

    @app.exception_handler(Crossed)
    def _crossed(_: Request, error: Crossed) -> JSONResponse:
        since = f"{error.who} changed it since: “{error.newer}”" if error.newer else "it was changed since"
        hint = "Change it by hand, or have the newer change taken back first; nothing was overwritten."
        item = ProblemError(pointer="#/number", code="crossed", detail=since, hint=hint)
        title = f"“{error.change}” cannot be taken back"
        return respond(Problem(title=title, status=409, detail=since, hint=hint, errors=[item]))

    @app.exception_handler(StoreError)
    def _store(_: Request, error: StoreError) -> JSONResponse:
        log.error("store: %s", error.message)
        status = 507 if error.code == "disk_full" else 503
        item = ProblemError(pointer="#", code=error.code, detail=error.message, hint=error.hint)
        return respond(Problem(title=error.message, status=status, hint=error.hint, errors=[item]))

    @app.exception_handler(HTTPException)
    def _http(_: Request, error: HTTPException) -> JSONResponse:
        if error.status_code == 413:
            return respond(too_large())
        if isinstance(error, NotReadable):
            detail = f"the body is not readable as JSON: {error.detail}"
            item = ProblemError(pointer="#", code="not_json", detail=detail, hint="check the place named")
            return respond(Problem(title="The input cannot be read", status=422, errors=[item]))
        return respond(Problem(title=str(error.detail), status=error.status_code))

    @app.exception_handler(Exception)
    def _fault(_: Request, error: Exception) -> JSONResponse:
        log.exception("unexpected", exc_info=error)
        hint = "Nothing was saved by this step. Try again; the server's log has the details."
        return respond(Problem(title="The program made a mistake", status=500, hint=hint))

"""What every router stands on: the services, identifiers, and how a file is sent."""

from __future__ import annotations

import re
from collections.abc import Callable
from functools import partial
from typing import Annotated, Any
from urllib.parse import quote

from fastapi import Depends, Path, Request
from fastapi.responses import Response

from nimble_shell.api import schemas as s
from nimble_shell.formats.problems import Problem
from nimble_shell.services.backups import BackupService
from nimble_shell.services.bench import Summed
from nimble_shell.services.decisions import Register, registered
from nimble_shell.services.fixings import FixingResults
from nimble_shell.services.joint_standards import JointStandardService
from nimble_shell.services.joints import JointResults
from nimble_shell.services.last_whole import LastWhole
from nimble_shell.services.measures import MeasureResults
from nimble_shell.services.on_the_whole import WholeResults
from nimble_shell.services.projects import ChangeNote, ProjectService
from nimble_shell.services.remedies import RemedyResults
from nimble_shell.services.standards import StandardService
from nimble_shell.services.targets import TargetService
from nimble_shell.services.verdicts import VerdictResults
from nimble_shell.services.whole_shell import WholeShells
from nimble_shell.store import Stored

REFUSALS: dict[int | str, dict[str, Any]] = {
    code: {"model": Problem, "description": text}
    for code, text in {
        403: "another site asked", 404: "not there", 409: "changed in another window", 413: "too large",
        422: "refused, with the place and the way out", 503: "the database does not answer", 507: "the disk is full",
    }.items()
}  # fmt: skip


# Those that follow wait for nothing. One that is no coroutine is given a thread, which takes longer than it does.


async def _projects(request: Request) -> ProjectService:
    service: ProjectService = request.app.state.projects
    return service


async def _standards(request: Request) -> StandardService:
    service: StandardService = request.app.state.standards
    return service


async def _targets(request: Request) -> TargetService:
    service: TargetService = request.app.state.targets
    return service


async def _joints(request: Request) -> JointResults:
    results: JointResults = request.app.state.joints
    return results


async def _fixings(request: Request) -> FixingResults:
    results: FixingResults = request.app.state.fixings
    return results


async def _wholes(request: Request) -> LastWhole[Summed]:
    wholes: LastWhole[Summed] = request.app.state.wholes
    return wholes


async def _verdicts(request: Request) -> VerdictResults:
    results: VerdictResults = request.app.state.verdicts
    return results


async def _on_the_whole(request: Request) -> WholeResults:
    results: WholeResults = request.app.state.on_the_whole
    return results


async def _joint_standards(request: Request) -> JointStandardService:
    service: JointStandardService = request.app.state.joint_standards
    return service


async def _backups(request: Request) -> BackupService:
    service: BackupService = request.app.state.backups
    return service


async def _register(request: Request) -> Callable[[Stored, str], Register]:
    """What is open in a building of a stored project, by its id."""
    state = request.app.state
    return partial(registered, joints=state.joints, judges=state.verdicts, fixings=state.fixings,
                   remedies=state.remedies)  # fmt: skip


async def _remedies(request: Request) -> RemedyResults:
    results: RemedyResults = request.app.state.remedies
    return results


async def _whole_shells(request: Request) -> WholeShells:
    wholes: WholeShells = request.app.state.whole_shells
    return wholes


async def _measures(request: Request) -> MeasureResults:
    results: MeasureResults = request.app.state.measures
    return results


Projects = Annotated[ProjectService, Depends(_projects)]
Standards = Annotated[StandardService, Depends(_standards)]
Joints = Annotated[JointResults, Depends(_joints)]
Fixings = Annotated[FixingResults, Depends(_fixings)]
Wholes = Annotated[LastWhole[Summed], Depends(_wholes)]
Verdicts = Annotated[VerdictResults, Depends(_verdicts)]
OnTheWholes = Annotated[WholeResults, Depends(_on_the_whole)]
Measures = Annotated[MeasureResults, Depends(_measures)]
WholeBuildings = Annotated[WholeShells, Depends(_whole_shells)]
JointStandards = Annotated[JointStandardService, Depends(_joint_standards)]
TargetSets = Annotated[TargetService, Depends(_targets)]
Backups = Annotated[BackupService, Depends(_backups)]
Remedies = Annotated[RemedyResults, Depends(_remedies)]
Registers = Annotated[Callable[[Stored, str], Register], Depends(_register)]
#: Of a file among the backups.
BackupName = Annotated[str, Path(pattern=r"^[A-Za-z0-9_.-]{1,160}$")]
_NO_FILE_NAME = re.compile(r'[\x00-\x1f\x7f/\\:*?"<>|]+')
#: A window's name and its question's, "w1.q7".
Ticket = Annotated[str, Path(pattern=r"^[A-Za-z0-9_.-]{1,160}$")]
Id = Annotated[str, Path(pattern=r"^[A-Za-z0-9_-]{1,64}$")]


def note_of(saying: s.ChangeNoteIn) -> ChangeNote:
    """How a change is called in the log."""
    return ChangeNote(text=saying.text, zone=saying.zone)


def attachment(content: bytes, media_type: str, name: str) -> Response:
    """A file to download under its own name (RFC 6266), with a plain one beside it for who cannot read that.

    Parameters
    ----------
    name : str
        With its ending, in any script; what no file system takes is left out.
    """
    stem, _, ending = _NO_FILE_NAME.sub("-", name).rpartition(".")
    stem = stem.strip(" .-") or "nimble-shell"
    plain = re.sub(r"[^A-Za-z0-9._]+", "-", stem).strip("-.") or "nimble-shell"
    whole = quote(f"{stem}.{ending}", safe="", errors="replace")
    told = f"attachment; filename=\"{plain}.{ending}\"; filename*=UTF-8''{whole}"
    return Response(content, media_type=media_type, headers={"Content-Disposition": told})

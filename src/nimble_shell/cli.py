"""The command line: `nimble-shell wall FILE`, `section FILE`, `compute`, `serve`, `demo`, `verify` and the others."""

from __future__ import annotations

import json
import sys
from pathlib import Path
from typing import Annotated, Any, NoReturn

import typer
from pydantic import ValidationError

from nimble_shell import serve as serving
from nimble_shell.core.errors import DomainError, NotConverged
from nimble_shell.formats import neutral_section, neutral_wall, problems, strict_json
from nimble_shell.formats.problems import Problem, ProblemError
from nimble_shell.services import sheets
from nimble_shell.services.compute import compute_project
from nimble_shell.services.projects import ProjectService
from nimble_shell.store import Database, FolderLock, NotFound, StoreError, backups, default_data_dir, restore
from nimble_shell.store.database import FILE

app = typer.Typer(add_completion=False, no_args_is_help=True, pretty_exceptions_enable=False)


@app.callback()
def nimble_shell() -> None:
    """Nimble Shell: build-ups, joints and moisture of insulated shells."""


BAD_FILE = 2  #: exit code for a file that is refused


@app.command()
def wall(
    file: Annotated[str, typer.Argument(help="A wall in the neutral format; - reads standard input.")],
) -> None:
    """Compute a wall given in the neutral format and print JSON."""
    case = _read_case(file, "wall")
    try:
        result = neutral_wall.compute(neutral_wall.WallCase.model_validate(case))
    except (DomainError, ValidationError) as error:
        _refuse(problems.of(error))
    print(json.dumps(result, indent=1))


@app.command()
def section(
    file: Annotated[str, typer.Argument(help="A section in the neutral format; - reads standard input.")],
) -> None:
    """Solve heat conduction in a section given in the neutral format and print JSON."""
    case = _read_case(file, "section")
    try:
        result = neutral_section.compute(neutral_section.SectionCase.model_validate(case))
    except (DomainError, ValidationError) as error:
        _refuse(problems.of(error))
    except NotConverged as error:
        _refuse(_whole_file("not_converged", str(error), "look for slivers between regions of extreme contrast"))
    print(json.dumps(result, indent=1))


@app.command()
def moisture(
    file: Annotated[str, typer.Argument(help="Moisture by month or by hour, neutral format; - reads standard input.")],
) -> None:
    """Compute moisture in an element given in the neutral format and print JSON."""
    from nimble_shell.formats import neutral_moisture  # its compiled part is not for every start

    case = _read_case(file, "moisture_monthly", "moisture_hourly")
    try:
        result = neutral_moisture.compute(neutral_moisture.read(case))
    except (DomainError, ValidationError) as error:
        _refuse(problems.of(error))
    except NotConverged as error:
        _refuse(_whole_file("not_converged", str(error), "look for values that jump out of all proportion"))
    print(json.dumps(result, indent=1, allow_nan=False))


@app.command()
def setout(
    file: Annotated[str, typer.Argument(help="An elevation in the neutral format; - reads standard input.")],
) -> None:
    """Panels of an elevation, courses of blocks or drift of forms, from a case in the neutral format; print JSON."""
    from nimble_shell.formats import neutral_setout  # its rooms are not for every start

    case = _read_case(file, *neutral_setout.KINDS)
    try:
        result = neutral_setout.compute(neutral_setout.read(case))
    except (DomainError, ValidationError) as error:
        _refuse(problems.of(error))
    print(json.dumps(result, indent=1, allow_nan=False))


@app.command()
def shop(
    file: Annotated[str, typer.Argument(help="A shop case in the neutral format; - reads standard input.")],
) -> None:
    """Bars, sheets, laydown, quantities or trucks of a case in the neutral format; print JSON."""
    from nimble_shell.formats import neutral_shop  # its rooms are not for every start

    case = _read_case(file, *neutral_shop.KINDS)
    try:
        result = neutral_shop.compute(neutral_shop.read(case))
    except (DomainError, ValidationError) as error:
        _refuse(problems.of(error))
    print(json.dumps(result, indent=1, allow_nan=False))


@app.command()
def pour(
    file: Annotated[str, typer.Argument(help="A pour in the neutral format; - reads standard input.")],
) -> None:
    """Pressure of fresh concrete on a form, lifts, braces and lean of a case in the neutral format; print JSON."""
    from nimble_shell.formats import neutral_pour  # its rooms are not for every start

    case = _read_case(file, neutral_pour.KIND)
    try:
        result = neutral_pour.compute(neutral_pour.read(case))
    except (DomainError, ValidationError) as error:
        _refuse(problems.of(error))
    print(json.dumps(result, indent=1, allow_nan=False))


@app.command()
def lift(
    file: Annotated[str, typer.Argument(help="A lift in the neutral format; - reads standard input.")],
) -> None:
    """A panel on a hook, time on site, or order of work of a case in the neutral format; print JSON."""
    from nimble_shell.formats import neutral_lift  # its rooms are not for every start

    case = _read_case(file, *neutral_lift.KINDS)
    try:
        result = neutral_lift.compute(neutral_lift.read(case))
    except (DomainError, ValidationError) as error:
        _refuse(problems.of(error))
    print(json.dumps(result, indent=1, allow_nan=False))


@app.command()
def shell(
    file: Annotated[str, typer.Argument(help="A building in the neutral format; - reads standard input.")],
) -> None:
    """Compute what a building in the neutral format comes to: areas, losses, air, sun, loads, energy; print JSON."""
    from nimble_shell.formats import neutral_shell  # its rooms are not for every start

    case = _read_case(file, "shell")
    try:
        result = neutral_shell.compute(neutral_shell.read(case))
    except (DomainError, ValidationError) as error:
        _refuse(problems.of(error))
    print(json.dumps(result, indent=1, allow_nan=False))


@app.command()
def read(
    file: Annotated[str, typer.Argument(help="A DXF drawing or an IFC model.")],
    unit: Annotated[str | None, typer.Option(help="mm, cm, m, in or ft, where the file does not say it.")] = None,
) -> None:
    """Read what a DXF or IFC file holds and print JSON; nothing is stored."""
    from nimble_shell.services.drawings import read_drawing  # its libraries are not for every start

    try:
        content = Path(file).read_bytes()
    except OSError as error:
        _refuse(_whole_file("file_unreadable", f"{file}: {error}", "give the path of a DXF or IFC file"))
    try:
        found = read_drawing(content, Path(file).name, unit)
    except DomainError as error:
        _refuse(problems.of(error))
    print(json.dumps(found.to_json(), indent=1, allow_nan=False))


@app.command()
def compute(
    file: Annotated[str, typer.Argument(help="A project file; - reads standard input.")],
    at: Annotated[str, typer.Option(help="winter, summer, or a month from 0 (January) to 11.")] = "winter",
) -> None:
    """Compute every build-up and ledger of a project file and print JSON; nothing is stored."""
    content = _read_json(file)
    try:
        result = compute_project(sheets.read_project_file(content), at)
    except (DomainError, ValidationError) as error:
        _refuse(problems.of(error))
    print(json.dumps(result, indent=1))


Data = Annotated[Path | None, typer.Option(help="Folder of the database; user data folder if not named.")]
Port = Annotated[int, typer.Option(help="Port on 127.0.0.1; 0 takes a free one.")]
NoKey = Annotated[bool, typer.Option("--no-key", help="Let every program of this machine in, without a key.")]


@app.command()
def demo(
    data: Data = None,
    port: Port = serving.DEFAULT_PORT,
    fresh: Annotated[bool, typer.Option(help="Begin again; former demo data are kept aside.")] = False,
    no_key: NoKey = False,
) -> None:
    """Start with the demo campus."""
    _serve(data, port, demo=True, fresh=fresh, locked=not no_key)


@app.command()
def serve(
    data: Data = None,
    port: Port = serving.DEFAULT_PORT,
    anew: Annotated[bool, typer.Option(help="Begin an empty database although there are backups.")] = False,
    no_key: NoKey = False,
) -> None:
    """Start with your own data."""
    _serve(data, port, demo=False, anew=anew, locked=not no_key)


@app.command("backups")
def list_backups(data: Data = None) -> None:
    """List the backups of a data folder, newest first, with what lies in each."""
    for one in backups(data or default_data_dir()):
        inside = (
            "cannot be used: " + one.why_not
            if one.contents is None
            else _named([each.name for each in one.contents.projects])
        )
        print(f"{one.name}  {one.made_at}  {one.size / 1024:,.0f} kB  {inside}")


def _named(projects: list[str]) -> str:
    rest = f" and {len(projects) - 3} more" if len(projects) > 3 else ""
    return f"{len(projects)} projects: {', '.join(projects[:3])}{rest}" if projects else "no project"


@app.command("restore")
def restore_backup(name: str, data: Data = None) -> None:
    """Put a backup in the place of the database, which is kept among the backups. Stop the server first."""
    folder = data or default_data_dir()
    try:
        lock = FolderLock(folder)
        lock.take("a restore")
        kept = restore(folder / FILE, name)
        lock.release()
    except StoreError as error:
        _refuse(_whole_file(error.code, error.message, error.hint))
    print(f"{name} is in place" + ("" if kept is None else f"; what stood there is in {kept}"))


@app.command()
def verify(
    subjects: Annotated[list[str] | None, typer.Argument(help="Only these; all unless some are named.")] = None,
    report: Annotated[Path | None, typer.Option(help="Write the comparisons as a Markdown report, too.")] = None,
) -> None:
    """Run the published reference cases: reference, ours, difference, tolerance."""
    from nimble_shell import references

    unknown = [one for one in subjects or () if one not in references.GROUPS]
    if unknown:
        known = ", ".join(references.GROUPS)
        _refuse(_whole_file("unknown_subject", f"there are no references for “{unknown[0]}”", f"one of: {known}"))
    rows = references.run(subjects or ())
    print(references.table(rows))
    if report is not None:
        report.write_text(references.markdown(rows))
    raise typer.Exit(0 if all(row.good for row in rows) else 1)


@app.command("export")
def export_project(project: str, file: Path, data: Data = None) -> None:
    """Write a project as a project file (JSON)."""
    try:
        stored = ProjectService(_database(data)).load(project)
        file.write_bytes(sheets.project_file(stored))
    except NotFound:
        _refuse(_whole_file("project_not_found", f"there is no project “{project}”", "see the list of projects"))
    except OSError as error:
        _refuse(_whole_file("file_unwritable", str(error), "name another file"))


@app.command("import")
def import_project(file: Path, data: Data = None) -> None:
    """Bring a project file in; prints the project's id."""
    content = _read_json(str(file))
    try:
        stored = ProjectService(_database(data)).bring_in(sheets.read_project_file(content))
    except (DomainError, ValidationError) as error:
        _refuse(problems.of(error))
    print(stored.project.id)


def _serve(
    data: Path | None, port: int, *, demo: bool, fresh: bool = False, anew: bool = False, locked: bool = True
) -> None:
    try:
        serving.run(data, port, demo=demo, fresh=fresh, anew=anew, locked=locked)
    except serving.CannotStart as error:
        print(error, file=sys.stderr)
        raise typer.Exit(1) from error


def _database(data: Path | None) -> Database:
    try:
        return serving.open_database(data or default_data_dir())
    except serving.CannotStart as error:
        print(error, file=sys.stderr)
        raise typer.Exit(1) from error


def _read_json(file: str) -> Any:
    try:
        content = sys.stdin.buffer.read() if file == "-" else Path(file).read_bytes()
    except OSError as error:
        _refuse(_whole_file("file_unreadable", f"{file}: {error}", "give the path of a JSON file in UTF-8"))
    try:
        return strict_json.read(content)
    except strict_json.NotJson as error:
        _refuse(_whole_file("not_json", f"the file is not readable as JSON: {error}", "check the place named"))


def _read_case(file: str, *kinds: str) -> Any:
    case = _read_json(file)
    if not isinstance(case, dict):
        _refuse(_whole_file("not_an_object", "the file does not hold a JSON object", "write { … }"))
    # Reference files wrap the case together with its expected results.
    if {"case", "reference"} <= set(case) <= {"verb", "case", "reference"} and isinstance(case["case"], dict):
        case = case["case"]
    if case.get("kind", kinds[0]) not in kinds:
        able = " and ".join(f"“{kind}”" for kind in kinds)
        _refuse(_whole_file("wrong_kind", f"the case is of kind “{case['kind']}”", f"this command computes {able}"))
    return case


def _whole_file(code: str, detail: str, hint: str) -> Problem:
    error = ProblemError(pointer="#", code=code, detail=detail, hint=hint)
    return Problem(title="The file cannot be used", status=422, errors=[error])


def _refuse(problem: Problem) -> NoReturn:
    print(problem.model_dump_json(indent=1), file=sys.stderr)
    raise typer.Exit(BAD_FILE)


if __name__ == "__main__":
    app()

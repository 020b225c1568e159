"""The command line: `nimble-shell wall FILE`, `serve`, `demo`, `verify`, `export`, `import`."""

from __future__ import annotations

import json
import sys
from pathlib import Path
from typing import Annotated, Any, NoReturn

import typer
from pydantic import ValidationError

from nimble_shell.core.errors import DomainError
from nimble_shell.formats import neutral_wall, problems
from nimble_shell.formats.problems import Problem, ProblemError

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


def _read_case(file: str, kind: str) -> Any:
    try:
        text = sys.stdin.read() if file == "-" else Path(file).read_text("utf-8-sig")
    except (OSError, UnicodeDecodeError) as error:
        _refuse(_whole_file("file_unreadable", f"{file}: {error}", "give the path of a JSON file in UTF-8"))
    try:
        case = json.loads(text, parse_constant=_no_constant)
    except (ValueError, RecursionError) as error:
        _refuse(_whole_file("not_json", f"the file is not readable as JSON: {error}", "check the place named"))
    if not isinstance(case, dict):
        _refuse(_whole_file("not_an_object", "the file does not hold a JSON object", "write { … }"))
    # Reference files wrap the case together with its expected results.
    if set(case) == {"case", "reference"} and isinstance(case["case"], dict):
        case = case["case"]
    if case.get("kind", kind) != kind:
        _refuse(_whole_file("wrong_kind", f"the case is of kind “{case['kind']}”", f"this command computes “{kind}”"))
    return case


def _no_constant(name: str) -> float:
    raise ValueError(f"{name} is not a number in JSON")


def _whole_file(code: str, detail: str, hint: str) -> Problem:
    error = ProblemError(pointer="#", code=code, detail=detail, hint=hint)
    return Problem(title="The file cannot be used", status=422, errors=[error])


def _refuse(problem: Problem) -> NoReturn:
    print(problem.model_dump_json(indent=1), file=sys.stderr)
    raise typer.Exit(BAD_FILE)


if __name__ == "__main__":
    app()

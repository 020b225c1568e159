"""`./nimble test`: every check and test, each named, with its time."""

from __future__ import annotations

import os
import subprocess
import time
from collections.abc import Callable
from concurrent.futures import ThreadPoolExecutor
from dataclasses import dataclass
from pathlib import Path

from launcher import setup
from launcher.steps import BUILD, ROOT, say

#: Said at every run, so that nobody takes its silence for a result.
NOT_RUN = (
    "known faults of the pinned packages: not checked, as their list needs a network; where there is one, "
    "`pip-audit -r requirements.txt` and `npm audit` in web/ read both lock files"
)
SHOWN = "pytest"  #: the check whose output is shown as it comes; the others run beside it, quietly


@dataclass(frozen=True)
class Done:
    """A check that has run."""

    name: str
    good: bool
    took: float  #: [s]
    said: str = ""  #: where it was not shown as it came


def run_checks(arguments: list[str]) -> int:
    """Run all checks, or one with `--only NAME`; what follows goes to pytest."""
    only = None
    if arguments[:1] == ["--only"]:
        only, arguments = arguments[1], arguments[2:]
    setup.everything()
    checks = _checks(arguments)
    if only and only not in checks:
        print(f"nimble: there is no check named {only}; there are {', '.join(checks)}")
        return 2
    found = [_one(only, checks[only], quiet=False)] if only else _all(checks)
    for one in found:
        if not one.good:
            say(f"{one.name}: failed\n{one.said}".rstrip())
    say(NOT_RUN)
    return 0 if all(one.good for one in found) else 1


def _all(checks: dict[str, Check]) -> list[Done]:
    """All of them: the tests as they come, and beside them, one after the other, the rest."""
    with ThreadPoolExecutor(1) as beside:
        quiet = [beside.submit(_one, name, check, quiet=True) for name, check in checks.items() if name != SHOWN]
        shown = _one(SHOWN, checks[SHOWN], quiet=False)
        return [shown, *(one.result() for one in quiet)]


def _one(name: str, check: Check, *, quiet: bool) -> Done:
    start = time.monotonic()
    if not quiet:
        say(f"{name} …")
    good, said = check(quiet)
    took = time.monotonic() - start
    say(f"{name}: {'done' if good else 'failed'} in {took:.0f} s")
    return Done(name, good, took, said)


#: Runs a check, shown or quietly: whether it is good, and what it said.
Check = Callable[[bool], tuple[bool, str]]


def _checks(pytest_arguments: list[str]) -> dict[str, Check]:
    bin_ = setup.VENV / "bin"
    return {
        SHOWN: _python([[setup.PYTHON, "-m", "pytest", "-q", "-n", "3", "--dist", "loadgroup", *pytest_arguments]]),
        "ruff": _python([[bin_ / "ruff", "check", "."], [bin_ / "ruff", "format", "--check", "."]]),
        "mypy": _python([[bin_ / "mypy"]]),
        "rooms": _python([[bin_ / "lint-imports", "--no-cache"]]),
        "locks": _locks,
        "web-lint": _web("lint"),
        "web-types": _web("check"),
        "web-units": _web("test"),
    }


def _python(commands: list[list[object]]) -> Check:
    # One thread of linear algebra in each process: those of several that wait for one another cost double.
    alone = {"OPENBLAS_NUM_THREADS": "1", "OMP_NUM_THREADS": "1"}
    environment = {**alone, **os.environ, "NIMBLE_SHELL_WEB": str(BUILD / "web"), "PYTHONPATH": str(ROOT)}
    # The tests start dozens of servers and workers: without bytecode each of them would compile the program anew.
    environment.pop("PYTHONDONTWRITEBYTECODE", None)
    return _running([[str(word) for word in command] for command in commands], ROOT, environment)


def _web(script: str) -> Check:
    return _running([["npm", "run", "--silent", script]], setup.WEB, setup.node_environment())


def _running(commands: list[list[str]], folder: Path, environment: dict[str, str]) -> Check:
    def check(quiet: bool) -> tuple[bool, str]:
        said = []
        for command in commands:
            done = subprocess.run(
                command, cwd=folder, env=environment, check=False, text=True,
                stdout=subprocess.PIPE if quiet else None, stderr=subprocess.STDOUT if quiet else None,
            )  # fmt: skip
            said.append(done.stdout or "")
            if done.returncode:
                return False, "".join(said)
        return True, "".join(said)

    return check


def _locks(quiet: bool = False) -> tuple[bool, str]:
    """No lock file may record where packages were fetched from."""
    files = [*ROOT.glob("requirements*.txt"), Path(setup.WEB / "package-lock.json")]
    found = [
        f"{path.name}:{number}: records a download address"
        for path in files
        for number, line in enumerate(path.read_text().splitlines(), 1)
        if '"resolved"' in line or (path.suffix == ".txt" and "://" in line)
    ]
    said = "\n".join(found) or "no download address in any lock file"
    if not quiet:
        print(said)
    return not found, said

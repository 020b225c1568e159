"""`./nimble test`: every check and test, each named, with its time."""

from __future__ import annotations

import os
import subprocess
import time
from collections.abc import Callable
from pathlib import Path

from launcher import setup
from launcher.steps import BUILD, ROOT, say


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
    failed = [name for name, check in checks.items() if only in (None, name) and not _passes(name, check)]
    for name in failed:
        say(f"{name}: failed")
    return 1 if failed else 0


def _passes(name: str, check: Callable[[], int]) -> bool:
    say(f"{name} …")
    start = time.monotonic()
    good = check() == 0
    say(f"{name}: {'done' if good else 'failed'} in {time.monotonic() - start:.0f} s")
    return good


def _checks(pytest_arguments: list[str]) -> dict[str, Callable[[], int]]:
    bin_ = setup.VENV / "bin"
    return {
        "ruff": lambda: _call([bin_ / "ruff", "check", "."]) or _call([bin_ / "ruff", "format", "--check", "."]),
        "mypy": lambda: _call([bin_ / "mypy"]),
        "rooms": lambda: _call([bin_ / "lint-imports", "--no-cache"]),
        "locks": _locks,
        "web-lint": lambda: _web("lint"),
        "web-types": lambda: _web("check"),
        "web-units": lambda: _web("test"),
        "pytest": lambda: _call([setup.PYTHON, "-m", "pytest", "-q", "-n", "2", *pytest_arguments]),
    }


def _call(command: list[object]) -> int:
    # One thread of linear algebra in each process: those of several that wait for one another cost double.
    alone = {"OPENBLAS_NUM_THREADS": "1", "OMP_NUM_THREADS": "1"}
    environment = {**alone, **os.environ, "NIMBLE_SHELL_WEB": str(BUILD / "web"), "PYTHONPATH": str(ROOT)}
    return subprocess.run([str(word) for word in command], cwd=ROOT, env=environment, check=False).returncode


def _web(script: str) -> int:
    return subprocess.run(
        ["npm", "run", "--silent", script], cwd=setup.WEB, env=setup.node_environment(), check=False
    ).returncode


def _locks() -> int:
    """No lock file may record where packages were fetched from."""
    files = [*ROOT.glob("requirements*.txt"), Path(setup.WEB / "package-lock.json")]
    found = [
        f"{path.name}:{number}: records a download address"
        for path in files
        for number, line in enumerate(path.read_text().splitlines(), 1)
        if '"resolved"' in line or (path.suffix == ".txt" and "://" in line)
    ]
    print("\n".join(found) or "no download address in any lock file")
    return 1 if found else 0

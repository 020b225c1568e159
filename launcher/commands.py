"""The commands of `./nimble`: set up what each needs, then hand over."""

from __future__ import annotations

import os
import sys

from launcher import setup
from launcher.checks import run_checks
from launcher.steps import BUILD, ROOT, StepFailed

HELP = """\
./nimble demo            set up, and start with the demo campus          [--port N] [--data DIR] [--fresh]
./nimble serve           set up, and start with your own data            [--port N] [--data DIR]
./nimble test            set up, and run every check and test            [--only NAME] [pytest arguments]
./nimble verify          published references: reference, ours, difference, tolerance
./nimble bench           measured speed, as figures and ratios            [--save FILE]
./nimble screenshots     take the pictures in docs/screenshots again
./nimble wall FILE       compute a wall given in the neutral format, print JSON
./nimble section FILE    solve heat conduction in a section or boxes, print JSON
./nimble moisture FILE   moisture in an element by month or by hour, print JSON
./nimble shell FILE      areas, joints and volume of a building of faces, print JSON
./nimble setout FILE     panels of an elevation, courses of blocks, drift of forms, print JSON
./nimble shop FILE       bars, sheets, laydown, quantities, trucks, print JSON
./nimble pour FILE       pressure, lifts, braces and lean of a pour, print JSON
./nimble lift FILE       a panel on its hook, time on site, order of work, print JSON
./nimble read FILE       what a DXF or IFC file holds, print JSON            [--unit mm|cm|m|in|ft]
./nimble compute FILE    compute every build-up of a project file, print JSON
./nimble export | import a project as documented JSON
./nimble backups | restore NAME   list the backups, put one in place   [--data DIR]
./nimble types           write the web's API types again
"""

NEEDS_SITE = {"demo", "serve"}
NEEDS_TEST_TOOLS = {"bench", "screenshots"}


def main(arguments: list[str]) -> int:
    command, rest = (arguments[0], arguments[1:]) if arguments else ("help", [])
    try:
        if command in ("help", "-h", "--help"):
            print(HELP, end="")
            return 0
        if command == "test":
            return run_checks(rest)
        if command == "types":
            setup.python_packages(for_tests=True)
            setup.node_packages()
            return _types()
        if command in NEEDS_TEST_TOOLS:
            setup.everything()
            return _hand_over([setup.PYTHON, "-m", f"tools.{command}", *rest])
        if command in NEEDS_SITE:
            setup.application()
        else:
            setup.python_packages(for_tests=False)
        return _hand_over([setup.PYTHON, "-m", "nimble_shell", command, *rest])
    except StepFailed as failed:
        print(failed, file=sys.stderr)
        return 1
    except KeyboardInterrupt:
        return 130


def _types() -> int:
    import subprocess

    BUILD.mkdir(exist_ok=True)
    subprocess.run([setup.PYTHON, "-m", "tools.openapi"], cwd=ROOT, check=True)
    return subprocess.run(["npm", "run", "types"], cwd=setup.WEB, env=setup.node_environment(), check=False).returncode


def _hand_over(command: list[object]) -> int:
    """Become the program, so that signals and exit codes are its own."""
    words = [str(word) for word in command]
    environment = {**os.environ, "NIMBLE_SHELL_WEB": str(BUILD / "web")}
    environment.pop("PYTHONDONTWRITEBYTECODE", None)  # compiling the program anew costs a second at each start
    if words[2].startswith("tools."):
        environment["PYTHONPATH"] = str(ROOT)
    sys.stdout.flush()
    os.execve(words[0], words, environment)

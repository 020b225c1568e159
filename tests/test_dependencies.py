"""What the package imports is what it declares, and a start imports no more than it needs."""

from __future__ import annotations

import ast
import re
import subprocess
import sys
import tomllib
from importlib.metadata import packages_distributions
from pathlib import Path

ROOT = Path(__file__).parents[1]
PACKAGE = ROOT / "src" / "nimble_shell"


def imported() -> dict[str, str]:
    """Third-party packages that the source imports anywhere, each with one file that does."""
    found: dict[str, str] = {}
    for path in PACKAGE.rglob("*.py"):
        for node in ast.walk(ast.parse(path.read_text())):
            names = (
                [one.name for one in node.names] if isinstance(node, ast.Import)
                else [node.module] if isinstance(node, ast.ImportFrom) and node.module and not node.level
                else []
            )  # fmt: skip
            for name in names:
                top = name.partition(".")[0]
                if top not in sys.stdlib_module_names and top != "nimble_shell":
                    found[top] = str(path.relative_to(ROOT))
    return found


def plain(name: str) -> str:
    return re.sub(r"[-_.]+", "-", name).lower()


def test_every_package_that_is_imported_is_declared_and_every_declared_one_is_imported() -> None:
    declared = {plain(one) for one in tomllib.loads((ROOT / "pyproject.toml").read_text())["project"]["dependencies"]}
    owners = packages_distributions()
    used = {plain(owners[name][0]): (name, path) for name, path in imported().items()}
    assert {name: used[name] for name in set(used) - declared} == {}
    assert declared - set(used) == set()


def test_the_lock_has_what_is_declared() -> None:
    declared = {plain(one) for one in tomllib.loads((ROOT / "pyproject.toml").read_text())["project"]["dependencies"]}
    locked = {plain(one) for one in re.findall(r"(?m)^([A-Za-z0-9._-]+)==", (ROOT / "requirements.txt").read_text())}
    assert declared - locked == set()


def test_a_start_imports_nothing_that_it_does_not_need() -> None:
    """The compiler, the typesetter, the migration tool and the solvers come when they are asked for."""
    late = ("numba", "llvmlite", "pyamg", "typst", "alembic", "scipy.optimize", "scipy.interpolate")
    code = f"import sys, nimble_shell.serve; print([one for one in {late!r} if one in sys.modules])"
    done = subprocess.run([sys.executable, "-c", code], capture_output=True, text=True, check=True)
    assert done.stdout.strip() == "[]"


def test_a_process_of_the_server_reads_nothing_of_the_server() -> None:
    """A solver, and the reader of somebody's file, read the module that the server was started with once more."""
    code = (
        "import sys, nimble_shell.__main__; print(sorted(one for one in sys.modules if one.startswith('nimble_shell')))"
    )
    done = subprocess.run([sys.executable, "-c", code], capture_output=True, text=True, check=True)
    assert done.stdout.strip() == "['nimble_shell', 'nimble_shell.__main__']"

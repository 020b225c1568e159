"""The API's description, the web's types made from it, and the public functions' docstrings cannot fall behind."""

from __future__ import annotations

import importlib
import inspect
import os
import pkgutil
import shutil
import subprocess
from pathlib import Path

import pytest

import nimble_shell.core
from nimble_shell.api.routes import router
from tools.openapi import SCHEMA, description, schema

WEB = Path(__file__).parents[2] / "web"


def test_the_webs_types_are_those_of_this_api(tmp_path: Path) -> None:
    npx = shutil.which("npx") or str(WEB.parent / ".venv" / "bin" / "npx")
    (tmp_path / "openapi.json").write_text(description())
    made = tmp_path / "generated.ts"
    command = [npx, "--no-install", "openapi-typescript", str(tmp_path / "openapi.json"), "-o", str(made)]
    environment = {**os.environ, "PATH": f"{Path(npx).parent}{os.pathsep}{os.environ.get('PATH', '')}"}
    subprocess.run(command, cwd=WEB, check=True, capture_output=True, env=environment)
    known = (WEB / "src" / "lib" / "api" / "generated.ts").read_text()
    assert made.read_text() == known, "run ./nimble types"


def test_the_published_schema_is_the_programs() -> None:
    assert (WEB.parent / SCHEMA).read_text() == schema(), "run ./nimble types"


def test_every_route_says_what_it_does() -> None:
    assert len(router.routes) >= 18
    for route in router.routes:
        assert inspect.getdoc(getattr(route, "endpoint", None)), route


def public_functions() -> list[tuple[str, str]]:
    found = []
    for module in pkgutil.walk_packages(nimble_shell.core.__path__, "nimble_shell.core."):
        loaded = importlib.import_module(module.name)
        for name, value in vars(loaded).items():
            if inspect.isfunction(value) and value.__module__ == module.name and not name.startswith("_"):
                found.append((f"{module.name}.{name}", inspect.getdoc(value) or ""))
    return found


@pytest.mark.parametrize(("name", "text"), public_functions(), ids=lambda value: str(value)[:60])
def test_every_public_function_of_the_core_is_documented(name: str, text: str) -> None:
    assert text, name


PHYSICS = (
    "resistance",
    "temperature",
    "conductivity",
    "air",
    "fasteners",
    "periodic",
    "films",
    "saturation",
    "vapour",
    "study",
)


def test_every_function_of_physics_states_its_units() -> None:
    unitless = ("studied_layer", "check_table")
    physics = [
        (name, text)
        for name, text in public_functions()
        if name.split(".")[-2] in PHYSICS and name.split(".")[-1] not in unitless
    ]
    assert len(physics) >= 14
    for name, text in physics:
        assert ("[" in text and "]" in text) or "steps" in text or "working" in text, name

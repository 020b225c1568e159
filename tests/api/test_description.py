"""The API's description, the web's types made from it, and the public functions' docstrings cannot fall behind."""

from __future__ import annotations

import importlib
import inspect
import os
import pkgutil
import shutil
import subprocess
from dataclasses import MISSING, fields
from pathlib import Path
from typing import Any, Literal, get_origin, get_type_hints

import pytest

import nimble_shell.core
from nimble_shell.api.main import PARTS
from nimble_shell.api.schemas import TargetSetIn
from nimble_shell.api.study_schemas import ClaimIn
from nimble_shell.core.basis.targets import TargetSet
from nimble_shell.core.studies.claim import Claim
from tools.openapi import SCHEMA, description, schema

WEB = Path(__file__).parents[2] / "web"


def test_the_webs_types_are_those_of_this_api(tmp_path: Path) -> None:
    npx = shutil.which("npx") or str(WEB.parent / ".venv" / "bin" / "npx")
    (tmp_path / "openapi.json").write_text(description())
    made = tmp_path / "generated.ts"
    command = [npx, "--no-install", "openapi-typescript", str(tmp_path / "openapi.json"), "-o", str(made)]
    environment = {**os.environ, "PATH": f"{Path(npx).parent}{os.pathsep}{os.environ.get('PATH', '')}"}
    subprocess.run(command, cwd=WEB, check=True, capture_output=True, env=environment)
    known = (WEB / "src" / "api" / "generated.ts").read_text()
    assert made.read_text() == known, "run ./nimble types"


def test_the_published_schema_is_the_programs() -> None:
    assert (WEB.parent / SCHEMA).read_text() == schema(), "run ./nimble types"


def test_every_route_says_what_it_does() -> None:
    every = [route for part in PARTS for route in part.router.routes]
    assert len(every) >= 60
    silent = [route for route in every if not inspect.getdoc(getattr(route, "endpoint", None))]
    assert silent == []


def public_functions() -> list[tuple[str, str]]:
    found = []
    for module in pkgutil.walk_packages(nimble_shell.core.__path__, "nimble_shell.core."):
        loaded = importlib.import_module(module.name)
        for name, value in vars(loaded).items():
            if inspect.isfunction(value) and value.__module__ == module.name and not name.startswith("_"):
                found.append((f"{module.name}.{name}", inspect.getdoc(value) or ""))
    return found


def test_every_public_function_of_the_core_is_documented() -> None:
    functions = public_functions()
    assert len(functions) > 240
    assert [name for name, text in functions if not text] == []


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
    "thickness",
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


@pytest.mark.parametrize(("sent", "core"), [(ClaimIn, Claim), (TargetSetIn, TargetSet)])
def test_what_is_written_by_hand_has_the_fields_and_defaults_of_the_core(sent: Any, core: Any) -> None:
    own = {name: field for name, field in sent.model_fields.items() if name in sent.__annotations__}
    known = {one.name: one for one in fields(core)}
    assert set(own) == set(known)
    hints = get_type_hints(core)
    for name, field in own.items():
        default = known[name].default
        assert field.is_required() is (default is MISSING)
        assert default is MISSING or field.default == default
        if hints[name] is float or get_origin(hints[name]) is Literal:
            assert field.annotation == hints[name]

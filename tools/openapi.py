"""Write the API's description to build/openapi.json, for the web's types, and the project file's schema to docs."""

from __future__ import annotations

import json
import tempfile
from pathlib import Path

from nimble_shell.api.main import create_app
from nimble_shell.formats.project import json_schema
from nimble_shell.store import Database

TARGET = Path("build/openapi.json")
SCHEMA = Path("docs/project.schema.json")


def description() -> str:
    """The OpenAPI document as stable JSON."""
    with tempfile.TemporaryDirectory() as folder:
        database = Database(Path(folder))
        text = json.dumps(create_app(database).openapi(), indent=1, sort_keys=True)
        database.close()
        return text


def schema() -> str:
    """The JSON Schema of the project file as stable JSON."""
    return json.dumps(json_schema(), indent=1, ensure_ascii=False) + "\n"


if __name__ == "__main__":
    TARGET.parent.mkdir(exist_ok=True)
    TARGET.write_text(description())
    SCHEMA.write_text(schema())

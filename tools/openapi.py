"""Write the API's description to build/openapi.json, for the web's types."""

from __future__ import annotations

import json
import tempfile
from pathlib import Path

from nimble_shell.api.main import create_app
from nimble_shell.store import Database

TARGET = Path("build/openapi.json")


def description() -> str:
    """The OpenAPI document as stable JSON."""
    with tempfile.TemporaryDirectory() as folder:
        database = Database(Path(folder))
        text = json.dumps(create_app(database).openapi(), indent=1, sort_keys=True)
        database.close()
        return text


if __name__ == "__main__":
    TARGET.parent.mkdir(exist_ok=True)
    TARGET.write_text(description())

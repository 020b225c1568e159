"""The OpenAPI description says what is really answered: problem details of every refusal, and files as files."""

from __future__ import annotations

from typing import Any

from fastapi import FastAPI
from fastapi.routing import APIRoute

from nimble_shell.core.held import Held

_PROBLEM = {"application/problem+json": {"schema": {"$ref": "#/components/schemas/Problem"}}}
#: What any request can be told, whatever it asks.
_ALWAYS = {"400": "not readable", "401": "without the key of this server", "403": "not for who asks",
           "404": "not there", "405": "not this way", "413": "too large", "421": "not this address",
           "422": "refused, with the place and the way out", "503": "the database does not answer"}  # fmt: skip
_FILES = {".pdf": "application/pdf", ".csv": "text/csv; charset=utf-8"}


_DESCRIBED: Held[dict[str, Any]] = Held(4)  #: by its routes: applications of one process have the same ones


def describe(app: FastAPI) -> None:
    """Have the description of an application say so."""
    plain = app.openapi

    def openapi() -> dict[str, Any]:
        routes = tuple(one for one in app.routes if isinstance(one, APIRoute))
        return _DESCRIBED.get(routes) or _DESCRIBED.put(routes, _described(plain()))

    app.openapi = openapi  # type: ignore[method-assign]  # as FastAPI says it is done


def _described(schema: dict[str, Any]) -> dict[str, Any]:
    for path, operations in schema["paths"].items():
        for operation in operations.values():
            _complete(path, operation["responses"])
    return schema


def _complete(path: str, responses: dict[str, Any]) -> None:
    for code, text in _ALWAYS.items():
        responses.setdefault(code, {"description": text})
    for code, response in responses.items():
        if code >= "400":
            response["content"] = _PROBLEM
    media = next((media for ending, media in _FILES.items() if path.endswith(ending)), None)
    if media is not None and "200" in responses:
        responses["200"]["content"] = {media: {"schema": {"type": "string", "format": "binary"}}}

"""Which edition of the program an answer is of: a digest of the sources it can depend on, and of the libraries'."""

from __future__ import annotations

import ast
import hashlib
import importlib.metadata
import importlib.util
import threading
from collections.abc import Callable, Iterable, Iterator
from functools import cache
from pathlib import Path
from typing import Any

_OWN = "nimble_shell"
#: Python 3.11 counts the depth of all syntax trees that are being made in one place: two at once fail both.
_PARSING = threading.Lock()


@cache
def edition_of(module: str) -> str:
    """A digest of a module, of every module of this program that it can reach, and of the libraries they use."""
    digest = hashlib.sha256()
    libraries: set[str] = set()
    for name in sorted(reach(module)):
        source = _source(name)
        digest.update(name.encode() + b"\0" + source.read_bytes() if source else name.encode())
        libraries |= {one.partition(".")[0] for one in imports(name) if not one.startswith(_OWN)}
    for library in sorted(libraries):
        try:
            digest.update(f"{library}={importlib.metadata.version(library)}".encode())
        except importlib.metadata.PackageNotFoundError:
            continue  # of the standard library
    return digest.hexdigest()[:16]


def edition(solve: Callable[..., Any]) -> str:
    """Of what a function computes."""
    return edition_of(solve.__module__)


def reach(module: str) -> set[str]:
    """Modules of this program that a module imports, directly or not, itself among them."""
    found: set[str] = set()
    left = [module]
    while left:
        name = left.pop()
        if name not in found:
            found.add(name)
            left += [one for one in imports(name) if one.startswith(_OWN)]
    return found


@cache
def imports(module: str) -> frozenset[str]:
    """What a module imports, also inside of functions; names of its own program resolved to modules."""
    source = _source(module)
    if source is None:
        return frozenset()
    with _PARSING:
        tree = ast.parse(source.read_bytes())
    return frozenset(_imported(_statements(tree)))


def _statements(within: ast.AST) -> Iterator[ast.AST]:
    """Every statement, also inside of others: what stands in expressions, most of a tree by far, imports nothing."""
    for part in ("body", "orelse", "finalbody", "handlers", "cases"):
        for one in getattr(within, part, ()):
            yield one
            yield from _statements(one)


def _imported(statements: Iterable[ast.AST]) -> Iterator[str]:
    for node in statements:
        if isinstance(node, ast.Import):
            yield from (one.name for one in node.names)
        elif isinstance(node, ast.ImportFrom) and node.module:
            yield node.module
            if node.module.startswith(_OWN):
                yield from (name for one in node.names if _source(name := f"{node.module}.{one.name}"))


@cache
def _source(module: str) -> Path | None:
    try:
        found = importlib.util.find_spec(module)
    except ModuleNotFoundError:
        return None
    return Path(found.origin) if found and found.origin and found.origin.endswith(".py") else None

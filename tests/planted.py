"""Markup planted in every free text of a project file."""

from __future__ import annotations

from typing import Any

from nimble_shell.core.shell.whole import check_whole
from nimble_shell.services.sheets import read_project_file

#: A joint of an unknown family, role or value would be kept, but not drawn; a build-up of an unknown system not set out.
_KEPT = ("family", "variant", "roles", "values", "system")
MARK = '"><script>planted()</script><rect id="planted"/>#panic()'


def planted(file: dict[str, Any]) -> tuple[dict[str, Any], set[str]]:
    """The file with the mark in every text that takes it, and the names of those fields."""
    taken: set[str] = set()
    first = {**file, "project": {**file["project"], "buildings": file["project"]["buildings"][:1]}}
    known = _names(first["project"])
    for name in sorted(_names(file["project"])):
        tried = first if name in known else file  # the first building says what another one would, sooner
        if name not in _KEPT and _reads(_with(tried, taken | {name})):
            taken.add(name)
    assert _reads(_with(file, taken))
    return {**file, "project": _with(file["project"], taken)}, taken


def _reads(file: dict[str, Any]) -> bool:
    try:
        check_whole(read_project_file(file))
    except ValueError:
        return False
    return True


def _names(value: Any) -> set[str]:
    if isinstance(value, list):
        return set().union(*map(_names, value))
    if not isinstance(value, dict):
        return set()
    here = {key for key, one in value.items() if isinstance(one, str)}
    return here.union(*(_names(one) for key, one in value.items() if key not in _KEPT))


def _with(value: Any, names: set[str]) -> Any:
    if isinstance(value, list):
        return [_with(one, names) for one in value]
    if not isinstance(value, dict):
        return value
    return {key: one if key in _KEPT else f"{one}{MARK}"[-78:] if key in names and isinstance(one, str)
            else _with(one, names) for key, one in value.items()}  # fmt: skip

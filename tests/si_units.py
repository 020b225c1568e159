"""What must not stand on a page of an inch-pound project: an SI unit, or a place for a value that was left open."""

from __future__ import annotations

import re

_UNIT = re.compile(
    r"(?<![\w/·(])(?:mm|cm|m²·K/W|W/\(m²·K\)|W/\(m·K\)|W/K|W/m²|W/m|kWh\S*|kg\S*|g/m²\S*|J/\S+|kJ\S*|MJ\S*"
    r"|m³\S*|m²|m/s|1/m²|kN\S*|kPa|°C|Pa|K|m)(?![\w²³/·])"
)
_OPEN = re.compile(r"\{[^{}\n]*\}")
#: The trade's test pressure everywhere; a key to press.
_ALLOWED = re.compile(r"(?:at |of |)\b50 Pa\b|Ctrl K")


def left_in(text: str) -> list[str]:
    """Units and open places in a text, each with the line it stands in."""
    lines = _ALLOWED.sub("", text).splitlines()
    return [
        f"{match[0]!r} in {line.strip()[:160]!r}"
        for line in lines
        for match in [*_UNIT.finditer(line), *_OPEN.finditer(line)]
    ]

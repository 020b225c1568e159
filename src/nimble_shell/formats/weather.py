"""A climate from a file, whichever of the two kinds it is."""

from __future__ import annotations

from dataclasses import dataclass

from nimble_shell.core.climate import MonthlyClimate
from nimble_shell.formats.climate_csv import read_climate
from nimble_shell.formats.epw import Weather, read_epw


@dataclass(frozen=True, slots=True, kw_only=True)
class Read:
    """A climate and, from a weather file, its site."""

    climate: MonthlyClimate
    weather: Weather | None


def read_weather(content: bytes, name: str) -> Read:
    """The climate of a CSV or EPW file, told apart by their first word.

    Raises
    ------
    DomainError
        With the line of what is wrong.
    """
    first = content[:64].lstrip(b"\xef\xbb\xbf \r\n").upper()
    if first.startswith(b"LOCATION") or name.lower().endswith(".epw"):
        weather = read_epw(content)
        return Read(climate=weather.climate, weather=weather)
    title = name.rsplit(".", 1)[0].strip() or "climate"
    return Read(climate=read_climate(content, title[:120]), weather=None)

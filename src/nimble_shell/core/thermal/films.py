"""Surface resistances by school and direction of heat flow."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Literal

from nimble_shell.core.basis.schools import FilmSchool
from nimble_shell.core.basis.stations import Direction

Season = Literal["winter", "summer"]

#: Internal surface resistances for surface temperatures, ISO 13788:2012, 4.4.1, table 2 [m²·K/W]
R_SI_SURFACE = 0.25
R_SI_OPENING = 0.13  #: of glazing, frames and doors, which air reaches freely

_IP = 0.176110  #: [m²·K/W] in one h·ft²·°F/Btu


@dataclass(frozen=True, slots=True)
class Films:
    """A pair of surface resistances. [m²·K/W]"""

    R_si: float
    R_se: float
    clause: str


_R_SI: dict[FilmSchool, dict[Direction, float]] = {
    "iso6946": {"horizontal": 0.13, "up": 0.10, "down": 0.17},
    "north_american": {"horizontal": 0.68 * _IP, "up": 0.61 * _IP, "down": 0.92 * _IP},
}
_R_SE: dict[FilmSchool, dict[Season, float]] = {
    "iso6946": {"winter": 0.04, "summer": 0.04},
    "north_american": {"winter": 0.17 * _IP, "summer": 0.25 * _IP},
}
_CLAUSE: dict[FilmSchool, str] = {
    "iso6946": "ISO 6946:2017, 6.8, table 7",
    "north_american": "North American still-air and moving-air (winter, summer) film values, ε = 0.9",
}


def films(school: FilmSchool, direction: Direction, season: Season = "winter", *, sheltered: bool = False) -> Films:
    """The surface resistances of a plane element. [m²·K/W]

    Parameters
    ----------
    school : {"iso6946", "north_american"}
    direction : {"horizontal", "up", "down"}
        Direction of heat flow.
    season : {"winter", "summer"}
        The wind outside differs by season in the North American set.
    sheltered : bool
        Whether a well-ventilated layer stands outside: still air, so R_se is R_si.

    References
    ----------
    .. [1] ISO 6946:2017, 6.8 and 6.9.4.
    """
    R_si = _R_SI[school][direction]
    R_se = R_si if sheltered else _R_SE[school][season]
    clause = _CLAUSE[school] + (
        "; still air behind a well-ventilated layer (ISO 6946:2017, 6.9.4)" if sheltered else ""
    )
    return Films(R_si, R_se, clause)

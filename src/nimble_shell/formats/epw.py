"""Weather files in the EPW format: eight header lines, then one line an hour.

Only what a build-up needs is read: dry-bulb temperature, relative humidity (else dew point), and the site of the
header. Missing-value codes are filled from neighbours when they are few, and refused when they are many.
"""

from __future__ import annotations

import math
from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

from nimble_shell.core.climate import MonthlyClimate, p_sat
from nimble_shell.core.climate.invented import MONTH_DAYS
from nimble_shell.core.errors import DomainError, Issue
from nimble_shell.core.working import value_of
from nimble_shell.formats.csv_text import decode

FloatArray = NDArray[np.float64]

HEADER = (
    "LOCATION",
    "DESIGN CONDITIONS",
    "TYPICAL/EXTREME PERIODS",
    "GROUND TEMPERATURES",
    "HOLIDAYS/DAYLIGHT SAVINGS",
    "COMMENTS 1",
    "COMMENTS 2",
    "DATA PERIODS",
)
LEAST_COLUMNS = 9  #: up to relative humidity; some writers leave the rest out
_MONTH, _HOUR, _DRY, _DEW, _RH = 1, 3, 6, 7, 8
_MISSING_TEMPERATURE, _MISSING_RH = 99.9, 999.0
_CODE = 0.05  #: how near a value lies to a missing-value code that it is one
MOST_MISSING = 0.05  #: share of the hours that may be filled


@dataclass(frozen=True, slots=True, kw_only=True)
class Weather:
    """What a weather file says."""

    climate: MonthlyClimate
    place: str
    latitude: float  #: [°]
    altitude: float  #: [m]
    theta_winter: float  #: colder in 0.4 % of the hours [°C]
    theta_summer: float  #: warmer in 0.4 % of the hours [°C]
    hours: int
    filled: int  #: missing hours filled from their neighbours


def read_epw(content: bytes) -> Weather:
    """The monthly climate of a weather file.

    Raises
    ------
    DomainError
        Naming the line of what is wrong.

    Notes
    -----
    Monthly humidity is the mean vapour pressure over saturation at the mean temperature. Daily range and scatter are
    those of the hours. Relative humidity below 0 °C is taken over water, as stations report it, and turned to
    vapour pressure by saturation over water; the month's humidity is over ice, as ISO 13788 asks.
    """
    lines = decode(content).splitlines()
    place, latitude, altitude = _site(lines)
    rows = [(n, line.split(",")) for n, line in enumerate(lines[8:], 9) if line.strip()]
    _check_rows(rows)
    per_hour = _records_per_hour(lines[7])
    theta, gaps = _series(rows, _DRY, _MISSING_TEMPERATURE, (-90.0, 70.0), "dry-bulb temperature")
    phi = _humidity(rows, theta)
    hours, rest = divmod(len(rows), per_hour)
    leap = hours == 8784
    if rest or (not leap and hours != 8760):
        raise DomainError(
            Issue(
                path=("line", len(lines)),
                code="hours_missing",
                message=f"there are {len(rows)} lines of data with {per_hour} an hour",
                hint="a year has 8760 hours, a leap year 8784; none may be left out",
            )
        )
    last = rows[per_hour - 1 :: per_hour]  # a line stands for the interval that ends with it
    month = np.array([_integer(cells[_MONTH], n, 1, 12) for n, cells in last])
    hour = np.array([_integer(cells[_HOUR], n, 0, 24) for n, cells in last])
    _check_order(month, hour, last, leap)
    theta, phi = (series.reshape(-1, per_hour).mean(axis=1) for series in (theta, phi))
    pressure = phi * np.array([_over_water(one) for one in theta])
    climate = _months(month, theta, pressure, place)
    return Weather(
        climate=climate,
        place=place,
        latitude=latitude,
        altitude=altitude,
        theta_winter=round(float(np.quantile(theta, 0.004)), 1),
        theta_summer=round(float(np.quantile(theta, 0.996)), 1),
        hours=hours,
        filled=gaps,
    )


def _site(lines: list[str]) -> tuple[str, float, float]:
    for at, word in enumerate(HEADER):
        found = lines[at].split(",")[0].strip().upper() if at < len(lines) else "nothing"
        if found != word:
            raise DomainError(
                Issue(
                    path=("line", at + 1),
                    code="header_wrong",
                    message=f"line {at + 1} begins with “{found[:30]}”, not with {word}",
                    hint="an EPW file has eight header lines in a fixed order",
                )
            )
    cells = lines[0].split(",")
    if len(cells) < 10:
        raise DomainError(
            Issue(
                path=("line", 1),
                code="header_wrong",
                message=f"LOCATION has {len(cells)} entries",
                hint="it has ten, from the city to latitude, longitude, zone and altitude",
            )
        )
    values = []
    for at, least, most in ((6, -90.0, 90.0), (9, -430.0, 6000.0)):
        value = _float(cells[at])
        if value is None or not least <= value <= most:
            raise DomainError(
                Issue(
                    path=("line", 1),
                    code="header_wrong",
                    message=f"“{cells[at]}” is no place on earth",
                    hint=f"a number from {least:g} to {most:g}",
                )
            )
        values.append(value)
    place = ", ".join(cell.strip() for cell in cells[1:4] if cell.strip() and cell.strip() != "-")
    return place, values[0], values[1]


def _records_per_hour(line: str) -> int:
    cells = line.split(",")
    count = _float(cells[2]) if len(cells) > 2 and cells[2].strip() else 1.0
    if count is None or count != int(count) or not 1 <= count <= 60:
        raise DomainError(
            Issue(
                path=("line", 8),
                code="header_wrong",
                message=f"“{cells[2].strip()}” lines an hour in DATA PERIODS",
                hint="a whole number from 1 to 60",
            )
        )
    return int(count)


def _check_rows(rows: list[tuple[int, list[str]]]) -> None:
    if not rows:
        raise DomainError(
            Issue(
                path=("line", 9),
                code="hours_missing",
                message="there are no hours",
                hint="after eight header lines comes one line an hour",
            )
        )
    wide = len(rows[0][1])
    for n, cells in rows:
        if len(cells) < LEAST_COLUMNS or len(cells) != wide:
            raise DomainError(
                Issue(
                    path=("line", n),
                    code="wrong_column_count",
                    message=f"line {n} has {len(cells)} columns, the first hour {wide}",
                    hint=f"every hour has the same columns, at least {LEAST_COLUMNS}, usually 35",
                )
            )


def _check_order(
    month: NDArray[np.int64], hour: NDArray[np.int64], rows: list[tuple[int, list[str]]], leap: bool
) -> None:
    days = [*MONTH_DAYS]
    days[1] += leap
    wanted = np.repeat(np.arange(1, 13), np.array(days) * 24)
    wrong = np.nonzero(month != wanted)[0]
    if wrong.size:
        n = rows[int(wrong[0])][0]
        raise DomainError(
            Issue(
                path=("line", n),
                code="hours_out_of_order",
                message=f"line {n} is of month {month[wrong[0]]}, month {wanted[wrong[0]]} was due",
                hint="hours run from January to December",
            )
        )
    first = hour[0]
    expected = np.arange(len(hour)) % 24 + first
    late = np.nonzero(hour != expected)[0]
    if late.size:
        n = rows[int(late[0])][0]
        raise DomainError(
            Issue(
                path=("line", n),
                code="hours_out_of_order",
                message=f"line {n} is hour {hour[late[0]]}, hour {expected[late[0]]} was due",
                hint="hours run from 1 to 24 each day",
            )
        )


def _series(
    rows: list[tuple[int, list[str]]], column: int, missing: float, span: tuple[float, float], what: str
) -> tuple[FloatArray, int]:
    values = np.empty(len(rows))
    for at, (n, cells) in enumerate(rows):
        value = _float(cells[column])
        gap = not cells[column].strip() or (value is not None and abs(value - missing) < _CODE)
        if gap:
            values[at] = np.nan
        elif value is None or not span[0] <= value <= span[1]:
            raise DomainError(
                Issue(
                    path=("line", n),
                    code="value_out_of_range",
                    message=f"{what} in line {n} is “{cells[column].strip()}”",
                    hint=f"from {span[0]:g} to {span[1]:g}; check that no columns are swapped",
                )
            )
        else:
            values[at] = value
    gaps = int(np.isnan(values).sum())
    if gaps > MOST_MISSING * len(values):
        raise DomainError(
            Issue(
                path=("line", rows[int(np.nonzero(np.isnan(values))[0][0])][0]),
                code="values_missing",
                message=f"{what} is missing in {gaps} of {len(values)} hours",
                hint=f"up to {100 * MOST_MISSING:g} % are filled from their neighbours",
            )
        )
    if gaps:
        places = np.arange(len(values))
        good = ~np.isnan(values)
        values = np.interp(places, places[good], values[good])
    return values, gaps


def _humidity(rows: list[tuple[int, list[str]]], theta: FloatArray) -> FloatArray:
    """Relative humidity over water, 0…1; from the dew point where the humidity is not given."""
    try:
        phi, _ = _series(rows, _RH, _MISSING_RH, (0.0, 110.0), "relative humidity")
    except DomainError as error:
        if error.issues[0].code != "values_missing":
            raise
        dew, _ = _series(rows, _DEW, _MISSING_TEMPERATURE, (-90.0, 70.0), "dew point")
        return np.clip([_over_water(a) / _over_water(b) for a, b in zip(dew, theta, strict=True)], 0.005, 1.0)
    return np.clip(phi / 100, 0.005, 1.0)


def _months(month: NDArray[np.int64], theta: FloatArray, pressure: FloatArray, place: str) -> MonthlyClimate:
    means, humidities, swings, sigmas = [], [], [], []
    for number in range(1, 13):
        here = theta[month == number]
        days = here[: len(here) // 24 * 24].reshape(-1, 24)
        mean = float(here.mean())
        means.append(round(mean, 2))
        humidities.append(round(min(float(pressure[month == number].mean()) / value_of(p_sat(mean)), 1.0), 4))
        swings.append(round(float(np.ptp(days.mean(axis=0))), 2))
        sigmas.append(round(float((days - days.mean(axis=0)).std()), 2))
    return MonthlyClimate(
        name=f"{place} (weather file)",
        source="EPW weather file, humidity over ice in frost",
        theta_e=tuple(means),
        phi_e=tuple(humidities),
        swing=tuple(swings),
        sigma=tuple(sigmas),
    )


def _over_water(theta: float) -> float:
    """Saturation pressure over water, also below 0 °C. [Pa]"""
    return 610.5 * math.exp(17.269 * theta / (237.3 + theta))


def _float(text: str) -> float | None:
    try:
        value = float(text)
    except ValueError:
        return None
    return value if math.isfinite(value) else None


def _integer(text: str, line: int, least: int, most: int) -> int:
    value = _float(text)
    if value is None or value != int(value) or not least <= value <= most:
        raise DomainError(
            Issue(
                path=("line", line),
                code="date_unreadable",
                message=f"“{text}” in line {line} is no month or hour",
                hint="the columns are year, month, day, hour, minute, flags, dry bulb, dew point, …",
            )
        )
    return int(value)

"""Climates from files: what conforms is read, what does not is refused at its line."""

from __future__ import annotations

from collections.abc import Callable

import numpy as np
import pytest

from nimble_shell.core.climate import INVENTED, MonthlyClimate, heating_degree_hours, hourly_temperature, p_sat
from nimble_shell.core.climate.invented import MONTH_DAYS
from nimble_shell.core.errors import DomainError
from nimble_shell.core.working import value_of
from nimble_shell.formats.climate_csv import read_climate
from nimble_shell.formats.epw import HEADER, read_epw
from nimble_shell.formats.weather import read_weather

CLIMATE = INVENTED["maritime"].monthly()
LOCATION = "LOCATION,Gannet Sound,-,Nowhere,invented,000000,52.5,4.1,0.0,3.0"


def epw(climate: MonthlyClimate = CLIMATE, *, leap: bool = False, first_hour: int = 1) -> list[str]:
    """A weather file of an invented climate, line by line."""
    theta = hourly_temperature(climate)
    if leap:
        theta = np.insert(theta, 59 * 24, theta[58 * 24 : 59 * 24])
    days = [*MONTH_DAYS]
    days[1] += leap
    lines = [LOCATION, *(f"{word},1,1,made up" for word in HEADER[1:])]
    at = 0
    for month, count in enumerate(days, 1):
        for day in range(1, count + 1):
            for hour in range(first_hour, first_hour + 24):
                lines.append(
                    f"1999,{month},{day},{hour},0,?9?9,{theta[at]:.2f},{theta[at] - 3:.2f},80,101300" + ",0" * 25
                )
                at += 1
    return lines


def content(lines: list[str], encoding: str = "utf-8") -> bytes:
    return "\n".join(lines).encode(encoding)


def test_a_weather_file_gives_the_climate_it_was_made_from() -> None:
    found = read_epw(content(epw()))
    assert (found.place, found.latitude, found.altitude) == ("Gannet Sound, Nowhere", 52.5, 3.0)
    assert (found.hours, found.filled) == (8760, 0)
    assert found.climate.theta_e == pytest.approx(CLIMATE.theta_e, abs=0.06)
    assert found.climate.swing == pytest.approx(CLIMATE.swing, rel=0.1)
    assert found.climate.sigma == pytest.approx(CLIMATE.sigma, rel=0.15)
    hours = hourly_temperature(CLIMATE)
    summed = float(np.where(hours < 15, 20 - hours, 0).sum())
    assert heating_degree_hours(found.climate, 20, 15) == pytest.approx(summed, rel=0.01)
    assert found.theta_winter == pytest.approx(np.quantile(hours, 0.004), abs=0.06)


def test_humidity_keeps_the_mean_vapour_pressure_of_the_hours() -> None:
    climate = INVENTED["hot-dry"].monthly()
    found = read_epw(content(epw(climate)))
    theta = hourly_temperature(climate)[: 31 * 24]
    pressure = np.mean([0.8 * 610.5 * np.exp(17.269 * t / (237.3 + t)) for t in theta])
    assert found.climate.phi_e[0] * value_of(p_sat(found.climate.theta_e[0])) == pytest.approx(pressure, rel=0.002)


@pytest.mark.parametrize("encoding", ["utf-8", "utf-8-sig", "cp1252", "utf-16"])
def test_usual_encodings_are_read(encoding: str) -> None:
    lines = epw()
    lines[0] = LOCATION.replace("Gannet Sound", "Gänsesund")
    assert read_epw(content(lines, encoding)).place.startswith("Gänsesund")


def test_a_leap_year_and_hours_from_0_are_read() -> None:
    assert read_epw(content(epw(leap=True))).hours == 8784
    assert read_epw(content(epw(first_hour=0))).hours == 8760


def test_four_lines_an_hour_are_averaged() -> None:
    lines = epw()
    quarters = []
    for line in lines[8:]:
        cells = line.split(",")
        for step, shift in ((15, -1.5), (30, -0.5), (45, 0.5), (0, 1.5)):
            theta = f"{float(cells[6]) + shift:.2f}"
            quarters.append(",".join([*cells[:4], str(step), cells[5], theta, *cells[7:]]))
    header = [*lines[:7], lines[7].replace("1,1", "1,4")]
    found = read_epw(content([*header, *quarters]))
    assert found.hours == 8760
    assert found.climate.theta_e == read_epw(content(lines)).climate.theta_e
    with pytest.raises(DomainError) as refused:
        read_epw(content([*header[:7], lines[7].replace("1,1", "1,none"), *quarters]))
    assert refused.value.issues[0].path == ("line", 8)


def test_a_few_missing_hours_are_filled_and_counted() -> None:
    lines = epw()
    for n in (100, 101, 5000):
        cells = lines[n].split(",")
        cells[6], cells[8] = "99.9", "999"
        lines[n] = ",".join(cells)
    found = read_epw(content(lines))
    assert found.filled == 3
    assert found.climate.theta_e == pytest.approx(CLIMATE.theta_e, abs=0.06)


def test_missing_humidity_is_taken_from_the_dew_point() -> None:
    lines = [
        ",".join([*line.split(",")[:8], "999", *line.split(",")[9:]]) if n >= 8 else line
        for n, line in enumerate(epw())
    ]
    found = read_epw(content(lines))
    assert 0.75 < found.climate.phi_e[0] < 0.9


def cell(line: int, column: int, text: str) -> Callable[[list[str]], list[str]]:
    def change(lines: list[str]) -> list[str]:
        cells = lines[line - 1].split(",")
        cells[column] = text
        return [*lines[: line - 1], ",".join(cells), *lines[line:]]

    return change


def swapped(lines: list[str]) -> list[str]:
    def swap(line: str) -> str:
        cells = line.split(",")
        cells[6], cells[9] = cells[9], cells[6]
        return ",".join(cells)

    return [*lines[:8], *(swap(line) for line in lines[8:])]


def many_missing(lines: list[str]) -> list[str]:
    return [*lines[:8], *(line.replace(line.split(",")[6], "99.9", 1) for line in lines[8:2000]), *lines[2000:]]


@pytest.mark.parametrize(
    ("change", "code", "line"),
    [
        (lambda lines: lines[:-1], "hours_missing", 8767),
        (lambda lines: lines[1:], "header_wrong", 1),
        (lambda lines: lines[:8], "hours_missing", 9),
        (lambda lines: [], "header_wrong", 1),
        (cell(1, 6, "152"), "header_wrong", 1),
        (cell(40, 6, "warm"), "value_out_of_range", 40),
        (cell(40, 8, "140"), "value_out_of_range", 40),
        (cell(40, 1, "13"), "date_unreadable", 40),
        (cell(40, 1, "2"), "hours_out_of_order", 40),
        (cell(40, 3, "3"), "hours_out_of_order", 40),
        (lambda lines: [*lines[:39], lines[39] + ",0", *lines[40:]], "wrong_column_count", 40),
        (lambda lines: [*lines[:39], "1999,1,2", *lines[40:]], "wrong_column_count", 40),
        (swapped, "value_out_of_range", 9),
        (many_missing, "values_missing", 9),
    ],
)  # fmt: skip
def test_a_wrong_file_is_refused_at_its_line(change: Callable[[list[str]], list[str]], code: str, line: int) -> None:
    with pytest.raises(DomainError) as refused:
        read_epw(content(change(epw())))
    issue = refused.value.issues[0]
    assert (issue.code, issue.path) == (code, ("line", line))
    assert issue.hint


def test_what_is_no_text_is_refused() -> None:
    with pytest.raises(DomainError) as refused:
        read_weather(b"\x00\x01\x02LOCATION" * 50, "x.epw")
    assert refused.value.issues[0].code == "not_a_text"


# --- CSV ----------------------------------------------------------------------------------------------------------

ROWS = [(-8.1, 79), (-6.3, 76), (-1.2, 72), (6.0, 68), (13.3, 65), (18.8, 64), (20.9, 65), (19.1, 68), (14.0, 72),
        (6.8, 76), (-0.5, 79), (-6.0, 80)]  # fmt: skip


def csv(separator: str = ",", decimal: str = ".", header: str = "month,temperature,humidity") -> str:
    lines = [header.replace(",", separator)]
    for n, (theta, phi) in enumerate(ROWS, 1):
        lines.append(separator.join([str(n), f"{theta:.1f}".replace(".", decimal), str(phi)]))
    return "\r\n".join(lines) + "\r\n"


@pytest.mark.parametrize(
    "text",
    [
        csv(),
        csv(";", ","),
        csv("\t", ","),
        "\ufeff" + csv(header="Month,Temperature [°C],Relative humidity (%)"),
        csv().replace("\r\n", "\n\n"),
    ],
)
def test_months_are_read_however_they_are_written(text: str) -> None:
    found = read_climate(text.encode(), "site")
    assert found.theta_e == tuple(theta for theta, _ in ROWS)
    assert found.phi_e == tuple(phi / 100 for _, phi in ROWS)


def test_swing_and_scatter_are_read_if_they_are_there() -> None:
    text = "theta,phi,swing,sigma\n" + "\n".join(f"{theta},{phi / 100},7.5,2" for theta, phi in ROWS)
    found = read_weather(text.encode(), "site.csv").climate
    assert (found.name, found.swing[3], found.sigma[3]) == ("site", 7.5, 2.0)


@pytest.mark.parametrize(
    ("text", "code"),
    [
        ("", "file_empty"),
        ("month,rain\n1,2", "column_missing"),
        (csv() + "13,1,50\r\n", "not_twelve_months"),
        (csv().replace("13.3", "nan"), "not_a_number"),
        (csv().replace("13.3", "mild"), "not_a_number"),
        (csv().replace("5,13.3,65", "5,13.3"), "wrong_column_count"),
        (csv().replace("20.9", "209"), "temperature_not_on_earth"),
    ],
)
def test_a_wrong_table_is_refused(text: str, code: str) -> None:
    with pytest.raises(DomainError) as refused:
        read_climate(text.encode(), "site")
    assert refused.value.issues[0].code == code

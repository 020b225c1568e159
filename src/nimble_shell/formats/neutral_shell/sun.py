"""Sun of the neutral shell case: positions, windows with their overhang."""

from __future__ import annotations

import math
from dataclasses import asdict
from typing import Annotated, Any, Literal

from pydantic import Discriminator, Tag

from nimble_shell.core.errors import Collector, Path
from nimble_shell.core.sun.clear_sky import ClearSky
from nimble_shell.core.sun.overhang import INFINITE, Overhang, SunWindow, at_moment, best_depth, sun_day
from nimble_shell.core.sun.position import Clock, Day, declination, equation_of_time, solar_time, sun_at
from nimble_shell.formats.neutral_shell.values import (
    DayCase,
    Hour,
    Latitude,
    NotNegative,
    Positive,
    Share,
    each,
    missing,
    only_once,
)
from nimble_shell.formats.strict import Number, Strict


class SkyCase(Strict):
    A: Positive
    B: NotNegative
    C: NotNegative
    rho_g: Share

    def sky(self) -> ClearSky:
        return ClearSky(A=self.A, B=self.B, C=self.C, rho_g=self.rho_g)


class MomentCase(DayCase):
    hour: Hour

    def moment(self, *path: str | int) -> tuple[Day, float]:
        return self.day_at(*path), self.hour


class PositionCase(MomentCase):
    time: Literal["solar", "clock"] = "solar"


Extend = Annotated[
    Annotated[Literal["infinite"], Tag("tagged-endless")] | Annotated[NotNegative, Tag("tagged-metres")],
    Discriminator(lambda value: "tagged-endless" if isinstance(value, str) else "tagged-metres"),
]


class OverhangCase(Strict):
    depth: NotNegative
    gap: NotNegative
    extend: Extend

    def overhang(self) -> Overhang:
        extend = INFINITE if self.extend == "infinite" else self.extend
        return Overhang(depth=self.depth, gap=self.gap, extend=extend)


class BestCase(Strict):
    shade: MomentCase
    sun: MomentCase


class SunWindowCase(Strict):
    id: str
    azimuth: Number
    w: Positive
    h: Positive
    overhang: OverhangCase | None = None
    at: list[MomentCase] | None = None
    days: list[DayCase] | None = None
    best: BestCase | None = None


class SunCase(Strict):
    latitude: Latitude
    longitude: Number | None = None
    utc_offset: Number | None = None
    clear_sky: SkyCase | None = None
    positions: list[PositionCase] | None = None
    windows: list[SunWindowCase] | None = None


def answer_sun(case: SunCase) -> dict[str, Any]:
    """Answer the block.

    Raises
    ------
    DomainError
        With the path of what is wrong in the case file.
    """
    answer: dict[str, Any] = {}
    if case.positions is not None:
        answer["positions"] = each(case.positions, lambda one, path: _position(one, path, case), "sun", "positions")
    if case.windows is not None:
        check = Collector()
        only_once(check, (one.id for one in case.windows), "sun", "windows")
        check.refuse()
        answer["windows"] = dict(each(case.windows, lambda one, path: (one.id, _window(one, path, case)),
                                      "sun", "windows"))  # fmt: skip
    return answer


def _position(one: PositionCase, path: Path, case: SunCase) -> dict[str, float]:
    day, clock = one.day_at(*path), None
    if one.time == "clock":
        if case.longitude is None or case.utc_offset is None:
            raise missing("sun", "longitude" if case.longitude is None else "utc_offset")
        clock = Clock(longitude=case.longitude, utc_offset=case.utc_offset)
    hour = solar_time(day, one.hour, clock)
    sun = sun_at(case.latitude, day, hour)
    return {"declination": math.degrees(declination(day)), "equation_of_time": equation_of_time(day),
            "solar_time": hour, "altitude": math.degrees(float(sun.altitude)),
            "azimuth": math.degrees(float(sun.azimuth))}  # fmt: skip


def _window(one: SunWindowCase, path: Path, case: SunCase) -> dict[str, Any]:
    window = SunWindow(azimuth=one.azimuth, w=one.w, h=one.h,
                       overhang=None if one.overhang is None else one.overhang.overhang())  # fmt: skip
    answer: dict[str, Any] = {}
    if one.at is not None:
        moments = each(one.at, lambda at, where: at.moment(*where), *path, "at")
        answer["at"] = [asdict(at_moment(window, case.latitude, *moment)) for moment in moments]
    if one.days is not None:
        if case.clear_sky is None:
            raise missing("sun", "clear_sky")
        sky, days = case.clear_sky.sky(), each(one.days, lambda day, where: day.day_at(*where), *path, "days")
        answer["days"] = [asdict(sun_day(window, case.latitude, day, sky)) for day in days]
    if one.best is not None:
        if one.overhang is None:
            raise missing(*path, "overhang")
        answer["best"] = asdict(best_depth(window, case.latitude, one.best.shade.moment(*path, "best", "shade"),
                                           one.best.sun.moment(*path, "best", "sun")))  # fmt: skip
    return answer

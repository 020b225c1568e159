"""Air inside and outside at one moment of the year."""

from __future__ import annotations

from dataclasses import dataclass

from nimble_shell.core.basis.basis import Basis
from nimble_shell.core.climate import MONTHS, p_sat
from nimble_shell.core.errors import DomainError, Issue
from nimble_shell.core.working import value_of


@dataclass(frozen=True, slots=True, kw_only=True)
class Condition:
    """Indoor and outdoor air at one moment of the year."""

    name: str
    theta_i: float  #: [°C]
    phi_i: float  #: 0…1
    theta_e: float  #: [°C]
    phi_e: float  #: 0…1
    origin: str


def condition(basis: Basis, key: str) -> Condition:
    """A month ("0" … "11"), or the design moment "winter" or "summer".

    Raises
    ------
    DomainError
        If there is no such condition.
    """
    climate, indoor, site = basis.climate, basis.indoor, basis.site
    if key in ("winter", "summer"):
        month = climate.coldest if key == "winter" else max(range(12), key=lambda m: climate.theta_e[m])
        theta_e = site.theta_winter if key == "winter" else site.theta_summer
        theta_i = indoor.theta_heating if key == "winter" else indoor.theta_cooling
        phi_i = indoor.humidity(theta_i, theta_e, climate.phi_e[month], heated=key == "winter")
        origin = f"Basis: design temperature, relative humidity of {MONTHS[month]}"
        return Condition(
            name=f"{key} design",
            theta_i=theta_i,
            phi_i=phi_i,
            theta_e=theta_e,
            phi_e=climate.phi_e[month],
            origin=origin,
        )
    if not (key.isdecimal() and int(key) < 12):
        raise DomainError(
            Issue(
                path=("condition",),
                code="unknown_condition",
                message=f"there is no condition “{key}”",
                hint="a month from 0 (January) to 11, winter or summer",
            )
        )
    month = int(key)
    theta_e = climate.theta_e[month]
    theta_i, phi_i = indoor.in_month(theta_e, climate.phi_e[month])
    return Condition(
        name=f"{MONTHS[month]} mean",
        theta_i=theta_i,
        phi_i=phi_i,
        theta_e=theta_e,
        phi_e=climate.phi_e[month],
        origin="Basis: monthly climate",
    )


MOULD = 0.8  #: relative humidity at a surface from which mould may grow, ISO 13788:2012, 5.1


def critical_temperature(moment: Condition) -> float:
    """Surface temperature at which the room's air has 80 % at the surface. [°C]

    References
    ----------
    .. [1] ISO 13788:2012, 5.1 and 5.3.
    """
    p = moment.phi_i * value_of(p_sat(moment.theta_i)) / MOULD
    low, high = -60.0, 80.0
    for _ in range(60):
        middle = (low + high) / 2
        low, high = (middle, high) if value_of(p_sat(middle)) < p else (low, middle)
    return (low + high) / 2

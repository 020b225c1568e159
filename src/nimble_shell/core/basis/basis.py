"""Basis: site, climate, indoor conditions, what is asked, and the schools in use."""

from __future__ import annotations

from dataclasses import dataclass, field

from nimble_shell.core.basis.criteria import Criterion, Handling
from nimble_shell.core.basis.damp import AirDrive, DampLimits
from nimble_shell.core.basis.economy import Economy
from nimble_shell.core.basis.indoor import Indoor
from nimble_shell.core.basis.schools import Schools
from nimble_shell.core.basis.site import Site
from nimble_shell.core.basis.targets import Limits, Targets
from nimble_shell.core.climate import MonthlyClimate, cold_continental
from nimble_shell.core.errors import Collector
from nimble_shell.core.materials.rates import Rate


@dataclass(frozen=True, slots=True, kw_only=True)
class Basis:
    """What everything else rests on."""

    site: Site = field(default_factory=Site)
    climate: MonthlyClimate = field(default_factory=cold_continental)
    indoor: Indoor = field(default_factory=Indoor)
    targets: Targets = field(default_factory=Targets)
    schools: Schools = field(default_factory=Schools)
    limits: Limits = field(default_factory=Limits)
    economy: Economy = field(default_factory=Economy)
    rates: tuple[Rate, ...] = ()
    criteria: tuple[Criterion, ...] = ()
    handling: Handling = field(default_factory=Handling)
    damp: DampLimits = field(default_factory=DampLimits)
    air: AirDrive = field(default_factory=AirDrive)

    def __post_init__(self) -> None:
        check = Collector()
        for name, keys in (
            ("rates", [rate.material for rate in self.rates]),
            ("criteria", [criterion.key for criterion in self.criteria]),
        ):
            check.check(len(set(keys)) == len(keys), (name,), "listed_twice", f"{name} name one thing twice",
                        "name each once")  # fmt: skip
        check.refuse()

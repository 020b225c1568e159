"""What a building stands on, how tight it is meant to be, and what its plant has to do; usual values to start from."""

from __future__ import annotations

from dataclasses import dataclass, field
from typing import Literal

from nimble_shell.core.errors import Collector
from nimble_shell.core.quantities.sentence import sentence

Range = tuple[float, float, float]  #: low, likely, high
Said = Literal["yes", "no", "unknown"]
#: What keeps soil gas out of the rooms, from the soil up.
GAS_LINES = {"pipe": "passive pipe", "membrane": "membrane", "fan": "place for a fan"}


@dataclass(frozen=True, slots=True, kw_only=True)
class Ground:
    """Soil below and beside a building, and foam along its edge."""

    lambda_: float = 2.0  #: of the soil [W/(m·K)]
    rho_c: float = 2.0e6  #: of the soil [J/(m³·K)]
    edge_depth: float = 0.0  #: of upright foam at the edge of a slab; 0 without any [m]
    edge_width: float = 0.0  #: of level foam beside a slab; 0 without any [m]
    edge_d: float = 0.08  #: thickness of either [m]
    edge_lambda: float = 0.036  #: of either [W/(m·K)]
    frost: float | None = None  #: how deep it freezes, by the local code [m]
    footing: float | None = None  #: depth of the footing's underside [m]
    gas_pipe: Said = "unknown"  #: a passive pipe under the floor that draws soil gas off
    gas_membrane: Said = "unknown"  #: a membrane, taped to the wall's air line
    gas_fan: Said = "unknown"  #: room and power for a fan in the pipe

    @property
    def frost_bites(self) -> bool:
        """Whether frost reaches below the footing with no level foam beside it."""
        return self.frost is not None and self.footing is not None and self.footing < self.frost and not self.edge_width

    @property
    def soil_gas(self) -> dict[str, Said]:
        """What is said of each of GAS_LINES."""
        return {"pipe": self.gas_pipe, "membrane": self.gas_membrane, "fan": self.gas_fan}

    def __post_init__(self) -> None:
        check = Collector()
        check.check(0.1 <= self.lambda_ <= 10, ("lambda",), "conductivity_out_of_range",
                    sentence("soil of {v}", v=(self.lambda_, "conductivity")),
                    sentence("{a} to {b}", a=(0.1, "conductivity"), b=(10.0, "conductivity")))  # fmt: skip
        check.check(1e5 <= self.rho_c <= 1e7, ("rho_c",), "capacity_out_of_range", f"heat capacity {self.rho_c:g}",
                    "from 100 000 to 10 000 000 joules for a cubic metre and a kelvin")  # fmt: skip
        for name in ("edge_depth", "edge_width", "frost", "footing"):
            value = getattr(self, name) or 0.0
            check.check(0 <= value <= 5, (name,), "length_out_of_range", sentence("{v}", v=(value, "distance")),
                        sentence("0 to {v}", v=(5.0, "distance")))  # fmt: skip
        check.check(0.005 <= self.edge_d <= 0.5, ("edge_d",), "length_out_of_range",
                    sentence("foam of {v}", v=(self.edge_d, "length")),
                    sentence("{a} to {b}", a=(0.005, "length"), b=(0.5, "length")))  # fmt: skip
        check.check(0.01 <= self.edge_lambda <= 0.2, ("edge_lambda",), "conductivity_out_of_range",
                    sentence("foam of {v}", v=(self.edge_lambda, "conductivity")),
                    sentence("{a} to {b}", a=(0.01, "conductivity"), b=(0.2, "conductivity")))  # fmt: skip
        check.refuse()


@dataclass(frozen=True, slots=True, kw_only=True)
class Tightness:
    """What is asked of the air line, and what leaks beside the joints. Leaks are at 50 Pa."""

    n50_asked: float | None = None  #: [1/h]
    exponent: float = 0.65  #: of the flow with pressure
    shelter_e: float = 0.07  #: of infiltration, ISO 13789
    shelter_f: float = 15.0
    openings: Range = (0.5, 1.5, 4.0)  #: through the gaps of windows and doors, along their frames [m³/(h·m)]
    services: int = 0  #: pipes, cables and boxes that pierce the air line
    service: Range = (0.5, 1.5, 4.0)  #: of each [m³/h]
    surfaces: Range = (0.01, 0.03, 0.08)  #: through panels and boards themselves [m³/(h·m²)]
    unsealed: Range = (0.3, 0.6, 1.5)  #: of joints whose seals nobody has drawn [m³/(h·m)]

    def __post_init__(self) -> None:
        check = Collector()
        check.check(self.n50_asked is None or 0 < self.n50_asked <= 20, ("n50_asked",), "target_out_of_range",
                    f"n50 of {self.n50_asked or 0:g} an hour", "above 0 and up to 20")  # fmt: skip
        check.check(0.5 <= self.exponent <= 1, ("exponent",), "exponent_out_of_range", f"exponent {self.exponent:g}",
                    "0.5, a hole, to 1, a felt")  # fmt: skip
        check.check(0.001 <= self.shelter_e <= 0.5, ("shelter_e",), "shelter_out_of_range", f"e of {self.shelter_e:g}",
                    "0.001 to 0.5")  # fmt: skip
        check.check(0 <= self.shelter_f <= 100, ("shelter_f",), "shelter_out_of_range", f"f of {self.shelter_f:g}",
                    "0 to 100")  # fmt: skip
        check.check(0 <= self.services <= 10_000, ("services",), "number_out_of_range",
                    f"{self.services} passages", "0 to 10 000")  # fmt: skip
        for name in ("openings", "service", "surfaces", "unsealed"):
            low, likely, high = getattr(self, name)
            check.check(0 <= low <= likely <= high <= 1e4, (name,), "not_in_order",
                        f"{low:g}, {likely:g}, {high:g}", "low, likely, high, from 0 on")  # fmt: skip
        check.refuse()


@dataclass(frozen=True, slots=True, kw_only=True)
class FreshAir:
    """Air that is moved on purpose. Flows in m³/h."""

    persons: float = 4.0
    q_person: float = 25.0
    q_area: float = 0.0  #: [m³/(h·m²)]
    extract: float = 0.0  #: of kitchens and baths together
    n_min: float = 0.0  #: least change of air [1/h]
    q_design: float | None = None  #: of the unit; that required where none is given
    eta_t: float = 0.0  #: recovery of heat
    eta_x: float = 0.0  #: recovery of moisture
    sfp: float = 0.4  #: of both fans [W/(m³/h)]
    low_share: float = 0.0  #: of the time at a lower speed
    low_factor: float = 0.5  #: of the flow then
    moisture: float = 0.3  #: set free in the rooms [kg/h]
    apart: float | None = None  #: of intake and exhaust; None while nobody has measured [m]
    apart_asked: float = 3.0  #: least distance of them, by the local code [m]

    def __post_init__(self) -> None:
        check = Collector()
        for name, most in (("persons", 1e4), ("q_person", 500.0), ("q_area", 100.0), ("extract", 1e5), ("n_min", 50.0),
                           ("sfp", 10.0), ("moisture", 1e3)):  # fmt: skip
            value = getattr(self, name)
            check.check(0 <= value <= most, (name,), "flow_out_of_range", f"{value:g}", f"0 to {most:g}")
        check.check(self.q_design is None or 0 <= self.q_design <= 1e6, ("q_design",), "flow_out_of_range",
                    f"{self.q_design or 0:g}", "0 to 1 000 000")  # fmt: skip
        for name in ("eta_t", "eta_x", "low_share", "low_factor"):
            value = getattr(self, name)
            check.check(0 <= value <= 1, (name,), "share_out_of_range", f"{100 * value:g} %", "0 to 100 %")
        for name in ("apart", "apart_asked"):
            value = getattr(self, name)
            check.check(
                value is None or 0 <= value <= 100,
                (name,),
                "length_out_of_range",
                sentence("{v}", v=(value or 0.0, "distance")),
                sentence("0 to {v}", v=(100.0, "distance")),
            )
        check.refuse()


@dataclass(frozen=True, slots=True, kw_only=True)
class Fire:
    """A fire or a hood that draws on the air of the rooms."""

    hood: float = 0.0  #: extract while it runs [m³/h]
    flue: bool = False  #: whether a fire takes its air from the room
    flue_z: float = 0.5  #: height of its opening above the floor [m]
    limit: float = 4.0  #: how far the room may lie below the outside there, of its maker [Pa]
    wind: float = 2.0  #: [m/s]

    def __post_init__(self) -> None:
        check = Collector()
        check.check(0 <= self.hood <= 1e5, ("hood",), "flow_out_of_range", f"{self.hood:g}", "0 to 100 000")
        check.check(-5 <= self.flue_z <= 60, ("flue_z",), "height_out_of_range",
                    sentence("{v}", v=(self.flue_z, "distance")),
                    sentence("{a} to {b}", a=(-5.0, "distance"), b=(60.0, "distance")))  # fmt: skip
        check.check(0 < self.limit <= 100, ("limit",), "pressure_out_of_range",
                    sentence("{v}", v=(self.limit, "pressure")),
                    sentence("above 0 and up to {v}", v=(100.0, "pressure")))  # fmt: skip
        check.check(0 <= self.wind <= 60, ("wind",), "wind_out_of_range", sentence("{v}", v=(self.wind, "speed")),
                    sentence("0 to {v}", v=(60.0, "speed")))  # fmt: skip
        check.refuse()


@dataclass(frozen=True, slots=True, kw_only=True)
class Loads:
    """What heats and cools it, and what is taken without a calculation."""

    persons_W: float = 70.0  #: sensible heat of a person [W]
    gains: float = 3.0  #: of lamps and things, mean of day and night [W/m²]
    shade: float = 1.0  #: of the sun that a shade lets through in summer, 1 without one
    overhang: float = 0.0  #: depth of a plate above the windows; 0 without [m]
    overhang_gap: float = 0.2  #: of it above their heads [m]
    alpha: float = 0.6  #: of the sun, at outer surfaces
    night_air: float = 0.0  #: air let through in summer [m³/h]
    vent_low: float = 0.0  #: free area of openings near the floor, for venting by height [m²]
    vent_high: float = 0.0  #: the same under the roof [m²]
    vent_rise: float = 3.0  #: from the one to the other [m]
    reheat: float = 0.0  #: for heating up again [W/m²]
    rule_heating: float = 80.0  #: what a contractor would take by floor area [W/m²]
    rule_cooling: float = 100.0  #: the same for cooling [W/m²]
    shielding: float = 0.05  #: e of the heating load, EN 12831
    clearness: float = 0.45  #: sun of the months, of that of clear days
    inner_mass: float = 40e3  #: heat that inner walls and floors store, over the floor [J/(m²·K)]

    def __post_init__(self) -> None:
        check = Collector()
        for name, most in (
            ("persons_W", 500.0),
            ("gains", 500.0),
            ("reheat", 200.0),
            ("night_air", 1e5),
            ("inner_mass", 1e6),
            ("vent_low", 1e3),
            ("vent_high", 1e3),
            ("vent_rise", 100.0),
        ):
            value = getattr(self, name)
            check.check(0 <= value <= most, (name,), "load_out_of_range", f"{value:g}", f"0 to {most:g}")
        for name in ("rule_heating", "rule_cooling"):
            value = getattr(self, name)
            check.check(0 < value <= 1000, (name,), "load_out_of_range", f"{value:g}", "above 0 and up to 1 000")
        for name in ("shade", "alpha", "shielding", "clearness"):
            value = getattr(self, name)
            check.check(0 <= value <= 1, (name,), "share_out_of_range", f"{100 * value:g} %", "0 to 100 %")
        for name in ("overhang", "overhang_gap"):
            value = getattr(self, name)
            check.check(0 <= value <= 20, (name,), "length_out_of_range", sentence("{v}", v=(value, "distance")),
                        sentence("0, above the head of the window, to {v}", v=(20.0, "distance")))  # fmt: skip
        check.refuse()


@dataclass(frozen=True, slots=True, kw_only=True)
class Buffer:
    """What lies beyond faces to an unheated space: a loft, a garage, a glazed porch. Without figures it is outside."""

    H_outwards: float = 0.0  #: from it to the outside, by its own areas and joints [W/K]
    V: float = 0.0  #: its air [m³]
    n: float = 0.5  #: changes of its air with the outside [1/h]
    sun: float = 0.0  #: that its glass takes in, mean of the heating season; 0 counts none [W]

    def __post_init__(self) -> None:
        check = Collector()
        for name, most in (("H_outwards", 1e6), ("V", 1e6), ("n", 200.0), ("sun", 1e6)):
            value = getattr(self, name)
            check.check(0 <= value <= most, (name,), "out_of_range", f"{value:g}", f"0 to {most:g}")
        check.refuse()

    @property
    def known(self) -> bool:
        """Whether anything was said of it."""
        return self.H_outwards > 0 or self.V * self.n > 0


@dataclass(frozen=True, slots=True, kw_only=True)
class MeasurePrice:
    """What somebody was offered a measure for, in the place of the practice's rates."""

    key: str  #: of the measure
    cost: float  #: in the currency of the Basis

    def __post_init__(self) -> None:
        check = Collector()
        check.check(0 <= self.cost <= 1e9, ("cost",), "cost_negative" if self.cost < 0 else "cost_out_of_range",
                    f"it costs {self.cost:g}", "0 or more")  # fmt: skip
        check.refuse()


@dataclass(frozen=True, slots=True, kw_only=True)
class Plant:
    """All of it, of one building."""

    ground: Ground = field(default_factory=Ground)
    tightness: Tightness = field(default_factory=Tightness)
    air: FreshAir = field(default_factory=FreshAir)
    fire: Fire = field(default_factory=Fire)
    loads: Loads = field(default_factory=Loads)
    buffer: Buffer = field(default_factory=Buffer)
    floor_area: float | None = None  #: heated; of the shape where none is given [m²]
    volume: float | None = None  #: inner; of the shape where none is given [m³]
    prices: tuple[MeasurePrice, ...] = ()

    def __post_init__(self) -> None:
        check = Collector()
        for name in ("floor_area", "volume"):
            value = getattr(self, name)
            check.check(value is None or 0 < value <= 1e6, (name,), "size_out_of_range", f"{value or 0:g}", "above 0")
        check.refuse()

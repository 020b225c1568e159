"""What is bought for a building: net amounts, waste, rounding to what is sold, and cost at the practice's rates."""

from __future__ import annotations

from dataclasses import dataclass

from nimble_shell.core.errors import Collector
from nimble_shell.core.quantities.sentence import sentence
from nimble_shell.core.shop.quantities.counts import whole

MOST = 400


@dataclass(frozen=True, slots=True, kw_only=True)
class Price:
    """Of one piece, or of one unit of an amount, as the practice pays."""

    key: str  #: of a row
    price: float

    def __post_init__(self) -> None:
        check = Collector()
        check.check(0 <= self.price < 1e7, ("price",), "out_of_range", f"{self.price:g}", "nought or above")
        check.refuse()


@dataclass(frozen=True, slots=True, kw_only=True)
class BillChoices:
    """Sizes that things are sold in, and what they cost."""

    tube: float = 0.0006  #: of sealant [m³]
    bead: float = 0.010  #: diameter of a bead [m]
    roll: float = 25.0  #: of tape [m]
    overlap: float = 0.1  #: where a tape ends [m]
    can: float = 25.0  #: joint that a can of foam fills [m]
    mesh: float = 50.0  #: of a roll of mesh [m²]
    sealing: float = 0.1  #: waste of sealant, tape and foam
    layers: float = 0.05  #: waste of boards, foam and membranes
    prices: tuple[Price, ...] = ()

    def __post_init__(self) -> None:
        check = Collector()
        for name, dimension, least, most in (
            ("tube", "volume", 5e-5, 0.05), ("bead", "length", 0.001, 0.1), ("roll", "distance", 1.0, 1000.0),
            ("overlap", "length", 0.0, 1.0), ("can", "distance", 0.5, 1000.0), ("mesh", "area", 0.5, 2000.0),
        ):  # fmt: skip
            value = getattr(self, name)
            check.check(least <= value <= most, (name,), "out_of_range", sentence("{v}", v=(value, dimension)),
                        sentence("{a} to {b}", a=(least, dimension), b=(most, dimension)))  # fmt: skip
        for name in ("sealing", "layers"):
            value = getattr(self, name)
            check.check(0 <= value <= 1, (name,), "out_of_range", f"{100 * value:g} %", "0 to 100 %")
        check.check(len(self.prices) <= MOST, ("prices",), "too_many", f"{len(self.prices)} prices", f"at most {MOST}")
        check.refuse()

    def price(self, key: str) -> float | None:
        """What a row costs; None while nobody has said."""
        return next((one.price for one in self.prices if one.key == key), None)


@dataclass(frozen=True, slots=True, kw_only=True)
class BillRow:
    """A thing that is bought."""

    key: str
    group: str
    what: str
    where: str
    net: float  #: in SI, by `dimension`
    dimension: str
    waste: float
    sold: float | None  #: size of one that is sold; None of what is bought by measure
    of: str  #: what one is called; empty of what is bought by measure
    count: int | None  #: of them
    price: float | None  #: of one, or of a unit of the amount
    whole: bool = True  #: False where a face or a run lacks
    thick: float | None = None  #: of a layer [m]

    @property
    def ordered(self) -> float:
        """With its waste."""
        return self.net * (1 + self.waste)

    @property
    def cost(self) -> float | None:
        """None where no price is known, or the amount lacks a part."""
        if self.price is None or not self.whole:
            return None
        return self.price * (self.ordered if self.count is None else self.count)


def bought(key: str, group: str, what: str, where: str, net: float, dimension: str, choices: BillChoices, *,
           waste: float = 0.0, sold: float | None = None, of: str = "", price: float | None = None,
           whole_: bool = True) -> BillRow:  # fmt: skip
    """A row, rounded up to what is sold."""
    count = None if sold is None else whole(net * (1 + waste) / sold)
    own = choices.price(key)
    return BillRow(key=key, group=group, what=what, where=where, net=net, dimension=dimension, waste=waste, sold=sold,
                   of=of, count=count, price=price if own is None else own, whole=whole_)  # fmt: skip


def pieces(key: str, group: str, what: str, where: str, count: int, choices: BillChoices, *,
           whole_: bool = True) -> BillRow:  # fmt: skip
    """A row of things that are counted."""
    return BillRow(key=key, group=group, what=what, where=where, net=float(count), dimension="ratio", waste=0.0,
                   sold=1.0, of="piece", count=count, price=choices.price(key), whole=whole_)  # fmt: skip

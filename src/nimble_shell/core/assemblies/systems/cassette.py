"""7 · Framed cassette: studs with insulation between, a continuous board outside, a service void inside."""

from __future__ import annotations

from collections.abc import Mapping

from nimble_shell.core.assemblies.assembly import Member
from nimble_shell.core.assemblies.systems.system import FIBRE_CORES, LayerStack, System
from nimble_shell.core.parameters import Choice, Parameter, Value, number, word


def _frame(stack: LayerStack, values: Mapping[str, Value], *, plates: bool) -> None:
    stud = Member(name="stud", material="softwood", joint="stud", width=number(values, "stud_width"),
                  centres=number(values, "centres"))  # fmt: skip
    ends = Member(
        name="plates",
        material="softwood",
        run="horizontal",
        joint="plate",
        width=0.135,
        centres=number(values, "height"),
    )
    stack.add(word(values, "infill"), number(values, "stud"), core=True, members=(stud, ends) if plates else (stud,),
              control=("heat",), fitted="shop")  # fmt: skip


def _void(stack: LayerStack, values: Mapping[str, Value]) -> None:
    stack.add("gypsum-board", 0.0125, fitted="late")
    fill = "wood-fibre-flex" if word(values, "void_fill") == "insulated" else ""
    stack.void(number(values, "void"), fill=fill, centres=0.625)


def wall(values: Mapping[str, Value]) -> LayerStack:
    """Layers inside → outside. The service void's battens cross the studs."""
    stack = LayerStack()
    _void(stack, values)
    stack.add("vapour-variable", 0.0005, control=("air", "vapour"), fitted="shop")
    stack.add("osb", 0.015, fitted="shop")
    _frame(stack, values, plates=True)
    if number(values, "board") > 0:
        stack.add("wood-fibre-board", number(values, "board"), control=("heat",), fitted="shop")
    stack.add("wind-membrane", 0.0005, control=("rain", "wind"), fitted="shop")
    stack.gap(0.030)
    stack.add("larch-boards", 0.022)
    return stack


def roof(values: Mapping[str, Value]) -> LayerStack:
    """Layers inside → outside, rafters as studs; ventilated above the outer board."""
    stack = LayerStack()
    _void(stack, values)
    stack.add("vapour-variable", 0.0005, control=("air", "vapour"))
    _frame(stack, values, plates=False)
    if number(values, "board") > 0:
        stack.add("wood-fibre-sarking", number(values, "board"), control=("heat",))
    stack.add("wind-membrane", 0.0005, control=("rain", "wind"))
    stack.gap(0.050)
    stack.add("steel", 0.0006)
    return stack


def floor(values: Mapping[str, Value]) -> LayerStack:
    """Layers inside → outside, over a crawl space."""
    stack = LayerStack()
    stack.add("softwood", 0.020, fitted="late")
    stack.add("osb", 0.018, control=("air", "vapour"), fitted="shop")
    _frame(stack, values, plates=False)
    stack.add("wood-fibre-board", max(number(values, "board"), 0.02), control=("wind", "heat"), fitted="shop")
    return stack


_PARAMETERS = (
    Parameter(key="stud_width", text="stud width", start=0.045, least=0.036, most=0.080),
    Parameter(key="centres", text="stud centres", start=0.600, least=0.400, most=0.625),
    Parameter(key="height", text="element height", start=2.7, least=1.2, most=4.0),
    Choice(key="infill", text="infill", start="wood-fibre-flex",
           options=("wood-fibre-flex", "cellulose-blown", "mineral-wool-035", "hemp-batt")),
    Parameter(key="board", text="continuous board", start=0.060, least=0.0, most=0.120),
    Parameter(key="void", text="service void", start=0.045, least=0.0, most=0.100),
    Choice(key="void_fill", text="void", start="empty", options=("empty", "insulated")),
)  # fmt: skip
_CAUTIONS = (
    "Racking, anchorage and lifting points are a licensed engineer's.",
    "Tape the membrane joints before the battens go on.",
    "Services stay inside the air layer, or it is pierced.",
    "Cavity barriers at the intervals of the local fire rules.",
    "A pipe through the wall is a bridge: lag it through the wall and on the room side.",
)
SYSTEMS = (
    System(
        key="cassette", kind=7, place="wall", name="Framed cassette",
        anatomy="cladding on battens, wind-tight membrane, wood-fibre board, studs with insulation, board, control "
        "layer, service void, lining",
        parameters=(Parameter(key="stud", text="stud depth", start=0.200, least=0.090, most=0.300), *_PARAMETERS),
        build=wall, cautions=_CAUTIONS, cores=FIBRE_CORES,
    ),
    System(
        key="cassette-roof", kind=7, place="roof", name="Framed cassette roof",
        anatomy="roofing, gap, membrane, dense wood-fibre board, rafters with insulation, control layer, void, lining",
        parameters=(Parameter(key="stud", text="rafter depth", start=0.280, least=0.120, most=0.400), *_PARAMETERS),
        build=roof, cautions=(*_CAUTIONS, "Working at height: guard edges before the deck is closed."), cores=FIBRE_CORES,
    ),
    System(
        key="cassette-floor", kind=7, place="floor", name="Framed cassette floor",
        anatomy="crawl space, wood-fibre board, joists with insulation, board, floor boards",
        parameters=(Parameter(key="stud", text="joist depth", start=0.220, least=0.120, most=0.400), *_PARAMETERS),
        build=floor, cautions=_CAUTIONS, cores=FIBRE_CORES,
    ),
)  # fmt: skip

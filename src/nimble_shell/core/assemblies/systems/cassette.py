"""Framed cassette: studs with insulation between, a continuous wood-fibre board outside, a service void inside."""

from __future__ import annotations

from collections.abc import Mapping

from nimble_shell.core.assemblies.assembly import AirGap, Layer, Member
from nimble_shell.core.assemblies.systems.system import Choice, Parameter, Stack, System, Value, number


def build(values: Mapping[str, Value]) -> tuple[Layer, ...]:
    """Layers inside → outside. The service void's battens cross the studs."""
    stack = Stack()
    stack.add("gypsum-board", 0.0125)
    void = number(values, "void")
    if void > 0:
        batten = Member(name="batten", material="softwood-battens", run="horizontal", width=0.045, centres=0.625)
        if values["void_fill"] == "insulated":
            stack.add("wood-fibre-flex", void, members=(batten,))
        else:
            stack.air(void, AirGap(), members=(batten,))
    stack.add("vapour-variable", 0.0005)
    stack.add("osb", 0.015)
    stud = Member(
        name="stud",
        material="softwood",
        width=number(values, "stud_width"),
        centres=number(values, "centres"),
    )
    plates = Member(name="plates", material="softwood", run="horizontal", width=0.135, centres=number(values, "height"))
    stack.add(str(values["infill"]), number(values, "stud"), core=True, members=(stud, plates))
    if number(values, "board") > 0:
        stack.add("wood-fibre-board", number(values, "board"))
    stack.add("wind-membrane", 0.0005)
    stack.air(0.030, AirGap(ventilation="well"))
    stack.add("larch-boards", 0.022)
    return tuple(stack.layers)


SYSTEM = System(
    key="cassette",
    name="Framed cassette",
    anatomy="cladding on battens, wind-tight membrane, wood-fibre board, studs with insulation, board, control layer, "
    "service void, lining",
    parameters=(
        Parameter(key="stud", text="stud depth", start=0.200, least=0.090, most=0.300),
        Parameter(key="stud_width", text="stud width", start=0.045, least=0.036, most=0.080),
        Parameter(key="centres", text="stud centres", start=0.600, least=0.400, most=0.625),
        Parameter(key="height", text="element height", start=2.7, least=1.2, most=4.0),
        Choice(
            key="infill",
            text="infill",
            start="wood-fibre-flex",
            options=("wood-fibre-flex", "cellulose-blown", "mineral-wool-035", "hemp-batt"),
        ),
        Parameter(key="board", text="continuous board", start=0.060, least=0.0, most=0.120),
        Parameter(key="void", text="service void", start=0.045, least=0.0, most=0.100),
        Choice(key="void_fill", text="void", start="empty", options=("empty", "insulated")),
    ),
    build=build,
    cautions=(
        "Racking, anchorage and lifting points are a licensed engineer's.",
        "Tape the membrane joints before the battens go on.",
        "Services stay inside the air layer, or it is pierced.",
        "Cavity barriers at the intervals of the local fire rules.",
        "A pipe through the wall is a bridge: lag it through the wall and on the room side.",
    ),
)

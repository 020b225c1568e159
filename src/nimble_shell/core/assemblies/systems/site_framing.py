"""12 · Site framing, the wall everybody compares with; and lofts with crossing insulation layers."""

from __future__ import annotations

from collections.abc import Mapping

from nimble_shell.core.assemblies.assembly import Member
from nimble_shell.core.assemblies.systems.system import FIBRE_CORES, LayerStack, System
from nimble_shell.core.parameters import Choice, Parameter, Value, number, word


def wall(values: Mapping[str, Value]) -> LayerStack:
    """Layers inside → outside: board, sheet, studs and batts, sheathing, membrane, cladding."""
    stack = LayerStack()
    stack.add("gypsum-board", 0.0125, fitted="late")
    stack.add("vapour-sheet", 0.0002, control=("air", "vapour"))
    stud = Member(name="stud", material="softwood", joint="stud", width=0.038, centres=number(values, "centres"))
    plates = Member(name="plates", material="softwood", run="horizontal", joint="plate", width=0.114, centres=2.44)
    share = number(values, "extra")
    extra = (Member(name="posts, headers, corners", material="softwood", joint="frame", share=share),) if share else ()
    stack.add(word(values, "batt"), number(values, "stud"), core=True, members=(stud, plates, *extra), services=True,
              control=("heat",))  # fmt: skip
    stack.add("osb", 0.011)
    stack.add("housewrap", 0.0005, control=("rain", "wind"))
    stack.gap(0.019)
    stack.add("larch-boards", 0.021)
    return stack


def loft(values: Mapping[str, Value]) -> LayerStack:
    """Layers inside → outside: ceiling, joists with insulation between, a second layer across them, open loft above."""
    stack = LayerStack()
    stack.add("gypsum-board", 0.0125, fitted="late")
    stack.add("vapour-variable", 0.0005, control=("air", "vapour"))
    joist = Member(name="joist", material="softwood", width=0.045, centres=number(values, "centres"))
    stack.add(word(values, "batt"), number(values, "joist"), members=(joist,), control=("heat",))
    batten = Member(name="crossing batten", material="softwood-battens", run="horizontal", width=0.045, centres=1.2)
    stack.add(word(values, "batt"), number(values, "over"), core=True, members=(batten,), control=("heat",))
    stack.add("wind-membrane", 0.0005, control=("wind",))
    stack.gap(0.100)
    stack.add("steel", 0.0006, control=("rain",))
    return stack


_CENTRES = Parameter(key="centres", text="centres", start=0.406, least=0.300, most=0.625)
SYSTEMS = (
    System(
        key="site-framing", kind=12, place="wall", name="Site framing",
        anatomy="cladding, gap, membrane, sheathing, studs and batts, sheet, board",
        parameters=(
            Parameter(key="stud", text="stud depth", start=0.140, least=0.089, most=0.235),
            _CENTRES,
            Parameter(key="extra", text="posts, headers, corners", start=0.06, least=0.0, most=0.25, dimension="share"),
            Choice(key="batt", text="batt", start="mineral-wool-035",
                   options=("mineral-wool-035", "mineral-wool-040", "wood-fibre-flex", "spray-open", "spray-closed")),
        ),
        build=wall,
        cautions=(
            "Framing and bracing are a licensed engineer's or the local prescriptive code's.",
            "The timber share of a real wall follows from its set-out; the start value is a guess.",
            "Services pierce the sheet unless they run in a void of their own.",
            "Fire stops at floor lines by the local rules.",
        ),
        cores=FIBRE_CORES,
    ),
    System(
        key="loft", kind=12, place="roof", name="Loft with crossing layers",
        anatomy="roofing, ventilated loft, membrane, insulation across, insulation between joists, control layer, ceiling",
        parameters=(
            Parameter(key="joist", text="joist depth", start=0.140, least=0.089, most=0.300),
            Parameter(key="over", text="layer across", start=0.200, least=0.040, most=0.400),
            _CENTRES,
            Choice(key="batt", text="insulation", start="mineral-wool-035",
                   options=("mineral-wool-035", "cellulose-blown", "wood-fibre-flex", "glass-wool-blown")),
        ),
        build=loft,
        cautions=(
            "Joists and roof structure are a licensed engineer's or the local prescriptive code's.",
            "Keep the loft ventilated; seal every hatch, lamp and pipe through the ceiling.",
            "Working at height: boards over the joists before anyone walks there.",
            "Lamps and flues keep their distance from insulation; local fire rules decide.",
        ),
        cores=FIBRE_CORES,
    ),
)  # fmt: skip

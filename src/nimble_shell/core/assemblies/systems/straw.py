"""9 and 10 · Straw: plastered bale panels, and compressed straw board walls."""

from __future__ import annotations

from collections.abc import Mapping

from nimble_shell.core.assemblies.assembly import Member
from nimble_shell.core.assemblies.fixing import Plate
from nimble_shell.core.assemblies.systems.system import LayerStack, System
from nimble_shell.core.parameters import Choice, Parameter, Value, number, word

#: Bales flat or on edge: material and thickness [m]. Stems lie along the flow in flat bales, across it on edge.
BALES = {"flat": ("straw-flat", 0.450), "on edge": ("straw-edge", 0.360)}


def bale(values: Mapping[str, Value]) -> LayerStack:
    """Layers inside → outside, with insulated top and bottom box plates as an area share."""
    stack = LayerStack()
    material, _ = BALES[word(values, "laid")]
    plaster = number(values, "plaster")
    stack.add("lime-cement-plaster", plaster, control=("air",), fitted="shop", passes=3)
    plates = Member(name="box plates", material="softwood", run="horizontal", joint="plate", width=0.076,
                    centres=number(values, "height"))  # fmt: skip
    stack.add(material, number(values, "bale"), core=True, members=(plates,), control=("heat",), fitted="shop")
    stack.add("lime-cement-plaster", plaster, control=("wind",) if values["siding"] == "boards" else ("rain", "wind"),
              fitted="shop", passes=3)  # fmt: skip
    if word(values, "siding") == "boards":
        stack.gap(0.030)
        stack.add("larch-boards", 0.022, control=("rain",))
    return stack


def board(values: Mapping[str, Value]) -> LayerStack:
    """Layers inside → outside: boards on both sides of a diffusion-open fill; a third board or a void inside."""
    stack = LayerStack()
    thickness = number(values, "board")
    stack.add("clay-plaster", 0.008, passes=2, fitted="late")
    boards = int(word(values, "boards"))
    if boards == 3:
        stack.add("straw-board", thickness, fitted="late")
    stack.add("straw-board", thickness, control=("air",))
    fill = stack.add(word(values, "fill"), number(values, "fill_thickness"), core=True, control=("heat",))
    stack.add("straw-board", thickness, control=("wind",))
    stack.fix("long screws with washers", "steel", n=number(values, "screws"), diameter=0.006, layer=fill,
              inner=thickness * 0.8, outer=thickness,
              head=Plate(material="steel", size=0.050, t=0.0012))  # fmt: skip
    stack.add("thin-render", 0.008, control=("rain",), passes=2)
    return stack


SYSTEMS = (
    System(
        key="straw-bale", kind=9, place="wall", name="Plastered straw-bale panel",
        anatomy="(siding), plaster, bales, plaster",
        parameters=(
            Choice(key="laid", text="bales laid", start="on edge", options=tuple(BALES)),
            Parameter(key="bale", text="bale thickness", start=0.360, least=0.300, most=0.500),
            Parameter(key="plaster", text="plaster each side", start=0.030, least=0.025, most=0.040),
            Parameter(key="height", text="panel height", start=2.7, least=1.2, most=4.0),
            Choice(key="siding", text="outside", start="plaster", options=("plaster", "boards")),
        ),
        build=bale,
        cautions=(
            "Bearing, lifting and bracing are a licensed engineer's.",
            "Bales above 20 % moisture stay out; keep rain off unprotected plaster and out of the splash zone.",
            "Weight decides the lift; cure the plaster before a panel is lifted.",
            "Fill every gap between bales before it is plastered.",
        ),
        cores=("straw-edge", "straw-flat", "cellulose-blown", "hemp-batt"),
    ),
    System(
        key="straw-board", kind=10, place="wall", name="Compressed straw board",
        anatomy="coating, straw board, diffusion-open fill, straw board, (third board), coating",
        parameters=(
            Choice(key="boards", text="boards", start="2", options=("2", "3")),
            Parameter(key="board", text="board thickness", start=0.058, least=0.038, most=0.060),
            Choice(key="fill", text="fill", start="cellulose-blown",
                   options=("cellulose-blown", "wood-fibre-flex", "hemp-batt", "sheep-wool")),
            Parameter(key="fill_thickness", text="fill thickness", start=0.160, least=0.040, most=0.300),
            Parameter(key="screws", text="long screws per m²", start=4.0, least=0.0, most=12.0, dimension="ratio"),
        ),
        build=board,
        cautions=(
            "Bearing and bracing are a licensed engineer's.",
            "Stagger the second layer over the joints of the first; foam and mesh the joints, tape the edges.",
            "Keep boards dry: stand them off the floor and close the top while building.",
            "Fire class of boards and fill is declared by the supplier; local rules decide.",
        ),
        cores=("cellulose-blown", "wood-fibre-flex", "hemp-batt", "sheep-wool", "mineral-wool-035"),
    ),
)  # fmt: skip

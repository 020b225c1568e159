"""2 · Structural insulated panel roof, wood- or metal-skinned."""

from __future__ import annotations

from collections.abc import Mapping

from nimble_shell.core.assemblies.assembly import Member
from nimble_shell.core.assemblies.systems import sip
from nimble_shell.core.assemblies.systems.system import FOAM_CORES, LayerStack, System
from nimble_shell.core.parameters import Choice, Parameter, Value, number, word


def roof(values: Mapping[str, Value]) -> LayerStack:
    """Layers inside → outside: lining, panel, membrane, over-batten gap, roofing; long screws into the frame."""
    stack = LayerStack()
    stack.add("gypsum-fibre", 0.0125, fitted="late")
    if word(values, "skins") == "steel":
        stack.add("steel", 0.0006, control=("air", "vapour"), fitted="shop")
        joint = Member(
            name="panel joints", material="steel", joint="seam", width=0.0012, centres=number(values, "module")
        )
        core = stack.add(word(values, "core_material"), number(values, "core"), core=True, members=(joint,),
                         control=("heat",), fitted="shop")  # fmt: skip
        stack.add("steel", 0.0006, fitted="shop")
        stack.fix("long panel screws", "stainless-steel", n=number(values, "screws"), diameter=0.0065, layer=core)
    else:
        sip.panel(stack, values, screws=number(values, "screws"))
    stack.add("housewrap", 0.0005, control=("rain", "wind"))
    if number(values, "gap") > 0:
        stack.gap(number(values, "gap"))
    stack.add("steel", 0.0006)
    return stack


SYSTEMS = (
    System(
        key="sip-roof", kind=2, place="roof", name="Structural insulated panel roof",
        anatomy="roofing, vented over-batten, membrane, skin, foam core, skin, lining",
        parameters=(
            *(p for p in sip.PANEL_PARAMETERS if p.key != "core"),
            Parameter(key="core", text="core thickness", start=0.285, least=0.090, most=0.400),
            Choice(key="skins", text="skins", start="wood", options=("wood", "steel")),
            Parameter(key="screws", text="long screws per m²", start=3.0, least=0.0, most=12.0, dimension="ratio"),
            Parameter(key="gap", text="over-batten gap", start=0.050, least=0.0, most=0.150),
        ),
        build=roof,
        cautions=(
            *sip.CAUTIONS,
            "The ridge joint is the first to wet: seal it on the inside, and vent above the outer skin.",
            "Working at height and lifting: the panel hangs at its pitch, no one stands below.",
        ),
        cores=FOAM_CORES,
    ),
)  # fmt: skip

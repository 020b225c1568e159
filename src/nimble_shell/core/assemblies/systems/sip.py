"""1 · Structural insulated panel, wall and floor: skins glued to a foam core, joined by splines."""

from __future__ import annotations

from collections.abc import Mapping

from nimble_shell.core.assemblies.assembly import Member
from nimble_shell.core.assemblies.systems.system import FOAM_CORES, LayerStack, System
from nimble_shell.core.parameters import Choice, Parameter, Value, number, word

_LUMBER = 0.038  #: thickness of one piece of framing lumber [m]
#: Width of timber that runs through the core at each panel joint [m].
SPLINES = {"surface": 0.0, "block": 0.0, "single lumber": _LUMBER, "double lumber": 2 * _LUMBER}


def panel(stack: LayerStack, values: Mapping[str, Value], *, screws: float) -> None:
    """Inner skin, core with splines and plates, outer skin. [m], long screws [1/m²]

    Notes
    -----
    Surface and block splines leave the core whole; what they cost at the joint is found by solving it. Plates are
    one bottom and two top pieces of lumber over the panel's height.
    """
    skin, material = number(values, "skin"), word(values, "skin_material")
    stack.add(material, skin, control=("air", "vapour"), fitted="shop")
    plates = Member(name="plates", material="softwood", run="horizontal", joint="plate", width=3 * _LUMBER,
                    centres=number(values, "height"))  # fmt: skip
    width = SPLINES[word(values, "spline")]
    spline = (
        (Member(name="spline", material="softwood", joint="seam", width=width, centres=number(values, "module")),)
        if width
        else ()
    )
    core = stack.add(word(values, "core_material"), number(values, "core"), core=True, members=(*spline, plates),
                     control=("heat",), fitted="shop")  # fmt: skip
    stack.add(material, skin, fitted="shop")
    stack.fix("long panel screws", "steel", n=screws, diameter=0.006, layer=core, inner=skin, outer=skin)


def wall(values: Mapping[str, Value]) -> LayerStack:
    """Layers inside → outside."""
    stack = LayerStack()
    stack.add(word(values, "lining"), 0.0125, fitted="late")
    stack.void(number(values, "void"))
    panel(stack, values, screws=0.0)
    stack.add("housewrap", 0.0005, control=("rain", "wind"))
    if number(values, "gap") > 0:
        stack.gap(number(values, "gap"))
    stack.add("larch-boards", 0.021)
    return stack


def floor(values: Mapping[str, Value]) -> LayerStack:
    """Layers inside → outside, over a crawl space: boards, panel, membrane."""
    stack = LayerStack()
    stack.add("softwood", 0.020, fitted="late")
    panel(stack, values, screws=0.0)
    stack.add("wind-membrane", 0.0005, control=("wind",), fitted="shop")
    return stack


PANEL_PARAMETERS = (
    Parameter(key="core", text="core thickness", start=0.185, least=0.090, most=0.300),
    Choice(key="core_material", text="core", start="eps-graphite",
           options=("eps-035", "eps-graphite", "xps-033", "pur-core", "pir-core")),
    Parameter(key="skin", text="skin thickness", start=0.011, least=0.009, most=0.018),
    Choice(key="skin_material", text="skin", start="osb",
           options=("osb", "plywood", "fibre-cement", "magnesium-board")),
    Choice(key="spline", text="spline", start="double lumber", options=tuple(SPLINES)),
    Parameter(key="module", text="panel module", start=1.2, least=0.6, most=7.3),
    Parameter(key="height", text="panel length", start=2.7, least=1.2, most=7.3),
)  # fmt: skip
CAUTIONS = (
    "Panel strength, spans and hold-down come from the supplier's tested table and a licensed engineer.",
    "Warm moist air through an unsealed joint wets the outer skin; seal both skins' joints, the ridge first.",
    "Keep the bottom plate out of standing water.",
    "Never cut a horizontal chase through a skin.",
    "Foam needs a thermal barrier on the room side; local fire rules decide.",
)
SYSTEMS = (
    System(
        key="sip", kind=1, place="wall", name="Structural insulated panel",
        anatomy="cladding, ventilated gap, membrane, skin, foam core, skin, service void, lining",
        parameters=(
            *PANEL_PARAMETERS,
            Parameter(key="void", text="service void", start=0.045, least=0.0, most=0.100),
            Parameter(key="gap", text="ventilated gap", start=0.038, least=0.0, most=0.100),
            Choice(key="lining", text="lining", start="gypsum-fibre",
                   options=("gypsum-board", "gypsum-fibre", "magnesium-board")),
        ),
        build=wall, cautions=CAUTIONS, cores=FOAM_CORES,
    ),
    System(
        key="sip-floor", kind=1, place="floor", name="Structural insulated panel floor",
        anatomy="crawl space, membrane, skin, foam core, skin, boards",
        parameters=PANEL_PARAMETERS, build=floor, cautions=CAUTIONS, cores=FOAM_CORES,
    ),
)  # fmt: skip

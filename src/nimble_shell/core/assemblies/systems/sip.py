"""Structural insulated panel wall: skins glued to a foam core, joined by splines."""

from __future__ import annotations

from collections.abc import Mapping

from nimble_shell.core.assemblies.assembly import AirGap, Layer, Member
from nimble_shell.core.assemblies.systems.system import Choice, Parameter, Stack, System, Value, number

_LUMBER = 0.038  #: thickness of one piece of framing lumber [m]
#: Width of timber that runs through the core at each panel joint [m].
SPLINES = {"surface": 0.0, "block": 0.0, "single lumber": _LUMBER, "double lumber": 2 * _LUMBER}


def build(values: Mapping[str, Value]) -> tuple[Layer, ...]:
    """Layers inside → outside.

    Notes
    -----
    Surface and block splines leave the core whole; what they cost at the joint is found by solving it. Plates are
    one bottom and two top pieces of lumber over the panel's height.
    """
    stack = Stack()
    skin = number(values, "skin")
    stack.add(str(values["lining"]), 0.0125)
    if number(values, "void") > 0:
        batten = Member(name="batten", material="softwood-battens", run="horizontal", width=0.045, centres=0.600)
        stack.air(number(values, "void"), AirGap(), members=(batten,))
    stack.add(str(values["skin_material"]), skin)
    plates = Member(
        name="plates",
        material="softwood",
        run="horizontal",
        width=3 * _LUMBER,
        centres=number(values, "height"),
    )
    width = SPLINES[str(values["spline"])]
    spline = (
        (Member(name="spline", material="softwood", width=width, centres=number(values, "module")),) if width else ()
    )
    stack.add(str(values["core_material"]), number(values, "core"), core=True, members=(*spline, plates))
    stack.add(str(values["skin_material"]), skin)
    stack.add("housewrap", 0.0005)
    if number(values, "gap") > 0:
        stack.air(number(values, "gap"), AirGap(ventilation="well"))
    stack.add("larch-boards", 0.021)
    return tuple(stack.layers)


SYSTEM = System(
    key="sip",
    name="Structural insulated panel",
    anatomy="cladding, ventilated gap, membrane, skin, foam core, skin, service void, lining",
    parameters=(
        Parameter(key="core", text="core thickness", start=0.185, least=0.090, most=0.300),
        Choice(
            key="core_material",
            text="core",
            start="eps-graphite",
            options=("eps-035", "eps-graphite", "xps-033", "pur-core", "pir-core"),
        ),
        Parameter(key="skin", text="skin thickness", start=0.011, least=0.009, most=0.018),
        Choice(
            key="skin_material", text="skin", start="osb", options=("osb", "plywood", "fibre-cement", "magnesium-board")
        ),
        Choice(key="spline", text="spline", start="double lumber", options=tuple(SPLINES)),
        Parameter(key="module", text="panel module", start=1.2, least=0.6, most=7.3),
        Parameter(key="height", text="panel height", start=2.7, least=1.2, most=7.3),
        Parameter(key="void", text="service void", start=0.045, least=0.0, most=0.100),
        Parameter(key="gap", text="ventilated gap", start=0.038, least=0.0, most=0.100),
        Choice(
            key="lining",
            text="lining",
            start="gypsum-fibre",
            options=("gypsum-board", "gypsum-fibre", "magnesium-board"),
        ),
    ),
    build=build,
    cautions=(
        "Panel strength, spans and hold-down come from the supplier's tested table and a licensed engineer.",
        "Warm moist air through an unsealed joint wets the outer skin; seal both skins' joints, the ridge first.",
        "Keep the bottom plate out of standing water.",
        "Never cut a horizontal chase through a skin.",
        "Foam needs a thermal barrier on the room side; local fire rules decide.",
    ),
)

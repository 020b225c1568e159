"""Two-sided insulated concrete form: foam panels held by webs, filled with concrete."""

from __future__ import annotations

from collections.abc import Mapping

from nimble_shell.core.assemblies.assembly import Layer, Member
from nimble_shell.core.assemblies.systems.system import Choice, Parameter, Stack, System, Value, number

#: Area share of a web across the foam: flange strips and web plate smeared over the form [-].
_WEB_SHARE = {"plastic": ("polypropylene", 0.006), "steel": ("steel", 0.0003)}


def build(values: Mapping[str, Value]) -> tuple[Layer, ...]:
    """Layers inside → outside.

    Notes
    -----
    Webs are an area share that scales with their spacing (start: 200 mm). Steel webs are outside the range of the
    combined method; they need the solved point value.
    """
    material, share = _WEB_SHARE[str(values["web"])]
    web = Member(name="web", material=material, share=share * 0.2 / number(values, "web_centres"))
    foam = str(values["foam"])
    stack = Stack()
    stack.add("gypsum-board", 0.0125)
    stack.add(foam, number(values, "inner"), members=(web,))
    stack.add("concrete-reinforced", number(values, "concrete"))
    stack.add(foam, number(values, "outer"), core=True, members=(web,))
    if number(values, "extra") > 0:
        stack.add("eps-graphite", number(values, "extra"))
    stack.add("thin-render", 0.008)
    return tuple(stack.layers)


SYSTEM = System(
    key="icf",
    name="Insulated concrete form, two-sided",
    anatomy="render, (extra foam), foam panel, concrete, foam panel, board",
    parameters=(
        Parameter(key="outer", text="outer foam", start=0.070, least=0.051, most=0.200),
        Parameter(key="inner", text="inner foam", start=0.070, least=0.051, most=0.119),
        Parameter(key="concrete", text="concrete core", start=0.152, least=0.100, most=0.305),
        Parameter(key="extra", text="extra outside foam", start=0.0, least=0.0, most=0.200),
        Choice(key="foam", text="foam", start="eps-form", options=("eps-form", "eps-form-graphite")),
        Choice(key="web", text="web", start="plastic", options=("plastic", "steel")),
        Parameter(key="web_centres", text="web spacing", start=0.2, least=0.15, most=0.4),
    ),
    build=build,
    cautions=(
        "Concrete, reinforcement, lintels and bearing are a licensed engineer's.",
        "Pressure of fresh concrete is limited by the form's rated pressure; brace before the pour.",
        "Foam is the fire and UV hazard: protect it inside and out; local fire rules decide.",
        "The concrete's water dries to whichever side is open; do not close both sides early.",
        "A chase thins the foam: the R at the chase is lower.",
    ),
)

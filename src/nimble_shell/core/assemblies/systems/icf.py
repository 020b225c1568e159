"""3 and 4 · Insulated concrete forms: two-sided, and one-sided with the concrete exposed."""

from __future__ import annotations

from collections.abc import Mapping

from nimble_shell.core.assemblies.assembly import Member
from nimble_shell.core.assemblies.systems.system import BOARD_CORES, LayerStack, System
from nimble_shell.core.parameters import Choice, Parameter, Value, number, word

#: Area share of a web across the foam at 200 mm spacing: flange strips and web plate smeared over the form [-].
_WEB_SHARE = {"plastic": ("polypropylene", 0.006), "steel": ("steel", 0.0003)}


def _web(values: Mapping[str, Value]) -> tuple[Member, ...]:
    material, share = _WEB_SHARE[word(values, "web")]
    return (Member(name="web", material=material, joint="web", share=share * 0.2 / number(values, "web_centres")),)


def two_sided(values: Mapping[str, Value]) -> LayerStack:
    """Layers inside → outside.

    Notes
    -----
    Webs are an area share that scales with their spacing. Steel webs are outside the range of the combined method;
    they need the solved point value.
    """
    foam, web = word(values, "foam"), _web(values)
    stack = LayerStack()
    stack.add("gypsum-board", 0.0125, fitted="late")
    stack.add(foam, number(values, "inner"), goes_with_core=True, members=web, control=("heat",))
    stack.add("concrete-reinforced", number(values, "concrete"), control=("air", "vapour"), passes=3)
    stack.add(foam, number(values, "outer"), core=True, members=web, control=("heat",))
    if number(values, "extra") > 0:
        stack.add("eps-graphite", number(values, "extra"), control=("heat",))
    stack.add("thin-render", 0.008, control=("rain", "wind"), passes=2)
    return stack


def one_sided(values: Mapping[str, Value]) -> LayerStack:
    """Layers inside → outside; the rigid sheet of the bare side is a form and comes off."""
    foam, web = word(values, "foam"), _web(values)
    outside = word(values, "foam_side") == "outside"
    stack = LayerStack()
    if not outside:
        stack.add("gypsum-board", 0.0125, fitted="late")
        stack.add(foam, number(values, "panel"), core=True, members=web, control=("heat",))
    stack.add("concrete-reinforced", number(values, "concrete"), control=("air", "vapour"), passes=3)
    if outside:
        stack.add(foam, number(values, "panel"), core=True, members=web, control=("heat",))
        if number(values, "extra") > 0:
            stack.add("eps-graphite", number(values, "extra"), control=("heat",))
        stack.add("thin-render", 0.008, control=("rain", "wind"), passes=2)
    return stack


_FORM = (
    Parameter(key="concrete", text="concrete core", start=0.152, least=0.100, most=0.305),
    Parameter(key="extra", text="extra outside foam", start=0.0, least=0.0, most=0.200),
    Choice(key="foam", text="foam", start="eps-form", options=("eps-form", "eps-form-graphite")),
    Choice(key="web", text="web", start="plastic", options=("plastic", "steel")),
    Parameter(key="web_centres", text="web spacing", start=0.2, least=0.15, most=0.4),
)
_CAUTIONS = (
    "Concrete, reinforcement, lintels and bearing are a licensed engineer's.",
    "Pressure of fresh concrete is limited by the form's rated pressure; brace before the pour.",
    "Foam is the fire and UV hazard: protect it; wash chalked foam before a membrane is bonded.",
    "The concrete's water dries to whichever side is open; do not close both sides early.",
    "A chase thins the foam: the R at the chase is lower.",
)
SYSTEMS = (
    System(
        key="icf", kind=3, place="wall", name="Insulated concrete form, two-sided",
        anatomy="render, (extra foam), foam panel, concrete, foam panel, board",
        parameters=(
            Parameter(key="outer", text="outer foam", start=0.070, least=0.051, most=0.200),
            Parameter(key="inner", text="inner foam", start=0.070, least=0.051, most=0.119),
            *_FORM,
        ),
        build=two_sided, cautions=_CAUTIONS, cores=BOARD_CORES,
    ),
    System(
        key="icf-one-sided", kind=4, place="wall", name="Insulated concrete form, one-sided",
        anatomy="render, foam panel, concrete exposed inside; or mirrored",
        parameters=(
            Parameter(key="panel", text="foam panel", start=0.102, least=0.051, most=0.200),
            *_FORM,
            Choice(key="foam_side", text="foam", start="outside", options=("outside", "inside")),
        ),
        build=one_sided,
        cautions=(
            *_CAUTIONS,
            "Foam blocks and rigid sheets must drift together: measure blocks before the first course.",
        ),
        cores=BOARD_CORES,
    ),
)  # fmt: skip

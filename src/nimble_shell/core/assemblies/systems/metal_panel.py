"""6 · Insulated metal panel: steel skins on a foam or mineral core, on a steel frame."""

from __future__ import annotations

from collections.abc import Mapping

from nimble_shell.core.assemblies.assembly import Member
from nimble_shell.core.assemblies.systems.system import LayerStack, System
from nimble_shell.core.basis.stations import ShellPart
from nimble_shell.core.parameters import Choice, Parameter, Value, number, word

#: Steel that crosses the core at a side joint, as a width for a whole skin-to-skin path [m].
_JOINT_STEEL = {"single seal": 0.00010, "double seal": 0.00004}


def build(values: Mapping[str, Value]) -> LayerStack:
    """Layers inside → outside. Side joints are a small share of steel across the core until they are solved."""
    stack = LayerStack()
    stack.add("steel", 0.0005, control=("air", "vapour"), fitted="shop")
    joint = Member(name="side joint", material="steel", joint="seam", width=_JOINT_STEEL[word(values, "joint")],
                   centres=number(values, "cover"))  # fmt: skip
    core = stack.add(word(values, "core_material"), number(values, "core"), core=True, members=(joint,),
                     control=("heat",), fitted="shop")  # fmt: skip
    fixing = word(values, "fixing")
    stack.fix("through screws" if fixing == "through" else "hidden clips", "stainless-steel",
              n=number(values, "screws"), diameter=0.0055, layer=core)  # fmt: skip
    stack.add("steel", 0.0006, control=("rain", "wind"), fitted="shop")
    return stack


def _system(key: str, place: ShellPart, name: str, core: float) -> System:
    return System(
        key=key, kind=6, place=place, name=name, anatomy="steel skin, core, steel skin, steel frame inside",
        parameters=(
            Parameter(key="core", text="core thickness", start=core, least=0.060, most=0.250),
            Choice(key="core_material", text="core", start="pir-core", options=("pir-core", "pur-core", "mineral-core")),
            Choice(key="joint", text="side joint", start="double seal", options=tuple(_JOINT_STEEL)),
            Parameter(key="cover", text="cover width", start=1.0, least=0.6, most=1.1),
            Choice(key="fixing", text="fixing", start="hidden", options=("hidden", "through")),
            Parameter(key="screws", text="fixings per m²", start=1.2, least=0.0, most=6.0, dimension="ratio"),
        ),
        build=build,
        cautions=(
            "The labelled R is a mid-panel value at one temperature: ask which, and whether fresh or aged.",
            "The approximate correction for screws does not hold between metal sheets: solve them.",
            "Frame members inside a humid room can sweat; water behind the outer skin needs a way out.",
            "Spans, fixings and wind load come from the supplier's tested table and a licensed engineer.",
        ),
        cores=("pir-core", "pur-core", "mineral-core", "eps-graphite"),
    )  # fmt: skip


SYSTEMS = (
    _system("metal-panel", "wall", "Insulated metal panel", 0.120),
    _system("metal-panel-roof", "roof", "Insulated metal roof panel", 0.150),
)

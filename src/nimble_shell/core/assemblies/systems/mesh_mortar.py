"""5 · Mesh-and-mortar panel: ribbed foam between mortar skins, tied by welded wires."""

from __future__ import annotations

from collections.abc import Mapping

from nimble_shell.core.assemblies.fixing import MESH
from nimble_shell.core.assemblies.systems.system import LayerStack, System
from nimble_shell.core.basis.stations import ShellPart
from nimble_shell.core.parameters import Choice, Parameter, Value, number, word


def build(values: Mapping[str, Value]) -> LayerStack:
    """Layers inside → outside; the foam counts with its mean thickness, the wires as points."""
    stack = LayerStack()
    mortar = number(values, "mortar")
    stack.add("lime-plaster", 0.005, fitted="late")
    stack.add("structural-mortar", mortar, control=("air",), passes=2)
    core = stack.add(word(values, "foam"), number(values, "foam_thickness"), core=True, rib=number(values, "rib"),
                     control=("heat",), fitted="shop")  # fmt: skip
    stack.fix("through wires", word(values, "wire"), n=number(values, "wires"), diameter=number(values, "wire_diameter"),
              layer=core, kind="wire", inner=mortar / 2, outer=mortar / 2, mesh=MESH)  # fmt: skip
    stack.add("structural-mortar", mortar, control=("wind",), passes=2)
    stack.add("thin-render", 0.006, control=("rain",))
    return stack


def _system(key: str, place: ShellPart, name: str, foam: float) -> System:
    return System(
        key=key, kind=5, place=place, name=name,
        anatomy="finish, structural mortar and mesh, ribbed foam, mesh and mortar, finish",
        parameters=(
            Parameter(key="foam_thickness", text="foam, nominal", start=foam, least=0.060, most=0.300),
            Parameter(key="rib", text="profile depth", start=0.020, least=0.0, most=0.050),
            Choice(key="foam", text="foam", start="eps-038", options=("eps-038", "eps-035", "eps-graphite")),
            Parameter(key="mortar", text="mortar each side", start=0.035, least=0.030, most=0.060),
            Choice(key="wire", text="wire", start="steel", options=("steel", "stainless-steel")),
            Parameter(key="wire_diameter", text="wire diameter", start=0.003, least=0.002, most=0.005),
            Parameter(key="wires", text="wires per m²", start=60.0, least=0.0, most=120.0, dimension="ratio"),
        ),
        build=build,
        cautions=(
            "Mortar skins, dowels and openings are a licensed engineer's.",
            "Through wires cost more R than people think; stainless ones a third of it.",
            "The foam counts with its mean thickness under the ribs, not with its nominal one.",
            "Cure the mortar; protect fresh faces from sun and frost.",
        ),
        cores=("eps-038", "eps-035", "eps-033", "eps-graphite"),
    )  # fmt: skip


SYSTEMS = (
    _system("mesh-mortar", "wall", "Mesh-and-mortar panel", 0.120),
    _system("mesh-mortar-roof", "roof", "Mesh-and-mortar roof", 0.160),
)

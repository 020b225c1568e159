"""11 · Masonry or concrete with insulation outside, in the cavity, inside or combined; and slabs on the ground."""

from __future__ import annotations

from collections.abc import Mapping

from nimble_shell.core.assemblies.fixing import Plate
from nimble_shell.core.assemblies.systems.system import LayerStack, System
from nimble_shell.core.parameters import Choice, Parameter, Value, number, word


def wall(values: Mapping[str, Value]) -> LayerStack:
    """Layers inside → outside for each position of the insulation; a combined wall splits it."""
    stack = LayerStack()
    where, d = word(values, "where"), number(values, "insulation")
    inner = {"inside": d, "combined": d * number(values, "split")}.get(where, 0.0)
    outer = d - inner
    material = word(values, "insulation_material")
    stack.add("gypsum-plaster" if inner == 0 else "gypsum-board", 0.0125, fitted="late", passes=2)
    if inner > 0:
        stack.add("vapour-variable", 0.0005, control=("air", "vapour"))
        stack.add(material, inner, core=where == "inside", control=("heat",))
    block = word(values, "block")
    stack.add(block, number(values, "leaf"), control=("air",) if inner == 0 else ())
    if where == "cavity":
        layer = stack.add(material, outer, core=True, control=("heat",))
        stack.fix("wall ties", "stainless-steel", n=number(values, "ties"), diameter=0.004, layer=layer,
                  kind="tie", inner=0.050, outer=0.050)  # fmt: skip
        stack.add("brick", 0.102, control=("rain", "wind"))
    elif outer > 0:
        layer = stack.add(material, outer, core=True, control=("heat",))
        stack.fix("plate dowels", "steel", n=number(values, "ties"), diameter=0.006, layer=layer, kind="dowel",
                  inner=0.050, sleeve=0.010, head=Plate(material="polypropylene", size=0.060, t=0.004))  # fmt: skip
        stack.add("thin-render", 0.008, control=("rain", "wind"), passes=2)
    else:
        stack.add("cement-render", 0.015, control=("rain", "wind"), passes=2)
    return stack


def slab(values: Mapping[str, Value]) -> LayerStack:
    """Layers inside → outside, down to the gravel. The ground's own resistance is not in it."""
    stack = LayerStack(outside="ground")
    stack.add("concrete-reinforced", number(values, "slab"), control=("air",), passes=2)
    stack.add("vapour-sheet", 0.0005, control=("vapour",))
    stack.add(word(values, "foam"), number(values, "insulation"), core=True, control=("heat",))
    stack.add("gravel", 0.150, control=("rain",))
    return stack


SYSTEMS = (
    System(
        key="masonry", kind=11, place="wall", name="Masonry or concrete with insulation",
        anatomy="render or brick, insulation outside, in the cavity, inside or both, leaf, plaster",
        parameters=(
            Choice(key="where", text="insulation", start="outside", options=("outside", "cavity", "inside", "combined")),
            Parameter(key="insulation", text="insulation", start=0.160, least=0.030, most=0.400),
            Choice(key="insulation_material", text="material", start="eps-graphite",
                   options=("eps-graphite", "stone-wool-board", "mineral-wool-032", "wood-fibre-board", "pir-board-open")),
            Parameter(key="split", text="share inside, combined", start=0.3, least=0.1, most=0.9, dimension="share"),
            Choice(key="block", text="leaf", start="concrete-block",
                   options=("concrete-block", "brick-hollow", "aerated-block", "concrete-reinforced")),
            Parameter(key="leaf", text="leaf thickness", start=0.190, least=0.090, most=0.400),
            Parameter(key="ties", text="ties or dowels per m²", start=4.0, least=0.0, most=12.0, dimension="ratio"),
        ),
        build=wall,
        cautions=(
            "Bearing, ties and movement joints are a licensed engineer's.",
            "Insulation inside moves the dew point inwards: check the moisture before more of it.",
            "Keep the cavity clean of mortar; close it at openings.",
            "Fire stops in outside insulation at the intervals of the local rules.",
        ),
        cores=("eps-graphite", "stone-wool-board", "mineral-wool-032", "wood-fibre-board", "pir-board-open", "xps-033"),
    ),
    System(
        key="slab", kind=11, place="floor", name="Slab on ground",
        anatomy="gravel, foam under the slab, sheet, slab",
        parameters=(
            Parameter(key="slab", text="slab thickness", start=0.150, least=0.100, most=0.300),
            Parameter(key="insulation", text="foam under the slab", start=0.200, least=0.030, most=0.400),
            Choice(key="foam", text="foam", start="xps-036", options=("xps-033", "xps-036", "eps-033", "cellular-glass")),
        ),
        build=slab,
        cautions=(
            "Slab, footing and bearing of the foam are a licensed engineer's.",
            "Soil gas needs a path out: a passive pipe ready for a fan; local rules decide.",
            "Foam under load: its compressive class comes from the supplier's table.",
            "The sheet is the vapour line: lap it, tape it, and look at it before the pour.",
        ),
        cores=("xps-033", "xps-036", "eps-033", "cellular-glass"),
    ),
)  # fmt: skip

"""8 · Blown-bead cassette: a hollow frame of I-studs filled with beads, corners included."""

from __future__ import annotations

from collections.abc import Callable, Mapping

from nimble_shell.core.assemblies.assembly import Member
from nimble_shell.core.assemblies.systems.system import BEAD_CORES, LayerStack, System
from nimble_shell.core.basis.stations import ShellPart
from nimble_shell.core.parameters import Choice, Parameter, Value, number, word


def _fill(stack: LayerStack, values: Mapping[str, Value]) -> None:
    """Frame filled with beads. Settled beads leave the top empty: that share of the area is an air path.

    Notes
    -----
    An I-stud is a thin web between flanges; it counts with its web's width and two fifths of the flanges'.
    """
    web, flange = 0.008, 0.045
    studs = Member(name="I-stud", material="osb", joint="stud", width=web + 0.4 * (flange - web) * 0.09 / number(values, "frame"),
                   centres=number(values, "centres"))  # fmt: skip
    settled = number(values, "settlement")
    empty = (
        (Member(name="empty by settlement", material="still-air", run="horizontal", share=settled),) if settled else ()
    )
    stack.add(word(values, "beads"), number(values, "frame"), core=True, members=(studs, *empty), control=("heat",))


def wall(values: Mapping[str, Value]) -> LayerStack:
    """Layers inside → outside."""
    stack = LayerStack()
    stack.add("gypsum-board", 0.0125, fitted="late")
    stack.void(number(values, "void"))
    stack.add("vapour-variable", 0.0005, control=("air", "vapour"))
    stack.add("osb", 0.012, fitted="shop")
    _fill(stack, values)
    stack.add("mdf-open", 0.016, control=("wind",), fitted="shop")
    stack.add("wind-membrane", 0.0005, control=("rain",))
    stack.gap(0.030)
    stack.add("larch-boards", 0.022)
    return stack


def roof(values: Mapping[str, Value]) -> LayerStack:
    """Layers inside → outside."""
    stack = LayerStack()
    stack.add("gypsum-board", 0.0125, fitted="late")
    stack.void(number(values, "void"))
    stack.add("vapour-variable", 0.0005, control=("air", "vapour"))
    _fill(stack, values)
    stack.add("mdf-open", 0.016, control=("wind",), fitted="shop")
    stack.add("wind-membrane", 0.0005, control=("rain",))
    stack.gap(0.050)
    stack.add("steel", 0.0006)
    return stack


def floor(values: Mapping[str, Value]) -> LayerStack:
    """Layers inside → outside; the ground membrane is air and soil-gas barrier at once."""
    stack = LayerStack(outside="ground")
    stack.add("softwood", 0.020, fitted="late")
    stack.add("osb", 0.018, fitted="shop")
    _fill(stack, values)
    stack.add("osb", 0.012, fitted="shop")
    stack.add("vapour-sheet", 0.0005, control=("air", "vapour"))
    stack.add("gravel", 0.150)
    return stack


def _system(
    key: str,
    place: ShellPart,
    name: str,
    anatomy: str,
    frame: float,
    build: Callable[[Mapping[str, Value]], LayerStack],
) -> System:
    return System(
        key=key, kind=8, place=place, name=name, anatomy=anatomy,
        parameters=(
            Parameter(key="frame", text="frame depth", start=frame, least=0.200, most=0.450),
            Choice(key="beads", text="beads", start="eps-bonded-beads", options=("eps-bonded-beads", "eps-loose-beads")),
            Parameter(key="settlement", text="empty by settlement", start=0.0, least=0.0, most=0.05, dimension="share"),
            Parameter(key="centres", text="stud centres", start=0.600, least=0.400, most=0.900),
            Parameter(key="void", text="service void", start=0.040, least=0.0, most=0.100),
        ),
        build=build,
        cautions=(
            "Racking, anchorage and lifting are a licensed engineer's; keep pieces under the carrying limit of the Basis.",
            "Before the beads go in: services in, cavities closed, inspected.",
            "Loose beads settle: leave a port at the top and look again after the first heating season.",
            "The ground membrane is air and soil-gas barrier at once: lap, tape and protect it.",
        ),
        cores=BEAD_CORES,
    )  # fmt: skip


SYSTEMS = (
    _system("bead-cassette", "wall", "Blown-bead cassette",
            "cladding, gap, membrane, board, frame with beads, board, control layer, void, lining", 0.300, wall),
    _system("bead-roof", "roof", "Blown-bead roof",
            "roofing, gap, membrane, board, frame with beads, control layer, void, lining", 0.360, roof),
    _system("bead-floor", "floor", "Blown-bead floor",
            "gravel, ground membrane, board, frame with beads, board, floor boards", 0.300, floor),
)  # fmt: skip

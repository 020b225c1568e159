"""What a designer starts from: each kind of fixing with usual sizes. Spacing and strength are an engineer's."""

from __future__ import annotations

from dataclasses import dataclass, replace

from nimble_shell.core.assemblies.assembly import Assembly
from nimble_shell.core.assemblies.fixing import MESH, THICKEST, Fixing, Plate
from nimble_shell.core.errors import DomainError, Issue

CAUTION = (
    "Kind, size, embedment and spacing are set by the engineer or the supplier's tested table; what is solved here is "
    "their heat, not their strength."
)
_PLUG = 0.020  #: over a sunk head [m]
_WASHER = Plate(material="steel", size=0.050, t=0.0012)
_DISC = Plate(material="polypropylene", size=0.060, t=0.004)
_FLANGE = Plate(material="polypropylene", size=0.038, t=0.005)


@dataclass(frozen=True, slots=True, kw_only=True)
class FixingTemplate:
    """A kind of fixing as it usually is; its lengths are cut to what a build-up has room for."""

    key: str
    text: str
    note: str
    usual: Fixing
    sunk: bool = False  #: its head lies under a plug
    margin: float = 0.0  #: left free at the inner face [m]


_SCREW = Fixing(id="", layer="", name="panel screws", material="steel", across=0.6, along=0.6, diameter=0.006,
                inner=0.060, outer=0.011)  # fmt: skip
_DOWEL = Fixing(id="", layer="", name="plate dowels", kind="dowel", material="steel", across=0.5, along=0.4,
                diameter=0.0045, inner=0.050, sleeve=0.009, sleeve_material="polypropylene", head=_DISC)  # fmt: skip
_ALL = (
    FixingTemplate(key="screw", text="screw", note="through the panel into what carries it", usual=_SCREW),
    FixingTemplate(key="washer", text="screw with washer", note="a steel washer under the head",
         usual=replace(_SCREW, name="screws with washers", head=_WASHER)),
    FixingTemplate(key="dowel", text="plate dowel", note="a steel pin in a plastic sleeve", usual=_DOWEL),
    FixingTemplate(key="sunk", text="plate dowel, sunk", note="its head under a plug of insulation",
         usual=replace(_DOWEL, name="plate dowels, sunk"), sunk=True),
    FixingTemplate(key="tie", text="cavity tie", note="a round wire between two leaves",
         usual=Fixing(id="", layer="", name="wall ties", kind="tie", material="stainless-steel", across=0.75,
                      along=0.45, diameter=0.004, inner=0.050, outer=0.050)),
    FixingTemplate(key="veneer", text="veneer tie", note="a flat strip that holds a brick leaf",
         usual=Fixing(id="", layer="", name="veneer ties", kind="tie", material="steel", across=0.4, along=0.4,
                      t=0.0015, h=0.022, inner=0.003, outer=0.060)),
    FixingTemplate(key="wire", text="through wire", note="welded to the mesh in both skins",
         usual=Fixing(id="", layer="", name="through wires", kind="wire", material="steel", n=60, diameter=0.003,
                      inner=0.018, outer=0.018, mesh=MESH)),
    FixingTemplate(key="web", text="form web", note="a plate with flanges that ties both foams",
         usual=Fixing(id="", layer="", name="form webs", kind="web", material="polypropylene", across=0.2, along=0.4,
                      t=0.005, h=0.2, inner=THICKEST, head=_FLANGE, foot=_FLANGE), margin=0.025),
    FixingTemplate(key="bracket", text="bracket", note="carries what hangs outside of the insulation",
         usual=Fixing(id="", layer="", name="cladding brackets", kind="bracket", material="aluminium", across=0.6,
                      along=1.2, t=0.003, h=0.080, outer=0.030,
                      foot=Plate(material="aluminium", size=0.080, t=0.003))),
)  # fmt: skip
KINDS: dict[str, FixingTemplate] = {kind.key: kind for kind in _ALL}


def started(key: str, assembly: Assembly, layer_id: str, fixing_id: str) -> Fixing:
    """A group of a kind through a layer of a build-up, at usual sizes that the build-up has room for.

    Raises
    ------
    DomainError
        If there is no such kind or layer.
    """
    kind = KINDS.get(key)
    at = next((n for n, layer in enumerate(assembly.layers) if layer.id == layer_id and layer.material), None)
    if kind is None:
        raise DomainError(Issue(path=("kind",), code="unknown_kind", message=f"there is no fixing “{key}”",
                                hint=f"one of {', '.join(KINDS)}"))  # fmt: skip
    if at is None:
        raise DomainError(Issue(path=("layer",), code="no_such_layer", message="there is no such layer of material",
                                hint="choose the insulating layer it goes through"))  # fmt: skip
    inside = sum(layer.d for layer in assembly.layers[:at]) - kind.margin
    outside = 0.0
    for layer in assembly.layers[at + 1 :]:
        if layer.air is not None and layer.air.ventilation == "well":
            break
        outside += layer.d
    usual, d = kind.usual, assembly.layers[at].d
    free = usual.kind == "bracket"  # it may stand out of the build-up
    return replace(
        usual,
        id=fixing_id,
        layer=layer_id,
        inner=max(min(usual.inner, inside), 0.0),
        outer=0.0 if kind.sunk else usual.outer if free else min(usual.outer, outside),
        depth=max(d - _PLUG, d / 2) if kind.sunk else None,
    )

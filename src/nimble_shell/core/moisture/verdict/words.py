"""What a search has found, in words: the sheet, the page and the screen say the same."""

from __future__ import annotations

from nimble_shell.core.assemblies.assembly import Assembly
from nimble_shell.core.basis.schools import VapourQuantities
from nimble_shell.core.materials import Catalogue
from nimble_shell.core.moisture.verdict.verdict import Advice
from nimble_shell.core.quantities.sentence import Sentence, sentence
from nimble_shell.core.thermal.vapour import DELTA_0

_LEAST_SD = 1e-9  #: of what is called a layer; below it there is no permeance to name [m]
_NONE = {
    "vapour": "no vapour layer turns it, up to {amount}",
    "outside": "no insulation outside turns it, up to {amount}",
    "core": "no thickness of LAYER turns it, up to {amount}",
    "gap": "a ventilated gap alone does not turn it",
    "room": "no drier room turns it, up to {amount} less",
    "seal": "no tighter joint turns it",
}
_FOUND = {
    "vapour": "a vapour layer of {amount} on the warm side; {step} still fails",
    "outside": "{amount} of open insulation outside; {step} still fails",
    "core": "LAYER of {amount}; {step} still fails",
    "gap": "a ventilated gap behind the outermost layer",
    "room": "a room at {amount} through the cold months; {step} still fails",
    "seal": "a joint of {amount} at 50 Pa; {step} still fails",
}
_DIMENSIONS = {"outside": "length", "core": "length", "room": "share", "seal": "joint_flow"}


def layer_name(assembly: Assembly, catalogue: Catalogue, at: int | None) -> str:
    """Of the layer that a change is about; empty where it is about none."""
    if at is None:
        return ""
    material = catalogue.get(assembly.layers[at].material)
    return "the air layer" if material is None else material.name


def advice_text(one: Advice, layer: str, vapour: VapourQuantities, *, by_points: bool = False) -> Sentence:
    """A change that turns a verdict, or that none of its kind does.

    Parameters
    ----------
    one : Advice
    layer : str
        Name of the layer that it is about.
    vapour : {"sd", "perm"}
        How the practice tells vapour layers: by s_d, or by permeance δ₀/s_d (ISO 13788:2012, 4.2).
    by_points : bool
        The room is told by how much drier it is, not by its humidity.
    """
    template = _FOUND[one.kind] if one.found else _NONE[one.kind]
    if by_points and one.found and one.kind == "room":
        template = f"a room drier by {100 * one.amount:.0f} points; {100 * one.step:.0f} still fails"
    dimension = _DIMENSIONS.get(one.kind, "air_layer")
    amount, step = one.amount, one.step
    if one.kind == "vapour" and vapour == "perm":
        dimension = "permeance"
        amount, step = (DELTA_0 / max(sd, _LEAST_SD) for sd in (amount, step))
    elif one.kind == "vapour":
        template = template.replace("{amount}", "s_d {amount}").replace("{step}", "s_d {step}")
    return sentence(template.replace("LAYER", layer), amount=(amount, dimension), step=(step, dimension))

"""Thickness, weight, cost and carbon of a wall, per area."""

from __future__ import annotations

from nimble_shell.core.assemblies.assembly import Assembly, Layer
from nimble_shell.core.materials import Catalogue
from nimble_shell.core.working import Given, Num, named, plain


def wall_amounts(assembly: Assembly, catalogue: Catalogue, *, given: Given = plain) -> dict[str, Num]:
    """Sums over all layers and their members.

    Parameters
    ----------
    assembly : Assembly
    catalogue : mapping of key to Material
    given : Given
        `plain` for figures, `traced` for working.

    Returns
    -------
    dict
        "thickness" [m], "weight" [kg/m²], "cost" [currency per m², example rates], "carbon" [kg CO₂e/m², example
        rates].
    """
    totals: dict[str, Num] = {"weight": 0.0, "cost": 0.0, "carbon": 0.0}
    thickness: Num = 0.0

    def count(volume: Num, key: str, tag: str, words: str) -> None:
        material = catalogue[key]
        rho = given(material.rho, f"rho_{tag}", f"density, {material.name}", "kg/m³", f"catalogue: {material.source}")
        mass = named(volume * rho, f"m_{tag}", f"mass, {words}", "kg/m²", "V·ρ")
        cost = given(material.cost, f"c_{tag}", f"cost, {material.name}", "per m³", material.rates)
        carbon = given(material.carbon, f"g_{tag}", f"carbon, {material.name}", "kg CO₂e/kg", material.rates)
        totals["weight"] = totals["weight"] + mass
        totals["cost"] = totals["cost"] + volume * cost
        totals["carbon"] = totals["carbon"] + mass * carbon

    for number, layer in enumerate(assembly.layers, 1):
        name = catalogue[layer.material].name if layer.material else "air layer"
        d = given(layer.d, f"d_{number}", f"thickness, {name}", "m", "entered")
        thickness = thickness + d
        if layer.rib:
            rib = given(layer.rib, f"t_{number}", f"profile depth, {name}", "m", "entered")
            hollow = named(rib / 2, f"dr_{number}", f"hollows of the profile of {name}", "m", "as wide as its ribs")
            filler = _filler(assembly, number - 1)
            if filler:
                count(hollow * 1.0, filler, f"{number}r", f"{catalogue[filler].name} in the profile")
            d = named(d - hollow, f"dV_{number}", f"mean thickness, {name}", "m", "without the hollows")
        for letter, (key, share, note) in zip("abcdefgh", _segments(layer), strict=False):
            tag, words = f"{number}{letter}", f"{catalogue[key].name}{note}"
            f = given(share, f"fV_{tag}", f"share of the layer, {words}", "", "members of the layer")
            count(named(d * f, f"V_{tag}", f"volume, {words}", "m³/m²", "d·f"), key, tag, words)
    for number, fixing in enumerate(assembly.fixings, 1):
        layer = next(layer for layer in assembly.layers if layer.id == fixing.layer)
        n = given(fixing.per_area, f"n_f{number}", f"number, {fixing.name}", "1/m²", "entered")
        area = given(fixing.area, f"A_f{number}", f"cross-section of one, {fixing.name}", "m²", "entered")
        whole = (fixing.depth or layer.d) + fixing.inner + fixing.outer
        length = given(whole, f"l_f{number}", f"length, {fixing.name}", "m", "entered")
        count(named(n * area * length, f"V_f{number}", f"volume, {fixing.name}", "m³/m²", "n·A·l"), fixing.material,
              f"f{number}", fixing.name)  # fmt: skip
        for words, key, across, along in fixing.more(layer.d):
            tag, one = f"f{number}{words}", f"{words} of {fixing.name}"
            A = given(across, f"A_{tag}", f"area, {one}", "m²", "entered")
            t = given(along, f"t_{tag}", f"length, {one}", "m", "entered")
            count(named(n * A * t, f"V_{tag}", f"volume, {one}", "m³/m²", "n·A·t"), key, tag, one)
    return {
        "thickness": named(thickness + 0.0, "d_wall", "wall thickness", "m", "Σ d"),
        "weight": named(totals["weight"] + 0.0, "m_wall", "mass per area", "kg/m²", "Σ d·f·ρ"),
        "cost": named(totals["cost"] + 0.0, "K", "cost per area", "per m²", "Σ d·f·rate"),
        "carbon": named(totals["carbon"] + 0.0, "G", "carbon per area", "kg CO₂e/m²", "Σ m·rate"),
    }


def layer_weights(assembly: Assembly, catalogue: Catalogue) -> list[float]:
    """Weight of each layer with its members, from inside. [kg/m²]"""
    return [
        sum(layer.d_mean * share * catalogue[key].rho for key, share, _ in _segments(layer))
        for layer in assembly.layers
    ]


def _filler(assembly: Assembly, index: int) -> str:
    """The material that fills the ribs of a layer: its outer neighbour's, else its inner one's."""
    around = [assembly.layers[at] for at in (index + 1, index - 1) if 0 <= at < len(assembly.layers)]
    return next((layer.material for layer in around if layer.material), "")


def _segments(layer: Layer) -> list[tuple[str, float, str]]:
    """Material, area share and a word for it, of the field and of every member."""
    shares = layer.shares()
    field = [(layer.material, 1 - sum(shares), "")] if layer.material else []
    return field + [(m.material, share, f" ({m.name})") for m, share in zip(layer.members, shares, strict=True)]

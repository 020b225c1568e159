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
    thickness: Num = 0.0
    weight: Num = 0.0
    cost: Num = 0.0
    carbon: Num = 0.0
    for number, layer in enumerate(assembly.layers, 1):
        name = catalogue[layer.material].name if layer.material else "air layer"
        d = given(layer.d, f"d_{number}", f"thickness, {name}", "m", "entered")
        thickness = thickness + d
        for letter, (key, share, note) in zip("abcdefgh", _pieces(layer), strict=False):
            material = catalogue[key]
            tag, words = f"{number}{letter}", f"{material.name}{note}"
            f = given(share, f"f_{tag}", f"share of the layer, {words}", "", "members of the layer")
            volume = named(d * f, f"V_{tag}", f"volume, {words}", "m³/m²", "d·f")
            origin = f"catalogue: {material.source}"
            rho = given(material.rho, f"rho_{tag}", f"density, {material.name}", "kg/m³", origin)
            mass = named(volume * rho, f"m_{tag}", f"mass, {words}", "kg/m²", "V·ρ")
            weight = weight + mass
            rates = "catalogue, example"
            cost = cost + volume * given(material.cost, f"c_{tag}", f"cost, {material.name}", "per m³", rates)
            carbon = carbon + mass * given(material.carbon, f"g_{tag}", f"carbon, {material.name}", "kg CO₂e/kg", rates)
    return {
        "thickness": named(thickness + 0.0, "d_wall", "wall thickness", "m", "Σ d"),
        "weight": named(weight + 0.0, "m_wall", "mass per area", "kg/m²", "Σ d·f·ρ"),
        "cost": named(cost + 0.0, "K", "cost per area", "per m²", "Σ d·f·rate"),
        "carbon": named(carbon + 0.0, "G", "carbon per area", "kg CO₂e/m²", "Σ m·rate"),
    }


def _pieces(layer: Layer) -> list[tuple[str, float, str]]:
    """Material, area share and a word for it, of the field and of every member."""
    shares = layer.shares()
    field = [(layer.material, 1 - sum(shares), "")] if layer.material else []
    return field + [(m.material, share, f" ({m.name})") for m, share in zip(layer.members, shares, strict=True)]

"""Steady vapour pressure through the field of an assembly, against saturation."""

from __future__ import annotations

from collections.abc import Sequence

from nimble_shell.core.assemblies.assembly import Assembly
from nimble_shell.core.materials import Catalogue
from nimble_shell.core.working import Given, Num, named

DELTA_0 = 2e-10  #: vapour permeability of still air, ISO 13788:2012, 4.2 [kg/(m·s·Pa)]
AIR_LAYER_SD = 0.01  #: equivalent air layer of an air gap, ISO 13788:2012, 6.4 [m]


def diffusion_thicknesses(assembly: Assembly, catalogue: Catalogue, counted: int, given: Given) -> list[Num]:
    """Water vapour diffusion-equivalent air layer thickness of each counted layer, s_d = μ·d. [m]

    Parameters
    ----------
    assembly : Assembly
    catalogue : mapping of key to Material
    counted : int
        Layers from inside to take, up to a well-ventilated gap.
    given : Given
        `plain` for figures, `traced` for working.

    References
    ----------
    .. [1] ISO 13788:2012, 4.2 and 6.4.
    """
    result: list[Num] = []
    for number, layer in enumerate(assembly.layers[:counted], 1):
        if not layer.material:
            result.append(given(AIR_LAYER_SD, f"sd_{number}", "s_d of an air layer", "m", "ISO 13788:2012, 6.4"))
            continue
        material = catalogue[layer.material]
        if material.sd is not None:
            result.append(
                given(material.sd, f"sd_{number}", f"s_d, {material.name}", "m", f"catalogue: {material.source}")
            )
            continue
        mu = given(material.mu, f"mu_{number}", f"μ, {material.name}", "", f"catalogue: {material.source}")
        d = given(layer.d, f"d_{number}", f"thickness, {material.name}", "m", "entered")
        result.append(named(mu * d, f"sd_{number}", f"s_d, {material.name}", "m", "ISO 13788:2012, 4.2, s_d = μ·d"))
    return result


def permeance(sd: Num, number: int) -> Num:
    """Vapour permeance of layer `number`, the air's own permeability over s_d [m]. [kg/(s·m²·Pa)]

    References
    ----------
    .. [1] ISO 13788:2012, 4.2.
    """
    clause = "ISO 13788:2012, 4.2, δ₀/s_d with δ₀ = 2·10⁻¹⁰ kg/(m·s·Pa)"
    return named(DELTA_0 / sd, f"W_{number}", f"vapour permeance of layer {number}", "kg/(s·m²·Pa)", clause)


def vapour_pressures(sd: Sequence[Num], p_i: Num, p_e: Num) -> list[Num]:
    """Vapour pressure at the inner face, interfaces and outer face, without condensation. [Pa]

    Parameters
    ----------
    sd : sequence of float or Traced
        s_d of each layer, from inside. [m]
    p_i, p_e : float or Traced
        Vapour pressure of the inside and outside air. [Pa]

    Notes
    -----
    One vapour flux crosses every layer, so pressure falls with s_d crossed; films have no vapour resistance.

    References
    ----------
    .. [1] ISO 13788:2012, 6.3.
    """
    total = named(sum(sd), "sd_total", "s_d of all counted layers", "m", "Σ s_d")
    crossed: Num = 0.0
    result: list[Num] = [
        named(p_i + 0.0, "p_at_0", "vapour pressure at plane 0 from inside", "Pa", "p_i; films do not resist")
    ]
    for number, one in enumerate(sd, 1):
        crossed = crossed + one
        result.append(
            named(
                p_i - (p_i - p_e) * crossed / total,
                f"p_at_{number}",
                f"vapour pressure at plane {number} from inside",
                "Pa",
                "ISO 13788:2012, 6.3: p falls with the s_d crossed",
            )
        )
    return result

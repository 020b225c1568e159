"""The shipped catalogue: generic materials, conservative design values, each with its source family.

Source families: ISO 10456 (tabulated design values; or its λ alone), trade (range common in the trade, upper half taken),
mean (middle of the trade's range). λ(T) tables hold the trends measured for each family of foam: expanded and
extruded polystyrene conduct less in the cold, closed-cell foams blown with heavy gas pass through a minimum and
rise again when the gas condenses. Costs and carbon are examples.
"""

from __future__ import annotations

from nimble_shell.core.materials.catalogue_water import with_water
from nimble_shell.core.materials.material import Catalogue, ConductivityTable, Hatching, Material

EDITION = "2026-11"

ISO = "ISO 10456:2007, table 3"
TRADE = "trade range, upper half"
#: λ of the table's nearest kind; density and μ of the product.
ISO_LAMBDA = "λ: ISO 10456:2007, table 3"
_STOCK_CORE = (0.090, 0.140, 0.185, 0.235, 0.285)
_STOCK_BOARD = (0.030, 0.040, 0.050, 0.060, 0.080, 0.100, 0.120, 0.140, 0.160, 0.180, 0.200, 0.240)


def _scaled(lambda_10: float, *shape: tuple[float, float]) -> ConductivityTable:
    return tuple((theta, round(lambda_10 * factor, 5)) for theta, factor in shape)


def _polystyrene(lambda_10: float) -> ConductivityTable:
    return _scaled(lambda_10, (-20, 0.88), (-10, 0.92), (0, 0.96), (10, 1.0), (25, 1.062), (40, 1.125))


def _polyurethane(lambda_10: float) -> ConductivityTable:
    return _scaled(lambda_10, (-20, 1.14), (-10, 1.08), (0, 1.02), (10, 1.0), (25, 1.065), (40, 1.14))


def _fibre(lambda_10: float) -> ConductivityTable:
    return _scaled(lambda_10, (-20, 0.87), (-10, 0.91), (0, 0.955), (10, 1.0), (25, 1.07), (40, 1.14))


def _foam(key: str, name: str, lambda_: float, rho: float, mu: float, cost: float, carbon: float, *,
          table: ConductivityTable, fresh: float | None = None, stock: tuple[float, ...] = _STOCK_BOARD,
          hatch: Hatching = "foam") -> Material:  # fmt: skip
    return Material(
        key=key, name=name, family="foam", hatch=hatch, lambda_=lambda_, lambda_fresh=fresh, lambda_T=table,
        rho=rho, c=1450, mu=mu, cost=cost, carbon=carbon, stock=stock, usual=(0.020, 0.400), source=TRADE,
    )  # fmt: skip


def _fibrous(key: str, name: str, lambda_: float, rho: float, c: float, mu: float, cost: float, carbon: float,
             stock: tuple[float, ...] = _STOCK_BOARD, hatch: Hatching = "fibre") -> Material:  # fmt: skip
    return Material(
        key=key, name=name, family="fibre", hatch=hatch, lambda_=lambda_, lambda_T=_fibre(lambda_), rho=rho, c=c,
        mu=mu, cost=cost, carbon=carbon, stock=stock, usual=(0.020, 0.500), source=TRADE,
    )  # fmt: skip


def _solid(key: str, name: str, family: str, hatch: Hatching, lambda_: float, rho: float, c: float, mu: float,
           cost: float, carbon: float, usual: tuple[float, float], source: str = ISO, emissivity: float = 0.9,
           stock: tuple[float, ...] = ()) -> Material:  # fmt: skip
    return Material(
        key=key, name=name, family=family, hatch=hatch, lambda_=lambda_, rho=rho, c=c, mu=mu, cost=cost,
        carbon=carbon, usual=usual, source=source, emissivity=emissivity, stock=stock,
    )  # fmt: skip


def _sheet(key: str, name: str, sd: float, rho: float, cost: float, emissivity: float = 0.9) -> Material:
    return Material(
        key=key, name=name, family="membrane", hatch="membrane", lambda_=0.33, rho=rho, c=1800, sd=sd,
        mu=sd / 0.0005, cost=cost, carbon=2.5, usual=(0.0001, 0.005), source=TRADE, emissivity=emissivity,
    )  # fmt: skip


_PANEL = (0.006, 0.030)
_SKIN_STOCK = (0.009, 0.011, 0.012, 0.015, 0.018)

_ALL = (
    # --- foams -----------------------------------------------------------------------------------------------
    _foam("eps-038", "EPS, white, light", 0.038, 15, 30, 95, 3.3, table=_polystyrene(0.038), stock=_STOCK_CORE),
    _foam("eps-035", "EPS, white", 0.035, 20, 40, 115, 3.3, table=_polystyrene(0.035), stock=_STOCK_CORE),
    _foam("eps-033", "EPS, white, dense", 0.033, 30, 60, 150, 3.3, table=_polystyrene(0.033), stock=_STOCK_CORE),
    _foam("eps-graphite", "EPS with graphite", 0.031, 18, 40, 135, 3.4, table=_polystyrene(0.031), stock=_STOCK_CORE),
    _foam("eps-form", "EPS, form panel", 0.034, 28, 60, 210, 3.3, table=_polystyrene(0.034),
          stock=(0.051, 0.064, 0.070, 0.089, 0.102, 0.119)),
    _foam("eps-form-graphite", "EPS with graphite, form panel", 0.031, 28, 60, 240, 3.4, table=_polystyrene(0.031),
          stock=(0.051, 0.064, 0.070, 0.089, 0.102, 0.119)),
    _foam("eps-loose-beads", "EPS beads, loose", 0.037, 14, 5, 70, 3.3, table=_polystyrene(0.037)),
    _foam("eps-bonded-beads", "EPS beads, bonded", 0.034, 16, 10, 85, 3.3, table=_polystyrene(0.034)),
    _foam("xps-033", "XPS", 0.033, 33, 100, 230, 4.2, table=_polystyrene(0.033), fresh=0.030),
    _foam("xps-036", "XPS, thick", 0.036, 33, 100, 230, 4.2, table=_polystyrene(0.036), fresh=0.031),
    _foam("pur-core", "PUR, panel core", 0.026, 40, 60, 310, 4.5, table=_polyurethane(0.026), fresh=0.022,
          stock=(0.090, 0.120, 0.140, 0.165, 0.200)),
    _foam("pir-core", "PIR, panel core", 0.025, 40, 60, 330, 4.6, table=_polyurethane(0.025), fresh=0.021,
          stock=(0.080, 0.100, 0.120, 0.150, 0.200)),
    _foam("pir-board", "PIR board, foil faced", 0.023, 32, 60, 340, 4.6, table=_polyurethane(0.023), fresh=0.021),
    _foam("pir-board-open", "PIR board, open faced", 0.026, 32, 60, 300, 4.6, table=_polyurethane(0.026), fresh=0.023),
    _foam("phenolic-board", "Phenolic board", 0.021, 35, 35, 380, 4.0, table=_polyurethane(0.021), fresh=0.019),
    _foam("spray-closed", "Sprayed foam, closed cell", 0.027, 35, 60, 350, 4.8, table=_polyurethane(0.027), fresh=0.022),
    _foam("spray-open", "Sprayed foam, open cell", 0.038, 9, 5, 140, 4.3, table=_fibre(0.038)),
    # --- fibres and fills ------------------------------------------------------------------------------------
    _fibrous("mineral-wool-032", "Mineral wool, dense", 0.032, 45, 1030, 1, 85, 1.3),
    _fibrous("mineral-wool-035", "Mineral wool batt", 0.035, 25, 1030, 1, 48, 1.3),
    _fibrous("mineral-wool-040", "Mineral wool batt, light", 0.040, 15, 1030, 1, 35, 1.3),
    _fibrous("mineral-core", "Mineral wool, panel core", 0.041, 100, 1030, 1, 180, 1.3),
    _fibrous("stone-wool-board", "Stone wool board, facade", 0.036, 90, 1030, 1, 150, 1.2),
    _fibrous("wood-fibre-flex", "Wood fibre, flexible", 0.038, 50, 2100, 2, 110, 0.3),
    _fibrous("wood-fibre-board", "Wood fibre board", 0.043, 140, 2100, 3, 210, 0.4),
    _fibrous("wood-fibre-sarking", "Wood fibre board, dense", 0.048, 200, 2100, 5, 260, 0.5),
    _fibrous("cellulose-blown", "Cellulose, blown", 0.040, 50, 1600, 2, 60, 0.2),
    _fibrous("hemp-batt", "Hemp batt", 0.042, 38, 1700, 2, 120, 0.5),
    _fibrous("sheep-wool", "Sheep's wool batt", 0.040, 20, 1700, 1, 130, 0.6),
    _fibrous("glass-wool-blown", "Glass wool, blown", 0.036, 30, 1030, 1, 55, 1.4),
    _fibrous("straw-flat", "Straw bale, laid flat", 0.065, 100, 2000, 2, 25, 0.05, (0.45, 0.48), "straw"),
    _fibrous("straw-edge", "Straw bale, on edge", 0.052, 100, 2000, 2, 25, 0.05, (0.35, 0.36), "straw"),
    _solid("straw-board", "Compressed straw board", "panel", "straw", 0.10, 380, 2000, 10, 230, 0.15, (0.038, 0.060),
           TRADE, stock=(0.038, 0.058)),
    _solid("cellular-glass", "Cellular glass", "foam", "foam", 0.041, 115, 1000, 1e5, 320, 1.4, (0.04, 0.20), TRADE),
    _solid("foam-glass-gravel", "Foam glass gravel", "fill", "gravel", 0.085, 170, 1000, 1, 75, 0.6, (0.1, 0.6), TRADE),
    # --- panels and boards -----------------------------------------------------------------------------------
    _solid("osb", "OSB", "panel", "osb", 0.13, 620, 1700, 30, 480, 0.45, _PANEL, ISO_LAMBDA, stock=_SKIN_STOCK),
    _solid("plywood", "Plywood", "panel", "grain", 0.13, 500, 1600, 70, 850, 0.6, _PANEL, stock=_SKIN_STOCK),
    _solid("fibre-cement", "Fibre-cement board", "panel", "board", 0.35, 1350, 1000, 50, 1100, 0.8, _PANEL, TRADE),
    _solid("magnesium-board", "Magnesium board", "panel", "board", 0.30, 1000, 1000, 20, 900, 0.6, _PANEL, TRADE),
    _solid("particleboard", "Particleboard", "panel", "board", 0.14, 600, 1700, 15, 380, 0.5, _PANEL),
    _solid("cement-particle", "Cement-bonded particleboard", "panel", "board", 0.23, 1200, 1500, 30, 700, 0.6, _PANEL),
    _solid("gypsum-board", "Gypsum board", "panel", "board", 0.25, 800, 1000, 10, 320, 0.3, _PANEL, TRADE,
           stock=(0.0095, 0.0125, 0.015)),
    _solid("gypsum-fibre", "Gypsum-fibre board", "panel", "board", 0.32, 1150, 1100, 13, 480, 0.35, _PANEL, TRADE,
           stock=(0.010, 0.0125, 0.015, 0.018)),
    _solid("gypsum-sheathing", "Gypsum sheathing, glass faced", "panel", "board", 0.25, 850, 1000, 10, 520, 0.35,
           _PANEL, TRADE),
    _solid("hardboard", "Hardboard", "panel", "board", 0.18, 900, 1700, 20, 600, 0.6, (0.003, 0.012), TRADE),
    _solid("mdf-open", "MDF, diffusion open", "panel", "board", 0.10, 600, 1700, 11, 520, 0.5, _PANEL, TRADE),
    # --- timber ----------------------------------------------------------------------------------------------
    _solid("softwood", "Softwood", "timber", "timber", 0.13, 500, 1600, 20, 420, 0.25, (0.015, 0.4)),
    _solid("hardwood", "Hardwood", "timber", "timber", 0.18, 700, 1600, 50, 1100, 0.3, (0.015, 0.4)),
    _solid("glulam", "Glued laminated timber", "timber", "timber", 0.13, 480, 1600, 40, 900, 0.4, (0.04, 1.0), ISO_LAMBDA),
    _solid("lvl", "Laminated veneer lumber", "timber", "timber", 0.13, 510, 1600, 80, 950, 0.5, (0.02, 0.6), ISO_LAMBDA),
    _solid("larch-boards", "Larch boards", "timber", "grain", 0.13, 590, 1600, 20, 900, 0.2, (0.015, 0.05), ISO_LAMBDA),
    _solid("softwood-battens", "Softwood battens", "timber", "timber", 0.13, 450, 1600, 20, 380, 0.25, (0.015, 0.1), ISO_LAMBDA),
    # --- concrete, masonry, render ---------------------------------------------------------------------------
    _solid("concrete-reinforced", "Concrete, reinforced", "concrete", "concrete", 2.3, 2350, 1000, 80, 190, 0.13,
           (0.08, 0.6), ISO_LAMBDA, stock=(0.102, 0.152, 0.203, 0.254)),
    _solid("concrete", "Concrete", "concrete", "concrete", 1.65, 2200, 1000, 70, 150, 0.11, (0.05, 0.6)),
    _solid("concrete-light", "Concrete, lightweight", "concrete", "concrete", 0.60, 1400, 1000, 50, 170, 0.14, (0.05, 0.6), TRADE),
    _solid("structural-mortar", "Structural mortar", "concrete", "concrete", 1.35, 2000, 1000, 25, 260, 0.18, (0.025, 0.08), TRADE),
    _solid("brick", "Brick, facing", "masonry", "masonry", 0.80, 1800, 1000, 10, 320, 0.22, (0.06, 0.4), TRADE),
    _solid("brick-hollow", "Brick, hollow", "masonry", "masonry", 0.40, 1000, 1000, 10, 180, 0.22, (0.1, 0.5), TRADE),
    _solid("concrete-block", "Concrete block", "masonry", "masonry", 1.0, 1700, 1000, 10, 130, 0.10, (0.1, 0.4), TRADE),
    _solid("aerated-block", "Aerated concrete block", "masonry", "masonry", 0.13, 450, 1000, 6, 140, 0.35, (0.1, 0.5), TRADE),
    _solid("lime-cement-plaster", "Lime-cement plaster", "render", "board", 0.80, 1600, 1000, 15, 260, 0.2, (0.008, 0.05), TRADE),
    _solid("cement-render", "Cement render", "render", "board", 1.0, 1800, 1000, 15, 250, 0.2, (0.008, 0.05), TRADE),
    _solid("lime-plaster", "Lime plaster", "render", "board", 0.70, 1500, 1000, 10, 280, 0.15, (0.008, 0.05), TRADE),
    _solid("clay-plaster", "Clay plaster", "render", "board", 0.80, 1700, 1000, 8, 300, 0.05, (0.008, 0.05), TRADE),
    _solid("gypsum-plaster", "Gypsum plaster", "render", "board", 0.57, 1300, 1000, 6, 220, 0.15, (0.005, 0.03)),
    _solid("thin-render", "Thin-coat render with mesh", "render", "board", 0.87, 1700, 1000, 25, 900, 0.5, (0.004, 0.015), TRADE),
    # --- metals, plastics, glass -----------------------------------------------------------------------------
    _solid("steel", "Steel", "metal", "steel", 50, 7800, 450, 1e6, 9500, 2.3, (0.0004, 0.02), emissivity=0.3),
    _solid("stainless-steel", "Stainless steel", "metal", "steel", 17, 7900, 500, 1e6, 32000, 4.5, (0.0004, 0.02), emissivity=0.3),
    _solid("aluminium", "Aluminium alloy", "metal", "steel", 160, 2800, 880, 1e6, 16000, 8.5, (0.0004, 0.02), emissivity=0.1),
    _solid("polypropylene", "Polypropylene", "plastic", "steel", 0.22, 910, 1800, 1e4, 2200, 2.0, (0.002, 0.05)),
    _solid("nylon", "Nylon", "plastic", "steel", 0.25, 1150, 1600, 5e4, 4500, 7.0, (0.002, 0.05)),
    _solid("glass", "Glass", "glass", "glass", 1.0, 2500, 750, 1e6, 3200, 1.2, (0.003, 0.02)),
    _solid("still-air", "Still air in an empty part", "fill", "gravel", 1.67, 1.2, 1008, 1, 0, 0.0, (0.01, 0.5),
           "empty cavity: convection smeared over its depth"),
    # --- ground ----------------------------------------------------------------------------------------------
    _solid("gravel", "Gravel, sand", "fill", "gravel", 2.0, 1950, 1000, 50, 35, 0.005, (0.05, 0.6)),
    _solid("clay-soil", "Clay or silt", "fill", "earth", 1.5, 1500, 2000, 50, 5, 0.0, (0.1, 3.0)),
    # --- membranes -------------------------------------------------------------------------------------------
    _sheet("wind-membrane", "Wind-tight membrane, diffusion open", 0.05, 300, 2800),
    _sheet("housewrap", "Weather membrane", 0.2, 300, 2000),
    _sheet("vapour-variable", "Vapour control, variable, dry state", 8.0, 400, 6000),
    _sheet("vapour-sheet", "Vapour control sheet, polyethylene", 100.0, 930, 1200),
    _sheet("vapour-foil", "Vapour barrier, aluminium faced", 1500.0, 900, 3200, 0.1),
    _sheet("self-adhered", "Self-adhered membrane, bituminous", 200.0, 1100, 9000),
    _sheet("fluid-membrane", "Fluid-applied membrane, diffusion open", 0.3, 1200, 14000),
    _sheet("paint-open", "Paint, diffusion open", 0.1, 1400, 12000),
)  # fmt: skip

CATALOGUE: Catalogue = {material.key: with_water(material) for material in _ALL}

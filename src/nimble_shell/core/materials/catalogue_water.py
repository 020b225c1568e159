"""What water does to the shipped materials, row by row: usual values of their kind."""

from __future__ import annotations

from dataclasses import replace

from nimble_shell.core.materials.derived import (
    feeds_mould,
    lambda_moist,
    mould_class,
    sealing_surface,
    takes_up,
    wets,
    wood_of,
)
from nimble_shell.core.materials.material import Material, MouldClass, SealingSurface, Wood

#: w80, w_f [kg/m³], A [kg/(m²·s^0.5)]; a material that is not here stores nothing that counts.
_STORES: dict[str, tuple[float, float, float]] = {
    "concrete-reinforced": (85, 150, 0.008), "concrete": (80, 150, 0.012),
    "concrete-light": (40, 250, 0.030), "structural-mortar": (60, 240, 0.020),
    "brick": (9, 200, 0.170), "brick-hollow": (9, 180, 0.100), "concrete-block": (40, 180, 0.050),
    "aerated-block": (17, 340, 0.080), "lime-cement-plaster": (45, 220, 0.040),
    "cement-render": (40, 240, 0.010), "lime-plaster": (30, 250, 0.050),
    "clay-plaster": (25, 300, 0.060), "gypsum-plaster": (7, 400, 0.120),
    "thin-render": (35, 200, 0.002), "gypsum-board": (7, 400, 0.030),
    "gypsum-fibre": (14, 400, 0.030),
    "gypsum-sheathing": (7, 350, 0.008), "fibre-cement": (100, 350, 0.012),
    "magnesium-board": (60, 350, 0.015), "cement-particle": (100, 350, 0.006),
    "osb": (95, 470, 0.002), "plywood": (75, 380, 0.003), "particleboard": (95, 500, 0.005),
    "hardboard": (120, 550, 0.003), "mdf-open": (80, 420, 0.002), "softwood": (75, 420, 0.004),
    "hardwood": (105, 480, 0.003), "glulam": (72, 420, 0.004), "lvl": (75, 420, 0.003),
    "larch-boards": (88, 430, 0.003), "softwood-battens": (68, 420, 0.004),
    "wood-fibre-flex": (7.5, 300, 0.0), "wood-fibre-board": (20, 400, 0.004),
    "wood-fibre-sarking": (28, 450, 0.003), "cellulose-blown": (7, 350, 0.030),
    "hemp-batt": (5, 250, 0.0), "sheep-wool": (3, 150, 0.0), "straw-flat": (14, 300, 0.010),
    "straw-edge": (14, 300, 0.010), "straw-board": (50, 450, 0.015), "gravel": (5, 300, 0.050),
    "clay-soil": (150, 400, 0.010),
}  # fmt: skip
#: μ in the dry cup; the catalogue has the wet one.
_MU_DRY: dict[str, float] = {
    "osb": 150, "plywood": 200, "particleboard": 50, "hardboard": 30, "softwood": 50, "hardwood": 200, "glulam": 50,
    "lvl": 200, "larch-boards": 50, "softwood-battens": 50, "concrete-reinforced": 130, "concrete": 120,
    "structural-mortar": 40, "cement-particle": 50, "gypsum-plaster": 10,
}  # fmt: skip
_SD_MOIST = {"vapour-variable": 0.3}  #: s_d of a sheet when it is moist [m]
#: Water that a material brings along when it is fresh: concrete that was poured, plaster that was wet. [kg/m³]
_FRESH = {
    "concrete-reinforced": 125.0, "concrete": 125.0, "concrete-light": 180.0, "structural-mortar": 180.0,
    "lime-cement-plaster": 200.0, "cement-render": 200.0, "lime-plaster": 220.0, "clay-plaster": 260.0,
    "gypsum-plaster": 300.0, "thin-render": 150.0,
}  # fmt: skip
#: Classes that differ from those of the family.
_MOULD: dict[str, MouldClass] = {
    "straw-flat": "very sensitive", "straw-edge": "very sensitive", "straw-board": "very sensitive",
    "fibre-cement": "medium resistant", "magnesium-board": "medium resistant", "cement-particle": "medium resistant",
    "gypsum-fibre": "medium resistant", "gypsum-sheathing": "medium resistant",
}  # fmt: skip
_WOOD: dict[str, Wood] = {
    "osb": "board", "plywood": "board", "particleboard": "board", "hardboard": "board", "mdf-open": "board",
    "straw-flat": "straw", "straw-edge": "straw", "straw-board": "straw",
}  # fmt: skip
_SURFACE: dict[str, SealingSurface] = {
    "osb": "wood", "plywood": "wood", "straw-flat": "render", "straw-edge": "render", "straw-board": "render",
}  # fmt: skip
#: Fibres of stone and glass: nothing lives on them, and water leaves them as they were.
_MINERAL = frozenset({
    "mineral-wool-032", "mineral-wool-035", "mineral-wool-040", "mineral-core", "stone-wool-board", "glass-wool-blown",
})  # fmt: skip


def with_water(material: Material) -> Material:
    """A shipped material with all that it says of water; nothing of it is left to be derived."""
    key = material.key
    w80, w_f, A_w = _STORES.get(key, (0.0, 0.0, 0.0))
    mould: MouldClass = "medium resistant" if key in _MINERAL else _MOULD.get(key) or mould_class(material)
    return replace(
        material,
        w80=w80,
        w_f=w_f,
        A_w=A_w,
        mu_dry=_MU_DRY.get(key),
        sd_moist=_SD_MOIST.get(key),
        lambda_moist=lambda_moist(material),
        w_fresh=_FRESH.get(key, 0.0),
        mould=mould,
        feeds_mould=feeds_mould(replace(material, mould=mould)),
        wood=_WOOD.get(key) or wood_of(material),
        wets=wets(material) and key not in _MINERAL,
        takes_up=takes_up(material),
        surface=_SURFACE.get(key) or sealing_surface(material),
    )

"""Materials as data: `CATALOGUE["eps-graphite"]`. Generic ones only; every value has a source family."""

from nimble_shell.core.materials.catalogue import CATALOGUE, EDITION
from nimble_shell.core.materials.material import Catalogue, ConductivityTable, Material

__all__ = ["CATALOGUE", "EDITION", "Catalogue", "ConductivityTable", "Material"]

"""How much is ordered: concrete, mortar, plaster, beads, sealant, tape, screws, and the boards of a buck."""

"""Steady conduction in sections, boxes and bodies of revolution. Start at `section`, then `solve`."""

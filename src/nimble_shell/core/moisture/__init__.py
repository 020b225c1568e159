"""Moisture: `monthly` at the surface, in the depth and at a leak; `hourly` through the years; the `verdict`."""

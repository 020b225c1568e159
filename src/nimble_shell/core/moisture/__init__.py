"""Moisture: at the surface, by month in the depth, by hour, and through a joint."""

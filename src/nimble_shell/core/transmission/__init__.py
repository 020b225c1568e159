"""What a building loses by transmission, ISO 13789, and what its glazing makes of its walls."""

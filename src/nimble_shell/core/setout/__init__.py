"""Elevations divided into panels: joints, pieces and what they come to, to the proven optimum."""

"""Sheets cut into rectangles by through cuts, and what their offcuts can still give."""

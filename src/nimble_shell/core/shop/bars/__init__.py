"""Linear stock: bars and offcuts cut into pieces to the proven optimum."""

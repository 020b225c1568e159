"""The shop: bars and sheets that pieces are cut from, the laydown of a piece, quantities, and trucks in set order."""

"""The whole building: Basis (what is asked, and of where), buildings with their areas, and the ledger that adds up."""

"""Where the sun stands, what it brings to a plane under a clear sky, and what an overhang keeps of it."""

"""What plant a building needs on its worst days, and what heat over a year."""

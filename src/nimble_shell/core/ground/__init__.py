"""Heat through floors and walls that touch the ground, ISO 13370."""

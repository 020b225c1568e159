"""The job itself: pure, typed, no I/O, no clock, no web, no database. SI inside; Celsius temperatures are `theta`."""

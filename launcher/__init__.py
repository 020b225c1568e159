"""Sets a clone up and hands over to the program. Standard library only: it runs before anything is installed."""

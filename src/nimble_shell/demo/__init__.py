"""The demo campus, made by code through the services."""

from nimble_shell.demo.heron_flats import PROJECT_ID, plant

__all__ = ["PROJECT_ID", "plant"]

"""The neutral set-out case of the command line: elevations cut into panels, as plain JSON."""

from nimble_shell.formats.neutral_setout.panels import KIND, compute, read

__all__ = ["KIND", "compute", "read"]

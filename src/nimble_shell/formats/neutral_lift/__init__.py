"""The neutral lift case of the command line: lifts of panels, time on site and order of work, as plain JSON."""

from nimble_shell.formats.neutral_lift.case import KINDS, compute, read

__all__ = ["KINDS", "compute", "read"]

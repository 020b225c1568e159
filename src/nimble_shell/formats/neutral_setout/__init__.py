"""The neutral set-out case of the command line: panels, courses and drift, as plain JSON."""

from nimble_shell.formats.neutral_setout.case import KINDS, compute, read

__all__ = ["KINDS", "compute", "read"]

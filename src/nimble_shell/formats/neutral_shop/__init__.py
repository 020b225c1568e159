"""The neutral shop case of the command line: bars, sheets, laydown, quantities and loading, as plain JSON."""

from nimble_shell.formats.neutral_shop.case import KINDS, compute, read

__all__ = ["KINDS", "compute", "read"]

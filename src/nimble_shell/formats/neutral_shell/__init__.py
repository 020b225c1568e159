"""The neutral shell case of the command line: a building as plain JSON, each block a module of its own."""

from nimble_shell.formats.neutral_shell.case import ShellCase, compute, read

__all__ = ["ShellCase", "compute", "read"]

"""Nimble Shell: a drawing board that calculates, for buildings of insulated panels and concrete forms.

Rooms, imports pointing downwards: `cli` and `api` → `demo` → `services` → `store`, `reports` → `formats` → `core`.
Start reading at `core.assemblies.resistance`; from a notebook, `from nimble_shell.core import assemblies`.
"""

__version__ = "0.1.0"

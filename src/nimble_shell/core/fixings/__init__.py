"""Fixings: points that cross the insulation, as cells that repeat, with χ solved beside the approximate formula.

Start in `cell` (what is solved), then `solved`; `kinds` holds what a designer starts from. May import assemblies,
conduction, joints and materials; knows nothing of the shell's areas.
"""

"""One-dimensional truth of an assembly: layers in a row, inside → outside.

`element` is what the physics sees (resistances, parts, films); `assembly` is what a designer edits (materials,
members, air gaps); `resolve` turns the second into the first. `resistance`, `temperature`, `vapour`, `periodic`
and `fasteners` calculate on elements; `figures` puts them together for the bench; `study` sweeps a thickness.
"""

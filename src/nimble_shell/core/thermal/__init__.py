"""One-dimensional truth of a build-up: layers in a row, inside → outside.

`element` is what the physics sees (resistances, parts, films); `resolve` makes it of what a designer edits.
`resistance`, `temperature`, `vapour`, `periodic` and `fasteners` calculate on elements; `figures` puts together what a
screen shows.
"""

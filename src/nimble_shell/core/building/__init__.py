"""The shape of a building as drawn: `footprint` and `roof` of a body, `body` its faces, `joined` several of them."""

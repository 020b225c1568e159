"""Open formats: the shapes that cross our border, as Pydantic models, each with `to_core` and `from_core`.

`project` is the project file (also the wire format and the change log's snapshots), `neutral_wall` the case format
of the command line, `problems` turns every refusal into RFC 9457 problem details.
"""

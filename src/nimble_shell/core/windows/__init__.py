"""Windows and doors: `transmittance` is ISO 10077-1 of one of them, `unit` a type that a project builds with."""

"""By month (ISO 13788): `surface`, `condensation` in the depth, the `element` of a build-up, air that leaks."""

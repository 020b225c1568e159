"""By hour (EN 15026): `transport` solves, `seasons` runs a build-up over years, `life` says what that is and shows."""

"""The body of a building: `face` is a plane side of it, `closed` joins faces to a solid, `moved` shifts its planes."""

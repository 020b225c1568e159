"""What a body comes to: `areas` of its faces, `edges` by kind and length, `takeoff` all of it in each system."""

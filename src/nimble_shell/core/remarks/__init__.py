"""What the tool has to say of a build-up, unasked: `remarks` collects it, `control` looks at its control layers."""

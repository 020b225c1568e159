"""What a build-up could be: `thickness` sweeps its core, `variants` decide on foams, and more."""

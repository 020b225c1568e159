"""Tools of the workshop: bench, screenshots, API types. Not part of the product."""

"""Finding."""

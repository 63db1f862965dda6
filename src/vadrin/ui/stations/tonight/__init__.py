"""Film for a light: which of the films that were decided on does it."""

"""Plan."""

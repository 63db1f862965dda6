"""Read."""

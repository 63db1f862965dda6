"""Cards."""

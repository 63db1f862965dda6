"""Process."""

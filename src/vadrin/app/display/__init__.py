"""Numbers and units in words."""

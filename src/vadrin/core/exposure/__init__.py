"""Exposure: marks on dials, stops, what the camera gives and what long times lose."""

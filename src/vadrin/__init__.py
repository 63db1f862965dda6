"""Vadrin: find a film's exposure index and its development times."""

__version__ = "0.1.0"

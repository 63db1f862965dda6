"""Readings typed, imported, exported and doubted."""

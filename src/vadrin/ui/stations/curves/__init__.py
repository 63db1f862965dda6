"""Curves."""

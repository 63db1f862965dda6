"""Expose."""

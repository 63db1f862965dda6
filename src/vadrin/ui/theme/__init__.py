"""Colours and type."""

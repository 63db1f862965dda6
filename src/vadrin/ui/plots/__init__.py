"""Curves drawn."""

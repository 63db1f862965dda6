"""Characteristic curves, and the figures of sensitometry read off them."""

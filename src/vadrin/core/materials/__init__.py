"""Colour layers, stain, and density from spectra."""

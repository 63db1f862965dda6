"""Densities out of a picture of film: calibrated, found frame by frame, each with its sureness."""

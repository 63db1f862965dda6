"""Scans of film: opened, calibrated, their frames found, read and kept."""

"""The demo notebook: a volunteer darkroom qualifies its film for a winter."""

FOLDER_PREFIX = "vadrin-demo-"
"""Begins the name of every folder that a copy of it lies in."""

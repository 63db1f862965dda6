"""Endings of picture files; declared once, for whoever reads one and whoever asks for one."""

PICTURE_SUFFIXES = (".tif", ".tiff", ".png", ".jpg", ".jpeg")
"""Those that are read as they are; what has another ending is taken for a camera's raw file."""

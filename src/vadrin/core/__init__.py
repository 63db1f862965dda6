"""Sensitometry, test planning and film simulation: numpy and scipy only, no files, no screen."""

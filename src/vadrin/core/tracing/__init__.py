"""Curves taken off a picture: its axes, and points along a line of one colour."""

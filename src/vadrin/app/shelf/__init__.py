"""Tests side by side: the shelf, and films beside each other."""

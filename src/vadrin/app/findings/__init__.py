"""Findings as they are kept in a notebook: read back once, as typed data."""

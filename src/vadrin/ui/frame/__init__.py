"""The window and what stands around every station."""

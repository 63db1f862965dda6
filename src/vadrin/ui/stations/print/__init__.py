"""The Print station."""

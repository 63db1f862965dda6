"""A maker's sheet is laid beside the newest finding of its film."""

from vadrin.app.findings.latest_finding import latest_finding as ask

__all__ = ["ask"]

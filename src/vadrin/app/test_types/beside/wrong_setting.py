"""A roll shot at another setting is laid beside the newest finding of its film."""

from vadrin.app.decisions.found_film import found_film as ask

__all__ = ["ask"]

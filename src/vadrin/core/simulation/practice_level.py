"""How much goes wrong in a practice film; by itself, so that naming one needs no numbers."""

from __future__ import annotations

from enum import StrEnum


class Level(StrEnum):
    """How much goes wrong."""

    PLAIN = "plain"
    USUAL = "usual"
    HARD = "hard"
    FIRST = "first"
    ANY = "any"

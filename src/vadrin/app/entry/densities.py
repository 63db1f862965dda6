"""Densities and temperatures as people type them."""

from __future__ import annotations

from vadrin.app.entry.numbers import number_typed, number_within
from vadrin.errors import EntryError


def density_typed(words: str) -> float:
    """A transmission density.

    Raises
    ------
    EntryError
    """
    return number_within(words, 0, 6, "a density lies between 0 and 6, such as 0.49")


def temperature_typed(words: str) -> float:
    """A developer's temperature in degrees Celsius: ``20``, ``20,5 °C``, ``68 °F``.

    Raises
    ------
    EntryError
    """
    plain = words.replace("°", " ").strip()
    unit = plain[-1:].upper()
    value = number_typed(plain[:-1] if unit in ("C", "F") else plain, "20 or 20.5")
    if unit == "F":
        value = (value - 32) / 1.8
    if not 5 <= value <= 60:
        raise EntryError("a developer works between 5 and 60 °C")
    return value

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


def wedge_steps_typed(words: str, read_sd: float) -> tuple[float, float]:
    """A density with its standard deviation: read, or between two steps: ``1.20-1.35``.

    Parameters
    ----------
    words : str
    read_sd : float
        Of one that was read.

    Raises
    ------
    EntryError
    """
    plain = words.replace("between", "").replace(" and ", "-").replace("–", "-").strip()
    parts = [p for p in plain.split("-") if p.strip()]
    if len(parts) == 2:
        low, high = sorted(density_typed(p) for p in parts)
        return (low + high) / 2, max(read_sd, (high - low) / 12**0.5)
    return density_typed(plain), read_sd


def temperature_typed(
    words: str, low: float = 5.0, high: float = 60.0, fahrenheit: bool = False
) -> float:
    """A temperature in degrees Celsius: ``20``, ``20,5 °C``, ``68 °F``.

    Parameters
    ----------
    words : str
    low, high : float
        In degrees Celsius; a developer's, unless it is another water's.
    fahrenheit : bool
        Whether a number without a unit means that.

    Raises
    ------
    EntryError
    """
    plain = words.replace("°", " ").strip()
    unit = plain[-1:].upper()
    value = number_typed(plain[:-1] if unit in ("C", "F") else plain, "20 or 20.5")
    if unit == "F" or (fahrenheit and unit != "C"):
        value = (value - 32) / 1.8
    if not low <= value <= high:
        what = "a developer works" if low else "water is"
        raise EntryError(f"{what} between {low:g} and {high:g} °C")
    return value

"""Volumes as people type them, in millilitres, litres or fluid ounces."""

from __future__ import annotations

import re

from vadrin.app.display.units import METRIC, ML_A_FLUID_OUNCE, Units
from vadrin.app.entry.numbers import number_typed
from vadrin.errors import EntryError

_UNIT = re.compile(r"(ml|cc|l|liters?|litres?|(?:us )?fl\.? ?oz|oz)\.?$")


def volume_typed(words: str, high_ml: float, refusal: str, units: Units = METRIC) -> float:
    """Millilitres of ``600``, ``600 ml``, ``0,6 l``, ``20 fl oz``.

    Parameters
    ----------
    words : str
    high_ml : float
        The most; it must be above 0.
    refusal : str
        Said where it lies outside.
    units : Units
        What a number without a unit means.

    Raises
    ------
    EntryError
    """
    plain = words.strip().lower()
    found = _UNIT.search(plain)
    unit = found[1] if found else units.volume
    value = number_typed(plain[: found.start()] if found else plain, "600 or 20 fl oz")
    scale = 1.0 if unit in ("ml", "cc") else ML_A_FLUID_OUNCE if "oz" in unit else 1000.0
    if not 1 <= value * scale <= high_ml:
        raise EntryError(refusal)
    return value * scale

"""Volumes as people type them, in millilitres, litres or fluid ounces."""

from __future__ import annotations

import re

from vadrin.app.display.units import METRIC, ML_A_FLUID_OUNCE, Units
from vadrin.app.entry.numbers import number_typed, ungrouped
from vadrin.errors import EntryError

_UNIT = re.compile(r"(ml|cc|cm3|cm³|cl|dl|l|liters?|litres?|(?:us )?fl\.? ?oz|oz)\.?$")
_SMALL = {"ml": 1.0, "cc": 1.0, "cm3": 1.0, "cm³": 1.0, "cl": 10.0, "dl": 100.0}


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
    amount = (plain[: found.start()] if found else plain).strip()
    if unit in _SMALL:
        # Nobody pours to a thousandth of a millilitre: 1,000 ml is a litre.
        amount = ungrouped(amount)
    value = number_typed(amount, "600 or 20 fl oz")
    scale = _SMALL.get(unit, ML_A_FLUID_OUNCE if "oz" in unit else 1000.0)
    if not 1 <= value * scale <= high_ml:
        raise EntryError(refusal)
    return value * scale

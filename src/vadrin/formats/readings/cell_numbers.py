"""Numbers in the cells of a file: one rule, and nothing that could be two numbers is guessed."""

from __future__ import annotations

import math
import re
from collections.abc import Iterable

_NUMBER = re.compile(r"[-+]?(\d+([.,]\d*)?|[.,]\d+)(e[-+]?\d+)?", re.IGNORECASE | re.ASCII)
_GROUPED = re.compile(r"[-+]?[1-9]\d{0,2}(,\d{3})+", re.ASCII)
_DECIMAL_COMMA = re.compile(r"[-+]?(0*|\d{4,}|[1-9]\d*),(?!\d{3}$)\d+|[-+]?0+,\d+", re.ASCII)


def _plain(text: str) -> str:
    return text.strip().replace("−", "-").replace("\u00a0", "")


def number_of(text: str) -> float:
    """A number with decimal point or comma and either minus.

    Raises
    ------
    ValueError
        If it is none, or not finite.
    """
    plain = _plain(text)
    if not _NUMBER.fullmatch(plain):
        raise ValueError(text)
    value = float(plain.replace(",", "."))
    if not math.isfinite(value):
        raise ValueError(text)
    return value


def grouped_number(text: str) -> float | None:
    """What a cell such as ``1,600`` says where commas group thousands; None for other cells."""
    plain = _plain(text)
    return float(plain.replace(",", "")) if _GROUPED.fullmatch(plain) else None


def uses_decimal_comma(cells: Iterable[str]) -> bool:
    """Whether some cell can only be read with its comma as a decimal one, as ``0,49`` can."""
    with_comma = [cell for cell in cells if "," in cell]
    return any(_DECIMAL_COMMA.fullmatch(_plain(cell)) for cell in with_comma)

"""Numbers as people type them: decimal comma, true minus, fractions."""

from __future__ import annotations

import math
import re

from vadrin.app.entry.lists import parted
from vadrin.core.limits import Limit
from vadrin.errors import EntryError

_GLYPHS = {
    "½": 1 / 2,
    "⅓": 1 / 3,
    "⅔": 2 / 3,
    "¼": 1 / 4,
    "¾": 3 / 4,
    "⅙": 1 / 6,
    "⅚": 5 / 6,
    "⅛": 1 / 8,
}
_PART = re.compile(r"([½⅓⅔¼¾⅙⅚⅛])|(?:(?<=[\s+-])|^)(\d)\s*/\s*([2-9])")
_PLAIN = re.compile(r"[-+]?(\d+(\.\d*)?|\.\d+)(e[-+]?\d+)?", re.IGNORECASE)


_GROUPED = re.compile(r"[1-9]\d{0,2}(?:[,.'’\u00a0\u202f ]\d{3})+")


def ungrouped(text: str) -> str:
    """A large whole number without what parts its thousands: ``1,600`` and ``1 600`` are 1600.

    For quantities of which nobody writes three decimals.
    """
    plain = text.strip()
    return re.sub(r"\D", "", plain) if _GROUPED.fullmatch(plain) else plain


def number_typed(text: str, like: str = "0.49 or 0,49") -> float:
    """A number.

    Parameters
    ----------
    text : str
    like : str
        What would do in this field, for the refusal.

    Raises
    ------
    EntryError
        With words for the person who typed it.
    """
    plain = text.strip().replace(",", ".").replace("−", "-").replace("–", "-")
    sign = -1.0 if plain.startswith("-") else 1.0
    part = 0.0
    found = _PART.search(plain)
    if found and found.end() == len(plain):
        part = _GLYPHS[found[1]] if found[1] else int(found[2]) / int(found[3])
        plain = plain[: found.start()].strip()
    if part and plain in ("", "-", "+"):
        return sign * part
    whole = float(plain) if _PLAIN.fullmatch(plain) else math.nan
    if not math.isfinite(whole):
        raise EntryError(f"“{text.strip()}” is not a number; type one such as {like}")
    return whole + sign * part


def number_within(text: str, low: float, high: float, refusal: str, like: str = "") -> float:
    """A number between two bounds.

    Parameters
    ----------
    text : str
    low, high : float
        Both allowed.
    refusal : str
        Said where it lies outside.
    like : str
        What would do in this field.

    Raises
    ------
    EntryError
    """
    value = number_typed(text, like or "0.49 or 0,49")
    if not low <= value <= high:
        raise EntryError(refusal)
    return value


def count_typed(text: str, low: int, high: int, refusal: str) -> int:
    """A whole number, a noun after it or not: ``3``, ``3 strips``.

    Raises
    ------
    EntryError
    """
    words = text.split()
    value = number_within(words[0] if words else "", low, high, refusal, f"{low + 1}")
    if value != round(value):
        raise EntryError(f"“{text.strip()}” is no whole number; {refusal}")
    return round(value)


def numbers_typed(words: str, most: int = 31, like: str = "0, 1, 2") -> tuple[float, ...]:
    """Numbers with commas, semicolons or spaces between them: ``0, 0,5 and 1``.

    Raises
    ------
    EntryError
        For none, too many, something else among them, or a comma that may be either.
    """
    pieces = parted(words, "number")
    if not 1 <= len(pieces) <= most:
        raise EntryError(f"type one to {most} numbers, such as {like}")
    return tuple(number_typed(piece, like) for piece in pieces)


def pairs_typed(words: str, like: str) -> list[tuple[float, float]]:
    """Pairs of numbers such as ``1: 1.5, 10: 25``; what parts them is followed by a space.

    Raises
    ------
    EntryError
        For what is no pair, or no number.
    """
    pairs = []
    for piece in re.split(r"[;,]\s+|;", words.strip()):
        first, colon, second = piece.partition(":")
        if not colon:
            raise EntryError(f"“{piece.strip()}” is no pair; type {like}")
        pairs.append((number_typed(first.strip(" s")), number_typed(second.strip(" s"))))
    return pairs


def within(text: str, limit: Limit) -> float:
    """A number within a limit that is the same wherever it is typed.

    Raises
    ------
    EntryError
        With what to enter.
    """
    return number_within(text, limit.low, limit.high, limit.sentence, limit.example)

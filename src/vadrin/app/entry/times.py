"""Times as people type them: minutes of development, shutter marks, days."""

from __future__ import annotations

import re
from datetime import date

from vadrin.app.entry.numbers import number_typed
from vadrin.errors import EntryError

LONGEST_MIN = 600
_SHUTTER = "1/125 or 2 s"
_FRACTION_MARKS = {"½": "0.5", "⅓": "1/3", "¼": "1/4"}


def minutes_typed(text: str) -> float:
    """Minutes: ``8``, ``8.5``, ``8,5``, ``7:50``, ``7:50 min``, ``7 min 50 s``.

    Raises
    ------
    EntryError
        With words for the person who typed it.
    """
    clock = re.fullmatch(r"\s*(\d+)\s*(?::\s*([0-5]\d)|min\s*([0-5]?\d))\s*(?:s|sec|min)?\s*", text)
    if clock:
        minutes = int(clock[1]) + int(clock[2] or clock[3]) / 60
    else:
        minutes = number_typed(re.sub(r"\s*min(utes)?\s*$", "", text), "8, 8.5 or 7:50")
    if not 0 < minutes <= LONGEST_MIN:
        raise EntryError(f"a development time lies above 0 and up to {LONGEST_MIN} minutes")
    return minutes


def times_typed(text: str) -> tuple[float, ...]:
    """Several times: ``6, 8, 11 and 15``, ``6; 8,5; 11`` or ``6,8,11``.

    A comma before a space parts two times; a comma inside a word is a decimal comma, unless
    there is no space at all.

    Raises
    ------
    EntryError
        With words for the person who typed it.
    """
    plain = re.sub(r"\b(and|min)\b", " ", text).strip()
    if re.search(r"[;\s]", plain):
        pieces = re.split(r"[;\s]+", plain)
    elif plain.count(",") == 1:
        raise EntryError(
            f"“{plain}”: two times, or one? Put a space after the comma for two, or write "
            f"{plain.replace(',', '.')} for one"
        )
    else:
        pieces = plain.split(",")
    times = tuple(minutes_typed(piece.strip(",")) for piece in pieces if piece.strip(","))
    if not times:
        raise EntryError("type at least one time, such as 6, 8, 11, 15")
    return times


def seconds_typed(words: str) -> float:
    """A shutter time: ``1/60``, ``2``, ``0,5 s``, ``½ s``; as the program names it, too.

    Where two marks share a name its seconds follow, and count: ``1/20 (0.0442 s)``.

    Raises
    ------
    EntryError
        With words for the person who typed it.
    """
    plain = words.strip().lower()
    noted = re.fullmatch(r"(.*?)\((?:([\d.,]+) s|[a-z ]+)\)", plain)
    if noted:
        plain = (noted[2] or noted[1]).strip()
    plain = plain.removesuffix("s").strip()
    plain = _FRACTION_MARKS.get(plain, plain)
    part = plain.startswith("1/")
    try:
        seconds = number_typed(plain[2:] if part else plain)
    except EntryError as error:
        raise EntryError(f"“{words.strip()}” is no shutter time; type {_SHUTTER}") from error
    if part and seconds:
        seconds = 1.0 / seconds
    if not 1 / 20000 < seconds <= 36000:
        raise EntryError("a shutter time lies between 1/16000 and 36000 s, such as 1/30")
    return seconds


def day_typed(words: str) -> str:
    """A day in ISO 8601; empty stays empty.

    Raises
    ------
    EntryError
        With words for the person who typed it.
    """
    plain = words.strip()
    if not plain:
        return ""
    try:
        return date.fromisoformat(plain).isoformat()
    except ValueError as error:
        raise EntryError(f"“{plain}” is no date; type it as 2026-11-23") from error

"""One grammar of durations for every field that takes one: ``8:30``, ``8 min 30 s``, ``1 h 5``."""

from __future__ import annotations

import re

from vadrin.app.entry.numbers import number_typed
from vadrin.errors import EntryError

_UNITS = {
    "h": 3600.0,
    "hour": 3600.0,
    "hours": 3600.0,
    "m": 60.0,
    "min": 60.0,
    "mins": 60.0,
    "minute": 60.0,
    "minutes": 60.0,
    "'": 60.0,
    "′": 60.0,
    "s": 1.0,
    "sec": 1.0,
    "secs": 1.0,
    "second": 1.0,
    "seconds": 1.0,
    '"': 1.0,
    "″": 1.0,
}
_MOST_HOURS = 4
"""Hours of ``1:02:00``: no film lies in a bath for 9:30:10, which somebody meant otherwise."""
_SMALLER = {3600.0: 60.0, 60.0: 1.0}
_CLOCK = re.compile(r"(?:(\d+)\s*:\s*)?(\d+)\s*:\s*([0-5]\d)\s*(?:h|min|mins|minutes|m|s|sec)?\.?")
_PART = re.compile(r"([\d.,½¼¾⅓⅔]+(?:\s+\d/\d)?|\d/\d)\s*([a-z]+|['′\"″])?\.?\s*", re.IGNORECASE)


def duration_s(words: str, bare_s: float, like: str) -> float:
    """Seconds of a duration.

    Parameters
    ----------
    words : str
    bare_s : float
        Seconds that a number without a unit counts: 60 in a field of minutes.
    like : str
        What would do in this field, for the refusal.

    Raises
    ------
    EntryError
        For what is no duration; nothing of it is guessed.
    """
    plain = words.strip().lower()
    clock = _CLOCK.fullmatch(plain)
    if clock:
        if clock[1] and (int(clock[2]) > 59 or int(clock[1]) > _MOST_HOURS):
            raise _refusal(words, like)
        return 3600.0 * int(clock[1] or 0) + 60.0 * int(clock[2]) + int(clock[3])
    parts = list(_PART.finditer(plain))
    if not parts or "".join(p[0] for p in parts).strip() != plain:
        # One number, such as −8 or 1e9: what it lacks is said by whoever reads numbers.
        return bare_s * number_typed(words, like)
    return _summed(parts, bare_s, words, like)


def _summed(parts: list[re.Match[str]], bare_s: float, words: str, like: str) -> float:
    """The parts from the largest unit to the smallest, each once."""
    total, before = 0.0, None
    for part in parts:
        if part[2]:
            unit = _UNITS.get(part[2])
        else:
            # A number after minutes counts the next smaller unit: 8 min 30, 1 h 05.
            unit = bare_s if before is None else _SMALLER.get(before)
        if unit is None or (before is not None and unit >= before):
            raise _refusal(words, like)
        value = number_typed(part[1], like)
        if before is not None and value >= before / unit:
            raise _refusal(words, like)
        total, before = total + unit * value, unit
    return total


def _refusal(words: str, like: str) -> EntryError:
    return EntryError(f"“{words.strip()}” is no time; type one such as {like}")

"""Times as people type them: minutes of development, shutter marks, days."""

from __future__ import annotations

import re
from datetime import date

from vadrin.app.entry.durations import duration_s
from vadrin.app.entry.lists import parted
from vadrin.app.entry.numbers import number_typed, ungrouped
from vadrin.errors import EntryError

LONGEST_MIN = 600
_SHUTTER = "1/125 or 2 s"


def minutes_typed(text: str) -> float:
    """Minutes: ``8``, ``8.5``, ``8,5``, ``7:50``, ``7 min 50 s``, ``510 s``, ``1 h 5 min``.

    Raises
    ------
    EntryError
        With words for the person who typed it.
    """
    minutes = duration_s(text, 60.0, "8, 8.5 or 7:50") / 60
    if not 0 < minutes <= LONGEST_MIN:
        raise EntryError(f"a development time lies above 0 and up to {LONGEST_MIN} minutes")
    return minutes


def times_typed(text: str) -> tuple[float, ...]:
    """Several times: ``6, 8, 11 and 15``, ``6; 8,5; 11`` or ``6,8,11``.

    Raises
    ------
    EntryError
        With words for the person who typed it.
    """
    times = tuple(minutes_typed(piece) for piece in parted(text, "time"))
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
    part = re.fullmatch(r"1\s*/\s*(.+?)\s*(?:s|sec|secs|seconds?)?\.?", plain)
    try:
        # A mark of a thousandth is written 1/1,000, too; 1/7.127 is a time the program names.
        if part:
            of = number_typed(part[1] if "." in part[1] else ungrouped(part[1]))
            seconds = 1.0 / of if of else 0.0
        else:
            seconds = duration_s(plain, 1.0, _SHUTTER)
    except EntryError as error:
        raise EntryError(f"“{words.strip()}” is no shutter time; type {_SHUTTER}") from error
    if not 1 / 20000 < seconds <= 36000:
        raise EntryError("a shutter time lies between 1/16000 and 36000 s, such as 1/30")
    return seconds


_DAY = re.compile(r"(\d{1,2})([./])\s*(\d{1,2})\2\s*(\d{4})")


def day_typed(words: str) -> str:
    """A day in ISO 8601 of ``2026-11-23``, ``23.11.2026`` or ``11/23/2026``; empty stays empty.

    Where day and month cannot be told apart it is refused, not guessed.

    Raises
    ------
    EntryError
        With words for the person who typed it.
    """
    plain = words.strip()
    if not plain:
        return ""
    try:
        return _day(plain).isoformat()
    except EntryError:
        raise
    except ValueError as error:
        raise EntryError(f"“{plain}” is no date; type it as 2026-11-23") from error


def _day(plain: str) -> date:
    parts = _DAY.fullmatch(plain)
    if parts is None:
        return date.fromisoformat(plain)
    first, mark, second, year = int(parts[1]), parts[2], int(parts[3]), int(parts[4])
    if mark == ".":
        return date(year, second, first)
    days = {date(year, m, d) for d, m in ((first, second), (second, first)) if m <= 12}
    if not days:
        raise ValueError(plain)
    if len(days) > 1:
        first_way, other = (f"{day:%Y-%m-%d}" for day in sorted(days))
        raise EntryError(f"“{plain}” may be two dates; type {first_way} or {other}")
    return days.pop()

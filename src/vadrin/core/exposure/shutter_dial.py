"""Marks on shutter dials: whole, half and third stops, and the exact times behind them.

Source: ISO R10 names for thirds; the names engraved on dials for whole and half stops.
"""

from __future__ import annotations

from functools import lru_cache
from math import isfinite, log2

_WHOLE = (
    "30",
    "15",
    "8",
    "4",
    "2",
    "1",
    "1/2",
    "1/4",
    "1/8",
    "1/15",
    "1/30",
    "1/60",
    "1/125",
    "1/250",
    "1/500",
    "1/1000",
    "1/2000",
    "1/4000",
    "1/8000",
    "1/16000",
)
_THIRDS = (
    "25 20",
    "13 10",
    "6 5",
    "3.2 2.5",
    "1.6 1.3",
    "0.8 0.6",
    "0.4 0.3",
    "1/5 1/6",
    "1/10 1/13",
    "1/20 1/25",
    "1/40 1/50",
    "1/80 1/100",
    "1/160 1/200",
    "1/320 1/400",
    "1/640 1/800",
    "1/1250 1/1600",
    "1/2500 1/3200",
    "1/5000 1/6400",
    "1/10000 1/12500",
)
_HALVES = (
    "23",
    "11",
    "6",
    "3",
    "1.5",
    "0.7",
    "0.35",
    "1/6",
    "1/10",
    "1/20",
    "1/45",
    "1/90",
    "1/180",
    "1/350",
    "1/750",
    "1/1500",
    "1/3000",
    "1/6000",
    "1/12000",
)
_LONGEST = 5
"""Power of two of the longest mark: 30 stands for 32 seconds."""

LEADS_BACK = 0.02
"""Stops by which a mark's name may differ from the time it is to stand for."""

_AS_WRITTEN = 0.012
"""Stops within which a number is a mark's own: 1/750, not 1/724."""


def _number(mark: str) -> float:
    return 1.0 / float(mark[2:]) if mark.startswith("1/") else float(mark)


def _dial() -> dict[str, tuple[float, ...]]:
    """The exact times every mark may stand for, its usual one first."""
    stands: dict[str, tuple[float, ...]] = {}
    for place, mark in enumerate(_WHOLE):
        stands[mark] = (2.0 ** (_LONGEST - place),)
    for place, pair in enumerate(_THIRDS):
        for third, mark in enumerate(pair.split(), start=1):
            stands[mark] = (2.0 ** (_LONGEST - place - third / 3),)
    for place, mark in enumerate(_HALVES):
        stands[mark] = (*stands.get(mark, ()), 2.0 ** (_LONGEST - place - 0.5))
    return stands


_MARKS = _dial()
_NUMBERS = [(mark, _number(mark)) for mark in _MARKS]


@lru_cache(maxsize=4096)
def exact_shutter(seconds: float) -> float:
    """Translate a marked shutter time into the exact one behind the mark, a power of two.

    Whole, half and third stops are known by their marks; a time between marks stands as it is.
    """
    for mark, number in _NUMBERS:
        if abs(log2(seconds / number)) < _AS_WRITTEN:
            return _MARKS[mark][0]
    exact: float = 2.0 ** (round(6 * log2(seconds)) / 6.0)
    return exact if abs(log2(seconds / exact)) < LEADS_BACK else float(seconds)


@lru_cache(maxsize=4096)
def shutter_mark(seconds: float) -> tuple[str, str]:
    """The mark to set for a time, exact or as marked, and what is to be known about it.

    Returns
    -------
    mark : str
        ``1/125``, ``½ s``, ``2 s``; the time itself where no mark stands for it.
    note : str
        Seconds, where two marks share the name, or how to give a time that has no mark; empty
        for a plain mark.
    """
    for mark, number in _NUMBERS:
        if abs(log2(seconds / number)) < _AS_WRITTEN:
            return _spoken(mark), ""
    for mark, exact in _MARKS.items():
        for place, time in enumerate(exact):
            if abs(log2(seconds / time)) <= LEADS_BACK:
                return _spoken(mark), f"{seconds:.3g} s" if place else ""
    if seconds < 0.5:
        return f"1/{1 / seconds:.4g}", "between marks"
    shown = f"{seconds:.3g}" if seconds < 100 else f"{seconds:.0f}"
    return f"{shown} s", "" if exact_shutter(float(shown)) == float(shown) else "timed"


def _spoken(mark: str) -> str:
    if mark == "1/2":
        return "½ s"
    return mark if mark.startswith("1/") else f"{mark} s"


def shutter_name(seconds: float) -> str:
    """A time in the words of a dial, with its note: ``1/750``, ``1/20 (0.0442 s)``.

    Raises
    ------
    ValueError
        If the time is not a positive finite number.
    """
    if not isfinite(seconds) or seconds <= 0:
        raise ValueError("a shutter time is a positive number of seconds")
    mark, note = shutter_mark(seconds)
    return f"{mark} ({note})" if note else mark

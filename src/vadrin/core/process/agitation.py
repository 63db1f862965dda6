"""Agitation as people write it down, and the moments at which it asks for hands."""

from __future__ import annotations

import re
from dataclasses import dataclass

_UNITS = {
    "s": 1.0,
    "sec": 1.0,
    "second": 1.0,
    "seconds": 1.0,
    "min": 60.0,
    "minute": 60.0,
    "minutes": 60.0,
    "h": 3600.0,
}
_SPAN = r"(\d+(?:[.,]\d+)?)\s*(s|sec|seconds?|min|minutes?|h)\b"
_FIRST = re.compile(rf"first\s+{_SPAN}")
_EVERY = re.compile(rf"{_SPAN}\s+(?:every|each|per)\s+(?:{_SPAN}|(minute|second|hour))")
_TURNS = re.compile(
    r"(\d+)\s+(?:turns?|inversions?|lifts?)\s+(?:a|per|every|each)\s+"
    rf"(?:{_SPAN}|(minute|half minute))"
)
_AT = re.compile(r"\bat\s+((?:\d+(?:[.,]\d+)?\s*(?:,|and)?\s*)+)(s|sec|seconds?|min|minutes?|h)\b")
SECONDS_A_TURN = 2.5
_WORD = {"minute": 60.0, "second": 1.0, "hour": 3600.0, "half minute": 30.0}


@dataclass(frozen=True)
class Agitation:
    """When the tank is moved.

    Attributes
    ----------
    first_s : float
        From the beginning.
    for_s, every_s : float
        Then for so long, beginning every so often; 0 for no more.
    moments_s : tuple of float
        Single moments besides, each of `for_s`, or ten seconds.
    continuous : bool
        All the time.
    """

    first_s: float = 0.0
    for_s: float = 0.0
    every_s: float = 0.0
    moments_s: tuple[float, ...] = ()
    continuous: bool = False

    def spans(self, length_s: float) -> tuple[tuple[float, float], ...]:
        """When the tank moves during a step, (from, to) in seconds, in order, none touching."""
        if self.continuous:
            return ((0.0, length_s),)
        wanted = [(0.0, self.first_s)] if self.first_s > 0 else []
        if self.every_s > 0 and self.for_s > 0:
            count = int(length_s / self.every_s)
            wanted += [
                (i * self.every_s, i * self.every_s + self.for_s) for i in range(1, count + 1)
            ]
        wanted += [(at, at + (self.for_s or 10.0)) for at in self.moments_s]
        made: list[tuple[float, float]] = []
        for start, end in sorted(wanted):
            end = min(end, length_s)
            if start >= length_s:
                continue
            if made and start <= made[-1][1]:
                made[-1] = (made[-1][0], max(made[-1][1], end))
            else:
                made.append((start, end))
        return tuple(made)


STAND = Agitation()


def _seconds(number: str, unit: str) -> float:
    return float(number.replace(",", ".")) * _UNITS[unit]


def agitation_of(words: str) -> Agitation | None:
    """What words about agitation ask for; None where they tell no time.

    ``continuous``, ``stand``, ``first 30 s, then 10 s every minute``, ``4 turns a minute``,
    ``first 60 s, then 10 s at 30, 60 and 90 min``.
    """
    plain = words.strip().lower()
    if re.search(r"continuous|constant|rotary", plain):
        return Agitation(continuous=True)
    first = _FIRST.search(plain)
    rest = plain[: first.start()] + plain[first.end() :] if first else plain
    first_s = _seconds(first[1], first[2]) if first else 0.0
    moments = _moments(rest)
    every = _EVERY.search(rest)
    turns = _TURNS.search(rest)
    if every:
        period = _WORD[every[5]] if every[5] else _seconds(every[3], every[4])
        return Agitation(first_s, _seconds(every[1], every[2]), period, moments)
    if turns:
        period = _WORD[turns[4]] if turns[4] else _seconds(turns[2], turns[3])
        return Agitation(first_s, float(turns[1]) * SECONDS_A_TURN, period, moments)
    if moments or first_s or re.search(r"\bstand\b|\bnone\b|\bstill\b", plain):
        span = re.search(_SPAN, rest) if moments else None
        each = _seconds(span[1], span[2]) if span and span.start() < rest.find("at ") else 0.0
        return Agitation(first_s, each, 0.0, moments)
    return None


def _moments(words: str) -> tuple[float, ...]:
    found = _AT.search(words)
    if not found:
        return ()
    return tuple(_seconds(n, found[2]) for n in re.findall(r"\d+(?:[.,]\d+)?", found[1]))

"""A maker's table of times: what it says for a push, whichever way its lines are told."""

from __future__ import annotations

import math
from dataclasses import dataclass

from vadrin.core.restated_time import DEFAULT_Q10, REFERENCE_TEMPERATURE_C, restated_time

_SAME = 1 / 12
"""Stops within which two lines speak of one push."""


@dataclass(frozen=True)
class MakersLine:
    """One line of a maker's table.

    Attributes
    ----------
    minutes : float
    stops : float or None
        Of push; None where an EI says it, or for the normal.
    exposure_index : float or None
    temperature_c : float or None
        None for the reference.
    """

    minutes: float
    stops: float | None = None
    exposure_index: float | None = None
    temperature_c: float | None = None

    def push(self, box_speed: float) -> float:
        """Stops above the film's own speed; 0 for the normal."""
        if self.stops is not None:
            return self.stops
        if self.exposure_index is None:
            return 0.0
        # Marks are rounded: 1600 on a film of 400 is two stops.
        return round(3 * math.log2(self.exposure_index / box_speed)) / 3


def makers_times(
    lines: tuple[MakersLine, ...],
    box_speed: float,
    reference_c: float = REFERENCE_TEMPERATURE_C,
    q10: float = DEFAULT_Q10,
) -> tuple[tuple[float, float], ...]:
    """Stops of push with their minutes at the reference temperature, the least push first.

    Where the table has a push at several temperatures, the line nearest the reference speaks.

    Parameters
    ----------
    lines : tuple of MakersLine
    box_speed : float
        Speed that its EIs count from.
    reference_c, q10 : float
        Of the process; a line at another temperature is restated with them.
    """
    best: dict[float, tuple[float, float]] = {}
    for line in lines:
        away = abs(
            (reference_c if line.temperature_c is None else line.temperature_c) - reference_c
        )
        push = line.push(box_speed)
        known = next((p for p in best if abs(p - push) < _SAME), push)
        minutes = restated_time(line.minutes, line.temperature_c, reference_c, q10)
        if known not in best or away < best[known][0]:
            best[known] = (away, minutes)
    return tuple((push, best[push][1]) for push in sorted(best))


def makers_minutes(times: tuple[tuple[float, float], ...], stops: float) -> float | None:
    """What a table says for a push: its line, or between two of them; None beyond them.

    Parameters
    ----------
    times : tuple of (float, float)
        As `makers_times` has them.
    stops : float
    """
    below = max((t for t in times if t[0] <= stops + _SAME), default=None)
    above = min((t for t in times if t[0] >= stops - _SAME), default=None)
    if below is None or above is None:
        return None
    if above[0] - below[0] < _SAME:
        return below[1]
    share = (stops - below[0]) / (above[0] - below[0])
    return float(below[1] * (above[1] / below[1]) ** share)

"""Exposure arithmetic: marks on dials, exposure indexes, stops and log exposure.

Sources: ISO 2720 (meter constants), ISO R10 (the series of marked values).
"""

from __future__ import annotations

from math import isfinite, log2, log10

STOP = log10(2.0)
"""One stop as a difference of log10 exposure."""

METER_CONSTANT = 8.125
"""Lux seconds at the film times EI for a metered even target: K = 12.5 times q = 0.65."""

ZONE_I_STOPS = 4
"""Zone I lies this many stops under the meter reading."""

_DECADE = (100, 125, 160, 200, 250, 320, 400, 500, 640, 800)
_SHUTTER_MARKS = (
    1, 2, 4, 8, 15, 30, 60, 125, 250, 500, 1000, 2000, 4000, 8000,
)  # fmt: skip
_FRACTIONS = ((1, ""), (2, "½"), (3, "⅓⅔"), (6, "⅙⅓½⅔⅚"))


def marked_ei(exposure_index: float) -> int:
    """Name the marked EI nearest an exact one.

    Parameters
    ----------
    exposure_index : float
        Exact exposure index, above 0.

    Returns
    -------
    int
        The ISO R10 name of the nearest third of a stop from 100.

    Raises
    ------
    ValueError
        If the index is not a positive finite number.
    """
    if not isfinite(exposure_index) or exposure_index <= 0:
        raise ValueError("an exposure index is a positive number")
    third = round(3 * log2(exposure_index / 100.0))
    decade, place = divmod(third, 10)
    scaled = _DECADE[place] * 10.0**decade
    return max(1, round(scaled))


def exact_ei(marked: float) -> float:
    """Translate a marked EI into the exact value behind the mark, 100 * 2**(k/3).

    Parameters
    ----------
    marked : float
        The value on the dial or the box. A value more than a tenth of a stop
        from every mark is taken as it stands.
    """
    third = round(3 * log2(marked / 100.0))
    exact: float = 100.0 * 2.0 ** (third / 3.0)
    return exact if abs(log2(marked / exact)) < 0.1 else float(marked)


def exact_shutter(seconds: float) -> float:
    """Translate a marked shutter time in seconds into the exact power of two.

    Thirds of a stop between the whole marks are kept as thirds.
    """
    exact: float = 2.0 ** (round(3 * log2(seconds)) / 3.0)
    return exact if abs(log2(seconds / exact)) < 0.15 else float(seconds)


def exact_aperture(f_number: float) -> float:
    """Translate a marked aperture into 2**(n/2), by sixths of a stop in area."""
    exact: float = 2.0 ** (round(12 * log2(f_number)) / 12.0)
    return exact


def log_h_of_frame(
    exposure_index: float, stops: float, meter_constant: float = METER_CONSTANT
) -> float:
    """Log exposure of a frame of a metered even target.

    x = lg(k / EI) + lg 2 * stops

    Parameters
    ----------
    exposure_index : float
        EI set on the meter.
    stops : float
        Offset from the meter reading, plus is more exposure.
    meter_constant : float
        k in lux seconds.

    Returns
    -------
    float
        lg lux seconds.
    """
    return log10(meter_constant / exposure_index) + STOP * stops


def meter_point(exposure_index: float, meter_constant: float = METER_CONSTANT) -> float:
    """Log exposure (lg lux s) of a metered even target at an EI."""
    return log10(meter_constant / exposure_index)


def bracket(first: float, last: float, step: float) -> tuple[float, ...]:
    """Offsets in stops from first to last, both included, in even steps.

    Raises
    ------
    ValueError
        If the step is not positive, or more than 200 frames would result.
    """
    if step <= 0:
        raise ValueError("the step of a bracket is above 0")
    count = int(abs(last - first) / step + 1.001)
    if count > 200:
        raise ValueError("a bracket of more than 200 frames")
    sign = 1 if last >= first else -1
    return tuple(round(first + sign * i * step, 4) for i in range(count))


def shutter_name(seconds: float) -> str:
    """Name the nearest mark of a shutter dial: ``1/125``, ``½ s``, ``2 s``."""
    if seconds >= 0.7:
        return f"{round(seconds, 0 if seconds >= 10 else 1):g} s"
    if seconds > 0.35:
        return "½ s"
    inverse = 1.0 / seconds

    def apart(mark: float) -> float:
        return abs(log2(mark / inverse))

    marks: list[float] = [float(mark) for mark in _SHUTTER_MARKS]
    if min(map(apart, marks)) > 0.2:
        marks += [mark * 2 ** (k / 3) for mark in marks for k in (-1, 1)]
    nearest: float = min(marks, key=apart)
    return f"1/{round(nearest)}"


def stops_text(stops: float, signed: bool = False) -> str:
    """Write stops with thirds and halves as fractions and a true minus: ``−1⅔``."""
    sign = "−" if stops < 0 else ("+" if signed and stops > 0 else "")
    size = abs(stops)
    for parts, glyphs in _FRACTIONS:
        count = round(size * parts)
        if abs(size * parts - count) < 0.02 * parts:
            whole, part = divmod(count, parts)
            if not part:
                return f"{sign}{whole}" if whole else "0"
            return f"{sign}{whole or ''}{glyphs[part - 1]}"
    return f"{sign}{size:.1f}"


def nearest_third(stops: float) -> float:
    """Round an amount of stops to thirds, as testers speak of it."""
    return round(stops * 3) / 3

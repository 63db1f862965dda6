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
_WHOLE_FROM = 6
"""The lowest EI that dials name by a whole number alone."""

_FRACTIONS = ((1, ""), (2, "½"), (3, "⅓⅔"), (6, "⅙⅓½⅔⅚"))


def marked_ei(exposure_index: float) -> float:
    """Name the marked EI nearest an exact one.

    Parameters
    ----------
    exposure_index : float
        Exact exposure index, above 0.

    Returns
    -------
    int or float
        The ISO R10 name of the nearest third of a stop from 100; whole from 6 up, as dials have
        it, with its decimals below: 3.2, 1.6, 0.8.

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
    whole = round(scaled)
    return whole if scaled >= _WHOLE_FROM or abs(scaled - whole) < 1e-9 else round(scaled, 6)


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


def stops_counted(stops: float) -> str:
    """An amount of stops with its noun: ``⅔ stop``, ``1 stop``, ``2 stops``; no sign."""
    return f"{stops_text(abs(stops))} stop{'s' if abs(stops) > 1.02 else ''}"


def nearest_third(stops: float) -> float:
    """Round an amount of stops to thirds, as testers speak of it."""
    return round(stops * 3) / 3

"""Development times restated at the reference temperature."""

from __future__ import annotations

import statistics
from collections.abc import Sequence

REFERENCE_TEMPERATURE_C = 20.0
DEFAULT_Q10 = 2.5
"""Factor by which development speeds up for each 10 kelvin."""


def restated_time(
    time_min: float,
    temperature_c: float | None,
    reference_c: float = REFERENCE_TEMPERATURE_C,
    q10: float = DEFAULT_Q10,
) -> float:
    """Restate a development time at the reference temperature.

    t_ref = t * Q**((T - T_ref) / 10)

    Parameters
    ----------
    time_min : float
        Minutes at `temperature_c`.
    temperature_c : float or None
        None counts as the reference temperature.
    reference_c : float
    q10 : float
        Factor in rate per 10 kelvin, 2 to 4 in practice.
    """
    if temperature_c is None:
        return time_min
    return float(time_min * q10 ** ((temperature_c - reference_c) / 10.0))


RESTATED_WITHIN_K = 8.0
"""Kelvin from the reference beyond which the usual factor is no guide."""


def usual_reference(temperatures_c: Sequence[float | None]) -> float:
    """The temperature times are restated at where nothing names it.

    The usual 20 °C, unless every bath was so far from it that a factor for a few degrees says
    nothing: then their own middle.
    """
    noted = [t for t in temperatures_c if t is not None]
    if not noted or any(abs(t - REFERENCE_TEMPERATURE_C) <= RESTATED_WITHIN_K for t in noted):
        return REFERENCE_TEMPERATURE_C
    return round(statistics.median(noted), 1)

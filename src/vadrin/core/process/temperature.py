"""A bath that cooled or warmed: the time it was worth at the reference temperature."""

from __future__ import annotations

from collections.abc import Sequence

import numpy as np

from vadrin.core.arrays import Array
from vadrin.core.readings import DEFAULT_Q10, REFERENCE_TEMPERATURE_C

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
    return round(float(np.median(noted)), 1)


def restated_drift(
    minutes: Array,
    temperature_c: Array,
    total_min: float,
    reference_c: float = REFERENCE_TEMPERATURE_C,
    q10: float = DEFAULT_Q10,
) -> float:
    """Integrate the speed of development over a log of temperatures.

    t_ref = integral of Q**((T(t) - T_ref) / 10) dt, T linear between the notes and constant
    beyond them.

    Parameters
    ----------
    minutes, temperature_c : ndarray, shape (n,)
        When the thermometer was read, and what it said; rising minutes.
    total_min : float
        Length of the development.
    reference_c, q10 : float

    Raises
    ------
    ValueError
        If nothing was noted or the time is not positive.
    """
    if len(minutes) == 0 or total_min <= 0:
        raise ValueError("a drift needs a note of temperature and a time above 0")
    fine = np.linspace(0.0, total_min, 241)
    warmth = np.interp(fine, minutes, temperature_c)
    speed = q10 ** ((warmth - reference_c) / 10.0)
    return float(((speed[1:] + speed[:-1]) / 2 * np.diff(fine)).sum())


def fitted_q10(minutes: Array, temperature_c: Array) -> float:
    """Q from developments that gave the same contrast at different temperatures.

    ln t falls by ln Q / 10 a kelvin; the result stays between 2 and 4.
    """
    if len(minutes) < 2 or np.ptp(temperature_c) < 1.0:
        raise ValueError("two developments at temperatures a degree apart are needed")
    slope = float(np.polyfit(temperature_c, np.log(minutes), 1)[0])
    return float(np.clip(np.exp(-10.0 * slope), 2.0, 4.0))

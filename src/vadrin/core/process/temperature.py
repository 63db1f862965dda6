"""A bath that cooled or warmed: the time it was worth at the reference temperature."""

from __future__ import annotations

import numpy as np

from vadrin.core.arrays import Array
from vadrin.core.restated_time import DEFAULT_Q10, REFERENCE_TEMPERATURE_C


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


USUAL_DRIFT_MIN = 45.0
"""Minutes in which a tank of `_USUAL_TANK_ML` in still air goes two thirds of its way to the
room's temperature; a rule of thumb."""
_USUAL_TANK_ML = 600.0


def drifted_c(
    bath_c: float, room_c: float, minutes: float, tank_ml: float = _USUAL_TANK_ML
) -> float:
    """How warm a tank that stands will be after so many minutes (Newton's law of cooling).

    The time constant grows as its content over its surface, the cube root of its volume.
    """
    constant = USUAL_DRIFT_MIN * (tank_ml / _USUAL_TANK_ML) ** (1 / 3)
    return float(room_c + (bath_c - room_c) * np.exp(-minutes / constant))


def standing_worth(
    minutes: float,
    bath_c: float,
    room_c: float,
    tank_ml: float,
    reference_c: float = REFERENCE_TEMPERATURE_C,
    q10: float = DEFAULT_Q10,
) -> float:
    """What minutes in a tank that drifts to the room are worth at the reference."""
    at = np.linspace(0.0, minutes, 61)
    warmth = np.array([drifted_c(bath_c, room_c, float(t), tank_ml) for t in at])
    return restated_drift(at, warmth, minutes, reference_c, q10)

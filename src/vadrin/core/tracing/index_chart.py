"""A maker's chart of EI over development time, read off as minutes for EIs."""

from __future__ import annotations

import numpy as np

from vadrin.core.arrays import Array
from vadrin.core.exposure.arithmetic import marked_ei

_WAVER = 0.05
"""Stops a traced line may fall by the width of its ink and still be one that rises."""
_SLACK = 1 / 12
"""Stops past an end of the line that a tracing's error explains."""


def minutes_of_indexes(
    minutes: Array, indexes: Array, box_speed: float
) -> tuple[tuple[float, float], ...]:
    """EIs with their minutes: the whole stops from the box speed that the line reaches.

    In thirds of a stop where it reaches fewer than two of those. Between the traced points the
    logarithm of time runs straight over stops.

    Parameters
    ----------
    minutes, indexes : ndarray, shape (n,)
        The traced points, in any order; above 0.
    box_speed : float

    Returns
    -------
    tuple of (float, float)
        Marked EI and minutes, the lowest EI first.

    Raises
    ------
    ValueError
        In words, where the line gives no one time for an EI.
    """
    order = np.argsort(minutes, kind="stable")
    time, stops = np.log(minutes[order]), np.log2(indexes[order] / box_speed)
    highest = np.maximum.accumulate(stops)
    if (highest - stops).max() > _WAVER:
        raise ValueError("the line falls somewhere: a longer time gives no lower EI")
    wanted = _between(highest[0], highest[-1], 1.0)
    if len(wanted) < 2:
        wanted = _between(highest[0], highest[-1], 1 / 3)
    if not len(wanted):
        raise ValueError("the line reaches no marked EI: check the marks of the axes")
    found = np.exp(np.interp(wanted, highest, time))
    return tuple(
        (float(marked_ei(box_speed * 2.0**stop)), float(at))
        for stop, at in zip(wanted, found, strict=True)
    )


def _between(low: float, high: float, step: float) -> Array:
    first, last = np.ceil((low - _SLACK) / step), np.floor((high + _SLACK) / step)
    return np.asarray(np.arange(first, last + 1) * step, dtype=np.float64)

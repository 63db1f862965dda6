"""A paper nobody measured: the shape papers have, at an exposure scale and a greatest density."""

from __future__ import annotations

from functools import lru_cache

import numpy as np
from scipy.optimize import brentq

from vadrin.core.arrays import Array

STANDARD_SCALE, STANDARD_BLACK = 1.05, 2.1
"""Exposure scale and maximum density of a grade 2 that stands for a paper not measured."""
PAPER_WHITE = 0.06
_TOE, _SHOULDER = 0.12, 0.087
"""Widths of both corners in lg H: at the upper one 0.06 less light prints 0.04 lighter than what
is 0.04 under black."""
UNDER_BLACK = 0.04
"""How far under its maximum a paper is maximum black."""
_FIRST_GREY, _NEARLY_BLACK = 0.04, 0.90


def _shape(x: Array, slope: float, span: float) -> Array:
    """Density over white of two softened corners, `span` apart, the lower one at 0."""
    low = _TOE * np.logaddexp(0, x / _TOE)
    high = _SHOULDER * np.logaddexp(0, (x - span) / _SHOULDER)
    return np.asarray(slope * (low - high))


def _place(slope: float, span: float, density: float) -> float:
    """Where the shape reaches a density."""

    def over(x: float) -> float:
        return float(_shape(np.array(x), slope, span)) - density

    return float(brentq(over, -4.0, span + 4.0, xtol=1e-10))


@lru_cache(maxsize=64)
def _fitted(top: float) -> tuple[float, float]:
    """Of a grade 2: slope of the straight part, and the place of maximum black from the corner."""

    def over(slope: float) -> float:
        span = top / slope
        dark = _place(slope, span, _NEARLY_BLACK * top)
        return dark - _place(slope, span, _FIRST_GREY) - STANDARD_SCALE

    slope = float(brentq(over, 0.2 * top, 40 * top, xtol=1e-9))
    return slope, _place(slope, top / slope, top - UNDER_BLACK)


def standard_density(
    away: Array, exposure_scale: float = STANDARD_SCALE, d_max: float = STANDARD_BLACK
) -> Array:
    """Density over white of a print, same shape.

    Parameters
    ----------
    away : ndarray
        Lg exposure from that for maximum black, which is 0.04 under the maximum.
    exposure_scale : float
        From 0.04 over white to 90 % of the net maximum, in lg H (ISO 6846).
    d_max : float
        With the paper's white.
    """
    top = d_max - PAPER_WHITE
    slope, black = _fitted(top)
    # Other grades have the same shape on another scale, so that the hardest has one, too.
    there = np.asarray(away, dtype=np.float64) * STANDARD_SCALE / exposure_scale
    return _shape(there + black, slope, top / slope)

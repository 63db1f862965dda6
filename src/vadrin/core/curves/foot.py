"""The foot of a curve: whether its thinnest frames lie on base plus fog."""

from __future__ import annotations

import numpy as np

from vadrin.core.arrays import Array
from vadrin.core.curves.shape import GRID, Curves

NO_FOOT = "no blank frame, and the thinnest frames lie above the foot: read a blank frame"
_FLAT, _FLAT_READ = 0.12, 0.35


def foot_is_flat(x: Array, density: Array, curves: Curves, place: int) -> bool:
    """Whether readings begin so low that base plus fog shows without a blank frame.

    Parameters
    ----------
    x, density : ndarray, shape (q,)
        Lg exposures, rising with density, and readings.
    curves : Curves
        Batch shape (n,).
    place : int
        Which of them was fitted to the readings.

    Returns
    -------
    bool
        True where the curve is all but level at the thinnest frame, and the readings themselves
        hardly rise from there to the next: a curve can be bent to a foot that nobody saw.
    """
    slope = curves.slope[place]
    steepest = float(slope.max())
    levels = np.unique(np.round(x, 3))
    if len(levels) < 3 or steepest <= 0:
        return False
    at = float(np.interp(levels[0] - float(curves.toe[place]), GRID, slope))
    low, high = (float(density[np.round(x, 3) == level].mean()) for level in levels[:2])
    read = (high - low) / float(levels[1] - levels[0])
    return at < _FLAT * steepest and read < _FLAT_READ * steepest

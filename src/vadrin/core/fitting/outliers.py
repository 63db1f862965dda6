"""Readings that cannot belong to their curve: alone, changed with a neighbour, or read twice."""

from __future__ import annotations

import numpy as np
from numpy.typing import NDArray

from vadrin.core.arrays import Array
from vadrin.core.fitting.student_t import t_quantile

LEAST_GAP = 0.025
"""Nothing nearer than this to its curve is called misread: readings are rounded."""

_GAP_OF_FEW = 0.25
_ALARMS = 0.004
_SWAP_GAIN = 15.0
_CLEAR_STEP = 2.8
_TWICE_OFF = 2.0
_ROBUST_BIAS = 1.06
"""Weights that spare the far readings make the noise look this much smaller."""


def deleted_residuals(residual: Array, quadratic: Array, noise: float, freedom: float) -> Array:
    """Residuals in standard deviations, each as if its reading had not been used.

    Parameters
    ----------
    residual : ndarray, shape (N,)
    quadratic : ndarray, shape (N,)
        Variance of the fitted curve at each reading.
    noise, freedom : float

    Returns
    -------
    ndarray, shape (N,)
    """
    scale = noise * _ROBUST_BIAS
    leverage = np.clip(quadratic / noise**2, 0.0, 0.98)
    size = np.abs(residual) / (scale * np.sqrt(1 - leverage))
    left = max(freedom, 3.0)
    inner = np.minimum(size**2 / left, 0.999)
    return np.asarray(size * np.sqrt((1 - 1 / left) / (1 - inner)))


def least_gap(freedom: float) -> float:
    """Density by which a reading must miss its curve; more where few others say where that is."""
    return LEAST_GAP + _GAP_OF_FEW / max(freedom, 1.0)


def limit(count: int, freedom: float) -> float:
    """Deleted residual that hardly any clean test would show."""
    return t_quantile(1 - _ALARMS / count, max(freedom - 1, 3.0))


def _neighbours(strip: Array, x: Array, keep: Array) -> NDArray[np.intp]:
    """Pairs of kept readings next to each other in exposure on one strip, shape (n, 2)."""
    usable = np.flatnonzero(np.isfinite(x) & (keep > 0))
    order = usable[np.lexsort((x[usable], strip[usable]))]
    first, second = order[:-1], order[1:]
    together = (strip[first] == strip[second]) & (x[second] - x[first] > 0.01)
    return np.stack([first[together], second[together]], -1)


def swapped_pair(
    strip: Array, x: Array, density: Array, residual: Array, keep: Array, noise: Array
) -> tuple[int, int] | None:
    """The two neighbours that would fit far better the other way round, if any.

    Each of the arrays has shape (N,); noise is the standard deviation of each reading.
    """
    pairs = _neighbours(strip, x, keep)
    if not len(pairs):
        return None
    first, second = pairs[:, 0], pairs[:, 1]
    step = (density - residual)[second] - (density - residual)[first]
    gain = (
        2 * step * (residual[first] - residual[second] - step) / (noise[first] * _ROBUST_BIAS) ** 2
    )
    best = int(np.argmax(gain))
    if gain[best] < _SWAP_GAIN or residual[first[best]] < LEAST_GAP / 2:
        return None
    return int(first[best]), int(second[best])


def read_twice(
    strip: Array, x: Array, density: Array, residual: Array, keep: Array, noise: Array
) -> int | None:
    """The reading that repeats its neighbour's to the last figure where film should differ."""
    pairs = _neighbours(strip, x, keep)
    if not len(pairs):
        return None
    first, second = pairs[:, 0], pairs[:, 1]
    step = (density - residual)[second] - (density - residual)[first]
    same = (density[first] == density[second]) & (step > _CLEAR_STEP * noise[first])
    worse = np.where(np.abs(residual[first]) > np.abs(residual[second]), first, second)
    off = np.where(same, np.abs(residual[worse]) / noise[worse], 0.0)
    best = int(np.argmax(off))
    return int(worse[best]) if off[best] > _TWICE_OFF else None

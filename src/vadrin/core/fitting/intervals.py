"""From the best fit and draws around it to figures with 95 % intervals."""

from __future__ import annotations

import numpy as np

from vadrin.core.arrays import Array
from vadrin.core.figure import Figure, absent
from vadrin.core.fitting.student_t import t_quantile

_HALF = 0.6827


def _spread(draws: Array, freedom: float) -> tuple[float, float] | None:
    """Distances below and above the middle of draws that a 95 % interval reaches."""
    good = draws[np.isfinite(draws)]
    if len(good) < 0.6 * len(draws) or len(good) < 20:
        return None
    low, middle, high = np.quantile(good, [0.5 - _HALF / 2, 0.5, 0.5 + _HALF / 2])
    reach = t_quantile(0.975, max(freedom, 3.0))
    width = reach * max(0.5 * float(high - low), 1e-12)
    lean = 0.5 * (float(high - middle) - float(middle - low))
    return max(width - lean, 0.2 * width), max(width + lean, 0.2 * width)


def linear_figure(value: float, draws: Array | None, freedom: float, why: str) -> Figure:
    """A figure whose uncertainty is even on its own scale.

    Parameters
    ----------
    value : float
        From the best fit; not finite means absent.
    draws : ndarray, shape (B,), or None
        The same figure from draws; None where no interval is wanted.
    freedom : float
        Degrees of freedom behind the noise.
    why : str
        The reason given if the value is not finite.
    """
    if not np.isfinite(value):
        return absent(why)
    reach = None if draws is None else _spread(draws, freedom)
    if reach is None:
        return Figure(float(value))
    return Figure(float(value), float(value - reach[0]), float(value + reach[1]))


def ratio_figure(value: float, draws: Array | None, freedom: float, why: str) -> Figure:
    """A figure whose uncertainty is even in its logarithm: speeds, times."""
    if not np.isfinite(value) or value <= 0:
        return absent(why)
    if draws is None:
        return Figure(float(value))
    with np.errstate(divide="ignore", invalid="ignore"):
        inner = linear_figure(float(np.log(value)), np.log(draws), freedom, why)
    if inner.low is None or inner.high is None:
        return Figure(float(value))
    return Figure(float(value), float(np.exp(inner.low)), float(np.exp(inner.high)))

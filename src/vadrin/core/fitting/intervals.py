"""From the best fit and draws around it to figures with 95 % intervals."""

from __future__ import annotations

import numpy as np

from vadrin.core.arrays import Array
from vadrin.core.figure import Figure, absent
from vadrin.core.fitting.student_t import t_quantile

DRAWN_SHARE = 0.1
"""Draws go this share of the way out, where figures still answer in proportion.

At full length the parameters that stand in for each other (bends, widths, contrast) go off
their ridge together, and what the readings pin down would look loose.
"""
_HALF = 0.6827
_FAR = 3.5
"""Draws farther out than so many standard deviations are taken for runaways."""


def _reach(draws: Array, freedom: float) -> float | None:
    """Distance from the middle of draws that a 95 % interval reaches."""
    good = draws[np.isfinite(draws)]
    if len(good) < 0.6 * len(draws) or len(good) < 20:
        return None
    low, middle, high = np.quantile(good, [0.5 - _HALF / 2, 0.5, 0.5 + _HALF / 2])
    far = _FAR * 0.5 * float(high - low)
    spread = float(np.std(np.clip(good, middle - far, middle + far)))
    return t_quantile(0.975, max(freedom, 3.0)) * max(spread / DRAWN_SHARE, 1e-12)


def linear_figure(value: float, draws: Array | None, freedom: float, why: str) -> Figure:
    """A figure whose uncertainty is even on its own scale.

    Parameters
    ----------
    value : float
        From the best fit; not finite means absent.
    draws : ndarray, shape (B,), or None
        The same figure from draws, which go `DRAWN_SHARE` of the way out; None where no interval
        is wanted.
    freedom : float
        Degrees of freedom behind the noise.
    why : str
        The reason given if the value is not finite.
    """
    if not np.isfinite(value):
        return absent(why)
    reach = None if draws is None else _reach(draws, freedom)
    if reach is None:
        return Figure(float(value))
    return Figure(float(value), float(value - reach), float(value + reach))


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

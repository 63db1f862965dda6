"""From the values of a scanner or camera to density, by a step wedge in the same picture.

v = a 10**(-g D) + f: the source seen through film, the picture's own gamma, and flare that fills
the dense end. Fitted in ln v, where noise is about even.
"""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np
from scipy.optimize import least_squares

from vadrin.core.arrays import Array

_FINEST_STEP = 0.02
"""Density that one code value may be worth; beyond it a picture tells nothing."""
_BEYOND = 0.05
_AT_BEST = 0.005
"""No scan repeats better: light and lens are never quite even."""
_GAMMAS = (0.2, 3.0)
_LEAST_STEPS = 4


@dataclass(frozen=True)
class ScanCalibration:
    """How values mean density.

    Attributes
    ----------
    white, gamma, flare : float
        a, g and f.
    deviation : float
        Standard deviation of the steps' densities from the fit.
    highest : float
        Density up to which it can be trusted.
    relative : bool
        Whether densities count from the clear base alone, with nothing to check them.
    steps : tuple of (float, float)
        Known density and what the fit says of it.
    """

    white: float
    gamma: float
    flare: float
    deviation: float
    highest: float
    relative: bool = False
    steps: tuple[tuple[float, float], ...] = ()

    def density(self, value: Array | float) -> Array:
        """Density of values; NaN at and below the flare."""
        above = np.asarray(value, dtype=np.float64) - self.flare
        with np.errstate(divide="ignore", invalid="ignore"):
            share = np.where(above > 0, above, np.nan) / self.white
            return np.asarray(-np.log10(share) / self.gamma)

    def value(self, density: Array | float) -> Array:
        """Value of densities."""
        seen = self.white * 10.0 ** (-self.gamma * np.asarray(density, dtype=np.float64))
        return np.asarray(seen + self.flare)


def _highest(white: float, gamma: float, known: float) -> float:
    """Density where one code value is worth `_FINEST_STEP`, but not far beyond what was known."""
    finest = _FINEST_STEP * white * gamma * np.log(10)
    by_code = float(np.log10(max(finest, 1.0)) / gamma)
    return min(by_code, known + _BEYOND)


def calibrated(values: Array, densities: Array) -> ScanCalibration:
    """Fit a wedge.

    Parameters
    ----------
    values, densities : ndarray, shape (n,)
        Of at least four steps that differ.

    Raises
    ------
    ValueError
        In words, if the steps do not make a wedge.
    """
    order = np.argsort(densities)
    seen, known = np.asarray(values, float)[order], np.asarray(densities, float)[order]
    if len(known) < _LEAST_STEPS or np.ptp(known) < 0.5:
        raise ValueError("a wedge needs at least four steps, over half a density")
    if np.any(np.diff(seen) >= 0) or seen[-1] <= 0:
        raise ValueError(
            "the steps do not darken one after the other: they were named in the wrong order, or "
            "the picture was inverted"
        )
    begin = [np.log(seen[0]) + known[0] * np.log(10), 1.0, np.sqrt(max(seen[-1] * 0.3, 1e-3))]

    def missed(p: Array) -> Array:
        made = np.exp(p[0] - p[1] * np.log(10) * known) + p[2] ** 2
        return np.asarray((np.log(made) - np.log(seen)) / np.log(10))

    fit = least_squares(missed, begin, loss="soft_l1", f_scale=0.02)
    white, gamma, flare = float(np.exp(fit.x[0])), float(fit.x[1]), float(fit.x[2] ** 2)
    if not _GAMMAS[0] <= gamma <= _GAMMAS[1]:
        raise ValueError("the values do not go with the densities: check the wedge's figures")
    made = ScanCalibration(white, gamma, flare, 0.0, _highest(white, gamma, float(known[-1])))
    told = made.density(seen)
    off = (told - known)[np.isfinite(told) & (known <= made.highest)]
    deviation = max(_AT_BEST, float(np.sqrt((off**2).sum() / max(len(off) - 3, 1))))
    steps = tuple((float(k), float(t)) for k, t in zip(known, told, strict=True))
    return ScanCalibration(white, gamma, flare, deviation, made.highest, False, steps)


def on_clear_base(value: float, highest_value: float) -> ScanCalibration:
    """A linear picture without a wedge: densities over the clear base, and flagged so.

    Parameters
    ----------
    value : float
        Of clear base.
    highest_value : float
        The picture's largest; the base must not be clipped.

    Raises
    ------
    ValueError
        If the base is black or clipped.
    """
    if value <= 0:
        raise ValueError("clear base is black: scan with more exposure")
    if value >= 0.995 * highest_value:
        raise ValueError("clear base is clipped: scan with less exposure")
    return ScanCalibration(value, 1.0, 0.0, 0.03, min(_highest(value, 1.0, 3.0), 1.6), True)

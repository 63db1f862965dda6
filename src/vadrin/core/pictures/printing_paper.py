"""Paper under an enlarger: how dark a print becomes behind a density of film."""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np
from scipy.interpolate import PchipInterpolator

from vadrin.core.arrays import Array
from vadrin.core.printing.standard_paper import (
    STANDARD_BLACK,
    STANDARD_SCALE,
    UNDER_BLACK,
    standard_density,
)

MID_TONE = 0.745
"""Reflection density of an 18 % grey."""
_REACH, _STEP = 4.0, 0.005


@dataclass(frozen=True, eq=False)
class PrintingPaper:
    """A paper's density over its white, against lg exposure from that for maximum black.

    Attributes
    ----------
    away : ndarray, shape (n,)
        Lg exposure, rising; 0 where black is first full, 0.04 under the maximum.
    density : ndarray, shape (n,)
        Over the paper's white; never falls.
    measured : bool
        Whether it is a paper of this tester, or a typical one.
    """

    away: Array
    density: Array
    measured: bool

    @property
    def black(self) -> float:
        """Its greatest density over white."""
        return float(self.density[-1])

    def print_density(self, away: Array) -> Array:
        """Density over white at lg exposures from maximum black, same shape."""
        return np.interp(away, self.away, self.density)

    def exposure_for(self, density: float) -> float:
        """Lg exposure from maximum black that prints a density over white."""
        rising = np.maximum.accumulate(self.density + np.arange(len(self.away)) * 1e-12)
        return float(np.interp(density, rising, self.away))


def measured_paper(log_h: Array, density: Array) -> PrintingPaper:
    """A paper by the steps that were read of it.

    Parameters
    ----------
    log_h, density : ndarray, shape (n,)
        Rising exposures from any zero, and densities over the paper's white, which reach black.
    """
    rising = np.maximum.accumulate(density)
    away = np.arange(-_REACH, 1.0 + _STEP / 2, _STEP)
    at = rising - np.arange(len(rising))[::-1] * 1e-9
    black = float(np.interp(rising[-1] - UNDER_BLACK, at, log_h))
    curve = PchipInterpolator(log_h, rising, extrapolate=False)
    made = curve(np.clip(away + black, log_h[0], log_h[-1]))
    return PrintingPaper(away, np.maximum.accumulate(made), True)


def typical_paper(
    exposure_scale: float = STANDARD_SCALE, d_max: float = STANDARD_BLACK
) -> PrintingPaper:
    """A paper nobody measured, of an exposure scale in lg H."""
    away = np.arange(-_REACH, 1.0 + _STEP / 2, _STEP)
    return PrintingPaper(away, standard_density(away, exposure_scale, d_max), False)

"""A reversal process stage by stage: what each bath leaves of the silver, and what a flash does.

The first developer makes a negative of the exposure, the bleach dissolves it, and the second
developer makes the positive of what is left. Where the second developer leaves nothing over, the
two pictures share the silver: D_first = D_max - (D_positive - D_min).
"""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np

from vadrin.core.arrays import Array
from vadrin.core.curves.shape import net_density_at
from vadrin.core.exposure.arithmetic import STOP
from vadrin.core.fitting.fit import curves_of_strips, fit_strips
from vadrin.core.materials.colour import blanks_as_least_exposed
from vadrin.core.readings import StripReadings

_POINTS = 121
_FLAT = 0.06
"""Density over a stop at the thin end, under which a positive is taken to have its maximum."""


@dataclass(frozen=True)
class ReversalStages:
    """Densities of one strip over exposure, after each bath.

    Attributes
    ----------
    label : str
    log_h : ndarray, shape (n,)
        Within what was read.
    first_developer, after_bleach, positive : ndarray, shape (n,)
        The positive is fitted to its readings; the other two are reckoned from it.
    whole : bool
        Whether the readings reach the positive's maximum, from which the negative is reckoned.
    """

    label: str
    log_h: Array
    first_developer: Array
    after_bleach: Array
    positive: Array
    whole: bool

    def at(self, log_h: float) -> float:
        """Density of the positive at an exposure; of its nearer end outside the readings."""
        return float(np.interp(log_h, self.log_h, self.positive))

    def flashed(self, flash_log_h: float) -> Array:
        """The positive with an even flash, before or after: it adds to every exposure.

        Parameters
        ----------
        flash_log_h : float

        Returns
        -------
        ndarray, shape (n,)
            NaN where the sum lies beyond the readings.
        """
        both = np.log10(10.0**self.log_h + 10.0**flash_log_h)
        return np.asarray(np.interp(both, self.log_h, self.positive, right=np.nan))


def reversal_stages(strip: StripReadings) -> ReversalStages | None:
    """The stages behind a strip of reversal material; None where no curve fits it.

    Parameters
    ----------
    strip : StripReadings
        Density falls with exposure.
    """
    try:
        fit = fit_strips((blanks_as_least_exposed(strip),), sign=-1.0)
    except ValueError:
        return None
    x, _ = strip.exposed()
    log_h = np.linspace(x.min(), x.max(), _POINTS)
    curves = curves_of_strips(fit, fit.phi)
    positive = float(curves.fog[0]) + net_density_at(curves, -log_h[None, :])[0]
    most, least = float(positive.max()), float(positive.min())
    blanks = [r.density for r in strip.readings if r.log_h is None]
    flat = most - float(np.interp(log_h[0] + STOP, log_h, positive)) < _FLAT
    if blanks:
        most = max(most, float(np.mean(blanks)))
    return ReversalStages(
        strip.label,
        log_h,
        least + most - positive,
        np.full(_POINTS, least),
        positive,
        flat or bool(blanks),
    )

"""How contrast moves from film to film in one bottle, learnt from the films it developed."""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np

from vadrin.core.arrays import Array

_USUAL_SCATTER, _COUNTS = 0.12, 3.0
"""By how much films differ in ln contrast at one time, and for how many films that counts."""
_SLOPE_UNSURE = 0.05
"""What may be expected of a bottle before it was used: ln contrast a film, either way."""


@dataclass(frozen=True)
class BottleDrift:
    """What films of a bottle tell.

    Attributes
    ----------
    each : float
        ln contrast from one film to the next; less than 0 where it weakens.
    deviation : float
    films : int
    """

    each: float
    deviation: float
    films: int

    @property
    def sure(self) -> bool:
        """Whether more than chance is told: three deviations from none."""
        return abs(self.each) > 3.0 * self.deviation


def bottle_drift(contrast: Array, deviation: Array) -> BottleDrift:
    """The drift of a bottle.

    Parameters
    ----------
    contrast : ndarray, shape (n,)
        ln contrast of each film at one and the same time, in the order they were developed; two
        at least.
    deviation : ndarray, shape (n,)
        How well each is read.
    """
    place = np.arange(len(contrast)) - 0.5 * (len(contrast) - 1)
    slope = float(place @ contrast / (place @ place))
    left = contrast - contrast.mean() - slope * place
    freedom = max(len(contrast) - 2, 0)
    scatter = (float((left**2).sum()) + _COUNTS * _USUAL_SCATTER**2) / (freedom + _COUNTS)
    variance = (scatter + float((deviation**2).mean())) / float(place @ place)
    share = _SLOPE_UNSURE**2 / (_SLOPE_UNSURE**2 + variance)
    return BottleDrift(share * slope, float(np.sqrt(share * variance)), len(contrast))

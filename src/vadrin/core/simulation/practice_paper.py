"""A paper for practice: what it becomes is told by the grains that a light has reached."""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np
from scipy.special import ndtr, ndtri

from vadrin.core.arrays import Array

_FIRST_GREY, _BLACK = 0.04, 0.90


@dataclass(frozen=True)
class PracticePaper:
    """Grains whose thresholds lie about one light, as a normal distribution of lg exposures.

    Attributes
    ----------
    middle : float
        Lg of the seconds, through nothing, that reach half of the grains.
    spread : float
        Standard deviation of the thresholds, lg units.
    white, black : float
        Reflection densities.
    """

    middle: float = 0.35
    spread: float = 0.28
    white: float = 0.06
    black: float = 2.05

    def density(self, seconds: Array | float, film: Array | float) -> Array:
        """Reflection density after seconds of light through film of a density."""
        at = np.log10(np.asarray(seconds, dtype=np.float64)) - np.asarray(film)
        reached = ndtr((at - self.middle) / self.spread)
        return np.asarray(self.white + (self.black - self.white) * reached)

    @property
    def exposure_scale(self) -> float:
        """Lg exposures from the first grey to nine tenths of the way to black (ISO 6846)."""
        grey = _FIRST_GREY / (self.black - self.white)
        return float(self.spread * (ndtri(_BLACK) - ndtri(grey)))


def draw_paper(rng: np.random.Generator) -> PracticePaper:
    """A paper of about grade 2, in an enlarger of any brightness."""
    return PracticePaper(
        float(rng.uniform(-0.1, 0.35)),
        float(rng.uniform(0.24, 0.33)),
        float(rng.uniform(0.04, 0.08)),
        float(rng.uniform(1.9, 2.2)),
    )

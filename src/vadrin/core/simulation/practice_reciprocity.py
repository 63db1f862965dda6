"""How a practice film loses light that comes slowly: grains that forget a quantum before the next.

A light of s seconds counts as one of s (1 + s / settle_s) ** -power at once.
"""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np
from scipy.optimize import brentq

from vadrin.core.arrays import Array


@dataclass(frozen=True)
class PracticeReciprocity:
    """The loss of one film.

    Attributes
    ----------
    settle_s : float
        Seconds from which light is lost.
    power : float
    """

    settle_s: float
    power: float

    def lost(self, seconds: Array) -> Array:
        """Lg exposure lost over seconds, same shape; nothing where they are nan."""
        held = np.nan_to_num(seconds, nan=0.0)
        return np.asarray(self.power * np.log10(1.0 + held / self.settle_s))

    def needed(self, metered_s: float) -> float:
        """Seconds that do as much as the meter's would without loss."""

        def over(seconds: float) -> float:
            return float(np.log10(seconds / metered_s) - self.lost(np.array(seconds)))

        return float(brentq(over, metered_s, 1e4 * metered_s))


def draw_reciprocity(rng: np.random.Generator) -> PracticeReciprocity:
    """From a film that hardly loses any to one that loses two stops in a minute."""
    return PracticeReciprocity(float(rng.uniform(1.5, 8.0)), float(rng.uniform(0.12, 0.4)))

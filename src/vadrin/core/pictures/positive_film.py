"""A positive as it lies before one: its own density is what is looked at, and no print is made."""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

from vadrin.core.arrays import Array
from vadrin.core.materials.reversal_stages import ReversalStages
from vadrin.core.pictures.picture import GROUNDS, Ground, Tones
from vadrin.core.pictures.scene import CODES
from vadrin.core.printing.paper_curve import FIRST_GREY


@dataclass(frozen=True, eq=False)
class PositiveFilm:
    """A strip of positive material, by the curve that was read of it."""

    stages: ReversalStages

    def read_at(self, log_h: Array) -> NDArray[np.bool_]:
        """Where the curve rests on readings, same shape, of bool.

        Beyond a maximum or a minimum that was reached nothing is left to be read.
        """
        first, last = self.stages.log_h[0], self.stages.log_h[-1]
        clear = self.stages.positive[-2] - self.stages.positive[-1] < _FLAT
        return np.asarray((self.stages.whole | (log_h >= first)) & (clear | (log_h <= last)))

    def tones(self, log_h: Array) -> Tones:
        """Take every code of luminance to the positive's own density over its clearest.

        Parameters
        ----------
        log_h : ndarray, shape (CODES,)
            From `scene.log_h_of_codes`.
        """
        stages = self.stages
        least = float(stages.positive.min())
        density = np.interp(log_h, stages.log_h, stages.positive) - least
        ground = np.zeros(CODES, dtype=np.uint8)
        ground[density > float(density.max()) - FIRST_GREY] = GROUNDS.index(Ground.BLACK)
        ground[density < FIRST_GREY] = GROUNDS.index(Ground.WHITE)
        ground[np.logical_not(self.read_at(log_h))] = GROUNDS.index(Ground.UNREAD)
        return Tones(log_h, density, density, ground, 0.0)


_FLAT = 0.004
"""Density between the last two places of a curve that has come to its clearest."""

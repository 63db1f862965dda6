"""A practice film at one development, as pictures want it: known at every light."""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

from vadrin.core.arrays import Array
from vadrin.core.simulation.practice_film import PracticeFilm


@dataclass(frozen=True)
class PracticeDevelopment:
    """The film after minutes at 20 °C.

    Attributes
    ----------
    film : PracticeFilm
    minutes : float
    """

    film: PracticeFilm
    minutes: float

    def net_density(self, log_h: Array) -> Array:
        """Density over base plus fog at lg exposures, same shape."""
        return self.film.net(log_h, self.minutes)

    def read_at(self, log_h: Array) -> NDArray[np.bool_]:
        """Its truth is known everywhere, same shape."""
        return np.ones(np.shape(log_h), dtype=np.bool_)

"""Grain of a film as it was measured, and what it makes of even tones in a picture.

A film's density scatters by sigma through an opening; through one of another area A by
sigma sqrt(A_0 / A), as long as it is much larger than the grains (Selwyn, 1935).
"""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass
from functools import lru_cache
from math import pi, sqrt

import numpy as np
from numpy.typing import NDArray

from vadrin.core.arrays import Array
from vadrin.core.pictures.scene import CODES, Codes
from vadrin.core.scanning.grain import APERTURE_UM

FRAME_UM = 36_000.0
"""Width of the frame a scene is taken to fill."""
_A_DEVIATION, _FURTHEST = 2, 7
"""How many steps of scatter one deviation has, and how many of them a point may lie off."""
_SEED = 20
LevelsOf = Callable[[Array], NDArray[np.uint8]]


@dataclass(frozen=True, eq=False)
class FilmGrain:
    """Scatter of a film at the densities it was measured at.

    Attributes
    ----------
    net_density : ndarray, shape (n,)
        Over base plus fog, rising.
    granularity : ndarray, shape (n,)
        1000 times the deviation of density through 48 um.
    """

    net_density: Array
    granularity: Array

    def deviation(self, net_density: Array, side_um: float) -> Array:
        """Deviation of density through a square of some side, same shape.

        Beyond the densities that were measured it is that of the nearest.
        """
        told = np.interp(net_density, self.net_density, self.granularity) / 1000.0
        return np.asarray(told * sqrt(pi / 4) * APERTURE_UM / side_um)


def grained(
    codes: Codes, net_density: Array, grain: FilmGrain, levels_of: LevelsOf
) -> NDArray[np.uint8]:
    """A picture in levels of the display with the film's grain in it, shape of the codes.

    Parameters
    ----------
    codes : ndarray of uint16, shape (rows, columns)
    net_density : ndarray, shape (CODES,)
        Of each code on the film.
    grain : FilmGrain
    levels_of : callable
        From densities of the film, of any shape, to levels of the display.
    """
    side = FRAME_UM / codes.shape[1]
    steps = np.arange(-_FURTHEST, _FURTHEST + 1) / _A_DEVIATION
    # Only light that is there needs tones.
    met = slice(int(codes.min()), int(codes.max()) + 1)
    even = net_density[met]
    scattered = even + steps[:, None] * grain.deviation(even, side)
    table = np.zeros((len(steps), CODES), dtype=np.uint8)
    table[:, met] = levels_of(np.maximum(scattered, 0.0))
    return np.take(table.ravel(), _scatter(codes.shape[0], codes.shape[1]) + codes)


@lru_cache(maxsize=4)
def _scatter(rows: int, columns: int) -> NDArray[np.int32]:
    """Which row of a table each point of a picture is looked up in: the same for every film, so
    that two pictures differ by their films alone."""
    drawn = np.random.default_rng(_SEED).standard_normal((rows, columns), dtype=np.float32)
    step = np.clip(np.rint(drawn * _A_DEVIATION), -_FURTHEST, _FURTHEST) + _FURTHEST
    return np.asarray(step, dtype=np.int32) * np.int32(CODES)

"""A picture of one's own as light: what a sensor tells of it, and what it can't say."""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray
from scipy import ndimage

from vadrin.core.arrays import Array

CLIPPED_FROM = 0.985
"""Share of the largest value from which a sensor is taken for full."""
_NOISE_OVER_SIGNAL = 0.35
"""Noise beside light from which a point says nothing: a third of a stop and more either way."""
_PATCH = 5


@dataclass(frozen=True, eq=False)
class OwnLight:
    """Light of a picture, and where it is known.

    Attributes
    ----------
    light : ndarray, shape (rows, columns, 3)
        Linear, its own units.
    clipped, noisy : ndarray of bool, shape (rows, columns)
        What was too bright for the sensor, and what drowns in its own noise.
    """

    light: Array
    clipped: NDArray[np.bool_]
    noisy: NDArray[np.bool_]


def light_of_values(values: Array, largest: float) -> OwnLight:
    """Tell light from linear values.

    The sensor's noise is taken from how far a point differs from its neighbours where the
    picture is darkest; it does not fall under that anywhere.

    Parameters
    ----------
    values : ndarray, shape (rows, columns, 3)
        Proportional to light, 0 for none.
    largest : float
        The value the sensor is full at.
    """
    clipped = np.asarray((values >= CLIPPED_FROM * largest).any(axis=-1))
    green = values[..., 1]
    mean = ndimage.uniform_filter(green, _PATCH)
    square = ndimage.uniform_filter(green**2, _PATCH)
    scatter = np.sqrt(np.maximum(square - mean**2, 0.0))
    dark = mean <= np.percentile(mean, 10)
    noise = float(np.median(scatter[dark])) if dark.any() else 0.0
    noisy = np.asarray(mean * _NOISE_OVER_SIGNAL < noise)
    return OwnLight(np.maximum(values, 0.0), clipped, noisy & ~clipped)

"""How well an instrument repeats, learnt from the tests that were read with it."""

from __future__ import annotations

import numpy as np

from vadrin.core.arrays import Array

_USUAL_COUNTS = 2.0
"""For so many tests the usual noise counts: one quiet evening proves nothing."""


def learnt_noise(noises: Array, usual: float) -> float:
    """Standard deviation of a density, by the scatter about the curves of earlier tests.

    Parameters
    ----------
    noises : ndarray, shape (n,)
        Of each test; none at all is allowed.
    usual : float
        What is reckoned with where nothing is known.
    """
    seen = float((noises**2).sum()) + _USUAL_COUNTS * usual**2
    return float(np.sqrt(seen / (len(noises) + _USUAL_COUNTS)))

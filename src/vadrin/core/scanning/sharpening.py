"""Whether a picture was sharpened: its values overshoot on the inner side of every border."""

from __future__ import annotations

from collections.abc import Sequence

import numpy as np

from vadrin.core.arrays import Array

_LEAST_STEP = 0.12
"""Of the brighter side: a fainter border tells nothing."""
_NEAR = 8
"""Pixels inside a border over which sharpening shows."""
_LEAST_BORDERS = 3
_OVERSHOOT = 0.03
"""Share of a border's step; plain scans stay under a fiftieth."""


def _overshoot(profile: Array) -> float:
    """How far values run past their level inside a border, as a share of the border's step."""
    half = len(profile) // 2
    level = float(np.median(profile[:half]))
    leaps = np.abs(np.diff(profile[half:]))
    # The first: a narrow gap has another border at its far side.
    edge = half + int(np.argmax(leaps >= 0.5 * leaps.max()))
    beyond = profile[edge + 1 : edge + 1 + _NEAR]
    near = profile[max(half, edge - _NEAR) : max(half + 1, edge)]
    if len(beyond) == 0 or len(near) == 0:
        return float("nan")
    step = float(beyond[np.argmax(np.abs(beyond - level))] - level)
    if abs(step) < _LEAST_STEP * max(level, level + step, 1e-9):
        return float("nan")
    return float(np.max((level - near) * np.sign(step)) / abs(step))


def sharpened(profiles: Sequence[Array]) -> bool:
    """Whether borders overshoot more than a lens and a film make them.

    Parameters
    ----------
    profiles : sequence of ndarray, shape (n,)
        Values across borders, from the middle of a frame out, several pixels past its end.
    """
    shares = np.array([_overshoot(p) for p in profiles if len(p) >= 4 * _NEAR])
    known = shares[np.isfinite(shares)]
    return len(known) >= _LEAST_BORDERS and bool(np.median(known) > _OVERSHOOT)

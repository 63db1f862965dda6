"""Where a frame that was not read yet is likely to lie: from its own strip's curve, or others'."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from math import log

import numpy as np

from vadrin.core.curves.shape import GRID
from vadrin.core.results.strip_metrics import StripMetrics

_NEAR = 0.9
"""Lg units past the readings of a strip up to which its own curve is gone on with."""
_FAR = 1.6
"""Ratio of times past the tested ones up to which others' curves are gone on with."""


@dataclass(frozen=True)
class LikelyDensity:
    """A density that is expected, not read.

    Attributes
    ----------
    density : float
    strips : tuple of str
        Labels of the strips it follows from.
    beyond : bool
        Whether it lies past the times that were read.
    """

    density: float
    strips: tuple[str, ...]
    beyond: bool = False


def _density(strip: StripMetrics, log_h: float) -> float:
    x = float(strip.curve.toe) + GRID
    return float(np.interp(log_h, x, float(strip.curve.fog) + strip.curve.net))


def likely_density(
    strips: Sequence[StripMetrics], label: str, minutes: float | None, log_h: float
) -> LikelyDensity | None:
    """What a frame of a strip is likely to read.

    A strip's own curve goes first. Of others' curves density is taken to go with the logarithm
    of development time, which is the usual plot of contrast over time.

    Parameters
    ----------
    strips : sequence of StripMetrics
        Fitted strips of the same film and developer.
    label : str
        Of the frame's strip.
    minutes : float or None
        Its development.
    log_h : float
        The frame's exposure in lg lux seconds.

    Returns
    -------
    LikelyDensity or None
        None where nothing tells.
    """
    own = next((s for s in strips if s.label == label), None)
    if own is not None and own.first - _NEAR <= log_h <= own.last + _NEAR:
        return LikelyDensity(_density(own, log_h), (label,))
    timed = sorted(
        (s for s in strips if s.time_min and s.label != label), key=lambda s: s.time_min or 0.0
    )
    times = [s.time_min or 0.0 for s in timed]
    if minutes is None or len(set(times)) < 2:
        return None
    if not times[0] / _FAR <= minutes <= times[-1] * _FAR:
        return None
    low, high = _around(timed, minutes)
    begun, ended = log(low.time_min or 1.0), log(high.time_min or 1.0)
    share = (log(minutes) - begun) / (ended - begun)
    thin, dense = _density(low, log_h), _density(high, log_h)
    value = max(0.0, thin + share * (dense - thin))
    beyond = not times[0] <= minutes <= times[-1]
    return LikelyDensity(value, (low.label, high.label), beyond)


def _around(timed: list[StripMetrics], minutes: float) -> tuple[StripMetrics, StripMetrics]:
    """The strips of the two times nearest around a time, or nearest to it on one side."""
    each = list({s.time_min: s for s in timed}.values())
    after = next((i for i, s in enumerate(each) if (s.time_min or 0.0) >= minutes), len(each) - 1)
    return each[max(1, after) - 1], each[max(1, after)]

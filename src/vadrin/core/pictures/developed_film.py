"""A film's curve at one development time, from the curves that were measured."""

from __future__ import annotations

from dataclasses import dataclass
from math import exp, log
from typing import Protocol

import numpy as np
from numpy.typing import NDArray

from vadrin.core.arrays import Array
from vadrin.core.curves.shape import Curves, net_density_at
from vadrin.core.fitting.family import curves_around
from vadrin.core.results.analysis_result import Analysis
from vadrin.core.results.strip_metrics import StripMetrics

_MET = 0.005
"""Share by which a time may lie outside the tested ones and still be one of them."""
_AT_FOG = 0.03
"""Net density of the thinnest reading up to which what got less light is known to be clear."""


class FilmCurve(Protocol):
    """A film at one development, whatever its curve is known by."""

    def net_density(self, log_h: Array) -> Array:
        """Density over base plus fog at lg exposures, same shape."""
        ...

    def read_at(self, log_h: Array) -> NDArray[np.bool_]:
        """Where the curve is known, same shape, of bool."""
        ...


@dataclass(frozen=True, eq=False)
class DevelopedFilm:
    """Two measured curves, and how far between them this development lies.

    Attributes
    ----------
    minutes : float or None
        At the reference temperature; None where no time was noted.
    low, high : Curves
        Of batch shape ().
    part : float
        0 at `low`, 1 at `high`.
    first, last : float
        Lg exposures between which both were read; beyond them a curve is gone on with, unread.
    """

    minutes: float | None
    low: Curves
    high: Curves
    part: float
    first: float
    last: float

    def net_density(self, log_h: Array) -> Array:
        """Density over base plus fog at lg exposures, same shape."""
        low, high = net_density_at(self.low, log_h), net_density_at(self.high, log_h)
        return np.asarray(low + self.part * (high - low))

    def read_at(self, log_h: Array) -> NDArray[np.bool_]:
        """Where the curve rests on readings, same shape, of bool.

        Under a thinnest frame as clear as film without light nothing is left to be read.
        """
        clear = float(self.net_density(np.array([self.first]))[0]) <= _AT_FOG
        return np.asarray((log_h <= self.last) & (clear | (log_h >= self.first)))


def times_tested(analysis: Analysis) -> tuple[float, ...]:
    """The development times there are curves of, rising."""
    return tuple(sorted({s.restated_min for s in analysis.strips if s.restated_min}))


def developed(
    analysis: Analysis, minutes: float | None, channel: str | None = None
) -> DevelopedFilm | None:
    """The film as a time develops it.

    Between two tested times density is taken to go with ln t between the film's own curves on a
    fine ladder of times, where the development was fitted, else between the two nearest strips.

    Parameters
    ----------
    analysis : Analysis
    minutes : float or None
        At the reference temperature; None takes the first strip as it is.
    channel : str, optional
        A layer of colour film.

    Returns
    -------
    DevelopedFilm or None
        None where the time was not tested, or nothing was.
    """
    strips = _strips(analysis, channel)
    if not strips:
        return None
    if minutes is None:
        return alone(strips[0])
    near = [s for s in strips if s.restated_min and abs(log(s.restated_min / minutes)) <= _MET]
    times = [s.restated_min for s in strips if s.restated_min]
    if not times or not min(times) * exp(-_MET) <= minutes <= max(times) * exp(_MET):
        return None
    before = [s for s in strips if s.restated_min and s.restated_min <= minutes * exp(_MET)]
    after = [s for s in strips if s.restated_min and s.restated_min >= minutes * exp(-_MET)]
    low = max(before, key=lambda s: s.restated_min or 0.0)
    high = min(after, key=lambda s: s.restated_min or 0.0)
    between = near or [low, high]
    first, last = max(s.first for s in between), min(s.last for s in between)
    if analysis.family is not None and channel is None:
        under, over, share = curves_around(analysis.family, np.asarray(minutes))
        return DevelopedFilm(minutes, under, over, float(share), first, last)
    if near:
        return alone(near[0])
    begun, ended = low.restated_min or 1.0, high.restated_min or 1.0
    part = log(minutes / begun) / log(ended / begun)
    return DevelopedFilm(minutes, low.curve, high.curve, part, first, last)


def _strips(analysis: Analysis, channel: str | None) -> tuple[StripMetrics, ...]:
    if channel is None:
        return analysis.strips
    return tuple(s for s in analysis.layers if s.channel == channel)


def alone(strip: StripMetrics) -> DevelopedFilm:
    """A strip's own curve, whatever others say."""
    return DevelopedFilm(strip.restated_min, strip.curve, strip.curve, 0.0, strip.first, strip.last)

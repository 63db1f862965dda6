"""A number that each film has its own of, learnt from the films that were tested.

The next film's number lies about a middle with a spread, and neither is known at first. Given a
spread all is normal and in closed form; over the spread it is summed on a grid, so that few films,
or one odd one, leave a wide range.
"""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np
from scipy.special import ndtr

from vadrin.core.arrays import Array

_SPREADS = np.geomspace(0.25, 6.0, 17)
"""Spreads that are thought possible, as multiples of the usual one."""
_UNSURE_SPREAD = 0.6
_REACH = 0.975


@dataclass(frozen=True)
class Usual:
    """What is believed of a number before any film was tested.

    Attributes
    ----------
    middle : float
    unsure : float
        How far the middle of these films may lie from it, as a standard deviation.
    spread : float
        By how much films differ among each other.
    """

    middle: float
    unsure: float
    spread: float


@dataclass(frozen=True)
class LearntOffset:
    """What is believed of the next film's number: normals, one a spread, and their weights.

    Attributes
    ----------
    middles, deviations, weights : ndarray, shape (17,)
        The weights sum to 1.
    films : int
        How many films it was learnt from.
    """

    middles: Array
    deviations: Array
    weights: Array
    films: int

    @property
    def middle(self) -> float:
        """The number that is expected."""
        return float(self.weights @ self.middles)

    @property
    def deviation(self) -> float:
        """How far the next film may lie from it, as a standard deviation."""
        off = self.middles - self.middle
        return float(np.sqrt(self.weights @ (self.deviations**2 + off**2)))

    def range(self, factor: float = 1.0, besides: float = 0.0) -> tuple[float, float]:
        """The 95 % range of the number times a factor, with another deviation besides.

        Parameters
        ----------
        factor, besides : float
        """
        middles = factor * self.middles
        deviations = np.hypot(factor * self.deviations, besides)
        reach = 6.0 * float(deviations.max()) + 1e-9
        grid = np.linspace(middles.min() - reach, middles.max() + reach, 2001)
        z = (grid[:, None] - middles[None, :]) / np.maximum(deviations, 1e-12)[None, :]
        below = ndtr(z) @ self.weights
        low, high = np.interp([1 - _REACH, _REACH], below, grid)
        return float(low), float(high)


def learnt_offset(values: Array, deviations: Array, usual: Usual) -> LearntOffset:
    """What films tell of the next one's number.

    Parameters
    ----------
    values : ndarray, shape (n,)
        Of each film; none at all is allowed.
    deviations : ndarray, shape (n,)
        How well each is known.
    usual : Usual

    Returns
    -------
    LearntOffset
    """
    spreads = usual.spread * _SPREADS
    variance = deviations[None, :] ** 2 + spreads[:, None] ** 2
    prior = 1.0 / usual.unsure**2
    precision = prior + (1.0 / variance).sum(1)
    middles = (usual.middle * prior + (values[None, :] / variance).sum(1)) / precision
    off = values[None, :] - middles[:, None]
    log = -0.5 * ((off**2 / variance).sum(1) + np.log(variance).sum(1) + np.log(precision))
    log -= 0.5 * (middles - usual.middle) ** 2 * prior
    log -= 0.5 * (np.log(_SPREADS) / _UNSURE_SPREAD) ** 2
    weights = np.exp(log - log.max())
    deviation = np.sqrt(1.0 / precision + spreads**2)
    return LearntOffset(middles, deviation, weights / weights.sum(), len(values))


def with_its_own(learnt: LearntOffset, value: float, deviation: float) -> LearntOffset:
    """The same once the film itself has told something of its number.

    Parameters
    ----------
    learnt : LearntOffset
    value, deviation : float
    """
    variance, own = learnt.deviations**2, deviation**2
    log = -0.5 * ((value - learnt.middles) ** 2 / (variance + own) + np.log(variance + own))
    weights = learnt.weights * np.exp(log - log.max())
    middles = (learnt.middles * own + value * variance) / (variance + own)
    deviations = np.sqrt(variance * own / (variance + own))
    return LearntOffset(middles, deviations, weights / weights.sum(), learnt.films)


def surprise(learnt: LearntOffset, value: float, deviation: float) -> float:
    """The share of films that would be at least as far off as this one; 1 is the middle."""
    z = (value - learnt.middles) / np.hypot(learnt.deviations, deviation)
    below = float(learnt.weights @ ndtr(z))
    return 2.0 * min(below, 1.0 - below)

"""How much faster a bath works that is warmer, or agitated in another way, learnt from films.

A film's contrast over the minutes t is G_max (1 - exp(-k t exp(effect x))): x is how far the
bath was from the usual one, in tens of kelvin or 1 for another agitation. Each film has its own
G_max and k; its effect lies about that of the developer. What a film tells of it is summed over
its rates on a grid, and strips of one evening are off together.
"""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np

from vadrin.core.arrays import Array
from vadrin.core.learning.contrast_law import (
    BY_MINUTES,
    EVENING,
    LAW,
    LN_K,
    UNSURE_RATE,
    USUAL_RATE,
)
from vadrin.core.learning.offsets import Usual

WARMTH = Usual(float(np.log(2.5)), 0.2, 0.04)
"""ln of how many times faster for each 10 K, as usual: 2 to 4 in practice."""
AGITATION = Usual(0.0, 0.2, 0.04)
"""ln of how many times faster with another agitation."""
_EVENINGS = 1.5 * EVENING
"""By how much the minutes of two evenings may differ (ln): more than as usual, because a bottle
that ages, or a thermometer that is off, goes with the evening as the effect does."""
_SIGMAS, _STEPS = 5.0, 161
_REACH = 1.96


@dataclass(frozen=True)
class BathSeen:
    """Strips of one film in baths that differ.

    Attributes
    ----------
    minutes : ndarray, shape (n,)
        On the clock.
    away : ndarray, shape (n,)
        How far each bath was from the usual one.
    contrast, deviation : ndarray, shape (n,)
        Average gradient, and the standard deviation of its ln.
    evening : ndarray of int, shape (n,)
        Strips with the same number were developed together.
    """

    minutes: Array
    away: Array
    contrast: Array
    deviation: Array
    evening: Array


@dataclass(frozen=True)
class LearntEffect:
    """What is believed of a developer's effect: its middle and standard deviation (ln).

    Attributes
    ----------
    middle, deviation : float
    films : int
        How many films it was learnt from.
    held : int
        How many of them have an effect of their own that lies within what the others tell.
    """

    middle: float
    deviation: float
    films: int
    held: int = 0

    @property
    def times(self) -> tuple[float, float, float]:
        """How many times faster, with its 95 % range."""
        reach = _REACH * self.deviation
        low, middle, high = np.exp([self.middle - reach, self.middle, self.middle + reach])
        return float(middle), float(low), float(high)


def _grid(usual: Usual) -> Array:
    far = _SIGMAS * usual.unsure
    return np.linspace(usual.middle - far, usual.middle + far, _STEPS)


def _told_by(film: BathSeen, effects: Array) -> Array:
    """Likelihood of each effect, the film's rate and end of contrast being what they may."""
    together = film.evening[:, None] == film.evening[None, :]
    covariance = np.diag(film.deviation**2 + LAW**2) + (BY_MINUTES * _EVENINGS) ** 2 * together
    precision = np.linalg.inv(covariance)
    worth = film.minutes * np.exp(effects[:, None] * film.away)
    rises = np.log(-np.expm1(-np.exp(LN_K)[None, :, None] * worth[:, None, :]))
    off = np.log(film.contrast) - rises
    weighed = off @ precision
    # The end of contrast is any: its best value is taken out of the square.
    square = (weighed * off).sum(-1) - weighed.sum(-1) ** 2 / precision.sum()
    log = -0.5 * square - 0.5 * ((LN_K - USUAL_RATE) / UNSURE_RATE)[None, :] ** 2
    told = np.exp(log - log.max()).sum(1)
    return np.asarray(told / told.max())


def _moments(belief: Array, effects: Array) -> tuple[float, float]:
    share = belief / belief.sum()
    middle = float(share @ effects)
    return middle, float(np.sqrt(share @ (effects - middle) ** 2))


def _among_films(told: Array, effects: Array, spread: float) -> Array:
    """What one film tells of all: its own effect lies about theirs."""
    about = np.exp(-0.5 * ((effects[:, None] - effects[None, :]) / spread) ** 2)
    return np.asarray(about @ told + 1e-300)


def _believed(log: Array, effects: Array) -> tuple[float, float]:
    return _moments(np.exp(log - log.max()), effects)


def learnt_effect(films: tuple[BathSeen, ...], usual: Usual) -> LearntEffect:
    """What films tell of the effect of a bath that differs, and how they foretell each other.

    Parameters
    ----------
    films : tuple of BathSeen
        Each in two baths at least; none at all is allowed.
    usual : Usual
        What is believed before: `WARMTH` or `AGITATION`.
    """
    effects, held = _grid(usual), 0
    alone = [_told_by(film, effects) for film in films]
    terms = [np.log(_among_films(told, effects, usual.spread)) for told in alone]
    whole = -0.5 * ((effects - usual.middle) / usual.unsure) ** 2 + sum(terms)
    for told, term in zip(alone, terms, strict=True):
        middle, deviation = _believed(whole - term, effects)
        own, spread = _moments(told, effects)
        reach = _REACH * float(np.sqrt(deviation**2 + spread**2 + usual.spread**2))
        held += abs(own - middle) <= reach
    return LearntEffect(*_believed(whole, effects), len(films), held)

"""How contrast comes with time in a developer, learnt from the films that were tested in it.

Contrast G of a film over the minutes t is taken as G_max (1 - exp(-k t)). Each film has its own
rate k; the rates of one developer's films lie about a middle with a spread, and both are learnt.
Rates are Student-t about it, so that one odd film stands apart and draws no other along. The law
is none that films keep to the letter, and that is part of each strip's error.
"""

from __future__ import annotations

from dataclasses import dataclass
from functools import lru_cache

import numpy as np
from scipy.special import gammaln

from vadrin.core.arrays import Array
from vadrin.core.figure import Basis, Figure, absent

LN_K = np.linspace(np.log(0.004), np.log(1.2), 121)
_SPREADS = np.geomspace(0.08, 1.0, 12)
USUAL_RATE, UNSURE_RATE = np.log(0.11), 0.6
"""Middle rate of developers nobody tested, a minute, and how far one may lie from it (ln)."""
_USUAL_SPREAD = 0.35
_TAILS = 5.0
LAW = 0.02
"""By how much ln G of a strip lies off the law, standard deviation."""
EVENING = 0.04
"""By how much the minutes of a test count for more or less on another evening (ln), as usual."""
_EVENINGS_SEEN = 6
"""For so many control strips the usual counts."""
BY_MINUTES = 0.6
"""ln contrast for each ln of minutes, about the usual time."""
_PATCHES_READ = 0.012
"""How well ln of the contrast of a control strip is read."""
_FILM_READ = 0.02
"""The same of a film's contrast at one time, from the strips of a test."""
_REACH = 0.975
_LONGEST = 4.0
"""Times the strip's own minutes beyond which a time is not told."""
UNLIKE = 0.02
"""A film that so few of a developer's films are as far off as is unlike them."""
NEVER = "films in this developer may never reach that contrast"


@dataclass(frozen=True)
class ContrastSeen:
    """What strips of one film told.

    Attributes
    ----------
    minutes : ndarray, shape (n,)
        At the reference temperature.
    contrast : ndarray, shape (n,)
    deviation : ndarray, shape (n,)
        Of ln contrast.
    """

    minutes: Array
    contrast: Array
    deviation: Array


@dataclass(frozen=True)
class LearntLaw:
    """What is believed of the rate of a developer's next film.

    Attributes
    ----------
    weights : ndarray, shape (121,)
        Of rates on a grid of ln k; they sum to 1.
    films : int
        How many films it was learnt from.
    """

    weights: Array
    films: int


def _of_film(film: ContrastSeen) -> Array:
    """Likelihood of each rate, the film's end of contrast being whatever it may, shape (121,)."""
    rises = np.log(-np.expm1(-np.exp(LN_K)[:, None] * film.minutes[None, :]))
    off = np.log(film.contrast)[None, :] - rises
    weight = 1.0 / (film.deviation**2 + LAW**2)
    middle = (off * weight).sum(1, keepdims=True) / weight.sum()
    return np.asarray(np.exp(-0.5 * (weight * (off - middle) ** 2).sum(1)))


def _student(distance: Array, spread: Array) -> Array:
    """Density of Student's t of a spread, over the last axis summing to 1."""
    z = distance / spread
    log = gammaln((_TAILS + 1) / 2) - 0.5 * (_TAILS + 1) * np.log1p(z**2 / _TAILS) - np.log(spread)
    dense = np.exp(log)
    return np.asarray(dense / dense.sum(-1, keepdims=True))


def learnt_law(
    films: tuple[ContrastSeen, ...], elsewhere: tuple[ContrastSeen, ...] = ()
) -> LearntLaw:
    """What films of a developer, and of others of its process, tell of its next one.

    Parameters
    ----------
    films : tuple of ContrastSeen
        Two times at least each; those of fewer tell nothing here.
    elsewhere : tuple of ContrastSeen
        Of other developers: they tell where this one's middle may lie, and no more.
    """
    told = tuple(film for film in films if len(film.minutes) > 1)
    belief = _before(elsewhere)
    for film in told:
        belief = belief + _told_by(film)
    return LearntLaw(_next(belief), len(told))


def each_from_the_others(
    films: tuple[ContrastSeen, ...], elsewhere: tuple[ContrastSeen, ...] = ()
) -> tuple[LearntLaw, ...]:
    """What the others would have told of each film, had it been the next one."""
    terms = [_told_by(film) for film in films]
    whole = _before(elsewhere) + sum(terms)
    return tuple(LearntLaw(_next(whole - own), len(films) - 1) for own in terms)


@lru_cache(maxsize=1)
def _about() -> Array:
    """Rates of films about each middle and spread, shape (121, 12, 121)."""
    return _student(LN_K[None, None, :] - LN_K[:, None, None], _SPREADS[None, :, None])


def _before(elsewhere: tuple[ContrastSeen, ...]) -> Array:
    """Log belief in each middle and spread before a film was tested, shape (121, 12)."""
    middle, unsure = USUAL_RATE, UNSURE_RATE
    told = [_told_by(film) for film in elsewhere if len(film.minutes) > 1]
    if told:
        far = _next(_first_belief(USUAL_RATE, UNSURE_RATE) + sum(told))
        middle = float((far * LN_K).sum())
        unsure = float(np.clip(np.sqrt((far * (LN_K - middle) ** 2).sum()), 0.35, UNSURE_RATE))
    return _first_belief(middle, unsure)


def _first_belief(middle: float, unsure: float) -> Array:
    belief = -0.5 * ((LN_K[:, None] - middle) / unsure) ** 2
    return np.asarray(belief - 0.5 * (np.log(_SPREADS[None, :] / _USUAL_SPREAD) / 0.6) ** 2)


def _told_by(film: ContrastSeen) -> Array:
    return np.asarray(np.log(_about() @ _of_film(film) + 1e-300))


def _next(belief: Array) -> Array:
    """Weights of the next film's rate, over all middles and spreads."""
    weight = np.exp(belief - belief.max())
    return np.asarray(np.einsum("ms,msk->k", weight / weight.sum(), _about()))


def evening_of(contrasts: Array, repeats: tuple[Array, ...] = ()) -> float:
    """By how much evenings differ, by control strips and films that were developed again.

    Parameters
    ----------
    contrasts : ndarray, shape (n,)
        Dense patch less thin patch of each control strip; none at all is allowed.
    repeats : tuple of ndarray, shape (m,)
        Of each film that was tested on several evenings: ln of its contrast at one time.

    Returns
    -------
    float
        Of the minutes, as a standard deviation of ln.
    """
    groups = [(np.log(contrasts), _PATCHES_READ), *((each, _FILM_READ) for each in repeats)]
    told, many = _EVENINGS_SEEN * (BY_MINUTES * EVENING) ** 2, _EVENINGS_SEEN
    for logs, read in groups:
        if len(logs) > 1:
            freedom = len(logs) - 1
            told += float(((logs - logs.mean()) ** 2).sum()) - freedom * read**2
            many += freedom
    return float(np.sqrt(max(told / many, 1e-6)) / BY_MINUTES)


def time_for_contrast(
    law: LearntLaw, strip: ContrastSeen, wanted: float, evening: float = EVENING
) -> Figure:
    """Minutes for a contrast, from the strips of a film that were developed for one time.

    Parameters
    ----------
    law : LearntLaw
    strip : ContrastSeen
        What was read; several strips tell of the film's own rate as well.
    wanted : float
        Average gradient, or any measure that goes with it.
    evening : float
        By how much minutes count for more or less on another evening (ln).

    Returns
    -------
    Figure
        With its 95 % range; absent where it may lie beyond all reason.
    """
    weights = law.weights * _of_film(strip)
    weights = weights / weights.sum()
    near = int(np.argmin(np.abs(np.log(strip.contrast / wanted))))
    minutes, found = float(strip.minutes[near]), float(strip.contrast[near])
    rate = np.exp(LN_K)
    # The strip itself is off by its reading, and another evening by its bath.
    off = np.linspace(-2.4, 2.4, 13)
    share = np.exp(-0.5 * off**2)
    deviation = float(np.hypot(strip.deviation[near], LAW * abs(np.log(wanted / found)) / 0.3))
    ratio = wanted / found * np.exp(-deviation * off)
    reached = ratio[None, :] * -np.expm1(-rate * minutes)[:, None]
    with np.errstate(divide="ignore", invalid="ignore"):
        times = np.where(
            reached < 1.0, -np.log1p(-np.minimum(reached, 1.0)) / rate[:, None], np.inf
        )
    every, share_of = times.ravel(), (weights[:, None] * share[None, :]).ravel()
    order = np.argsort(every)
    summed = np.cumsum(share_of[order]) / share_of.sum()
    low, middle, high = (
        float(every[order][min(int(np.searchsorted(summed, q)), len(every) - 1)])
        for q in (1 - _REACH, 0.5, _REACH)
    )
    if not np.isfinite(middle) or middle > _LONGEST * minutes:
        return absent(NEVER)
    # Apart from what this strip tells: the evening it is asked for is another one.
    reach = float(np.exp(1.96 * evening))
    low = float(np.exp(np.log(middle) - np.hypot(np.log(middle / low), np.log(reach))))
    if np.isfinite(high):
        high = float(np.exp(np.log(middle) + np.hypot(np.log(high / middle), np.log(reach))))
    high = min(high, _LONGEST * minutes)
    return Figure(middle, low, max(high, middle), basis=Basis.ESTIMATED)


def rate_that_surprises(law: LearntLaw, film: ContrastSeen) -> float:
    """How unlikely a film's rate is among a developer's films: the share at least as far off.

    1 is the middle; under `UNLIKE` the film is unlike all others, or its times were not so.
    """
    told = _of_film(film)
    below = float((told / told.sum() * np.cumsum(law.weights)).sum())
    return 2.0 * min(below, 1.0 - below)


def contrast_at(film: ContrastSeen, minutes: float) -> tuple[float, float]:
    """ln of the contrast a film has at other minutes than its strips', and its deviation.

    Parameters
    ----------
    film : ContrastSeen
    minutes : float
        At the reference temperature.
    """
    belief = np.exp(-0.5 * ((LN_K - USUAL_RATE) / UNSURE_RATE) ** 2)
    told = _of_film(film) * belief
    told = told / told.sum()
    rises = np.log(-np.expm1(-np.exp(LN_K)[:, None] * film.minutes[None, :]))
    weight = 1.0 / (film.deviation**2 + LAW**2)
    level = ((np.log(film.contrast)[None, :] - rises) * weight).sum(1) / weight.sum()
    there = level + np.log(-np.expm1(-np.exp(LN_K) * minutes))
    middle = float(told @ there)
    spread = float(np.sqrt(told @ (there - middle) ** 2 + 1.0 / weight.sum()))
    # By an evening's difference contrast moves as its minutes would move it.
    later = level + np.log(-np.expm1(-np.exp(LN_K) * minutes * np.exp(EVENING)))
    return middle, float(np.hypot(spread, told @ later - middle))

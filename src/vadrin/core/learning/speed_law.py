"""How a film's speed moves with its contrast, learnt from the films of a developer.

Between the times of one film its speed in stops goes with ln G, by a slope of the film's own.
"""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np

from vadrin.core.arrays import Array
from vadrin.core.figure import Basis, Figure
from vadrin.core.learning.offsets import LearntOffset, Usual, learnt_offset, with_its_own

_USUAL = Usual(middle=0.6, unsure=1.0, spread=0.7)
"""Stops of speed for each e-fold of contrast."""
_LAW = 0.04
"""By how many stops a strip lies off the law, for each 0.3 of ln G."""
_EVENING = 0.04
"""By how many stops speed differs from one evening to another, shutter and light in it."""


@dataclass(frozen=True)
class SpeedSeen:
    """What strips of one film told.

    Attributes
    ----------
    contrast : ndarray, shape (n,)
    stops : ndarray, shape (n,)
        Speed as log2 of an EI.
    deviation : ndarray, shape (n,)
        Of the stops.
    """

    contrast: Array
    stops: Array
    deviation: Array


def own_slope(film: SpeedSeen) -> tuple[float, float] | None:
    """A film's own slope in stops, and its deviation; None for strips of one contrast."""
    if len(film.contrast) < 2:
        return None
    x = np.log(film.contrast)
    weight = 1.0 / (film.deviation**2 + _LAW**2)
    middle = float(weight @ x / weight.sum())
    across = float(weight @ (x - middle) ** 2)
    if across < 1e-9:
        return None
    slope = float(weight @ ((x - middle) * film.stops)) / across
    return slope, across**-0.5


def learnt_slope(films: tuple[SpeedSeen, ...]) -> LearntOffset:
    """What films of a developer tell of the slope of its next one; those of one strip nothing."""
    told = [slope for film in films if (slope := own_slope(film)) is not None]
    values, deviations = (np.array([pair[i] for pair in told], dtype=float) for i in (0, 1))
    return learnt_offset(values, deviations, _USUAL)


def index_at_contrast(
    learnt: LearntOffset, film: SpeedSeen, wanted: float, contrast_deviation: float = 0.0
) -> Figure:
    """The EI a film has once it is developed to a contrast, from its strips of other contrasts.

    Parameters
    ----------
    learnt : LearntOffset
        Of the slope.
    film : SpeedSeen
    wanted : float
        The contrast.
    contrast_deviation : float
        How well ln G of the nearest strip is known.

    Returns
    -------
    Figure
        An EI with its 95 % range.
    """
    own = own_slope(film)
    slope = learnt if own is None else with_its_own(learnt, *own)
    near = int(np.argmin(np.abs(np.log(film.contrast / wanted))))
    away = float(np.log(wanted / film.contrast[near]))
    besides = float(
        np.sqrt(
            film.deviation[near] ** 2
            + (slope.middle * contrast_deviation) ** 2
            + (_LAW * abs(away) / 0.3) ** 2
            + _EVENING**2
        )
    )
    low, high = slope.range(away, besides)
    at = float(film.stops[near])
    middle = at + away * slope.middle
    return Figure(2.0**middle, 2.0 ** (at + low), 2.0 ** (at + high), basis=Basis.ESTIMATED)

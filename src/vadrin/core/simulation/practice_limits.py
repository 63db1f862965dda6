"""What could have been had of a practice film: by the frames that were shot, and by the best plan
of as many."""

from __future__ import annotations

from collections.abc import Generator, Sequence
from dataclasses import dataclass
from itertools import product
from math import log2

import numpy as np

from vadrin.core.arrays import Array
from vadrin.core.readings import Reading, StripReadings
from vadrin.core.results.analysis import analyse
from vadrin.core.results.analysis_result import Settings
from vadrin.core.results.criteria import Target
from vadrin.core.simulation.practice_film import METER_CONSTANT, STOP, PracticeFilm

_TIMES = 10
"""How often the frames that were shot are read anew."""
_TRIES = 3
_TRIED = tuple(product((2, 3, 4, 5), (0.5, 1.0), (-6.0, -4.0)))
"""Strips, steps in stops and first stops of the plans that are tried."""
_WIDEST = 2.0
_MOSTLY = 0.7
"""Share of the trials that must find a figure, for it to be said how near they come."""


@dataclass(frozen=True)
class ShotStrip:
    """A strip as it was shot: lg exposures, nan for blanks, and its minutes at 20 °C."""

    log_h: Array
    minutes: float


@dataclass(frozen=True)
class PlanReach:
    """How near a plan comes to the truth.

    Attributes
    ----------
    index_stops, time_share : float or None
        Root mean square errors; None where it finds no such figure.
    """

    index_stops: float | None
    time_share: float | None

    @property
    def cost(self) -> float:
        """One figure for both: a stop of EI counts as 30 % of time."""
        ei = _WIDEST if self.index_stops is None else self.index_stops
        time = _WIDEST if self.time_share is None else self.time_share / 0.3
        return ei + time


@dataclass(frozen=True)
class BestPlan:
    """A plan of about as many frames, and how near it comes.

    Attributes
    ----------
    times : tuple of float
        Minutes at 20 °C.
    frames : int
        On each strip, one of them blank.
    first, step : float
        Stops from the meter at the true EI.
    reach : PlanReach
    """

    times: tuple[float, ...]
    frames: int
    first: float
    step: float
    reach: PlanReach


def reach_of(
    film: PracticeFilm,
    strips: Sequence[ShotStrip],
    noise: float,
    rng: np.random.Generator,
    target: float = 0.58,
    times: int = _TIMES,
) -> PlanReach:
    """How near frames come to the truth if nothing goes wrong and a densitometer reads them.

    Parameters
    ----------
    film : PracticeFilm
    strips : sequence of ShotStrip
    noise : float
        Standard deviation of a density.
    rng : numpy.random.Generator
    target : float
        Average gradient that a time is wanted for.
    times : int
        How often they are read.
    """
    normal = film.time_for_gradient(target)
    # One development has its own EI, whatever contrast is wanted.
    rated = strips[0].minutes if len(strips) == 1 else normal
    true = film.zone_ei(rated) if rated is not None else None
    ei, minutes = [], []
    settings = Settings(target=Target("average_gradient", target), draws=0)
    for _ in range(times):
        found = analyse(
            tuple(_read(film, s, n, noise, rng) for n, s in enumerate(strips)), settings
        )
        index, time = found.finding.zone_ei.value, found.finding.time_min.value
        if len(strips) == 1:
            index, time = found.strips[0].zone_ei.value if found.strips else None, None
        if index and true:
            ei.append(log2(index / true))
        if time and normal:
            minutes.append(time / normal - 1.0)
    return PlanReach(_rms(ei, times), _rms(minutes, times))


def _rms(off: list[float], times: int) -> float | None:
    if len(off) < _MOSTLY * times:
        return None
    return float(np.sqrt(np.mean(np.square(off))))


def _read(
    film: PracticeFilm, strip: ShotStrip, place: int, noise: float, rng: np.random.Generator
) -> StripReadings:
    lit = np.isfinite(strip.log_h)
    dense = np.full(len(lit), film.base_fog(strip.minutes))
    dense[lit] += film.net(strip.log_h[lit], strip.minutes)
    dense = np.maximum(dense + noise * rng.standard_normal(len(dense)), 0.0)
    rows = tuple(
        Reading(str(n), float(x) if np.isfinite(x) else None, round(float(d), 3))
        for n, (x, d) in enumerate(zip(strip.log_h, dense, strict=True), start=1)
    )
    return StripReadings(chr(65 + place), strip.minutes, 20.0, rows)


def best_plan(
    film: PracticeFilm, frames: int, noise: float, rng: np.random.Generator, target: float = 0.58
) -> Generator[tuple[int, int], None, BestPlan | None]:
    """The best of some plans of as many frames, with the truth in hand.

    Parameters
    ----------
    film : PracticeFilm
    frames : int
        In all.
    noise : float
    rng : numpy.random.Generator
    target : float

    Yields
    ------
    tuple of int
        How many of how many plans were tried.
    """
    normal = film.time_for_gradient(target)
    index = film.zone_ei(normal) if normal is not None else None
    if normal is None or index is None:
        return None
    best: BestPlan | None = None
    for done, (strips, step, first) in enumerate(_TRIED):
        yield done, len(_TRIED)
        each = frames // strips
        if each < 6:
            continue
        shares = np.geomspace(0.7, 1.5, strips)
        x = np.log10(METER_CONSTANT / index) + STOP * (first + step * np.arange(each - 1))
        shot = [ShotStrip(np.append(np.nan, x), float(normal * s)) for s in shares]
        reach = reach_of(film, shot, noise, rng, target, _TRIES)
        if best is None or reach.cost < best.reach.cost:
            times = tuple(float(normal * s) for s in shares)
            best = BestPlan(times, each, first, step, reach)
    return best

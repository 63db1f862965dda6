"""The plan with the fewest frames that still answers as surely as wanted."""

from __future__ import annotations

import math
from collections.abc import Iterator
from dataclasses import dataclass

from vadrin.core.exposure.arithmetic import STOP, bracket, meter_point
from vadrin.core.planning.film_prior import FilmPrior, shifted_prior
from vadrin.core.planning.forecast import PlannedStrip, forecast
from vadrin.core.planning.strip_plan import strip_labels
from vadrin.core.results.analysis_result import Settings

BRACKET_STEPS = (1.0, 0.5, 1 / 3)
_SPREAD, _SHORTER = 1.35, 5
_MOST_STRIPS = 5
_OWN_RANGE = {True: 1.15, False: 1.2}
"""How much wider than foretold a finished test's own range is at most, nine times of ten: of films
whose curves are known, and of any film."""
_SLOWER, _LONGER = 0.2, 1.2
"""Lg units by which an unknown film may be slower or faster than the EI it is shot at, and by how
much its time may be another than the middle one."""


@dataclass(frozen=True)
class BracketLayout:
    """Strips alike: development times in minutes, and a bracket in stops after some blanks."""

    times: tuple[float, ...]
    first: float
    last: float
    step: float
    blanks: int

    @property
    def frames(self) -> int:
        """Frames in all."""
        return len(self.times) * (self.blanks + len(bracket(self.first, self.last, self.step)))


def _layouts(widest: BracketLayout, counts: tuple[int, ...]) -> Iterator[BracketLayout]:
    """Every layout inside the widest bracket, around the geometric mean of its times."""
    middle = math.exp(sum(math.log(t) for t in widest.times) / len(widest.times))
    for count in counts:
        powers = [i - (count - 1) / 2 for i in range(count)]
        times = tuple(round(middle * _SPREAD**p * 2) / 2 for p in powers)
        for step in BRACKET_STEPS:
            for less in range(_SHORTER):
                for fewer in range(_SHORTER):
                    first, last = widest.first + less, widest.last - fewer
                    if last - first >= 3:
                        yield BracketLayout(times, first, last, step, widest.blanks)


def minimal_layout(
    prior: FilmPrior,
    index: float,
    widest: BracketLayout,
    noise: float,
    settings: Settings,
    stops: float,
    measured: bool = False,
) -> tuple[BracketLayout, float] | None:
    """Find the layout of fewest frames whose finished test will know the EI to within some stops.

    Parameters
    ----------
    prior : FilmPrior
    index : float
        EI the meter is set to.
    widest : Layout
        The bracket may be shortened, not widened; its blanks are kept. Where it has one time,
        one strip is what is looked for, else two to five around its times.
    noise : float
        Standard deviation of a reading.
    settings : Settings
    stops : float
        Half the 95 % interval wanted.
    measured : bool
        Whether the film's own curves are known. Of any other film speed and time may be off:
        the layout has to do for those too.

    Returns
    -------
    (Layout, float) or None
        With half the interval to be reckoned with, in stops; None where no such layout is that
        sure.
    """
    alone = len(widest.times) == 1
    counts = (1,) if alone else tuple(range(2, _MOST_STRIPS + 1))
    start = meter_point(index, settings.meter_constant)
    films = [(prior, 1.0)]
    if not measured:
        films += [(shifted_prior(prior, by), 1.0) for by in (-_SLOWER, _SLOWER)]
        films += [] if alone else [(prior, _LONGER), (prior, 1 / _LONGER)]
    for layout in sorted(_layouts(widest, counts), key=lambda one: one.frames):
        worst = 0.0
        for film, longer in films:
            half = _half_range(film, _planned(layout, start, longer), noise, settings, alone)
            worst = max(worst, _OWN_RANGE[measured] * half)
            if worst > stops:
                break
        else:
            return layout, worst
    return None


def _planned(layout: BracketLayout, start: float, longer: float) -> tuple[PlannedStrip, ...]:
    lit = (start + STOP * s for s in bracket(layout.first, layout.last, layout.step))
    x = (*[math.nan] * layout.blanks, *lit)
    names = strip_labels(len(layout.times))
    return tuple(PlannedStrip(n, longer * t, x) for n, t in zip(names, layout.times, strict=True))


def _half_range(
    film: FilmPrior, plan: tuple[PlannedStrip, ...], noise: float, settings: Settings, alone: bool
) -> float:
    """Half the foretold interval of the EI, in stops; endless where a plan would not tell it."""
    told = forecast(film, plan, noise, settings)
    if told.ei_spread is None or (not alone and told.time_spread is None):
        return math.inf
    return 1.96 * told.ei_spread

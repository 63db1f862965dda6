"""The plan with the fewest frames that still answers as surely as wanted."""

from __future__ import annotations

import math
from collections.abc import Iterator
from dataclasses import dataclass

from vadrin.core.exposure.arithmetic import STOP, bracket, meter_point
from vadrin.core.planning.film_prior import FilmPrior
from vadrin.core.planning.forecast import Forecast, PlannedStrip, forecast
from vadrin.core.planning.strip_plan import strip_labels
from vadrin.core.results.analysis_result import Settings

BRACKET_STEPS = (1.0, 0.5, 1 / 3)
_SPREAD, _SHORTER = 1.35, 5
_MOST_STRIPS = 5


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
) -> tuple[BracketLayout, Forecast] | None:
    """Find the layout of fewest frames whose EI is foretold to within some stops.

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

    Returns
    -------
    (Layout, Prediction) or None
        None where no such layout is that sure.
    """
    alone = len(widest.times) == 1
    counts = (1,) if alone else tuple(range(2, _MOST_STRIPS + 1))
    start = meter_point(index, settings.meter_constant)
    for layout in sorted(_layouts(widest, counts), key=lambda one: one.frames):
        lit = (start + STOP * s for s in bracket(layout.first, layout.last, layout.step))
        x = (*[math.nan] * layout.blanks, *lit)
        names = strip_labels(len(layout.times))
        plan = tuple(PlannedStrip(name, t, x) for name, t in zip(names, layout.times, strict=True))
        told = forecast(prior, plan, noise, settings)
        if told.ei_spread is None or (not alone and told.time_spread is None):
            continue
        if 1.96 * told.ei_spread <= stops:
            return layout, told
    return None

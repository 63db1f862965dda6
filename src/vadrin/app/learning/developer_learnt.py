"""What the films tested in a developer tell of its next one, and how that fares among them."""

from __future__ import annotations

from dataclasses import dataclass
from functools import lru_cache
from math import inf, log

import numpy as np

from vadrin.app.display.words import counted
from vadrin.app.learning.past_tests import PastTest, one_a_film, past_tests
from vadrin.core.figure import Figure, absent
from vadrin.core.learning.contrast_law import (
    ContrastSeen,
    LearntLaw,
    each_from_the_others,
    learnt_law,
    time_for_contrast,
)
from vadrin.core.learning.offsets import LearntOffset
from vadrin.core.learning.push_times import learnt_push, push_time, pushes_held
from vadrin.core.learning.speed_law import SpeedSeen, index_at_contrast, learnt_slope
from vadrin.notebook.store import Notebook

FEWEST = 3
"""Films in a developer under which nothing is claimed of its next one."""
ENOUGH_TRIED = 5
"""Ranges of past tests that have to be tried before anything is claimed."""
NEAR_ENOUGH = 0.12
"""Half a range, as a share of the time, that is enough for most films."""
_HELD = 0.9
_FORETOLD = 12
"""The newest tests that are foretold from the others."""


@dataclass(frozen=True)
class Foretold:
    """A figure of a past test foretold from the others by some of its strips.

    Attributes
    ----------
    past : PastTest
    strip_min : float
        Of the first of them.
    figure : Figure
    found : float
        What the whole test found.
    """

    past: PastTest
    strip_min: float
    figure: Figure
    found: float

    @property
    def off(self) -> float:
        """Half the width of its range, as a share."""
        low, high = self.figure.low, self.figure.high
        return 0.5 * log(high / low) if low and high else inf

    @property
    def held(self) -> bool:
        """Whether the range held what the whole test found."""
        low, high = self.figure.low, self.figure.high
        return low is not None and high is not None and low <= self.found <= high


Ranges = tuple[Foretold, ...]


def how_many_held(ranges: Ranges) -> int:
    """How many of the ranges held what was found."""
    return sum(one.held for one in ranges)


def trusted(ranges: Ranges) -> bool:
    """Whether enough were tried, and of these enough held."""
    return len(ranges) >= ENOUGH_TRIED and how_many_held(ranges) >= _HELD * len(ranges)


def usual_width(ranges: Ranges) -> float:
    """Half the width of the usual range, as a share."""
    return float(np.median([one.off for one in ranges]))


@dataclass(frozen=True)
class Learnt:
    """What the tests in one developer tell of its next film, and how that fares among them.

    Attributes
    ----------
    tests : tuple of PastTest
        Every one; what films have in common is learnt from one of each.
    law : LearntLaw
        Of contrast over time.
    slope : LearntOffset
        Of speed over contrast.
    by_one, by_two : tuple of Foretold
        Times of past tests, from one strip and from two that lie together.
    indices : tuple of Foretold
        EIs of past tests, from one strip.
    """

    tests: tuple[PastTest, ...]
    law: LearntLaw
    slope: LearntOffset
    by_one: Ranges
    by_two: Ranges
    indices: Ranges

    @property
    def trusted(self) -> bool:
        """Whether so many times held that anything may be claimed."""
        return trusted(self.by_one)

    @property
    def fares(self) -> str:
        """How the times of the past tests were foretold, in a sentence."""
        held = f"{how_many_held(self.by_one)} of {counted(len(self.by_one), 'range')} held"
        return f"Each of these films foretold by the others from one strip alone: {held}."

    def push(self, rule: str, stops: float, normal: Figure) -> Figure:
        """The time of a push, by a rule, of a film with that normal time."""
        pushed = one_a_film(past for past in self.tests if (rule, stops) in past.pushes)
        told = [past.pushes[rule, stops] for past in pushed]
        factors, deviations = (np.array([pair[i] for pair in told], dtype=float) for i in (0, 1))
        held = pushes_held(factors, deviations, stops)
        if held < _HELD * len(told):
            return absent(
                f"{held} of {counted(len(told), 'push')} held when each was foretold by the others"
            )
        return push_time(learnt_push(factors, deviations, stops), normal)


def index_fares(told: Learnt) -> str:
    """How EIs from one strip fared: ``within ± 0.18 stop (24 of 24 held)``."""
    held = f"{how_many_held(told.indices)} of {len(told.indices)} held"
    return f"within ± {usual_width(told.indices) / log(2):.2f} stop ({held})"


def learnt(notebook: Notebook, developer_id: int | None, but: int) -> Learnt | None:
    """What the notebook tells of a developer; None for too few films."""
    every = past_tests(notebook, but)
    here = one_a_film(past for past in every if past.developer_id == developer_id)
    return learnt_of(every, developer_id) if len(here) >= FEWEST else None


def learnt_of(every: tuple[PastTest, ...], developer_id: int | None) -> Learnt:
    """What past tests tell of a developer."""
    here = tuple(past for past in every if past.developer_id == developer_id)
    # Colour film tells nothing of how a black-and-white developer works.
    kinds = {past.film_kind for past in here}
    away = tuple(p for p in every if p.developer_id != developer_id and p.film_kind in kinds)
    return _learnt(here, away)


@lru_cache(maxsize=8)
def _learnt(here: tuple[PastTest, ...], away: tuple[PastTest, ...]) -> Learnt:
    """Worked out once for the same tests: a finding is shown at every key."""
    films, others = one_a_film(here), one_a_film(away)
    seen, elsewhere = (tuple(past.seen for past in some) for some in (films, others))
    laws = each_from_the_others(seen, elsewhere)
    of_film = {past.stock_id: law for past, law in zip(films, laws, strict=True)}
    decided = [(past, of_film[past.stock_id]) for past in here if past.finding_id]
    newest = decided[-_FORETOLD:]
    by_one, by_two = (
        tuple(
            told
            for past, law in newest
            for n in range(len(past.seen.minutes) - strips + 1)
            if (told := _time_foretold(past, law, n, strips)).figure.present
        )
        for strips in (1, 2)
    )
    indices = tuple(told for past, _ in newest for told in _indices_foretold(past, here))
    return Learnt(here, learnt_law(seen, elsewhere), _slope_of(here), by_one, by_two, indices)


def _slope_of(films: tuple[PastTest, ...]) -> LearntOffset:
    told = one_a_film(past for past in films if past.speeds is not None)
    return learnt_slope(tuple(past.speeds for past in told if past.speeds is not None))


def _time_foretold(past: PastTest, law: LearntLaw, number: int, strips: int) -> Foretold:
    """A test's time as some of its strips and the others' law would have told it."""
    seen = past.seen
    some = np.argsort(seen.minutes)[number : number + strips]
    alone = ContrastSeen(seen.minutes[some], seen.contrast[some], seen.deviation[some])
    told = time_for_contrast(law, alone, past.wanted)
    return Foretold(past, float(seen.minutes[some[0]]), told, past.minutes)


def _indices_foretold(past: PastTest, films: tuple[PastTest, ...]) -> Ranges:
    """A test's EI as each of its strips and the others' slopes would have told it."""
    speeds = past.speeds
    if speeds is None or past.index is None:
        return ()
    slope = _slope_of(tuple(film for film in films if film.stock_id != past.stock_id))
    told = []
    for n in range(len(speeds.contrast)):
        alone = SpeedSeen(
            speeds.contrast[n : n + 1], speeds.stops[n : n + 1], speeds.deviation[n : n + 1]
        )
        index = index_at_contrast(slope, alone, past.wanted)
        told.append(Foretold(past, 0.0, index, past.index))
    return tuple(told)


def index_of(told: Learnt, speeds: SpeedSeen | None, wanted: float, contrast_off: float) -> Figure:
    """The EI of a film at a contrast; absent where the past tests do not bear it out."""
    if speeds is None:
        return absent("no strip has a speed")
    if not trusted(told.indices):
        return absent(
            f"{how_many_held(told.indices)} of {counted(len(told.indices), 'EI')} held when each "
            "was foretold by the others"
        )
    return index_at_contrast(told.slope, speeds, wanted, contrast_off)

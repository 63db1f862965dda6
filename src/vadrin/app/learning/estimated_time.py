"""The time of a film of which one development was read, estimated from the other tests."""

from __future__ import annotations

from dataclasses import dataclass
from functools import lru_cache
from math import inf, log

import numpy as np

from vadrin.app.display.quantities import minutes_text
from vadrin.app.display.words import capital, counted
from vadrin.app.document.state import State
from vadrin.app.learning.left_out import estimates_left_out
from vadrin.app.learning.past_tests import (
    LEARNING_KINDS,
    MEASURE,
    PastTest,
    deviation_of,
    past_tests,
)
from vadrin.app.results.target_words import target_text
from vadrin.core.figure import Basis, Figure
from vadrin.core.learning.contrast_law import (
    UNLIKE,
    ContrastSeen,
    LearntLaw,
    each_from_the_others,
    learnt_law,
    rate_that_surprises,
    time_for_contrast,
)
from vadrin.notebook.records import Test
from vadrin.notebook.store import Notebook

_FEWEST = 3
"""Films in a developer under which nothing is claimed of its next one."""
_HELD = 0.9
_TRIED, _FORETOLD = 5, 12
"""Ranges of past tests that have to be tried, and the newest tests that are."""


@dataclass(frozen=True)
class Foretold:
    """A past test foretold from the others by one of its strips, or by two that lie together.

    Attributes
    ----------
    past : PastTest
    strip_min : float
        Of the first of them.
    time : Figure
    """

    past: PastTest
    strip_min: float
    time: Figure

    @property
    def off(self) -> float:
        """Half the width of its range, as a share."""
        low, high = self.time.low, self.time.high
        return 0.5 * log(high / low) if low and high else inf

    @property
    def held(self) -> bool:
        """Whether the range held what the whole test found."""
        low, high = self.time.low, self.time.high
        return low is not None and high is not None and low <= self.past.minutes <= high


@dataclass(frozen=True)
class Learnt:
    """What the tests in one developer tell of its next film, and how that fares among them."""

    law: LearntLaw
    foretold: tuple[Foretold, ...]
    by_two: tuple[Foretold, ...]

    @property
    def trusted(self) -> bool:
        """Whether so many held that anything may be claimed."""
        return _trusted(self.foretold)

    @property
    def fares(self) -> str:
        """How the past tests were foretold, in a sentence."""
        held = f"{_held(self.foretold)} of {counted(len(self.foretold), 'range')} held"
        return f"Each of these films foretold by the others from one strip alone: {held}."


def _held(ranges: tuple[Foretold, ...]) -> int:
    return sum(one.held for one in ranges)


def _trusted(ranges: tuple[Foretold, ...]) -> bool:
    """Whether enough were tried, and of these enough held."""
    return len(ranges) >= _TRIED and _held(ranges) >= _HELD * len(ranges)


def learnt(notebook: Notebook, developer_id: int | None, but: int) -> Learnt | None:
    """What the notebook tells of a developer; None for too few films."""
    every = past_tests(notebook, but)
    here = tuple(past for past in every if past.developer_id == developer_id)
    away = tuple(past for past in every if past.developer_id != developer_id)
    return _learnt(here, away) if len(here) >= _FEWEST else None


@lru_cache(maxsize=8)
def _learnt(here: tuple[PastTest, ...], away: tuple[PastTest, ...]) -> Learnt:
    """Worked out once for the same tests: a finding is shown at every key."""
    seen, elsewhere = (tuple(past.seen for past in some) for some in (here, away))
    laws = each_from_the_others(seen, elsewhere)
    newest = list(zip(here, laws, strict=True))[-_FORETOLD:]
    by_one, by_two = (
        tuple(
            told
            for past, law in newest
            for n in range(len(past.seen.minutes) - strips + 1)
            if (told := _foretold(past, law, n, strips)).time.present
        )
        for strips in (1, 2)
    )
    return Learnt(learnt_law(seen, elsewhere), by_one, by_two)


def _foretold(past: PastTest, law: LearntLaw, number: int, strips: int) -> Foretold:
    """A test's time as some of its strips and the others' law would have told it."""
    seen = past.seen
    some = np.argsort(seen.minutes)[number : number + strips]
    alone = ContrastSeen(seen.minutes[some], seen.contrast[some], seen.deviation[some])
    minutes = float(seen.minutes[some[0]])
    return Foretold(past, minutes, time_for_contrast(law, alone, past.wanted))


def few_strips_words(notebook: Notebook, test: Test) -> str:
    """What one strip, and what two, would tell of a film nobody tested in this developer, by how
    the past tests would have been foretold; empty where nothing is claimed."""
    if test.kind not in LEARNING_KINDS or estimates_left_out():
        return ""
    told = learnt(notebook, test.developer_id, test.id)
    if told is None or not told.trusted:
        return ""
    ways = []
    for name, some in (("one strip", told.foretold), ("two", told.by_two)):
        if _trusted(some):
            wide = 100 * float(np.median([one.off for one in some]))
            fared = f"± {wide:.0f} % ({_held(some)} of {len(some)} held)"
            ways.append(f"{name} would have told the time within {fared}")
    return f"By your {counted(told.law.films, 'film')} in this developer {', '.join(ways)}."


def estimated_words(notebook: Notebook, state: State) -> str:
    """The estimate beside a finding whose own strips tell no time, in sentences; empty where
    they do, or none is wanted."""
    analysis = state.analysis
    if analysis is None or analysis.finding.time_min.present or estimates_left_out():
        return ""
    target = analysis.settings.target
    if target.kind != MEASURE:
        return ""
    test = state.loaded.test
    told = learnt(notebook, test.developer_id, test.id)
    if told is None:
        return ""
    if not told.trusted:
        return (
            f"No time is {Basis.ESTIMATED.value}: in this developer only {_held(told.foretold)} of "
            f"{counted(len(told.foretold), 'range')} held when each was foretold by the others."
        )
    mine = _strips_of(state)
    if mine is None:
        return ""
    time = time_for_contrast(told.law, mine, target.value)
    if time.value is None or time.low is None or time.high is None:
        return f"No time is {Basis.ESTIMATED.value}: {time.why}."
    return (
        f"{capital(Basis.ESTIMATED.value)}, not measured: about "
        f"{minutes_text(time.value)} min, {minutes_text(time.low)} to {minutes_text(time.high)}, "
        f"would meet {target_text(target.kind, target.value)}, if this film develops like "
        f"{counted(told.law.films, 'film')} in this developer. {told.fares}"
    )


def unlike_words(notebook: Notebook, state: State) -> str:
    """That a film's contrast comes with time as that of no other film in its developer does."""
    analysis, test = state.analysis, state.loaded.test
    if analysis is None or estimates_left_out():
        return ""
    mine = _strips_of(state)
    if mine is None or len(set(mine.minutes.tolist())) < 2:
        return ""
    told = learnt(notebook, test.developer_id, test.id)
    if told is None or told.law.films < _TRIED or rate_that_surprises(told.law, mine) >= UNLIKE:
        return ""
    return (
        f"Its contrast comes with time unlike that of {counted(told.law.films, 'film')} in this "
        "developer. Was the bath another dilution, colder or older than noted? A strip for the "
        "time found, developed on another evening, would tell."
    )


def _strips_of(state: State) -> ContrastSeen | None:
    """What was read of this film; None where no contrast was."""
    others = state.loaded.others()
    rows = [
        (s.restated_min, s.average_gradient.value, _deviation(s.average_gradient))
        for s in state.settled().strips
        if s.label not in others and s.restated_min and s.average_gradient.value
    ]
    if not rows:
        return None
    return ContrastSeen(*(np.array(column, dtype=float) for column in zip(*rows, strict=True)))


def _deviation(read: Figure) -> float:
    return deviation_of(read.low, read.high)


def foretold_lines(notebook: Notebook, developer_id: int | None) -> tuple[str, ...]:
    """How each test in a developer would have been foretold by the others, a line each."""
    told = learnt(notebook, developer_id, 0)
    if told is None:
        return ()
    lines = [told.fares]
    for one in told.foretold:
        low, high = one.time.low or 0.0, one.time.high or 0.0
        lines.append(
            f"{one.past.film}: {minutes_text(one.past.minutes)} was found; from its strip of "
            f"{minutes_text(one.strip_min)} alone {minutes_text(low)} to {minutes_text(high)}"
            f"{'' if one.held else ', not held'}"
        )
    return tuple(lines)

"""How far makers' words were off here, and what that makes of a film nobody tested yet."""

from __future__ import annotations

from dataclasses import dataclass
from math import exp, log, log2

import numpy as np

from vadrin.app.display.marks import marked_ei
from vadrin.app.display.quantities import minutes_text
from vadrin.app.display.words import counted
from vadrin.app.learning.developer_learnt import FEWEST
from vadrin.app.learning.estimated_time import few_strips_words
from vadrin.app.learning.left_out import estimates_left_out
from vadrin.app.learning.past_tests import PastTest, one_a_film, past_tests
from vadrin.app.loaded.makers_told import makers_told
from vadrin.core.arrays import Array
from vadrin.core.figure import Basis, Figure
from vadrin.core.learning.offsets import LearntOffset, Usual, learnt_offset, surprise
from vadrin.notebook.records import MakerTime, Stock, Test
from vadrin.notebook.store import Notebook

_BOX, _TIME = Usual(-0.3, 0.5, 0.3), Usual(0.0, 0.2, 0.15)
"""Stops by which films were slower than their box, and ln by which they took longer than told."""
_BOX_KNOWN, _TIME_KNOWN = 0.08, 0.04
"""How well each of them is known of a tested film."""
_REACH, _HELD = 0.05, 0.9


@dataclass(frozen=True)
class CounterEstimate:
    """What makers' words and the tests so far tell of a film nobody tested.

    Attributes
    ----------
    index, time : Figure or None
        None where too few films were tested, or no maker's time is kept.
    index_films, time_films : int
    """

    index: Figure | None
    time: Figure | None
    index_films: int
    time_films: int

    @property
    def words(self) -> str:
        """In sentences; empty where nothing is told."""
        said = []
        if self.index is not None:
            low, high = (marked_ei(bound or 0.0) for bound in (self.index.low, self.index.high))
            said.append(
                f"By the box speeds of {counted(self.index_films, 'film')} and what was found "
                f"here, this one is about EI {marked_ei(self.index.known())}, {low} to {high}."
            )
        if self.time is not None:
            low_t, high_t = (minutes_text(b or 0.0) for b in (self.time.low, self.time.high))
            said.append(
                f"By the makers’ times of {counted(self.time_films, 'film')}, its time is about "
                f"{minutes_text(self.time.known())}, {low_t} to {high_t}."
            )
        return " ".join(said)


def counter_estimate(notebook: Notebook, test: Test) -> CounterEstimate:
    """The estimate for the film of a test, of which no test of its own was decided on."""
    nothing = CounterEstimate(None, None, 0, 0)
    stock = notebook.get(Stock, test.stock_id)
    if estimates_left_out() or stock is None:
        return nothing
    decided = (past for past in past_tests(notebook, test.id) if past.finding_id)
    here = one_a_film(past for past in decided if past.developer_id == test.developer_id)
    if any(past.stock_id == test.stock_id for past in here):
        return nothing
    offs = _box_offs(notebook, here)
    index = _figure(offs, _BOX, _BOX_KNOWN, log2(max(stock.box_speed, 1.0)), 2.0)
    table = dict(makers_told(notebook, test))
    times = _time_offs(notebook, here)
    told = table.get(0.0)
    time = _figure(times, _TIME, _TIME_KNOWN, log(told), exp(1.0)) if told else None
    return CounterEstimate(index, time, len(offs), len(times))


def untested_words(notebook: Notebook, test: Test) -> str:
    """All that other tests tell of a film nobody tested in this developer, for its plan."""
    told = counter_estimate(notebook, test).words
    return " ".join(words for words in (told, few_strips_words(notebook, test)) if words)


def _box_offs(notebook: Notebook, films: tuple[PastTest, ...]) -> Array:
    """Stops by which each film's EI lay over its box speed."""
    stocks = {s.id: s for s in notebook.all_of(Stock, "id", [past.stock_id for past in films])}
    return np.array(
        [
            log2(past.index / stocks[past.stock_id].box_speed)
            for past in films
            if past.index and past.stock_id in stocks and stocks[past.stock_id].box_speed > 0
        ]
    )


def _time_offs(notebook: Notebook, films: tuple[PastTest, ...]) -> Array:
    """ln of how much longer each film took than its maker says."""
    developers = {past.developer_id for past in films}
    lines = [m for d in developers for m in notebook.all(MakerTime, developer_id=d)]
    named = {line.stock_id for line in lines}
    told_of = [past for past in films if past.stock_id in named]
    tests = {t.id: t for t in notebook.all_of(Test, "id", [past.test_id for past in told_of])}
    made = []
    for past in told_of:
        told = dict(makers_told(notebook, tests[past.test_id])).get(0.0)
        if told:
            made.append(log(past.minutes / told))
    return np.array(made)


def _figure(offs: Array, usual: Usual, known: float, word: float, base: float) -> Figure | None:
    """The maker's word moved by what is learnt; None where past films do not bear it out."""
    if len(offs) < FEWEST or not _borne_out(offs, usual, known):
        return None
    told = learnt_offset(offs, np.full(len(offs), known), usual)
    low, high = told.range()
    return Figure(
        base ** (word + told.middle),
        base ** (word + low),
        base ** (word + high),
        basis=Basis.ESTIMATED,
    )


def _borne_out(offs: Array, usual: Usual, known: float) -> bool:
    """Whether nine in ten films lie within what the others would have told."""
    held = 0
    for n in range(len(offs)):
        others: LearntOffset = learnt_offset(
            np.delete(offs, n), np.full(len(offs) - 1, known), usual
        )
        held += surprise(others, float(offs[n]), known) >= _REACH
    return held >= _HELD * len(offs)

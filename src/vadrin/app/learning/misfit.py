"""A film whose contrast is not what its developer gives: said, with the check that would tell."""

from __future__ import annotations

from math import exp

import numpy as np

from vadrin.app.display.quantities import minutes_text
from vadrin.app.display.words import counted
from vadrin.app.document.state import State
from vadrin.app.learning.developer_learnt import ENOUGH_TRIED, FEWEST, learnt
from vadrin.app.learning.film_seen import contrast_seen
from vadrin.app.learning.left_out import estimates_left_out
from vadrin.app.learning.past_tests import PastTest, one_a_film, past_tests
from vadrin.core.learning.contrast_law import UNLIKE, ContrastSeen, contrast_at, rate_that_surprises
from vadrin.core.learning.offsets import Usual, learnt_offset, surprise
from vadrin.notebook.store import Notebook

_SAME_FILM, _OTHERS = Usual(-0.6, 1.0, 0.03), Usual(-0.6, 1.0, 0.15)
"""ln contrast of films at a time: by how much evenings of one film, and other films, differ."""
_LEAST = 0.05
"""A difference under which none is worth a word."""


def misfit_words(notebook: Notebook, state: State) -> str:
    """That a film does not fit what its developer does; empty where it does, or nobody knows."""
    if state.analysis is None or estimates_left_out():
        return ""
    mine = contrast_seen(state)
    if mine is None:
        return ""
    return _unlike(notebook, state, mine) or _off(notebook, state, mine)


def _unlike(notebook: Notebook, state: State, mine: ContrastSeen) -> str:
    """That its contrast comes with time as that of no other film in its developer does."""
    test = state.loaded.test
    if len(set(mine.minutes.tolist())) < 2:
        return ""
    told = learnt(notebook, test.developer_id, test.id)
    if told is None or told.law.films < ENOUGH_TRIED:
        return ""
    if rate_that_surprises(told.law, mine) >= UNLIKE:
        return ""
    return (
        f"Its contrast comes with time unlike that of {counted(told.law.films, 'film')} in this "
        "developer. Was the bath another dilution, colder or older than noted? A strip for the "
        "time found, developed on another evening, would tell."
    )


def _off(notebook: Notebook, state: State, mine: ContrastSeen) -> str:
    """That it has more or less contrast than the same film had, or than films have here."""
    test = state.loaded.test
    here = [p for p in past_tests(notebook, test.id) if p.developer_id == test.developer_id]
    same = [p for p in here if p.stock_id == test.stock_id]
    others, usual = (same, _SAME_FILM) if same else (list(one_a_film(here)), _OTHERS)
    if not same and len(others) < FEWEST:
        return ""
    middle = int(np.argsort(mine.minutes)[len(mine.minutes) // 2])
    minutes = float(mine.minutes[middle])
    at = [contrast_at(past.seen, minutes) for past in others]
    values, deviations = (np.array([pair[i] for pair in at]) for i in (0, 1))
    expected = learnt_offset(values, deviations, usual)
    read = float(np.log(mine.contrast[middle]))
    share = exp(read - expected.middle) - 1.0
    # The evening of this film is another one than theirs, as well.
    own = float(np.hypot(mine.deviation[middle], float(deviations.min())))
    if abs(share) < _LEAST or surprise(expected, read, own) >= UNLIKE:
        return ""
    return _off_words(share, minutes, others, bool(same))


def _off_words(share: float, minutes: float, others: list[PastTest], same: bool) -> str:
    under = share < 0
    whose = (
        f"than this film had by then in {counted(len(others), 'test')}"
        if same
        else f"than {counted(len(others), 'film')} in this developer had by then"
    )
    why = (
        "Is the developer older than noted, or weaker, or was it colder?"
        if under
        else "Was it warmer than noted, stronger, or agitated more?"
    )
    return (
        f"At {minutes_text(minutes)} its contrast is {abs(100 * share):.0f} % "
        f"{'less' if under else 'more'} {whose}. {why} A strip of a film you know, developed "
        "with the next one, would tell."
    )

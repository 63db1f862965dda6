"""What is loaded behind the first picture of the window, while the person looks around."""

from __future__ import annotations

from collections.abc import Callable

from vadrin.app.curves.preloading import (
    ANSWERS,
    CARDS,
    COLOURS,
    NUMERICS,
    STORAGE,
    preload,
    set_a_card_once,
    work_out_once,
)
from vadrin.app.document.stations import PLACES
from vadrin.app.document.workbench import Workbench
from vadrin.ui.jobs import Jobs
from vadrin.ui.stations import station_module

_FIRST, _LATER = "warm-up", "later"
_PLOTS = ("pyqtgraph",)
_COLUMN = ("vadrin.ui.finding_beside.finding_column", "vadrin.ui.frame.learning_ahead")


def _load_what_is_needed_first() -> None:
    """Load what the first answer and the first plot need, while the person looks around."""
    preload((*STORAGE, *_PLOTS, *NUMERICS))
    work_out_once()


def _load_what_comes_later() -> None:
    """Load every station, and what shows a test of any kind."""
    preload(
        (*_COLUMN, *(station_module(place.name) for place in PLACES), *ANSWERS, *CARDS, *COLOURS)
    )
    set_a_card_once()


def _learn_ahead(jobs: Jobs, bench: Workbench) -> None:
    """Work out what the past tests tell, before a finding asks for it."""
    # Loaded by now; at the top it would hold up the first window.
    from vadrin.ui.frame.learning_ahead import LearningAhead

    LearningAhead(jobs, bench)


def warming_up(jobs: Jobs) -> bool:
    """Whether what is loaded behind the window is still under way."""
    return jobs.busy(_FIRST) or jobs.busy(_LATER)


def warm_up(jobs: Jobs, bench: Workbench, loaded: Callable[[], None]) -> None:
    """Load the numerical packages in the background, then what the first test opened needs.

    Parameters
    ----------
    jobs : Jobs
    bench : Workbench
    loaded : callable
        Called when everything is loaded.
    """

    def later(_made: object) -> None:
        loaded()
        _learn_ahead(jobs, bench)

    def then(_made: object) -> None:
        # Behind the first answer, which waits for none of it.
        jobs.run(_LATER, lambda _said: _load_what_comes_later(), later)

    jobs.run(_FIRST, lambda _said: _load_what_is_needed_first(), then)

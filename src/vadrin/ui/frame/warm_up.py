"""What is loaded behind the first picture of the window, while the person looks around."""

from __future__ import annotations

from vadrin.app.curves.preloading import ANSWERS, COLOURS, NUMERICS, STORAGE, preload, work_out_once
from vadrin.ui.jobs import Jobs

_PLOTS = ("pyqtgraph",)
_FIRST_VIEW = ("vadrin.ui.stations.finding.finding_station",)


def _load_what_is_needed_first() -> None:
    """Load what the first answer and the first plot need, while the person looks around."""
    preload((*STORAGE, *_PLOTS, *NUMERICS))
    work_out_once()


def _load_what_comes_later() -> None:
    """Load what shows a test, of any kind."""
    preload((*_FIRST_VIEW, *ANSWERS, *COLOURS))


def warm_up(jobs: Jobs) -> None:
    """Load the numerical packages in the background, then what the first test opened needs."""

    def then(_made: object) -> None:
        # Behind the first answer, which waits for none of it.
        jobs.run("later", lambda _said: _load_what_comes_later(), lambda _made: None)

    jobs.run("warm-up", lambda _said: _load_what_is_needed_first(), then)

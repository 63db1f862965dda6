"""What is loaded behind the first picture of the window, while the person looks around."""

from __future__ import annotations

from vadrin.ui.jobs import Jobs


def _load_what_is_needed_first() -> None:
    """Load what the first answer and the first plot need, while the person looks around."""
    from vadrin.app.curves.preloading import load_numerics, load_storage

    load_storage()
    import pyqtgraph  # noqa: F401

    load_numerics()


def _load_what_comes_later() -> None:
    """Load what shows a test, of any kind."""
    import vadrin.ui.stations.finding.finding_station  # noqa: F401
    from vadrin.app.curves.preloading import load_answers, load_colours

    load_answers()
    load_colours()


def warm_up(jobs: Jobs) -> None:
    """Load the numerical packages in the background, then what the first test opened needs."""

    def then(_made: object) -> None:
        # Behind the first answer, which waits for none of it.
        jobs.run("later", lambda _said: _load_what_comes_later(), lambda _made: None)

    jobs.run("warm-up", lambda _said: _load_what_is_needed_first(), then)

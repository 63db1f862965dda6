"""Works tests out off the screen's thread, and hands the newest answer to the workbench."""

from __future__ import annotations

from typing import TYPE_CHECKING

from vadrin.app.results.known_answers import Question, answer_to, known_answer, question_of
from vadrin.app.workbench import Workbench
from vadrin.ui.jobs import Jobs

if TYPE_CHECKING:
    from vadrin.core.results.analysis import Analysis


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


class Analyst:
    """Answers the question a test poses; unchanged questions are not worked out twice.

    Parameters
    ----------
    bench : Workbench
    """

    def __init__(self, bench: Workbench) -> None:
        self._bench = bench
        self.jobs = Jobs()
        self._asked: Question | None = None

    def ask(self) -> None:
        """Work out the test on the bench, unless that is known already or under way."""
        sheet = self._bench.sheet
        if sheet is None:
            self._asked = None
            self.jobs.cancel("analysis")
            return
        question = question_of(sheet)
        known = known_answer(question)
        if known is not None:
            self.jobs.cancel("analysis")
            self._asked = question
            if self._bench.analysis is not known:
                self._bench.answer(known)
        elif question != self._asked or not self.jobs.busy("analysis"):
            self._asked = question
            self.jobs.run(
                "analysis",
                lambda said: answer_to(question, lambda: said(0, 0)),
                lambda made: self._take(question, made),
            )

    def warm_up(self) -> None:
        """Load the numerical packages in the background, then what the first test opened needs."""

        def then(_made: object) -> None:
            # Behind the first answer, which waits for none of it.
            self.jobs.run("later", lambda _said: _load_what_comes_later(), lambda _made: None)

        self.jobs.run("warm-up", lambda _said: _load_what_is_needed_first(), then)

    def _take(self, question: Question, answer: Analysis) -> None:
        if question == self._asked:
            self._bench.answer(answer)

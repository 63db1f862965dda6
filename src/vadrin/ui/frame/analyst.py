"""Works tests out off the screen's thread, and hands the newest answer to the workbench."""

from __future__ import annotations

from collections import OrderedDict
from typing import TYPE_CHECKING

from vadrin.app.workbench import Workbench
from vadrin.ui.jobs import Jobs

if TYPE_CHECKING:
    from vadrin.core.readings import StripReadings
    from vadrin.core.results.analysis import Analysis, Settings

    _Question = tuple[str, tuple[StripReadings, ...], Settings]

_KEPT = 32


def _load_what_is_needed_first() -> None:
    """Load what the first answer and the first plot need, while the person looks around."""
    from vadrin.app.curves.preloading import load_numerics, load_storage

    load_storage()
    import pyqtgraph  # noqa: F401

    load_numerics()


def _worked_out(question: _Question) -> Analysis:
    from vadrin.app.results.analysis_input import analyse_as

    return analyse_as(*question)


class Analyst:
    """Answers the question a test poses; unchanged questions are not worked out twice.

    Parameters
    ----------
    bench : Workbench
    """

    def __init__(self, bench: Workbench) -> None:
        self._bench = bench
        self.jobs = Jobs()
        self._asked: _Question | None = None
        self._known: OrderedDict[_Question, Analysis] = OrderedDict()

    def ask(self) -> None:
        """Work out the test on the bench, unless that is known already or under way."""
        sheet = self._bench.sheet
        if sheet is None:
            self._asked = None
            self.jobs.cancel("analysis")
            return
        from vadrin.app.results.analysis_input import readings_of, settings_of

        question = (sheet.test.kind, readings_of(sheet), settings_of(sheet))
        if question in self._known:
            self.jobs.cancel("analysis")
            self._asked = question
            if self._bench.analysis is not self._known[question]:
                self._bench.answer(self._known[question])
        elif question != self._asked or not self.jobs.busy("analysis"):
            self._asked = question
            self.jobs.run(
                "analysis", lambda _said: _worked_out(question),
                lambda made: self._take(question, made),
            )  # fmt: skip

    def warm_up(self) -> None:
        """Load the numerical packages in the background."""
        self.jobs.run("warm-up", lambda _said: _load_what_is_needed_first(), lambda _made: None)

    def _take(self, question: _Question, answer: Analysis) -> None:
        self._known[question] = answer
        while len(self._known) > _KEPT:
            self._known.popitem(last=False)
        if question == self._asked:
            self._bench.answer(answer)

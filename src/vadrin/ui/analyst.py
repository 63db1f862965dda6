"""Works tests out off the screen's thread, and hands the newest answer on."""

from __future__ import annotations

from collections import OrderedDict
from typing import TYPE_CHECKING

from PyQt6.QtCore import QObject, QRunnable, QThreadPool, pyqtSignal

from vadrin.app.test_sheet import TestSheet

if TYPE_CHECKING:
    from vadrin.core.readings import StripReadings
    from vadrin.core.results.analysis import Analysis, Settings

    _Question = tuple[tuple[StripReadings, ...], Settings]

_KEPT = 32


class _Job(QRunnable):
    def __init__(self, analyst: Analyst, question: _Question) -> None:
        super().__init__()
        self._analyst, self._question = analyst, question

    def run(self) -> None:
        from vadrin.core.results.analysis import analyse

        answer = analyse(*self._question)
        self._analyst.answered.emit(self._question, answer)


class _WarmUp(QRunnable):
    """Loads what the first answer and the first plot need, while the person looks around."""

    def run(self) -> None:
        import pyqtgraph  # noqa: F401

        import vadrin.core.results.analysis
        from vadrin.app.plan.expected_curves import expected_film
        from vadrin.core.fitting.student_t import t_quantile

        t_quantile(0.975, 30.0)
        expected_film(100.0, None)
        del vadrin


class Analyst(QObject):
    """Answers the question a test poses; unchanged questions are not worked out twice."""

    answered = pyqtSignal(object, object)
    ready = pyqtSignal(object)

    def __init__(self) -> None:
        super().__init__()
        self.analysis: Analysis | None = None
        self._pool = QThreadPool()
        self._pool.setMaxThreadCount(1)
        self._asked: _Question | None = None
        self._test_id = 0
        self._running = False
        self._known: OrderedDict[_Question, Analysis] = OrderedDict()
        self.answered.connect(self._take)

    def ask(self, sheet: TestSheet | None) -> None:
        """Work a test out, or clear the answer for None."""
        if sheet is None:
            self._asked, self.analysis = None, None
            self.ready.emit(None)
            return
        if sheet.test.id != self._test_id:
            self._test_id, self.analysis = sheet.test.id, None
        from vadrin.app.results.analysis_input import readings_of, settings_of

        question = (readings_of(sheet), settings_of(sheet))
        if question == self._asked and (self._running or self.analysis is not None):
            self.ready.emit(self.analysis)
            return
        self._asked = question
        if question in self._known:
            self.analysis = self._known[question]
            self.ready.emit(self.analysis)
        elif not self._running:
            self._start(question)

    def warm_up(self) -> None:
        """Load the numerical packages in the background."""
        self._pool.start(_WarmUp())

    @property
    def busy(self) -> bool:
        """Whether an answer is still being worked out."""
        return self._running

    def wait(self) -> None:
        """Finish the job in hand, for leaving."""
        self._pool.waitForDone()

    def _start(self, question: _Question) -> None:
        self._running = True
        self._pool.start(_Job(self, question))

    def _take(self, question: _Question, answer: Analysis) -> None:
        self._running = False
        self._known[question] = answer
        while len(self._known) > _KEPT:
            self._known.popitem(last=False)
        if self._asked is None:
            return
        if question == self._asked:
            self.analysis = answer
            self.ready.emit(answer)
        elif self._asked not in self._known:
            self._start(self._asked)

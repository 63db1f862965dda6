"""Works forecasts of plans out off the screen's thread; only the newest plan counts."""

from __future__ import annotations

from contextlib import suppress
from typing import TYPE_CHECKING

from PyQt6.QtCore import QObject, QRunnable, QThreadPool, pyqtSignal

if TYPE_CHECKING:
    from vadrin.app.expectation import FoundBefore
    from vadrin.app.forecast import Forecast, Question
    from vadrin.app.sheet import TestSheet


class _Job(QRunnable):
    def __init__(self, forecaster: Forecaster, question: Question, sheet: TestSheet) -> None:
        super().__init__()
        self._forecaster, self._question, self._sheet = forecaster, question, sheet

    def run(self) -> None:
        from vadrin.app.forecast import forecast

        made = forecast(self._question, self._sheet)
        # The station may have been closed while this was worked out.
        with suppress(RuntimeError):
            self._forecaster.answered.emit(self._question, made)


class _Smallest(QRunnable):
    def __init__(
        self, forecaster: Forecaster, sheet: TestSheet, found: FoundBefore | None, stops: float
    ) -> None:
        super().__init__()
        self._forecaster, self._sheet, self._found = forecaster, sheet, found
        self._stops = stops

    def run(self) -> None:
        from vadrin.app.forecast import smallest_plan

        words = smallest_plan(self._sheet, self._found, self._stops)
        with suppress(RuntimeError):
            self._forecaster.smallest.emit(words)


class Forecaster(QObject):
    """Answers what a plan is going to tell."""

    answered = pyqtSignal(object, object)
    ready = pyqtSignal(object)
    smallest = pyqtSignal(str)

    def __init__(self) -> None:
        super().__init__()
        self._pool = QThreadPool()
        self._pool.setMaxThreadCount(1)
        self._asked: Question | None = None
        self._waiting: TestSheet | None = None
        self._running = False
        self._known: dict[Question, Forecast] = {}
        self.answered.connect(self._take)

    @property
    def busy(self) -> bool:
        """Whether a forecast is being worked out."""
        return self._running

    def ask(self, sheet: TestSheet, found: FoundBefore | None) -> Forecast | None:
        """The forecast for a plan if it is known; else it is worked out and sent."""
        from vadrin.app.forecast import question_of_plan

        question = question_of_plan(sheet, found)
        if question in self._known:
            self._asked = None
            return self._known[question]
        if question != self._asked:
            self._asked, self._waiting = question, sheet
            if not self._running:
                self._start()
        return None

    def ask_smallest(self, sheet: TestSheet, found: FoundBefore | None, stops: float) -> None:
        """Find the smallest plan for a wanted sureness; its words are sent."""
        self._pool.start(_Smallest(self, sheet, found, stops))

    def wait(self) -> None:
        """Finish the work in hand."""
        self._pool.waitForDone()

    def _start(self) -> None:
        if self._asked is not None and self._waiting is not None:
            self._running = True
            self._pool.start(_Job(self, self._asked, self._waiting))

    def _take(self, question: Question, made: Forecast) -> None:
        self._running = False
        self._known[question] = made
        if question == self._asked:
            self.ready.emit(made)
        elif self._asked is not None:
            self._start()

"""Works likely films and smallest plans out off the screen's thread; forecasts are quick."""

from __future__ import annotations

from collections.abc import Callable
from typing import TYPE_CHECKING, Any

from PyQt6.QtCore import QObject, QRunnable, QThreadPool, pyqtBoundSignal, pyqtSignal

if TYPE_CHECKING:
    from vadrin.app.plan.expected_curves import Expected, FoundBefore
    from vadrin.app.plan.plan_forecast import ForecastInput, PlanForecast
    from vadrin.app.test_sheet import TestSheet

    _Film = tuple[float, FoundBefore | None]

_KEPT = 64


class _Post(QObject):
    """Carries an answer from the thread to the screen; a job keeps it alive, not a station.

    What it is connected to may be gone by then, and Qt has then let go of it.
    """

    arrived = pyqtSignal(object)


class _Job(QRunnable):
    def __init__(
        self, work: Callable[[], Any], tell: Callable[[Any], None] | pyqtBoundSignal
    ) -> None:
        super().__init__()
        self._work, self._post = work, _Post()
        self._post.arrived.connect(tell)

    def run(self) -> None:
        self._post.arrived.emit(self._work())


class Forecaster(QObject):
    """Answers what a plan is going to tell."""

    film_known = pyqtSignal(object)
    smallest = pyqtSignal(object)

    def __init__(self, parent: QObject) -> None:
        super().__init__(parent)
        self._pool = QThreadPool(self)
        self._pool.setMaxThreadCount(1)
        self._films: dict[_Film, Expected] = {}
        self._asked: _Film | None = None
        self._known: dict[ForecastInput, PlanForecast] = {}

    @property
    def busy(self) -> bool:
        """Whether a film's likely curves are being worked out."""
        return self._asked is not None

    def film(self, index: float, found: FoundBefore | None) -> Expected | None:
        """The film's likely curves if they are known; else they are worked out and sent."""
        from vadrin.app.plan.expected_curves import expected_film, quick

        key = (index, found)
        if key not in self._films and quick(found):
            self._films[key] = expected_film(index, found)
        if key in self._films:
            self._asked = None
            return self._films[key]
        if key != self._asked:
            self._asked = key
            self._pool.start(_Job(lambda: (key, expected_film(index, found)), self._take))
        return None

    def forecast(self, sheet: TestSheet, film: Expected) -> PlanForecast:
        """The forecast for a plan."""
        from vadrin.app.plan.plan_forecast import forecast_input, forecast_plan

        question = forecast_input(sheet, film)
        if question not in self._known:
            while len(self._known) >= _KEPT:
                self._known.pop(next(iter(self._known)))
            self._known[question] = forecast_plan(question)
        return self._known[question]

    def of_bracket(
        self, sheet: TestSheet, film: Expected, first: float, last: float
    ) -> PlanForecast:
        """The forecast for a plan with another bracket, as one is dragged."""
        from vadrin.app.plan.plan_forecast import forecast_input, forecast_plan, with_bracket

        return forecast_plan(with_bracket(forecast_input(sheet, film), sheet, first, last))

    def ask_smallest(self, sheet: TestSheet, film: Expected, stops: float) -> None:
        """Find the smallest plan for a wanted sureness; it is sent."""
        from vadrin.app.plan.smallest_plan import smallest_plan

        self._pool.start(_Job(lambda: (sheet, smallest_plan(sheet, film, stops)), self.smallest))

    def wait(self) -> None:
        """Finish the work in hand."""
        self._pool.waitForDone()

    def _take(self, made: tuple[_Film, Expected]) -> None:
        key, film = made
        self._films[key] = film
        if key == self._asked:
            self._asked = None
            self.film_known.emit(film)

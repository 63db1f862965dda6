"""Works likely films, forecasts and smallest plans out off the screen's thread."""

from __future__ import annotations

from functools import partial
from typing import TYPE_CHECKING

from PyQt6.QtCore import QObject, QTimer, pyqtSignal

from vadrin.app.plan.expected_curves import drawn_at_once, expected_film
from vadrin.app.plan.plan_forecast import forecast_input, forecast_plan, with_bracket
from vadrin.app.plan.smallest_plan import smallest_plan
from vadrin.ui.jobs import Jobs

if TYPE_CHECKING:
    from vadrin.app.loaded.loaded_test import LoadedTest
    from vadrin.app.plan.expected_curves import Expected, PriorFinding
    from vadrin.app.plan.plan_forecast import ForecastInput, PlanForecast

    _Film = tuple[float, PriorFinding | None]

_KEPT = 64
_FILM, _SMALLEST, _FORECAST = "likely film", "smallest plan", "forecast"
_AFTER_MS = 20


class Forecaster(QObject):
    """Answers what a plan is going to tell."""

    film_known = pyqtSignal(object)
    smallest = pyqtSignal(object)
    foretold = pyqtSignal(object)
    """The forecast that was asked for last."""

    def __init__(self, parent: QObject, jobs: Jobs) -> None:
        super().__init__(parent)
        self._jobs = jobs
        self._films: dict[_Film, Expected] = {}
        self._asked: _Film | None = None
        self._question: ForecastInput | None = None
        self._soon = QTimer(self)
        self._soon.setSingleShot(True)
        self._soon.timeout.connect(self._work_out)
        self._known: dict[ForecastInput, PlanForecast] = {}

    def film(self, index: float, found: PriorFinding | None) -> Expected | None:
        """The film's likely curves if they are known; else they are worked out and sent."""
        key = (index, found)
        if key not in self._films and drawn_at_once(found):
            self._films[key] = expected_film(index, found)
        if key in self._films:
            self._asked = None
            return self._films[key]
        if key != self._asked:
            self._asked = key
            self._jobs.run(
                _FILM, lambda _said: expected_film(index, found), partial(self._take, key)
            )
        return None

    def forecast(
        self, loaded: LoadedTest, film: Expected, bracket: tuple[float, float] | None = None
    ) -> PlanForecast | None:
        """The forecast for a plan if it is known; else it is soon worked out and sent.

        `bracket` is another than the plan's own, as one is dragged.
        """
        question = forecast_input(loaded, film)
        if bracket is not None:
            question = with_bracket(question, loaded, *bracket)
        self._question = question
        if question in self._known:
            self._soon.stop()
            return self._known[question]
        # After what the key has changed is painted: two threads would wait for each other.
        self._soon.start(_AFTER_MS)
        return None

    def ask_nothing(self) -> None:
        """No forecast is waited for any more."""
        self._question = None
        self._soon.stop()

    def _work_out(self) -> None:
        question = self._question
        if question is not None:
            self._jobs.run(
                _FORECAST, lambda _said: forecast_plan(question), partial(self._keep, question)
            )

    def _keep(self, question: ForecastInput, made: PlanForecast) -> None:
        while len(self._known) >= _KEPT:
            self._known.pop(next(iter(self._known)))
        self._known[question] = made
        if question == self._question:
            self.foretold.emit(made)

    def ask_smallest(self, loaded: LoadedTest, film: Expected, stops: float) -> None:
        """Find the smallest plan for a wanted sureness; it is sent."""
        self._jobs.run(
            _SMALLEST, lambda _said: (loaded, smallest_plan(loaded, film, stops)), self._found
        )

    def _found(self, made: object) -> None:
        self.smallest.emit(made)

    def _take(self, key: _Film, film: Expected) -> None:
        self._films[key] = film
        if key == self._asked:
            self._asked = None
            self.film_known.emit(film)

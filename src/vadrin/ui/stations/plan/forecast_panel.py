"""The outlook of a plan: its likely curves, and what it tells kept up with it."""

from __future__ import annotations

from collections.abc import Callable

from PyQt6 import sip
from PyQt6.QtCore import QTimer, pyqtSignal
from PyQt6.QtWidgets import QVBoxLayout, QWidget

from vadrin.app.display.quantities import minutes_text
from vadrin.app.display.words import list_text
from vadrin.app.document.state import State
from vadrin.app.loaded.loaded_test import LoadedTest
from vadrin.app.plan.drafting import has_bracket
from vadrin.app.plan.expected_curves import Expected, PriorFinding, basis_words, expected_strips
from vadrin.app.plan.likely_pictures import likely_pictures
from vadrin.app.plan.plan_forecast import PlanForecast, strips_alike
from vadrin.app.plan.smallest_plan import Smallest
from vadrin.app.plan.test_needs import needs_of
from vadrin.ui.jobs import Jobs
from vadrin.ui.stations.plan.forecast_column import ForecastColumn
from vadrin.ui.stations.plan.forecaster import Forecaster
from vadrin.ui.stations.plan.likely_row import LikelyRow
from vadrin.ui.stations.plan.plan_plot import PlanPlot
from vadrin.ui.stations.station import ViewState
from vadrin.ui.theme.look import DAY
from vadrin.ui.theme.roles import Role
from vadrin.ui.theme.typeface import px
from vadrin.ui.widgets.labels import text

_PAUSE_MS = 120
_FOLLOW_MS = 30


class ForecastPanel(QWidget):
    """Shows what to expect of a plan, and hands on what is chosen from it."""

    take = pyqtSignal(object)
    bracket = pyqtSignal(float, float)

    def __init__(self, jobs: Jobs) -> None:
        super().__init__()
        column = QVBoxLayout(self)
        column.setContentsMargins(0, 0, 0, 0)
        column.setSpacing(px(4))
        self.plot = PlanPlot()
        self.forecast_column = ForecastColumn()
        self.forecast_column.asked.connect(self._ask_smallest)
        self.forecast_column.taken.connect(self.take)
        self.plot.setMinimumHeight(px(200))
        column.addWidget(self.plot, 1)
        self.caption = text("", Role.CAPTION, wrap=True)
        column.addWidget(self.caption)
        self.likely = LikelyRow(jobs)
        column.addWidget(self.likely)
        self.forecaster = Forecaster(self, jobs)
        # Bound methods, which Qt lets go of together with this widget.
        self.forecaster.film_known.connect(self._film_is_known)
        # Each by itself: the column is lent, and may be gone before this panel.
        self.forecaster.foretold.connect(self.forecast_column.show_forecast)
        self.forecaster.foretold.connect(self._show_likely)
        self.forecaster.smallest.connect(self._smallest_found)
        self.plot.dragged.connect(self._follow)
        self.plot.dropped.connect(self.bracket)
        self.plot.let_go.connect(self._stay)
        self._scene: ViewState | None = None
        self._found: PriorFinding | None = None
        self.film: Expected | None = None
        self._dragged: tuple[float, float] = (0.0, 0.0)
        self._soon = self._timer(self.draw_now)
        self._words_soon = self._timer(self._follow_in_words)

    def _timer(self, act: Callable[[], None]) -> QTimer:
        timer = QTimer(self)
        timer.setSingleShot(True)
        timer.timeout.connect(act)
        return timer

    def show_plan(self, scene: ViewState, found: PriorFinding | None, stepped: bool) -> None:
        """Say at once what to expect; draw at once too, unless a word is being stepped."""
        if scene.loaded is not self._loaded:
            self.forecast_column.forget_smallest()
        self._scene, self._found = scene, found
        self.film = None
        if scene.loaded is not None:
            self.film = self.forecaster.film(scene.loaded.test.exposure_index, found)
        self._say()
        if stepped:
            self._soon.start(_PAUSE_MS)
        else:
            self.draw_now()

    def _film_is_known(self, _film: Expected) -> None:
        """Say and draw what has become known of the film, unless the column is gone already."""
        if self._scene is not None and not sip.isdeleted(self.forecast_column):
            self.show_plan(self._scene, self._found, stepped=False)

    @property
    def _loaded(self) -> LoadedTest | None:
        return self._scene.loaded if self._scene else None

    def _say(self) -> None:
        loaded = self._loaded
        if loaded is None or loaded.read():
            self.forecaster.ask_nothing()
            self.likely.show_pictures((), DAY)
            return
        self.forecast_column.show_least(strips_alike(loaded.test.kind) and self.film is not None)
        self._foretell(loaded, None)

    def _foretell(self, loaded: LoadedTest, bracket: tuple[float, float] | None) -> None:
        """Say what to expect; until it is known, that it is not."""
        if self.film is None:
            self.forecaster.ask_nothing()
            self.forecast_column.show_forecast(None)
            self.likely.show_pictures((), DAY)
            return
        known = self.forecaster.forecast(loaded, self.film, bracket)
        if known is None:
            self.forecast_column.wait()
        else:
            self.forecast_column.show_forecast(known)
            self._show_likely(known)

    def _show_likely(self, told: PlanForecast) -> None:
        """Show what a plan is likely to lead to."""
        scene, loaded, film = self._scene, self._loaded, self.film
        if scene is None or loaded is None or film is None or told.forecast is None:
            self.likely.show_pictures((), DAY)
            return
        self.likely.show_pictures(likely_pictures(loaded, film, told.forecast), scene.look)

    def draw_now(self) -> None:
        """Draw the plan as it is."""
        scene, loaded = self._scene, self._loaded
        if scene is None or loaded is None:
            return
        self.plot.show_look(scene.look)
        self.plot.draggable = False
        if loaded.read():
            self.plot.draw(scene.state or State(loaded), scene.frame_id)
            likely = "Curves as measured."
        elif self.film is None:
            self.plot.draw(State(loaded), scene.frame_id)
            likely = "The likely curves are being worked out."
        else:
            self.plot.draggable = loaded.exposed() == 0 and has_bracket(loaded.test)
            self.plot.show_plan(loaded, expected_strips(loaded, self.film))
            likely = self._likely_words(loaded, self.film)
        self.caption.setText(f"In all {needs_of(loaded).words}. {likely}")

    def _likely_words(self, loaded: LoadedTest, film: Expected) -> str:
        words = f"Expected densities for {basis_words(loaded, film)}."
        beyond = [s.minutes for s in loaded.strips if s.minutes and film.beyond(s.minutes)]
        if beyond:
            times = list_text([minutes_text(t) for t in sorted(set(beyond))])
            words += f" Its curves for {times} are drawn beyond the times measured."
        if self.plot.draggable:
            words += " Drag a frame to move the bracket."
        return words

    def _smallest_found(self, made: tuple[LoadedTest, Smallest]) -> None:
        """Show it, unless the plan it was looked for has changed meanwhile."""
        if made[0] is self._loaded:
            self.forecast_column.show_smallest(made[1])

    def _follow(self, first: float, last: float) -> None:
        self._dragged = first, last
        self._words_soon.start(_FOLLOW_MS)

    def _stay(self) -> None:
        """The bracket was not moved after all."""
        self._words_soon.stop()
        self._say()

    def _follow_in_words(self) -> None:
        """What the bracket under the hand would tell."""
        if self._loaded is not None:
            self._foretell(self._loaded, self._dragged)

    def _ask_smallest(self, stops: float) -> None:
        if self._loaded is not None and self.film is not None:
            self.forecast_column.working()
            self.forecaster.ask_smallest(self._loaded, self.film, stops)

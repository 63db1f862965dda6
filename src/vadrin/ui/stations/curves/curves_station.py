"""Curves: every strip's curve in one picture, and its figures one key away."""

from __future__ import annotations

from PyQt6.QtCore import Qt
from PyQt6.QtWidgets import QGridLayout, QHBoxLayout, QStackedWidget, QWidget

from vadrin.app.workbench import Workbench
from vadrin.core.exposure.arithmetic import marked_ei
from vadrin.core.figure import Figure
from vadrin.core.results.analysis import Analysis
from vadrin.ui.plots.curve_plot import CurvePlot
from vadrin.ui.stations.station import Scene, Station
from vadrin.ui.theme.typeface import px
from vadrin.ui.widgets.parts import button, text

_FIGURES = (
    ("Zone I EI", "zone_ei", 0),
    ("speed 0.8/H", "speed", 0),
    ("average gradient", "average_gradient", 3),
    ("contrast index", "contrast_index", 3),
    ("gamma", "gamma", 3),
    ("Zone VIII density", "zone8_density", 2),
    ("ΔD", "delta_d", 2),
    ("lg H at speed point", "log_h_m", 2),
    ("base plus fog", "base_fog", 3),
)
_NUMBERS = ("No", "One", "Two", "Three", "Four", "Five", "Six", "Seven", "Eight", "Nine")


def _shown(figure: Figure, places: int) -> tuple[str, str]:
    """A figure's value and range as text."""
    if figure.value is None:
        return "—", figure.why
    value = str(marked_ei(figure.value)) if places == 0 else f"{figure.value:.{places}f}"
    if figure.low is None or figure.high is None:
        return value, ""
    if places == 0:
        return value, f"{marked_ei(figure.low)} to {marked_ei(figure.high)}"
    return value, f"{figure.low:.{places}f} to {figure.high:.{places}f}"


class CurvesStation(Station):
    """The family of curves, or the table of figures."""

    keys = (
        ("G", "figures, and back to the curves"),
        ("← → ↑ ↓", "walk along the film"),
        ("click", "a reading selects its frame everywhere"),
    )

    def __init__(self, bench: Workbench) -> None:
        super().__init__(bench)
        self.setFocusPolicy(Qt.FocusPolicy.StrongFocus)
        self.setAccessibleName("curves")
        head = QHBoxLayout()
        self._title = text("", 17, 700)
        head.addWidget(self._title)
        head.addStretch(1)
        self._toggle = button("Figures", self._switch, link=True)
        self.bind("G", self._switch)
        head.addWidget(self._toggle)
        self.column.addLayout(head)
        self._pages = QStackedWidget()
        self._plot = CurvePlot()
        self._plot.picked.connect(self.bench.select)
        self._plot.setFocusPolicy(Qt.FocusPolicy.NoFocus)
        self._pages.addWidget(self._plot)
        self._figures = QWidget()
        self._pages.addWidget(self._figures)
        self.column.addWidget(self._pages, 1)

    def show_scene(self, scene: Scene) -> None:
        """Draw the curves and fill the table."""
        if scene.sheet is None:
            return
        count = len(scene.analysis.strips) if scene.analysis else 0
        name = _NUMBERS[count] if count < len(_NUMBERS) else str(count)
        words = f"{name} strip{'s' if count != 1 else ''}, one curve each"
        self._title.setText(words if count else "No curve yet: read the frames of a strip first")
        self._plot.show_look(scene.look)
        self._plot.draw(scene.sheet, scene.analysis, scene.frame_id)
        if self._pages.currentIndex() == 1:
            self._fill(scene.analysis)
        self._scene = scene

    def _switch(self) -> None:
        page = 1 - self._pages.currentIndex()
        self._toggle.setText("Curves" if page else "Figures")
        if page:
            self._fill(self._scene.analysis)
        self._pages.setCurrentIndex(page)

    def _fill(self, analysis: Analysis | None) -> None:
        fresh = QWidget()
        grid = QGridLayout(fresh)
        grid.setContentsMargins(0, px(8), 0, 0)
        grid.setHorizontalSpacing(px(18))
        grid.setVerticalSpacing(px(4))
        for column, strip in enumerate(analysis.strips if analysis else (), start=1):
            time = f", {strip.time_min:g} min" if strip.time_min else ""
            grid.addWidget(text(f"{strip.label}{time}", 13, 700), 0, column)
            for row, (_, key, places) in enumerate(_FIGURES):
                value, spread = _shown(getattr(strip, key), places)
                grid.addWidget(text(value, 15, 500), 1 + 2 * row, column)
                grid.addWidget(text(spread, 12, tone="soft", wrap=True), 2 + 2 * row, column)
        for row, (name, _, _) in enumerate(_FIGURES):
            grid.addWidget(text(name, 13, tone="soft"), 1 + 2 * row, 0)
        grid.setRowStretch(2 * len(_FIGURES) + 2, 1)
        self._pages.removeWidget(self._figures)
        self._figures.deleteLater()
        self._figures = fresh
        self._pages.addWidget(fresh)
        self._pages.setCurrentIndex(1)

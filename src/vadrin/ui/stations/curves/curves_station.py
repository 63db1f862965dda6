"""Curves: every strip's curve in one picture, and its figures one key away."""

from __future__ import annotations

from typing import TYPE_CHECKING

from PyQt6.QtCore import Qt
from PyQt6.QtWidgets import QGridLayout, QHBoxLayout, QStackedWidget, QWidget

from vadrin.app.results.metric_rows import SHOWN_FIGURES, strip_cell, strip_heading
from vadrin.ui.actions import Action, hint
from vadrin.ui.plots.curve_plot import CurvePlot
from vadrin.ui.stations.curves.time_row import TimeRow
from vadrin.ui.stations.station import Station, StationContext, ViewState
from vadrin.ui.theme.roles import Role
from vadrin.ui.theme.typeface import px
from vadrin.ui.widgets.buttons import button
from vadrin.ui.widgets.labels import text

if TYPE_CHECKING:
    from vadrin.core.results.analysis_result import Analysis

_NUMBERS = ("No", "One", "Two", "Three", "Four", "Five", "Six", "Seven", "Eight", "Nine")


class CurvesStation(Station):
    """The family of curves, or the table of figures."""

    def __init__(self, given: StationContext) -> None:
        super().__init__(given)
        self.setFocusPolicy(Qt.FocusPolicy.StrongFocus)
        self.setAccessibleName("curves")
        head = QHBoxLayout()
        self._title = text("", Role.HEADING)
        head.addWidget(self._title)
        head.addStretch(1)
        self._toggle = button("Figures", self._switch, link=True)
        self.offer(
            Action("curves.figures", "figures, and back to the curves", self._switch, ("G",)),
            hint("← → ↑ ↓", "walk along the film"),
            Action("curves.time", "drag the development time along: ← →", self._to_time, ("T",)),
            hint("click", "a reading selects its frame everywhere"),
        )
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
        self.at_time = TimeRow(self.bench, self.given.jobs)
        self.column.addWidget(self.at_time)

    def show_state(self, scene: ViewState) -> None:
        """Draw the curves and fill the table."""
        if scene.state is None:
            return
        count = len(scene.analysis.strips) if scene.analysis else 0
        name = _NUMBERS[count] if count < len(_NUMBERS) else str(count)
        words = f"{name} strips, one curve each" if count > 1 else "One strip and its curve"
        if scene.analysis is None and scene.state.loaded.read():
            words = "The curves are being worked out …"
        elif not count:
            words = "No curve yet: read the frames of a strip first"
        self._title.setText(words)
        self._plot.show_look(scene.look)
        self._plot.draw(scene.state, scene.frame_id)
        self.at_time.show_state(scene)
        if self._pages.currentIndex() == 1:
            self._fill(scene.analysis)
        self._scene = scene

    def _to_time(self) -> None:
        if self.at_time.isVisible():
            self.at_time.scale.setFocus()

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
            grid.addWidget(text(strip_heading(strip), Role.LABEL), 0, column)
            for row, shown in enumerate(SHOWN_FIGURES):
                cell = strip_cell(strip, shown)
                grid.addWidget(text(cell.shown, Role.LEAD_STRONG), 1 + 2 * row, column)
                below = text(cell.spread or cell.why, Role.CAPTION, wrap=True)
                grid.addWidget(below, 2 + 2 * row, column)
        for row, shown in enumerate(SHOWN_FIGURES):
            grid.addWidget(text(shown.name, Role.NOTE), 1 + 2 * row, 0)
        grid.setRowStretch(2 * len(SHOWN_FIGURES) + 2, 1)
        self._pages.removeWidget(self._figures)
        self._figures.deleteLater()
        self._figures = fresh
        self._pages.addWidget(fresh)
        self._pages.setCurrentIndex(1)

"""Control strips on the Process station: type the newest, see the chart, mind what is out."""

from __future__ import annotations

from collections.abc import Callable
from functools import partial

from PyQt6.QtWidgets import QGridLayout, QVBoxLayout, QWidget

from vadrin.app.document.workbench import Workbench
from vadrin.app.loaded.loaded_test import LoadedTest
from vadrin.app.process.control_strips import (
    chart_lanes,
    chart_words,
    control_rows,
    forget_control_strip,
    turn_reference,
    type_control_strip,
)
from vadrin.ui.plots.control_chart import ControlChart
from vadrin.ui.stations.station import ViewState
from vadrin.ui.theme.roles import Role
from vadrin.ui.theme.typeface import px
from vadrin.ui.widgets.buttons import button
from vadrin.ui.widgets.fields import WordField
from vadrin.ui.widgets.grids import empty_grid
from vadrin.ui.widgets.labels import rule, text
from vadrin.ui.widgets.sentence import sentence

_HEADS = ("Run", "Low over fog", "Contrast", "Fog", "")
_MOST_ROWS = 4


class ControlPage(QWidget):
    """A line to type a strip in, its chart, and the newest strips in words.

    Parameters
    ----------
    bench : Workbench
    refuse : callable
        Says why something typed was not taken.
    """

    def __init__(self, bench: Workbench, refuse: Callable[[str], None]) -> None:
        super().__init__()
        self.bench = bench
        self._loaded: LoadedTest | None = None
        self.line = WordField("control strip", self._keep, role=Role.LEAD)
        self.line.refused.connect(refuse)
        self.chart = ControlChart()
        self._words = text("", Role.NOTE, wrap=True)
        self._grid = QGridLayout()
        self._grid.setHorizontalSpacing(px(22))
        self._grid.setVerticalSpacing(px(4))
        self._grid.setColumnStretch(4, 1)
        column = QVBoxLayout(self)
        column.setContentsMargins(0, 0, 0, 0)
        column.setSpacing(px(8))
        column.addWidget(
            sentence(
                "The strip of this run reads",
                self.line,
                "(base plus fog, thin patch, dense patch).",
                role=Role.LEAD,
            )
        )
        column.addWidget(self._words)
        column.addWidget(self.chart, 1)
        column.addWidget(rule())
        column.addLayout(self._grid)

    def show_state(self, scene: ViewState) -> None:
        """Show the control strips of a test's process."""
        loaded, look = scene.loaded, scene.look
        if loaded is None:
            return
        self._loaded = loaded
        self.line.show_value("—")
        self.chart.show_lanes(chart_lanes(loaded), look)
        self._words.setText(chart_words(loaded))
        empty_grid(self._grid)
        rows = control_rows(loaded)[:_MOST_ROWS]
        for column, words in enumerate(_HEADS if rows else ()):
            self._grid.addWidget(text(words, Role.CAPTION), 0, column)
        for place, row in enumerate(rows, start=1):
            self._grid.addWidget(text(row.name), place, 0)
            for column, words in enumerate(row.figures, start=1):
                self._grid.addWidget(text(words), place, column)
            tone = "trouble" if row.out else None
            self._grid.addWidget(text(row.standing, Role.BODY, wrap=True, tone=tone), place, 4)
            if row.strip_id:
                acts = (
                    ("Reference", turn_reference),
                    ("Remove control strip", forget_control_strip),
                )
                for column, (words, act) in enumerate(acts, start=5):
                    done = partial(self._do, act, row.strip_id)
                    self._grid.addWidget(button(words, done, link=True), place, column)

    def _do(self, act: Callable[..., None], strip_id: int) -> None:
        self.bench.edit(lambda book: act(book, strip_id))

    def _keep(self, words: str) -> None:
        loaded = self._loaded
        if loaded is not None:
            self.bench.edit_or_raise(lambda book: type_control_strip(book, loaded, words))

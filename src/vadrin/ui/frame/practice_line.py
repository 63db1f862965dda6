"""The line over a practice film: that it is one, and in the first hour what comes next and why."""

from __future__ import annotations

from PyQt6.QtCore import QRect, Qt
from PyQt6.QtGui import QBrush, QColor, QPainter, QPaintEvent
from PyQt6.QtWidgets import QHBoxLayout, QWidget

from vadrin.app.document.workbench import Workbench
from vadrin.app.practice.first_hour import hour_step
from vadrin.app.practice.practice_place import is_opened, is_practice
from vadrin.app.practice.practice_words import outside_of
from vadrin.ui.kept import OfProgram
from vadrin.ui.theme.look import DAY, Look
from vadrin.ui.theme.roles import Role
from vadrin.ui.theme.typeface import px, role_font
from vadrin.ui.widgets.buttons import button
from vadrin.ui.widgets.labels import text

_EDGE = 12


class PracticeLine(QWidget):
    """Stands over every station of a practice film, with a hatched edge of its own.

    Parameters
    ----------
    bench : Workbench
    """

    _left: OfProgram[set[str]] = OfProgram(set)

    def __init__(self, bench: Workbench) -> None:
        super().__init__()
        self.bench = bench
        self._look: Look = DAY
        self._words = text("", Role.NOTE, wrap=True)
        self._leave = button("Leave the first hour", self._leave_it, link=True)
        row = self._row = QHBoxLayout(self)
        row.setContentsMargins(px(_EDGE + 8), px(5), px(14), px(5))
        row.addWidget(self._words, 1)
        row.addWidget(self._leave)
        self.hide()

    def rescale(self) -> None:
        """Take the present size of the type."""
        self._words.setFont(role_font(Role.NOTE))
        self._leave.setFont(role_font(Role.BODY))
        self._row.setContentsMargins(px(_EDGE + 8), px(5), px(14), px(5))

    def show_practice(self, look: Look) -> None:
        """Say where one is; nothing where the notebook is one's own."""
        self._look = look
        path = self.bench.notebook.path
        practising = is_practice(path)
        self.setVisible(practising)
        if not practising:
            return
        level, digest = outside_of(path)
        opened, guided = is_opened(path), level == "first hour" and str(path) not in self._left
        self._leave.setVisible(guided)
        if guided:
            self._words.setText(hour_step(self.bench.loaded, self.bench.station, opened).words)
        else:
            state = "its envelope is open" if opened else f"its truth is sealed under {digest}"
            self._words.setText(f"A practice film: {state}.")
        self.update()

    def _leave_it(self) -> None:
        self._left = {*self._left, str(self.bench.notebook.path)}
        self.show_practice(self._look)

    def paintEvent(self, _event: QPaintEvent | None) -> None:
        """Hatch the edge: told by shape in every display mode."""
        painter = QPainter(self)
        edge = QRect(0, 0, px(_EDGE), self.height())
        painter.fillRect(edge, QBrush(QColor(self._look.ink), Qt.BrushStyle.BDiagPattern))
        painter.fillRect(QRect(0, self.height() - 1, self.width(), 1), QColor(self._look.rule))

"""The rail: the steps of the work in their order, each with its true state in words."""

from __future__ import annotations

from PyQt6.QtCore import QRectF, Qt, pyqtSignal
from PyQt6.QtGui import QColor, QKeyEvent, QMouseEvent, QPainter, QPaintEvent
from PyQt6.QtWidgets import QPushButton, QVBoxLayout, QWidget

from vadrin.app.progress import StepState
from vadrin.app.workbench import STATIONS
from vadrin.ui.theme.look import DAY, Look
from vadrin.ui.theme.typeface import font, px
from vadrin.ui.widgets.buttons import button

STATION_NAMES = {
    "plan": "Plan",
    "expose": "Expose",
    "process": "Process",
    "read": "Read",
    "curves": "Curves",
    "finding": "Finding",
    "cards": "Cards",
}


class _Step(QWidget):
    """One step: name, state, and a bar that tells done, here, or waiting."""

    chosen = pyqtSignal(str)

    def __init__(self, station: str) -> None:
        super().__init__()
        self._station, self._look = station, DAY
        self._state = StepState("—", False)
        self._here = False
        self.setFocusPolicy(Qt.FocusPolicy.TabFocus)
        self.setMinimumHeight(px(20))
        self.setMaximumHeight(px(54))
        self.setCursor(Qt.CursorShape.PointingHandCursor)

    def show_state(self, state: StepState, here: bool, look: Look) -> None:
        self._state, self._here, self._look = state, here, look
        self.setAccessibleName(f"{STATION_NAMES[self._station]}: {state.words}")
        self.setMaximumHeight(px(54))
        self.update()

    def paintEvent(self, _event: QPaintEvent | None) -> None:
        painter = QPainter(self)
        look = self._look
        if self._here:
            painter.fillRect(self.rect(), QColor(look.sheet))
        bar = look.grease if self._here else look.done if self._state.done else look.rule
        painter.fillRect(QRectF(px(14), 0, px(4), self.height()), QColor(bar))
        if self.hasFocus():
            painter.setPen(QColor(look.soft))
            painter.drawRect(self.rect().adjusted(px(20), 2, -2, -3))
        begun = self._here or self._state.done
        painter.setPen(QColor(look.ink if begun else look.soft))
        painter.setFont(font(15, 700 if self._here else 400))
        roomy = self.height() >= px(46)
        painter.drawText(px(28), px(23) if roomy else px(17), STATION_NAMES[self._station])
        if not roomy:
            return
        painter.setPen(QColor(look.soft))
        painter.setFont(font(12))
        room = self.width() - px(30)
        metrics = painter.fontMetrics()
        words = metrics.elidedText(self._state.words, Qt.TextElideMode.ElideRight, room)
        painter.drawText(px(28), px(42), words)

    def mousePressEvent(self, _event: QMouseEvent | None) -> None:
        self.chosen.emit(self._station)

    def keyPressEvent(self, event: QKeyEvent | None) -> None:
        keys = (Qt.Key.Key_Return, Qt.Key.Key_Enter, Qt.Key.Key_Space)
        if event and event.key() in keys:
            self.chosen.emit(self._station)
        else:
            super().keyPressEvent(event)


class Rail(QWidget):
    """All steps, and below them the shelf and the cupboard."""

    chosen = pyqtSignal(str)

    def __init__(self) -> None:
        super().__init__()
        self._look = DAY
        column = QVBoxLayout(self)
        column.setContentsMargins(0, px(14), 0, px(14))
        column.setSpacing(0)
        self._steps = {name: _Step(name) for name in STATIONS}
        for step in self._steps.values():
            step.chosen.connect(self.chosen)
            column.addWidget(step, 100)
        column.addStretch(1)
        self._places = {name: self._place(name) for name in ("shelf", "cupboard")}
        for place in self._places.values():
            column.addWidget(place)
        self.setFixedWidth(px(150))

    def _place(self, name: str) -> QPushButton:
        made = button(name.capitalize(), lambda: self.chosen.emit(name), link=True)
        made.setFont(font(15))
        made.setCheckable(True)
        made.setStyleSheet(f"margin-left: {px(14)}px;")
        return made

    def show_steps(self, steps: dict[str, StepState], here: str, look: Look) -> None:
        """Show the state of every step and where the person is."""
        self.setFixedWidth(px(150))
        for name, step in self._steps.items():
            step.show_state(steps.get(name, StepState("—", False)), name == here, look)
            step.setVisible(bool(steps))
        for name, place in self._places.items():
            place.setFont(font(15))
            place.setChecked(here == name)

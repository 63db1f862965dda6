"""The rail: the steps of the work in their order, each with its true state in words."""

from __future__ import annotations

from PyQt6.QtCore import QRectF, QSize, Qt, pyqtSignal
from PyQt6.QtGui import QColor, QFontMetrics, QPainter, QPaintEvent
from PyQt6.QtWidgets import QBoxLayout, QWidget

from vadrin.app.document.stations import STATIONS, station_place
from vadrin.app.overview.progress import StepState
from vadrin.ui.theme.look import DAY, Look
from vadrin.ui.theme.regional import write
from vadrin.ui.theme.roles import Role
from vadrin.ui.theme.typeface import px, role_font
from vadrin.ui.widgets.buttons import PlaceButton
from vadrin.ui.widgets.tips import set_tip

_WIDTH, _FLAT, _NO_LIMIT = 150, 34, 16_777_215


class _Step(PlaceButton):
    """One step: name, state, and a bar that tells done, here, or waiting."""

    chosen = pyqtSignal(str)

    def __init__(self, station: str) -> None:
        super().__init__()
        self.clicked.connect(lambda: self.chosen.emit(self._station))
        self._station, self._look = station, DAY
        self._state = StepState("—", False)
        self._here = False
        self._flat = False
        self.setFocusPolicy(Qt.FocusPolicy.TabFocus)
        self.lay_flat(False)
        self.setCursor(Qt.CursorShape.PointingHandCursor)

    def show_state(self, state: StepState, here: bool, look: Look) -> None:
        self._state, self._here, self._look = state, here, look
        self.show_here(here)
        self.setAccessibleName(f"{station_place(self._station).title}: {state.words}")
        self.lay_flat(self._flat)
        self.update()

    def lay_flat(self, flat: bool) -> None:
        """Show the name alone, for a rail of one line, or the state under it."""
        self._flat = flat
        set_tip(self, self._state.words if flat else "")
        metrics = QFontMetrics(role_font(Role.LABEL))
        wide = metrics.horizontalAdvance(station_place(self._station).title) + px(12)
        self.setMinimumSize(min(wide, px(40)) if flat else 0, px(_FLAT if flat else 20))
        self.setMaximumSize(wide if flat else _NO_LIMIT, px(_FLAT if flat else 54))

    def sizeHint(self) -> QSize:
        """As wide as its name in a flat rail."""
        return QSize(self.maximumWidth() if self._flat else px(_WIDTH), px(_FLAT))

    def paintEvent(self, _event: QPaintEvent | None) -> None:
        painter = QPainter(self)
        if self._flat:
            self._paint_flat(painter)
            return
        look = self._look
        if self._here:
            painter.fillRect(self.rect(), QColor(look.sheet))
        bar = look.here if self._here else look.done if self._state.done else look.rule
        painter.fillRect(QRectF(px(14), 0, px(4), self.height()), QColor(bar))
        if self.hasFocus():
            painter.setPen(QColor(look.soft))
            painter.drawRect(self.rect().adjusted(px(20), 2, -2, -3))
        begun = self._here or self._state.done
        painter.setPen(QColor(look.ink if begun else look.soft))
        painter.setFont(role_font(Role.LEAD, bold=self._here))
        roomy = self.height() >= px(46)
        write(painter, px(28), px(23) if roomy else px(17), station_place(self._station).title)
        if not roomy:
            return
        painter.setPen(QColor(look.soft))
        painter.setFont(role_font(Role.CAPTION))
        room = self.width() - px(30)
        metrics = painter.fontMetrics()
        words = metrics.elidedText(self._state.words, Qt.TextElideMode.ElideRight, room)
        write(painter, px(28), px(42), words)

    def _paint_flat(self, painter: QPainter) -> None:
        look, foot = self._look, px(3)
        if self._here:
            painter.fillRect(self.rect(), QColor(look.sheet))
        bar = look.here if self._here else look.done if self._state.done else look.rule
        painter.fillRect(0, self.height() - foot, self.width(), foot, QColor(bar))
        if self.hasFocus():
            painter.setPen(QColor(look.soft))
            painter.drawRect(self.rect().adjusted(1, 1, -2, -foot - 2))
        painter.setPen(QColor(look.ink if self._here or self._state.done else look.soft))
        painter.setFont(role_font(Role.LABEL if self._here else Role.BODY))
        box = self.rect().adjusted(0, 0, 0, -foot)
        name = station_place(self._station).title
        shown = painter.fontMetrics().elidedText(name, Qt.TextElideMode.ElideRight, box.width())
        write(painter, box, Qt.AlignmentFlag.AlignCenter, shown)


class Rail(QWidget):
    """The steps of a test, in the order of the work."""

    chosen = pyqtSignal(str)

    def __init__(self) -> None:
        super().__init__()
        self._look = DAY
        self._line = QBoxLayout(QBoxLayout.Direction.TopToBottom, self)
        self._line.setSpacing(0)
        self._steps = {name: _Step(name) for name in STATIONS}
        for step in self._steps.values():
            step.chosen.connect(self.chosen)
            self._line.addWidget(step, 100)
        self._line.addStretch(1)
        self.flat, self._empty = False, False
        self.lay_flat(False)

    def lay_flat(self, flat: bool) -> None:
        """One line over the station where there is no room beside it."""
        self.flat = flat
        way = QBoxLayout.Direction
        self._line.setDirection(way.LeftToRight if flat else way.TopToBottom)
        edge = px(14)
        self._line.setContentsMargins(
            edge if flat else 0, 0 if flat else edge, edge if flat else 0, 0 if flat else edge
        )
        self._line.setSpacing(px(6) if flat else 0)
        self.setMinimumSize(0 if flat else px(_WIDTH), px(_FLAT) if flat else 0)
        self.setMaximumSize(_NO_LIMIT if flat else px(_WIDTH), px(_FLAT) if flat else _NO_LIMIT)
        for step in self._steps.values():
            step.lay_flat(flat)
        self.setHidden(flat and self._empty)

    def show_steps(self, steps: dict[str, StepState], here: str, look: Look) -> None:
        """Show the state of every step and where the person is."""
        for name, step in self._steps.items():
            step.show_state(steps.get(name, StepState("—", False)), name == here, look)
            step.setVisible(bool(steps))
        # Beside a station it holds the margin; over one it would be an empty band.
        self._empty = not steps
        self.setHidden(self.flat and self._empty)

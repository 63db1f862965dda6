"""A scale of development times with a marker that is dragged along it."""

from __future__ import annotations

from math import exp, log

from PyQt6.QtCore import QPointF, QRectF, QSize, Qt, pyqtSignal
from PyQt6.QtGui import (
    QColor,
    QFontMetrics,
    QKeyEvent,
    QMouseEvent,
    QPainter,
    QPaintEvent,
    QPen,
    QPolygonF,
    QWheelEvent,
)
from PyQt6.QtWidgets import QAbstractSlider, QSizePolicy

from vadrin.app.display.quantities import minutes_text
from vadrin.ui.theme.look import DAY, Look
from vadrin.ui.theme.regional import write
from vadrin.ui.theme.roles import Role
from vadrin.ui.theme.typeface import px, role_font

_STEP = 1.02


class TimeScale(QAbstractSlider):
    """Tested times as ticks on a scale of ln t; the marker stays between the ends.

    Attributes
    ----------
    moved : signal of float
        Minutes, at every move.
    """

    moved = pyqtSignal(float)

    def __init__(self) -> None:
        super().__init__()
        self.times: tuple[float, ...] = ()
        self.minutes = 1.0
        self.look: Look = DAY
        self.setFocusPolicy(Qt.FocusPolicy.StrongFocus)
        self.setSizePolicy(QSizePolicy.Policy.Expanding, QSizePolicy.Policy.Fixed)

    def sizeHint(self) -> QSize:
        """A line of times, and the marker over it."""
        line = QFontMetrics(role_font(Role.BODY)).height()
        return QSize(px(300), line + px(30))

    def show_times(self, times: tuple[float, ...], minutes: float, look: Look) -> None:
        """Show a scale and where on it the marker stands."""
        self.times, self.minutes, self.look = times, minutes, look
        self.setAccessibleName(f"development time, {minutes_text(minutes)} min")
        # In seconds: what a screen reader says of a slider is a number.
        if times:
            self.setRange(round(60 * times[0]), round(60 * times[-1]))
        self.setValue(round(60 * minutes))
        self.update()

    def _x_of(self, minutes: float) -> float:
        first, last = log(self.times[0]), log(self.times[-1])
        margin = px(24)
        return margin + (self.width() - 2 * margin) * (log(minutes) - first) / (last - first)

    def _move_to(self, minutes: float) -> None:
        if len(self.times) > 1:
            minutes = min(self.times[-1], max(self.times[0], minutes))
            self.show_times(self.times, minutes, self.look)
            self.moved.emit(minutes)

    def _drag(self, event: QMouseEvent) -> None:
        if len(self.times) < 2:
            return
        first, last = log(self.times[0]), log(self.times[-1])
        margin = px(24)
        share = (event.position().x() - margin) / max(1, self.width() - 2 * margin)
        self._move_to(exp(first + min(1.0, max(0.0, share)) * (last - first)))

    def mousePressEvent(self, event: QMouseEvent | None) -> None:
        """Take the marker along."""
        if event is not None:
            self._drag(event)

    def mouseMoveEvent(self, event: QMouseEvent | None) -> None:
        """Take the marker along while a button is held."""
        if event is not None and event.buttons() & Qt.MouseButton.LeftButton:
            self._drag(event)

    def keyPressEvent(self, event: QKeyEvent | None) -> None:
        """The arrows move it by two percent, Home and End to the ends."""
        if event is None or len(self.times) < 2:
            if event is not None:
                event.ignore()
            return
        to = {
            Qt.Key.Key_Right: self.minutes * _STEP,
            Qt.Key.Key_Left: self.minutes / _STEP,
            Qt.Key.Key_Home: self.times[0],
            Qt.Key.Key_End: self.times[-1],
        }.get(Qt.Key(event.key()))
        if to is None:
            event.ignore()
        else:
            self._move_to(to)

    def wheelEvent(self, event: QWheelEvent | None) -> None:
        """Scrolls the page."""
        if event is not None:
            event.ignore()

    def paintEvent(self, _event: QPaintEvent | None) -> None:
        """Draw scale, ticks and marker."""
        if len(self.times) < 2:
            return
        painter = QPainter(self)
        painter.setRenderHint(QPainter.RenderHint.Antialiasing)
        font = role_font(Role.CAPTION)
        painter.setFont(font)
        metrics = QFontMetrics(font)
        base = self.height() - metrics.height() - px(6)
        painter.setPen(QColor(self.look.soft))
        painter.drawLine(
            QPointF(self._x_of(self.times[0]), base), QPointF(self._x_of(self.times[-1]), base)
        )
        for minutes in self.times:
            x = self._x_of(minutes)
            painter.drawLine(QPointF(x, base - px(3)), QPointF(x, base + px(3)))
            words = minutes_text(minutes)
            room = QRectF(x - px(30), base + px(4), px(60), metrics.height())
            write(painter, room, int(Qt.AlignmentFlag.AlignHCenter), words)
        x, size = self._x_of(self.minutes), px(8)
        here = QColor(self.look.here)
        painter.setPen(QPen(here, px(3) if self.hasFocus() else px(1)))
        painter.setBrush(here)
        top = base - 2 * size
        corners = [QPointF(x, base), QPointF(x - size, top), QPointF(x + size, top)]
        painter.drawPolygon(QPolygonF(corners))

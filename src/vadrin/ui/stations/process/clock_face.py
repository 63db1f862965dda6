"""The darkroom clock, drawn to be read from two metres."""

from __future__ import annotations

from PyQt6.QtCore import QPointF, QRectF, QSize, Qt
from PyQt6.QtGui import QColor, QFont, QPainter, QPaintEvent, QPen
from PyQt6.QtWidgets import QSizePolicy

from vadrin.app.process.clock_words import ClockFaceWords
from vadrin.ui.theme.look import DAY, Look
from vadrin.ui.theme.regional import write
from vadrin.ui.theme.roles import Role
from vadrin.ui.theme.typeface import px, role_font
from vadrin.ui.widgets.drawn import Drawn

_WINDOW_S = 240.0
_MARK_AT = 0.2
"""Where the fixed mark stands, as a share of the width."""


class ClockFace(Drawn):
    """What is left of the step, what the hands do, and the acts that run past a fixed mark."""

    def __init__(self) -> None:
        super().__init__()
        self.words: ClockFaceWords | None = None
        self.look: Look = DAY
        self.setAccessibleName("darkroom clock")
        self.setSizePolicy(QSizePolicy.Policy.Expanding, QSizePolicy.Policy.Expanding)

    def minimumSizeHint(self) -> QSize:
        """Room for digits that can be read."""
        return QSize(px(360), px(220))

    def show_words(self, words: ClockFaceWords, look: Look) -> None:
        """Show a moment; drawn anew only where something changed."""
        if words == self.words and look is self.look:
            return
        self.words, self.look = words, look
        # Without its seconds: a reader is told of every change, and the acts are said when due.
        spoken = f"{words.step}, {words.now}; then {words.next_act or words.coming}"
        if spoken != self.accessibleDescription():
            self.setAccessibleDescription(spoken)
        self.update()

    def whole(self) -> str:
        """All it shows, seconds and all."""
        words = self.words
        return f"{words.step}: {words.left} left, {words.now}; {words.coming}" if words else ""

    def paintEvent(self, _event: QPaintEvent | None) -> None:
        """Draw the face."""
        if self.words is None:
            return
        painter = QPainter(self)
        painter.setRenderHint(QPainter.RenderHint.Antialiasing)
        band = float(px(84))
        self._draw_time(painter, QRectF(0, 0, self.width(), self.height() - band - px(8)))
        self._draw_band(painter, QRectF(0, self.height() - band, self.width(), band))

    def _draw_time(self, painter: QPainter, room: QRectF) -> None:
        assert self.words is not None
        painter.setPen(QColor(self.look.ink))
        painter.setFont(role_font(Role.HEADING))
        write(
            painter, room, Qt.AlignmentFlag.AlignLeft | Qt.AlignmentFlag.AlignTop, self.words.step
        )
        # The next act is what the hands wait for; without one, the end of the step is.
        words = self.words
        largest = words.next_in or words.left
        until = f"until: {words.next_act}" if words.next_in else words.coming
        rest = f"{words.left} left of this step" if words.next_in else ""
        line = float(px(44))
        digits = QRectF(
            room.left(), room.top() + px(26), room.width(), room.height() - px(26) - line
        )
        font = QFont(role_font(Role.DISPLAY))
        font.setPixelSize(int(max(px(46), min(digits.height(), room.width() / 4.2))))
        painter.setFont(font)
        write(painter, digits, Qt.AlignmentFlag.AlignLeft | Qt.AlignmentFlag.AlignVCenter, largest)
        left = painter.fontMetrics().horizontalAdvance(largest) + px(28)
        painter.setFont(role_font(Role.ENTRY))
        doing = digits.adjusted(left, 0, 0, 0)
        write(
            painter,
            doing,
            Qt.AlignmentFlag.AlignLeft | Qt.AlignmentFlag.AlignVCenter,
            self.words.now,
        )
        painter.setPen(QColor(self.look.trouble if self.words.urgent else self.look.ink))
        below = QRectF(room.left(), room.bottom() - line, room.width(), line)
        write(painter, below, Qt.AlignmentFlag.AlignLeft | Qt.AlignmentFlag.AlignVCenter, until)
        painter.setPen(QColor(self.look.soft))
        painter.setFont(role_font(Role.LEAD))
        write(painter, below, Qt.AlignmentFlag.AlignRight | Qt.AlignmentFlag.AlignVCenter, rest)

    def _draw_band(self, painter: QPainter, room: QRectF) -> None:
        assert self.words is not None
        look = self.look
        painter.fillRect(room, QColor(look.sheet))
        at = room.left() + room.width() * _MARK_AT
        scale = room.width() / _WINDOW_S
        painter.setFont(role_font(Role.CAPTION))
        height, letters = room.height() / 3, painter.fontMetrics()
        free = [room.left(), room.left()]
        for mark in self.words.marks:
            x = at + mark.ahead_s * scale
            if x > room.right():
                continue
            line = 1 if mark.heavy else 0
            if mark.length_s:
                ends = min(x + mark.length_s * scale, room.right())
                x = max(x, room.left())
                block = QRectF(x, room.bottom() - height, max(ends - x, 2.0), height)
                painter.fillRect(block, QColor(look.soft))
            elif x >= room.left():
                painter.setPen(QPen(QColor(look.ink), 3))
                painter.drawLine(QPointF(x, room.top()), QPointF(x, room.bottom()))
            if x < max(free[line], room.left()):
                continue
            painter.setPen(QColor(look.ink if mark.heavy else look.soft))
            write(painter, QPointF(x + px(4), room.top() + height * (2 - line) - px(8)), mark.words)
            free[line] = x + letters.horizontalAdvance(mark.words) + px(14)
        painter.setPen(QPen(QColor(look.here), 3))
        painter.drawLine(QPointF(at, room.top() - px(6)), QPointF(at, room.bottom()))

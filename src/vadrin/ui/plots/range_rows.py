"""Times that were found, and the ranges in which others would have foretold them, a row a film."""

from __future__ import annotations

from math import log

from PyQt6.QtCore import QPointF, QRectF, QSize, Qt
from PyQt6.QtGui import QColor, QPainter, QPaintEvent, QPen
from PyQt6.QtWidgets import QSizePolicy

from vadrin.app.display.quantities import minutes_text
from vadrin.app.learning.learnt_overview import FilmForetold
from vadrin.ui.theme.look import DAY, Look
from vadrin.ui.theme.regional import write
from vadrin.ui.theme.roles import Role
from vadrin.ui.theme.typeface import px, role_font
from vadrin.ui.widgets.drawn import Drawn

_HIGH, _BAR, _AXIS, _HEAD = 20, 7, 22, 20
_HEADS = ("Film", "Found", "Foretold by the others, from each strip")
_NAME, _FOUND, _HELD = 180, 56, 92
_TICKS = (3, 4, 5, 6, 8, 10, 12, 15, 20, 30, 45, 60)


class RangeRows(Drawn):
    """A mark where the film's time was found, and a bar for each strip that foretells it.

    A bar that missed the mark is drawn open, and the row says so.
    """

    def __init__(self) -> None:
        super().__init__()
        self.films: tuple[FilmForetold, ...] = ()
        self._look: Look = DAY
        self.setSizePolicy(QSizePolicy.Policy.Expanding, QSizePolicy.Policy.Fixed)

    def show_films(self, bath: str, films: tuple[FilmForetold, ...], look: Look) -> None:
        """Show the films of a developer."""
        self.films, self._look = films, look
        self.setAccessibleName(f"times of films in {bath}, as found and as foretold")
        self.setAccessibleDescription("; ".join(film.words for film in films))
        self.setFixedHeight(self._height())
        self.update()

    def _row(self, film: FilmForetold) -> int:
        return px(max(_HIGH, _BAR * len(film.ranges) + 6))

    def _height(self) -> int:
        return px(_HEAD) + px(_AXIS) + sum(self._row(film) for film in self.films)

    def sizeHint(self) -> QSize:
        """A row a film, and the times under them."""
        return QSize(px(520), self._height())

    def paintEvent(self, _event: QPaintEvent | None) -> None:
        """Draw the rows, and the times under them."""
        painter = QPainter(self)
        painter.setRenderHint(QPainter.RenderHint.Antialiasing)
        left = px(_NAME) + px(_FOUND)
        room = QRectF(left, 0, max(self.width() - left - px(_HELD), 40), self._height())
        low, high = self._reach()
        self._draw_times(painter, room, low, high)
        for at, head in zip((0, px(_NAME), left), _HEADS, strict=True):
            write(painter, QRectF(at, 0, self.width(), px(_HEAD)), Qt.AlignmentFlag.AlignTop, head)
        top = float(px(_HEAD))
        for film in self.films:
            self._draw_row(painter, film, top, room, (low, high))
            top += self._row(film)

    def _reach(self) -> tuple[float, float]:
        """The shortest and the longest time shown."""
        times = [t for film in self.films for row in film.ranges for t in row[1:3]]
        times += [film.found for film in self.films]
        return 0.9 * min(times, default=3.0), 1.1 * max(times, default=30.0)

    @staticmethod
    def _x(room: QRectF, minutes: float, reach: tuple[float, float]) -> float:
        low, high = reach
        return room.left() + room.width() * log(minutes / low) / log(high / low)

    def _draw_times(self, painter: QPainter, room: QRectF, low: float, high: float) -> None:
        painter.setFont(role_font(Role.CAPTION))
        foot, before = self._height() - px(_AXIS), -1e9
        for minutes in _TICKS:
            x = self._x(room, minutes, (low, high))
            if not room.left() <= x <= room.right() or x - before < px(30):
                continue
            before = x
            painter.setPen(QPen(QColor(self._look.grid), 1))
            painter.drawLine(QPointF(x, px(_HEAD)), QPointF(x, foot))
            painter.setPen(QColor(self._look.soft))
            under = QRectF(x - px(30), foot + px(2), px(60), px(16))
            write(painter, under, Qt.AlignmentFlag.AlignHCenter, minutes_text(minutes))

    def _draw_row(
        self,
        painter: QPainter,
        film: FilmForetold,
        top: float,
        room: QRectF,
        reach: tuple[float, float],
    ) -> None:
        look, high = self._look, self._row(film)
        painter.setFont(role_font(Role.BODY))
        painter.setPen(QColor(look.ink))
        middle = Qt.AlignmentFlag.AlignVCenter
        name = painter.fontMetrics().elidedText(
            film.film, Qt.TextElideMode.ElideMiddle, px(_NAME) - px(10)
        )
        write(painter, QRectF(0, top, px(_NAME), high), middle, name)
        write(painter, QRectF(px(_NAME), top, px(_FOUND), high), middle, minutes_text(film.found))
        y = top + (high - px(_BAR) * len(film.ranges)) / 2 + px(_BAR) / 2
        for _, shortest, longest, held in film.ranges:
            first, last = (self._x(room, t, reach) for t in (shortest, longest))
            bar = QRectF(first, y - px(2), max(last - first, 2), px(4))
            painter.setPen(QPen(QColor(look.soft), 1))
            painter.setBrush(QColor(look.soft) if held else Qt.BrushStyle.NoBrush)
            painter.drawRect(bar)
            y += px(_BAR)
        painter.setPen(QPen(QColor(look.ink), 2))
        at = self._x(room, film.found, reach)
        painter.drawLine(QPointF(at, top + px(2)), QPointF(at, top + high - px(2)))
        whole = film.held == len(film.ranges)
        painter.setPen(QColor(look.soft if whole else look.trouble))
        beside = QRectF(room.right() + px(8), top, px(_HELD) - px(8), high)
        write(painter, beside, middle, film.held_words)

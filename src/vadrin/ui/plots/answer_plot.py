"""Points and lines behind an answer, each named at its end."""

from __future__ import annotations

import math

from PyQt6.QtCore import QPointF, QRectF, QSize, Qt
from PyQt6.QtGui import QColor, QPainter, QPaintEvent, QPen, QPolygonF
from PyQt6.QtWidgets import QSizePolicy

from vadrin.app.descriptions.answer_in_words import AnswerPlot, Series
from vadrin.ui.theme.look import DAY, Look
from vadrin.ui.theme.regional import write
from vadrin.ui.theme.roles import Role
from vadrin.ui.theme.typeface import px, role_font
from vadrin.ui.widgets.drawn import Drawn

_TICKS = 6
_DASHES = (
    Qt.PenStyle.SolidLine,
    Qt.PenStyle.DashLine,
    Qt.PenStyle.DotLine,
    Qt.PenStyle.DashDotLine,
)


class AnswerPlotView(Drawn):
    """Series on plain or on logarithmic axes."""

    def __init__(self) -> None:
        super().__init__()
        self._plot: AnswerPlot | None = None
        self._look: Look = DAY
        self.setAccessibleName("plot of the answer")
        self.setSizePolicy(QSizePolicy.Policy.Expanding, QSizePolicy.Policy.Expanding)

    def minimumSizeHint(self) -> QSize:
        """Room for axes."""
        return QSize(px(320), px(210))

    def show_plot(self, plot: AnswerPlot | None, look: Look) -> None:
        """Show a plot; nothing for none."""
        self._plot, self._look = plot, look
        self.setVisible(plot is not None and bool(plot.series))
        if plot is not None:
            said = [f"{s.name}: {len(s.points or s.line)} points" for s in plot.series]
            self.setAccessibleDescription(f"{plot.up} against {plot.across}; {'; '.join(said)}")
        self.update()

    def _scaled(self, value: float) -> float:
        log = self._plot is not None and self._plot.log_axes
        return math.log10(max(value, 1e-9)) if log else value

    def paintEvent(self, _event: QPaintEvent | None) -> None:
        """Draw the axes and the series."""
        plot = self._plot
        if plot is None or not plot.series:
            return
        every = [p for s in plot.series for p in (*s.points, *s.line)]
        if not every:
            return
        painter = QPainter(self)
        painter.setRenderHint(QPainter.RenderHint.Antialiasing)
        room = QRectF(px(66), px(8), self.width() - px(190), self.height() - px(46))
        spans = []
        for axis in (0, 1):
            values = [self._scaled(p[axis]) for p in every]
            low, high = min(values), max(values)
            spans.append((low, max(high, low + 1e-6)))
        if not plot.log_axes:
            spans[1] = (min(0.0, spans[1][0]), spans[1][1] * 1.05)

        def place(point: tuple[float, float]) -> QPointF:
            (x0, x1), (y0, y1) = spans
            return QPointF(
                room.left() + room.width() * (self._scaled(point[0]) - x0) / (x1 - x0),
                room.bottom() - room.height() * (self._scaled(point[1]) - y0) / (y1 - y0),
            )

        self._axes(painter, plot, room, spans)
        ends = []
        for number, series in enumerate(plot.series):
            end = self._series(painter, series, number, place)
            if end is not None:
                ends.append((end, series.name, self._tone(series, number)))
        self._names(painter, ends, room)

    def _axes(
        self, painter: QPainter, plot: AnswerPlot, room: QRectF, spans: list[tuple[float, float]]
    ) -> None:
        look = self._look
        painter.fillRect(room, QColor(look.sheet))
        painter.setFont(role_font(Role.CAPTION))
        for axis, (low, high) in enumerate(spans):
            for tick in _ticks(low, high):
                share = (tick - low) / (high - low)
                words = f"{10**tick:g}" if plot.log_axes else f"{tick:g}".replace("-", "−")
                painter.setPen(QColor(look.grid))
                if axis == 0:
                    x = room.left() + share * room.width()
                    painter.drawLine(QPointF(x, room.top()), QPointF(x, room.bottom()))
                    painter.setPen(QColor(look.soft))
                    write(
                        painter,
                        QRectF(x - px(40), room.bottom() + px(2), px(80), px(16)),
                        Qt.AlignmentFlag.AlignCenter,
                        words,
                    )
                else:
                    y = room.bottom() - share * room.height()
                    painter.drawLine(QPointF(room.left(), y), QPointF(room.right(), y))
                    painter.setPen(QColor(look.soft))
                    beside = QRectF(px(20), y - px(8), px(40), px(16))
                    write(painter, beside, Qt.AlignmentFlag.AlignRight, words)
        painter.setPen(QColor(look.soft))
        under = QRectF(room.left(), room.bottom() + px(18), room.width(), px(18))
        write(painter, under, Qt.AlignmentFlag.AlignCenter, plot.across)
        painter.save()
        painter.translate(px(10), room.center().y())
        painter.rotate(-90)
        along = QRectF(-room.height() / 2, -px(10), room.height(), px(18))
        write(painter, along, Qt.AlignmentFlag.AlignCenter, plot.up)
        painter.restore()

    def _series(
        self, painter: QPainter, series: Series, number: int, place: object
    ) -> QPointF | None:
        """Draw one series; the place where it ends."""
        assert callable(place)
        tone = self._tone(series, number)
        painter.setPen(QPen(tone, 2, _DASHES[number % len(_DASHES)]))
        painter.setBrush(Qt.BrushStyle.NoBrush)
        line = [place(p) for p in series.line]
        if line:
            painter.drawPolyline(QPolygonF(line))
        painter.setPen(QPen(tone, 1.4))
        painter.setBrush(QColor(self._look.sheet))
        dots = [place(p) for p in series.points]
        for dot in dots:
            if number % 2:
                painter.drawRect(QRectF(dot.x() - px(3), dot.y() - px(3), px(6), px(6)))
            else:
                painter.drawEllipse(dot, px(3), px(3))
        ends = line or dots
        return ends[-1] if ends else None

    def _tone(self, series: Series, number: int) -> QColor:
        """A layer's own colour; else one of the strips' in order."""
        if series.tone:
            return self._look.layer_colour(series.tone)
        count = len(self._plot.series) if self._plot is not None else 1
        return self._look.strip_colour(number, count)

    def _names(
        self, painter: QPainter, ends: list[tuple[QPointF, str, QColor]], room: QRectF
    ) -> None:
        """Names beside the plot in the order of the lines' ends, each led to from its own."""
        painter.setFont(role_font(Role.CAPTION))
        ordered = sorted(ends, key=lambda e: e[0].y())
        low = room.bottom() - px(14) * (len(ordered) - 1)
        y = -1e9
        for number, (end, name, tone) in enumerate(ordered):
            y = max(y + px(14), min(end.y(), low + px(14) * number), room.top() + px(8))
            painter.setPen(QPen(QColor(self._look.grid), 1))
            painter.drawLine(end, QPointF(room.right() + px(4), y))
            painter.setPen(self._look.legible(tone))
            write(painter, QPointF(room.right() + px(6), y + px(4)), name)


def _ticks(low: float, high: float) -> list[float]:
    """Round values over a span."""
    wanted = (high - low) / _TICKS
    step = 10.0 ** math.floor(math.log10(wanted))
    step *= next(m for m in (1, 2, 5, 10) if step * m >= wanted)
    first = math.ceil(low / step - 1e-9)
    return [round(step * n, 6) for n in range(first, math.floor(high / step + 1e-9) + 1)]

"""How a strip of film is drawn: its base, its frames, and the marks on them."""

from __future__ import annotations

from PyQt6.QtCore import QPointF, QRectF, Qt
from PyQt6.QtGui import QColor, QPainter, QPen, QPolygonF

from vadrin.app.display.verdict_words import NOTHING_THERE, TOO_DENSE, USE_IT
from vadrin.app.loaded.loaded_test import LoadedFrame
from vadrin.core.frames import FrameState
from vadrin.ui.theme.look import Look
from vadrin.ui.theme.regional import write
from vadrin.ui.theme.typeface import px

_STATE_TICKS = {FrameState.SKIPPED: "skip ", FrameState.DOUBLED: "×2 "}
ROW = 46
EDGE = 7
"""Pixels of film above and below a frame, where the perforations are."""


class FilmPainter:
    """Draws film with a painter in a look.

    Parameters
    ----------
    painter : QPainter
    look : Look
    """

    def __init__(self, painter: QPainter, look: Look) -> None:
        self._painter, self._look = painter, look
        self._planned = QPen(QColor(look.soft), 1, Qt.PenStyle.DashLine)

    def paint_film(self, boxes: list[QRectF]) -> None:
        """The film under the frames of a strip, with its perforations."""
        painter = self._painter
        film = QRectF(
            boxes[0].left() - 2,
            boxes[0].top() - EDGE,
            boxes[-1].right() - boxes[0].left() + 4,
            px(ROW - 6),
        )
        painter.setPen(Qt.PenStyle.NoPen)
        painter.setBrush(QColor(self._look.film_base))
        painter.drawRect(film)
        painter.setBrush(QColor(self._look.table))
        step, hole = 13, 6
        count = max(0, int((film.width() - 4 - hole) // step) + 1)
        holes = [
            QRectF(film.left() + 4 + step * i, y, hole, 2.5)
            for i in range(count)
            for y in (film.top() + 2, film.bottom() - 4.5)
        ]
        if holes:
            painter.drawRects(*holes)

    def paint_frame(self, box: QRectF, frame: LoadedFrame, noted: bool) -> None:
        """A frame at the grey its density really has, with its name and its marks."""
        painter = self._painter
        density = frame.density
        state = frame.frame.state
        if density is not None:
            fill = self._look.film_colour(density)
            painter.setPen(Qt.PenStyle.NoPen)
        elif state == FrameState.PLANNED:
            fill = QColor(self._look.table)
            painter.setPen(self._planned)
        else:
            fill = QColor(self._look.rule)
            painter.setPen(Qt.PenStyle.NoPen)
        painter.setBrush(fill)
        painter.drawRect(box)
        self._write_on(box, frame, fill)
        if noted:
            self._paint_fold(box, fill)
        if frame.verdict:
            self._paint_verdict(box, frame.verdict, fill)
        if any(r.left_out for r in frame.readings):
            painter.setPen(QPen(QColor(self._look.trouble), 1.5))
            painter.drawLine(box.topLeft(), box.bottomRight())

    def _write_on(self, box: QRectF, frame: LoadedFrame, fill: QColor) -> None:
        """The frame's name on it, where it fits."""
        painter = self._painter
        words = self._frame_words(frame, box)
        metrics = painter.fontMetrics()
        wide = metrics.horizontalAdvance(words)
        if not words or wide > box.width() or metrics.ascent() > box.height() + 2:
            return
        ink = self._look.writing_on(fill)
        plate = self._look.plate_under(ink, fill)
        if plate is not None:
            under = QRectF(0, 0, wide + 4, metrics.height() - 2)
            under.moveCenter(box.center())
            painter.fillRect(under, plate)
        painter.setPen(ink)
        write(painter, box, Qt.AlignmentFlag.AlignCenter, words)

    def _paint_fold(self, box: QRectF, fill: QColor) -> None:
        """A folded corner: words are kept about this frame."""
        painter = self._painter
        size = px(9)
        corner = QPolygonF(
            [box.topRight() + QPointF(-size, 0), box.topRight() + QPointF(0, size), box.topRight()]
        )
        painter.setPen(Qt.PenStyle.NoPen)
        painter.setBrush(self._look.writing_on(fill))
        painter.drawPolygon(corner)

    def _paint_verdict(self, box: QRectF, verdict: str, fill: QColor) -> None:
        """A shape at the lower left: filled for use, open for salvage, a bar for nothing, a cross
        for too dense."""
        painter = self._painter
        size = float(px(7))
        mark = QRectF(box.left() + 3, box.bottom() - size - 3, size, size)
        ink = QColor(self._look.writing_on(fill))
        painter.setPen(QPen(ink, 1.5))
        painter.setBrush(ink if verdict == USE_IT else Qt.BrushStyle.NoBrush)
        if verdict == NOTHING_THERE:
            middle = mark.center().y()
            painter.drawLine(QPointF(mark.left(), middle), QPointF(mark.right(), middle))
        elif verdict == TOO_DENSE:
            painter.drawLine(mark.topLeft(), mark.bottomRight())
            painter.drawLine(mark.bottomLeft(), mark.topRight())
        else:
            painter.drawRect(mark)

    def _frame_words(self, frame: LoadedFrame, box: QRectF) -> str:
        tick = _STATE_TICKS.get(frame.frame.state, "")
        name = "b+f" if frame.frame.blank and frame.density is not None else frame.name
        if frame.density is None and frame.frame.state is FrameState.EXPOSED:
            tick = "· "
        if box.width() >= px(38) or not tick:
            return tick + name
        return tick.strip()

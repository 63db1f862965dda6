"""How far off one's EIs were, film after film, and whether the ranges held."""

from __future__ import annotations

from PyQt6.QtCore import QPointF, QRectF, QSize, Qt
from PyQt6.QtGui import QColor, QPainter, QPaintEvent, QPen
from PyQt6.QtWidgets import QSizePolicy

from vadrin.app.practice.practice_scores import OpenedEnvelope
from vadrin.ui.theme.look import DAY, Look
from vadrin.ui.theme.regional import write
from vadrin.ui.theme.roles import Role
from vadrin.ui.theme.typeface import px, role_font
from vadrin.ui.widgets.drawn import Drawn

_REACH = 1.0
"""Stops shown to each side; beyond, a mark lies at the edge."""
_MOST = 40


class ScorePlot(Drawn):
    """A mark a film: filled where every range held, open where one missed."""

    def __init__(self) -> None:
        super().__init__()
        self.films: tuple[OpenedEnvelope, ...] = ()
        self._look: Look = DAY
        self.setAccessibleName("errors of your EIs over the practice films")
        self.setSizePolicy(QSizePolicy.Policy.Expanding, QSizePolicy.Policy.Fixed)

    def sizeHint(self) -> QSize:
        """Room for a stop to each side."""
        return QSize(px(420), px(150))

    def show_films(self, films: tuple[OpenedEnvelope, ...], look: Look) -> None:
        """Show the films whose EI was said; fewer than two are no course of things."""
        self.films = tuple(f for f in films if f.index_off is not None)[-_MOST:]
        self._look = look
        said = "; ".join(f"{f.film}: {f.index_off or 0:+.2f} stop" for f in self.films)
        self.setAccessibleDescription(said)
        self.setVisible(len(self.films) > 1)
        self.update()

    def paintEvent(self, _event: QPaintEvent | None) -> None:
        """Draw the middle, a third of a stop to each side, and a mark a film."""
        painter = QPainter(self)
        painter.setRenderHint(QPainter.RenderHint.Antialiasing)
        painter.setFont(role_font(Role.CAPTION))
        look, left = self._look, float(px(96))
        room = QRectF(left, px(8), self.width() - left - px(12), self.height() - px(16))
        for stops, words in ((1 / 3, "⅓ stop high"), (0.0, "true EI"), (-1 / 3, "⅓ stop low")):
            y = self._y(room, stops)
            painter.setPen(QPen(QColor(look.soft if stops else look.ink), 1))
            painter.drawLine(QPointF(left, y), QPointF(room.right(), y))
            box = QRectF(0, y - px(9), left - px(8), px(18))
            write(painter, box, Qt.AlignmentFlag.AlignRight, words)
        step = room.width() / max(len(self.films), 1)
        for place, film in enumerate(self.films):
            middle = QPointF(left + (place + 0.5) * step, self._y(room, film.index_off or 0.0))
            painter.setPen(QPen(QColor(look.ink), 2))
            whole = bool(film.held) and all(film.held)
            painter.setBrush(QColor(look.ink) if whole else Qt.BrushStyle.NoBrush)
            painter.drawEllipse(middle, px(5), px(5))

    @staticmethod
    def _y(room: QRectF, stops: float) -> float:
        inside = max(-_REACH, min(_REACH, stops))
        return room.center().y() - inside / _REACH * room.height() / 2

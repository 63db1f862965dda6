"""Patches as wedges that turn: each from the hue it has normally to that of every push."""

from __future__ import annotations

from math import cos, radians, sin

from PyQt6.QtCore import QPointF, QRectF, QSize, Qt
from PyQt6.QtGui import QColor, QPainter, QPaintEvent, QPen
from PyQt6.QtWidgets import QSizePolicy

from vadrin.app.descriptions.answer_in_words import HueTurn
from vadrin.ui.theme.look import DAY, Look
from vadrin.ui.theme.regional import write
from vadrin.ui.theme.roles import Role
from vadrin.ui.theme.typeface import px, role_font
from vadrin.ui.widgets.drawn import Drawn

_WIDE, _HIGH = 132, 128
_MOST_CHROMA = 80.0


class HueWedges(Drawn):
    """A dial a patch; hue is told by its angle, so that no colour need be shown."""

    def __init__(self) -> None:
        super().__init__()
        self.turns: tuple[HueTurn, ...] = ()
        self._look: Look = DAY
        self.setAccessibleName("hues of the patches over the pushes")
        self.setSizePolicy(QSizePolicy.Policy.Expanding, QSizePolicy.Policy.Fixed)

    def sizeHint(self) -> QSize:
        """A row of dials."""
        return QSize(px(_WIDE) * max(len(self.turns), 1), px(_HIGH))

    def show_turns(self, turns: tuple[HueTurn, ...], look: Look) -> None:
        """Show patches; nothing for none."""
        self.turns, self._look = turns, look
        self.setVisible(bool(turns))
        self.setFixedHeight(px(_HIGH))
        said = (
            f"{t.name}: " + ", ".join(f"{p} at {h:.0f} degrees" for p, h, _ in t.places)
            for t in turns
        )
        self.setAccessibleDescription("; ".join(said))
        self.update()

    def paintEvent(self, _event: QPaintEvent | None) -> None:
        """Draw the dials."""
        painter = QPainter(self)
        painter.setRenderHint(QPainter.RenderHint.Antialiasing)
        wide = min(float(px(_WIDE)), self.width() / max(len(self.turns), 1))
        for place, turn in enumerate(self.turns):
            self._dial(painter, QRectF(place * wide, 0, wide, self.height()), turn)

    def _dial(self, painter: QPainter, box: QRectF, turn: HueTurn) -> None:
        look, letters = self._look, px(18)
        radius = min(box.width() - px(16), box.height() - letters - px(10)) / 2
        middle = QPointF(box.left() + radius + px(4), box.top() + radius + px(4))
        painter.setPen(QPen(QColor(look.rule), 1))
        painter.setBrush(Qt.BrushStyle.NoBrush)
        painter.drawEllipse(middle, radius, radius)
        if len(turn.places) > 1:
            first, last = turn.places[0][1], turn.places[-1][1]
            span = (last - first + 180.0) % 360.0 - 180.0
            veil = QColor(look.here)
            veil.setAlpha(60)
            painter.setPen(Qt.PenStyle.NoPen)
            painter.setBrush(veil)
            round_it = QRectF(middle.x() - radius, middle.y() - radius, 2 * radius, 2 * radius)
            painter.drawPie(round_it, round(first * 16), round(span * 16))
        for number, (_, hue, chroma) in enumerate(turn.places):
            reach = radius * min(1.0, 0.25 + 0.75 * chroma / _MOST_CHROMA)
            end = QPointF(
                middle.x() + reach * cos(radians(hue)), middle.y() - reach * sin(radians(hue))
            )
            tone = look.ink if number == 0 else look.here
            painter.setPen(QPen(QColor(tone), 1.5 + 0.7 * number))
            painter.drawLine(middle, end)
        painter.setPen(QColor(look.ink))
        painter.setFont(role_font(Role.CAPTION))
        under = QRectF(box.left(), box.bottom() - letters, box.width() - px(4), letters)
        write(painter, under, Qt.AlignmentFlag.AlignLeft, turn.name)

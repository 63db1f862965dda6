"""The known steps of a wedge as greys, with the pair that a frame lies between marked."""

from __future__ import annotations

from PyQt6.QtCore import QRectF, QSize, Qt
from PyQt6.QtGui import QColor, QPainter, QPaintEvent, QPen

from vadrin.ui.theme.look import DAY, Look
from vadrin.ui.theme.typeface import px
from vadrin.ui.widgets.drawn import Drawn


class WedgeRow(Drawn):
    """Steps side by side; the arrows choose between which two."""

    def __init__(self) -> None:
        super().__init__()
        self.steps: tuple[float, ...] = ()
        self.at: int | None = None
        """Index of the thinner step of the pair; None before one is chosen."""
        self._look: Look = DAY
        self.setAccessibleName("steps of the wedge")

    def sizeHint(self) -> QSize:
        """As wide as the frame above it."""
        return QSize(px(190), px(26))

    def show_steps(self, steps: tuple[float, ...], look: Look) -> None:
        """Show a wedge; nothing where there is none."""
        if steps != self.steps:
            self.at = None
        self.steps, self._look = steps, look
        self.setFixedSize(px(190), px(26))
        self.setVisible(bool(steps))
        self.update()

    def forget(self) -> None:
        """Choose anew for the next frame."""
        self.at = None
        self.update()

    def step(self, way: int) -> str:
        """Go on to another pair; gives it as it is typed."""
        last = len(self.steps) - 2
        begin = last // 2 if self.at is None else self.at + way
        self.at = max(0, min(begin, last))
        words = f"{self.steps[self.at]:.2f}-{self.steps[self.at + 1]:.2f}"
        self.setAccessibleDescription(f"between step {self.at + 1} and {self.at + 2}: {words}")
        self.update()
        return words

    def paintEvent(self, _event: QPaintEvent | None) -> None:
        """Draw the greys and the mark."""
        if not self.steps:
            return
        painter = QPainter(self)
        wide = self.width() / len(self.steps)
        for place, density in enumerate(self.steps):
            box = QRectF(place * wide, px(3), wide + 0.5, self.height() - px(6))
            painter.fillRect(box, self._look.film_colour(density))
        if self.at is not None:
            painter.setPen(QPen(QColor(self._look.here), 2))
            painter.setBrush(Qt.BrushStyle.NoBrush)
            painter.drawRect(QRectF(self.at * wide, 1, 2 * wide, self.height() - 2))

"""What lies over the window for a moment, on a sheet of its own."""

from __future__ import annotations

from PyQt6.QtGui import QPainter, QPaintEvent, QPalette
from PyQt6.QtWidgets import QWidget

from vadrin.ui.theme.look import RULE


class Overlay(QWidget):
    """A sheet with a hairline round it; what stands on it has the sheet's ground."""

    def __init__(self, parent: QWidget) -> None:
        super().__init__(parent)
        self.setBackgroundRole(QPalette.ColorRole.Base)

    def paintEvent(self, _event: QPaintEvent | None) -> None:
        """Draw the sheet and its edge."""
        painter, palette = QPainter(self), self.palette()
        painter.fillRect(self.rect(), palette.base())
        painter.setPen(palette.color(RULE))
        painter.drawRect(self.rect().adjusted(0, 0, -1, -1))

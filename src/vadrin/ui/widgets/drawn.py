"""Something the program draws: a picture to a screen reader, with its name and its description."""

from __future__ import annotations

from PyQt6.QtCore import QSize, Qt
from PyQt6.QtGui import QPixmap
from PyQt6.QtWidgets import QLabel, QWidget


class Drawn(QLabel):
    """A widget that draws itself.

    Qt tells a screen reader the class, and a label with a picture in it is the class that says
    "picture"; what is drawn over it has nothing to do with that.
    """

    def __init__(self, parent: QWidget | None = None) -> None:
        super().__init__(parent)
        nothing = QPixmap(1, 1)
        nothing.fill(Qt.GlobalColor.transparent)
        self.setPixmap(nothing)

    def minimumSizeHint(self) -> QSize:
        """None, where a picture says none."""
        return QSize(-1, -1)

    def sizeHint(self) -> QSize:
        """None, where a picture says none."""
        return QSize(-1, -1)

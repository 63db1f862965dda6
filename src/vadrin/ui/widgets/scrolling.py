"""What a page scrolls in."""

from __future__ import annotations

from PyQt6.QtCore import Qt
from PyQt6.QtWidgets import QFrame, QScrollArea, QWidget


def scrolled(page: QWidget | None = None, by_keys: bool = False) -> QScrollArea:
    """A page as wide as there is room; the keyboard passes it by, unless it scrolls by keys."""
    area = QScrollArea()
    area.setFrameShape(QFrame.Shape.NoFrame)
    area.setWidgetResizable(True)
    if not by_keys:
        area.setFocusPolicy(Qt.FocusPolicy.NoFocus)
    if page is not None:
        area.setWidget(page)
    return area

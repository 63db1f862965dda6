"""The keys of the station one is at, over the window."""

from __future__ import annotations

from PyQt6.QtCore import Qt
from PyQt6.QtGui import QKeyEvent
from PyQt6.QtWidgets import QGridLayout, QVBoxLayout, QWidget

from vadrin.ui.stations.station import Station
from vadrin.ui.theme.typeface import px
from vadrin.ui.widgets.parts import text

_EVERYWHERE = (
    ("Ctrl+1 … Ctrl+7", "the stations in their order; Ctrl+0 the shelf, Ctrl+9 the cupboard"),
    ("Ctrl+N", "a new test"),
    ("Ctrl+I", "import a table of readings"),
    ("Ctrl+O", "open a notebook"),
    ("Ctrl+Z, Ctrl+Shift+Z", "undo, redo"),
    ("F8", "next look: day, dim, safelight"),
    ("Ctrl++, Ctrl+−", "larger, smaller type"),
    ("F1 or Esc", "close this"),
)


class ShortcutSheet(QWidget):
    """A sheet over the middle of the window."""

    def __init__(self, parent: QWidget) -> None:
        super().__init__(parent)
        self.setAttribute(Qt.WidgetAttribute.WA_StyledBackground)
        self.setAccessibleName("keys")
        self.setObjectName("keys")
        self._column = QVBoxLayout(self)
        self._column.setContentsMargins(px(24), px(18), px(24), px(20))
        self._inner = QWidget()
        self._column.addWidget(self._inner)
        self._before: QWidget | None = None
        self.hide()

    def toggle(self, station: Station) -> None:
        """Show the keys of a station, or hide them."""
        if self.isVisible():
            self._leave()
            return
        self._column.removeWidget(self._inner)
        self._inner.deleteLater()
        self._inner = QWidget()
        grid = QGridLayout(self._inner)
        grid.setHorizontalSpacing(px(20))
        grid.setVerticalSpacing(px(6))
        row = 0
        for title, keys in (("Here", station.keys), ("Everywhere", _EVERYWHERE)):
            grid.addWidget(text(title, 15, 700), row, 0, 1, 2)
            row += 1
            for key, act in keys:
                grid.addWidget(text(key, 13, 500), row, 0)
                grid.addWidget(text(act, 13, tone="soft"), row, 1)
                row += 1
        self._column.addWidget(self._inner)
        self.adjustSize()
        parent = self.parentWidget()
        if parent:
            self.move((parent.width() - self.width()) // 2, (parent.height() - self.height()) // 2)
            self._before = parent.focusWidget()
        self.show()
        self.raise_()
        self.setFocus()

    def _leave(self) -> None:
        self.hide()
        if self._before is not None:
            self._before.setFocus()

    def keyPressEvent(self, event: QKeyEvent | None) -> None:
        """Any of Esc and F1 closes it."""
        if event and event.key() in (Qt.Key.Key_Escape, Qt.Key.Key_F1):
            self._leave()
        else:
            super().keyPressEvent(event)

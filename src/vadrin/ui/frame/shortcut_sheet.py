"""The keys of the station one is at, over the window."""

from __future__ import annotations

from collections.abc import Iterable

from PyQt6.QtCore import Qt
from PyQt6.QtGui import QKeyEvent
from PyQt6.QtWidgets import QGridLayout, QVBoxLayout, QWidget

from vadrin.ui.actions import Action
from vadrin.ui.theme.roles import Role
from vadrin.ui.theme.typeface import px
from vadrin.ui.widgets.labels import text


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

    def toggle(self, here: Iterable[Action], everywhere: Iterable[Action]) -> None:
        """Show the keys of a station and of the window, or hide them."""
        if self.isVisible():
            self._leave()
            return
        self._column.removeWidget(self._inner)
        self._inner.deleteLater()
        self._inner = QWidget()
        grid = QGridLayout(self._inner)
        grid.setHorizontalSpacing(px(20))
        grid.setVerticalSpacing(px(4))
        self._fill(grid, 0, "Here", here)
        self._fill(grid, 2, "Everywhere", everywhere)
        self._column.addWidget(self._inner)
        self.adjustSize()
        parent = self.parentWidget()
        if parent:
            self.move((parent.width() - self.width()) // 2, (parent.height() - self.height()) // 2)
            self._before = parent.focusWidget()
        self.show()
        self.raise_()
        self.setFocus()

    @staticmethod
    def _fill(grid: QGridLayout, column: int, title: str, actions: Iterable[Action]) -> None:
        grid.addWidget(text(title, Role.SUBHEADING), 0, column, 1, 2)
        shown = [a for a in actions if a.key_text]
        for row, action in enumerate(shown, start=1):
            grid.addWidget(text(action.key_text, Role.STRONG), row, column)
            grid.addWidget(text(action.words, Role.NOTE), row, column + 1)

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

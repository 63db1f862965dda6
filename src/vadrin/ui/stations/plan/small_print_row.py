"""What a plan takes for granted, in a line of small print that opens where the keyboard comes."""

from __future__ import annotations

from collections.abc import Callable

from PyQt6.QtCore import Qt
from PyQt6.QtGui import QFocusEvent
from PyQt6.QtWidgets import QHBoxLayout, QWidget

from vadrin.ui.theme.roles import Role
from vadrin.ui.theme.typeface import px
from vadrin.ui.widgets.buttons import Button, ButtonKind
from vadrin.ui.widgets.labels import text

_WALKED = (Qt.FocusReason.TabFocusReason, Qt.FocusReason.BacktabFocusReason)


class _Opener(Button):
    """Opens the sentences it stands for; Tab goes on in them, as if they had been open."""

    def __init__(self, opened: Callable[[bool], None]) -> None:
        super().__init__("Change these", ButtonKind.LINK)
        self._opened = opened
        self.clicked.connect(lambda: opened(False))

    def focusInEvent(self, event: QFocusEvent | None) -> None:
        """Walked to by Tab, it opens and hands the keyboard on."""
        super().focusInEvent(event)
        if event is not None and event.reason() in _WALKED:
            back = event.reason() == Qt.FocusReason.BacktabFocusReason
            self._opened(back)


class SmallPrint(QWidget):
    """The line and what opens it.

    Parameters
    ----------
    opened : callable
        Called when the sentences are wanted; with True where the last word is.
    """

    def __init__(self, opened: Callable[[bool], None]) -> None:
        super().__init__()
        row = QHBoxLayout(self)
        row.setContentsMargins(0, 0, 0, 0)
        row.setSpacing(px(10))
        self._words = text("", Role.NOTE, wrap=True)
        row.addWidget(self._words, 1)
        self.opener = _Opener(opened)
        row.addWidget(self.opener, 0, Qt.AlignmentFlag.AlignTop)

    def show_words(self, words: str) -> None:
        """Show what is assumed; nothing where everything stands open."""
        self._words.setText(words)
        self.setVisible(bool(words))

"""A line to type in, whose words give way to what is typed next."""

from __future__ import annotations

from PyQt6.QtCore import QEvent, QSize, Qt
from PyQt6.QtGui import QFocusEvent, QKeyEvent, QKeySequence, QMouseEvent, QPalette
from PyQt6.QtWidgets import QLineEdit

from vadrin.app.display.region import local_typed
from vadrin.ui.theme.look import TONES

LONGEST = 3000
"""Letters a field takes; pasted text stops there, as can be seen."""


class Field(QLineEdit):
    """A line to type in that leaves undo and redo to the notebook.

    Whatever brings the keyboard to it, by key or by mouse, selects what stands there, and so does
    Enter, taken or refused: the next word typed takes its place.
    """

    word = False
    """Whether it stands in a sentence: no ground of its own, and a heavier line."""
    wrong = False
    """Whether what stands in it was refused."""
    _clicked_into = False
    _margins = (4, 2, 4, 3)
    """Room about the words: left, above, right and below, with the line."""

    def __init__(self) -> None:
        super().__init__()
        self.setTextMargins(*self._margins)
        # A page of text pasted by mistake; what is typed here is a line.
        self.setMaxLength(LONGEST)
        self.returnPressed.connect(self.selectAll)

    def setText(self, words: str | None) -> None:
        """Show words of the program: numbers as the region writes them, names as they are."""
        super().setText(local_typed(words or ""))

    def setPlaceholderText(self, words: str | None) -> None:
        """Show what would do, as the region writes it."""
        super().setPlaceholderText(local_typed(words or ""))

    def sizeHint(self) -> QSize:
        """A line of its type, with room about it."""
        _left, above, _right, below = self._margins
        return QSize(super().sizeHint().width(), self.fontMetrics().height() + 2 + above + below)

    def minimumSizeHint(self) -> QSize:
        """No lower than it would be."""
        return QSize(super().minimumSizeHint().width(), self.sizeHint().height())

    def mark_wrong(self, wrong: bool) -> None:
        """Write what stands in it in the tone of refusals, or as ever."""
        self.wrong = wrong
        self._colour()

    def _colour(self) -> None:
        palette, words = self.palette(), QPalette.ColorRole.Text
        wanted = palette.color(TONES["trouble" if self.wrong else ""])
        if palette.color(words) != wanted:
            palette.setColor(words, wanted)
            self.setPalette(palette)
        self.update()

    def changeEvent(self, event: QEvent | None) -> None:
        """Another look has another tone for what was refused."""
        super().changeEvent(event)
        if event is not None and event.type() == QEvent.Type.PaletteChange and self.wrong:
            self._colour()

    def focusInEvent(self, event: QFocusEvent | None) -> None:
        """Select all; a click that brings the keyboard would undo that when it is let go."""
        super().focusInEvent(event)
        self._clicked_into = event is not None and event.reason() == Qt.FocusReason.MouseFocusReason
        self.selectAll()

    def mouseReleaseEvent(self, event: QMouseEvent | None) -> None:
        """Select all at the end of the click that brought the keyboard, unless words were."""
        super().mouseReleaseEvent(event)
        if self._clicked_into and not self.hasSelectedText():
            self.selectAll()
        self._clicked_into = False

    def keyPressEvent(self, event: QKeyEvent | None) -> None:
        """A letter with Alt was meant as a shortcut: one that is none here is not typed."""
        typed = event.text() if event is not None else ""
        if event is not None and typed and typed.isprintable() and _alt_alone(event):
            event.ignore()
            return
        super().keyPressEvent(event)

    def event(self, event: QEvent | None) -> bool:
        """Let the window have Ctrl+Z, Ctrl+Y and Ctrl+K."""
        if isinstance(event, QKeyEvent) and event.type() == QEvent.Type.ShortcutOverride:
            undo, redo = QKeySequence.StandardKey.Undo, QKeySequence.StandardKey.Redo
            ours = event.key() in (Qt.Key.Key_Y, Qt.Key.Key_K)
            if event.matches(undo) or event.matches(redo) or (ours and with_ctrl(event)):
                event.ignore()
                return False
        return super().event(event)


def with_ctrl(event: QKeyEvent) -> bool:
    """Whether a key was pressed with Ctrl."""
    return bool(event.modifiers() & Qt.KeyboardModifier.ControlModifier)


def _alt_alone(event: QKeyEvent) -> bool:
    """Whether Alt was held: with Ctrl it stands for the third level of some keyboards."""
    return bool(event.modifiers() & Qt.KeyboardModifier.AltModifier) and not with_ctrl(event)

"""The guide over the window: type what is looked for, read what is found."""

from __future__ import annotations

from collections.abc import Callable

from PyQt6.QtCore import Qt
from PyQt6.QtGui import QKeyEvent, QTextCharFormat, QTextCursor
from PyQt6.QtWidgets import QFrame, QTextBrowser, QTextEdit, QVBoxLayout, QWidget

from vadrin.app.overview.guide import GuidePart, parts_about
from vadrin.ui.theme.look import TONES
from vadrin.ui.theme.roles import Role
from vadrin.ui.theme.typeface import px, role_font
from vadrin.ui.widgets.keyboard import KeyboardBefore
from vadrin.ui.widgets.labels import text
from vadrin.ui.widgets.line_field import Field
from vadrin.ui.widgets.overlay import Overlay

_WIDTH, _TOP = 720, 30


class GuideView(Overlay):
    """A field and, under it, the parts of the guide that hold the words in it."""

    def __init__(self, parent: QWidget, otherwise: Callable[[], object]) -> None:
        super().__init__(parent)
        self._keyboard = KeyboardBefore(otherwise)
        self.setAccessibleName("guide")
        column = QVBoxLayout(self)
        column.setContentsMargins(px(18), px(14), px(10), px(14))
        self.field = Field()
        self.field.setAccessibleName("what to look up")
        self.field.setPlaceholderText("what to look up: type a word or two")
        self.field.textChanged.connect(self._show_found)
        self.none = text("Nothing in the guide has all of these words. Try one of them.", Role.NOTE)
        self.page = QTextBrowser()
        self.page.setAccessibleName("what the guide says")
        self.page.setFrameShape(QFrame.Shape.NoFrame)
        self.page.setOpenLinks(False)
        for part in (self.field, self.none, self.page):
            column.addWidget(part)
        self.hide()

    def toggle(self) -> None:
        """Show the guide, or put it away."""
        if self.isVisible():
            self.leave()
            return
        self.field.setFont(role_font(Role.LARGE))
        self.page.setFont(role_font(Role.LEAD))
        self.field.clear()
        self._show_found("")
        parent = self.parentWidget()
        if parent is not None:
            width = min(px(_WIDTH), parent.width() - px(20))
            height = parent.height() - 2 * px(_TOP)
            self.setGeometry((parent.width() - width) // 2, px(_TOP), width, height)
            self._keyboard.remember()
        self.show()
        self.raise_()
        self.field.setFocus()

    def leave(self) -> None:
        """Put it away, and the keyboard back."""
        self.hide()
        self._keyboard.give_back()

    def _show_found(self, typed: str) -> None:
        found = parts_about(typed)
        self.none.setVisible(not found)
        self.page.setMarkdown("\n\n".join(map(_markdown, found)))
        self.page.setExtraSelections([s for word in typed.split() for s in self._marked(word)])

    def _marked(self, word: str) -> list[QTextEdit.ExtraSelection]:
        """Every place of a word, under the line that marks where one is."""
        document, made = self.page.document(), []
        how = QTextCharFormat()
        how.setUnderlineStyle(QTextCharFormat.UnderlineStyle.SingleUnderline)
        how.setUnderlineColor(self.palette().color(TONES["here"]))
        at = QTextCursor(document)
        while document is not None:
            at = document.find(word, at)
            if at.isNull():
                break
            one = QTextEdit.ExtraSelection()
            one.cursor, one.format = at, how
            made.append(one)
        return made

    def keyPressEvent(self, event: QKeyEvent | None) -> None:
        """Esc puts it away; the page is scrolled from the field."""
        bar = self.page.verticalScrollBar()
        steps = {
            Qt.Key.Key_Down: px(40),
            Qt.Key.Key_Up: -px(40),
            Qt.Key.Key_PageDown: self.page.height() - px(40),
            Qt.Key.Key_PageUp: px(40) - self.page.height(),
        }
        if event is not None and event.key() == Qt.Key.Key_Escape:
            self.leave()
        elif event is not None and bar is not None and event.key() in steps:
            bar.setValue(bar.value() + steps[Qt.Key(event.key())])
        else:
            super().keyPressEvent(event)


def _markdown(part: GuidePart) -> str:
    return f"### {part.head}\n\n{part.words}"

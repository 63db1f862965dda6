"""Lines to type in, and words of a sentence that are changed in place."""

from __future__ import annotations

from collections.abc import Callable
from contextlib import suppress
from typing import ClassVar
from weakref import WeakSet

from PyQt6 import sip
from PyQt6.QtCore import QEvent, QSize, Qt, pyqtSignal
from PyQt6.QtGui import (
    QFocusEvent,
    QKeyEvent,
    QKeySequence,
    QMouseEvent,
    QPainter,
    QPaintEvent,
    QPalette,
    QResizeEvent,
)
from PyQt6.QtWidgets import QLineEdit, QSizePolicy, QStyle, QStyleOptionFrame

from vadrin.app.entry.stepping import StepWord
from vadrin.ui.theme.look import TONES
from vadrin.ui.theme.roles import Role
from vadrin.ui.theme.typeface import px, role_font
from vadrin.ui.widgets.input_watch import InputWatch
from vadrin.ui.widgets.tips import set_tip

_WIDEST = 460
"""Pixels at scale 1 that a word takes at most; a longer one gives up its middle."""


_PRESSED = (QEvent.Type.KeyPress, QEvent.Type.ShortcutOverride)


def _with_ctrl(event: QKeyEvent) -> bool:
    return bool(event.modifiers() & Qt.KeyboardModifier.ControlModifier)


def _stay(words: str, _way: int) -> str:
    return words


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
        self.returnPressed.connect(self.selectAll)

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
        wanted = palette.color(TONES["grease" if self.wrong else ""])
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

    def event(self, event: QEvent | None) -> bool:
        """Let the window have Ctrl+Z, Ctrl+Y and Ctrl+K."""
        if isinstance(event, QKeyEvent) and event.type() == QEvent.Type.ShortcutOverride:
            undo, redo = QKeySequence.StandardKey.Undo, QKeySequence.StandardKey.Redo
            ours = event.key() in (Qt.Key.Key_Y, Qt.Key.Key_K)
            if event.matches(undo) or event.matches(redo) or (ours and _with_ctrl(event)):
                event.ignore()
                return False
        return super().event(event)


class NextKey(InputWatch):
    """Lets go of what was refused at the next key; looks only while something refused is shown."""

    def __init__(self) -> None:
        super().__init__(self._look)

    def _look(self, event: QEvent) -> None:
        """Drop the refusals; a key of the window comes as an asking only, one with Ctrl is no
        word."""
        if not isinstance(event, QKeyEvent) or event.type() not in _PRESSED or _with_ctrl(event):
            return
        self.end()
        for field in [f for f in WordField.showing_refused if not sip.isdeleted(f)]:
            field.forget_refusal()


class WordField(Field):
    """A word in a sentence that is changed in place: typed, or stepped by the arrow keys.

    It shows what is in force. A word that is refused stands beside it, with the reason, until the
    next key; only where nothing is in force yet it stays, marked, to be mended.

    Parameters
    ----------
    name : str
        What it is, for screen readers and the tool tip.
    commit : callable
        Takes the typed text; raises ValueError with words to refuse it.
    step : callable, optional
        Takes the present text and +1 or -1, returns the next text.
    """

    word = True
    _margins = (1, 0, 1, 2)
    refused = pyqtSignal(str)
    showing_refused: ClassVar[WeakSet[WordField]] = WeakSet()
    """Fields of which a refusal is shown."""
    _next_key: ClassVar[NextKey | None] = None

    def __init__(
        self,
        name: str,
        commit: Callable[[str], None],
        step: StepWord | None = None,
        role: Role = Role.LARGE,
    ) -> None:
        super().__init__()
        self._commit, self._step, self._shown = commit, step, ""
        self._refused: str | None = None
        self._typing = False
        self.why_refused = ""
        self.setAccessibleName(name)
        hint = "type, or press the up and down arrows" if step else "type"
        self._hint = f"{name}: {hint}"
        set_tip(self, self._hint)
        self.setFont(role_font(role, bold=True))
        self.textChanged.connect(self._fit)
        self.editingFinished.connect(self.settle)
        self.setSizePolicy(QSizePolicy.Policy.Fixed, QSizePolicy.Policy.Fixed)

    def show_value(self, shown: str) -> None:
        """Show a value that was accepted; refused words stay while the value is the same, and so
        do words that are being typed when something else is worked out meanwhile."""
        if (self.why_refused or self._typing) and shown == self._shown:
            return
        self._shown = shown
        self._accept()
        if self.text() != shown:
            self.setText(shown)
            if self.hasFocus():
                self.selectAll()
            else:
                self.setCursorPosition(0)

    @property
    def unsent(self) -> bool:
        """Whether it shows words that were not taken: half typed, or refused."""
        return self._typing or bool(self.why_refused)

    @property
    def unsent_words(self) -> str:
        """The words that were not taken."""
        return self._refused if self.why_refused and self._refused is not None else self.text()

    def take_back(self, words: str, why_refused: str) -> None:
        """Show words again that were half typed, or refused, before it was made anew."""
        self.setText(words)
        self._typing = not why_refused
        if why_refused:
            self._show_refused(words, why_refused)

    def settle(self) -> None:
        """Hand the typed text on; what is refused is said, with the reason."""
        self._typing = False
        if self.text() in (self._shown, self._refused):
            return
        before, self._refused, self.why_refused = self.text(), None, ""
        try:
            self._commit(self.text())
        except ValueError as error:
            # The same words are not tried again when the field is left, or the window closed.
            self._show_refused(before, str(error))
            return
        self._accept()
        self.refused.emit("")

    def _show_refused(self, words: str, why: str) -> None:
        said = why if words in why else f"“{words}” was not taken: {why}"
        self._refused, self.why_refused = words, said
        WordField.showing_refused.add(self)
        self._mark(True)
        set_tip(self, f"{self.accessibleName()}: {said}")
        if self._shown:
            self.setText(self._shown)
            self._typing = False
            if WordField._next_key is None or sip.isdeleted(WordField._next_key):
                WordField._next_key = NextKey()
            WordField._next_key.begin()
        self.selectAll()
        self.refused.emit(said)

    def forget_refusal(self) -> None:
        """Say no more of a word that was refused, where another is in force."""
        if self.why_refused and self._shown:
            self._accept()
            self.refused.emit("")

    def drop_refused(self) -> None:
        """Show the accepted value again in the place of refused words."""
        if self.why_refused:
            self._accept()
            self.setText(self._shown)

    def _accept(self) -> None:
        self._typing = False
        self._refused, self.why_refused = None, ""
        WordField.showing_refused.discard(self)
        self._mark(False)
        whole = f"{self._shown}\n" if self.shown_short() else ""
        set_tip(self, f"{whole}{self._hint}")

    def resizeEvent(self, event: QResizeEvent | None) -> None:
        """Tell the whole where it is not seen."""
        super().resizeEvent(event)
        if not self.why_refused and not self._typing:
            self._accept()

    def keyPressEvent(self, event: QKeyEvent | None) -> None:
        """Step by the arrow keys, drop the typing by Escape."""
        if event is None:
            return
        moves = {Qt.Key.Key_Up: 1, Qt.Key.Key_Down: -1}
        if event.key() in moves and self._step is not None:
            self._take_step(moves[Qt.Key(event.key())])
        elif event.key() == Qt.Key.Key_Escape and self.text() != self._shown:
            self._accept()
            self.setText(self._shown)
            self.selectAll()
            self.refused.emit("")
        else:
            if event.key() in (Qt.Key.Key_Return, Qt.Key.Key_Enter):
                # Asked for again, refused words are tried again: the reason may be gone.
                self._refused = None
                super().keyPressEvent(event)
                # It was this field's: the page under it does nothing with it.
                event.accept()
                # What is typed next takes the place of what was taken.
                self.selectAll()
                return
            super().keyPressEvent(event)

    def _take_step(self, way: int) -> None:
        # From words that mean nothing here there is no next; settling says why.
        with suppress(ValueError):
            self.setText((self._step or _stay)(self.text(), way))
        self.settle()

    def _mark(self, wrong: bool) -> None:
        if self.wrong != wrong:
            self.mark_wrong(wrong)

    def _fit(self) -> None:
        self._typing = self.hasFocus() and self.text() != self._shown
        self.updateGeometry()

    def sizeHint(self) -> QSize:
        """As wide as its words, and never wider than a line of the window."""
        width = self.fontMetrics().horizontalAdvance(self.text() or "  ") + px(10)
        return QSize(min(max(px(18), width), px(_WIDEST)), super().sizeHint().height())

    def minimumSizeHint(self) -> QSize:
        """A few letters; longer words give up their middle."""
        few = self.fontMetrics().horizontalAdvance("mmmm…mmm")
        return QSize(min(self.sizeHint().width(), few), super().minimumSizeHint().height())

    def shown_short(self) -> bool:
        """Whether its middle is left out while nobody types in it."""
        return self.fontMetrics().horizontalAdvance(self.text()) + px(4) > self.width()

    def paintEvent(self, event: QPaintEvent | None) -> None:
        """Draw the words, their middle left out where they are longer than the field."""
        if self.hasFocus() or not self.shown_short():
            super().paintEvent(event)
            return
        painter = QPainter(self)
        option = QStyleOptionFrame()
        self.initStyleOption(option)
        style = self.style()
        if style is not None:
            style.drawPrimitive(QStyle.PrimitiveElement.PE_PanelLineEdit, option, painter, self)
        room = self.width() - px(4)
        shown = self.fontMetrics().elidedText(self.text(), Qt.TextElideMode.ElideMiddle, room)
        painter.setPen(self.palette().color(self.foregroundRole()))
        painter.drawText(self.rect().adjusted(px(2), 0, 0, 0), Qt.AlignmentFlag.AlignVCenter, shown)

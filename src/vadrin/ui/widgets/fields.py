"""Lines to type in, and words of a sentence that are changed in place."""

from __future__ import annotations

from collections.abc import Callable
from contextlib import suppress
from typing import ClassVar
from weakref import WeakSet

from PyQt6 import sip
from PyQt6.QtCore import QEvent, QSize, Qt, pyqtSignal
from PyQt6.QtGui import QKeyEvent, QPainter, QPaintEvent, QResizeEvent
from PyQt6.QtWidgets import QSizePolicy, QStyle, QStyleOptionFrame

from vadrin.app.display.region import local_typed
from vadrin.app.entry.stepping import StepWord
from vadrin.ui.theme.regional import write
from vadrin.ui.theme.roles import Role
from vadrin.ui.theme.typeface import px, role_font
from vadrin.ui.widgets.input_watch import InputWatch
from vadrin.ui.widgets.line_field import Field, with_ctrl
from vadrin.ui.widgets.tips import set_tip

_WIDEST = 460
"""Pixels at scale 1 that a word takes at most; a longer one gives up its middle."""


_PRESSED = (QEvent.Type.KeyPress, QEvent.Type.ShortcutOverride)


def _stay(words: str, _way: int) -> str:
    return words


class NextKey(InputWatch):
    """Lets go of what was refused at the next key; looks only while something refused is shown."""

    def __init__(self) -> None:
        super().__init__(self._look)

    def _look(self, event: QEvent) -> None:
        """Drop the refusals; a key of the window comes as an asking only, one with Ctrl is no
        word."""
        if not isinstance(event, QKeyEvent) or event.type() not in _PRESSED or with_ctrl(event):
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
        # Without its name, which a reader has said before.
        self.setAccessibleDescription("up and down arrows change it" if step else "type a value")
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
        shown = local_typed(shown)
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
        write(painter, self.rect().adjusted(px(2), 0, 0, 0), Qt.AlignmentFlag.AlignVCenter, shown)

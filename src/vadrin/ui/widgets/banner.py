"""What there is to decide or to wait for, under the header."""

from __future__ import annotations

from collections.abc import Callable
from functools import partial

from PyQt6.QtCore import Qt
from PyQt6.QtGui import QKeyEvent
from PyQt6.QtWidgets import QApplication, QHBoxLayout, QPushButton, QVBoxLayout, QWidget

from vadrin.ui.theme.look import TONES
from vadrin.ui.theme.roles import Role
from vadrin.ui.theme.typeface import px, role_font
from vadrin.ui.widgets.buttons import button
from vadrin.ui.widgets.keyboard import KeyboardBefore
from vadrin.ui.widgets.labels import rule, text

Remedy = tuple[str, Callable[[], object]]


class Banner(QWidget):
    """Says one thing, with buttons for what can be done about it.

    It takes the keyboard, and gives it back when it goes.

    Parameters
    ----------
    otherwise : callable
        Puts the keyboard where the work begins, where what had it is gone.
    """

    def __init__(self, otherwise: Callable[[], object]) -> None:
        super().__init__()
        self._keyboard = KeyboardBefore(otherwise)
        self.setAccessibleName("notice")
        column = QVBoxLayout(self)
        column.setContentsMargins(px(14), px(10), px(14), 0)
        self._words = text("", Role.ALARM, wrap=True)
        self._more = text("", Role.BODY, wrap=True)
        self._row = QHBoxLayout()
        self._acts: list[QPushButton] = []
        self._working, self._of_test = False, False
        self._row.addStretch(1)
        column.addWidget(self._words)
        column.addWidget(self._more)
        column.addLayout(self._row)
        column.addWidget(rule())
        self.hide()

    def ask(
        self, words: str, more: str, acts: list[Remedy], close: str = "Close", of_test: bool = True
    ) -> None:
        """Say something with buttons for what can be done about it."""
        self._working, self._of_test = False, of_test
        self._show(words, more, [*acts, (close, lambda: None)])
        self._acts[0].setFocus()

    def tell(self, words: str, more: str) -> None:
        """Answer a question about the test on the bench: nothing is amiss."""
        self.ask(words, more, [], "Close")
        self._words.setForegroundRole(TONES[""])

    def complain(self, words: str) -> None:
        """Say what went wrong with a file."""
        self.ask(words, "", [], "Close", of_test=False)

    def working(self, words: str, stop_words: str, stop: Callable[[], object]) -> None:
        """Say how far some work has come, with a button that stops it."""
        if self._working:
            self._words.setText(words)
            return
        self._show(words, "", [(stop_words, stop)])
        self._working = True
        self._acts[0].setFocus()

    def keyPressEvent(self, event: QKeyEvent | None) -> None:
        """Esc leaves what is asked; work under way is only stopped by its button."""
        if event is not None and event.key() == Qt.Key.Key_Escape and not self._working:
            self.close_notice()
        else:
            super().keyPressEvent(event)

    def rescale(self) -> None:
        """Take on the text scale."""
        self._words.setFont(role_font(Role.ALARM))
        self._more.setFont(role_font(Role.BODY))
        for made in self._acts:
            made.setFont(role_font(Role.BODY))

    def leave_test(self) -> None:
        """Say no more of a test that is left; work under way, and files, go on being told."""
        if self._of_test and not self._working:
            self.close_notice()

    def close_notice(self) -> None:
        """Say nothing more."""
        self._working = False
        had_keyboard = self.isAncestorOf(QApplication.focusWidget() or self)
        self.hide()
        if had_keyboard:
            self._keyboard.give_back()

    def _show(self, words: str, more: str, acts: list[Remedy]) -> None:
        if not self.isVisible():
            self._keyboard.remember()
        self._words.setText(words)
        self._words.setForegroundRole(TONES[Role.ALARM.tone])
        self._more.setText(more)
        self._more.setVisible(bool(more))
        for old in self._acts:
            self._row.removeWidget(old)
            old.hide()
            old.deleteLater()
        self._acts = [button(name, partial(self._do, act)) for name, act in acts]
        for place, made in enumerate(self._acts):
            self._row.insertWidget(place, made)
        self.show()

    def _do(self, act: Callable[[], object]) -> None:
        self.close_notice()
        act()

"""One line that asks: for words to type, or for one of a few numbered ways."""

from __future__ import annotations

from collections.abc import Callable, Sequence

from PyQt6.QtWidgets import QHBoxLayout, QWidget

from vadrin.ui.theme.roles import Role
from vadrin.ui.theme.typeface import px, role_font
from vadrin.ui.widgets.fields import Field
from vadrin.ui.widgets.labels import text


class AskLine(QWidget):
    """Hidden until something is asked.

    Parameters
    ----------
    refuse : callable
        Says why an answer was not taken; empty clears it.
    done : callable
        Called when the line is closed, to take the keyboard back.
    """

    def __init__(self, refuse: Callable[[str], None], done: Callable[[], None]) -> None:
        super().__init__()
        self._refuse, self._done = refuse, done
        self._taking: Callable[[str], None] | None = None
        self._choices: dict[int, Callable[[], object]] = {}
        row = QHBoxLayout(self)
        row.setContentsMargins(0, 0, 0, 0)
        self.prompt = text("", Role.LEAD_STRONG, wrap=True)
        self.answer = Field()
        self.answer.setFont(role_font(Role.LARGE))
        self.answer.setFixedWidth(px(300))
        self.answer.returnPressed.connect(self._answered)
        row.addWidget(self.prompt, 1)
        row.addWidget(self.answer)
        self.hide()

    def ask(self, words: str, begin: str, taking: Callable[[str], None]) -> None:
        """Ask for a line of text; Enter gives it to `taking`, which may raise to refuse it."""
        self._refuse("")
        self._choices, self._taking = {}, taking
        self.prompt.setText(words)
        self.answer.setVisible(True)
        self.answer.setText(begin)
        self.show()
        self.answer.setFocus()
        self.answer.selectAll()

    def choose(self, words: str, choices: Sequence[tuple[str, Callable[[], object]]]) -> None:
        """Ask for one of a few ways, picked by its number."""
        lines = [f"{i}  {said}" for i, (said, _) in enumerate(choices, start=1)]
        self.prompt.setText("\n".join([words, *lines, "Esc  leave it so"]))
        self._choices = {i: act for i, (_, act) in enumerate(choices, start=1)}
        self.answer.hide()
        self.show()
        self._done()

    def pick(self, number: int) -> bool:
        """Do the way with a number; False where there is none."""
        act = self._choices.get(number)
        if act is None:
            return False
        self.close_line()
        act()
        return True

    def close_line(self) -> None:
        """Ask no more."""
        self._choices, self._taking = {}, None
        self.hide()
        self._refuse("")
        self._done()

    def _answered(self) -> None:
        taking = self._taking
        if taking is None:
            return
        try:
            taking(self.answer.text())
        except ValueError as error:
            self._refuse(str(error))
            self.answer.selectAll()
            return
        if self._taking is taking and not self._choices:
            self.close_line()

"""One line that asks: for words to type, or for one of a few numbered ways."""

from __future__ import annotations

from collections.abc import Callable, Mapping
from dataclasses import dataclass

from PyQt6.QtWidgets import QHBoxLayout, QWidget

from vadrin.ui.theme.roles import Role
from vadrin.ui.theme.typeface import px, role_font
from vadrin.ui.widgets.labels import text
from vadrin.ui.widgets.line_field import Field


@dataclass(frozen=True)
class Asked:
    """A question that stands open.

    Attributes
    ----------
    words : str
    begin : str
        What stands in the line at first.
    takes : str
        Names what takes the words that are typed; empty where a number is to be picked.
    ways : tuple
        The numbered ways: each its words, what does it by name, and what that is given.
    """

    words: str
    begin: str = ""
    takes: str = ""
    ways: tuple[tuple[str, str, tuple[object, ...]], ...] = ()


class AskLine(QWidget):
    """Hidden until something is asked.

    Parameters
    ----------
    asked : callable
        Gives the question that stands open, or None.
    keep : callable
        Takes the question that is to stand open, or None.
    refuse : callable
        Says why an answer was not taken; empty clears it.
    done : callable
        Called when the line is closed, to take the keyboard back.
    """

    def __init__(
        self,
        asked: Callable[[], Asked | None],
        keep: Callable[[Asked | None], None],
        refuse: Callable[[str], None],
        done: Callable[[], None],
    ) -> None:
        super().__init__()
        self._asked, self._keep, self._refuse, self._done = asked, keep, refuse, done
        self.acts: Mapping[str, Callable[..., object]] = {}
        """What can be asked for, by its name."""
        self._shown: Asked | None = None
        row = QHBoxLayout(self)
        row.setContentsMargins(0, 0, 0, 0)
        self.prompt = text("", Role.LEAD_STRONG, wrap=True)
        self.answer = Field()
        self.answer.setAccessibleName("answer")
        self.answer.setFont(role_font(Role.LARGE))
        self.answer.setFixedWidth(px(300))
        self.answer.returnPressed.connect(self._answered)
        row.addWidget(self.prompt, 1)
        row.addWidget(self.answer)
        self.hide()

    def ask(self, asked: Asked) -> None:
        """Ask something; a typed answer goes to what takes it, which may raise to refuse it."""
        self._refuse("")
        self._keep(asked)
        self.show_asked()
        if asked.takes:
            self.answer.setFocus()
            self.answer.selectAll()
        else:
            self._done()

    def show_asked(self) -> None:
        """Show what stands open; nothing where nothing does."""
        asked = self._asked()
        self.setVisible(asked is not None)
        if asked is None or asked == self._shown:
            self._shown = asked
            return
        self._shown = asked
        lines = [f"{i}  {said}" for i, (said, _, _) in enumerate(asked.ways, start=1)]
        ends = ["Esc  cancel"] if asked.ways else []
        self.prompt.setText("\n".join([asked.words, *lines, *ends]))
        self.answer.setVisible(bool(asked.takes))
        self.answer.setText(asked.begin)

    def pick(self, number: int) -> bool:
        """Do the way with a number; False where there is none."""
        asked = self._asked()
        if asked is None or not 1 <= number <= len(asked.ways):
            return False
        _, act, given = asked.ways[number - 1]
        self.close_line()
        self.acts[act](*given)
        return True

    def close_line(self) -> None:
        """Ask no more."""
        self._keep(None)
        self.show_asked()
        self._refuse("")
        self._done()

    def _answered(self) -> None:
        asked = self._asked()
        if asked is None or not asked.takes:
            return
        try:
            self.acts[asked.takes](self.answer.text())
        except ValueError as error:
            self._refuse(str(error))
            self.answer.selectAll()
            return
        if self._asked() is asked:
            self.close_line()

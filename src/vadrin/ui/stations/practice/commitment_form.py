"""What a tester says of a practice film before its envelope is opened."""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import replace

from PyQt6.QtWidgets import QVBoxLayout, QWidget

from vadrin.app.document.workbench import Workbench
from vadrin.app.practice.commitment import (
    Commitment,
    belief_range_typed,
    belief_typed,
    commit,
    commitment_of,
)
from vadrin.app.practice.practice_questions import QUESTIONS, Question
from vadrin.errors import EntryError, VadrinError
from vadrin.ui.theme.typeface import px
from vadrin.ui.widgets.fields import WordField
from vadrin.ui.widgets.sentence import sentence

_NOT_SET = "not set"


class CommitmentForm(QWidget):
    """A sentence for each figure that is asked, with the range one is nine in ten sure of.

    Parameters
    ----------
    bench : Workbench
    refuse : callable
        Says why something typed was not taken.
    """

    def __init__(self, bench: Workbench, refuse: Callable[[str], None]) -> None:
        super().__init__()
        self.bench = bench
        every = QUESTIONS.values()
        self.values = {q.key: WordField(f"my {q.field}", self._setter(q)) for q in every}
        self.ranges = {q.key: WordField(f"range of my {q.field}", self._ranger(q)) for q in every}
        self.wrong = WordField("what went wrong", self._set_wrong)
        for field in (*self.values.values(), *self.ranges.values(), self.wrong):
            field.refused.connect(refuse)
        column = QVBoxLayout(self)
        column.setContentsMargins(0, 0, 0, 0)
        column.setSpacing(px(6))
        self._lines: dict[str, QWidget] = {}
        for q in every:
            self._lines[q.key] = sentence(
                q.before,
                self.values[q.key],
                f"{q.after}, nine in ten sure of",
                self.ranges[q.key],
                ".",
            )
            column.addWidget(self._lines[q.key])
        column.addWidget(sentence("What went wrong:", self.wrong, "."))
        self._asked: tuple[Question, ...] = ()

    def show_said(self, said: Commitment, asked: tuple[Question, ...]) -> None:
        """Show what was said so far of what is asked."""
        self._asked = asked
        for key, line in self._lines.items():
            line.setVisible(QUESTIONS[key] in asked)
        for q in asked:
            belief = said.of(q.key)
            ends = [_shown(q, end) for end in (belief.low, belief.high)]
            self.values[q.key].show_value(_shown(q, belief.value))
            self.ranges[q.key].show_value(" to ".join(ends) if belief.low is not None else _NOT_SET)
        self.wrong.show_value(said.went_wrong or "nothing")

    def take_focus(self) -> None:
        """Begin at the first figure."""
        if self._asked:
            self.values[self._asked[0].key].setFocus()

    def _setter(self, q: Question) -> Callable[[str], None]:
        def put(words: str) -> None:
            said = commitment_of(self.bench.notebook.path)
            belief = belief_typed(words, said.of(q.key), q.measure.read)
            self._commit(said.believing(q.key, belief))

        return put

    def _ranger(self, q: Question) -> Callable[[str], None]:
        def put(words: str) -> None:
            said = commitment_of(self.bench.notebook.path)
            belief = belief_range_typed(words, said.of(q.key), q.measure.read)
            self._commit(said.believing(q.key, belief))

        return put

    def _set_wrong(self, words: str) -> None:
        said = commitment_of(self.bench.notebook.path)
        plain = "" if words.strip() == "nothing" else words.strip()
        self._commit(replace(said, went_wrong=plain[:2000]))

    def _commit(self, said: Commitment) -> None:
        try:
            commit(self.bench.notebook.path, said)
        except EntryError:
            raise
        except VadrinError as error:
            raise EntryError(str(error)) from error
        self.show_said(said, self._asked)


def _shown(q: Question, value: float | None) -> str:
    return _NOT_SET if value is None else q.measure.typed(value)

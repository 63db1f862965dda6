"""What a tester says of a practice film before its envelope is opened."""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import replace

from PyQt6.QtWidgets import QVBoxLayout, QWidget

from vadrin.app.display.marks import marked_ei
from vadrin.app.display.quantities import minutes_text
from vadrin.app.document.workbench import Workbench
from vadrin.app.practice.commitment import (
    READERS,
    Belief,
    Commitment,
    belief_range_typed,
    belief_typed,
    commit,
    commitment_of,
)
from vadrin.errors import EntryError, VadrinError
from vadrin.ui.theme.typeface import px
from vadrin.ui.widgets.fields import WordField
from vadrin.ui.widgets.sentence import sentence

_NAMES = {"index": "EI", "time_min": "time", "push_min": "time of push 1"}
_NOT_SET = "not set"


class CommitmentForm(QWidget):
    """A sentence: EI, time and push, each with the range one is nine in ten sure of.

    Parameters
    ----------
    bench : Workbench
    refuse : callable
        Says why something typed was not taken.
    """

    def __init__(self, bench: Workbench, refuse: Callable[[str], None]) -> None:
        super().__init__()
        self.bench = bench
        self.values = {
            name: WordField(f"my {said}", self._setter(name)) for name, said in _NAMES.items()
        }
        self.ranges = {
            name: WordField(f"range of my {said}", self._ranger(name))
            for name, said in _NAMES.items()
        }
        self.wrong = WordField("what went wrong", self._set_wrong)
        for field in (*self.values.values(), *self.ranges.values(), self.wrong):
            field.refused.connect(refuse)
        v, r = self.values, self.ranges
        column = QVBoxLayout(self)
        column.setContentsMargins(0, 0, 0, 0)
        column.setSpacing(px(6))
        column.addWidget(sentence("I say EI", v["index"], ", nine in ten sure of", r["index"], "."))
        column.addWidget(
            sentence("Develop", v["time_min"], "min, nine in ten sure of", r["time_min"], ".")
        )
        column.addWidget(
            sentence("A push of one stop", v["push_min"], "min, sure of", r["push_min"], ".")
        )
        column.addWidget(sentence("What went wrong:", self.wrong, "."))

    def show_said(self, said: Commitment) -> None:
        """Show what was said so far."""
        for name in _NAMES:
            belief: Belief = getattr(said, name)
            shown = _shown(name, belief.value)
            ends = [_shown(name, end) for end in (belief.low, belief.high)]
            self.values[name].show_value(shown)
            self.ranges[name].show_value(" to ".join(ends) if belief.low else _NOT_SET)
        self.wrong.show_value(said.went_wrong or "nothing")

    def take_focus(self) -> None:
        """Begin at the EI."""
        self.values["index"].setFocus()

    def _setter(self, name: str) -> Callable[[str], None]:
        def put(words: str) -> None:
            said = commitment_of(self.bench.notebook.path)
            belief = belief_typed(words, getattr(said, name), READERS[name])
            self._commit(said.believing(name, belief))

        return put

    def _ranger(self, name: str) -> Callable[[str], None]:
        def put(words: str) -> None:
            said = commitment_of(self.bench.notebook.path)
            belief = belief_range_typed(words, getattr(said, name), READERS[name])
            self._commit(said.believing(name, belief))

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
        self.show_said(said)


def _shown(name: str, value: float | None) -> str:
    if value is None:
        return _NOT_SET
    return f"{marked_ei(value):g}" if name == "index" else minutes_text(value)

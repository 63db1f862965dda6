"""Half-covered strips: is a frame lighter than the blank? The EI of the paper method."""

from __future__ import annotations

from collections.abc import Callable
from functools import partial

from PyQt6.QtGui import QKeyEvent
from PyQt6.QtWidgets import QHBoxLayout, QVBoxLayout, QWidget

from vadrin.app.display.verdict_words import answer_words
from vadrin.app.display.words import capital
from vadrin.app.document.workbench import Workbench
from vadrin.app.loaded.loaded_test import LoadedStrip, LoadedTest
from vadrin.app.practice.practice_devices import halves
from vadrin.app.practice.practice_place import is_practice
from vadrin.app.printing.half_covered import (
    PRINT_TOLD,
    CoveredQuestion,
    answer_covered,
    covered_question,
)
from vadrin.app.results.print_ei import covered_strips
from vadrin.errors import EntryError, VadrinError
from vadrin.ui.plots.true_patches import Patch, TruePatches
from vadrin.ui.stations.station import ViewState
from vadrin.ui.theme.look import Look
from vadrin.ui.theme.roles import Role
from vadrin.ui.theme.typeface import px
from vadrin.ui.widgets.buttons import button
from vadrin.ui.widgets.labels import rule, text

_KEYS = {"y": PRINT_TOLD[0], "n": PRINT_TOLD[1], "t": PRINT_TOLD[2]}


class CoveredPage(QWidget):
    """The next half-covered strip, three answers, and what they come to.

    Parameters
    ----------
    bench : Workbench
    refuse : callable
    """

    def __init__(self, bench: Workbench, refuse: Callable[[str], None]) -> None:
        super().__init__()
        self.bench, self._refuse = bench, refuse
        self._loaded: LoadedTest | None = None
        self._strip: LoadedStrip | None = None
        self._asked: CoveredQuestion | None = None
        self._ask = text("", Role.TIME, wrap=True)
        self._patches = TruePatches()
        row = QHBoxLayout()
        self.answers = []
        for key, words in _KEYS.items():
            made = button(
                f"{capital(answer_words(words))} ({key.upper()})", partial(self.say, words)
            )
            self.answers.append(made)
            row.addWidget(made)
        row.addStretch(1)
        self._so_far = text("", Role.NOTE, wrap=True)
        self._result = text("", Role.SUBHEADING, wrap=True)
        column = QVBoxLayout(self)
        column.setContentsMargins(0, 0, 0, 0)
        column.setSpacing(px(10))
        column.addWidget(self._ask)
        column.addWidget(self._patches)
        column.addLayout(row)
        column.addWidget(self._so_far)
        column.addWidget(rule())
        column.addWidget(self._result)
        column.addStretch(1)

    def show_state(self, scene: ViewState) -> None:
        """Show the next strip of the film whose frame is selected."""
        loaded, place = scene.loaded, self.bench.selected()
        if loaded is None or not loaded.strips:
            return
        self._loaded, self._strip = loaded, place[0] if place else loaded.strips[0]
        book = self.bench.notebook
        self._asked = covered_question(book, loaded, self._strip)
        self._ask.setText(self._asked.words)
        self._show_patches(scene.look)
        for made in self.answers:
            made.setVisible(self._asked.frame is not None)
        frames = {f.frame.id: f.number for f in self._strip.frames}
        said = [
            f"frame {frames.get(s.frame_id or 0, '?')} {answer_words(s.answer)}"
            for s in covered_strips(loaded, self._strip)
        ]
        self._so_far.setText(f"So far: {', '.join(said)}." if said else "")
        self._result.setText(self._asked.result)

    def _show_patches(self, look: Look) -> None:
        """In the practice room the paper lies on the screen."""
        loaded, strip, asked = self._loaded, self._strip, self._asked
        shown: tuple[Patch, ...] = ()
        if is_practice(self.bench.notebook.path) and strip and asked and asked.frame and loaded:
            try:
                made = halves(self.bench.notebook, loaded, strip, asked.frame)
                shown = ((asked.frame.called, made[0]), ("blank", made[1])) if made else ()
            except VadrinError as error:
                self._refuse(f"{capital(str(error))}.")
        self._patches.show_patches(shown, look)

    def say(self, told: str) -> None:
        """Keep an answer."""
        loaded, strip, asked = self._loaded, self._strip, self._asked
        if loaded is None or strip is None or asked is None or asked.frame is None:
            return
        frame = asked.frame
        try:
            self.bench.edit_or_raise(lambda b: answer_covered(b, loaded, strip, frame, told))
        except EntryError as error:
            self._refuse(str(error))

    def take_key(self, event: QKeyEvent) -> bool:
        """One key answers."""
        told = _KEYS.get(event.text().lower())
        if told is None:
            return False
        self.say(told)
        return True

"""The light box: one frame at a time beside the blank, one key for the answer."""

from __future__ import annotations

from collections.abc import Callable
from functools import partial

from PyQt6.QtGui import QKeyEvent
from PyQt6.QtWidgets import QHBoxLayout, QVBoxLayout, QWidget

from vadrin.app.display.words import capital
from vadrin.app.document.workbench import Workbench
from vadrin.app.entry.stepping import chooser
from vadrin.app.learning.eye_learnt import eye_learnt, eye_words
from vadrin.app.loaded.loaded_test import LoadedStrip
from vadrin.app.practice.practice_devices import beside_the_blank
from vadrin.app.practice.practice_place import is_practice
from vadrin.app.read.light_box_judging import (
    NO,
    UNSURE,
    WAYS,
    YES,
    EyeQuestion,
    EyeTold,
    answer_question,
    answers_words,
    begin_again,
    own_threshold,
    question_of,
    type_own_threshold,
    viewing_of,
    way_typed,
)
from vadrin.core.learning.known_eye import KnownEye
from vadrin.errors import VadrinError
from vadrin.ui.kept import OfTest
from vadrin.ui.plots.true_patches import Patch, TruePatches
from vadrin.ui.stations.station import ViewState
from vadrin.ui.theme.look import Look
from vadrin.ui.theme.roles import Role
from vadrin.ui.theme.typeface import px
from vadrin.ui.widgets.buttons import button
from vadrin.ui.widgets.fields import WordField
from vadrin.ui.widgets.labels import rule, text
from vadrin.ui.widgets.sentence import sentence

_SAME_EYE = 0.002
"""Density within which two thresholds are one."""


class LightBoxPage(QWidget):
    """Asks for the frame that tells most, and says what the answers come to.

    Parameters
    ----------
    bench : Workbench
    refuse : callable
        Says why something typed was not taken.
    """

    _way: OfTest[str] = OfTest(str)

    def __init__(self, bench: Workbench, refuse: Callable[[str], None]) -> None:
        super().__init__()
        self.bench = bench
        self._strip: LoadedStrip | None = None
        self._question: EyeQuestion | None = None
        self._eye: KnownEye | None = None
        self.way = WordField(
            "how it is looked at", self._choose, chooser(lambda: list(WAYS)), role=Role.LEAD
        )
        self.eye = WordField("smallest density I can see", self._own, role=Role.LEAD)
        for field in (self.way, self.eye):
            field.refused.connect(refuse)
        self._known = text("", Role.ESTIMATED, wrap=True)
        self.take_known = button("Use it", self._take_known, link=True)
        self._head = text("", Role.HEADING, wrap=True)
        self._ask = text("", Role.TIME, wrap=True)
        self._patches = TruePatches()
        self.answers = {
            told: button(words, partial(self.answer, told), primary=told is YES)
            for told, words in ((YES, "Yes (Y)"), (NO, "No (N)"), (UNSURE, "Not sure (T)"))
        }
        row = QHBoxLayout()
        for made in self.answers.values():
            row.addWidget(made)
        row.addStretch(1)
        self._so_far = text("", Role.NOTE, wrap=True)
        self._result = text("", Role.SUBHEADING, wrap=True)
        self._gain = text("", Role.NOTE, wrap=True)
        self.again = button("Restart this strip", self._begin_again, link=True)
        column = QVBoxLayout(self)
        column.setContentsMargins(0, 0, 0, 0)
        column.setSpacing(px(10))
        column.addWidget(
            sentence(
                "I look",
                self.way,
                "; the smallest density I can see is",
                self.eye,
                "above clear film.",
                role=Role.LEAD,
            )
        )
        column.addWidget(self._known)
        column.addWidget(self.take_known)
        column.addWidget(self._head)
        column.addWidget(self._ask)
        column.addWidget(self._patches)
        column.addLayout(row)
        column.addWidget(self._so_far)
        column.addWidget(rule())
        column.addWidget(self._result)
        column.addWidget(self._gain)
        column.addWidget(self.again)
        column.addStretch(1)

    def show_state(self, scene: ViewState) -> None:
        """Show the question of the strip whose frame is selected."""
        place, loaded = self.bench.selected(), scene.loaded
        if place is None or loaded is None:
            return
        strip = place[0]
        if self._strip is None or self._strip.strip.id != strip.strip.id:
            self._way = viewing_of(strip).value
        self._strip, self._question = strip, question_of(loaded, strip)
        asked = self._question
        self.way.show_value(self._way)
        own = own_threshold(self.bench.notebook)
        self.eye.show_value("usual" if own is None else f"{own:g}")
        self._show_known(own)
        self._head.setText(f"Strip {strip.strip.label}")
        self._ask.setText(asked.words)
        self._show_patches(scene.look)
        for made in self.answers.values():
            made.setVisible(asked.frame is not None)
        self._so_far.setText(answers_words(strip))
        self._result.setText(asked.result)
        self._gain.setText(asked.gain)
        self.again.setVisible(bool(asked.result))

    def _show_known(self, own: float | None) -> None:
        """Offer what is known of this eye, where another value is in force."""
        eye = eye_learnt(self.bench.notebook, self._way)
        new = eye is not None and (own is None or abs(own - eye.threshold) > _SAME_EYE)
        self._eye = eye if new else None
        self._known.setText(eye_words(eye) if eye is not None and new else "")
        for part in (self._known, self.take_known):
            part.setVisible(new)

    def _take_known(self) -> None:
        eye = self._eye
        if eye is not None:
            self._own(f"{eye.threshold:.3f}")

    def _show_patches(self, look: Look) -> None:
        """In the practice room the film lies on the screen, and the tester's own eye answers."""
        strip, asked, loaded = self._strip, self._question, self.bench.loaded
        shown: tuple[Patch, ...] = ()
        if is_practice(self.bench.notebook.path) and strip and asked and asked.frame and loaded:
            try:
                made = beside_the_blank(self.bench.notebook.path, loaded, strip, asked.frame)
                shown = ((asked.frame.called, made[0]), ("blank", made[1]))
            except VadrinError as error:
                self._ask.setText(f"{capital(str(error))}.")
        self._patches.show_patches(shown, look)

    def take_key(self, event: QKeyEvent) -> bool:
        """One key answers."""
        told = {"y": YES, "n": NO, "t": UNSURE}.get(event.text().lower())
        if told is None or self._question is None or self._question.frame is None:
            return False
        self.answer(told)
        return True

    def answer(self, told: EyeTold) -> None:
        """Keep an answer and go on to the next frame."""
        strip, asked, way = self._strip, self._question, self._way
        if strip is None or asked is None or asked.frame is None:
            return
        frame = asked.frame
        self.bench.edit(lambda book: answer_question(book, strip, frame, told, way))
        self.point_out()

    def point_out(self) -> None:
        """Mark the frame that is asked for on the light table."""
        loaded, strip = self.bench.loaded, self._strip
        if loaded is None or strip is None:
            return
        fresh = next((s for s in loaded.strips if s.strip.id == strip.strip.id), strip)
        asked = question_of(loaded, fresh).frame
        if asked is not None:
            self.bench.select(asked.frame.id)

    def _begin_again(self) -> None:
        strip = self._strip
        if strip is not None:
            self.bench.edit(lambda book: begin_again(book, strip))

    def _own(self, words: str) -> None:
        self.bench.edit_or_raise(lambda book: type_own_threshold(book, words))

    def _choose(self, words: str) -> None:
        self._way = way_typed(words)

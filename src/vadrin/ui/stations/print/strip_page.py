"""Test strips: what to give, counted down; the choice by number; what the next one should be."""

from __future__ import annotations

from collections.abc import Callable

from PyQt6.QtCore import Qt
from PyQt6.QtGui import QKeyEvent
from PyQt6.QtWidgets import QHBoxLayout, QVBoxLayout, QWidget

from vadrin.app.display.words import capital
from vadrin.app.document.workbench import Workbench
from vadrin.app.entry.stepping import chooser
from vadrin.app.loaded.loaded_test import LoadedTest
from vadrin.app.practice.practice_devices import section_tones
from vadrin.app.practice.practice_place import is_practice
from vadrin.app.printing.print_setups import black_words, present_room, seconds_text
from vadrin.app.printing.print_strips import (
    BLACK,
    PURPOSES,
    WAYS_TO_COVER,
    AskedStrip,
    choose_piece,
    exposures_of,
    make_strip,
    next_strip,
    step_words,
    strip_typed,
    type_densities,
)
from vadrin.errors import EntryError, VadrinError
from vadrin.ui.kept import OfTest
from vadrin.ui.stations.print.countdown import Countdown, Counted
from vadrin.ui.stations.print.paper_strip import PaperStrip
from vadrin.ui.stations.station import ViewState
from vadrin.ui.theme.roles import Role
from vadrin.ui.theme.typeface import px
from vadrin.ui.widgets.buttons import button
from vadrin.ui.widgets.fields import WordField
from vadrin.ui.widgets.labels import text
from vadrin.ui.widgets.sentence import sentence
from vadrin.ui.widgets.sound_cues import Cue

_WORDS = ("purpose", "first section", "sections", "step", "covering")


class StripPage(QWidget):
    """One strip after the other, each from what was chosen on the last.

    Parameters
    ----------
    bench : Workbench
    refuse : callable
        Says why something typed was not taken.
    cue : Cue
    take_keys : callable
        Takes the keyboard, so that a number chooses a section.
    """

    _asked: OfTest[AskedStrip | None] = OfTest(lambda: None)
    _after: OfTest[int | None] = OfTest(lambda: None)
    _count: OfTest[Counted] = OfTest(Counted)

    def __init__(
        self,
        bench: Workbench,
        refuse: Callable[[str], None],
        cue: Cue,
        take_keys: Callable[[], object],
    ) -> None:
        super().__init__()
        self._take_keys = take_keys
        self.bench, self._refuse = bench, refuse
        self._loaded: LoadedTest | None = None
        self.fields = {name: self._field(name) for name in _WORDS}
        self.densities = WordField("reflection densities", self._read, role=Role.LEAD)
        for field in (*self.fields.values(), self.densities):
            field.refused.connect(refuse)
        self.countdown = Countdown(cue, lambda: self._count)
        self.countdown.over.connect(self.exposed)
        self.paper = PaperStrip()
        self.start = button("Start countdown (Space)", self.press, primary=True)
        self.done = button("Mark as exposed", self.exposed)
        self._given = text("", Role.BODY, wrap=True)
        self._ask = text("", Role.LEAD_STRONG, wrap=True)
        self._result = text("", Role.SUBHEADING, wrap=True)
        self._lay_out()

    def _field(self, name: str) -> WordField:
        known: dict[str, tuple[str, ...]] = {"purpose": PURPOSES, "covering": WAYS_TO_COVER}
        steps = chooser(lambda: list(known.get(name, ())))
        return WordField(f"{name} of the strip", self._typing(name), steps, role=Role.LEAD)

    def _lay_out(self) -> None:
        f = self.fields
        column = QVBoxLayout(self)
        column.setContentsMargins(0, 0, 0, 0)
        column.setSpacing(px(7))
        column.addWidget(
            sentence(
                "A strip for",
                f["purpose"],
                ":",
                f["sections"],
                "sections, the first",
                f["first section"],
                ", each",
                f["step"],
                "more,",
                f["covering"],
                ".",
                role=Role.LEAD,
            )
        )
        column.addWidget(self._given)
        column.addWidget(self.paper)
        row = QHBoxLayout()
        row.addWidget(self.start)
        row.addWidget(self.done)
        row.addStretch(1)
        column.addLayout(row)
        column.addWidget(self.countdown, 1)
        column.addWidget(self._ask)
        column.addWidget(sentence("Or its sections read", self.densities, ".", role=Role.LEAD))
        column.addWidget(self._result)

    def show_state(self, scene: ViewState) -> None:
        """Show the strip that is to be made, or the one to choose on."""
        loaded = scene.loaded
        if loaded is None:
            return
        self._loaded = loaded
        room = present_room(self.bench.notebook, loaded)
        strips = [s for s in room.strips if s.purpose in PURPOSES]
        waiting = strips[-1] if strips and strips[-1].chosen is None else None
        key = (strips[-1].id * 2 + (waiting is None)) if strips else -loaded.test.id
        if self._asked is None or key != self._after:
            before = self._asked.purpose if self._asked and strips else BLACK
            purpose = strips[-1].purpose if waiting else before
            self._asked, self._after = next_strip(room, purpose), key
        asked, shown = self._asked, self._asked.exposures
        if waiting is not None:
            shown = exposures_of(waiting)
        values = {
            "purpose": asked.purpose,
            "first section": seconds_text(asked.exposures.base_s),
            "sections": str(asked.exposures.pieces),
            "step": step_words(asked.exposures),
            "covering": str(asked.way),
        }
        for name, words in values.items():
            self.fields[name].show_value(words)
        self._given.setText(f"{asked.given_words}\n{asked.totals_words}")
        tones = self._tones(loaded, shown.totals(), asked.purpose) if waiting else ()
        self.paper.show_strip(shown.totals(), None, scene.look, tones)
        self.countdown.load(() if waiting else asked.exposures.given(asked.way), scene.look)
        self.countdown.setVisible(waiting is None)
        self.start.setVisible(waiting is None)
        self.done.setVisible(waiting is None)
        self._ask.setText(self._question(asked, waiting is not None))
        self._result.setText(black_words(room.setup))
        self.densities.show_value("—")

    def _tones(
        self, loaded: LoadedTest, seconds: tuple[float, ...], purpose: str
    ) -> tuple[float, ...]:
        """What the sections have become, in the practice room; nothing anywhere else."""
        if not is_practice(self.bench.notebook.path):
            return ()

        try:
            path = self.bench.notebook.path
            return section_tones(path, loaded, seconds, purpose == BLACK)
        except VadrinError as error:
            self._refuse(f"{capital(str(error))}.")
            return ()

    @staticmethod
    def _question(asked: AskedStrip, waiting: bool) -> str:
        if not waiting:
            return ""
        if asked.purpose == BLACK:
            return "Which is the first section that matches the next one? Press its number."
        return "Which section looks best? Press its number."

    def _typing(self, name: str) -> Callable[[str], None]:
        def take(words: str) -> None:
            if self._asked is not None:
                self._asked = strip_typed(self._asked, name, words)
                self._refresh()

        return take

    def _refresh(self) -> None:
        if self._loaded is not None:
            look = self.countdown._look
            self.show_state(ViewState(self.bench.state, self.bench.frame_id, look))

    def press(self) -> None:
        """Begin the next exposure, or break the one that runs off."""
        self.countdown.press()

    def exposed(self) -> None:
        """Write down that the strip was made."""
        loaded, asked = self._loaded, self._asked
        if loaded is not None and asked is not None:
            self.countdown.rest()
            self.bench.edit(lambda book: make_strip(book, loaded, asked))
            # The button that was pressed goes; the next key is the number of a section.
            self._take_keys()

    def choose(self, piece: int) -> None:
        """Keep the section that was chosen."""
        loaded = self._loaded
        if loaded is None:
            return
        try:
            said = self.bench.edit_or_raise(lambda book: choose_piece(book, loaded, piece))
            self._refuse("")
            self.bench.said.emit(str(said))
        except EntryError as error:
            self._refuse(str(error))

    def _read(self, words: str) -> None:
        loaded = self._loaded
        if loaded is not None and words.strip() not in ("", "—"):
            said = self.bench.edit_or_raise(lambda book: type_densities(book, loaded, words))
            self.bench.said.emit(str(said))

    def take_key(self, event: QKeyEvent) -> bool:
        """Space counts; a number chooses."""
        if event.key() == Qt.Key.Key_Space and self.start.isVisibleTo(self):
            self.press()
            return True
        if event.text() and event.text() in "123456789":
            self.choose(int(event.text()))
            return True
        return False

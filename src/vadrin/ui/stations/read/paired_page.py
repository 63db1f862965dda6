"""Side by side: another strip beside the reference, openly or blind."""

from __future__ import annotations

from collections.abc import Callable
from functools import partial
from random import Random

from PyQt6.QtGui import QKeyEvent
from PyQt6.QtWidgets import QHBoxLayout, QVBoxLayout, QWidget

from vadrin.app.document.workbench import Workbench
from vadrin.app.entry.choices import choice_typed
from vadrin.app.entry.stepping import chooser
from vadrin.app.loaded.loaded_test import LoadedTest
from vadrin.app.read.paired_judging import (
    PAIRED_KEYS,
    PAIRED_QUALITIES,
    Pair,
    keep_paired,
    paired_lines,
    pairs_of,
)
from vadrin.app.scans.kept_scans import scans_of
from vadrin.ui.kept import OfTest
from vadrin.ui.stations.read.pair_view import PairView
from vadrin.ui.stations.station import ViewState
from vadrin.ui.theme.roles import Role
from vadrin.ui.theme.typeface import px
from vadrin.ui.widgets.buttons import button
from vadrin.ui.widgets.fields import WordField
from vadrin.ui.widgets.labels import rule, text
from vadrin.ui.widgets.sentence import sentence

_HOW = (
    "Lay the two beside each other, the same frame of each, or their prints. Say of the second "
    "whether it has less or more of what is asked. O lays their pictures one over the other."
)
_ALONE = "There is one strip: nothing to lay beside it. Compare plans more than one."


class PairedPage(QWidget):
    """A pair, what is asked of it, five answers, and what all answers come to.

    Parameters
    ----------
    bench : Workbench
    refuse : callable
        Says why something typed was not taken.
    """

    _pairs: OfTest[tuple[Pair, ...]] = OfTest(tuple)
    _at: OfTest[int] = OfTest(int)
    _quality: OfTest[str] = OfTest(lambda: PAIRED_QUALITIES[0])

    def __init__(self, bench: Workbench, refuse: Callable[[str], None]) -> None:
        super().__init__()
        self.bench = bench
        self.chance = Random()
        self._loaded: LoadedTest | None = None
        self._scene: ViewState | None = None
        known = chooser(lambda: list(PAIRED_QUALITIES))
        self.quality = WordField("what is asked of the pair", self._ask, known, role=Role.LEAD)
        self.quality.refused.connect(refuse)
        self._head = text("", Role.TIME, wrap=True)
        self._results = text("", Role.BODY, wrap=True)
        self._view = PairView()
        self.blind = button("Start blind comparison", self.begin_blind)
        answers = QHBoxLayout()
        self.answers = []
        for key, answer in PAIRED_KEYS.items():
            made = button(f"{key}  {answer}", partial(self.say, answer))
            self.answers.append(made)
            answers.addWidget(made)
        answers.addStretch(1)
        column = QVBoxLayout(self)
        column.setContentsMargins(0, 0, 0, 0)
        column.setSpacing(px(8))
        column.addWidget(text(_HOW, Role.NOTE, wrap=True))
        row = QHBoxLayout()
        row.addWidget(sentence("Asked of", self.quality, ".", role=Role.LEAD), 1)
        row.addWidget(self.blind)
        column.addLayout(row)
        column.addWidget(self._head)
        column.addLayout(answers)
        column.addWidget(self._view, 1)
        column.addWidget(rule())
        column.addWidget(self._results)
        column.addStretch(0)

    def show_state(self, scene: ViewState) -> None:
        """Show the pair that is asked about."""
        loaded = scene.loaded
        if loaded is None:
            return
        self._loaded, self._scene = loaded, scene
        if not (self._pairs and self._pairs[0].blind):
            self._pairs = pairs_of(loaded, False, self.chance)
            self._at = min(self._at, max(0, len(self._pairs) - 1))
        self.quality.show_value(self._quality)
        self._show(scene)

    def _show(self, scene: ViewState) -> None:
        loaded, pair = self._loaded, self._pair()
        for made in (*self.answers, self.blind):
            made.setEnabled(pair is not None)
        if loaded is None or pair is None:
            self._head.setText(_ALONE)
            self._results.setText("")
            self._view.hide()
            return
        first, second = pair.names
        place = f" ({self._at + 1} of {len(self._pairs)})" if len(self._pairs) > 1 else ""
        begin = f"{second[:1].upper()}{second[1:]}"
        self._head.setText(f"{begin} beside {first}{place}: {self._quality}?")
        self.blind.setText("End and show names" if pair.blind else "Start blind comparison")
        sealed = "Sealed until the round is over; frames' names stay out of sight till then."
        lines = () if pair.blind else paired_lines(loaded)
        self._results.setText(sealed if pair.blind else "\n".join(lines) or "Nothing judged yet.")
        self._view.show_pair(self._previews(pair), pair.names, scene.look)

    def _pair(self) -> Pair | None:
        return self._pairs[self._at] if self._at < len(self._pairs) else None

    def _previews(self, pair: Pair) -> tuple[bytes, ...]:
        book = self.bench.notebook
        both = [pair.reference, pair.other]
        kept = [scans_of(book, s) for s in (reversed(both) if pair.turned else both)]
        return tuple(k[-1].data for k in kept if k)

    def begin_blind(self) -> None:
        """Shuffle the pairs and hide which is which; or break the seal."""
        pair, loaded = self._pair(), self._loaded
        if pair is None or loaded is None:
            return
        self._pairs, self._at = pairs_of(loaded, not pair.blind, self.chance), 0
        self.bench.said.emit("A blind round." if not pair.blind else "The seal is broken.")
        self._refresh()

    def _refresh(self) -> None:
        if self._scene is not None:
            self._show(self._scene)

    def say(self, answer: str) -> None:
        """Keep an answer and go on; the last one of a blind round breaks the seal."""
        pair, quality = self._pair(), self._quality
        if pair is None:
            return
        last = self._at + 1 >= len(self._pairs)
        self._at = 0 if last else self._at + 1
        if last and pair.blind:
            self._pairs = ()
        self.bench.edit(lambda book: keep_paired(book, pair, quality, answer))

    def take_key(self, event: QKeyEvent) -> bool:
        """One key answers; O lays one over the other."""
        if event.text().lower() == "o":
            self._view.turn_over()
            return True
        answer = PAIRED_KEYS.get(event.text())
        if answer is None:
            return False
        self.say(answer)
        return True

    def _ask(self, words: str) -> None:
        self._quality = choice_typed(words, PAIRED_QUALITIES, anywhere=True)
        self.quality.show_value(self._quality)
        self._refresh()

"""Verdicts on the selected frame, a key each, and faults with their place."""

from __future__ import annotations

from collections.abc import Callable
from functools import partial

from PyQt6.QtGui import QKeyEvent
from PyQt6.QtWidgets import QGridLayout, QHBoxLayout, QVBoxLayout, QWidget

from vadrin.app.display.verdict_words import answer_words
from vadrin.app.document.workbench import Workbench
from vadrin.app.entry.stepping import chooser
from vadrin.app.loaded.loaded_test import LoadedFrame
from vadrin.app.read.verdict_entry import (
    FAULT_NAMES,
    SCALE_LINES,
    VERDICT_KEYS,
    fault_shown,
    faults_words,
    forget_faults,
    give_verdict,
    share_words,
    type_fault,
    usable_share,
    verdict_of,
)
from vadrin.ui.stations.station import ViewState
from vadrin.ui.theme.roles import Role
from vadrin.ui.theme.typeface import px
from vadrin.ui.widgets.buttons import button
from vadrin.ui.widgets.fields import WordField
from vadrin.ui.widgets.labels import rule, text
from vadrin.ui.widgets.sentence import sentence

_NONE = "none"


class VerdictPage(QWidget):
    """What was said of the frame, the keys that say it, and its faults.

    Parameters
    ----------
    bench : Workbench
    refuse : callable
        Says why something typed was not taken.
    """

    def __init__(self, bench: Workbench, refuse: Callable[[str], None]) -> None:
        super().__init__()
        self.bench = bench
        self._frame: LoadedFrame | None = None
        self._title = text("", Role.HEADING)
        grid = QGridLayout()
        grid.setHorizontalSpacing(px(22))
        grid.setVerticalSpacing(px(8))
        grid.setColumnStretch(2, 1)
        self._said = {}
        for row, (asked, _) in enumerate(SCALE_LINES):
            grid.addWidget(text(asked, Role.LABEL), row, 0)
            self._said[asked] = text("", Role.SUBHEADING)
            grid.addWidget(self._said[asked], row, 1)
            grid.addLayout(self._keys(asked), row, 2)
        self.fault = WordField(
            "fault of the frame",
            self._fault,
            chooser(lambda: [_NONE, *FAULT_NAMES]),
            role=Role.LEAD,
        )
        self.fault.refused.connect(refuse)
        self._faults = text("", Role.BODY, wrap=True)
        self._share = text("", Role.LEAD_STRONG, wrap=True)
        column = QVBoxLayout(self)
        column.setContentsMargins(0, 0, 0, 0)
        column.setSpacing(px(10))
        column.addWidget(self._title)
        column.addLayout(grid)
        column.addWidget(rule())
        column.addWidget(
            sentence(
                "Its fault is", self.fault, "(with its place: streaks lower edge).", role=Role.LEAD
            )
        )
        column.addWidget(self._faults)
        column.addWidget(rule())
        column.addWidget(self._share)
        column.addStretch(1)

    def _keys(self, asked: str) -> QHBoxLayout:
        """A button for every answer, with its key."""
        row = QHBoxLayout()
        row.setSpacing(px(16))
        for key, (question, answer) in VERDICT_KEYS.items():
            if question == asked:
                act = partial(self.say, asked, answer)
                row.addWidget(button(f"{key}  {answer_words(answer)}", act, link=True))
        row.addStretch(1)
        return row

    def show_state(self, scene: ViewState) -> None:
        """Show the selected frame."""
        place, loaded = self.bench.selected(), scene.loaded
        if place is None or loaded is None:
            return
        strip, frame = place
        self._frame = frame
        self._title.setText(f"Strip {strip.strip.label}, {frame.called}")
        for asked, label in self._said.items():
            label.setText(answer_words(verdict_of(frame, asked)) or "—")
        self.fault.show_value(fault_shown(frame) or _NONE)
        self._faults.setText(faults_words(frame))
        share = usable_share(loaded)
        self._share.setText(f"{share_words(share)}." if share else "No overall verdict yet.")

    def take_key(self, event: QKeyEvent) -> bool:
        """One key gives a verdict."""
        said = VERDICT_KEYS.get(event.text().upper())
        if said is None:
            return False
        self.say(*said)
        return True

    def say(self, asked: str, answer: str) -> None:
        """Keep a verdict on the selected frame."""
        frame = self._frame
        if frame is not None:
            self.bench.edit(lambda book: give_verdict(book, frame, asked, answer))

    def _fault(self, words: str) -> None:
        frame = self._frame
        if frame is None:
            return
        if words.strip().lower() in ("", _NONE):
            self.bench.edit_or_raise(lambda book: forget_faults(book, frame))
        else:
            self.bench.edit_or_raise(lambda book: type_fault(book, frame, words))

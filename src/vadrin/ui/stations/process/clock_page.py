"""The clock of the Process station: one button for what comes next, and a note of temperature."""

from __future__ import annotations

from PyQt6.QtCore import QTimer
from PyQt6.QtGui import QHideEvent, QShowEvent
from PyQt6.QtWidgets import QHBoxLayout, QVBoxLayout, QWidget

from vadrin.app.entry.densities import temperature_typed
from vadrin.app.process.clock_words import face_words, next_pull
from vadrin.app.process.darkroom_runs import (
    Clock,
    Happened,
    Run,
    begin_run,
    clock_before,
    clock_of,
    confirm_run,
    note_event,
    run_under_way,
)
from vadrin.app.process.uptime import moment_now
from vadrin.app.test_sheet import TestSheet
from vadrin.app.workbench import Workbench
from vadrin.errors import EntryError
from vadrin.ui.stations.process.clock_face import ClockFace
from vadrin.ui.theme.look import DAY, Look
from vadrin.ui.theme.roles import Role
from vadrin.ui.theme.typeface import px
from vadrin.ui.widgets.buttons import button
from vadrin.ui.widgets.fields import WordField
from vadrin.ui.widgets.labels import text
from vadrin.ui.widgets.sentence import sentence
from vadrin.ui.widgets.sound_cues import Cue

_TICK_MS = 200


class ClockPage(QWidget):
    """Runs the steps of a process by the clock; every press is in the file at once.

    Parameters
    ----------
    bench : Workbench
    cue : Cue
        Sounds for the next act.
    """

    def __init__(self, bench: Workbench, cue: Cue) -> None:
        super().__init__()
        self._bench, self._cue = bench, cue
        self._sheet: TestSheet | None = None
        self._run: Run | None = None
        self._clock: Clock | None = None
        self._look: Look = DAY
        self._seen = -1.0
        self.face = ClockFace()
        self.main = button("Start the clock", self.go_on, primary=True)
        self.pause = button("Pause", self.hold)
        self.stop = button("Stop here", self.end)
        self.take = button("Write these times down", self.confirm)
        self.warmth = WordField("temperature of the bath", self._note_temperature, role=Role.LEAD)
        self.warmth.refused.connect(self._refuse)
        self.refusal = text("", Role.REFUSAL, wrap=True)
        row = QHBoxLayout()
        for part in (self.main, self.pause, self.stop, self.take):
            row.addWidget(part)
        row.addStretch(1)
        column = QVBoxLayout(self)
        column.setContentsMargins(0, 0, 0, 0)
        column.setSpacing(px(8))
        column.addWidget(self.face, 1)
        column.addWidget(sentence("The bath is at", self.warmth, "°C now.", role=Role.LEAD))
        column.addWidget(self.refusal)
        column.addLayout(row)
        self._timer = QTimer(self)
        self._timer.timeout.connect(self.tick)

    def show_scene(self, sheet: TestSheet, look: Look) -> None:
        """Show the run of a test, as its events have it."""
        self._sheet, self._look = sheet, look
        self._run = run_under_way(self._bench.notebook, sheet.test.id, moment_now())
        self._load()
        self.tick()

    def _load(self) -> None:
        if self._sheet is None:
            return
        book, now = self._bench.notebook, moment_now()
        if self._run is not None:
            self._clock = clock_of(book, self._run, now)
        else:
            self._clock = clock_before(book, self._sheet)
        noted = [e.value for e in self._clock.events if e.what is Happened.TEMPERATURE]
        self.warmth.show_value(f"{noted[-1]:g}" if noted and noted[-1] is not None else "—")

    def tick(self) -> None:
        """Show this moment."""
        if self._clock is None:
            return
        now = moment_now().uptime
        state = self._clock.at(now)
        words = face_words(self._clock, now)
        self.face.show_words(words, self._look)
        over = state.stopped or not self._clock.events
        self.main.setText(words.main)
        self.main.setVisible(not state.stopped)
        self.pause.setText("Go on" if state.paused else "Pause")
        self.pause.setVisible(not over and self._clock.steps[state.step].may_pause)
        self.stop.setVisible(not over)
        self.take.setVisible(bool(self._clock.developments(now)))
        self.warmth.setEnabled(not over)
        acts = self._clock.acts_of(state.step)
        passed = any(self._seen < act.at <= state.elapsed_s for act in acts)
        if passed and state.running and self._seen >= 0:
            self._cue.next(turned=True)
        self._seen = state.elapsed_s if state.running else -1.0

    def go_on(self) -> None:
        """Start, or take the next strip out, or go on to the next step."""
        sheet, now = self._sheet, moment_now()
        if sheet is None or self._clock is None:
            return
        if self._run is None:
            self._bench.edit(lambda book: begin_run(book, sheet, now))
            return
        state = self._clock.at(now.uptime)
        strip = next_pull(self._clock, state)
        last = state.step + 1 == len(self._clock.steps)
        what = Happened.PULL if strip else Happened.STOP if last else Happened.NEXT
        self._seen = -1.0
        self._note(what, strip=strip)

    def hold(self) -> None:
        """Pause, where the chemistry allows it, or go on."""
        if self._clock is not None:
            paused = self._clock.at(moment_now().uptime).paused
            try:
                self._note(Happened.RESUME if paused else Happened.PAUSE)
            except EntryError as error:
                self._refuse(str(error))

    def end(self) -> None:
        """Stop the run here."""
        self._note(Happened.STOP)

    def confirm(self) -> None:
        """Write what the clock saw to the strips."""
        run, now = self._run, moment_now()
        if run is None:
            return
        labels = self._bench.edit(lambda book: confirm_run(book, run, now))
        if labels:
            self._bench.said.emit(f"Written down: what strips {', '.join(labels)} got.")

    def _note(self, what: Happened, value: float | None = None, strip: str = "") -> None:
        run, now = self._run, moment_now()
        if run is not None:
            self._bench.edit_or_raise(lambda book: note_event(book, run, now, what, value, strip))

    def _note_temperature(self, words: str) -> None:
        self._note(Happened.TEMPERATURE, temperature_typed(words))

    def _refuse(self, words: str) -> None:
        self.refusal.setText(words)

    def showEvent(self, event: QShowEvent | None) -> None:
        """Run while it can be seen."""
        super().showEvent(event)
        self._timer.start(_TICK_MS)

    def hideEvent(self, event: QHideEvent | None) -> None:
        """Rest; the events know what time it is."""
        super().hideEvent(event)
        self._timer.stop()

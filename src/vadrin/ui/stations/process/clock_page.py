"""The clock of the Process station: one button for what comes next, and a note of temperature."""

from __future__ import annotations

import math
from collections.abc import Callable
from functools import partial

from PyQt6.QtCore import Qt, QTimer
from PyQt6.QtGui import QHideEvent, QShowEvent
from PyQt6.QtWidgets import QHBoxLayout, QPushButton, QVBoxLayout, QWidget

from vadrin.app.document.workbench import Workbench
from vadrin.app.entry.densities import temperature_typed
from vadrin.app.instruments import THERMOMETER
from vadrin.app.loaded.loaded_test import LoadedTest
from vadrin.app.practice.practice_place import is_practice
from vadrin.app.process.bath import bath_words, note_bath
from vadrin.app.process.clock_words import face_words, next_pull
from vadrin.app.process.darkroom_runs import (
    Clock,
    Run,
    RunEventType,
    begin_run,
    clock_before,
    clock_of,
    confirm_run,
    note_event,
    run_under_way,
    write_usual_steps,
)
from vadrin.app.process.running_clocks import (
    RunningClock,
    hands_needed_in,
    next_act_in,
    running_clocks,
)
from vadrin.app.process.uptime import PACE, moment_now
from vadrin.errors import EntryError
from vadrin.ui.ears import Ears
from vadrin.ui.stations.listen_button import ListenButton
from vadrin.ui.stations.process.clock_face import ClockFace
from vadrin.ui.stations.station import ViewState
from vadrin.ui.theme.look import DAY, Look
from vadrin.ui.theme.roles import Role
from vadrin.ui.theme.typeface import px, role_font
from vadrin.ui.widgets.buttons import button
from vadrin.ui.widgets.fields import WordField
from vadrin.ui.widgets.labels import text
from vadrin.ui.widgets.sentence import sentence

_TICK_MS = 200
_FAST, _FAST_TICK_MS, _SLOWS_S = 60.0, 60, 10.0
"""How much faster the practice room's time may run, how often it is looked at then, and how long
before an act of the hands it goes as usual."""


class ClockPage(QWidget):
    """Runs the steps of a process by the clock; every press is in the file at once.

    Parameters
    ----------
    bench : Workbench
    ears : Ears
        Listen to the thermometer, and to the clocks.
    open_clock : callable
        Goes to the clock of another test.
    """

    def __init__(self, bench: Workbench, ears: Ears, open_clock: Callable[[int], object]) -> None:
        super().__init__()
        self.bench, self._ears, self._open_clock = bench, ears, open_clock
        self._loaded: LoadedTest | None = None
        self._run: Run | None = None
        self._clock: Clock | None = None
        self._look: Look = DAY
        self._running: tuple[RunningClock, ...] = ()
        self.face = ClockFace()
        self.main = button("Start the clock", self.go_on, primary=True)
        self.pause = button("Pause", self.hold)
        self.fast = button("Run fast to the next act", self.run_fast)
        self.stop = button("End run", self.end)
        self.take = button("Record these times", self.confirm)
        self.warmth = WordField("temperature of the bath", self._note_temperature, role=Role.LEAD)
        self.warmth.refused.connect(self._refuse)
        self.refusal = text("", Role.REFUSAL, wrap=True)
        listening = ListenButton(THERMOMETER, ears, self._refuse)
        self.probe = listening.link
        row = QHBoxLayout()
        for part in (self.main, self.fast, self.pause, self.stop, self.take):
            row.addWidget(part)
        row.addStretch(1)
        column = QVBoxLayout(self)
        column.setContentsMargins(0, 0, 0, 0)
        column.setSpacing(px(8))
        # The buttons first: in large type they must not lie below the fold.
        column.addLayout(row)
        column.addWidget(self.face, 1)
        bath = QHBoxLayout()
        bath.addWidget(sentence("The bath is at", self.warmth, "°C now.", role=Role.LEAD), 1)
        bath.addWidget(listening)
        self.steps = button("Copy its steps to Cupboard", self._own_steps, link=True)
        bath.addWidget(self.steps)
        column.addLayout(bath)
        self._bath = text("", Role.BODY, wrap=True)
        column.addWidget(self._bath)
        column.addWidget(self.refusal)
        self._others = QHBoxLayout()
        column.addLayout(self._others)
        self._timer = QTimer(self)
        self._timer.setTimerType(Qt.TimerType.PreciseTimer)
        self._timer.timeout.connect(self.tick)
        ears.heard.connect(self._load)

    def show_state(self, scene: ViewState) -> None:
        """Show the run of a test, as its events have it."""
        loaded, look = scene.loaded, scene.look
        if loaded is None:
            return
        self._loaded, self._look = loaded, look
        self._run = run_under_way(self.bench.notebook, loaded.test.id, moment_now())
        self._load()
        self.tick()

    def _load(self) -> None:
        if self._loaded is None:
            return
        book, now = self.bench.notebook, moment_now()
        if self._run is not None:
            self._clock = clock_of(book, self._run, now)
        else:
            self._clock = clock_before(book, self._loaded)
        self._running = running_clocks(book, now)
        self._show_others()
        noted = [e.value for e in self._clock.events if e.what is RunEventType.TEMPERATURE]
        warmth = noted[-1] if noted else self._clock.bath_c
        self.warmth.show_value("—" if warmth is None else f"{warmth:g}")
        asleep = self._ears.sleep_trouble if self._clock.events else ""
        self._bath.setText(f"{bath_words(self._loaded)} {asleep}".strip())
        self._bath.setVisible(not self._clock.at(now.uptime).stopped)

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
        self._show_pace(now, not over)
        self.take.setVisible(bool(self._clock.developments(now)))
        self.warmth.setEnabled(not state.stopped)
        self.steps.setVisible(not self._clock.events)
        self._look_again(now)

    def _show_pace(self, now: float, running: bool) -> None:
        """In the practice room time may run fast, until shortly before the hands are needed."""
        left = hands_needed_in(self._clock, now) if self._clock is not None else 0.0
        if PACE.times > 1.0 and left < _SLOWS_S:
            PACE.go(1.0)
        practising = running and is_practice(self.bench.notebook.path)
        self.fast.setVisible(practising and PACE.times == 1.0 and left > 2 * _SLOWS_S)

    def run_fast(self) -> None:
        """Let the practice room's time run sixty times as fast, to the next act of the hands."""
        PACE.go(_FAST)
        self.tick()

    def _look_again(self, now: float) -> None:
        """Show the other clocks, and look again when the next act is due or a second is over."""
        for place, each in enumerate(c for c in self._running if not self._mine(c)):
            item = self._others.itemAt(place)
            link = item.widget() if item else None
            if isinstance(link, QPushButton):
                link.setText(each.words(now))
                link.setFont(role_font(Role.ALARM if each.overdue(now) else Role.BODY))
        due = next_act_in(self._running, now)
        whole = self._clock.at(now).left_s % 1.0 if self._clock is not None else 0.0
        wait = max(1, math.ceil(1000 * min(whole or 1.0, 1.0 if due is None else due)))
        wait = _FAST_TICK_MS if PACE.times > 1.0 else wait
        if self._timer.isActive():
            self._timer.setInterval(wait)

    def _mine(self, clock: RunningClock) -> bool:
        return self._loaded is not None and clock.test_id == self._loaded.test.id

    def _show_others(self) -> None:
        """A link to every other clock that runs."""
        while self._others.count():
            item = self._others.takeAt(0)
            link = item.widget() if item else None
            if link is not None:
                link.deleteLater()
        for each in self._running:
            if not self._mine(each):
                to_it = partial(self._open_clock, each.test_id)
                self._others.addWidget(button(each.film, to_it, link=True))
        if self._others.count():
            self._others.addStretch(1)

    def _own_steps(self) -> None:
        loaded = self._loaded
        if loaded is None:
            return
        try:
            said = self.bench.edit_or_raise(lambda book: write_usual_steps(book, loaded))
            self.bench.said.emit(str(said))
        except EntryError as error:
            self._refuse(str(error))

    def go_on(self) -> None:
        """Start, or take the next strip out, or go on to the next step."""
        loaded, now = self._loaded, moment_now()
        if loaded is None or self._clock is None:
            return
        if self._run is None:
            self.bench.edit(lambda book: begin_run(book, loaded, now))
            return
        state = self._clock.at(now.uptime)
        strip = next_pull(self._clock, state)
        last = state.step + 1 == len(self._clock.steps)
        what = RunEventType.PULL if strip else RunEventType.STOP if last else RunEventType.NEXT
        self._note(what, strip=strip)

    def hold(self) -> None:
        """Pause, where the chemistry allows it, or go on."""
        if self._clock is not None:
            paused = self._clock.at(moment_now().uptime).paused
            try:
                self._note(RunEventType.RESUME if paused else RunEventType.PAUSE)
            except EntryError as error:
                self._refuse(str(error))

    def end(self) -> None:
        """Stop the run here."""
        self._note(RunEventType.STOP)

    def confirm(self) -> None:
        """Write what the clock saw to the strips."""
        run, now = self._run, moment_now()
        if run is None:
            return
        labels = self.bench.edit(lambda book: confirm_run(book, run, now))
        if labels:
            self.bench.said.emit(f"Written down: what strips {', '.join(labels)} got.")

    def _note(self, what: RunEventType, value: float | None = None, strip: str = "") -> None:
        run, now = self._run, moment_now()
        if run is not None:
            self.bench.edit_or_raise(lambda book: note_event(book, run, now, what, value, strip))

    def _note_temperature(self, words: str) -> None:
        loaded, warmth = self._loaded, temperature_typed(words)
        if self._run is not None:
            self._note(RunEventType.TEMPERATURE, warmth)
        elif loaded is not None:
            self.bench.edit_or_raise(lambda book: note_bath(book, loaded, warmth))

    def _refuse(self, words: str) -> None:
        self.refusal.setText(words)

    def showEvent(self, event: QShowEvent | None) -> None:
        """Run while it can be seen."""
        super().showEvent(event)
        self._timer.start(_TICK_MS)

    def hideEvent(self, event: QHideEvent | None) -> None:
        """Rest; sounds and instruments are heard elsewhere, and the events know what time it is."""
        super().hideEvent(event)
        self._timer.stop()
        PACE.go(1.0)

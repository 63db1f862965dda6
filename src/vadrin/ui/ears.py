"""Listens while the window is there: to instruments, and for the acts of clocks that run."""

from __future__ import annotations

import math
from typing import TYPE_CHECKING

from PyQt6.QtCore import QObject, Qt, QTimer, pyqtSignal
from PyQt6.QtWidgets import QApplication

from vadrin.app.document.workbench import Topic, Workbench
from vadrin.app.instruments.listening import Listening
from vadrin.ui.widgets.sound_cues import Cue

if TYPE_CHECKING:
    from vadrin.ui.desktop_bus import DesktopBus

_LISTEN_MS = 60
_SOON_S = 10.0
"""Before an act, so much is left to get the hands ready."""


class Ears(QObject):
    """Looks at lines and clocks, whatever page is shown, and tells pages that something came.

    Parameters
    ----------
    bench : Workbench
    """

    heard = pyqtSignal()
    slept = pyqtSignal(str)
    """What was due while the computer slept."""
    spoken = pyqtSignal(str)
    """An act of a clock that is due, or soon will be, for who does not see it."""

    def __init__(self, bench: Workbench) -> None:
        super().__init__()
        self.listening, self.cue = Listening(bench), Cue()
        self._bench = bench
        self._timer = QTimer(self)
        self._timer.setTimerType(Qt.TimerType.PreciseTimer)
        self._timer.timeout.connect(self.hear)
        self._desktop: DesktopBus | None = None
        self._warned = False

    @property
    def desktop(self) -> DesktopBus:
        """The desktop; nothing is loaded for it before a clock runs."""
        if self._desktop is None:
            from vadrin.ui.desktop_bus import DesktopBus

            self._desktop = DesktopBus()
            self._desktop.changed.connect(self.heard)
        return self._desktop

    def _keep_awake(self) -> None:
        running = self.listening.film_in_the_tank()
        if running:
            self.cue.clock_runs()
        if running or self._desktop is not None:
            self.desktop.stay_awake(running)

    @property
    def sleep_trouble(self) -> str:
        """Why the computer may fall asleep meanwhile; empty for not at all."""
        return self._desktop.trouble if self._desktop is not None else ""

    def tell_due(self, words: str) -> None:
        """Say over other windows that an act is due."""
        self.desktop.notify(words)

    def note(self, topic: Topic) -> None:
        """Clocks may have been started or stopped."""
        if Topic.NOTEBOOK in topic:
            self.listening.clocks_changed()
            self.look()

    def look(self) -> None:
        """Listen on, if there is anything to hear."""
        self._keep_awake()
        if self.listening.needed and not self._timer.isActive():
            self._timer.start(_LISTEN_MS)
        elif not self.listening.needed:
            self._timer.stop()

    def hear(self) -> None:
        """Take what came; the ear first: what is drawn may be a little late, a sound may not."""
        passed = self.listening.act_passed()
        if self.listening.missed:
            self.slept.emit(self.listening.missed)
            self.listening.missed = ""
        if passed:
            self.cue.act()
            self.spoken.emit(self.listening.spoken_words())
            if QApplication.activeWindow() is None:
                self.tell_due(self.listening.due_words())
        self._say_soon()
        if self.listening.hear():
            self.heard.emit()
        self.look()
        if self._timer.isActive():
            self._timer.setInterval(self._wait_ms())

    def _say_soon(self) -> None:
        """Say once that an act is coming."""
        due, words = self.listening.hands_needed_in()
        if due > _SOON_S:
            self._warned = False
        elif not self._warned:
            self._warned = True
            self.spoken.emit(f"in {due:.0f} seconds: {words}")

    def _wait_ms(self) -> int:
        """Until the next act where only clocks run; lines are asked far more often."""
        due = self.listening.next_act_in()
        most = _LISTEN_MS if self.listening.lines else 1000
        return max(1, math.ceil(min(most, most if due is None else 1000 * due)))

    def rest(self) -> None:
        """The window closes."""
        self._timer.stop()
        self.listening.close()
        self._keep_awake()

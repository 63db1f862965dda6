"""Listens while the window is there: to instruments, and for the acts of clocks that run."""

from __future__ import annotations

import math

from PyQt6.QtCore import QObject, Qt, QTimer, pyqtSignal

from vadrin.app.document.workbench import Topic, Workbench
from vadrin.app.instruments.listening import Listening
from vadrin.ui.widgets.sound_cues import Cue

_LISTEN_MS = 60


class Ears(QObject):
    """Looks at lines and clocks, whatever page is shown, and tells pages that something came.

    Parameters
    ----------
    bench : Workbench
    """

    heard = pyqtSignal()

    def __init__(self, bench: Workbench) -> None:
        super().__init__()
        self.listening, self.cue = Listening(bench), Cue()
        self._bench = bench
        self._timer = QTimer(self)
        self._timer.setTimerType(Qt.TimerType.PreciseTimer)
        self._timer.timeout.connect(self.hear)

    def note(self, topic: Topic) -> None:
        """Clocks may have been started or stopped."""
        if Topic.NOTEBOOK in topic:
            self.listening.clocks_changed()
            self.look()

    def look(self) -> None:
        """Listen on, if there is anything to hear."""
        if self.listening.needed and not self._timer.isActive():
            self._timer.start(_LISTEN_MS)
        elif not self.listening.needed:
            self._timer.stop()

    def hear(self) -> None:
        """Take what came; the ear first: what is drawn may be a little late, a sound may not."""
        if self.listening.act_passed():
            self.cue.next(turned=True)
        if self.listening.hear():
            self.heard.emit()
        self.look()
        if self._timer.isActive():
            self._timer.setInterval(self._wait_ms())

    def _wait_ms(self) -> int:
        """Until the next act where only clocks run; lines are asked far more often."""
        lines = self.listening.thermometer is not None or self.listening.densitometer is not None
        due = self.listening.next_act_in()
        most = _LISTEN_MS if lines else 1000
        return max(1, math.ceil(min(most, most if due is None else 1000 * due)))

    def rest(self) -> None:
        """The window closes."""
        self._timer.stop()
        self.listening.close()

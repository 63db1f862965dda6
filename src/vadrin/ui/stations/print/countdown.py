"""The enlarger's clock: digits that fill the page, a sound a second."""

from __future__ import annotations

import math
from collections.abc import Callable
from dataclasses import dataclass

from PyQt6.QtCore import QRectF, QSize, Qt, QTimer, pyqtSignal
from PyQt6.QtGui import QColor, QFont, QPainter, QPaintEvent
from PyQt6.QtWidgets import QSizePolicy

from vadrin.app.process.uptime import moment_now
from vadrin.ui.theme.look import DAY, Look
from vadrin.ui.theme.regional import write
from vadrin.ui.theme.roles import Role
from vadrin.ui.theme.typeface import px, role_font
from vadrin.ui.widgets.drawn import Drawn
from vadrin.ui.widgets.sound_cues import Cue

_TICK_MS = 50


@dataclass
class Counted:
    """How far the exposures of a strip are given: which is next, or runs, and since when."""

    times: tuple[float, ...] = ()
    at: int = 0
    began: float | None = None


class Countdown(Drawn):
    """Counts the exposures of a strip down, one after the other.

    Parameters
    ----------
    cue : Cue
        Sounds: one each second, two at the end of an exposure.
    counted : callable
        Gives the count of the test on the bench.
    """

    over = pyqtSignal()

    def __init__(self, cue: Cue, counted: Callable[[], Counted]) -> None:
        super().__init__()
        self._cue, self._look, self._counted = cue, DAY, counted
        self._spoken = -1
        self.setAccessibleName("countdown of the enlarger")
        self.setSizePolicy(QSizePolicy.Policy.Expanding, QSizePolicy.Policy.Expanding)
        self._timer = QTimer(self)
        self._timer.setTimerType(Qt.TimerType.PreciseTimer)
        self._timer.timeout.connect(self.tick)

    def minimumSizeHint(self) -> QSize:
        """Room for digits that are read across a dark room."""
        return QSize(px(320), px(150))

    @property
    def times(self) -> tuple[float, ...]:
        """Seconds of every exposure of the strip."""
        return self._counted().times

    @property
    def at(self) -> int:
        """Which exposure is next, or runs."""
        return self._counted().at

    @property
    def running(self) -> bool:
        """Whether the lamp should be on."""
        return self._counted().began is not None

    def load(self, times: tuple[float, ...], look: Look) -> None:
        """Take the exposures of another strip."""
        self._look = look
        count = self._counted()
        if times != count.times:
            count.times, count.at, count.began = times, 0, None
        if count.began is None:
            self._timer.stop()
        elif not self._timer.isActive():
            self._timer.start(_TICK_MS)
        self._describe()
        self.update()

    def press(self) -> None:
        """Begin the next exposure; while one runs, break it off."""
        if self.running:
            self._counted().began = None
            self._timer.stop()
        elif self.at < len(self.times):
            self._counted().began, self._spoken = moment_now().uptime, -1
            self._timer.start(_TICK_MS)
        self._describe()
        self.update()

    def left_s(self) -> float:
        """Seconds left of the exposure that runs or is next."""
        if self.at >= len(self.times):
            return 0.0
        began = self._counted().began
        passed = moment_now().uptime - began if began is not None else 0.0
        return max(0.0, self.times[self.at] - passed)

    def tick(self) -> None:
        """Show this moment; a sound for each second that is over."""
        left = self.left_s()
        whole = math.ceil(left - 1e-9)
        if whole != self._spoken:
            self._cue.next(turned=left <= 0)
            self._spoken = whole
        if left <= 0 and self.running:
            count = self._counted()
            count.began, count.at = None, count.at + 1
            self._timer.stop()
            if self.at >= len(self.times):
                self.over.emit()
        self._describe()
        self.update()

    def rest(self) -> None:
        """Count no more."""
        self._counted().began = None
        self._timer.stop()

    def _describe(self) -> None:
        state = "lamp on" if self.running else "lamp off"
        words = f"{state}, exposure {min(self.at + 1, len(self.times))} of {len(self.times)}"
        # Its whole time, not what is left of it: a reader is told of every change.
        length = f", {self.times[self.at]:.1f} s" if self.at < len(self.times) else ", done"
        if f"{words}{length}" != self.accessibleDescription():
            self.setAccessibleDescription(f"{words}{length}")

    def paintEvent(self, _event: QPaintEvent | None) -> None:
        """Draw the digits and what the hands do."""
        painter = QPainter(self)
        done = self.at >= len(self.times)
        room = QRectF(0, 0, self.width(), self.height())
        font = QFont(role_font(Role.DISPLAY))
        font.setPixelSize(int(max(px(60), min(self.height() * 0.7, self.width() / 4))))
        painter.setFont(font)
        # Digits so large would light the room in full red.
        rest = self._look.soft if self._look.red_only else self._look.ink
        lit = self._look.soft if self._look.red_only else self._look.here
        painter.setPen(QColor(lit if self.running else rest))
        words = "done" if done else f"{self.left_s():.1f}"
        write(
            painter,
            room.adjusted(0, px(10), 0, 0),
            Qt.AlignmentFlag.AlignLeft | Qt.AlignmentFlag.AlignVCenter,
            words,
        )
        painter.setFont(role_font(Role.HEADING))
        painter.setPen(QColor(self._look.ink))
        if done:
            below = "Every exposure is given. Develop it, then choose a section."
        elif self.running:
            below = f"Lamp on: exposure {self.at + 1} of {len(self.times)}. Space breaks it off."
        else:
            below = f"Exposure {self.at + 1} of {len(self.times)}: set the mask, then Space."
        write(painter, room, Qt.AlignmentFlag.AlignLeft | Qt.AlignmentFlag.AlignTop, below)

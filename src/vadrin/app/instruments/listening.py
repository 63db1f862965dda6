"""The instruments that are listened to, and the clocks that run: heard on whatever page one is."""

from __future__ import annotations

from math import inf
from typing import TYPE_CHECKING

from vadrin.app.document.workbench import Workbench
from vadrin.app.instruments import type_of_instrument
from vadrin.app.practice.practice_place import is_practice
from vadrin.app.process.uptime import PACE, moment_now
from vadrin.core.origin import Origin
from vadrin.notebook.records import DarkroomRun, RunEvent

if TYPE_CHECKING:
    from vadrin.app.instruments.instrument_type import HeardLine
    from vadrin.app.process.running_clocks import RunningClock

_SLEPT_S = 20.0
"""Seconds without a look after which the computer slept."""


class Listening:
    """Lines of instruments for as long as the window is there.

    Parameters
    ----------
    bench : Workbench

    Attributes
    ----------
    lines : dict of str to HeardLine
        What is listened to, by its kind.
    troubles : dict of str to str
        Why nothing comes from one, in words, as it was told last.
    missed : str
        What was due while the computer slept, in words, until it was told.
    """

    def __init__(self, bench: Workbench) -> None:
        self._bench = bench
        self.lines: dict[str, HeardLine] = {}
        self.troubles: dict[str, str] = {}
        self._running: tuple[RunningClock, ...] = ()
        self._seen: float | None = None
        self.missed = ""

    @property
    def needed(self) -> bool:
        """Whether there is anything to hear, or a clock whose acts are to be sounded."""
        return bool(self.lines) or bool(self._running)

    def listen(self, kind: str) -> None:
        """Listen to an instrument of a kind.

        Raises
        ------
        EntryError
            If there is none in the cupboard, or it does not answer.
        """
        self.rest(kind)
        self.lines[kind] = type_of_instrument(kind).begin(self._bench)

    def rest(self, kind: str) -> None:
        """Listen to none of a kind."""
        line = self.lines.pop(kind, None)
        if line is not None:
            line.close()
        self.troubles.pop(kind, None)

    def close(self) -> None:
        """Listen to nothing."""
        for kind in list(self.lines):
            self.rest(kind)
        self._running = ()

    def clocks_changed(self) -> None:
        """Take the clocks that run from the file again."""
        if not is_practice(self._bench.notebook.path):
            PACE.rest()
        now, book = moment_now(), self._bench.notebook
        if not self._running:
            self._seen = now.uptime
        if all(run.confirmed for run in book.all(DarkroomRun)):
            self._running = ()
            return
        # Here, not above: a window without a run need not wait for numpy.
        from vadrin.app.process.running_clocks import running_clocks

        self._running = running_clocks(book, now)
        if is_practice(book.path):
            # A run of the practice room may have gone faster than the wall, and go on from there.
            last = max((e.at for c in self._running for e in c.clock.events), default=now.uptime)
            PACE.go(PACE.times, max(0.0, last - now.uptime))

    def running_test(self) -> int | None:
        """The test whose clock runs; the oldest of several, None for none."""
        return self._running[0].test_id if self._running else None

    def film_in_the_tank(self) -> bool:
        """Whether a clock runs that is not merely forgotten."""
        now = moment_now().uptime
        return any(not clock.forgotten(now) for clock in self._running)

    def next_act_in(self) -> float | None:
        """Seconds until the next act of any clock; None where nothing is due."""
        if not self._running:
            return None
        from vadrin.app.process.running_clocks import next_act_in

        return next_act_in(self._running, moment_now().uptime)

    def act_passed(self) -> bool:
        """Whether an act of any clock came since this was asked last."""
        now, before = moment_now().uptime, self._seen
        self._seen = now
        if PACE.times > 1.0:
            return False
        if before is not None and now - before > _SLEPT_S:
            self.missed = self._missed_since(before, now)
        if before is None or not self._running:
            return False
        from vadrin.app.process.running_clocks import act_passed

        return act_passed(self._running, before, now)

    def went_on(self) -> tuple[str, bool]:
        """What was due while the program was closed, and whether a thermometer was read then."""
        now, book = moment_now(), self._bench.notebook
        words, read = [], False
        for each in self._running:
            last = max((e.at for e in each.clock.events), default=now.uptime)
            words.append(each.missed(last, now.uptime))
            for run in book.all(DarkroomRun, test_id=each.test_id, confirmed=False):
                events = book.all(RunEvent, run_id=run.id)
                read |= any(e.value_from is Origin.MEASURED for e in events)
        return " ".join(w for w in words if w), read

    def _missed_since(self, before: float, now: float) -> str:
        return " ".join(w for c in self._running if (w := c.missed(before, now)))

    def due_words(self) -> str:
        """What the clocks that run are at, in a line."""
        now = moment_now().uptime
        return "; ".join(clock.words(now) for clock in self._running)

    def spoken_words(self) -> str:
        """What the hands do now at every clock that runs."""
        now = moment_now().uptime
        return "; ".join(clock.spoken(now) for clock in self._running)

    def hands_needed_in(self) -> tuple[float, str]:
        """Seconds until something is to be taken out or poured, and what; infinite for never."""
        now = moment_now().uptime
        return min((clock.hands_in(now) for clock in self._running), default=(inf, ""))

    def hear(self) -> bool:
        """Take what came on every line; whether there was anything."""
        came = False
        for kind, line in list(self.lines.items()):
            trouble = line.trouble
            if trouble:
                self.troubles[kind] = trouble
            came |= line.hear(self._bench) or bool(trouble)
        return came

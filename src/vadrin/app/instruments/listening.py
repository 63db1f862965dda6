"""The instruments that are listened to, and the clocks that run: heard on whatever page one is."""

from __future__ import annotations

from typing import TYPE_CHECKING

from vadrin.app.document.workbench import Workbench
from vadrin.app.process.bath import note_bath
from vadrin.app.process.uptime import moment_now
from vadrin.app.read.entering_readings import add_reading
from vadrin.app.sheets.frame_order import next_to_read
from vadrin.core.origin import Origin
from vadrin.notebook.records import DarkroomRun, RunEvent

if TYPE_CHECKING:
    from vadrin.app.instruments.densitometer import DensitometerLine
    from vadrin.app.instruments.thermometer import Thermometer
    from vadrin.app.process.running_clocks import RunningClock
    from vadrin.core.channels import Channel

_SLEPT_S = 20.0
"""Seconds without a look after which the computer slept."""
ZERO, PATCH = "zero", "patch"
"""What the next reading of a densitometer is of, where it is of no frame."""


class Listening:
    """Lines of instruments for as long as the window is there.

    Parameters
    ----------
    bench : Workbench

    Attributes
    ----------
    awaited : str
        `ZERO` or `PATCH`, where the next reading is of that; empty for a frame.
    bath_trouble, meter_trouble : str
        Why nothing comes, in words, as it was told last.
    missed : str
        What was due while the computer slept, in words, until it was told.
    """

    def __init__(self, bench: Workbench) -> None:
        self._bench = bench
        self.thermometer: Thermometer | None = None
        self.densitometer: DensitometerLine | None = None
        self.awaited = self.bath_trouble = self.meter_trouble = ""
        self._running: tuple[RunningClock, ...] = ()
        self._seen: float | None = None
        self._bath_of: int | None = None
        self.missed = ""

    @property
    def needed(self) -> bool:
        """Whether there is anything to hear, or a clock whose acts are to be sounded."""
        lines = self.thermometer is not None or self.densitometer is not None
        return lines or bool(self._running)

    def listen_to_bath(self) -> None:
        """Listen to the thermometer in the cupboard.

        Raises
        ------
        EntryError
            If there is none, or it does not answer.
        """
        from vadrin.app.instruments.thermometer import Thermometer, thermometer_of

        self.rest_bath()
        self._bath_of = self._bench.sheet.test.id if self._bench.sheet is not None else None
        self.thermometer = Thermometer(thermometer_of(self._bench.notebook))

    def rest_bath(self) -> None:
        """Listen to no thermometer."""
        if self.thermometer is not None:
            self.thermometer.close()
        self.thermometer, self.bath_trouble = None, ""

    def listen_to_meter(self) -> None:
        """Listen to the densitometer of the test on the bench.

        Raises
        ------
        EntryError
            If there is none, or it does not answer.
        """
        from vadrin.app.instruments.densitometer import DensitometerLine, densitometer_of

        sheet = self._bench.sheet
        self.rest_meter()
        if sheet is not None:
            self.densitometer = DensitometerLine(densitometer_of(self._bench.notebook, sheet))

    def rest_meter(self) -> None:
        """Listen to no densitometer."""
        if self.densitometer is not None:
            self.densitometer.close()
        self.densitometer, self.awaited, self.meter_trouble = None, "", ""

    def close(self) -> None:
        """Listen to nothing."""
        self.rest_bath()
        self.rest_meter()
        self._running = ()

    def clocks_changed(self) -> None:
        """Take the clocks that run from the file again."""
        now, book = moment_now(), self._bench.notebook
        if not self._running:
            self._seen = now.uptime
        if all(run.confirmed for run in book.all(DarkroomRun)):
            self._running = ()
            return
        # Here, not above: a window without a run need not wait for numpy.
        from vadrin.app.process.running_clocks import running_clocks

        self._running = running_clocks(book, now)

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

    def hear(self) -> bool:
        """Take what came on every line; whether there was anything."""
        return self._hear_bath() | self._hear_meter()

    def _hear_bath(self) -> bool:
        probe = self.thermometer
        if probe is None:
            return False
        said, trouble = probe.news(), probe.trouble
        self.bath_trouble = trouble or self.bath_trouble
        if said is not None:
            self._note_bath(said)
        return said is not None or bool(trouble)

    def _note_bath(self, warmth: float) -> None:
        """Into the run of the test on the bench, or of another, where that alone runs; before
        any runs it is the bath that the test's next strips go into."""
        from vadrin.app.process.darkroom_runs import RunEventType, note_event, run_under_way
        from vadrin.app.process.running_clocks import running_clocks

        now, book = moment_now(), self._bench.notebook
        tests = [clock.test_id for clock in running_clocks(book, now)]
        here = self._bench.sheet.test.id if self._bench.sheet is not None else None
        wanted = here if here in tests else tests[0] if len(tests) == 1 else None
        run = run_under_way(book, wanted, now) if wanted is not None else None
        if run is not None:
            self._bench.edit(
                lambda book: note_event(
                    book, run, now, RunEventType.TEMPERATURE, warmth, value_from=Origin.MEASURED
                )
            )
            return
        sheet = self._bench.sheet
        waits = sheet is not None and any(s.strip.time_min is None for s in sheet.strips)
        if sheet is not None and not tests and waits and here == self._bath_of:
            self._bench.edit(lambda book: note_bath(book, sheet, warmth, Origin.MEASURED))

    def _hear_meter(self) -> bool:
        meter = self.densitometer
        if meter is None:
            return False
        # Asked once: a strange line is told once.
        trouble, news = meter.trouble, meter.news()
        self.meter_trouble = trouble or self.meter_trouble
        for density, channel in news:
            self._take_density(meter, density, channel)
        return bool(news) or bool(trouble)

    def _take_density(self, meter: DensitometerLine, density: float, channel: Channel) -> None:
        """A frame each, and on to the next; or the zero, or the patch, where that was asked for."""
        bench, asked = self._bench, self.awaited
        self.awaited = ""
        if asked == ZERO:
            bench.said.emit(meter.set_zero(density))
            return
        if asked == PATCH:
            bench.said.emit(bench.edit(lambda book: meter.check_patch(book, density)) or "")
            return
        place = bench.selected()
        if place is None or not place[1].readable:
            return
        frame, read = place[1], max(density, 0.0)
        made = bench.edit(lambda book: add_reading(book, frame, read, channel))
        due = meter.note(made.id) if made is not None else ""
        if due:
            bench.said.emit(due)
        following = next_to_read(bench.sheet, frame.frame.id) if bench.sheet is not None else None
        if following is not None:
            bench.select(following.frame.id)

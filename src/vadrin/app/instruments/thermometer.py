"""A thermometer in the bath: what it says goes into the run by itself."""

from __future__ import annotations

from vadrin.app.document.workbench import Workbench
from vadrin.app.instruments import THERMOMETER
from vadrin.app.instruments.instrument_line import InstrumentLine, instrument_on_a_line
from vadrin.app.instruments.instrument_type import InstrumentType
from vadrin.app.process.bath import note_bath
from vadrin.app.process.darkroom_runs import RunEventType, note_event, run_under_way
from vadrin.app.process.running_clocks import running_clocks
from vadrin.app.process.uptime import moment_now
from vadrin.core.origin import Origin
from vadrin.instruments.simulated import THERMOMETER_LINE, SimulatedThermometer
from vadrin.notebook.records import Instrument
from vadrin.notebook.store import Notebook

_NOTED_STEP_K = 0.1
_COLDEST_C, _WARMEST_C = 5.0, 60.0


class Thermometer:
    """A thermometer that is listened to.

    Parameters
    ----------
    kept : Instrument
        The one in the cupboard.
    bath_of : int, optional
        The test on the bench when it was begun: before any clock runs it is that one's bath.

    Raises
    ------
    EntryError
        If its port or its line does not do.
    """

    def __init__(self, kept: Instrument, bath_of: int | None = None) -> None:
        self._line = InstrumentLine(
            kept,
            THERMOMETER_LINE,
            lambda rng: SimulatedThermometer(
                20.6, 18.5, 25.0, rng, clock=lambda: moment_now().uptime
            ),
        )
        self.name, self._bath_of = kept.name, bath_of
        self._noted: float | None = None

    def news(self) -> float | None:
        """A temperature worth noting: the first, and each that differs from the last noted."""
        said = [r.value for r in self._line.take_all() if _COLDEST_C <= r.value <= _WARMEST_C]
        if not said:
            return None
        newest = said[-1]
        if self._noted is not None and abs(newest - self._noted) < _NOTED_STEP_K - 1e-9:
            return None
        self._noted = newest
        return newest

    def hear(self, bench: Workbench) -> bool:
        """Note what it says, where that is worth it."""
        said = self.news()
        if said is not None:
            self._note(bench, said)
        return said is not None

    def _note(self, bench: Workbench, warmth: float) -> None:
        """Into the run of the test on the bench, or of another, where that alone runs; before
        any runs it is the bath that the test's next strips go into."""
        now, book, loaded = moment_now(), bench.notebook, bench.loaded
        tests = [clock.test_id for clock in running_clocks(book, now)]
        here = loaded.test.id if loaded is not None else None
        wanted = here if here in tests else tests[0] if len(tests) == 1 else None
        run = run_under_way(book, wanted, now) if wanted is not None else None
        if run is not None:
            bench.edit(
                lambda book: note_event(
                    book, run, now, RunEventType.TEMPERATURE, warmth, value_from=Origin.MEASURED
                )
            )
            return
        waits = loaded is not None and any(s.strip.time_min is None for s in loaded.strips)
        if loaded is not None and not tests and waits and here == self._bath_of:
            bench.edit(lambda book: note_bath(book, loaded, warmth, Origin.MEASURED))

    @property
    def trouble(self) -> str:
        """Why nothing comes, in words; empty while all is well."""
        return self._line.trouble("note the temperature by hand")

    def close(self) -> None:
        """Listen no more."""
        self._line.close()


def thermometer_of(notebook: Notebook) -> Instrument:
    """The thermometer in the cupboard.

    Raises
    ------
    EntryError
        If there is none with a port.
    """
    return instrument_on_a_line(notebook, THERMOMETER)


def _begin(bench: Workbench) -> Thermometer:
    here = bench.loaded.test.id if bench.loaded is not None else None
    return Thermometer(thermometer_of(bench.notebook), here)


TYPE = InstrumentType(
    THERMOMETER, "Connect the thermometer", "Disconnect {name}", _begin, own_place=True
)

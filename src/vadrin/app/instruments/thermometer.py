"""A thermometer in the bath: what it says goes into the run by itself."""

from __future__ import annotations

from vadrin.app.instruments.instrument_line import InstrumentLine, instrument_on_a_line
from vadrin.instruments.simulated import THERMOMETER_LINE, SimulatedThermometer
from vadrin.notebook.records import Instrument
from vadrin.notebook.store import Notebook

THERMOMETER = "thermometer"
_NOTED_STEP_K = 0.1
_COLDEST_C, _WARMEST_C = 5.0, 60.0


class Thermometer:
    """A thermometer that is listened to.

    Parameters
    ----------
    kept : Instrument
        The one in the cupboard.

    Raises
    ------
    EntryError
        If its port or its line does not do.
    """

    def __init__(self, kept: Instrument) -> None:
        self._line = InstrumentLine(
            kept, THERMOMETER_LINE, lambda rng: SimulatedThermometer(20.6, 18.5, 25.0, rng)
        )
        self.name = kept.name
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

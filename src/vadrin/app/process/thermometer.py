"""A thermometer in the bath: what it says goes into the run by itself."""

from __future__ import annotations

import numpy as np

from vadrin.errors import EntryError
from vadrin.instruments.line_format import LineFormat
from vadrin.instruments.serial_line import SerialLine
from vadrin.instruments.simulated import SIMULATED, THERMOMETER_LINE, SimulatedThermometer
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
        self.name = kept.name
        self._stand_in: SimulatedThermometer | None = None
        port, words = kept.port, kept.line_format or THERMOMETER_LINE
        if port == SIMULATED:
            rng = np.random.default_rng(kept.id)
            self._stand_in = SimulatedThermometer(20.6, 18.5, 25.0, rng)
            port = self._stand_in.port
        try:
            self._line = SerialLine(port, LineFormat(words))
        except ValueError as error:
            raise EntryError(f"{kept.name}: {error}") from error
        except OSError as error:
            raise EntryError(
                f"{kept.name} does not answer at {port}; check its cable, and its port in the "
                "cupboard (Ctrl+9)"
            ) from error
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
        if self._line.lost:
            return f"{self.name} no longer answers: note the temperature by hand."
        if self._line.strange and self._noted is None:
            return f"{self.name} says “{self._line.strange}”, unlike its line in the cupboard."
        return ""

    def close(self) -> None:
        """Listen no more."""
        self._line.close()
        if self._stand_in is not None:
            self._stand_in.close()


def thermometer_of(notebook: Notebook) -> Instrument:
    """The thermometer in the cupboard.

    Raises
    ------
    EntryError
        If there is none with a port.
    """
    for kept in notebook.all(Instrument):
        if kept.kind == THERMOMETER and kept.port:
            return kept
    raise EntryError(
        "no thermometer with a port in the cupboard yet (Ctrl+9, under instruments); its port may "
        f"be “{SIMULATED}”"
    )

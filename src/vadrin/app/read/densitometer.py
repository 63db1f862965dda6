"""A densitometer on a line: one press, one frame, on to the next."""

from __future__ import annotations

import numpy as np

from vadrin.app.instrument_line import InstrumentLine, instrument_on_a_line
from vadrin.app.test_sheet import FrameSheet, StripSheet, TestSheet
from vadrin.core.channels import Channel
from vadrin.core.simulation.film import densities, typical_film
from vadrin.instruments.simulated import DENSITOMETER_LINE, SimulatedDensitometer
from vadrin.notebook.records import Instrument
from vadrin.notebook.store import Notebook

DENSITOMETER = "densitometer"
_HIGHEST = 6.0
_FALL = 0.03
"""A zero that reads so far off is said."""


class DensitometerLine:
    """A densitometer that is listened to, with the zero it was set on.

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
        self._line = InstrumentLine(kept, DENSITOMETER_LINE, SimulatedDensitometer)
        self.name = kept.name
        self.zero: float | None = None
        """What it said of no film last; None before it was asked."""

    @property
    def simulated(self) -> bool:
        """Whether it is the stand-in, whose button is on the screen."""
        return self._line.stand_in is not None

    def press(self, sheet: TestSheet, strip: StripSheet, frame: FrameSheet) -> None:
        """Press the stand-in's button on a frame of the film on the bench."""
        if self._line.stand_in is None:
            return
        at = frame.log_h(sheet.test.meter_constant)
        film = typical_film(sheet.stock.box_speed)
        place = np.array([np.nan if at is None else at])
        self._line.stand_in.press(float(densities(film, strip.minutes or 8.0, place)[0]))

    def press_on_nothing(self) -> None:
        """Press the stand-in's button with no film under it."""
        if self._line.stand_in is not None:
            self._line.stand_in.press(0.0)

    def news(self) -> list[tuple[float, Channel]]:
        """The densities that came since the last time, the zero's drift taken out."""
        off = self.zero or 0.0
        said = [(r.value - off, r.channel or Channel.VISUAL) for r in self._line.take_all()]
        return [(density, channel) for density, channel in said if -0.1 <= density <= _HIGHEST]

    def set_zero(self, density: float) -> str:
        """Take what it says of no film as its zero; says how far that has drifted."""
        # What news() gave had the old zero taken out already.
        before = self.zero or 0.0
        self.zero = before + density
        drift = abs(self.zero - before)
        if drift < _FALL:
            return f"{self.name} stands at {self.zero:+.2f} on nothing; that is taken out."
        return (
            f"{self.name} has drifted by {drift:.2f} since its zero: that is taken out from now "
            "on; read the last frames again."
        )

    @property
    def trouble(self) -> str:
        """Why nothing comes, in words; empty while all is well."""
        return self._line.trouble("type the densities")

    def close(self) -> None:
        """Listen no more."""
        self._line.close()


def densitometer_of(notebook: Notebook, sheet: TestSheet) -> Instrument:
    """The test's own densitometer where it has a port, else the first in the cupboard with one.

    Raises
    ------
    EntryError
        If there is none with a port.
    """
    return instrument_on_a_line(notebook, DENSITOMETER, sheet.instrument)

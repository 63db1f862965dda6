"""The axes of curves: stops from the meter below, EI along the top."""

from __future__ import annotations

from math import log10

import numpy as np
import pyqtgraph as pg

from vadrin.core.exposure.arithmetic import STOP, ZONE_I_STOPS, marked_ei


class StopsAxis(pg.AxisItem):
    """Whole stops from the meter reading."""

    def __init__(self) -> None:
        super().__init__("bottom")
        self.meter = 0.0

    def tickValues(self, low: float, high: float, _size: float) -> list[tuple[float, list[float]]]:
        """One tick a stop."""
        first = int(np.ceil((low - self.meter) / STOP))
        last = int(np.floor((high - self.meter) / STOP))
        return [(STOP, [self.meter + n * STOP for n in range(first, last + 1)])]

    def tickStrings(self, values: list[float], _scale: float, _spacing: float) -> list[str]:
        """−2, −1, meter, +1."""
        names = []
        for value in values:
            stops = round((value - self.meter) / STOP)
            sign = "−" if stops < 0 else "+"
            names.append("meter" if stops == 0 else f"{sign}{abs(stops)}")
        return names


class IndexAxis(pg.AxisItem):
    """The EI a film has if its shadow point lies here."""

    def __init__(self) -> None:
        super().__init__("top")
        self.meter_constant = 8.125

    def tickValues(self, low: float, high: float, _size: float) -> list[tuple[float, list[float]]]:
        """Whole stops of the marked series from 100."""
        top = log10(self.meter_constant / 2**ZONE_I_STOPS)
        first = int(np.ceil((top - high - 2) / STOP))
        last = int(np.floor((top - low - 2) / STOP))
        return [(STOP, [top - 2 - n * STOP for n in range(first, last + 1)])]

    def tickStrings(self, values: list[float], _scale: float, _spacing: float) -> list[str]:
        """Marked EIs."""
        top = self.meter_constant / 2**ZONE_I_STOPS
        exact = [top / 10.0**value for value in values]
        return [str(marked_ei(ei)) if 0.7 < ei < 30000 else "" for ei in exact]

"""The axes of curves: stops from the meter below, EI along the top."""

from __future__ import annotations

import pyqtgraph as pg

from vadrin.app.curves.curve_lines import STOP, index_ticks, stop_ticks


class _NamedTicks(pg.AxisItem):  # type: ignore[misc]
    """An axis whose ticks lie a stop apart and have names of their own."""

    def __init__(self, side: str) -> None:
        super().__init__(side)
        self._names: dict[float, str] = {}

    def ticks(self, low: float, high: float) -> list[tuple[float, str]]:
        """Where ticks lie, and their names."""
        raise NotImplementedError

    def tickValues(self, low: float, high: float, _size: float) -> list[tuple[float, list[float]]]:
        """One tick a stop."""
        self._names = dict(self.ticks(low, high))
        return [(STOP, list(self._names))]

    def tickStrings(self, values: list[float], _scale: float, _spacing: float) -> list[str]:
        """Their names."""
        return [self._names.get(value, "") for value in values]


class StopsAxis(_NamedTicks):
    """Whole stops from the meter reading."""

    def __init__(self) -> None:
        super().__init__("bottom")
        self.meter = 0.0

    def ticks(self, low: float, high: float) -> list[tuple[float, str]]:
        """−2, −1, meter, +1."""
        return stop_ticks(low, high, self.meter)


class IndexAxis(_NamedTicks):
    """The EI a film has if its shadow point lies here."""

    def __init__(self) -> None:
        super().__init__("top")
        self.meter_constant = 8.125

    def ticks(self, low: float, high: float) -> list[tuple[float, str]]:
        """Marked EIs a stop apart."""
        return index_ticks(low, high, self.meter_constant)

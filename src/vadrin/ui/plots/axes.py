"""The axes of curves: stops from the meter below, EI along the top."""

from __future__ import annotations

from math import ceil

import pyqtgraph as pg
from PyQt6.QtGui import QFontMetrics

from vadrin.app.curves.curve_lines import STOP, index_ticks, stop_ticks
from vadrin.app.display.region import local
from vadrin.ui.theme.roles import Role
from vadrin.ui.theme.typeface import px, role_font


class DensityAxis(pg.AxisItem):  # type: ignore[misc]
    """Densities, as the region writes them."""

    def __init__(self) -> None:
        super().__init__("left")

    def tickStrings(self, values: list[float], scale: float, spacing: float) -> list[str]:
        """The numbers."""
        return [local(words) for words in super().tickStrings(values, scale, spacing)]


class _NamedTicks(pg.AxisItem):  # type: ignore[misc]
    """An axis whose ticks lie a stop apart and have names of their own."""

    anchor = ""
    """The name that is always shown; the others are counted from it."""

    def __init__(self, side: str) -> None:
        super().__init__(side)
        self._names: dict[float, str] = {}

    def ticks(self, low: float, high: float) -> list[tuple[float, str]]:
        """Where ticks lie, and their names."""
        raise NotImplementedError

    def tickValues(self, low: float, high: float, size: float) -> list[tuple[float, list[float]]]:
        """One tick a stop; those are named that have room for it."""
        ticks = self.ticks(low, high)
        every = self._named_every([name for _, name in ticks], size * STOP / max(high - low, 1e-9))
        names = [name for _, name in ticks]
        anchor = names.index(self.anchor) if self.anchor in names else 0
        self._names = {
            place: name if (i - anchor) % every == 0 else ""
            for i, (place, name) in enumerate(ticks)
        }
        return [(STOP, list(self._names))]

    @staticmethod
    def _named_every(names: list[str], apart: float) -> int:
        """How many ticks lie from one name to the next, so that no two touch."""
        metrics = QFontMetrics(role_font(Role.CAPTION))
        widest = max((metrics.horizontalAdvance(name) for name in names), default=0)
        return max(1, ceil((widest + px(10)) / max(apart, 1.0)))

    def tickStrings(self, values: list[float], _scale: float, _spacing: float) -> list[str]:
        """Their names."""
        return [local(self._names.get(value, "")) for value in values]


class StopsAxis(_NamedTicks):
    """Whole stops from the meter reading."""

    anchor = "meter"

    def __init__(self) -> None:
        super().__init__("bottom")
        self.meter = 0.0

    def ticks(self, low: float, high: float) -> list[tuple[float, str]]:
        """−2, −1, meter, +1."""
        return stop_ticks(low, high, self.meter)


class IndexAxis(_NamedTicks):
    """The EI a film has if its shadow point lies here."""

    anchor = "100"

    def __init__(self) -> None:
        super().__init__("top")
        self.meter_constant = 8.125

    def ticks(self, low: float, high: float) -> list[tuple[float, str]]:
        """Marked EIs a stop apart."""
        return index_ticks(low, high, self.meter_constant)

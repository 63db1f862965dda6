"""What a picture of curves is put together from: as few items as can be, each costs time."""

from __future__ import annotations

from collections.abc import Sequence
from typing import NamedTuple

import numpy as np
import pyqtgraph as pg
from PyQt6.QtCore import QObject, QTimer
from PyQt6.QtGui import QBrush, QPen

from vadrin.core.arrays import Array
from vadrin.ui.theme.typeface import px

_LINE_OF_DENSITY = 0.5
_AT_ONCE = 1000


def curves_together(curves: list[tuple[Array, Array]], pen: QPen) -> pg.PlotCurveItem:
    """Curves of one colour as one item, each apart from the next."""
    x, y = (np.concatenate([curve[axis] for curve in curves]) for axis in (0, 1))
    joined = np.ones(len(x), dtype=np.int32)
    joined[np.cumsum([len(curve[0]) for curve in curves]) - 1] = 0
    return pg.PlotCurveItem(x, y, pen=pen, antialias=True, connect=joined)


def grid_lines(
    across: Sequence[float], view: tuple[float, float, float], pen: QPen
) -> pg.PlotCurveItem:
    """Upright lines at some exposures, and level ones at every half density."""
    low, high, top = view
    x, y = [], []
    for stop in across:
        x += [stop, stop]
        y += [0.0, top]
    for i in range(1, int(top / _LINE_OF_DENSITY) + 1):
        x += [low, high]
        y += [i * _LINE_OF_DENSITY] * 2
    lines = pg.PlotCurveItem(x, y, connect="pairs", pen=pen)
    lines.setZValue(-5)
    return lines


class Mark(NamedTuple):
    """A reading as it is drawn: where, in which shape, and the colour of its strip."""

    log_h: float
    density: float
    shape: str
    pen: QPen
    brush: QBrush


def reading_marks(marks: Sequence[Mark]) -> pg.ScatterPlotItem:
    """All readings as one item, whatever their shapes.

    What looks alike must have the same pen and brush, not equal ones: each look is drawn once.
    """
    item = pg.ScatterPlotItem(
        [m.log_h for m in marks],
        [m.density for m in marks],
        size=px(7),
        symbol=[m.shape for m in marks],
        pen=[m.pen for m in marks],
        brush=[m.brush for m in marks],
    )
    item.setZValue(5)
    return item


class MarksSoon(QObject):
    """Adds the readings of a long test some at a time, so that the window goes on meanwhile.

    Parameters
    ----------
    plot : pg.PlotWidget
        What they are added to, where it is seen; to one that is not, all are added at once.
    """

    def __init__(self, plot: pg.PlotWidget) -> None:
        super().__init__(plot)
        self._plot = plot
        self._waiting: list[Mark] = []
        self._turn = QTimer(self)
        self._turn.timeout.connect(self._add_some)

    def add(self, marks: list[Mark]) -> None:
        """Add these, and nothing of what was left to add."""
        self._waiting = marks
        self._add_some(None if self._plot.isVisible() else len(marks))
        if self._waiting:
            self._turn.start(0)

    def _add_some(self, some: int | None = None) -> None:
        count = some or _AT_ONCE
        now, self._waiting = self._waiting[:count], self._waiting[count:]
        if now:
            self._plot.addItem(reading_marks(now))
        if not self._waiting:
            self._turn.stop()

"""What a picture of curves is put together from: as few items as can be, each costs time."""

from __future__ import annotations

from collections.abc import Sequence

import numpy as np
import pyqtgraph as pg
from PyQt6.QtGui import QBrush, QPen

from vadrin.core.arrays import Array
from vadrin.ui.theme.typeface import px

_LINE_OF_DENSITY = 0.5


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


def reading_marks(
    at: list[tuple[float, float, QPen]], shape: str, brush: QBrush | None
) -> pg.ScatterPlotItem:
    """Readings that are marked by one shape, each in the colour of its strip."""
    item = pg.ScatterPlotItem(
        [x for x, _, _ in at],
        [y for _, y, _ in at],
        size=px(7),
        symbol=shape,
        pen=[pen for _, _, pen in at],
        brush=brush,
    )
    item.setZValue(5)
    return item

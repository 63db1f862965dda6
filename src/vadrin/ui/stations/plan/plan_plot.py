"""Where a plan's frames will land on likely curves; taken by the mouse, the bracket follows."""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np
import pyqtgraph as pg
from PyQt6.QtCore import QPointF, Qt, pyqtSignal
from PyQt6.QtGui import QColor, QKeyEvent, QMouseEvent

from vadrin.app.curves.curve_lines import STOP, bracket
from vadrin.app.document.state import State
from vadrin.app.loaded.loaded_test import LoadedTest
from vadrin.app.plan.expected_curves import ExpectedStrip
from vadrin.core.arrays import Array
from vadrin.core.frames import FrameRole
from vadrin.ui.plots.curve_plot import CurvePlot
from vadrin.ui.theme.typeface import px

_REACH_PX = 14
_WIDEST = 15
"""Stops from the meter that a bracket stays within."""


@dataclass(frozen=True)
class _Line:
    """One strip's likely curve as drawn, with the stops from the test's meter it begins at."""

    x: Array
    y: Array
    colour: QColor
    offset: float


class PlanPlot(CurvePlot):
    """Likely curves with the planned frames on them.

    The first frame and the last are dragged by themselves, one between takes the whole
    bracket along; both go in steps of the bracket.
    """

    dragged = pyqtSignal(float, float)
    dropped = pyqtSignal(float, float)
    let_go = pyqtSignal()

    def __init__(self) -> None:
        super().__init__()
        self.call_it("likely curves with the planned frames")
        self._lines: list[_Line] = []
        self._bracket = (0.0, 0.0, 1.0)
        self._held: tuple[str, float] | None = None
        self._now: tuple[float, float] | None = None
        self._ghosts: list[pg.ScatterPlotItem] = []
        self._spots: list[pg.ScatterPlotItem] = []
        self.draggable = False

    def show_plan(self, loaded: LoadedTest, expected: tuple[ExpectedStrip, ...]) -> None:
        """Draw a plan on likely curves."""
        self.draw(State(loaded), None, expected=expected)

    def start_over(self) -> None:
        """Forget the frames that were drawn, too."""
        super().start_over()
        self._lines, self._spots, self._ghosts = [], [], []

    def draw_expected(
        self, loaded: LoadedTest, label: str, x: Array, y: Array, colour: QColor
    ) -> None:
        """Mark the frames planned on a strip's likely curve."""
        strip = next((s for s in loaded.strips if s.strip.label == label), None)
        frames = strip.frames if strip else ()
        at = [
            f.log_h(loaded.test.meter_constant) for f in frames if f.frame.role == FrameRole.BRACKET
        ]
        planned = np.array([a for a in at if a is not None])
        spots = pg.ScatterPlotItem(planned, np.interp(planned, x, y), size=px(6))
        spots.setPen(pg.mkPen(colour))
        spots.setBrush(pg.mkBrush(self._look.sheet))
        self.addItem(spots)
        test = loaded.test
        index = next((f.frame.exposure_index for f in frames if f.frame.exposure_index), None)
        offset = float(np.log2(test.exposure_index / index)) if index else 0.0
        self._bracket = test.first_stop, test.last_stop, test.step
        self._lines.append(_Line(x, y, colour, offset))
        self._spots.append(spots)

    def planned_spots(self) -> list[list[tuple[float, float]]]:
        """Lg exposure and density at which each strip's planned frames are drawn."""
        return [self._spots_on(line, self._bracket[:2]) for line in self._lines]

    def _spots_on(self, line: _Line, ends: tuple[float, float]) -> list[tuple[float, float]]:
        stops = np.array(bracket(*ends, self._bracket[2]))
        x = self.meter + STOP * (stops + line.offset)
        return list(zip(x.tolist(), np.interp(x, line.x, line.y).tolist(), strict=True))

    def _place(self, event: QMouseEvent) -> QPointF:
        box = self.getPlotItem().getViewBox()
        return QPointF(box.mapSceneToView(self.mapToScene(event.pos())))

    def _near(self, event: QMouseEvent) -> float | None:
        """Stops of the planned frame under the mouse; None where there is none."""
        box = self.getPlotItem().getViewBox()
        here = self.mapToScene(event.pos())
        best, reach = None, float(px(_REACH_PX))
        for spots in self.planned_spots():
            for stops, at in zip(bracket(*self._bracket), spots, strict=True):
                spot = box.mapViewToScene(QPointF(*at))
                apart = abs(spot.x() - here.x()) + abs(spot.y() - here.y())
                if apart < reach:
                    best, reach = stops, apart
        return best

    def mousePressEvent(self, event: QMouseEvent) -> None:
        """Take hold of a frame."""
        stops = self._near(event) if self.draggable else None
        if stops is None or event.button() != Qt.MouseButton.LeftButton:
            super().mousePressEvent(event)
            return
        first, last, _ = self._bracket
        part = "first" if stops == first else "last" if abs(stops - last) < 1e-3 else "all"
        self._held, self._now = (part, self._place(event).x()), (first, last)
        self.setFocus()

    def mouseMoveEvent(self, event: QMouseEvent) -> None:
        """Let the bracket follow."""
        if self._held is None:
            near = self.draggable and self._near(event) is not None
            shape = Qt.CursorShape.SizeHorCursor if near else Qt.CursorShape.ArrowCursor
            self.setCursor(shape)
            super().mouseMoveEvent(event)
            return
        part, start = self._held
        first, last, step = self._bracket
        by = round((self._place(event).x() - start) / STOP / step) * step
        if part != "last":
            first += by
        if part != "first":
            last += by
        if last - first < step - 1e-6 or max(abs(first), abs(last)) > _WIDEST:
            return
        if (first, last) != self._now:
            self._now = first, last
            self._show_ghosts(first, last)
            self.dragged.emit(first, last)

    def mouseReleaseEvent(self, event: QMouseEvent) -> None:
        """Leave the frame where it is."""
        if self._held is None:
            super().mouseReleaseEvent(event)
            return
        moved, self._held = self._now, None
        self._clear_ghosts()
        if moved is not None and moved != self._bracket[:2]:
            self.dropped.emit(*moved)
        else:
            self.let_go.emit()

    def keyPressEvent(self, event: QKeyEvent) -> None:
        """Escape lets go of a frame without moving it."""
        if event.key() == Qt.Key.Key_Escape and self._held is not None:
            self._held = None
            self._clear_ghosts()
            self.let_go.emit()
            return
        super().keyPressEvent(event)

    def _show_ghosts(self, first: float, last: float) -> None:
        if not self._ghosts:
            for line in self._lines:
                ghost = pg.ScatterPlotItem(size=px(9), pen=pg.mkPen(self._look.here, width=1.5))
                ghost.setBrush(pg.mkBrush(line.colour))
                ghost.setZValue(9)
                self.addItem(ghost)
                self._ghosts.append(ghost)
            for spots in self._spots:
                spots.setVisible(False)
        for ghost, line in zip(self._ghosts, self._lines, strict=True):
            ghost.setData(pos=self._spots_on(line, (first, last)))

    def _clear_ghosts(self) -> None:
        for ghost in self._ghosts:
            self.removeItem(ghost)
        self._ghosts = []
        for spots in self._spots:
            spots.setVisible(True)

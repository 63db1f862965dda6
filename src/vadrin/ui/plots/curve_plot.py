"""Characteristic curves with EI along the top and stops from the meter along the bottom."""

from __future__ import annotations

import numpy as np
import pyqtgraph as pg
from PyQt6.QtCore import QPointF, QSize, Qt, pyqtSignal
from PyQt6.QtGui import QColor, QFontMetrics, QResizeEvent

from vadrin.app.curves.curve_lines import (
    CurveLine,
    curve_name,
    curve_points,
    exposure_span,
    meter_exposure,
    readings_placed,
    refused_readings,
    speed_point_of,
    stop_ticks,
)
from vadrin.app.curves.curves_in_words import curves_in_words
from vadrin.app.curves.places_by_eye import PlaceByEye, judged_places
from vadrin.app.display.region import local
from vadrin.app.document.state import State
from vadrin.app.loaded.loaded_test import LoadedTest
from vadrin.app.plan.expected_curves import ExpectedStrip
from vadrin.app.read.likely_place import LikelyPlace
from vadrin.core.arrays import Array
from vadrin.ui.plots.axes import DensityAxis, IndexAxis, StopsAxis
from vadrin.ui.plots.curve_items import Mark, MarksSoon, curves_together, grid_lines
from vadrin.ui.plots.judged_lines import judged_items
from vadrin.ui.theme.look import DAY, Look
from vadrin.ui.theme.roles import Role
from vadrin.ui.theme.typeface import px, role_font, scale
from vadrin.ui.widgets.drawn import Drawn

_MARKERS = ("o", "s", "t", "p", "h", "star")
_LABEL_GAP = 0.055
_ALONG, _POINTS = "stops from the meter reading", "  (◆ shadow point)"
_COLOURS = 24
_MEASURED, _LIKELY, _BEFORE = (Qt.PenStyle.SolidLine, Qt.PenStyle.DashLine, Qt.PenStyle.DotLine)
"""How a curve is drawn: as read, as a guess, and as it was before the last edit."""


class CurvePlot(pg.PlotWidget):  # type: ignore[misc]
    """All strips of a test: readings, curves, speed points and the selected frame."""

    picked = pyqtSignal(int)
    # Known before the base class is made: it is resized while that happens.
    _look: Look = DAY
    _dressed: tuple[Look, float] | None = None

    def __init__(self) -> None:
        self._stops, self._index = StopsAxis(), IndexAxis()
        axes = {"bottom": self._stops, "top": self._index, "left": DensityAxis()}
        super().__init__(axisItems=axes, enableMenu=False)
        self._shows: tuple[object, ...] = ()
        self._marks = MarksSoon(self)
        self._ring = pg.ScatterPlotItem()
        self._likely = pg.ScatterPlotItem()
        self.points: list[tuple[float, float, int]] = []
        self._judged: tuple[PlaceByEye, ...] = ()
        self._view = (-3.0, 1.0, 2.0)
        self.setMouseEnabled(False, False)
        self.hideButtons()
        self.setMinimumHeight(px(220))
        self.showAxis("top")
        # To a screen reader this class is nothing; a picture over it is one.
        self._carrier = Drawn(self)
        self._carrier.setAttribute(Qt.WidgetAttribute.WA_TransparentForMouseEvents)
        self.call_it("characteristic curves")
        self.getPlotItem().getViewBox().setDefaultPadding(0.0)
        self.scene().sigMouseClicked.connect(self._clicked)

    def call_it(self, name: str) -> None:
        """What a screen reader calls it."""
        self.setAccessibleName(name)
        self._carrier.setAccessibleName(name)

    @property
    def meter(self) -> float:
        """Lg exposure of the meter reading, as drawn."""
        return self._stops.meter

    def sizeHint(self) -> QSize:
        """Little: it takes what room the words leave."""
        return QSize(px(300), px(140))

    def show_look(self, look: Look) -> None:
        """Take on the colours of a look; shown at the next draw."""
        if (look, scale()) == self._dressed:
            return
        self._look, self._dressed = look, (look, scale())
        self.setBackground(look.sheet)
        pen = pg.mkPen(look.rule)
        for side in ("bottom", "top", "left"):
            axis = self.getAxis(side)
            axis.setPen(pen)
            axis.setTextPen(look.ink)
            axis.setStyle(tickFont=role_font(Role.CAPTION), tickLength=0, tickTextOffset=px(5))
        self._label_top()
        self._label("bottom", _ALONG)
        self._label("left", "density")

    def _label_top(self) -> None:
        """The whole words where there is room for them."""
        words = "exposure index, if the shadow point lies here"
        wide = QFontMetrics(role_font(Role.CAPTION)).horizontalAdvance(words)
        self._label("top", words if wide + px(60) < self.width() else "exposure index")

    def resizeEvent(self, event: QResizeEvent | None) -> None:
        """Say as much of the axis as there is room for."""
        super().resizeEvent(event)
        if self._dressed is not None:
            self._carrier.setGeometry(self.rect())
            self._label_top()

    def _label(self, side: str, words: str) -> None:
        size = f"{px(12)}px"
        self.getAxis(side).setLabel(words, **{"color": self._look.soft, "font-size": size})

    def draw(
        self,
        state: State,
        frame_id: int | None,
        only_strip: str = "",
        expected: tuple[ExpectedStrip, ...] = (),
        likely: LikelyPlace | None = None,
    ) -> None:
        """Draw a test.

        Parameters
        ----------
        state : State
            Before there is an answer only the readings are shown; while it is worked out anew,
            the curves there were, dotted.
        frame_id : int or None
            The selected frame.
        only_strip : str
            Label of the one strip to draw; empty for all. The curves of others stand behind it.
        expected : tuple of ExpectedStrip
            Curves that are a guess: dashed, with the planned frames marked on them.
        likely : LikelyPlace, optional
            Where the selected frame is likely to land.
        """
        # Compared as objects: equal data in a new object is rare and costs one more drawing.
        loaded, analysis = state.loaded, state.analysis
        shows = (loaded, analysis, expected, only_strip, self._look, scale())
        if len(shows) == len(self._shows) and all(
            a is b or (isinstance(a, str | float) and a == b)
            for a, b in zip(shows, self._shows, strict=True)
        ):
            self._mark_selected(frame_id, likely)
            return
        self._shows = shows
        self.start_over()
        self._stops.meter = meter_exposure(state)
        # A positive has no shadow point, and so no EI to be read off it.
        self.showAxis("top", not loaded.density_falls)
        self._index.meter_constant = loaded.test.meter_constant
        self._draw_readings(loaded, only_strip)
        assumed = bool(expected)
        curves: tuple[CurveLine, ...] = expected
        drawn = analysis or state.earlier
        if not assumed and drawn is not None:
            curves = drawn.strips
        shown = [s for s in curves if only_strip in ("", s.label)]
        span = exposure_span(loaded)
        self._fit_view(loaded, [float(curve_points(s, span)[1].max()) for s in curves])
        self._draw_grid()
        self._judged = judged_places(loaded, only_strip)
        for item in judged_items(self._judged, self._look, self._view[2]):
            self.addItem(item)
        self._say(state)
        line = _MEASURED if analysis else _BEFORE
        others = [s for s in curves if only_strip not in ("", s.label)]
        if others:
            self._draw_behind(others, span)
        self._draw_curves(loaded, shown, span, _LIKELY if assumed else line)
        self._strike_out(state, only_strip)
        self._ring = pg.ScatterPlotItem(symbol="o", size=px(13), brush=None)
        self._ring.setPen(pg.mkPen(self._look.here, width=2.5))
        self._ring.setZValue(8)
        self.addItem(self._ring)
        self._likely = pg.ScatterPlotItem(symbol="d", size=px(13), brush=None)
        self._likely.setPen(pg.mkPen(self._look.here, width=1.5, style=Qt.PenStyle.DotLine))
        self.addItem(self._likely)
        self._mark_selected(frame_id, likely)

    def _say(self, state: State) -> None:
        """What is drawn, in words."""
        said = [curves_in_words(state)]
        if self._judged:
            by_eye = (f"strip {p.strip}, {p.words}" for p in self._judged)
            said.append(f"judged by eye: {'; '.join(by_eye)}")
        words = ". ".join(part for part in said if part)
        if words != self.accessibleDescription():
            self.setAccessibleDescription(words)
            self._carrier.setAccessibleDescription(words)

    def start_over(self) -> None:
        """Take everything off the picture before it is drawn anew."""
        self.clear()
        self.points = []

    def _mark_selected(self, frame_id: int | None, likely: LikelyPlace | None) -> None:
        """Ring the readings of the selected frame, or mark where it is likely to land."""
        mine = [(x, y) for x, y, owner in self.points if owner == frame_id]
        self._ring.setData(pos=mine if mine else np.empty((0, 2)))
        at = [(likely.log_h, likely.density)] if likely else np.empty((0, 2))
        self._likely.setData(pos=at)

    def _draw_behind(self, others: list[CurveLine], span: tuple[float, float]) -> None:
        """Curves of the film's other strips, thin and in one colour, each with its name."""
        ends = [(curve_points(s, span), curve_name(s)) for s in others]
        pen = pg.mkPen(self._look.rule, width=1.5)
        self.addItem(curves_together([points for points, _ in ends], pen))
        soft = QColor(self._look.soft)
        self._draw_ends([(float(x[-1]), float(y[-1]), name, soft) for (x, y), name in ends])

    def _colour(self, place: int, count: int) -> QColor:
        """Colour of a strip by its place; very many share the colours there can be told apart."""
        if count > _COLOURS:
            place, count = place * _COLOURS // count, _COLOURS
        return self._look.strip_colour(place, count)

    def _draw_readings(self, loaded: LoadedTest, only_strip: str) -> None:
        """Draw the readings as one item: an item costs more than a mark."""
        marks: list[Mark] = []
        sheet, empty = pg.mkBrush(self._look.sheet), pg.mkBrush(None)
        ordered = sorted(loaded.strips, key=lambda s: s.minutes or 0.0)
        for place, strip in enumerate(ordered):
            if only_strip not in ("", strip.strip.label):
                continue
            pen = pg.mkPen(self._colour(place, len(ordered)), width=1.4)
            shape = _MARKERS[place % len(_MARKERS)]
            for x, reading, frame_id in readings_placed(strip, loaded.test.meter_constant):
                self.points.append((x, reading.density, frame_id))
                drawn = ("x", empty) if reading.left_out else (shape, sheet)
                marks.append(Mark(x, reading.density, drawn[0], pen, drawn[1]))
        self._marks.add(marks)

    def _fit_view(self, loaded: LoadedTest, highest: list[float]) -> None:
        planned = [f.log_h(loaded.test.meter_constant) for _, f in loaded.frames()]
        xs = [x for x in planned if x is not None] or [-3.0, 1.0]
        read = [f.density for _, f in loaded.frames() if f.density is not None]
        top = max([1.5, *read, *highest])
        self._view = (min(xs) - 0.15, max(xs) + 0.62, top * 1.06)
        self.setXRange(*self._view[:2])
        self.setYRange(0.0, self._view[2])

    def _draw_grid(self) -> None:
        low, high, _ = self._view
        across = [stop for stop, _ in stop_ticks(low, high, self.meter)]
        pen = pg.mkPen(self._look.grid, width=1)
        self.addItem(grid_lines(across, self._view, pen))

    def _draw_curves(
        self,
        loaded: LoadedTest,
        shown: list[CurveLine],
        span: tuple[float, float],
        line: Qt.PenStyle,
    ) -> None:
        ordered = sorted(loaded.strips, key=lambda s: s.minutes or 0.0)
        places = {s.strip.label: place for place, s in enumerate(ordered)}
        ends = []
        drawn: dict[int, list[tuple[Array, Array]]] = {}
        for strip in shown:
            colour = self._colour(places.get(strip.label, 0), len(ordered))
            x, y = curve_points(strip, span)
            drawn.setdefault(colour.rgb(), []).append((x, y))
            if line == _LIKELY:
                self.draw_expected(loaded, strip.label, x, y, colour)
            ends.append((float(x[-1]), float(y[-1]), curve_name(strip), colour))
        for rgb, curves in drawn.items():
            pen = pg.mkPen(QColor(rgb), width=2 if line == _MEASURED else 1.5, style=line)
            self.addItem(curves_together(curves, pen))
        if line != _BEFORE:
            self._mark_speed_points(shown)
        self._draw_ends(ends)

    def _mark_speed_points(self, shown: list[CurveLine]) -> None:
        at = [point for strip in shown if (point := speed_point_of(strip)) is not None]
        along = _ALONG + (_POINTS if at else "")
        if self.getAxis("bottom").labelText != along:
            self._label("bottom", along)
        if not at:
            return
        spot = pg.ScatterPlotItem(pos=at, symbol="d", size=px(11))
        spot.setBrush(pg.mkBrush(self._look.grease))
        spot.setPen(pg.mkPen(self._look.sheet))
        spot.setZValue(6)
        self.addItem(spot)

    def _strike_out(self, state: State, only_strip: str) -> None:
        """Cross the readings the fit refused."""
        at = refused_readings(state, only_strip)
        if at:
            crosses = pg.ScatterPlotItem(pos=at, symbol="x", size=px(13))
            crosses.setPen(pg.mkPen(self._look.trouble, width=2))
            crosses.setBrush(pg.mkBrush(self._look.trouble))
            crosses.setZValue(7)
            self.addItem(crosses)

    def draw_expected(
        self, loaded: LoadedTest, label: str, x: Array, y: Array, colour: QColor
    ) -> None:
        """Called for every likely curve as it is drawn; a plot of plans marks its frames."""

    def _draw_ends(self, ends: list[tuple[float, float, str, QColor]]) -> None:
        top = self._view[2]
        gap = max(_LABEL_GAP, px(15) / max(self._picture_height(), px(100))) * top
        ceiling = top - gap / 2
        # From the top down, so that no label leaves the picture.
        for x, y, words, colour in sorted(ends, key=lambda end: -end[1]):
            level = min(y, ceiling)
            if level < 0.0:
                # There are more than there is room for.
                break
            ceiling = level - gap
            item = pg.TextItem(local(words), color=self._look.legible(colour), anchor=(0, 0.5))
            item.setFont(role_font(Role.CAPTION, bold=True))
            item.setPos(x + 0.04, level)
            self.addItem(item)

    def _picture_height(self) -> float:
        return float(self.getPlotItem().getViewBox().height())

    def _clicked(self, event: object) -> None:
        box = self.getPlotItem().getViewBox()
        place: QPointF = box.mapSceneToView(event.scenePos())  # type: ignore[attr-defined]
        low, high, top = self._view
        best, reach = None, 0.03
        for x, y, frame_id in self.points:
            distance = abs(x - place.x()) / (high - low) + abs(y - place.y()) / top
            if distance < reach:
                best, reach = frame_id, distance
        if best is not None and event.button() == Qt.MouseButton.LeftButton:  # type: ignore[attr-defined]
            self.picked.emit(best)

"""Tracing a maker's curve: four marks set the axes, then points by hand or along its colour."""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import replace
from functools import partial
from pathlib import Path
from typing import TYPE_CHECKING

from PyQt6.QtCore import Qt
from PyQt6.QtGui import QKeyEvent
from PyQt6.QtWidgets import QVBoxLayout, QWidget

from vadrin.app.read.sheet_axes import AXIS_ENDS
from vadrin.app.test_sheet import StripSheet
from vadrin.app.workbench import Workbench
from vadrin.errors import EntryError, VadrinError
from vadrin.ui.jobs import Jobs
from vadrin.ui.stations.station import Scene
from vadrin.ui.theme.look import DAY, Look
from vadrin.ui.theme.roles import Role
from vadrin.ui.theme.typeface import px
from vadrin.ui.widgets.buttons import button
from vadrin.ui.widgets.fields import WordField
from vadrin.ui.widgets.labels import text
from vadrin.ui.widgets.sentence import flowing, sentence

if TYPE_CHECKING:
    from vadrin.app.read.trace_steps import Place, Trace
    from vadrin.ui.stations.read.pointed_picture import PointedPicture

_KEYS = (
    "Click, or move the cross with the arrows (Shift: ten pixels) and press Enter. F follows the "
    "line under the cross by its colour. Backspace takes the last one back."
)
_PICTURES = "Pictures (*.png *.jpg *.jpeg *.tif *.tiff)"


class TracePage(QWidget):
    """The picture of a sheet, and the steps of tracing it.

    Parameters
    ----------
    bench : Workbench
    refuse : callable
        Says why something was not taken.
    jobs : Jobs
        Opens pictures off the screen's thread.
    ask_file : callable
    into_view : callable
        Scrolls to a part of the page.
    """

    def __init__(
        self, bench: Workbench, refuse: Callable[[str], None], jobs: Jobs,
        ask_file: Callable[[str, str, Callable[[Path], object]], None],
        into_view: Callable[[QWidget], None],
    ) -> None:  # fmt: skip
        super().__init__()
        self._bench, self._refuse, self._jobs = bench, refuse, jobs
        self._into_view = into_view
        self._strip: StripSheet | None = None
        self._look: Look = DAY
        self.trace: Trace | None = None
        self.view: PointedPicture | None = None
        self.fields = {end: self._field(end) for end in AXIS_ENDS}
        ask = partial(ask_file, "Open the sheet's picture", _PICTURES, self.open)
        self.choose = button("Open the picture …", ask)
        self.follow = button("Follow the line (F)", self._follow)
        self.undo = button("Take the last back", self._back)
        self.take = button("Take this curve", self.keep, primary=True)
        self._head, self._asks = text("", Role.HEADING), text("", Role.LEAD_STRONG, wrap=True)
        self._keys = text(_KEYS, Role.CAPTION, wrap=True)
        f = self.fields
        column = QVBoxLayout(self)
        column.setContentsMargins(0, 0, 0, 0)
        column.setSpacing(px(6))
        column.addWidget(self._head)
        column.addWidget(
            sentence("Along, the axis is marked at", f["left"], "and", f["right"], "lg exposure;",
                     "up, at", f["lower"], "and", f["upper"], ".", role=Role.LEAD)
        )  # fmt: skip
        column.addWidget(flowing(self.choose, self.follow, self.undo, self.take, gap=8))
        column.addWidget(self._asks)
        self._place = QVBoxLayout()
        column.addLayout(self._place, 1)
        column.addWidget(self._keys)

    def _field(self, end: str) -> WordField:
        made = WordField(f"{end} mark", partial(self._type_value, end), role=Role.LEAD)
        made.refused.connect(self._refuse)
        return made

    def show_scene(self, scene: Scene) -> None:
        """Show the tracing of the strip whose frame is selected."""
        place = self._bench.selected()
        if place is None:
            return
        fresh = self._strip is None or self._strip.strip.id != place[0].strip.id
        self._strip, self._look = place[0], scene.look
        if fresh and self.trace is not None:
            # Another curve of the same picture: its axes stay.
            self.trace = replace(self.trace, points=())
        self._show()

    def _show(self) -> None:
        from vadrin.app.read.trace_steps import USUAL_VALUES
        from vadrin.ui.stations.read.pointed_picture import Mark, PointedPicture

        if self.view is None:
            self.view = PointedPicture("picture of the sheet", self._pointed)
            self._place.addWidget(self.view, 1)
        trace, strip = self.trace, self._strip
        minutes = f", {strip.minutes:g} min" if strip and strip.minutes else ""
        self._head.setText(f"Curve {strip.strip.label}{minutes}" if strip else "")
        values = trace.values if trace else USUAL_VALUES
        for end, field in self.fields.items():
            field.show_value(f"{values[end]:g}".replace("-", "−"))
        # The left and the lower mark are often one place.
        marks = (
            tuple(
                Mark(at, f"{end} {trace.values[end]:g}", under=end == "lower")
                for end, at in zip(AXIS_ENDS, trace.marks, strict=False)
            )
            if trace
            else ()
        )
        self.view.show_picture(trace.picture if trace else None, self._look, marks,
                               trace.points if trace else ())  # fmt: skip
        self._asks.setText(trace.asks if trace else "Open a picture of the sheet's curve.")
        for part in (self.follow, self.undo, self.take, self._keys):
            part.setVisible(trace is not None)

    def open(self, path: Path) -> None:
        """Open a picture; what was marked on another is left."""
        from vadrin.app.read.trace_steps import opened

        self._refuse("")
        self._jobs.run("trace", lambda _said: opened(path), self._opened, self._failed)

    def _opened(self, trace: Trace) -> None:
        values = self.trace.values if self.trace else trace.values
        self.trace = replace(trace, values=values)
        self._show()
        self._into_view(self._asks)
        if self.view is not None:
            self._into_view(self.view)

    def _failed(self, error: Exception) -> None:
        if not isinstance(error, VadrinError):
            raise error
        self._refuse(str(error))

    def _type_value(self, end: str, words: str) -> None:
        from vadrin.app.read.sheet_tracing import axis_value_typed

        value = axis_value_typed(words)
        if self.trace is not None:
            self.trace = replace(self.trace, values={**self.trace.values, end: value})
            self._show()

    def _pointed(self, at: Place) -> None:
        if self.trace is not None:
            self.trace = self.trace.placed(at)
            self._refuse("")
            self._show()

    def _follow(self) -> None:
        self._try(lambda trace, view: trace.following(view.at))

    def _try(self, step: Callable[[Trace, PointedPicture], Trace]) -> None:
        if self.trace is None or self.view is None:
            return
        try:
            self.trace = step(self.trace, self.view)
            self._refuse("")
        except EntryError as error:
            self._refuse(str(error))
        self._show()

    def _back(self) -> None:
        if self.trace is not None:
            self.trace = self.trace.back()
            self._show()

    def keep(self) -> None:
        """Take the curve as the points of the strip."""
        from vadrin.app.read.sheet_tracing import keep_trace

        trace, strip, sheet = self.trace, self._strip, self._bench.sheet
        if trace is None or strip is None or sheet is None:
            return
        try:
            points = trace.curve()
        except EntryError as error:
            self._refuse(str(error))
            return
        self._refuse("")
        said = self._bench.edit(
            lambda book: keep_trace(book, strip, points, trace.path, trace.digest, trace.picture)
        )
        if said:
            self._bench.said.emit(said)

    def take_key(self, event: QKeyEvent) -> bool:
        """Arrows move the cross, Enter sets, F follows, Backspace takes back."""
        acts = {Qt.Key.Key_F: self._follow, Qt.Key.Key_Backspace: self._back}
        return self.view is not None and self.view.take_key(event, acts)

"""Tracing a maker's curve: four marks set the axes, then points by hand or along its colour."""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import replace
from functools import partial
from pathlib import Path
from typing import TYPE_CHECKING

from PyQt6.QtCore import Qt
from PyQt6.QtWidgets import QVBoxLayout, QWidget

from vadrin.app.entry.stepping import chooser
from vadrin.app.read.data_sheet_axes import AXIS_ENDS
from vadrin.app.read.data_sheet_tracing import keep_traced
from vadrin.app.read.sheet_pictures import CURVE, SHEET_PICTURES, SheetPicture, sheet_picture_typed
from vadrin.app.read.trace_steps import opened
from vadrin.errors import EntryError
from vadrin.ui.kept import OfTest
from vadrin.ui.stations.read.pointed_picture import Mark
from vadrin.ui.stations.read.pointing_page import PointingPage
from vadrin.ui.stations.station import StationContext, ViewState
from vadrin.ui.theme.roles import Role
from vadrin.ui.theme.typeface import px
from vadrin.ui.widgets.buttons import button
from vadrin.ui.widgets.fields import WordField
from vadrin.ui.widgets.sentence import flowing, sentence

if TYPE_CHECKING:
    from vadrin.app.read.trace_steps import Trace

_KEYS = (
    "Click, or move the cross with the arrows (Shift: ten pixels) and press Enter. F follows the "
    "line under the cross by its colour. Backspace takes the last one back."
)


class TracePage(PointingPage["Trace"]):
    """The picture of a sheet, and the steps of tracing it; for its parameters see
    `PointingPage`."""

    _last: OfTest[Trace | None] = OfTest(lambda: None)
    _unopened: OfTest[SheetPicture] = OfTest(lambda: CURVE)
    """What the picture is said to show before one is open."""

    def __init__(
        self,
        given: StationContext,
        refuse: Callable[[str], None],
        into_view: Callable[[QWidget], None],
    ) -> None:
        super().__init__(given, refuse, into_view, "sheet", "Open the picture …", "Use this line")
        self.fields = {end: self._field(end) for end in AXIS_ENDS}
        self.follow = button("Follow the line (F)", self._follow)
        self._keys.setText(_KEYS)
        titles = chooser([p.title for p in SHEET_PICTURES])
        self.shows = WordField("what the picture shows", self._type_shows, titles, role=Role.LEAD)
        self.shows.refused.connect(refuse)
        f = self.fields
        column = QVBoxLayout(self)
        column.setContentsMargins(0, 0, 0, 0)
        column.setSpacing(px(6))
        column.addWidget(self._head)
        column.addWidget(
            sentence(
                "It is a",
                self.shows,
                ". Along, the axis is marked at",
                f["left"],
                "and",
                f["right"],
                "; up, at",
                f["lower"],
                "and",
                f["upper"],
                ".",
                role=Role.LEAD,
            )
        )
        column.addWidget(flowing(self.choose, self.follow, self.undo, self.take, gap=8))
        column.addWidget(self._asks)
        column.addLayout(self._place, 1)
        column.addWidget(self._keys)

    def _field(self, end: str) -> WordField:
        made = WordField(f"{end} mark", partial(self._type_value, end), role=Role.LEAD)
        made.refused.connect(self._refuse)
        return made

    def show_state(self, scene: ViewState) -> None:
        """Show the tracing of the strip whose frame is selected."""
        place = self.bench.selected()
        if place is None:
            return
        before = self._last
        self._strip, self._look = place[0], scene.look
        if self.steps is None and before is not None:
            # Another curve of the same picture: its axes stay.
            self.steps = replace(before, points=())
        self._last = self.steps
        self.show_steps()

    def show_steps(self) -> None:
        """Show the picture, the marks of its axes and the points of the curve."""
        trace, strip = self.steps, self._strip
        if strip is None:
            return
        minutes = f", {strip.minutes:g} min" if strip.minutes else ""
        shows = trace.shows if trace else self._unopened
        named = "The maker's times" if shows.times else f"Curve {strip.strip.label}{minutes}"
        self._head.setText(named)
        values = trace.values if trace else shows.usual
        self.shows.show_value(shows.title)
        for end, field in self.fields.items():
            field.show_value(f"{values[end]:g}".replace("-", "−"))
        # The left and the lower mark are often one place.
        marks = (
            tuple(
                Mark(at, f"{end} {trace.values[end]:g}".replace("-", "−"), under=end == "lower")
                for end, at in zip(AXIS_ENDS, trace.marks, strict=False)
            )
            if trace
            else ()
        )
        self.the_view().show_picture(
            trace.picture if trace else None, self._look, marks, trace.points if trace else ()
        )
        self._asks.setText(trace.asks if trace else "Open the picture from the sheet.")
        for part in (self.follow, self.undo, self.take, self._keys):
            part.setVisible(trace is not None)

    def opened_from(self, path: Path) -> Trace:
        """Read the picture of a sheet; what its axes' marks say is kept from the one before."""
        made, before = opened(path), self.steps
        if before is None:
            return made.showing(self._unopened)
        return replace(made, shows=before.shows, values=before.values)

    def _type_shows(self, words: str) -> None:
        self._unopened = sheet_picture_typed(words)
        if self.steps is not None:
            self.steps = self.steps.showing(self._unopened)
        self.show_steps()

    def _type_value(self, end: str, words: str) -> None:
        shows = self.steps.shows if self.steps is not None else self._unopened
        value = shows.value_typed(end, words)
        if self.steps is not None:
            self.steps = replace(self.steps, values={**self.steps.values, end: value})
            self.show_steps()

    def _follow(self) -> None:
        if self.view is not None:
            self._step_to(lambda trace, at: trace.following(at), self.view.at)

    def keep(self) -> None:
        """Take the line as the points of the strip, or as the maker's times."""
        trace, strip, loaded = self.steps, self._strip, self.bench.loaded
        if trace is None or strip is None or loaded is None:
            return
        try:
            said = self.bench.edit_or_raise(lambda book: keep_traced(book, loaded, strip, trace))
        except EntryError as error:
            self._refuse(str(error))
            return
        self._refuse("")
        self.bench.said.emit(str(said))

    def acts(self) -> dict[Qt.Key, Callable[[], None]]:
        """F follows the line, Backspace takes back."""
        return {**super().acts(), Qt.Key.Key_F: self._follow}

"""A densitometer on a line beside the frame that is read: one press, one frame."""

from __future__ import annotations

from collections.abc import Callable
from typing import TYPE_CHECKING

from PyQt6.QtCore import QTimer
from PyQt6.QtWidgets import QVBoxLayout, QWidget

from vadrin.app.document.workbench import Workbench
from vadrin.app.read.entering_readings import add_reading
from vadrin.app.sheets.test_sheet import FrameSheet, TestSheet
from vadrin.core.channels import Channel
from vadrin.errors import EntryError
from vadrin.ui.theme.typeface import px
from vadrin.ui.widgets.buttons import button

if TYPE_CHECKING:
    from vadrin.app.read.densitometer import DensitometerLine

_LISTEN_MS = 60


class DensitometerRow(QWidget):
    """Listens to an instrument, keeps its zero and its patch, and takes its drift out.

    Parameters
    ----------
    bench : Workbench
    refuse : callable
        Says why something was not taken.
    go_on : callable
        Goes to the frame after the one that was read.
    """

    def __init__(
        self,
        bench: Workbench,
        refuse: Callable[[str], None],
        go_on: Callable[[TestSheet | None, FrameSheet], None],
    ) -> None:
        super().__init__()
        self.bench, self.refuse, self._next = bench, refuse, go_on
        self.line = button("Listen to the densitometer", self.listen, link=True)
        self.press = button("Press its button", self.press_button)
        self.zero = button("Zero on nothing", self.zero_it, link=True)
        self.patch = button("Read the reference patch", self.check_patch, link=True)
        self.drift = button("Take its drift out of them", self.take_out_drift, link=True)
        self._meter: DensitometerLine | None = None
        self._asked = ""
        self._ear = QTimer(self)
        self._ear.timeout.connect(self.hear)
        column = QVBoxLayout(self)
        column.setContentsMargins(0, 0, 0, 0)
        column.setSpacing(px(4))
        for part in (self.line, self.press, self.zero, self.patch, self.drift):
            column.addWidget(part)
        self._show_meter()

    def listen(self) -> None:
        """Take what a densitometer sends, or no longer."""
        sheet = self.bench.sheet
        if self._meter is not None or sheet is None:
            self.rest()
            return
        from vadrin.app.read.densitometer import DensitometerLine, densitometer_of

        try:
            self._meter = DensitometerLine(densitometer_of(self.bench.notebook, sheet))
        except EntryError as error:
            self.refuse(str(error))
            return
        self.refuse("")
        self._ear.start(_LISTEN_MS)
        self._show_meter()

    def rest(self) -> None:
        """Listen to no instrument."""
        self._ear.stop()
        if self._meter is not None:
            self._meter.close()
            self._meter = None
        self._show_meter()

    def _show_meter(self) -> None:
        meter = self._meter
        words = f"{meter.name} is heard: stop" if meter else "Listen to the densitometer"
        self.line.setText(words)
        self.press.setVisible(meter is not None and meter.simulated)
        for part in (self.zero, self.patch):
            part.setVisible(meter is not None)
        self.drift.setVisible(meter is not None and meter.drifted > 0)

    def press_button(self) -> None:
        """Press the stand-in's button on the selected frame."""
        place, sheet = self.bench.selected(), self.bench.sheet
        if self._meter is not None and place is not None and sheet is not None:
            self._meter.press(sheet, *place)

    def zero_it(self) -> None:
        """The next reading is of no film, and tells the zero."""
        self._asked = "zero"
        self.bench.said.emit("Press the button with no film under it.")
        if self._meter is not None and self._meter.simulated:
            self._meter.press_on_nothing()

    def check_patch(self) -> None:
        """The next reading is of the reference patch."""
        self._asked = "patch"
        self.bench.said.emit("Press the button on the reference patch.")
        if self._meter is not None and self._meter.simulated:
            self._meter.press_on_patch()

    def take_out_drift(self) -> None:
        """Take the drift out of what was read since the zero."""
        meter = self._meter
        if meter is not None:
            said = self.bench.edit(meter.take_out_drift)
            self.bench.said.emit(said or "")
            self._show_meter()

    def hear(self) -> None:
        """Take what came: a frame each, and on to the next."""
        meter = self._meter
        if meter is None:
            return
        # Asked once: a strange line is told once.
        trouble = meter.trouble
        if trouble:
            self.refuse(trouble)
        for density, channel in meter.news():
            self._take_heard(meter, density, channel)

    def _take_heard(self, meter: DensitometerLine, density: float, channel: Channel) -> None:
        asked, self._asked = self._asked, ""
        if asked:
            if asked == "zero":
                said: str | None = meter.set_zero(density)
            else:
                said = self.bench.edit(lambda book: meter.check_patch(book, density))
            self.bench.said.emit(said or "")
            self._show_meter()
            return
        place = self.bench.selected()
        if place is not None and place[1].readable:
            frame, read = place[1], max(density, 0.0)
            made = self.bench.edit(lambda book: add_reading(book, frame, read, channel))
            due = meter.note(made.id) if made is not None else ""
            if due:
                self.bench.said.emit(due)
            self._next(self.bench.sheet, frame)

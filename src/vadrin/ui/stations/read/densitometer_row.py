"""A densitometer on a line beside the frame that is read: one press, one frame."""

from __future__ import annotations

from collections.abc import Callable
from typing import TYPE_CHECKING

from PyQt6.QtWidgets import QVBoxLayout, QWidget

from vadrin.app.document.workbench import Workbench
from vadrin.app.instruments.listening import PATCH, ZERO
from vadrin.errors import EntryError
from vadrin.ui.ears import Ears
from vadrin.ui.theme.typeface import px
from vadrin.ui.widgets.buttons import button

if TYPE_CHECKING:
    from vadrin.app.instruments.densitometer import DensitometerLine


class DensitometerRow(QWidget):
    """Listens to an instrument, keeps its zero and its patch, and takes its drift out.

    Parameters
    ----------
    bench : Workbench
    ears : Ears
    refuse : callable
        Says why something was not taken.
    """

    def __init__(self, bench: Workbench, ears: Ears, refuse: Callable[[str], None]) -> None:
        super().__init__()
        self.bench, self._ears, self.refuse = bench, ears, refuse
        self.line = button("Listen to the densitometer", self.listen, link=True)
        self.press = button("Press its button", self.press_button)
        self.zero = button("Zero on nothing", self.zero_it, link=True)
        self.patch = button("Read the reference patch", self.check_patch, link=True)
        self.drift = button("Take its drift out of them", self.take_out_drift, link=True)
        column = QVBoxLayout(self)
        column.setContentsMargins(0, 0, 0, 0)
        column.setSpacing(px(4))
        for part in (self.line, self.press, self.zero, self.patch, self.drift):
            column.addWidget(part)
        ears.heard.connect(self.show_heard)
        self._show_meter()

    @property
    def _meter(self) -> DensitometerLine | None:
        return self._ears.listening.densitometer

    def listen(self) -> None:
        """Take what a densitometer sends, or no longer."""
        listening = self._ears.listening
        if listening.densitometer is not None:
            listening.rest_meter()
        else:
            try:
                listening.listen_to_meter()
            except EntryError as error:
                self.refuse(str(error))
                return
            self.refuse("")
        self._ears.look()
        self._show_meter()

    def show_heard(self) -> None:
        """Show what came, and why nothing comes."""
        listening = self._ears.listening
        trouble, listening.meter_trouble = listening.meter_trouble, ""
        if trouble:
            self.refuse(trouble)
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
        self._ears.listening.awaited = ZERO
        self.bench.said.emit("Press the button with no film under it.")
        if self._meter is not None and self._meter.simulated:
            self._meter.press_on_nothing()

    def check_patch(self) -> None:
        """The next reading is of the reference patch."""
        self._ears.listening.awaited = PATCH
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

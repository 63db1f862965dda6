"""A densitometer on a line beside the frame that is read: one press, one frame."""

from __future__ import annotations

from collections.abc import Callable
from typing import TYPE_CHECKING, cast

from PyQt6.QtWidgets import QVBoxLayout, QWidget

from vadrin.app.display.words import capital
from vadrin.app.document.workbench import Workbench
from vadrin.app.instruments import DENSITOMETER
from vadrin.app.instruments.densitometer import PATCH, ZERO
from vadrin.app.instruments.film_under import densities_under
from vadrin.errors import VadrinError
from vadrin.ui.ears import Ears
from vadrin.ui.stations.listen_button import ListenButton
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
        listening = self._listening = ListenButton(DENSITOMETER, ears, refuse)
        self.line = listening.link
        self.press = button("Simulate a reading (F6)", self.press_button)
        self.zero = button("Zero without film", self.zero_it, link=True)
        self.patch = button("Read the reference patch", self.check_patch, link=True)
        self.drift = button("Correct earlier readings for drift", self.take_out_drift, link=True)
        column = QVBoxLayout(self)
        column.setContentsMargins(0, 0, 0, 0)
        column.setSpacing(px(4))
        for part in (listening, self.press, self.zero, self.patch, self.drift):
            column.addWidget(part)
        ears.heard.connect(self._show_meter)
        self._show_meter()

    @property
    def _meter(self) -> DensitometerLine | None:
        line = self._ears.listening.lines.get(DENSITOMETER)
        return cast("DensitometerLine | None", line)

    def _show_meter(self) -> None:
        meter = self._meter
        self.press.setVisible(meter is not None and meter.simulated)
        for part in (self.zero, self.patch):
            part.setVisible(meter is not None)
        self.drift.setVisible(meter is not None and meter.drifted > 0)

    def press_or_connect(self) -> None:
        """The button by a key; before anybody listens, listen first."""
        if self._meter is None:
            self._listening.listen()
        elif self._meter.simulated:
            self.press_button()

    def press_button(self) -> None:
        """Press the stand-in's button on the selected frame."""
        place, loaded = self.bench.selected(), self.bench.loaded
        if self._meter is None or place is None or loaded is None:
            return
        try:
            self._meter.press(densities_under(self.bench.notebook.path, loaded, *place))
            self.refuse("")
        except VadrinError as error:
            self.refuse(f"{capital(str(error))}.")

    def zero_it(self) -> None:
        """The next reading is of no film, and tells the zero."""
        self._wait_for(ZERO, "Press the button with no film under it.")

    def check_patch(self) -> None:
        """The next reading is of the reference patch."""
        self._wait_for(PATCH, "Press the button on the reference patch.")

    def _wait_for(self, what: str, words: str) -> None:
        meter = self._meter
        if meter is not None:
            meter.awaited = what
            self.bench.said.emit(words)
            meter.press_on(what)

    def take_out_drift(self) -> None:
        """Take the drift out of what was read since the zero."""
        meter = self._meter
        if meter is not None:
            said = self.bench.edit(meter.take_out_drift)
            self.bench.said.emit(said or "")
            self._show_meter()

"""A scan: choose the picture, see the frames that were found, move them, take their densities."""

from __future__ import annotations

from collections.abc import Callable
from functools import partial
from pathlib import Path
from typing import TYPE_CHECKING

from PyQt6.QtCore import Qt
from PyQt6.QtGui import QKeyEvent
from PyQt6.QtWidgets import QHBoxLayout, QVBoxLayout, QWidget

from vadrin.app.test_sheet import StripSheet
from vadrin.app.workbench import Workbench
from vadrin.errors import VadrinError
from vadrin.ui.jobs import Jobs
from vadrin.ui.stations.station import Scene
from vadrin.ui.theme.look import DAY, Look
from vadrin.ui.theme.roles import Role
from vadrin.ui.theme.typeface import px
from vadrin.ui.widgets.buttons import button
from vadrin.ui.widgets.fields import WordField
from vadrin.ui.widgets.labels import text
from vadrin.ui.widgets.sentence import sentence

if TYPE_CHECKING:
    from vadrin.app.read.scan_reading import Scan
    from vadrin.ui.stations.read.scan_view import ScanView

_HOW = (
    "Scan the strip lying along the picture with bare light round it, a step wedge beside it, as "
    "positive film, linear or at a fixed gamma: no automatic levels, no sharpening, no inversion."
)
_KEYS = "← → move the frames, − + set them closer or wider."
_PICTURES = "Pictures (*.tif *.tiff *.png *.jpg *.jpeg)"
_NO_WEDGE = "none"


class ScanPage(QWidget):
    """One strip from one picture.

    Parameters
    ----------
    bench : Workbench
    refuse : callable
        Says why something was not taken.
    jobs : Jobs
        Opens pictures off the screen's thread.
    ask_file : callable
    """

    def __init__(
        self, bench: Workbench, refuse: Callable[[str], None], jobs: Jobs,
        ask_file: Callable[[str, str, Callable[[Path], object]], None],
    ) -> None:  # fmt: skip
        super().__init__()
        self._bench, self._refuse, self._jobs = bench, refuse, jobs
        self._strip: StripSheet | None = None
        self._look: Look = DAY
        self.scan: Scan | None = None
        self._of_strip = 0
        self._view: ScanView | None = None
        self.wedge = WordField("densities of the wedge", self._wedge, role=Role.LEAD)
        self.wedge.refused.connect(refuse)
        choose = partial(ask_file, "Open a scan", _PICTURES, self.open)
        self.choose = button("Open a scan …", choose)
        self.take = button("Take these densities", self.keep, primary=True)
        self.turn = button("Turn it round (R)", self._turn, link=True)
        self._head = text("", Role.HEADING)
        self._words = text("", Role.BODY, wrap=True)
        self._doubts = text("", Role.REFUSAL, wrap=True)
        self._keys = text(_KEYS, Role.CAPTION, wrap=True)
        row = QHBoxLayout()
        for part in (self.choose, self.take, self.turn):
            row.addWidget(part)
        row.addWidget(self._keys, 1)
        column = QVBoxLayout(self)
        column.setContentsMargins(0, 0, 0, 0)
        column.setSpacing(px(8))
        column.addWidget(self._head)
        column.addWidget(text(_HOW, Role.NOTE, wrap=True))
        column.addWidget(sentence("The wedge beside it has", self.wedge, ".", role=Role.LEAD))
        column.addLayout(row)
        self._frame = QVBoxLayout()
        column.addLayout(self._frame, 1)
        column.addWidget(self._words)
        column.addWidget(self._doubts)

    def show_scene(self, scene: Scene) -> None:
        """Show the scan of the strip whose frame is selected."""
        from vadrin.app.read.scan_reading import wedge_kept

        place = self._bench.selected()
        if place is None:
            return
        self._strip, self._look = place[0], scene.look
        if self._of_strip != self._strip.strip.id:
            self.scan, self._of_strip = None, self._strip.strip.id
        kept = wedge_kept(self._bench.notebook)
        self.wedge.show_value(" ".join(f"{s:.2f}" for s in kept) or _NO_WEDGE)
        self._head.setText(f"Strip {self._strip.strip.label}")
        self._show()

    def _show(self) -> None:
        from vadrin.app.read.scan_reading import calibration_words
        from vadrin.ui.stations.read.scan_view import ScanView

        if self._view is None:
            self._view = ScanView()
            self._frame.addWidget(self._view)
        scan = self.scan
        self._view.show_scan(scan, self._look)
        for part in (self.take, self.turn, self._keys):
            part.setVisible(scan is not None)
        self._words.setText(calibration_words(scan) if scan else "No scan of this strip is open.")
        said = [f"{d[0].upper()}{d[1:]}." for d in scan.doubts] if scan else []
        self._doubts.setText(" ".join(said))

    def open(self, path: Path) -> None:
        """Open a picture and find the frames in it."""
        from vadrin.app.read.scan_reading import (
            frames_of_scan,
            laid_as_shot,
            open_scan,
            wedge_kept,
        )

        strip, sheet = self._strip, self._bench.sheet
        if strip is None or sheet is None:
            return
        wedge, count = wedge_kept(self._bench.notebook), len(frames_of_scan(strip))
        self._refuse("")
        self._words.setText("Looking for the strip …")
        self._jobs.run(
            "scan",
            lambda _said: laid_as_shot(open_scan(path, count, wedge), sheet, strip),
            self._opened, self._failed,
        )  # fmt: skip

    def _opened(self, scan: Scan) -> None:
        self.scan = scan
        self._show()

    def _failed(self, error: Exception) -> None:
        self._show()
        if not isinstance(error, VadrinError):
            raise error
        self._refuse(str(error))

    def take_key(self, event: QKeyEvent) -> bool:
        """The arrows move the frames, plus and minus set them apart, R turns the strip round."""
        from vadrin.app.read.scan_reading import nudged

        if self.scan is None:
            return False
        moves = {Qt.Key.Key_Left: (-1, 0), Qt.Key.Key_Right: (1, 0),
                 Qt.Key.Key_Minus: (0, -1), Qt.Key.Key_Plus: (0, 1)}  # fmt: skip
        if event.key() in moves:
            along, wider = moves[Qt.Key(event.key())]
            self.scan = nudged(self.scan, along, wider)
            self._show()
            return True
        if event.text().lower() == "r":
            self._turn()
            return True
        return False

    def _turn(self) -> None:
        from vadrin.app.read.scan_reading import turned

        if self.scan is not None:
            self.scan = turned(self.scan)
            self._show()

    def keep(self) -> None:
        """Take what the frames read."""
        from vadrin.app.read.scan_reading import take_scan

        strip, scan = self._strip, self.scan
        if strip is not None and scan is not None:
            said = self._bench.edit(lambda book: take_scan(book, strip, scan))
            if said:
                self._bench.said.emit(said)

    def _wedge(self, words: str) -> None:
        from vadrin.app.read.scan_reading import keep_wedge, wedge_typed

        steps = () if words.strip().lower() in ("", _NO_WEDGE) else wedge_typed(words)
        self._bench.edit_or_raise(lambda book: keep_wedge(book, steps))

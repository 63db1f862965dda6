"""A scan: choose the picture, see the frames that were found, move them, take their densities."""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass, replace
from functools import partial
from pathlib import Path
from typing import TYPE_CHECKING

from PyQt6.QtCore import Qt
from PyQt6.QtGui import QKeyEvent
from PyQt6.QtWidgets import QGridLayout, QHBoxLayout, QVBoxLayout, QWidget

from vadrin.app.display.words import capital
from vadrin.app.document.workbench import Workbench
from vadrin.app.library.notebook_exchange import KeptFile
from vadrin.app.loaded.loaded_test import LoadedFrame, LoadedStrip
from vadrin.app.practice.practice_devices import write_scan
from vadrin.app.practice.practice_place import is_practice
from vadrin.app.scans.kept_scans import picture_file, scans_of
from vadrin.app.scans.picture_files import PICTURES_OR_RAW
from vadrin.app.scans.scan_frames import (
    frame_moved,
    frames_of_scan,
    laid_as_shot,
    lies_edge_to_edge,
    nudged,
    other_way_round,
)
from vadrin.app.scans.scan_reading import calibrated_words, open_scan, summed, take_scan
from vadrin.app.scans.step_wedge import steps_kept
from vadrin.errors import FormatError, VadrinError
from vadrin.ui.jobs import Jobs, Said
from vadrin.ui.kept import OfTest
from vadrin.ui.plots.calibration_plot import CalibrationPlot
from vadrin.ui.stations.read.calibration_row import CalibrationRow
from vadrin.ui.stations.read.scan_view import ScanView
from vadrin.ui.stations.station import ViewState
from vadrin.ui.theme.look import DAY, Look
from vadrin.ui.theme.roles import Role
from vadrin.ui.theme.typeface import px
from vadrin.ui.widgets.buttons import button
from vadrin.ui.widgets.labels import text

if TYPE_CHECKING:
    from vadrin.app.scans.scan_frames import Scan

_HOW = (
    "Scan the strip lying along the picture with bare light round it, a step wedge beside it, as "
    "positive film, linear or at a fixed gamma: no automatic levels, no sharpening, no inversion."
)
_HOW_PAPER = (
    "Scan the paper face down by reflection, lying along the picture with something whiter behind "
    "it and a reflection wedge beside it: no automatic levels, no sharpening, no inversion."
)
_KEYS = (
    "← → move the frames, − + set them closer or wider; Shift+← → moves the selected one alone, "
    "comma and point make its box narrower or wider. A box can be dragged."
)
_ONE_STEP = 0.02
_DOING = (
    "Reading the file",
    "Looking for the strip",
    "Looking for the frames",
    "Reading the frames",
    "Taking its checksum",
)


@dataclass(frozen=True)
class _Coming:
    """A scan that is being opened, for the strip it was begun for, whatever is shown when it comes.

    Attributes
    ----------
    scans, troubles : dict
        Of the test it was begun for: the scans of its strips, and why one did not come.
    strip_id : int
    path : Path
    """

    scans: dict[int, Scan]
    troubles: dict[int, str]
    strip_id: int
    path: Path

    def opened(self, jobs: Jobs, progress: Said, scan: Scan) -> None:
        """Keep what was found; the checksum it is known again by follows."""
        self.scans[self.strip_id] = scan
        jobs.run("scan", lambda said: summed(scan, said), self.summed, self.failed, progress)

    def summed(self, scan: Scan) -> None:
        """Its frames may have been moved meanwhile."""
        if self.strip_id in self.scans:
            moved = self.scans[self.strip_id]
            self.scans[self.strip_id] = replace(moved, digest=scan.digest)

    def failed(self, error: Exception) -> None:
        """Keep why it did not come."""
        there = self.scans.get(self.strip_id)
        if there is not None and not there.digest:
            del self.scans[self.strip_id]
        if isinstance(error, OSError):
            error = FormatError(f"{self.path}: it can't be read any more; open it again")
        if not isinstance(error, VadrinError):
            raise error
        self.troubles[self.strip_id] = str(error)


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

    _scans: OfTest[dict[int, Scan]] = OfTest(dict)
    _paths: OfTest[dict[int, Path]] = OfTest(dict)
    _troubles: OfTest[dict[int, str]] = OfTest(dict)

    def __init__(
        self,
        bench: Workbench,
        refuse: Callable[[str], None],
        jobs: Jobs,
        ask_file: Callable[[str, str, Callable[[Path], object]], None],
    ) -> None:
        super().__init__()
        self.bench, self._refuse, self._jobs = bench, refuse, jobs
        self._strip: LoadedStrip | None = None
        self._look: Look = DAY
        self._kept: list[KeptFile] = []
        self._view: ScanView | None = None
        self._plot: CalibrationPlot | None = None
        # Whoever began it may be gone, or another test on the bench: what came is in the session.
        jobs.ended.connect(self._ended)
        self.known = CalibrationRow(bench, refuse, jobs, ask_file)
        self.choose = button(
            "Open a scan …", partial(ask_file, "Open a scan", PICTURES_OR_RAW, self.open)
        )
        self.here = button("Scan it here (practice)", self._scan_here)
        self.stop = button("Stop", self.cancel)
        self.take = button("Use these densities", self.keep, primary=True)
        self.turn = button("Reverse frame order (R)", self._turn, link=True)
        self.gone = button("This frame is not in the picture (M)", self._missing, link=True)
        self.other = button("Next strip in scan (B)", self._another, link=True)
        self.again = button("Open the scan it was read from", self._open_kept, link=True)
        self._head = text("", Role.HEADING)
        self._how = text(_HOW, Role.NOTE, wrap=True)
        self._words = text("", Role.BODY, wrap=True)
        self._doubts = text("", Role.REFUSAL, wrap=True)
        self._keys = text(_KEYS, Role.CAPTION, wrap=True)
        self._check = text("Check the frames, then use their densities.", Role.NOTE)
        self._frame = QVBoxLayout()
        column = QVBoxLayout(self)
        column.setContentsMargins(0, 0, 0, 0)
        column.setSpacing(px(6))
        column.addWidget(self._head)
        column.addLayout(self._frame, 1)
        column.addWidget(self._words)
        column.addWidget(self._doubts)
        column.addLayout(self._steps())
        column.addStretch(1)
        self._column = column

    def _steps(self) -> QGridLayout:
        """Say what lies beside the strip, open the scan, check its frames and use them."""
        opened, used = QHBoxLayout(), QHBoxLayout()
        used.setSpacing(px(14))
        for row, parts in (
            (opened, (self.choose, self.here, self.stop, self.again, self.other)),
            (used, (self.take, self.turn, self.gone, self._check)),
        ):
            for part in parts:
                row.addWidget(part)
            row.addStretch(1)
        grid = QGridLayout()
        grid.setColumnStretch(1, 1)
        grid.setHorizontalSpacing(px(12))
        grid.setVerticalSpacing(px(6))
        top = Qt.AlignmentFlag.AlignTop
        for place, name in enumerate(("1", "2", "3")):
            grid.addWidget(text(name, Role.HEADING), 2 * place, 0, top)
        grid.addWidget(self.known, 0, 1)
        grid.addLayout(opened, 2, 1)
        grid.addWidget(self._how, 3, 1)
        grid.addLayout(used, 4, 1)
        grid.addWidget(self._keys, 5, 1)
        return grid

    @property
    def scan(self) -> Scan | None:
        """The scan of the strip, with its frames as they were moved."""
        return self._scans.get(self._strip.strip.id) if self._strip is not None else None

    @scan.setter
    def scan(self, scan: Scan | None) -> None:
        if self._strip is None:
            return
        if scan is None:
            self._scans.pop(self._strip.strip.id, None)
        else:
            self._scans[self._strip.strip.id] = scan

    @property
    def _path(self) -> Path | None:
        return self._paths.get(self._strip.strip.id) if self._strip is not None else None

    def show_state(self, scene: ViewState) -> None:
        """Show the scan of the strip whose frame is selected."""
        place = self.bench.selected()
        if place is None:
            return
        self._strip, self._look = place[0], scene.look
        self.known.show_known()
        self._head.setText(f"Strip {self._strip.strip.label}")
        self._how.setText(_HOW_PAPER if self._edge_to_edge() else _HOW)
        self._kept = scans_of(self.bench.notebook, self._strip)
        self._show()

    def _edge_to_edge(self) -> bool:
        """Whether what is scanned is paper, whose steps have no gaps."""
        loaded = self.bench.loaded
        return loaded is not None and lies_edge_to_edge(loaded)

    def _show(self) -> None:
        if self._view is None or self._plot is None:
            self._view, self._plot = ScanView(self._dragged), CalibrationPlot()
            self._frame.addWidget(self._view, 1)
            self._frame.addWidget(self._plot)
        scan, busy = self.scan, self._jobs.busy("scan")
        self._view.show_scan(scan, self._look)
        self._plot.show_calibration(scan.calibration if scan else None, self._look)
        for part in (self.take, self.turn, self._keys):
            part.setVisible(scan is not None and not busy)
        self.other.setVisible(scan is not None and scan.strips > 1 and not busy)
        # Where as many frames are seen as there should be, nothing is missing.
        counts = scan is not None and bool(scan.place.seen or scan.place.cut or scan.absent)
        self.gone.setVisible(counts and not busy)
        self._name_gone()
        self.again.setVisible(scan is None and bool(self._kept) and not busy)
        self.stop.setVisible(busy)
        self.choose.setVisible(not busy)
        self.here.setVisible(not busy and is_practice(self.bench.notebook.path))
        self._how.setVisible(scan is None)
        # The picture takes what room there is; before there is one, the steps stand on top.
        self._view.setVisible(scan is not None)
        self._column.setStretch(1, 1 if scan else 0)
        self._column.setStretch(self._column.count() - 1, 0 if scan else 1)
        self._check.setVisible(scan is None or busy)
        if not busy:
            words = calibrated_words(scan) if scan else "No scan of this strip is open."
            self._words.setText(words)
        said = [f"{d[0].upper()}{d[1:]}." for d in scan.doubts] if scan else []
        self._doubts.setText(" ".join(said))
        self._doubts.setVisible(bool(said))

    def _name_gone(self) -> None:
        """What the button says of the frame that is selected."""
        place, scan = self.bench.selected(), self.scan
        if place is None or scan is None:
            return
        shot, name = self._place_of(place[1]), place[1].called
        back = shot in scan.absent
        words = f"{name} is in the picture" if back else f"{name} is not in the picture"
        self.gone.setText(f"{words[0].upper()}{words[1:]} (M)")

    def _missing(self) -> None:
        """The selected frame of the script is not in the picture, or is after all."""
        place, scan = self.bench.selected(), self.scan
        if place is None or scan is None or self._path is None or self.gone.isHidden():
            return
        shot = self._place_of(place[1])
        absent = set(scan.absent) ^ {shot}
        if len(absent) < scan.place.count:
            self.open(self._path, scan.which, tuple(sorted(absent)))

    def open(self, path: Path, which: int | None = None, absent: tuple[int, ...] = ()) -> None:
        """Open a picture and find the frames in it, but for those that are not there."""
        strip, loaded = self._strip, self.bench.loaded
        if strip is None or loaded is None:
            return
        paper = self._edge_to_edge()
        known, count = steps_kept(self.bench.notebook), len(frames_of_scan(strip))
        ids = [each.strip.id for each in loaded.strips]
        place = which if which is not None else ids.index(strip.strip.id)
        self._refuse("")
        self._paths[strip.strip.id] = path
        self._words.setText(f"Opening {path.name} …")
        coming = _Coming(self._scans, self._troubles, strip.strip.id, path)
        self._jobs.run(
            "scan",
            lambda said: laid_as_shot(
                open_scan(path, count, known, place, said, paper, absent), loaded, strip
            ),
            partial(coming.opened, self._jobs, self._progress),
            coming.failed,
            self._progress,
        )
        self._show()

    def _scan_here(self) -> None:
        """Let the practice scanner make the picture, and open it."""
        loaded, strip = self.bench.loaded, self._strip
        if loaded is None or strip is None:
            return

        try:
            path = self.bench.edit_or_raise(lambda book: write_scan(book, loaded, strip))
        except VadrinError as error:
            self._refuse(f"{capital(str(error))}.")
            return
        if path is not None:
            self.open(path, 0)

    def _ended(self, key: object) -> None:
        if key == "scan" and self._strip is not None:
            trouble = self._troubles.pop(self._strip.strip.id, "")
            if trouble:
                self._refuse(trouble)
            self._show()

    def _progress(self, done: int, total: int) -> None:
        self._words.setText(f"{_DOING[min(done, len(_DOING) - 1)]} … ({done} of {total})")

    def cancel(self) -> None:
        """Open it no further."""
        self._jobs.cancel("scan")
        if self.scan is not None and not self.scan.digest:
            self.scan = None
        self._show()

    def _another(self) -> None:
        """The next strip that lies in the same picture."""
        if self.scan is not None and self._path is not None:
            self.open(self._path, (self.scan.which + 1) % self.scan.strips)

    def _open_kept(self) -> None:
        kept = self._kept[-1]
        try:
            path = self.bench.edit_or_raise(lambda book: picture_file(book, kept))
        except VadrinError as error:
            self._refuse(str(error))
            return
        if path is not None:
            self.open(path)

    def take_key(self, event: QKeyEvent) -> bool:
        """The arrows move the frames, plus and minus set them apart, R turns the strip round."""
        if self.scan is None:
            return False
        moves = {
            Qt.Key.Key_Left: (-1, 0),
            Qt.Key.Key_Right: (1, 0),
            Qt.Key.Key_Minus: (0, -1),
            Qt.Key.Key_Plus: (0, 1),
            Qt.Key.Key_Comma: (0, -1),
            Qt.Key.Key_Period: (0, 1),
        }
        if event.key() in moves:
            along, wider = moves[Qt.Key(event.key())]
            shift = bool(event.modifiers() & Qt.KeyboardModifier.ShiftModifier)
            one = event.key() in (Qt.Key.Key_Comma, Qt.Key.Key_Period) or bool(along and shift)
            self._move(along, wider, one)
            return True
        keys = {"r": self._turn, "b": self._another, "m": self._missing}
        act = keys.get(event.text().lower())
        if act is not None:
            act()
        return act is not None

    def _move(self, along: int, wider: int, alone: bool) -> None:
        place = self.bench.selected()
        if self.scan is None:
            return
        if alone and place is not None:
            shot = self._place_of(place[1])
            self.scan = frame_moved(self.scan, shot, _ONE_STEP * along, 2 * _ONE_STEP * wider)
        else:
            self.scan = nudged(self.scan, along, wider)
        self._show()

    def _place_of(self, frame: LoadedFrame) -> int:
        ids = [f.frame.id for f in frames_of_scan(self._strip)] if self._strip else []
        return ids.index(frame.frame.id) if frame.frame.id in ids else 0

    def _dragged(self, shot: int, along: float) -> None:
        """A box was dragged along by a share of a frame."""
        if self.scan is not None:
            self.scan = frame_moved(self.scan, shot, along)
            self._show()

    def _turn(self) -> None:
        if self.scan is not None:
            self.scan = other_way_round(self.scan)
            self._show()

    def keep(self) -> None:
        """Take what the frames read."""
        strip, scan = self._strip, self.scan
        if strip is not None and scan is not None:
            said = self.bench.edit(lambda book: take_scan(book, strip, scan))
            if said:
                self.bench.said.emit(said)

"""The window: header, light table, rail, station and finding column around one workbench."""

from __future__ import annotations

from collections.abc import Callable
from functools import partial
from importlib import import_module
from pathlib import Path
from typing import TYPE_CHECKING

from PyQt6.QtCore import Qt
from PyQt6.QtGui import (
    QCloseEvent,
    QDragEnterEvent,
    QDropEvent,
    QKeySequence,
    QResizeEvent,
    QShortcut,
)
from PyQt6.QtWidgets import (
    QApplication,
    QHBoxLayout,
    QMainWindow,
    QScrollArea,
    QStackedWidget,
    QVBoxLayout,
    QWidget,
)

from vadrin.app.progress import steps_of
from vadrin.app.test_sheet import TestSheet
from vadrin.app.workbench import STATIONS, Workbench
from vadrin.ui.analyst import Analyst
from vadrin.ui.frame.header import Header
from vadrin.ui.frame.import_banner import ImportBanner
from vadrin.ui.frame.light_table import LightTable
from vadrin.ui.frame.notebook_files import NotebookFiles
from vadrin.ui.frame.rail import Rail
from vadrin.ui.frame.shortcut_sheet import ShortcutSheet
from vadrin.ui.stations.shelf.shelf_station import ShelfStation
from vadrin.ui.stations.station import Scene, Station
from vadrin.ui.theme import typeface as typeface
from vadrin.ui.theme.look import DAY, LOOKS, CaretStyle, Look, style_sheet
from vadrin.ui.theme.typeface import SIZES, px
from vadrin.ui.widgets.parts import WordField

if TYPE_CHECKING:
    from vadrin.ui.frame.finding_column import FindingColumn

_SCALES = (1.0, 1.25, 1.5, 2.0)


def _run(act: Callable[[], object]) -> None:
    act()


class Window(QMainWindow):
    """The one window of the program.

    Parameters
    ----------
    bench : Workbench
    """

    def __init__(self, bench: Workbench) -> None:
        super().__init__()
        self.bench, self.look, self._red_only = bench, DAY, False
        self._quiet = False
        self.analyst = Analyst()
        self.setWindowTitle("Vadrin")
        self.setMinimumSize(1024, 700)
        self.setAcceptDrops(True)
        self._stations: dict[str, Station] = {}
        self._pages_of: dict[str, QScrollArea] = {}
        self._build()
        self._listen()
        self._bind_keys()
        self.set_look(DAY)
        self.bench.go(self.bench.station)

    def _build(self) -> None:
        body = QWidget()
        column = QVBoxLayout(body)
        column.setContentsMargins(0, 0, 0, 0)
        column.setSpacing(0)
        self.header = Header(self)
        self.table = LightTable()
        self.rail = Rail()
        self.pages = QStackedWidget()
        self.finding: FindingColumn | None = None
        self.banner = ImportBanner(self.bench)
        self.files = NotebookFiles(self)
        for part in (self.header, self.banner, self.table):
            column.addWidget(part)
        row = QHBoxLayout()
        row.setSpacing(0)
        row.addWidget(self.rail)
        row.addWidget(self.pages, 1)
        self._row = row
        column.addLayout(row, 1)
        self.setCentralWidget(body)
        self.keys = ShortcutSheet(body)

    def _listen(self) -> None:
        self.bench.sheet_changed.connect(self._sheet_changed)
        self.bench.selection_changed.connect(lambda _: self.refresh())
        self.bench.station_changed.connect(lambda _: self._turn())
        self.bench.said.connect(self.header.say)
        self.analyst.ready.connect(self._answered)
        self.table.picked.connect(self.bench.select)
        self.rail.chosen.connect(self.bench.go)

    def _sheet_changed(self, sheet: TestSheet | None) -> None:
        """Ask for the answer, and show everything once, not again for an answer known already."""
        self._quiet = True
        self.analyst.ask(sheet)
        self._quiet = False
        self.refresh()

    def _answered(self, _analysis: object) -> None:
        if not self._quiet:
            self.refresh()

    def _bind_keys(self) -> None:
        binds: dict[str, Callable[[], object]] = {
            "Ctrl+Z": self.bench.undo,
            "Ctrl+Shift+Z": self.bench.redo,
            "Ctrl+Y": self.bench.redo,
            "Ctrl+N": self.start_test,
            "Ctrl+I": self.files.ask_import,
            "Ctrl+O": self.files.ask_open,
            "Ctrl+9": lambda: self.bench.go("cupboard"),
            "Ctrl+0": lambda: self.bench.go("shelf"),
            "F1": lambda: self.keys.toggle(self.station()),
            "F8": self.next_look,
            "Ctrl++": lambda: self.scale_type(1),
            "Ctrl+-": lambda: self.scale_type(-1),
            "Ctrl+Q": self.close,
        }
        for place, name in enumerate(STATIONS, start=1):
            binds[f"Ctrl+{place}"] = partial(self.bench.go, name)
        for keys, act in binds.items():
            QShortcut(QKeySequence(keys), self).activated.connect(partial(_run, act))

    def station(self) -> Station:
        """The station shown, made the first time it is gone to."""
        name = self.bench.station
        if name not in self._stations:
            if name == "shelf":
                made: Station = ShelfStation(self.bench, self.start_test, self.files.ask_import)
            else:
                module = import_module(f"vadrin.ui.stations.{name}.{name}_station")
                made = getattr(module, f"{name.capitalize()}Station")(self.bench)
            self._stations[name] = made
            area = QScrollArea()
            area.setWidgetResizable(True)
            area.setHorizontalScrollBarPolicy(Qt.ScrollBarPolicy.ScrollBarAlwaysOff)
            area.setFocusPolicy(Qt.FocusPolicy.NoFocus)
            area.setWidget(made)
            self._pages_of[name] = area
            self.pages.addWidget(area)
        return self._stations[name]

    def _turn(self) -> None:
        if self.bench.station in STATIONS and self.bench.sheet is None:
            self.bench.station = "shelf"
        station = self.station()
        self.pages.setCurrentWidget(self._pages_of[self.bench.station])
        self.refresh()
        station.take_focus()

    def scene(self) -> Scene:
        """What the views are to show now."""
        bench = self.bench
        return Scene(bench.sheet, self.analyst.analysis, bench.frame_id, self.look)

    def refresh(self) -> None:
        """Show the present state in every view."""
        if self.bench.sheet is None and self.bench.station in STATIONS:
            self.bench.go("shelf")
            return
        scene, here = self.scene(), self.bench.station
        self.header.show_sheet(scene.sheet, self.bench.notebook)
        self.table.show_sheet(scene.sheet)
        self.table.show_selection(scene.frame_id)
        self.rail.show_steps(steps_of(scene.sheet, scene.analysis), here, self.look)
        station = self.station()
        if station.wants_finding:
            unread = scene.sheet is not None and not scene.sheet.read()
            self._finding_column().lend(station.aside if unread else None)
            self._finding_column().show_finding(scene.sheet, scene.analysis, here)
        if self.finding is not None:
            self.finding.setVisible(station.wants_finding)
        station.show_scene(scene)

    def _finding_column(self) -> FindingColumn:
        """The finding column, made when the first test is opened."""
        if self.finding is None:
            from vadrin.ui.frame.finding_column import FindingColumn

            self.finding = FindingColumn(self.bench.go)
            self._row.addWidget(self.finding)
        return self.finding

    def start_test(self) -> None:
        """Ask what a new test is to answer."""
        if self.bench.notebook.read_only:
            self.bench.said.emit(f"Open for reading only: {self.bench.notebook.read_only}.")
            return
        self.bench.go("question")

    def notebook_opened(self) -> None:
        """Remember the notebook, and say it where it can only be read."""
        from vadrin.app.library.recent_notebooks import remember

        notebook = self.bench.notebook
        remember(notebook.path)
        if notebook.read_only:
            self.banner.complain(f"Open for reading only: {notebook.read_only}.")

    def next_look(self) -> None:
        """Day, dim, safelight, and round again."""
        self.set_look(LOOKS[(LOOKS.index(self.look) + 1) % len(LOOKS)])

    def set_look(self, look: Look) -> None:
        """Put on a look."""
        self.look = look
        app = QApplication.instance()
        if isinstance(app, QApplication):
            app.setFont(typeface.font(13))
            if look.red_only != self._red_only:
                app.setStyle(CaretStyle(look))
                self._red_only = look.red_only
            app.setStyleSheet(style_sheet(look, {s: px(s) for s in SIZES}))
            # A new style sheet gives widgets back the type they had before the first one.
            self.header.rescale()
        self.table.show_look(look)
        if self._stations:
            self.refresh()

    def scale_type(self, way: int) -> None:
        """Larger or smaller type, 100 to 200 %."""
        here = _SCALES.index(min(_SCALES, key=lambda s: abs(s - typeface.scale())))
        typeface.set_scale(_SCALES[max(0, min(here + way, len(_SCALES) - 1))])
        for area in self._pages_of.values():
            self.pages.removeWidget(area)
            area.deleteLater()
        self._stations, self._pages_of = {}, {}
        if self.finding is not None:
            self.finding.hide()
            self.finding.deleteLater()
            self.finding = None
        self.set_look(self.look)
        self._turn()

    def dragEnterEvent(self, event: QDragEnterEvent | None) -> None:
        """Take files."""
        mime = event.mimeData() if event else None
        if event and mime and mime.hasUrls():
            event.acceptProposedAction()

    def dropEvent(self, event: QDropEvent | None) -> None:
        """Import a dropped table, open a dropped notebook."""
        mime = event.mimeData() if event else None
        for url in mime.urls() if mime else []:
            path = Path(url.toLocalFile())
            self.files.open(path) if path.suffix == ".vadrin" else self.banner.offer(path)
            return

    def resizeEvent(self, event: QResizeEvent | None) -> None:
        """Give the light table its share of the new height."""
        super().resizeEvent(event)
        self.table.show_sheet(self.bench.sheet)

    def closeEvent(self, event: QCloseEvent | None) -> None:
        """Take what is still being typed, finish the work in hand and let go of the file."""
        typing = self.focusWidget()
        if typing is not None:
            typing.clearFocus()
        # Fields that lose the keyboard while the window goes have nothing to write into.
        for field in self.findChildren(WordField):
            field.blockSignals(True)
        self.analyst.wait()
        # An answer that still comes has nothing to be shown from.
        self._quiet = True
        self.bench.notebook.close()
        super().closeEvent(event)

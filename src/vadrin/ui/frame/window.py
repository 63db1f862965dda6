"""The window: header, light table, rail, station and finding column around one workbench."""

from __future__ import annotations

from pathlib import Path
from typing import TYPE_CHECKING

from PyQt6.QtCore import QEvent, Qt, QTimer
from PyQt6.QtGui import QCloseEvent, QDragEnterEvent, QDropEvent, QKeyEvent, QResizeEvent
from PyQt6.QtWidgets import QApplication, QBoxLayout, QMainWindow, QVBoxLayout, QWidget

from vadrin.app.document.answering import Answering
from vadrin.app.document.stations import station_place
from vadrin.app.document.workbench import Topic, Workbench
from vadrin.app.learning.left_out import turn_estimates
from vadrin.app.library.recent_notebooks import remember
from vadrin.app.overview.progress import steps_of
from vadrin.ui.actions import Action, bind
from vadrin.ui.clearing import Clearing
from vadrin.ui.ears import Ears
from vadrin.ui.files.dropped_files import DroppedFiles
from vadrin.ui.files.notebook_files import NotebookFiles
from vadrin.ui.files.readings_import import ReadingsImport
from vadrin.ui.files.shown_files import ShownFiles
from vadrin.ui.finding_beside.finding_place import FindingPlace
from vadrin.ui.frame.announcer import Announcer
from vadrin.ui.frame.header import Header, window_title
from vadrin.ui.frame.overlays import Overlays
from vadrin.ui.frame.practice_line import PracticeLine
from vadrin.ui.frame.rail import Rail
from vadrin.ui.frame.running_clock import go_to_running_clock
from vadrin.ui.frame.updates import Updates
from vadrin.ui.frame.warm_up import warming_up
from vadrin.ui.frame.what_came import WhatCame
from vadrin.ui.frame.window_actions import MENU_PARTS, WindowActs, menu_actions, window_actions
from vadrin.ui.frame.words_here import explain_words
from vadrin.ui.jobs import Jobs, SlicedJob
from vadrin.ui.light_table.strip_table import StripTable
from vadrin.ui.stations.station import Station, StationContext, ViewState
from vadrin.ui.stations.station_pages import StationPages
from vadrin.ui.theme import typeface
from vadrin.ui.theme.bench_style import wear
from vadrin.ui.theme.look import DAY, Look
from vadrin.ui.theme.system_contrast import THEME_CHANGE, by_system, look_after
from vadrin.ui.theme.typeface import px
from vadrin.ui.widgets.banner import Banner
from vadrin.ui.widgets.clipboard import put_on_clipboard
from vadrin.ui.widgets.fields import WordField
from vadrin.ui.widgets.keyboard import KeyboardInSight, show_what_was_added

if TYPE_CHECKING:
    from vadrin.app.library.notebook_exchange import KeptFile

_SCALES = (1.0, 1.25, 1.5, 2.0)
_ROOMY = 1150
"""Pixels at scale 1 from which rail and finding stand beside the station."""


class Window(QMainWindow):
    """The one window of the program.

    Parameters
    ----------
    bench : Workbench
    """

    def __init__(self, bench: Workbench) -> None:
        super().__init__()
        self.bench, self.look = bench, DAY
        self._scaling, self._scale_soon = 0, QTimer(self)
        self._scale_soon.setSingleShot(True)
        self._scale_soon.timeout.connect(self._scale_now)
        self.updates = Updates(bench, self._takes_long)
        self.jobs = Jobs()
        self.ears = Ears(bench)
        self.announcer = Announcer(self)
        self._answering = Answering(bench, self.jobs)
        self.setWindowTitle("Vadrin")
        self.setMinimumSize(1024, 700)
        self.setAcceptDrops(True)
        self._build()
        self._in_sight = KeyboardInSight(self)
        self._clearing = Clearing(self, lambda: warming_up(self.jobs))
        self._listen()
        bind(self, self.actions_everywhere, within=False)
        self.set_look(DAY)
        self.bench.go(self.bench.station)
        self.updates.flush()
        self._show_header()

    def _build(self) -> None:
        body = QWidget()
        column = QVBoxLayout(body)
        column.setContentsMargins(0, 0, 0, 0)
        column.setSpacing(0)
        self.header = Header(self._menu, self.bench.go)
        self.table = StripTable()
        self.rail = Rail()
        self.banner = Banner(self._focus_station)
        self.importing = ReadingsImport(self.bench, self.banner, self.jobs)
        self.files = NotebookFiles(
            self, self.bench, self.banner, self.importing.offer, self.notebook_opened, self.jobs
        )
        self.given = StationContext(
            self.bench,
            self.jobs,
            self.ears,
            self.start_test,
            self.files.ask_import,
            self.files.ask,
            self.files.open,
            self.announcer.say,
        )
        self.pages = StationPages(self.given)
        self.dropped = DroppedFiles(
            self,
            self.files.open,
            self.importing.offer,
            lambda path: self.station().take_file(path),
            self._asks_about_a_file,
            self.bench.said.emit,
        )
        self.practice_line = PracticeLine(self.bench)
        for part in (
            self.header,
            self.practice_line,
            self.banner,
            self.importing.matcher,
            self.table,
        ):
            column.addWidget(part)
        row = QBoxLayout(QBoxLayout.Direction.LeftToRight)
        row.setSpacing(0)
        self.finding = FindingPlace(self.bench, row, self.pages)
        row.addWidget(self.rail)
        row.addWidget(self.finding.line)
        row.addWidget(self.pages, 1)
        self._row = row
        column.addLayout(row, 1)
        self.setCentralWidget(body)
        self.over = Overlays(body, self._focus_station)
        self._shown_test: int | None = None
        self._whole_strips = False
        shown = ShownFiles(self.bench, self.files, self.station)
        self.actions_everywhere = window_actions(self.bench, self.files, shown, self._own_acts())

    def _focus_station(self) -> None:
        self.station().take_focus()

    def _see_kept(self, kept: KeptFile) -> None:
        self.over.kept_view.show_file(kept)

    def _toggle_help(self) -> None:
        here = self.station().actions_here
        place = station_place(self.bench.station)
        # In the dark a picture of the day would shine.
        picture = place.name if place.purpose and self.look.name == DAY.name else ""
        self.over.keys.toggle(place.purpose, here, self.actions_everywhere, picture)

    def _own_acts(self) -> WindowActs:
        return WindowActs(
            self.start_test,
            self.next_look,
            self.scale_type,
            self._toggle_help,
            lambda: self.over.guide.toggle(),
            lambda: explain_words(self.station(), self.banner),
            lambda: self.over.commands.toggle(self.runnable_actions()),
            self.finding.unfold,
            self.say_where_from,
            lambda: turn_estimates(self.bench),
            self.show_strips,
            self.close,
        )

    def _listen(self) -> None:
        table = Topic.SHEET | Topic.SELECTION
        column = Topic.SHEET | Topic.ANALYSIS | Topic.STATION | Topic.PAGE
        self.updates.prepare(self._ask_for_answer)
        self.updates.subscribe(Topic.STATION, lambda _: self._turn())
        self.updates.subscribe(Topic.SHEET | Topic.NOTEBOOK, lambda _: self._show_header())
        told = Topic.SHEET | Topic.NOTEBOOK | Topic.STATION | Topic.LOOK
        self.updates.subscribe(told, lambda _: self.practice_line.show_practice(self.look))
        self.updates.subscribe(table, lambda _: self._show_table())
        self.updates.subscribe(column | Topic.LOOK, lambda _: self._show_rail())
        self.updates.subscribe(column, lambda _: self.finding.show())
        self.updates.subscribe(Topic.NOTEBOOK, self.ears.note)
        self.ears.spoken.connect(self.announcer.say)
        self._what_came = WhatCame(self.bench, self.table, self.station, self.announcer.say)
        self.updates.subscribe(Topic.SELECTION, self._what_came.say_frame)
        self.updates.subscribe(Topic.SHEET | Topic.ANALYSIS, self._what_came.say_answer)
        self.ears.slept.connect(self.banner.complain)
        self.updates.subscribe(self._topics_here, self._show_station)
        self.bench.said.connect(self._say)
        self.table.picked.connect(self.bench.select)
        self.rail.chosen.connect(self.bench.go)

    def _takes_long(self) -> bool:
        loaded = self.bench.loaded
        return loaded is not None and loaded.is_long

    def _say(self, words: str) -> None:
        loaded = self.bench.loaded
        self.header.say(words, loaded.test.id if loaded is not None else None)
        self.announcer.say(words)

    def _ask_for_answer(self, topic: Topic) -> None:
        if Topic.SHEET in topic:
            self._answering.ask()

    def station(self) -> Station:
        """The station shown, made the first time it is gone to."""
        return self.pages.station(self.bench.station)

    def runnable_actions(self) -> list[Action]:
        """Everything that can be done now, that of the station first."""
        lasting = (*self.station().actions_here, *self.actions_everywhere)
        every = (*lasting, *menu_actions(self.bench, self.files, self._see_kept))
        return [a for a in every if a.can_be_run and a.usable()]

    def _menu(self) -> list[list[Action]]:
        every = (*self.actions_everywhere, *menu_actions(self.bench, self.files, self._see_kept))
        return [[a for a in every if a.menu == part] for part in MENU_PARTS]

    def _topics_here(self) -> Topic:
        return self.station().topics | Topic.STATION | Topic.LOOK

    def _turn(self) -> None:
        self.finding.unfolded = self._whole_strips = False
        self._show_bars()
        self.over.put_away()
        self.pages.turn_to(self.bench.station)

    def scene(self) -> ViewState:
        """What the station is to show now."""
        bench = self.bench
        return ViewState(bench.state, bench.frame_id, self.look)

    def _show_header(self) -> None:
        self.header.show_bench(self.bench)
        self.setWindowTitle(window_title(self.bench))

    def show_strips(self) -> None:
        """The strips in full, or as bars again, at this station until another is gone to."""
        self._whole_strips = not self._whole_strips
        self._show_bars()

    def _show_bars(self) -> None:
        film = station_place(self.bench.station).film
        self.table.show_bars(film == self._whole_strips)

    def _show_table(self) -> None:
        self.table.show_test(self.bench.loaded)
        self.table.show_selection(self.bench.frame_id)

    def _show_rail(self) -> None:
        steps = steps_of(self.bench.state)
        self.rail.show_steps(steps, self.bench.station, self.look)
        self.header.show_here(self.bench.station)

    def say_where_from(self) -> None:
        """Say where the numbers of the test on the bench come from."""
        # Imported here so that the first window need not wait for numpy.
        from vadrin.app.results.headline import headline_of
        from vadrin.app.results.provenance import where_from

        state = self.bench.state
        if state is None:
            return
        found = headline_of(state)
        said = ", ".join(words for words in (found.index, found.time) if words)
        told = "\n".join(where_from(state))
        self.banner.tell(f"{said or 'No answer yet'}: where it comes from", told)

    def _fold(self) -> None:
        """Lay rail and finding in lines over the station where the window is narrow."""
        self.finding.folded = folded = self.width() < px(_ROOMY)
        way = QBoxLayout.Direction
        self._row.setDirection(way.TopToBottom if folded else way.LeftToRight)
        self.rail.lay_flat(folded)
        self.table.show_folded(folded)
        self.finding.show()

    def _show_station(self, topic: Topic) -> None:
        self._clear_what_was_said_of_another()
        self.station().show_state(self.scene())
        self._in_sight.look_soon()
        if Topic.STATION in topic:
            show_what_was_added(self.station())
            self.station().take_focus()
            self.pages.give_back(self.bench.station)

    def _clear_what_was_said_of_another(self) -> None:
        """Refusals and notices about one test are not carried to the next."""
        here = self.bench.loaded.test.id if self.bench.loaded else None
        if here == self._shown_test:
            return
        if self._shown_test is not None:
            self.banner.leave_test()
        self._shown_test = here
        for station in self.pages.made:
            station.forget_words()

    def keyPressEvent(self, event: QKeyEvent | None) -> None:
        """Keys that nothing took go to the station: digits belong to what is read there."""
        if event is not None and event.key() == Qt.Key.Key_Escape and self.finding.unfolded:
            self.finding.unfold()
            return
        if event is not None and self.station().take_key(event):
            return
        super().keyPressEvent(event)

    @property
    def busy(self) -> bool:
        """Whether anything shown is still being worked out."""
        return self.jobs.busy() or self.files.merging is not None or self.importing.writing

    def _asks_about_a_file(self) -> bool:
        asked = self.banner.isVisible() or self.importing.matcher.isVisible()
        return asked or self.importing.writing or self.files.merging is not None

    def start_test(self) -> None:
        """Ask what a new test is to answer."""
        if self.bench.notebook.read_only:
            self.bench.said.emit(f"Open for reading only: {self.bench.notebook.read_only}.")
            return
        self.bench.go("question")

    def notebook_opened(self) -> None:
        """Remember the notebook, and say it where it can only be read."""
        notebook = self.bench.notebook
        self.dropped.forget()
        # At once: what is drawn before the loop turns would read from the one that is closed.
        self.updates.flush()
        remember(notebook.path)
        go_to_running_clock(self.bench, self.ears, self.updates, self.pages, self.banner)
        if notebook.read_only:
            self.banner.complain(f"Open for reading only: {notebook.read_only}.")
        else:
            self.files.look_beside()

    def tell_fault(self, kind: str, details: str, log: str) -> None:
        """Say that the program stumbled, over what, and offer the details."""
        doing = f" at {self.bench.station}" if self.bench.station else ""
        last = self.bench.notebook.undo_label()
        after = f", after “{last}”" if last else ""
        self.banner.ask(
            f"Something went wrong{doing}{after} ({kind}); all that was saved is safe.",
            f"Details: {log}" if log else "",
            [("Copy the details", lambda: put_on_clipboard(details))],
            "Close",
            of_test=False,
        )

    def changeEvent(self, event: QEvent | None) -> None:
        """The desktop may have been set to high contrast, or back."""
        super().changeEvent(event)
        if event is not None and event.type() == THEME_CHANGE:
            self.set_look(self.look)

    def next_look(self) -> None:
        """Day, dim, safelight, and round again."""
        self.set_look(look_after(self.look))

    def set_look(self, look: Look) -> None:
        """Put on a look, stronger where the system is asked for high contrast."""
        look = by_system(look)
        self.look = look
        app = QApplication.instance()
        if isinstance(app, QApplication):
            wear(app, look)
        self.table.show_look(look)
        self.updates.note(Topic.LOOK)
        if self.pages.made:
            # At once: under a safelight not one picture may go out in the colours before.
            self.updates.flush()

    def scale_type(self, way: int) -> None:
        """Larger or smaller type, 100 to 200 %, when the event loop turns.

        Everything is made anew, and what asks for it may stand in the middle of a key's way.
        """
        self._scaling += way
        self._scale_soon.start(0)

    def _scale_now(self) -> None:
        way, self._scaling = self._scaling, 0
        here = _SCALES.index(min(_SCALES, key=lambda s: abs(s - typeface.scale())))
        typeface.set_scale(_SCALES[max(0, min(here + way, len(_SCALES) - 1))])
        self.over.let_go()
        self.pages.let_go()
        self.finding.let_go()
        self._fold()
        self.set_look(self.look)
        for part in (self.header, self.practice_line, self.finding.line, self.banner):
            part.rescale()
        self.updates.note(Topic.EVERYTHING)

    def dragEnterEvent(self, event: QDragEnterEvent | None) -> None:
        """Take files."""
        mime = event.mimeData() if event else None
        if event and mime and mime.hasUrls():
            event.acceptProposedAction()

    def dropEvent(self, event: QDropEvent | None) -> None:
        """Take files, each by what it is."""
        mime = event.mimeData() if event else None
        paths = [Path(url.toLocalFile()) for url in (mime.urls() if mime else [])]
        if paths:
            self.dropped.take(paths)

    def resizeEvent(self, event: QResizeEvent | None) -> None:
        """Give the light table its share of the new height."""
        super().resizeEvent(event)
        if self.finding.folded != (self.width() < px(_ROOMY)):
            self._fold()
        self.table.show_test(self.bench.loaded)
        self._in_sight.look_soon()

    def closeEvent(self, event: QCloseEvent | None) -> None:
        """Take what is still being typed, finish the work in hand and let go of the file."""
        if self.files.merging is not None:
            self.files.stop_merging()
        if self.importing.writing:
            self.importing.stop()
        typing = self.focusWidget()
        if typing is not None:
            typing.clearFocus()
        # Fields that lose the keyboard while the window goes have nothing to write into.
        for field in self.findChildren(WordField):
            field.blockSignals(True)
        self.dropped.forget()
        self.jobs.close()
        for job in self.findChildren(SlicedJob):
            job.cancel()
        self.ears.rest()
        for station in self.pages.made:
            station.put_away()
        # What still changes has nothing to be shown in.
        self._scale_soon.stop()
        self.updates.stop()
        self.bench.notebook.close()
        super().closeEvent(event)

"""The shelf: every test as a line, found as one types, grouped, compared, gone on from."""

from __future__ import annotations

from collections.abc import Callable

from PyQt6.QtCore import QModelIndex, QPoint, Qt, QTimer
from PyQt6.QtGui import QHideEvent, QKeyEvent, QResizeEvent
from PyQt6.QtWidgets import QAbstractItemView, QBoxLayout, QListView, QVBoxLayout, QWidget

from vadrin.app.curves.preloading import ANSWERS, preload
from vadrin.app.demo.demo_copy import demo_notebook
from vadrin.app.display.words import counted
from vadrin.app.document.workbench import Topic
from vadrin.app.entry.choices import choice_typed
from vadrin.app.entry.stepping import chooser
from vadrin.app.shelf.shelf_index import (
    GROUPS,
    ShelfLine,
    Undecided,
    clock_doubt,
    filtered,
    grouped,
    remove_test,
    shelf_details,
    shelf_lines,
    undecided_answer,
)
from vadrin.ui.actions import Action, hint
from vadrin.ui.jobs import Said
from vadrin.ui.kept import OfProgram
from vadrin.ui.stations.shelf.first_doors import FirstDoors
from vadrin.ui.stations.shelf.line_view import ShelfModel, ShelfPainter
from vadrin.ui.stations.shelf.shelf_side import ShelfSide
from vadrin.ui.stations.shot_roll import ShotRoll
from vadrin.ui.stations.station import Station, StationContext, ViewState
from vadrin.ui.theme.roles import Role
from vadrin.ui.theme.typeface import px, role_font
from vadrin.ui.widgets.buttons import button
from vadrin.ui.widgets.fields import WordField
from vadrin.ui.widgets.item_views import lay_flat
from vadrin.ui.widgets.labels import text
from vadrin.ui.widgets.line_field import Field
from vadrin.ui.widgets.sentence import flowing

_ANSWERS = "answers of the shelf"
_ROOMY = 820
"""Pixels at scale 1 from which the side column stands beside the list."""


class _Tests(QListView):
    """The list, which hands typed letters on instead of jumping to a first letter."""

    def __init__(self, typed: Callable[[str], None]) -> None:
        super().__init__()
        self._typed = typed

    def keyboardSearch(self, search: str | None) -> None:
        if search and search.strip():
            self._typed(search)


class ShelfStation(Station):
    """Home: open a test, start one, or bring readings in."""

    topics = Topic.NOTEBOOK
    wants_finding = False

    _group: OfProgram[str] = OfProgram(lambda: GROUPS[0])
    _words: OfProgram[str] = OfProgram(str)
    _marked: OfProgram[list[int]] = OfProgram(list)

    def __init__(self, given: StationContext) -> None:
        super().__init__(given)
        self._lines: list[ShelfLine] = []
        self._seen: tuple[object, int] = (None, -1)
        self._worked_out: set[int] = set()
        self.column.addWidget(self._head())
        self._clock = text("", Role.REFUSAL, wrap=True)
        self.column.addWidget(self._clock)
        self._empty = text("", Role.LEAD, wrap=True)
        self._doors = FirstDoors(
            (
                ("My first roll", "Choose what you want to know, and shoot it.", given.start_test),
                (
                    "A first hour",
                    "Practise on a film nobody knows; every step is explained. No film is spent.",
                    lambda: self.bench.go("practice"),
                ),
                (
                    "A finished notebook",
                    "Look around in a winter of tests; it goes when you close the program.",
                    lambda: given.open_notebook(demo_notebook()),
                ),
                ("Readings I have", "Import a table; it becomes a test.", given.ask_import),
            )
        )
        self._model = ShelfModel(self)
        self._model.marked = self._marked
        # Later: lines come in sight while they are drawn.
        self._later = QTimer(self)
        self._later.setSingleShot(True)
        self._later.timeout.connect(self._work_out)
        self._model.undecided.connect(self._later.start)
        self._painter = ShelfPainter(self._model)
        self._list = self._tests()
        body = self._body = QBoxLayout(QBoxLayout.Direction.LeftToRight)
        left = QVBoxLayout()
        left.addWidget(self._empty)
        left.addWidget(self._doors)
        left.addWidget(self._list, 1)
        left.addStretch(0)
        body.addLayout(left, 1)
        self.side = ShelfSide(self.bench, self._begun)
        body.addWidget(self.side)
        self.column.addLayout(body, 1)
        self._offer_all()

    def _tests(self) -> _Tests:
        made = _Tests(self._type)
        made.setAccessibleName("tests")
        lay_flat(made)
        made.setModel(self._model)
        made.setItemDelegate(self._painter)
        made.setVerticalScrollMode(QAbstractItemView.ScrollMode.ScrollPerPixel)
        made.setMinimumHeight(px(180))
        made.clicked.connect(self._open)
        selection = made.selectionModel()
        if selection is not None:
            selection.currentChanged.connect(lambda *_: self._show_side())
        return made

    def _offer_all(self) -> None:
        self.offer(
            Action("shelf.open", "open the test", self._open_here, shown_keys="Enter"),
            hint("any letter", "filter: films, developers, dates, notes"),
            hint("Esc", "show all again"),
            Action(
                "shelf.mark", "mark: two marked tests show what changed", self._mark, ("Ctrl+M",)
            ),
            Action(
                "shelf.like",
                "a new test like this one, with one thing changed",
                self.side.focus_like,
                ("Ctrl+L",),
            ),
            Action(
                "shelf.roll",
                "ask how to develop a roll that was shot",
                lambda: self.shot.film.setFocus(),
                ("Ctrl+R",),
            ),
            Action("shelf.group", "next grouping", self._next_group, ("Ctrl+G",)),
            Action(
                "shelf.remove",
                "remove the test (undo brings it back)",
                self._remove,
                shown_keys="Delete",
            ),
        )

    def resizeEvent(self, event: QResizeEvent | None) -> None:
        """The side column goes under the list where there is no room beside it."""
        super().resizeEvent(event)
        beside = self.width() >= px(_ROOMY)
        way = QBoxLayout.Direction
        self._body.setDirection(way.LeftToRight if beside else way.TopToBottom)
        self.side.stand(beside)

    def _head(self) -> QWidget:
        self._title = text("Shelf", Role.HEADING)
        self.filter = Field()
        self.filter.setFont(role_font(Role.LEAD))
        self.filter.setPlaceholderText("find: film, developer, date, note")
        self.filter.setAccessibleName("filter")
        self.filter.setFixedWidth(px(260))
        self.filter.setText(self._words)
        self.filter.textChanged.connect(self._find)
        self._grouping = WordField("grouping", self._set_group, chooser(GROUPS), role=Role.LEAD)
        self._grouping.show_value(self._group)
        self._new = button("New test", self.given.start_test, primary=True)
        importing = button("Import readings", self.given.ask_import)
        films = button("Compare films", lambda: self.bench.go("films"), link=True)
        light = button("Film for a light", lambda: self.bench.go("tonight"), link=True)
        practice = button("Practise", lambda: self.bench.go("practice"), link=True)
        holder = QWidget()
        column = QVBoxLayout(holder)
        column.setContentsMargins(0, 0, 0, 0)
        self.shot = ShotRoll(self.bench)
        column.addWidget(self.shot)
        column.addWidget(
            flowing(
                self._title,
                self.filter,
                self._grouping,
                films,
                light,
                practice,
                importing,
                self._new,
                gap=12,
            )
        )
        return holder

    def show_state(self, scene: ViewState) -> None:
        """List the tests of the notebook; the file is only asked when it has changed."""
        self._painter.look = scene.look
        notebook = self.bench.notebook
        now = (notebook, notebook.revision)
        if notebook.read_only or now != self._seen:
            self._seen = now
            # What is being worked out is of the tests as they were.
            self.given.jobs.cancel(_ANSWERS)
            self._lines = shelf_lines(notebook)
            known = {line.test_id for line in self._lines}
            self._marked[:] = [i for i in self._marked if i in known]
            self._clock.setText(clock_doubt(notebook))
            self._clock.setVisible(bool(self._clock.text()))
            self._list_lines(True)
        self._model.draw_again()

    def _list_lines(self, fresh: bool) -> None:
        here = self._current()
        found = filtered(self._lines, self.filter.text())
        # Without headings all lines are of one height, so thousands need not be measured.
        self._list.setUniformItemSizes(self._group == GROUPS[0])
        self._model.show(self.bench.notebook, grouped(found, self._group), fresh)
        self._title.setText(self._count_words(len(found)))
        self._empty.setVisible(not found)
        self._doors.setVisible(not self._lines)
        self._list.setVisible(bool(found))
        self.side.setVisible(bool(self._lines))
        self._empty.setText(
            "Nothing here has all these words. Esc shows every test again."
            if self._lines
            else "Start with a new test: name the film and the developer, and the strips lie on "
            "the light table as they will be shot. Or begin elsewhere:"
        )
        row = self._model.row_of(here.test_id if here else -1)
        self._list.setCurrentIndex(self._model.index(row))
        self._show_side()

    def _count_words(self, found: int) -> str:
        if not self._lines:
            return "An empty shelf"
        total = len(self._lines)
        part = f"{found} of " if found != total else ""
        return f"{part}{counted(total, 'test')} on the shelf"

    def _work_out(self) -> None:
        """What the lines in sight come to, one after the other, off the screen's thread."""
        first = self._list.indexAt(QPoint(1, 1)).row()
        last = self._list.indexAt(QPoint(1, self._list.height() - 1)).row()
        last = last if last >= 0 else self._model.rowCount() - 1
        waiting = self._model.waiting(max(first, 0), last)
        ids = {loaded.test.id for loaded in waiting}
        under_way = self._worked_out if self.given.jobs.busy(_ANSWERS) else set()
        if not self.isVisible() or ids <= under_way:
            return
        self._worked_out = ids

        def work(said: Said) -> dict[int, Undecided]:
            # The shelf is shown first: what kinds answer by may not have been asked for yet.
            preload(ANSWERS)
            found = {}
            for done, loaded in enumerate(waiting):
                said(done, len(waiting))
                found[loaded.test.id] = undecided_answer(loaded)
            return found

        self.given.jobs.run(_ANSWERS, work, self._model.take_answers)

    def hideEvent(self, event: QHideEvent | None) -> None:
        """A test on the bench is worked out first."""
        super().hideEvent(event)
        self.given.jobs.cancel(_ANSWERS)

    def _current(self) -> ShelfLine | None:
        return self._model.line(self._list.currentIndex().row())

    def _show_side(self) -> None:
        line = self._current()
        self.side.show_here(line.test_id if line else None, line.film if line else "")
        self.side.show_marked(self._model.marked)

    def _open_here(self) -> None:
        self._open(self._list.currentIndex())

    def _open(self, index: QModelIndex) -> None:
        line = self._model.line(index.row())
        if line is None:
            return
        detail = shelf_details(self.bench.notebook, [line.test_id]).get(line.test_id)
        self.bench.open_test(line.test_id)
        self.bench.go(detail.station if detail else "plan")

    def _begun(self, test_id: int) -> None:
        self.bench.open_test(test_id)
        self.bench.go("plan")

    def _mark(self) -> None:
        line = self._current()
        if line is None:
            return
        marked = self._model.marked
        if line.test_id in marked:
            marked.remove(line.test_id)
        else:
            marked.append(line.test_id)
            del marked[:-2]
        self._show_side()
        self._list.viewport().update()  # type: ignore[union-attr]

    def _remove(self) -> None:
        line = self._current()
        if line is None:
            return
        if self.bench.loaded is not None and self.bench.loaded.test.id == line.test_id:
            self.bench.open_test(None)
        if self.bench.edit(lambda book: remove_test(book, line)):
            self.bench.said.emit(f"Removed the test of {line.film}. Ctrl+Z brings it back.")

    def _set_group(self, words: str) -> None:
        self._group = choice_typed(words, GROUPS, anywhere=True)
        self._grouping.show_value(self._group)
        self._list_lines(False)

    def _next_group(self) -> None:
        self._set_group(chooser(GROUPS)(self._group, -1))

    def keyPressEvent(self, event: QKeyEvent | None) -> None:
        """Open the test at the cursor, leave the filter, go down from it."""
        if event is None:
            return
        searching = self._list.hasFocus() or self.filter.hasFocus()
        if event.key() in (Qt.Key.Key_Return, Qt.Key.Key_Enter) and searching:
            self._open_here()
        elif event.key() == Qt.Key.Key_Escape:
            self.filter.clear()
            self._list.setFocus()
        elif event.key() == Qt.Key.Key_Delete and self._list.hasFocus():
            self._remove()
        elif event.key() == Qt.Key.Key_Down and self.filter.hasFocus():
            self._list.setFocus()
        else:
            super().keyPressEvent(event)

    def _type(self, letters: str) -> None:
        self.filter.setFocus()
        self.filter.insert(letters)

    def _find(self, words: str) -> None:
        self._words = words
        self._list_lines(False)

    def take_focus(self) -> None:
        """Begin at the list, at the test one comes from, or at the button that starts one."""
        here = self.bench.loaded
        if here is not None and here.test.id in {line.test_id for line in self._lines}:
            row = self._model.row_of(here.test.id)
            self._list.setCurrentIndex(self._model.index(row))
        (self._list if self._lines else self._new).setFocus()

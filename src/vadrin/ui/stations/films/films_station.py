"""Films: everything that was decided on over the years, beside one reference."""

from __future__ import annotations

from PyQt6.QtCore import Qt
from PyQt6.QtGui import QResizeEvent
from PyQt6.QtWidgets import QAbstractItemView, QHeaderView, QTableView

from vadrin.app.display.words import counted
from vadrin.app.document.workbench import Topic
from vadrin.app.entry.choices import choice_typed
from vadrin.app.entry.stepping import chooser
from vadrin.app.results.rows_to_copy import as_rows
from vadrin.app.shelf.film_comparison import (
    CURVE,
    HEADS,
    ORDERS,
    ComparedFilm,
    cells_of,
    films_decided,
    films_words,
    ordered,
)
from vadrin.app.shelf.nearest_film import nearest_words
from vadrin.errors import VadrinError
from vadrin.ui.actions import Action, hint
from vadrin.ui.jobs import SlicedJob
from vadrin.ui.kept import OfProgram
from vadrin.ui.stations.films.curve_tile import CurveGallery
from vadrin.ui.stations.films.film_table import CurveCell, FilmTable
from vadrin.ui.stations.station import Station, StationContext, ViewState
from vadrin.ui.theme.look import DAY, Look
from vadrin.ui.theme.roles import Role
from vadrin.ui.theme.typeface import px, role_font
from vadrin.ui.widgets.buttons import button
from vadrin.ui.widgets.clipboard import put_on_clipboard
from vadrin.ui.widgets.fields import WordField
from vadrin.ui.widgets.item_views import TableCells, lay_flat
from vadrin.ui.widgets.labels import text
from vadrin.ui.widgets.page_stack import PageStack
from vadrin.ui.widgets.sentence import sentence

_WAYS = ("upwards", "downwards")
_CURVE_WIDE = 130


class FilmsStation(Station):
    """A table of films with sorting, and a gallery of their curves."""

    topics = Topic.NOTEBOOK | Topic.LOOK
    wants_finding = False

    _reference: OfProgram[tuple[int, str] | None] = OfProgram(lambda: None)
    _by: OfProgram[str] = OfProgram(lambda: "Decided")
    _way: OfProgram[str] = OfProgram(lambda: "downwards")
    _as_gallery: OfProgram[bool] = OfProgram(bool)
    _at: OfProgram[tuple[int, str] | None] = OfProgram(lambda: None)
    """The film one is at, by its key."""

    def __init__(self, given: StationContext) -> None:
        super().__init__(given)
        self._films: tuple[ComparedFilm, ...] = ()
        self._look: Look = DAY
        self._seen: tuple[object, int] = (None, -1)
        self._coming: SlicedJob | None = None
        self._title, self._words = text("Films", Role.HEADING), text("", Role.LEAD, wrap=True)
        self.by = WordField(
            "what films are ordered by", self._set_by, chooser(list(ORDERS)), role=Role.LEAD
        )
        self.way = WordField("which way", self._set_way, chooser(_WAYS), role=Role.LEAD)
        for field in (self.by, self.way):
            field.refused.connect(self.refuse)
        self.table = FilmTable(self)
        self.view = QTableView()
        self._cell = CurveCell(self.table)
        self._dress()
        self.gallery = CurveGallery()
        self.gallery.picked.connect(self.view.selectRow)
        self.pages = PageStack()
        self._toggle = button("Show gallery (G)", self.turn, link=True)
        self.column.addWidget(self._title)
        self.column.addWidget(self._words)
        self.column.addWidget(
            sentence("In the order of", self.by, self.way, ".", self._toggle, role=Role.LEAD)
        )
        self.column.addWidget(self.pages, 1)
        self.column.addWidget(self.refusal)
        self._turned()
        self.offer(
            hint("↑ ↓", "walk along the films"),
            Action("films.reference", "make this film the reference", self.take_reference, ("R",)),
            Action(
                "films.gallery", "the gallery of curves, and back to the table", self.turn, ("G",)
            ),
            Action("films.copy", "copy the table", self.copy_table, ("Ctrl+Shift+C",)),
            Action("films.open", "open its test", self.open, ("Ctrl+Return",)),
        )

    def copy_table(self) -> None:
        """Put the table on the clipboard, tab-separated, with its heads."""
        films = ordered(self._films, self._by, self._way == "downwards")
        cells = [cells_of(film, self.reference())[:CURVE] for film in films]
        put_on_clipboard(as_rows(HEADS[:CURVE], cells))
        self.bench.said.emit(f"{counted(len(films), 'film')} on the clipboard, as a table.")

    def _dress(self) -> None:
        view = self.view
        lay_flat(view)
        view.setItemDelegate(TableCells(view))
        view.setModel(self.table)
        view.setItemDelegateForColumn(CURVE, self._cell)
        view.setAccessibleName("films")
        view.setShowGrid(False)
        view.setSelectionBehavior(QAbstractItemView.SelectionBehavior.SelectRows)
        view.setSelectionMode(QAbstractItemView.SelectionMode.SingleSelection)
        view.setTabKeyNavigation(False)
        view.doubleClicked.connect(lambda _: self.open())
        across, down = view.horizontalHeader(), view.verticalHeader()
        if across is not None:
            across.sectionClicked.connect(self._sort_by_column)
            across.setSectionsClickable(True)
            across.setHighlightSections(False)
            across.setFont(role_font(Role.CAPTION))
            across.setDefaultAlignment(Qt.AlignmentFlag.AlignLeft)
        if down is not None:
            down.hide()
            down.setDefaultSectionSize(px(52))
        selection = view.selectionModel()
        if selection is not None:
            selection.currentRowChanged.connect(lambda *_: self._walked())

    def show_state(self, scene: ViewState) -> None:
        """Show what the notebook holds; the file is only asked when it has changed."""
        self._look = self._cell.look = scene.look
        notebook = self.bench.notebook
        now = (notebook, notebook.revision)
        if notebook.read_only or now != self._seen:
            self._seen = now
            self._take_films()
        else:
            self._fill()

    def _take_films(self) -> None:
        """A few at once; many come in while the screen stays alive."""
        self._stop()
        steps = self.while_open(films_decided(self.bench.notebook))
        try:
            known, total = next(steps)
        except StopIteration as end:
            self._arrived(end.value)
            return
        self._tell(known, total)
        self._coming = SlicedJob(self, steps, self._tell, self._arrived, self._failed)

    def _stop(self) -> None:
        if self._coming is not None:
            self._coming.cancel()
            self._coming = None

    def _tell(self, known: int, total: int) -> None:
        self._words.setText(f"{known} of {counted(total, 'test')} laid out …")

    def _arrived(self, films: tuple[ComparedFilm, ...]) -> None:
        self._coming = None
        self._films = films
        self._fill()

    def _failed(self, error: Exception) -> None:
        self._coming = None
        if not isinstance(error, VadrinError):
            raise error
        self.refuse(str(error))

    def reference(self) -> ComparedFilm | None:
        """What the others stand beside: what was chosen, else the newest."""
        chosen = next((f for f in self._films if f.key == self._reference), None)
        return chosen or (self._films[0] if self._films else None)

    def _fill(self) -> None:
        here = self._at
        reference = self.reference()
        films = ordered(self._films, self._by, self._way == "downwards")
        self.table.show_films(films, reference)
        near = nearest_words(reference, films)
        self._words.setText(f"{films_words(films, reference)} {near}".strip())
        self.by.show_value(self._by)
        self.way.show_value(self._way)
        self.pages.setVisible(bool(films))
        row = next((n for n, f in enumerate(films) if f.key == here), 0)
        if films:
            self.view.selectRow(row)
        self._widen()
        self._show_gallery()

    def _widen(self) -> None:
        """Columns as wide as their words; what room is left goes to the film's name."""
        across, seen = self.view.horizontalHeader(), self.view.viewport()
        if across is None or seen is None:
            return
        across.resizeSections(QHeaderView.ResizeMode.ResizeToContents)
        across.resizeSection(CURVE, px(_CURVE_WIDE))
        left = seen.width() - across.length()
        if left > 0:
            across.resizeSection(0, across.sectionSize(0) + left)

    def resizeEvent(self, event: QResizeEvent | None) -> None:
        """Share the room out anew."""
        super().resizeEvent(event)
        self._widen()

    def _walked(self) -> None:
        film = self.picked()
        self._at = film.key if film is not None else self._at
        self._show_gallery()

    def _show_gallery(self) -> None:
        row = self.view.currentIndex().row()
        self.gallery.show_films(self.table.films, self.reference(), row, self._look)

    def picked(self) -> ComparedFilm | None:
        """The film one is at."""
        row = self.view.currentIndex().row()
        return self.table.films[row] if 0 <= row < len(self.table.films) else None

    def take_reference(self) -> None:
        """Let the others stand beside this film."""
        film = self.picked()
        if film is not None:
            self._reference = film.key
            self._fill()

    def turn(self) -> None:
        """The gallery, or the table."""
        self._as_gallery = not self._as_gallery
        self._turned()

    def _turned(self) -> None:
        self._toggle.setText("Show table (G)" if self._as_gallery else "Show gallery (G)")
        self.pages.show_page(self.gallery if self._as_gallery else self.view)

    def open(self) -> None:
        """Go to the test of this film."""
        film = self.picked()
        if film is not None:
            self.bench.open_test(film.test_id)
            self.bench.go("finding")

    def _sort_by_column(self, column: int) -> None:
        """A click orders by that column; once more turns the order round."""
        name = HEADS[column]
        if name not in ORDERS:
            return
        again = name == self._by
        self._way = _WAYS[1 - _WAYS.index(self._way)] if again else _WAYS[0]
        self._by = name
        self._fill()

    def _set_by(self, words: str) -> None:
        self._by = choice_typed(words, list(ORDERS), anywhere=True)
        self._fill()

    def _set_way(self, words: str) -> None:
        self._way = choice_typed(words, _WAYS)
        self._fill()

    def take_focus(self) -> None:
        """Begin at the films."""
        (self.gallery if self._as_gallery else self.view).setFocus()

"""The maker's table of a film in a developer: typed, pasted or taken from a file, and scored."""

from __future__ import annotations

from collections.abc import Callable
from functools import partial
from pathlib import Path

from PyQt6.QtGui import QGuiApplication
from PyQt6.QtWidgets import QGridLayout, QHBoxLayout, QVBoxLayout, QWidget

from vadrin.app.document.workbench import Workbench
from vadrin.app.loaded.loaded_test import LoadedTest
from vadrin.app.process.makers_times import (
    MakersRow,
    import_makers_table,
    makers_rows,
    makers_score,
    retype_makers_line,
    type_makers_line,
)
from vadrin.app.results.rule_scores import score_words
from vadrin.errors import EntryError, FormatError
from vadrin.ui.stations.station import ViewState
from vadrin.ui.theme.roles import Role
from vadrin.ui.theme.typeface import px
from vadrin.ui.widgets.buttons import button
from vadrin.ui.widgets.fields import WordField
from vadrin.ui.widgets.grids import empty_grid
from vadrin.ui.widgets.labels import rule, text
from vadrin.ui.widgets.sentence import sentence

_HEADS = ("For", "The maker says", "At", "Measured here", "")
_NEW = "—"


class MakersPage(QWidget):
    """A line to type in, every line of the table, and what is left of it after measuring.

    Parameters
    ----------
    bench : Workbench
    refuse : callable
        Says why something typed was not taken.
    ask_file : callable
        Asks for a file: a title, the kinds of file, and what to do with it.
    """

    def __init__(
        self,
        bench: Workbench,
        refuse: Callable[[str], None],
        ask_file: Callable[[str, str, Callable[[Path], object]], None],
    ) -> None:
        super().__init__()
        self.bench, self._refuse = bench, refuse
        self._loaded: LoadedTest | None = None
        self._what = text("", Role.NOTE, wrap=True)
        self.line = WordField("line of the maker's table", self._keep, role=Role.LEAD)
        self.line.refused.connect(refuse)
        self.paste = button("Paste a table", self.paste_table)
        self.load = button(
            "Import a table …",
            partial(ask_file, "Import a maker's table", "Tables (*.csv *.tsv *.txt)", self.take),
        )
        self._grid = QGridLayout()
        self._grid.setHorizontalSpacing(px(26))
        self._grid.setVerticalSpacing(px(6))
        self._grid.setColumnStretch(len(_HEADS), 1)
        self._score = text("", Role.NOTE, wrap=True)
        row = QHBoxLayout()
        row.addWidget(self.paste)
        row.addWidget(self.load)
        row.addStretch(1)
        column = QVBoxLayout(self)
        column.setContentsMargins(0, 0, 0, 0)
        column.setSpacing(px(8))
        column.addWidget(self._what)
        column.addWidget(sentence("The maker's sheet says", self.line, ".", role=Role.LEAD))
        column.addLayout(row)
        column.addWidget(rule())
        column.addLayout(self._grid)
        column.addWidget(self._score)
        column.addStretch(1)

    def show_state(self, scene: ViewState) -> None:
        """Show the table of a test's film in its developer."""
        loaded = scene.loaded
        if loaded is None:
            return
        self._loaded = loaded
        self.line.show_value(_NEW)
        film = f"{loaded.stock.name} {loaded.process}"
        self._what.setText(
            f"Maker's times for {film}. Plan uses them for pushes; they are not measured here. "
            "Type “normal 8”, “push 1 10:30”, “EI 400 12”, “push 1 9:30 at 24 °C” or “+60 s on "
            "3:30 for 1 stop”. Clear a time to remove it."
        )
        self._fill(makers_rows(self.bench.notebook, loaded))
        score = makers_score(self.bench.notebook, loaded)
        self._score.setText(f"The maker's table: {score_words(score)}." if loaded.makers else "")

    def _fill(self, rows: list[MakersRow]) -> None:
        empty_grid(self._grid)
        for column, words in enumerate(_HEADS if rows else ()):
            self._grid.addWidget(text(words, Role.CAPTION), 0, column)
        for place, row in enumerate(rows, start=1):
            time = WordField(
                f"maker's time, {row.what} at {row.at}", self._retype(row.line_id), role=Role.LEAD
            )
            time.refused.connect(self._refuse)
            time.show_value(row.time)
            self._grid.addWidget(text(row.what, Role.LEAD), place, 0)
            self._grid.addWidget(time, place, 1)
            for column, words in ((2, row.at), (3, row.measured), (4, row.ratio)):
                self._grid.addWidget(text(words, Role.LEAD), place, column)

    def _retype(self, line_id: int) -> Callable[[str], None]:
        def commit(words: str) -> None:
            self.bench.edit_or_raise(lambda book: retype_makers_line(book, line_id, words))

        return commit

    def _keep(self, words: str) -> None:
        loaded = self._loaded
        if loaded is not None:
            said = self.bench.edit_or_raise(lambda book: type_makers_line(book, loaded, words))
            self.bench.said.emit(str(said))

    def paste_table(self) -> None:
        """Take what lies on the clipboard."""
        clipboard = QGuiApplication.clipboard()
        self._try(lambda: self._keep(f"{clipboard.text() if clipboard else ''}\n"))

    def take(self, path: Path) -> None:
        """Take a table from a file."""
        loaded = self._loaded
        if loaded is not None:
            self._try(
                lambda: self.bench.edit_or_raise(
                    lambda book: import_makers_table(book, loaded, path)
                )
            )

    def _try(self, act: Callable[[], object]) -> None:
        try:
            act()
            self._refuse("")
        except (EntryError, FormatError) as error:
            self._refuse(str(error))

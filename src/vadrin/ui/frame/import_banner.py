"""Bringing a file in: what cannot be read is shown first, and nothing is half imported."""

from __future__ import annotations

from collections.abc import Callable
from functools import partial
from pathlib import Path
from typing import TYPE_CHECKING

from PyQt6.QtWidgets import QHBoxLayout, QPushButton, QVBoxLayout, QWidget

from vadrin.app.workbench import Workbench
from vadrin.ui.frame.column_matcher import ColumnMatcher
from vadrin.ui.theme.typeface import px
from vadrin.ui.widgets.parts import button, rule, text

if TYPE_CHECKING:
    from vadrin.formats.readings.column_matching import RawTable
    from vadrin.formats.readings.readings_table import ReadingsTable

_SHOWN = 4
Act = tuple[str, Callable[[], object]]


class ImportBanner(QWidget):
    """Stands under the header while there is something to decide."""

    def __init__(self, bench: Workbench) -> None:
        super().__init__()
        self._bench = bench
        self._table: ReadingsTable | None = None
        outer = QVBoxLayout(self)
        outer.setContentsMargins(0, 0, 0, 0)
        outer.setSpacing(0)
        self.matcher = ColumnMatcher(self._matched)
        outer.addWidget(self.matcher)
        self.notice = QWidget()
        outer.addWidget(self.notice)
        column = QVBoxLayout(self.notice)
        column.setContentsMargins(px(14), px(10), px(14), 0)
        self._words = text("", 15, 500, "grease", wrap=True)
        self._cells = text("", 13, wrap=True)
        self._row = QHBoxLayout()
        self._close = button("Leave it", self.notice.hide)
        self._acts: list[QPushButton] = []
        self._row.addWidget(self._close)
        self._row.addStretch(1)
        column.addWidget(self._words)
        column.addWidget(self._cells)
        column.addLayout(self._row)
        column.addWidget(rule())
        self.notice.hide()

    def offer(self, path: Path) -> None:
        """Import a file at once if all of it can be read, else say what cannot."""
        # Imported here so that the window need not wait for it.
        from vadrin.app.read.import_readings import remembered_columns
        from vadrin.formats.readings.any_file import read_readings
        from vadrin.formats.readings.column_matching import UnmatchedError, guessed_columns
        from vadrin.formats.readings.readings_table import FormatError

        self.matcher.hide()
        try:
            self._consider(read_readings(path))
        except UnmatchedError as error:
            known = remembered_columns(self._bench.notebook, error.raw.headers)
            columns = known or guessed_columns(error.raw)
            if not any(columns):
                self.complain(f"Nothing was imported. {error}.")
                return
            self.notice.hide()
            self.matcher.offer(error.raw, columns, remembered=known is not None)
        except FormatError as error:
            self.complain(f"Nothing was imported. {error}.")

    def _matched(self, raw: RawTable, columns: tuple[str, ...]) -> None:
        from vadrin.app.read.import_readings import remember_columns
        from vadrin.formats.readings.column_matching import table_of

        self._bench.edit(lambda notebook: remember_columns(notebook, raw.headers, columns))
        self._consider(table_of(raw, columns))

    def _consider(self, table: ReadingsTable) -> None:
        self._table = table
        if not table.problems:
            self._import()
            return
        problems, rows = table.problems, len(table.rows)
        cells = "s" if len(problems) != 1 else ""
        shown = [p.sentence() for p in problems[:_SHOWN]]
        if len(problems) > _SHOWN:
            shown.append(f"and {len(problems) - _SHOWN} more")
        acts: list[Act] = [(f"Import the other {rows} readings", self._import)] if rows else []
        self.ask(f"{len(problems)} cell{cells} of {table.source} could not be read.",
                 "\n".join(shown), acts)  # fmt: skip

    def ask(self, words: str, more: str, acts: list[Act], close: str = "Leave it") -> None:
        """Say something with buttons for what can be done about it."""
        self._words.setText(words)
        self._cells.setText(more)
        self._cells.setVisible(bool(more))
        for old in self._acts:
            self._row.removeWidget(old)
            old.deleteLater()
        self._acts = []
        for name, act in acts:
            made = button(name, partial(self._do, act))
            self._acts.append(made)
            self._row.insertWidget(len(self._acts) - 1, made)
        self._close.setText(close)
        self.notice.show()
        (self._acts[0] if self._acts else self._close).setFocus()

    def _do(self, act: Callable[[], object]) -> None:
        self.notice.hide()
        act()

    def complain(self, words: str) -> None:
        """Say what went wrong with a file."""
        self.ask(words, "", [], "Understood")

    def _import(self) -> None:
        from vadrin.app.plan.planning import EditRefusedError
        from vadrin.app.read.import_readings import fill_frames, import_table

        table, sheet = self._table, self._bench.sheet
        self.notice.hide()
        if table is None:
            return
        try:
            if sheet is not None and not table.exposures_known:
                fill_frames(self._bench.notebook, sheet, table)
            else:
                test = self._bench.edit_or_raise(lambda book: import_table(book, table))
                if test is None:
                    return
                self._bench.open_test(test.id)
        except EditRefusedError as refusal:
            self.complain(f"Nothing was imported. {refusal}")
            return
        self._bench.refresh()
        self._bench.go("curves" if table.exposures_known else "read")
        self._bench.said.emit(f"Imported {len(table.rows)} readings from {table.source}.")

"""Bringing a file in: what cannot be read is shown first, and nothing is half imported."""

from __future__ import annotations

from pathlib import Path
from typing import TYPE_CHECKING

from PyQt6.QtWidgets import QHBoxLayout, QVBoxLayout, QWidget

from vadrin.app.workbench import Workbench
from vadrin.ui.parts import button, rule, text
from vadrin.ui.type import px

if TYPE_CHECKING:
    from vadrin.formats.readings_table import ReadingsTable

_SHOWN = 4


class ImportBanner(QWidget):
    """Stands under the header while there is something to decide."""

    def __init__(self, bench: Workbench) -> None:
        super().__init__()
        self._bench = bench
        self._table: ReadingsTable | None = None
        column = QVBoxLayout(self)
        column.setContentsMargins(px(14), px(10), px(14), 0)
        self._words = text("", 15, 500, "grease", wrap=True)
        self._cells = text("", 13, wrap=True)
        row = QHBoxLayout()
        self._take = button("", self._import)
        self._close = button("Leave it", self.hide)
        row.addWidget(self._take)
        row.addWidget(self._close)
        row.addStretch(1)
        column.addWidget(self._words)
        column.addWidget(self._cells)
        column.addLayout(row)
        column.addWidget(rule())
        self.hide()

    def offer(self, path: Path) -> None:
        """Import a file at once if all of it can be read, else say what cannot."""
        # Imported here so that the window need not wait for it.
        from vadrin.formats.any_file import read_readings
        from vadrin.formats.readings_table import FormatError

        try:
            self._table = read_readings(path)
        except FormatError as error:
            self.complain(f"Nothing was imported. {error}.")
            return
        problems, rows = self._table.problems, len(self._table.rows)
        if not problems:
            self._import()
            return
        cells = "s" if len(problems) != 1 else ""
        self._words.setText(f"{len(problems)} cell{cells} of {path.name} could not be read.")
        shown = [p.sentence() for p in problems[:_SHOWN]]
        if len(problems) > _SHOWN:
            shown.append(f"and {len(problems) - _SHOWN} more")
        self._cells.setText("\n".join(shown))
        self._take.setText(f"Import the other {rows} readings")
        self._take.setVisible(rows > 0)
        self._close.setText("Leave it")
        self.show()
        (self._take if rows else self._close).setFocus()

    def complain(self, words: str) -> None:
        """Say what went wrong with a file."""
        self._words.setText(words)
        self._cells.setText("")
        self._take.hide()
        self._close.setText("Understood")
        self.show()
        self._close.setFocus()

    def _import(self) -> None:
        from vadrin.app.importing import import_table

        table = self._table
        self.hide()
        if table is None:
            return
        test = self._bench.edit(lambda notebook: import_table(notebook, table))
        if test is not None:
            self._bench.open_test(test.id)
            self._bench.go("curves")
            self._bench.said.emit(f"Imported {len(table.rows)} readings from {table.source}.")

"""The shelf, and the films that were decided on, as tables that other programs read."""

from __future__ import annotations

import csv
from io import StringIO
from pathlib import Path

from vadrin.app.shelf.film_comparison import CURVE, HEADS, cells_of, films_decided
from vadrin.app.shelf.shelf_index import shelf_lines
from vadrin.errors import EntryError
from vadrin.formats.readings.spreadsheet_writer import ods_of, xlsx_of
from vadrin.formats.whole_file import write_whole
from vadrin.notebook.store import Notebook

TABLE_SUFFIXES = (".csv", ".xlsx", ".ods")
SHELF_HEADS = ("Film", "Test", "Process", "Camera", "Date", "EI", "Time", "Note")
Table = list[tuple[str, ...]]
"""Heads, and then rows."""


def shelf_table(notebook: Notebook) -> Table:
    """Every test, the newest first."""
    rows = [
        (x.film, x.kind, x.process, x.camera, x.date, x.index, x.time, x.note)
        for x in shelf_lines(notebook)
    ]
    return [SHELF_HEADS, *rows]


def films_table(notebook: Notebook) -> Table:
    """Every film that was decided on, without a reference."""
    steps = films_decided(notebook)
    while True:
        try:
            next(steps)
        except StopIteration as end:
            return [HEADS[:CURVE], *(cells_of(film, None)[:CURVE] for film in end.value)]


def write_table(table: Table, path: Path) -> None:
    """Write a table; text stays text, never a formula.

    Raises
    ------
    EntryError
        If the ending is none of `TABLE_SUFFIXES`.
    OSError
    """
    suffix = path.suffix.lower()
    if suffix not in TABLE_SUFFIXES:
        raise EntryError(f"end the name in one of {', '.join(TABLE_SUFFIXES)}")
    if suffix == ".csv":
        held = StringIO()
        csv.writer(held).writerows(table)
        write_whole(path, held.getvalue().encode("utf-8"))
        return
    cells: list[list[str | float | None]] = [list(row) for row in table]
    write_whole(path, xlsx_of(cells) if suffix == ".xlsx" else ods_of(cells))

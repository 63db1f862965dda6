"""What is seen, out of the program: the plot of a page, the shelf and the films as tables."""

from __future__ import annotations

from collections.abc import Callable
from functools import partial
from pathlib import Path
from typing import TYPE_CHECKING

from PyQt6.QtWidgets import QGraphicsView, QWidget

from vadrin.app.document.workbench import Workbench
from vadrin.app.library.notebook_exchange import write_bytes
from vadrin.app.shelf.shelf_tables import (
    TABLE_SUFFIXES,
    Table,
    films_table,
    shelf_table,
    write_table,
)
from vadrin.ui.files.notebook_files import NotebookFiles
from vadrin.ui.plots.plot_file import SUFFIXES, copy_plot, plot_bytes, plot_of

if TYPE_CHECKING:
    from vadrin.notebook.store import Notebook

_NO_PLOT = "There is no plot on this page."


class ShownFiles:
    """Copies and writes what is seen.

    Parameters
    ----------
    bench : Workbench
    files : NotebookFiles
        Asks where, and says what became of it.
    page : callable
        Gives the station that is shown.
    """

    def __init__(self, bench: Workbench, files: NotebookFiles, page: Callable[[], QWidget]) -> None:
        self._bench, self._files, self._page = bench, files, page

    def copy_plot(self) -> None:
        """Put the plot that is seen on the clipboard as a picture."""
        view = plot_of(self._page())
        if view is not None:
            copy_plot(view)
        done = "The plot is on the clipboard as a picture."
        self._bench.said.emit(_NO_PLOT if view is None else done)

    def ask_plot(self) -> None:
        """Ask where the plot that is seen shall be written."""
        view = plot_of(self._page())
        if view is None:
            self._bench.said.emit(_NO_PLOT)
            return
        kinds = f"Pictures ({' '.join(f'*{suffix}' for suffix in SUFFIXES)})"
        self._files.ask("Save the plot", kinds, partial(self.write_plot, view), new=".svg")

    def write_plot(self, view: QGraphicsView, path: Path) -> None:
        """Write a plot as SVG, PDF or PNG."""
        loaded = self._bench.loaded
        title = f"{loaded.title} in {loaded.developer.bath}" if loaded is not None else "Vadrin"
        self._files.written(path, lambda: write_bytes(path, plot_bytes(view, path.suffix, title)))

    def ask_shelf(self) -> None:
        """Ask where the shelf shall be written as a table."""
        self._ask_table("Export all tests as a table", shelf_table)

    def ask_films(self) -> None:
        """Ask where the films that were decided on shall be written as a table."""
        self._ask_table("Export the films decided on as a table", films_table)

    def _ask_table(self, title: str, table: Callable[[Notebook], Table]) -> None:
        kinds = f"Tables ({' '.join(f'*{suffix}' for suffix in TABLE_SUFFIXES)})"
        self._files.ask(title, kinds, partial(self._write_table, table), new=".csv")

    def _write_table(self, table: Callable[[Notebook], Table], path: Path) -> None:
        self._files.written(path, lambda: write_table(table(self._bench.notebook), path))

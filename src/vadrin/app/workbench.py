"""The model of everything on screen: the open notebook, the test on the bench, the selection.

It knows no screen. Views listen to its events; every edit goes through `edit`, so that the
file, the views and the analysis always follow in the same order.
"""

from __future__ import annotations

from collections.abc import Callable
from pathlib import Path
from typing import TypeVar

from sqlalchemy.exc import SQLAlchemyError

from vadrin.app.events import Event
from vadrin.app.planning import EditRefusedError
from vadrin.app.sheet import FrameSheet, StripSheet, TestSheet, load_sheet
from vadrin.notebook.records import Test
from vadrin.notebook.store import Notebook

T = TypeVar("T")

STATIONS = ("plan", "expose", "process", "read", "curves", "finding", "cards")
"""The stations of a test in the order of the work."""


class Workbench:
    """State of the program.

    Parameters
    ----------
    notebook : Notebook
    """

    def __init__(self, notebook: Notebook) -> None:
        self.notebook = notebook
        self.sheet: TestSheet | None = None
        self.frame_id: int | None = None
        self.station = "shelf"
        self.sheet_changed: Event[TestSheet | None] = Event()
        self.selection_changed: Event[int | None] = Event()
        self.station_changed: Event[str] = Event()
        self.said: Event[str] = Event()

    def open_notebook(self, path: Path) -> None:
        """Swap the open notebook for another.

        Raises
        ------
        NotebookError
            If it cannot be opened; the present one stays.
        """
        fresh = Notebook(path)
        self.notebook.close()
        self.notebook = fresh
        self.open_test(None)
        self.go("shelf")

    def open_test(self, test_id: int | None) -> None:
        """Put a test on the bench, or clear it."""
        self.sheet = load_sheet(self.notebook, test_id) if test_id else None
        self.frame_id = None
        self.sheet_changed.emit(self.sheet)
        self.select(None)

    def go(self, station: str) -> None:
        """Turn to a station."""
        self.station = station
        self.station_changed.emit(station)

    def select(self, frame_id: int | None) -> None:
        """Select one frame everywhere, or none."""
        self.frame_id = frame_id
        self.selection_changed.emit(frame_id)

    def selected(self) -> tuple[StripSheet, FrameSheet] | None:
        """The selected frame with its strip."""
        if self.sheet is None or self.frame_id is None:
            return None
        return self.sheet.place_of(self.frame_id)

    def edit(self, act: Callable[[Notebook], T]) -> T | None:
        """Do one edit and show what came of it; a refusal is said in words."""
        try:
            done = act(self.notebook)
        except EditRefusedError as refusal:
            self.said.emit(str(refusal))
            return None
        except (SQLAlchemyError, OSError) as error:
            reason = str(getattr(error, "orig", error))
            self.said.emit(f"Not saved: {reason}. The notebook is as it was; free the disk or "
                           "the folder and try again.")  # fmt: skip
            self.refresh()
            return None
        self.refresh()
        return done

    def refresh(self) -> None:
        """Take the test on the bench from the file again."""
        if self.sheet is not None:
            self.sheet = load_sheet(self.notebook, self.sheet.test.id)
        if self.sheet is None or (self.frame_id is not None and self.selected() is None):
            self.frame_id = None
        self.sheet_changed.emit(self.sheet)

    def undo(self) -> None:
        """Take back the last edit and say which it was."""
        self._replayed("Undone", self.notebook.undo())

    def redo(self) -> None:
        """Do the last undone edit again and say which it was."""
        self._replayed("Done again", self.notebook.redo())

    def _replayed(self, how: str, what: str) -> None:
        if what and self.sheet is None:
            tests = self.notebook.all(Test)
            self.sheet = load_sheet(self.notebook, tests[-1].id) if tests else None
        self.refresh()
        self.said.emit(f"{how}: {what}." if what else "Nothing left to take back or do again.")

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
from vadrin.app.plan.planning import EditRefusedError
from vadrin.app.test_sheet import FrameSheet, StripSheet, TestSheet, load_sheet, test_of_change
from vadrin.notebook.changes import Change, InUseError, ReadOnlyError
from vadrin.notebook.records.all_records import Test
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
            return self.edit_or_raise(act)
        except EditRefusedError as refusal:
            self.said.emit(str(refusal))
            return None

    def edit_or_raise(self, act: Callable[[Notebook], T]) -> T | None:
        """As `edit`, but a refused edit raises, for those who say it in their own place.

        Raises
        ------
        EditRefusedError
        """
        try:
            done = act(self.notebook)
        except (InUseError, ReadOnlyError) as refusal:
            self.said.emit(str(refusal))
            return None
        except (SQLAlchemyError, OSError) as error:
            self._not_saved(error)
            return None
        self.refresh()
        return done

    def _not_saved(self, error: Exception) -> None:
        reason = str(getattr(error, "orig", error))
        self.said.emit(
            f"Not saved: {reason}. Everything before it is safe; free the disk or bring the "
            "folder back and try again, or save a copy elsewhere (File)."
        )
        self.refresh()

    def refresh(self) -> None:
        """Take the test on the bench from the file again."""
        if self.sheet is not None:
            self.sheet = load_sheet(self.notebook, self.sheet.test.id)
        if self.sheet is None or (self.frame_id is not None and self.selected() is None):
            self.frame_id = None
        self.sheet_changed.emit(self.sheet)

    def undo(self) -> None:
        """Take back the last edit, of whichever test, and say which it was."""
        self._replay("Undone", self.notebook.undo)

    def redo(self) -> None:
        """Do the last undone edit again and say which it was."""
        self._replay("Done again", self.notebook.redo)

    def _replay(self, how: str, act: Callable[[], Change | None]) -> None:
        try:
            change = act()
        except (SQLAlchemyError, OSError) as error:
            self._not_saved(error)
            return
        if change is None:
            self.said.emit("Nothing left to take back or do again.")
            return
        if self.sheet is None:
            tests = self.notebook.all(Test)
            self.sheet = load_sheet(self.notebook, tests[-1].id) if tests else None
        self.refresh()
        self.said.emit(f"{how}: {change.label}{self._elsewhere(change)}.")

    def _elsewhere(self, change: Change) -> str:
        """Which test an edit belonged to, where that is not the one on the bench."""
        touched = test_of_change(self.notebook, change)
        here = self.sheet.test.id if self.sheet else None
        if touched is None or touched == here:
            return ""
        other = load_sheet(self.notebook, touched)
        return f" (in {other.title}, {other.process})" if other else ""

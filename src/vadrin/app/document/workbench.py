"""The document: the open notebook, the test on the bench with its answer, the selection.

It knows no screen. Views are told which topics changed; every edit goes through `edit`, so
that the file, the views and the analysis always follow in the same order.
"""

from __future__ import annotations

from collections.abc import Callable, Generator
from dataclasses import replace
from enum import Flag, auto
from pathlib import Path
from typing import TYPE_CHECKING, TypeVar

from vadrin.app.document.events import Event
from vadrin.app.document.session import Session
from vadrin.app.document.state import State, WorkedOut
from vadrin.app.document.stations import STATIONS
from vadrin.app.document.test_loading import load_test, test_of_change
from vadrin.app.loaded.frame_order import next_to_expose, next_to_read
from vadrin.app.loaded.loaded_test import LoadedFrame, LoadedStrip, LoadedTest
from vadrin.errors import EditRefusedError, ReadOnlyError, RecordInUseError, StorageError
from vadrin.notebook.changes import Change
from vadrin.notebook.records import Reading, Test
from vadrin.notebook.store import Notebook

if TYPE_CHECKING:
    from vadrin.core.results.analysis_result import Analysis
    from vadrin.notebook.inspection import Inspection

T = TypeVar("T")


class Topic(Flag):
    """What of the workbench changed."""

    NOTHING = 0
    NOTEBOOK = auto()
    SHEET = auto()
    SELECTION = auto()
    STATION = auto()
    ANALYSIS = auto()
    LOOK = auto()
    PAGE = auto()
    EVERYTHING = NOTEBOOK | SHEET | SELECTION | STATION | ANALYSIS | LOOK | PAGE


class Workbench:
    """State of the program.

    Parameters
    ----------
    notebook : Notebook
    """

    def __init__(self, notebook: Notebook) -> None:
        self.notebook = notebook
        self.state: State | None = None
        self.frame_id: int | None = None
        self.station = "shelf"
        self.under_way = ""
        self.session = Session()
        self.changed: Event[Topic] = Event()
        self.said: Event[str] = Event()

    @property
    def loaded(self) -> LoadedTest | None:
        """The test on the bench as it is in the file."""
        return self.state.loaded if self.state is not None else None

    @property
    def analysis(self) -> Analysis | None:
        """Its answer; None until it is worked out for the test as it is now."""
        return self.state.analysis if self.state is not None else None

    def open_notebook(self, path: Path, inspection: Inspection | None = None) -> None:
        """Swap the open notebook for another, of which a look may have been begun before.

        Raises
        ------
        NotebookError
            If it cannot be opened; the present one stays.
        EditRefusedError
            In the middle of a long edit.
        """
        self.check_free()
        fresh = Notebook(path, inspection)
        self.notebook.close()
        self.notebook = fresh
        self.session.forget_tests()
        self.open_test(None)
        self.go("shelf")
        self.changed.emit(Topic.NOTEBOOK)

    def open_test(self, test_id: int | None) -> None:
        """Put a test on the bench, or clear it."""
        self.put(load_test(self.notebook, test_id) if test_id else None)

    def put(self, loaded: LoadedTest | None) -> None:
        """Put a test on the bench that was just taken from the file, or clear it."""
        self._take(loaded)
        self.frame_id = None
        self._stay_where_there_is_a_test()
        self._select_where_work_goes_on()
        self.changed.emit(Topic.SHEET | Topic.SELECTION | Topic.ANALYSIS)

    def go(self, station: str) -> None:
        """Turn to a station; without a test on the bench, to the shelf instead."""
        before, self.station = self.station, station
        self._stay_where_there_is_a_test()
        if station == "expose" or before != station:
            self._select_where_work_goes_on()
        self.changed.emit(Topic.STATION)

    def _stay_where_there_is_a_test(self) -> None:
        if self.loaded is None and self.station in STATIONS:
            self.station = "shelf"
            self.changed.emit(Topic.STATION)

    def _select_where_work_goes_on(self) -> None:
        """Select the frame that is next at the station one is at."""
        if self.loaded is None:
            return
        if self.station == "expose":
            place = next_to_expose(self.loaded)
            if place is not None:
                self.select(place[1].frame.id)
        elif self.station == "read" and not self._chosen_to_be_read_again():
            first = next_to_read(self.loaded)
            if first is None and self.loaded.frames():
                first = self.loaded.frames()[0][1]
            if first is not None:
                self.select(first.frame.id)

    def _chosen_to_be_read_again(self) -> bool:
        """Whether a frame that has a reading is selected: then that is the one meant."""
        place = self.selected()
        return place is not None and bool(place[1].readings)

    def select(self, frame_id: int | None) -> None:
        """Select one frame everywhere, or none."""
        self.frame_id = frame_id
        self.changed.emit(Topic.SELECTION)

    def selected(self) -> tuple[LoadedStrip, LoadedFrame] | None:
        """The selected frame with its strip."""
        if self.loaded is None or self.frame_id is None:
            return None
        return self.loaded.place_of(self.frame_id)

    def _take(self, loaded: LoadedTest | None) -> None:
        """Put a test on the bench as it is in the file, beside the answer it had before."""
        if loaded is None:
            self.state = None
            return
        before = self.state if self.loaded and self.loaded.test.id == loaded.test.id else None
        self.state = State(loaded, before.answer if before is not None else None)

    def take_answer(self, answer: WorkedOut) -> None:
        """Take what the test on the bench was worked out to."""
        if self.state is not None:
            self.state = replace(self.state, answer=answer)
        self.changed.emit(Topic.ANALYSIS)

    def check_free(self) -> None:
        """Refuse what would break into a long edit.

        Raises
        ------
        EditRefusedError
            Naming what is under way.
        """
        if self.under_way:
            raise EditRefusedError(f"{self.under_way} is still under way; wait, or stop it")

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
        self.check_free()
        try:
            done = act(self.notebook)
        except (RecordInUseError, ReadOnlyError) as refusal:
            self.said.emit(str(refusal))
            return None
        except (StorageError, OSError) as error:
            self.not_saved(error)
            return None
        self.refresh()
        return done

    def edit_in_steps(
        self, words: str, act: Callable[[Notebook], Generator[tuple[int, int], None, T]]
    ) -> Generator[tuple[int, int], None, T]:
        """One long edit, a slice at a time, during which no other is taken.

        Parameters
        ----------
        words : str
            What is under way, for those who are refused meanwhile.
        act : callable
            Begins the edit; it tells its progress, and closing it takes all of it back.

        Raises
        ------
        EditRefusedError
            If another is under way.
        """
        self.check_free()
        self.under_way = words
        try:
            done = yield from act(self.notebook)
        finally:
            self.under_way = ""
        self.refresh()
        return done

    def not_saved(self, error: Exception) -> None:
        """Say that an edit did not reach the file, and show what is there."""
        self.said.emit(
            f"Not saved: {error}. Everything before it is safe; free the disk or bring the "
            "folder back and try again, or save a copy elsewhere (File)."
        )
        self.refresh()

    def refresh(self) -> None:
        """Take the test on the bench from the file again."""
        if self.loaded is not None:
            self._take(load_test(self.notebook, self.loaded.test.id))
        if self.loaded is None or (self.frame_id is not None and self.selected() is None):
            self.frame_id = None
            self._select_where_work_goes_on()
        self._stay_where_there_is_a_test()
        self.changed.emit(Topic.SHEET | Topic.NOTEBOOK)

    def undo(self) -> None:
        """Take back the last edit, of whichever test, and say which it was."""
        self._replay("Undone", self.notebook.undo)

    def redo(self) -> None:
        """Do the last undone edit again and say which it was."""
        self._replay("Done again", self.notebook.redo)

    def _replay(self, how: str, act: Callable[[], Change | None]) -> None:
        try:
            self.check_free()
            change = act()
        except EditRefusedError as refusal:
            self.said.emit(f"{refusal}.")
            return
        except (StorageError, OSError) as error:
            self.not_saved(error)
            return
        if change is None:
            self.said.emit("Nothing left to take back or do again.")
            return
        if self.loaded is None:
            tests = self.notebook.all(Test)
            self._take(load_test(self.notebook, tests[-1].id) if tests else None)
        self.refresh()
        read = next((s.before or s.after for s in change.steps if s.kind is Reading), None)
        if isinstance(read, Reading) and self.loaded and self.loaded.place_of(read.frame_id):
            # What was typed wrong is typed anew in the same place.
            self.select(read.frame_id)
        self.said.emit(f"{how}: {change.label}{self._elsewhere(change)}.")

    def _elsewhere(self, change: Change) -> str:
        """Which test an edit belonged to, where that is not the one on the bench."""
        touched = test_of_change(self.notebook, change)
        here = self.loaded.test.id if self.loaded else None
        if touched is None or touched == here:
            return ""
        other = load_test(self.notebook, touched)
        return f" (in {other.title}, {other.process})" if other else ""

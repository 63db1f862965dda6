"""Bringing a file in: what cannot be read is shown first, and nothing is half imported."""

from __future__ import annotations

from functools import partial
from pathlib import Path
from typing import TYPE_CHECKING

from vadrin.app.display.words import counted
from vadrin.app.document.workbench import Workbench
from vadrin.errors import EditRefusedError, FormatError, UnmatchedColumnsError, VadrinError
from vadrin.ui.files.column_matcher import ColumnMatcher
from vadrin.ui.jobs import Jobs, SlicedJob
from vadrin.ui.widgets.banner import Banner, Remedy

if TYPE_CHECKING:
    from vadrin.formats.readings.column_matching import RawTable
    from vadrin.formats.readings.readings_table import ReadingsTable

# What reads files is imported where it is needed: the window does not wait for it.

_READING = "reading a file"


class ReadingsImport:
    """Takes a file in, asking on the banner and the column matcher where it must.

    Parameters
    ----------
    bench : Workbench
    banner : Banner
    jobs : Jobs
        Reads long files while the window goes on.
    """

    def __init__(self, bench: Workbench, banner: Banner, jobs: Jobs) -> None:
        self._bench, self._banner, self._jobs = bench, banner, jobs
        self.matcher = ColumnMatcher(self._matched)
        self._writing: SlicedJob | None = None

    @property
    def writing(self) -> bool:
        """Whether what a file held is still being written."""
        return self._writing is not None

    def offer(self, path: Path) -> None:
        """Import a file if all of it can be read, else say what cannot."""
        from vadrin.app.read.reading_files import is_long, read_readings, read_unless_stopped

        self.matcher.hide()
        if is_long(path):
            self._banner.working(f"Reading {path.name} …", "Stop, and import nothing", self.stop)
            self._jobs.run(
                _READING,
                lambda said: read_unless_stopped(path, lambda: said(0, 0)),
                self._consider,
                self._not_read,
            )
            return
        try:
            table = read_readings(path)
        except FormatError as error:
            self._not_read(error)
        else:
            self._consider(table)

    def stop(self) -> None:
        """Stop reading a file, or writing what it holds; nothing of it is imported."""
        self._jobs.cancel(_READING)
        job, self._writing = self._writing, None
        if job is not None:
            job.cancel()
            self._bench.said.emit("Stopped; nothing was imported.")
        self._banner.close_notice()

    def _not_read(self, error: Exception) -> None:
        from vadrin.app.read.reading_files import first_matching

        if isinstance(error, UnmatchedColumnsError):
            matching = first_matching(self._bench, error.raw)
            if matching is None:
                self._complain(f"Nothing was imported. {error}.")
                return
            self._banner.close_notice()
            self.matcher.offer(error.raw, matching.columns, matching.remembered)
        elif isinstance(error, FormatError):
            self._complain(f"Nothing was imported. {error}.")
        else:
            self._banner.close_notice()
            raise error

    def _complain(self, words: str) -> None:
        self._banner.ask(words, "", [], "Close")

    def _matched(self, raw: RawTable, columns: tuple[str, ...]) -> None:
        from vadrin.app.read.import_readings import remember_columns
        from vadrin.app.read.reading_files import table_of

        self._bench.edit(lambda notebook: remember_columns(notebook, raw.headers, columns))
        self._consider(table_of(raw, columns))

    def _consider(self, table: ReadingsTable) -> None:
        from vadrin.app.read.reading_files import intake_of

        intake = intake_of(table)
        if not intake.complaint:
            self._offer_waiting(table)
            return
        acts: list[Remedy] = []
        if intake.rows:
            acts.append(
                (
                    f"Import the other {counted(intake.rows, 'reading')}",
                    lambda: self._offer_waiting(table),
                )
            )
        self._banner.ask(intake.complaint, intake.cells, acts)

    def _offer_waiting(self, table: ReadingsTable) -> None:
        """A test that waits for just these readings is offered before a new one is made."""
        from vadrin.app.read.reading_files import take_to_waiting
        from vadrin.app.read.waiting_test import waiting_test

        waiting = waiting_test(self._bench.notebook, self._bench.loaded, table)
        if waiting is None:
            self._take(table)
            return
        fits = waiting

        def to_it() -> None:
            self._banner.close_notice()
            take_to_waiting(self._bench, fits, table)

        acts: list[Remedy] = [
            (f"To {fits.loaded.title}", to_it),
            ("A new test of them", lambda: self._take(table)),
        ]
        self._banner.ask(fits.words, "", acts, "Import nothing")

    def _take(self, table: ReadingsTable) -> None:
        from vadrin.app.read.reading_files import is_large, take_readings, taking_readings

        self._banner.close_notice()
        try:
            if not is_large(self._bench, table):
                take_readings(self._bench, table)
                return
            self._bench.check_free()
        except EditRefusedError as refusal:
            self._complain(f"Nothing was imported. {refusal}")
            return
        self._writing = SlicedJob(
            self._banner,
            taking_readings(self._bench, table),
            partial(self._written, table.source),
            self._all_written,
            self._not_written,
        )

    def _written(self, source: str, done: int, total: int) -> None:
        words = f"Importing {source}: {done} of {counted(total, 'reading')}"
        self._banner.working(words, "Stop, and import nothing", self.stop)

    def _all_written(self, _nothing: object) -> None:
        self._writing = None
        self._banner.close_notice()

    def _not_written(self, error: Exception) -> None:
        self._writing = None
        self._banner.close_notice()
        if not isinstance(error, VadrinError | OSError):
            raise error
        self._complain(f"Nothing was imported. {error}")

"""Reading and changing a notebook. Every change is one transaction, at once in the file."""

from __future__ import annotations

import sqlite3
from collections.abc import Iterator, Sequence
from contextlib import contextmanager, suppress
from dataclasses import replace
from itertools import islice
from pathlib import Path
from typing import TYPE_CHECKING, Any, TypeVar

from vadrin.errors import (
    EditRefusedError,
    FaultyRecordsError,
    NotebookError,
    NotebookHeldError,
    ReadOnlyError,
    RecordInUseError,
    StorageError,
)
from vadrin.notebook.backups import back_up
from vadrin.notebook.changes import Change, Step
from vadrin.notebook.columns import columns_of, table_name
from vadrin.notebook.connection import connect
from vadrin.notebook.examination import faults, words_of_faults
from vadrin.notebook.file import open_rights, place_of, prepare, set_up
from vadrin.notebook.inspection import SCHEMA_VERSION, Inspection, inspect
from vadrin.notebook.record_reader import RecordReader
from vadrin.notebook.records import OWNED, PARENTS, RECORDS, Record
from vadrin.notebook.records.history import HISTORY
from vadrin.notebook.rewrites import RewriteLog
from vadrin.notebook.row_cache import RowCache

if TYPE_CHECKING:
    from vadrin.notebook.record_writer import RecordWriter

R = TypeVar("R", bound=Record)
_MOST_FAULTS = 100_000


class Notebook:
    """One open notebook file.

    Parameters
    ----------
    path : Path
        Created if there is no file; migrated if it is older.
    inspection : Inspection, optional
        A look at the file that was begun before.

    Raises
    ------
    NotebookError
        If the file cannot be opened; it is left untouched.
    """

    def __init__(self, path: Path, inspection: Inspection | None = None) -> None:
        self.path = path
        self._lock, self.read_only = open_rights(path)
        self.open_elsewhere = self._lock.elsewhere if self._lock else ""
        """Who has it open on another machine, by what a shared folder brought; empty for nobody."""
        try:
            self._get_ready(inspection)
        except BaseException:
            self._let_go()
            raise
        self._hold_file()
        self._place = place_of(path)
        self._connection = connect(path, "ro" if self.read_only else "rw")
        set_up(self._connection)
        self._reader = RecordReader(self._connection)
        self._made_writer: RecordWriter | None = None
        self._log = RewriteLog(self._reader)
        self.revision = 0
        self._kept = RowCache(trusted=not self.read_only)
        self._change: Change | None = None
        self._done: list[Change] = []
        self._undone: list[Change] = []

    def _get_ready(self, inspection: Inspection | None) -> None:
        if not self.read_only:
            if prepare(self.path, inspection) == SCHEMA_VERSION:
                self._keep_backup()
        elif (inspection.version() if inspection else inspect(self.path)) != SCHEMA_VERSION:
            raise NotebookError(
                f"{self.path.name} is of an older format and can only be read here: "
                f"{self.read_only}. It is not changed."
            )

    def _keep_backup(self) -> None:
        try:
            back_up(self.path)
        except OSError as error:
            # A full disk must not keep what is there from being read.
            self._let_go()
            reason = (error.strerror or str(error)).lower()
            self.read_only = f"no backup can be written ({reason}). Free the disk"

    def _hold_file(self) -> None:
        """Hold what is opened now; where another window writes it, only read."""
        try:
            if self._lock is not None:
                self._lock.hold_file()
        except NotebookHeldError as error:
            self._let_go()
            self.read_only = f"{error}. You can read here; close it there to write here"

    def _let_go(self) -> None:
        if self._lock is not None:
            self._lock.release()
            self._lock = None

    def close(self) -> None:
        """Let go of the file, and keep a backup of what this session wrote."""
        if self._made_writer is not None:
            self._made_writer.close()
        self._connection.close()
        if self.revision and not self.read_only:
            # A full disk must not keep the window from closing: the notebook itself is whole.
            with suppress(OSError):
                back_up(self.path)
        self._let_go()

    def save_copy(self, target: Path) -> None:
        """Write all of the notebook to another file.

        Raises
        ------
        OSError
            If it cannot be written, or stands there already.
        """
        with target.open("xb"):
            pass
        copy = sqlite3.connect(target)
        try:
            self._connection.backup(copy)
        except sqlite3.Error as error:
            target.unlink()
            raise OSError(str(error)) from error
        finally:
            copy.close()

    def get(self, kind: type[R], record_id: int) -> R | None:
        """The record with an id, or None."""
        found = self.all(kind, id=record_id)
        return found[0] if found else None

    def all(self, kind: type[R], **where: Any) -> list[R]:
        """Records whose fields equal the given values, by position then id."""
        return self._kept.answer(kind, where, lambda: self._reader.all(kind, where))

    def all_of(self, kind: type[R], name: str, values: Sequence[int]) -> list[R]:
        """Records whose field is any of many values, by position then id."""
        return self._reader.all_of(kind, name, values)

    def count(self, kind: type[Record]) -> int:
        """Number of records of a kind."""
        return self._reader.count(kind)

    @property
    def _writer(self) -> RecordWriter:
        """What writes; its library is only loaded with the first edit."""
        if self._made_writer is None:
            from vadrin.notebook.record_writer import RecordWriter

            self._made_writer = RecordWriter(self._connection)
        return self._made_writer

    @contextmanager
    def change(self, label: str) -> Iterator[None]:
        """Group edits into one transaction and one undo step, named in words."""
        if self._change is not None:
            yield
            return
        if self.read_only:
            raise ReadOnlyError(f"This notebook is open for reading only: {self.read_only}.")
        self._check_place()
        self._change = Change(label)
        try:
            yield
            self._commit()
        except BaseException:
            self._roll_back()
            self._change = None
            raise
        if self._change.steps:
            self._done.append(self._change)
            self._undone.clear()
        self._change = None

    def _check_place(self) -> None:
        """Never write into a file that is no longer where the person looks for it."""
        if place_of(self.path) != self._place:
            raise OSError(
                f"{self.path.name} is no longer in {self.path.parent}, or was replaced there; "
                "its folder may have gone away"
            )

    def _roll_back(self) -> None:
        if self._made_writer is not None:
            with suppress(StorageError):
                self._made_writer.roll_back()
        self._log.forget()
        self._kept.forget()

    def _commit(self) -> None:
        self._check_place()
        if self._made_writer is not None:
            self._log.write(self._made_writer)
            self._made_writer.commit()
        self.revision += 1

    def refuse_faults(self) -> None:
        """Look at all rows as they would be after this edit. Only inside `change`.

        Raises
        ------
        FaultyRecordsError
            If some hold what no notebook may; the edit is taken back.
        """
        found = list(islice(faults(self._connection), _MOST_FAULTS))
        if found:
            raise FaultyRecordsError(
                f"The notebook contains invalid data: the {words_of_faults(found)}. "
                "Correct the source file.",
                frozenset((f.table, f.row) for f in found),
            )

    def add(self, record: R) -> R:
        """Write a new record and return it with its id. Only inside `change`."""
        written = replace(record, id=self._writer.insert(record))
        self._log.added()
        self._note(Step(type(record), None, written))
        return written

    def add_all(self, records: Sequence[R]) -> list[R]:
        """Write many new records of one kind at once. Only inside `change`."""
        if not records:
            return []
        kind = type(records[0])
        top = self._writer.largest_id(kind)
        written = [replace(r, id=r.id or top + i) for i, r in enumerate(records, start=1)]
        self._writer.insert_many(written)
        self._log.added()
        for record in written:
            self._note(Step(kind, None, record))
        return written

    def put(self, record: R) -> R:
        """Write a changed record over the one with its id. Only inside `change`."""
        before = self.get(type(record), record.id)
        if before == record:
            return record
        self._writer.update(record)
        self._log.overwritten(type(record), record.id)
        self._note(Step(type(record), before, record))
        return record

    def remove(self, record: Record) -> None:
        """Remove a record and all that belongs to it. Only inside `change`.

        Raises
        ------
        RecordInUseError
            If other records need it.
        """
        self.remove_all([record])

    def remove_all(self, records: Sequence[Record]) -> None:
        """Remove records of one kind and all that belongs to them, in few questions.

        Raises
        ------
        RecordInUseError
            If other records need one of them.
        """
        if not records:
            return
        kind, ids = type(records[0]), [r.id for r in records]
        for child, parents in PARENTS.items():
            for name, parent in parents:
                if parent is kind:
                    self._release(child, name, self.all_of(child, name, ids))
        self._writer.delete(kind, ids)
        for record in records:
            self._log.removed(record)
            self._note(Step(kind, record, None))

    def _release(self, child: type[Any], name: str, held: list[Any]) -> None:
        """Take what hangs on removed records away with them, or off them."""
        if (child, name) in OWNED:
            self.remove_all(held)
            return
        for each in held:
            if not next(c for c in columns_of(child) if c.name == name).optional:
                kind = table_name(child).replace("_", " ")
                raise RecordInUseError(f"a {kind} still needs it; remove that first, or keep this")
            self.put(replace(each, **{name: None}))

    @property
    def written(self) -> int:
        """How many rows the change under way has written so far; 0 outside of one."""
        return len(self._change.steps) if self._change is not None else 0

    def _note(self, step: Step) -> None:
        if self._change is None:
            self._roll_back()
            raise RuntimeError("an edit outside Notebook.change")
        self._change.steps.append(step)
        self._kept.forget(step.kind)

    def undo_label(self) -> str:
        """What undo would take back, in words; empty for nothing."""
        return self._done[-1].label if self._done else ""

    def redo_label(self) -> str:
        """What redo would do again, in words; empty for nothing."""
        return self._undone[-1].label if self._undone else ""

    def undo(self) -> Change | None:
        """Take back the last change and return it; None for nothing.

        Raises
        ------
        EditRefusedError
            While a change is under way: half of it would be written.
        """
        return self._replay(self._done, self._undone, backward=True)

    def redo(self) -> Change | None:
        """Do the last undone change again and return it; None for nothing.

        Raises
        ------
        EditRefusedError
            While a change is under way.
        """
        return self._replay(self._undone, self._done, backward=False)

    def _replay(self, source: list[Change], sink: list[Change], backward: bool) -> Change | None:
        if self._change is not None:
            raise EditRefusedError(f"“{self._change.label}” is still under way; wait, or stop it")
        if not source:
            return None
        self._check_place()
        self._kept.forget()
        change = source[-1]
        steps = reversed(change.steps) if backward else iter(change.steps)
        try:
            for step in steps:
                old, new = (step.after, step.before) if backward else (step.before, step.after)
                self._turn(step.kind, old, new)
            self._commit()
        except BaseException:
            # Else the next edit would write the half that was done along with its own.
            self._roll_back()
            raise
        sink.append(source.pop())
        return change

    def _turn(self, kind: type[Any], old: Record | None, new: Record | None) -> None:
        """Put a row in the place of another; None for no row."""
        if new is None and old is not None:
            self._writer.delete(kind, [old.id])
            self._log.removed(old)
        elif new is not None:
            if old is None:
                self._writer.insert(new)
            else:
                self._writer.update(new)
            self._log.overwritten(kind, new.id)

    def rows(self, statement: str, **values: Any) -> list[tuple[Any, ...]]:
        """Rows of a question in SQL, for summaries over very many records."""
        return self._reader.rows(statement, values)

    def everything(self) -> dict[type[Record], list[Record]]:
        """All records of all kinds, for export."""
        return {kind: list(self.all(kind)) for kind in RECORDS}

    def history(self) -> dict[Any, list[Any]]:
        """Which rows were written over or removed, and in which session."""
        return {kind: self._reader.all(kind, {}) for kind in HISTORY}

"""Reading and changing a notebook. Every change is one transaction, at once in the file."""

from __future__ import annotations

import sqlite3
from collections.abc import Iterator, Sequence
from contextlib import contextmanager, suppress
from dataclasses import replace
from pathlib import Path
from typing import Any, TypeVar
from urllib.parse import quote

from sqlalchemy import Connection, create_engine, event, func, select, text
from sqlalchemy.pool import NullPool

from vadrin.errors import EditRefusedError, NotebookError, ReadOnlyError, RecordInUseError
from vadrin.notebook.backups import back_up
from vadrin.notebook.changes import Change, Step
from vadrin.notebook.file import SCHEMA_VERSION, inspect, open_rights, place_of, prepare, set_up
from vadrin.notebook.records import OWNED, PARENTS, RECORDS, Record
from vadrin.notebook.row_cache import RowCache
from vadrin.notebook.tables import TABLES, table_name

R = TypeVar("R", bound=Record)
_ROWS_A_QUERY = 500


class Notebook:
    """One open notebook file.

    Parameters
    ----------
    path : Path
        Created if there is no file; migrated if it is older.

    Raises
    ------
    NotebookError
        If the file cannot be opened; it is left untouched.
    """

    def __init__(self, path: Path) -> None:
        self.path = path
        self._lock, self.read_only = open_rights(path)
        try:
            self._get_ready()
        except BaseException:
            self._let_go()
            raise
        self._place = place_of(path)
        mode = "ro" if self.read_only else "rw"
        address = f"file:{quote(str(path.absolute()))}?mode={mode}"
        self._engine = create_engine(
            "sqlite://", creator=lambda: sqlite3.connect(address, uri=True), poolclass=NullPool
        )
        event.listen(self._engine, "connect", set_up)
        self._connection: Connection = self._engine.connect()
        self.revision = 0
        self._kept = RowCache(trusted=not self.read_only)
        self._change: Change | None = None
        self._done: list[Change] = []
        self._undone: list[Change] = []

    def _get_ready(self) -> None:
        if not self.read_only:
            prepare(self.path)
        elif inspect(self.path) != SCHEMA_VERSION:
            raise NotebookError(
                f"{self.path.name} is of an older format and can only be read here: "
                f"{self.read_only}. It was left untouched."
            )

    def _let_go(self) -> None:
        if self._lock is not None:
            self._lock.release()
            self._lock = None

    def close(self) -> None:
        """Let go of the file, and keep a backup of what this session wrote."""
        self._connection.close()
        self._engine.dispose()
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
            raw = self._connection.connection.driver_connection
            if raw is not None:
                raw.backup(copy)
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
        return self._kept.answer(kind, where, lambda: self._read(kind, where))

    def _read(self, kind: type[R], where: dict[str, Any]) -> list[R]:
        table = TABLES[kind]
        query = select(table)
        for name, value in where.items():
            query = query.where(table.c[name] == value)
        order = [table.c.position] if "position" in table.c else []
        rows = self._connection.execute(query.order_by(*order, table.c.id))
        # Columns stand in the order of the record's fields.
        return [kind(*row) for row in rows]

    def all_of(self, kind: type[R], name: str, values: list[int]) -> list[R]:
        """Records whose field is any of many values, by position then id."""
        table = TABLES[kind]
        order = [table.c.position] if "position" in table.c else []
        found: list[R] = []
        for start in range(0, len(values), _ROWS_A_QUERY):
            some = table.c[name].in_(values[start : start + _ROWS_A_QUERY])
            query = select(table).where(some).order_by(*order, table.c.id)
            found += [kind(*row) for row in self._connection.execute(query)]
        return found

    def count(self, kind: type[Record]) -> int:
        """Number of records of a kind."""
        query = select(func.count()).select_from(TABLES[kind])
        return int(self._connection.execute(query).scalar_one())

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
        self._connection.rollback()
        self._kept.forget()

    def _commit(self) -> None:
        self._check_place()
        self._connection.commit()
        self.revision += 1

    def add(self, record: R) -> R:
        """Write a new record and return it with its id. Only inside `change`."""
        values = _values(record)
        if not record.id:
            values.pop("id")
        result = self._connection.execute(TABLES[type(record)].insert().values(**values))
        key = result.inserted_primary_key
        written = replace(record, id=int(key[0]) if key else record.id)
        self._note(Step(type(record), None, written))
        return written

    def add_all(self, records: Sequence[R]) -> list[R]:
        """Write many new records of one kind at once. Only inside `change`."""
        if not records:
            return []
        kind = type(records[0])
        table = TABLES[kind]
        top = self._connection.execute(select(func.max(table.c.id))).scalar_one() or 0
        written = [replace(r, id=r.id or top + i) for i, r in enumerate(records, start=1)]
        self._connection.execute(table.insert(), [_values(r) for r in written])
        for record in written:
            self._note(Step(kind, None, record))
        return written

    def put(self, record: R) -> R:
        """Write a changed record over the one with its id. Only inside `change`."""
        before = self.get(type(record), record.id)
        if before == record:
            return record
        table = TABLES[type(record)]
        update = table.update().where(table.c.id == record.id)
        self._connection.execute(update.values(**_values(record)))
        self._note(Step(type(record), before, record))
        return record

    def remove(self, record: Record) -> None:
        """Remove a record and all that belongs to it. Only inside `change`.

        Raises
        ------
        InUseError
            If other records need it.
        """
        self.remove_all([record])

    def remove_all(self, records: Sequence[Record]) -> None:
        """Remove records of one kind and all that belongs to them, in few questions.

        Raises
        ------
        InUseError
            If other records need one of them.
        """
        if not records:
            return
        kind, ids = type(records[0]), [r.id for r in records]
        for child, parents in PARENTS.items():
            for name, parent in parents:
                if parent is kind:
                    self._release(child, name, self.all_of(child, name, ids))
        table = TABLES[kind]
        for start in range(0, len(ids), _ROWS_A_QUERY):
            some = table.c.id.in_(ids[start : start + _ROWS_A_QUERY])
            self._connection.execute(table.delete().where(some))
        for record in records:
            self._note(Step(kind, record, None))

    def _release(self, child: type[Any], name: str, held: list[Any]) -> None:
        """Take what hangs on removed records away with them, or off them."""
        if (child, name) in OWNED:
            self.remove_all(held)
            return
        for each in held:
            if not TABLES[child].c[name].nullable:
                kind = table_name(child).replace("_", " ")
                raise RecordInUseError(f"a {kind} still needs it; remove that first, or keep this")
            self.put(replace(each, **{name: None}))

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
        change = source.pop()
        steps = reversed(change.steps) if backward else iter(change.steps)
        for step in steps:
            old, new = (step.after, step.before) if backward else (step.before, step.after)
            table = TABLES[step.kind]
            if new is None and old is not None:
                self._connection.execute(table.delete().where(table.c.id == old.id))
            elif new is not None and old is None:
                self._connection.execute(table.insert().values(**_values(new)))
            elif new is not None:
                update = table.update().where(table.c.id == new.id)
                self._connection.execute(update.values(**_values(new)))
        try:
            self._commit()
        except BaseException:
            self._roll_back()
            source.append(change)
            raise
        sink.append(change)
        return change

    def rows(self, statement: str, **values: Any) -> list[tuple[Any, ...]]:
        """Rows of a question in SQL, for summaries over very many records."""
        return [tuple(row) for row in self._connection.execute(text(statement), values)]

    def everything(self) -> dict[type[Record], list[Record]]:
        """All records of all kinds, for export."""
        return {kind: list(self.all(kind)) for kind in RECORDS}


def _values(record: Record) -> dict[str, Any]:
    """Column values of a record; `asdict` would copy every value deeply."""
    return dict(vars(record))

"""Reading and changing a notebook. Every change is one transaction, at once in the file."""

from __future__ import annotations

from collections.abc import Iterator
from contextlib import contextmanager
from dataclasses import asdict, dataclass, field, replace
from pathlib import Path
from typing import Any, TypeVar

from sqlalchemy import Connection, create_engine, event, func, select

from vadrin.notebook.file import prepare
from vadrin.notebook.records import PARENTS, RECORDS, Record
from vadrin.notebook.tables import TABLES

R = TypeVar("R", bound=Record)
_ROWS_A_QUERY = 500


@dataclass(frozen=True)
class _Step:
    """One row before and after a change; None where it did not exist."""

    kind: type[Any]
    before: Record | None
    after: Record | None


@dataclass
class Change:
    """A named edit of any number of rows, which can be undone as one."""

    label: str
    steps: list[_Step] = field(default_factory=list)


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
        prepare(path)
        self.path = path
        self._engine = create_engine(f"sqlite:///{path}")
        event.listen(self._engine, "connect", _set_up)
        self._connection: Connection = self._engine.connect()
        self._change: Change | None = None
        self._done: list[Change] = []
        self._undone: list[Change] = []

    def close(self) -> None:
        """Let go of the file."""
        self._connection.close()
        self._engine.dispose()

    def get(self, kind: type[R], record_id: int) -> R | None:
        """The record with an id, or None."""
        found = self.all(kind, id=record_id)
        return found[0] if found else None

    def all(self, kind: type[R], **where: Any) -> list[R]:
        """Records whose fields equal the given values, by position then id."""
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
        self._change = Change(label)
        try:
            yield
            self._connection.commit()
        except BaseException:
            self._connection.rollback()
            self._change = None
            raise
        if self._change.steps:
            self._done.append(self._change)
            self._undone.clear()
        self._change = None

    def add(self, record: R) -> R:
        """Write a new record and return it with its id. Only inside `change`."""
        values = asdict(record)
        if not record.id:
            values.pop("id")
        result = self._connection.execute(TABLES[type(record)].insert().values(**values))
        key = result.inserted_primary_key
        written = replace(record, id=int(key[0]) if key else record.id)
        self._note(_Step(type(record), None, written))
        return written

    def put(self, record: R) -> R:
        """Write a changed record over the one with its id. Only inside `change`."""
        before = self.get(type(record), record.id)
        if before == record:
            return record
        table = TABLES[type(record)]
        update = table.update().where(table.c.id == record.id)
        self._connection.execute(update.values(**asdict(record)))
        self._note(_Step(type(record), before, record))
        return record

    def remove(self, record: Record) -> None:
        """Remove a record and all that belongs to it. Only inside `change`."""
        kind = type(record)
        for child, parents in PARENTS.items():
            for name, parent in parents:
                if parent is kind:
                    for each in self.all(child, **{name: record.id}):
                        self.remove(each)
        table = TABLES[kind]
        self._connection.execute(table.delete().where(table.c.id == record.id))
        self._note(_Step(kind, record, None))

    def _note(self, step: _Step) -> None:
        if self._change is None:
            self._connection.rollback()
            raise RuntimeError("an edit outside Notebook.change")
        self._change.steps.append(step)

    def undo_label(self) -> str:
        """What undo would take back, in words; empty for nothing."""
        return self._done[-1].label if self._done else ""

    def redo_label(self) -> str:
        """What redo would do again, in words; empty for nothing."""
        return self._undone[-1].label if self._undone else ""

    def undo(self) -> str:
        """Take back the last change and return its words; empty for nothing."""
        return self._replay(self._done, self._undone, backward=True)

    def redo(self) -> str:
        """Do the last undone change again and return its words; empty for nothing."""
        return self._replay(self._undone, self._done, backward=False)

    def _replay(self, source: list[Change], sink: list[Change], backward: bool) -> str:
        if not source:
            return ""
        change = source.pop()
        steps = reversed(change.steps) if backward else iter(change.steps)
        for step in steps:
            old, new = (step.after, step.before) if backward else (step.before, step.after)
            table = TABLES[step.kind]
            if new is None and old is not None:
                self._connection.execute(table.delete().where(table.c.id == old.id))
            elif new is not None and old is None:
                self._connection.execute(table.insert().values(**asdict(new)))
            elif new is not None:
                update = table.update().where(table.c.id == new.id)
                self._connection.execute(update.values(**asdict(new)))
        self._connection.commit()
        sink.append(change)
        return change.label

    def everything(self) -> dict[type[Record], list[Record]]:
        """All records of all kinds, for export."""
        return {kind: list(self.all(kind)) for kind in RECORDS}


def _set_up(connection: Any, _record: Any) -> None:
    connection.execute("PRAGMA foreign_keys = ON")
    connection.execute("PRAGMA synchronous = FULL")

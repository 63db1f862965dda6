"""Writing records, by SQLAlchemy on the connection that reads: imported with the first edit."""

from __future__ import annotations

import sqlite3
from collections.abc import Iterator, Sequence
from contextlib import contextmanager
from typing import Any

from sqlalchemy import Connection, create_engine, func, select
from sqlalchemy.exc import SQLAlchemyError
from sqlalchemy.pool import StaticPool

from vadrin.core.wording import counted
from vadrin.errors import StorageError
from vadrin.notebook.records import Record
from vadrin.notebook.tables import TABLES

_ROWS_A_STATEMENT = 500


@contextmanager
def _storage() -> Iterator[None]:
    try:
        yield
    except SQLAlchemyError as error:
        raise StorageError(str(getattr(error, "orig", None) or error)) from error


def _all_written(rows: int, wanted: int) -> None:
    """What the file let pass without doing it was not saved."""
    if rows != wanted:
        raise StorageError(f"the file took {max(rows, 0)} of {counted(wanted, 'row')}")


class RecordWriter:
    """Writes rows on an open connection; whoever owns it commits.

    Every method raises `StorageError` where the file refuses.

    Parameters
    ----------
    connection : sqlite3.Connection
    """

    def __init__(self, connection: sqlite3.Connection) -> None:
        self._engine = create_engine("sqlite://", creator=lambda: connection, poolclass=StaticPool)
        self._connection: Connection = self._engine.connect()
        self._driver = connection

    def insert(self, record: Record) -> int:
        """Write a new record; gives its id."""
        values = _values(record)
        if not record.id:
            values.pop("id")
        with _storage():
            made = self._connection.execute(TABLES[type(record)].insert().values(**values))
            _all_written(made.rowcount, 1)
        key = made.inserted_primary_key
        return int(key[0]) if key else record.id

    def insert_many(self, records: Sequence[Record]) -> None:
        """Write new records of one kind that have their ids."""
        table = TABLES[type(records[0])]
        with _storage():
            made = self._connection.execute(table.insert(), [_values(r) for r in records])
            _all_written(made.rowcount, len(records))

    def update(self, record: Record) -> None:
        """Write a record over the one with its id."""
        table = TABLES[type(record)]
        update = table.update().where(table.c.id == record.id)
        with _storage():
            made = self._connection.execute(update.values(**_values(record)))
            _all_written(made.rowcount, 1)

    def delete(self, kind: type[Any], ids: Sequence[int]) -> None:
        """Remove records of one kind."""
        table = TABLES[kind]
        for start in range(0, len(ids), _ROWS_A_STATEMENT):
            some = ids[start : start + _ROWS_A_STATEMENT]
            with _storage():
                made = self._connection.execute(table.delete().where(table.c.id.in_(some)))
                _all_written(made.rowcount, len(some))

    def largest_id(self, kind: type[Any]) -> int:
        """The largest id of a kind; 0 for none."""
        query = select(func.max(TABLES[kind].c.id))
        with _storage():
            return int(self._connection.execute(query).scalar_one() or 0)

    def close(self) -> None:
        """Let go of the connection, and close it."""
        self._connection.close()
        self._engine.dispose()

    def commit(self) -> None:
        """Make what was written lasting."""
        with _storage():
            self._connection.commit()

    def roll_back(self) -> None:
        """Take back what was written since the last commit."""
        try:
            with _storage():
                self._connection.rollback()
        finally:
            # After a commit that failed the library holds no transaction any more; SQLite does.
            if self._driver.in_transaction:
                self._driver.rollback()


def _values(record: Record) -> dict[str, Any]:
    """Column values of a record; `asdict` would copy every value deeply."""
    return dict(vars(record))

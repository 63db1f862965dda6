"""Reading records: plain questions on sqlite3, so that the first window waits for nothing else."""

from __future__ import annotations

import sqlite3
from collections.abc import Iterable, Sequence
from typing import Any, TypeVar

from vadrin.errors import StorageError
from vadrin.notebook.columns import columns_of, readers_of, table_name

R = TypeVar("R")
_ROWS_A_QUERY = 500


class RecordReader:
    """Reads records on an open connection.

    Names of tables and columns are those of the record types; values are always bound.

    Parameters
    ----------
    connection : sqlite3.Connection
    """

    def __init__(self, connection: sqlite3.Connection) -> None:
        self._connection = connection

    def all(self, kind: type[R], where: dict[str, Any]) -> list[R]:
        """Records whose fields equal the given values, by position then id."""
        known = {c.name for c in columns_of(kind)}
        if not set(where) <= known:
            raise ValueError(f"no such field: {set(where) - known}")
        test = " AND ".join(f"{name} = ?" for name in where)
        return self._select(kind, f" WHERE {test}" if test else "", list(where.values()))

    def all_of(self, kind: type[R], name: str, values: Sequence[int]) -> list[R]:
        """Records whose field is any of many values, by position then id."""
        found: list[R] = []
        for start in range(0, len(values), _ROWS_A_QUERY):
            some = values[start : start + _ROWS_A_QUERY]
            marks = ", ".join("?" * len(some))
            found += self._select(kind, f" WHERE {name} IN ({marks})", some)
        return found

    def count(self, kind: type[Any]) -> int:
        """Number of records of a kind."""
        return int(self.rows(f"SELECT count(*) FROM {table_name(kind)}", {})[0][0])

    def rows(self, statement: str, values: dict[str, Any] | Sequence[Any]) -> list[tuple[Any, ...]]:
        """Rows of a question.

        Raises
        ------
        StorageError
            If the file cannot be read.
        """
        try:
            return self._connection.execute(statement, values).fetchall()
        except sqlite3.Error as error:
            raise StorageError(str(error)) from error

    def _select(self, kind: type[R], where: str, values: Iterable[Any]) -> list[R]:
        names = [c.name for c in columns_of(kind)]
        order = "position, id" if "position" in names else "id"
        statement = f"SELECT {', '.join(names)} FROM {table_name(kind)}{where} ORDER BY {order}"
        rows = self.rows(statement, list(values))
        readers = readers_of(kind)
        if readers:
            return [_made(kind, names, _read(list(row), readers)) for row in rows]
        return [_made(kind, names, row) for row in rows]


def _made(kind: type[R], names: list[str], row: Sequence[Any]) -> R:
    # A frozen record sets its fields one by one, in twice the time: thousands are read at once.
    record = object.__new__(kind)
    vars(record).update(zip(names, row, strict=True))
    return record


def _read(row: list[Any], readers: Iterable[tuple[int, Any]]) -> list[Any]:
    for place, read in readers:
        row[place] = read(row[place])
    return row

"""What can be recovered of a damaged notebook, as a new file; the damaged one stays as it is."""

from __future__ import annotations

import json
import sqlite3
from collections.abc import Iterator
from dataclasses import fields, replace
from pathlib import Path
from typing import Any
from urllib.parse import quote

from vadrin.core.wording import counted
from vadrin.errors import NotebookError
from vadrin.notebook.columns import ENUMERATIONS, table_name
from vadrin.notebook.json_file import Everything, write_all
from vadrin.notebook.records import PARENTS, RECORDS, Record
from vadrin.notebook.store import Notebook

_CHUNK = 512
_LAST_ID = 4_000_000


def _rows(connection: sqlite3.Connection, table: str, low: int, high: int
          ) -> Iterator[dict[str, Any]]:  # fmt: skip
    """Rows with ids from low to below high; a range that fails is halved down to single rows."""
    try:
        question = f"SELECT * FROM {table} WHERE id >= ? AND id < ? ORDER BY id"
        cursor = connection.execute(question, (low, high))
        names = [d[0] for d in cursor.description]
        yield from [dict(zip(names, row, strict=True)) for row in cursor.fetchall()]
    except sqlite3.DatabaseError:
        if high - low > 1:
            middle = (low + high) // 2
            yield from _rows(connection, table, low, middle)
            yield from _rows(connection, table, middle, high)


def _last_id(connection: sqlite3.Connection, table: str) -> int:
    try:
        found = connection.execute(f"SELECT max(id) FROM {table}").fetchone()[0]
        return min(int(found or 0), _LAST_ID)
    except (sqlite3.DatabaseError, ValueError, TypeError):
        return 20_000


def _record(kind: type[Any], row: dict[str, Any]) -> Record | None:
    values: dict[str, Any] = {}
    for field in fields(kind):
        if field.name not in row:
            continue
        value, wanted = row[field.name], str(field.type)
        if value is None and "None" not in wanted:
            return None
        try:
            if wanted.startswith("int") and value is not None:
                value = int(value)
            elif wanted.startswith("float") and value is not None:
                value = float(value)
            elif wanted == "bool":
                value = bool(value)
            elif wanted in ENUMERATIONS:
                value = ENUMERATIONS[wanted](value)
            elif wanted.startswith("tuple"):
                value = tuple(json.loads(value))
            elif wanted == "str" and not isinstance(value, str):
                return None
        except (ValueError, TypeError):
            return None
        values[field.name] = value
    record: Record = kind(**values)
    return record


def _is_optional(kind: type[Any], name: str) -> bool:
    return next(f for f in fields(kind) if f.name == name).type == "int | None"


class _Mending:
    """Gives what lost its owner a stand-in to belong to, and lets optional links go."""

    def __init__(self, everything: Everything) -> None:
        self._all: dict[type[Any], dict[int, Any]] = {
            kind: {r.id: r for r in everything[kind]} for kind in RECORDS
        }

    def mended(self) -> Everything:
        """Everything, with no link that points at nothing."""
        for kind in reversed(RECORDS):
            for record in list(self._all[kind].values()):
                self._mend(kind, record)
        return {kind: list(records.values()) for kind, records in self._all.items()}

    def _mend(self, kind: type[Any], record: Any) -> None:
        for name, parent in PARENTS.get(kind, ()):
            target = getattr(record, name)
            if target is None or target in self._all[parent]:
                continue
            if _is_optional(kind, name):
                record = replace(record, **{name: None})
                self._all[kind][record.id] = record
            else:
                self._stand_in(parent, target)

    def _stand_in(self, kind: type[Any], record_id: int) -> int:
        """Make a record for one that is lost; its own owners are stand-ins too."""
        owners = {
            name: self._common(parent)
            for name, parent in PARENTS.get(kind, ())
            if not _is_optional(kind, name)
        }
        named = {f.name for f in fields(kind)} & {"name", "label"}
        words = dict.fromkeys(named, f"recovered {record_id}")
        self._all[kind][record_id] = kind(id=record_id, **owners, **words)
        return record_id

    def _common(self, kind: type[Any]) -> int:
        """One stand-in for all that have lost even the number of their owner."""
        known = self._all[kind]
        found: int | None = next((r.id for r in known.values() if "recovered" in (
            getattr(r, "name", ""), getattr(r, "note", ""))), None)  # fmt: skip
        if found is not None:
            return found
        made = self._stand_in(kind, max(known, default=0) + 1)
        mark = {"name": "recovered"} if hasattr(known[made], "name") else {"note": "recovered"}
        known[made] = replace(known[made], **mark)
        return made


def recover(damaged: Path, target: Path) -> dict[str, int]:
    """Copy every record that can still be read into a new notebook.

    Parameters
    ----------
    damaged : Path
        Is only read.
    target : Path
        Must not be there yet.

    Returns
    -------
    dict of str to int
        Records recovered, by table.

    Raises
    ------
    NotebookError
        If nothing can be recovered, or the copy cannot be written.
    """
    if target.exists():
        raise NotebookError(f"{target.name} is there already; nothing was written over it")
    connection = sqlite3.connect(f"file:{quote(str(damaged))}?mode=ro&immutable=1", uri=True)
    connection.text_factory = lambda data: data.decode("utf-8", "replace")
    everything: Everything = {}
    try:
        # With the list of tables gone no row can be found at all.
        connection.execute("SELECT count(*) FROM sqlite_master").fetchone()
        for kind in RECORDS:
            table = table_name(kind)
            seen: dict[int, Record] = {}
            for low in range(0, _last_id(connection, table) + 1, _CHUNK):
                for row in _rows(connection, table, low, low + _CHUNK):
                    record = _record(kind, row)
                    if record is not None and record.id > 0:
                        seen[record.id] = record
            everything[kind] = list(seen.values())
    except sqlite3.DatabaseError as error:
        raise NotebookError(
            f"nothing could be recovered from {damaged.name}; open a backup"
        ) from error
    finally:
        connection.close()
    kept = _Mending(everything).mended()
    counts = {table_name(kind): len(records) for kind, records in everything.items() if records}
    if not counts:
        raise NotebookError(f"nothing could be recovered from {damaged.name}; open a backup")
    book = Notebook(target)
    try:
        write_all(book, kept, "recover")
    finally:
        book.close()
    return counts


def recovered_words(counts: dict[str, int]) -> str:
    """What was recovered, in words: ``3 strips, 1 batch``."""
    return ", ".join(counted(count, name.replace("_", " ")) for name, count in counts.items())

"""What can be recovered of a damaged notebook, as a new file; the damaged one stays as it is."""

from __future__ import annotations

import json
import sqlite3
from collections.abc import Iterator
from contextlib import suppress
from dataclasses import fields, replace
from pathlib import Path
from tempfile import TemporaryDirectory
from typing import Any

from vadrin.core.planning.test_options import NO_OPTIONS, TestOptions, options_from_json
from vadrin.core.wording import counted
from vadrin.errors import FaultyRecordsError, NotebookError
from vadrin.notebook.columns import ENUMERATIONS, OPTIONS, columns_of, table_name
from vadrin.notebook.connection import Deadline, connect
from vadrin.notebook.grafting import grafted
from vadrin.notebook.json_file import Everything, write_all
from vadrin.notebook.records import PARENTS, RECORDS, Record
from vadrin.notebook.store import Notebook

_CHUNK = 512
_LAST_ID = 4_000_000
_FEW, _MANY_TO_A_PAGE = 2000, 16
_SECONDS = 60.0
_ROUNDS = 4
_PROBES = 22
_BARREN = 60
"""Chunks of ids without a row after which no more are looked for, where the end is lost."""


def _rows(
    connection: sqlite3.Connection, kind: type[Any], low: int, high: int, least: int
) -> Iterator[dict[str, Any]]:
    """Rows with ids from low to below high; a range that fails is halved, down to `least`."""
    try:
        yield from _asked(connection, kind, low, high)
    except (sqlite3.Error, UnicodeError):
        if high - low > least:
            middle = (low + high) // 2
            yield from _rows(connection, kind, low, middle, least)
            yield from _rows(connection, kind, middle, high, least)
        elif high - low > 1:
            # Rows lie many to a page: where both ends are lost, so is what is between.
            for place in (low, high - 1):
                with suppress(sqlite3.Error, UnicodeError):
                    yield from _asked(connection, kind, place, place + 1)


def _asked(
    connection: sqlite3.Connection, kind: type[Any], low: int, high: int
) -> list[dict[str, Any]]:
    where = f"FROM {table_name(kind)} WHERE id >= ? AND id < ? ORDER BY id"
    try:
        cursor = connection.execute(f"SELECT * {where}", (low, high))
        names = [d[0] for d in cursor.description]
    except UnicodeError:
        # The names of its columns are hurt; the present format's may still do.
        names = [c.name for c in columns_of(kind)]
        cursor = connection.execute(f"SELECT {', '.join(names)} {where}", (low, high))
    return [dict(zip(names, row, strict=True)) for row in cursor.fetchall()]


def _last_id(connection: sqlite3.Connection, table: str) -> int | None:
    """The largest id; None where that page is lost."""
    try:
        found = connection.execute(f"SELECT max(id) FROM {table}").fetchone()[0]
        return min(int(found or 0), _LAST_ID)
    except (sqlite3.Error, ValueError, TypeError):
        return None


def _is_lost(connection: sqlite3.Connection, kind: type[Any]) -> bool:
    """Whether no row of a table can be reached, wherever one looks: its first page is hurt."""
    for power in range(_PROBES):
        with suppress(sqlite3.Error, UnicodeError):
            _asked(connection, kind, 2**power, 2**power + 1)
            return False
    return True


def _next_id(connection: sqlite3.Connection, table: str, low: int) -> int:
    """The next id there is; beyond all where that can't be told."""
    question = f"SELECT id FROM {table} WHERE id >= ? ORDER BY id LIMIT 1"
    try:
        found = connection.execute(question, (low,)).fetchone()
        return int(found[0]) if found else _LAST_ID + 1
    except (sqlite3.Error, ValueError, TypeError):
        return _LAST_ID + 1


def _readable(connection: sqlite3.Connection, kind: type[Any]) -> list[Record]:
    """Every record of a kind that can still be read."""
    table = table_name(kind)
    if _is_lost(connection, kind):
        return []
    last, barren = _last_id(connection, table), 0
    seen: dict[int, Record] = {}
    least = 1 if last is not None and last < _FEW else _MANY_TO_A_PAGE
    low = 0
    while low <= (_LAST_ID if last is None else last):
        before = len(seen)
        for row in _rows(connection, kind, low, low + _CHUNK, least):
            record = _record(kind, row)
            if record is not None and record.id > 0:
                seen[record.id] = record
        barren = 0 if len(seen) > before else barren + 1
        low += _CHUNK
        if barren > _BARREN:
            low = _next_id(connection, table, low)
            barren = 0
    return list(seen.values())


def _record(kind: type[Any], row: dict[str, Any]) -> Record | None:
    values: dict[str, Any] = {}
    for field in fields(kind):
        if field.name not in row:
            continue
        value, wanted = row[field.name], str(field.type)
        optional = "None" in wanted
        if value is None and not optional:
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
            elif wanted == OPTIONS:
                value = _options(value)
            elif wanted.startswith("tuple"):
                value = tuple(json.loads(value))
            elif wanted == "str" and not isinstance(value, str):
                return None
        except (ValueError, TypeError, OverflowError):
            if not optional:
                return None
            value = None
        values[field.name] = value
    record: Record = kind(**values)
    return record


def _options(text: object) -> TestOptions:
    """Options of a test; the usual ones where they are damaged: its frames are laid out already."""
    try:
        return options_from_json(str(text or ""))
    except ValueError:
        return NO_OPTIONS


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
        found: int | None = next(
            (
                r.id
                for r in known.values()
                if "recovered" in (getattr(r, "name", ""), getattr(r, "note", ""))
            ),
            None,
        )
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
    everything = _found_in(damaged)
    counts = {table_name(kind): len(records) for kind, records in everything.items() if records}
    if not counts:
        raise NotebookError(f"nothing could be recovered from {damaged.name}; open a backup")
    with TemporaryDirectory(prefix=".recovering ", dir=target.parent) as folder:
        part = Path(folder) / target.name
        _write_sound(part, everything)
        part.rename(target)
    return counts


def _found_in(damaged: Path) -> Everything:
    """What can be read of a file as it is; else, of it with a fresh list of tables."""
    try:
        everything = _everything_in(damaged)
    except NotebookError:
        everything = {}
    if any(everything.values()):
        return everything
    with TemporaryDirectory() as folder:
        copy = grafted(damaged, Path(folder))
        return _everything_in(copy) if copy else {}


def _everything_in(damaged: Path) -> Everything:
    """All that can be read of a file, however it is hurt."""
    try:
        connection = connect(damaged, "ro", "&immutable=1")
        # So SQLite opens files that end before the last of their pages.
        connection.execute("PRAGMA writable_schema = ON")
        connection.text_factory = lambda data: data.decode("utf-8", "replace")
        try:
            with Deadline(connection, _SECONDS):
                # With the list of tables gone no row can be found at all.
                connection.execute("SELECT count(*) FROM sqlite_master").fetchone()
                return {kind: _readable(connection, kind) for kind in RECORDS}
        finally:
            connection.close()
    except sqlite3.Error as error:
        raise NotebookError(
            f"nothing could be recovered from {damaged.name}; open a backup"
        ) from error


def _write_sound(target: Path, everything: Everything) -> None:
    """Write records without those whose values no notebook may hold, as the file itself tells."""
    lost: set[tuple[str, int]] = set()
    for _ in range(_ROUNDS):
        sound = {
            kind: [r for r in records if (table_name(kind), r.id) not in lost]
            for kind, records in everything.items()
        }
        target.unlink(missing_ok=True)
        book = Notebook(target)
        try:
            return write_all(book, _Mending(sound).mended(), "recover")
        except FaultyRecordsError as error:
            lost |= error.rows
        finally:
            book.close()
    raise NotebookError("what could be read contradicts itself; open a backup")


def recovered_words(counts: dict[str, int]) -> str:
    """What was recovered, in words: ``3 strips, 1 batch``."""
    return ", ".join(counted(count, name.replace("_", " ")) for name, count in counts.items())

"""Whether a file holds what a notebook may hold, looked at before any of it is used.

A notebook may come from a friend, a stick or a damaged disk. Its tables must be exactly those of
its format, its rows must refer to rows that are there, and every value must be of its kind and
within reason.
"""

from __future__ import annotations

import re
import sqlite3
from collections.abc import Callable, Iterator
from dataclasses import dataclass
from functools import cache, partial

from vadrin.core.planning.test_options import options_from_json
from vadrin.core.wording import list_text
from vadrin.notebook.columns import (
    ENUMERATIONS,
    LISTS,
    OPTIONS,
    ColumnField,
    columns_of,
    table_name,
)
from vadrin.notebook.records import RECORDS
from vadrin.notebook.records.history import HISTORY

_DECLARED = {"int": "INTEGER", "float": "FLOAT", "str": "TEXT", "bool": "BOOLEAN", "bytes": "BLOB"}
_FORBIDDEN = re.compile(
    r"\b(CHECK|CONFLICT|GENERATED|COLLATE|AS|WITHOUT|STRICT|VIRTUAL|UNIQUE|TRIGGER|WHERE)\b", re.I
)
_INDEX_OF_FEW = re.compile(r"CREATE INDEX ix_(\w+)_words ON \1 \(id\) WHERE \w+ <> ''")
_VERSIONS = "alembic_version"

_POSITIVE = frozenset(
    {
        "exposure_index",
        "time_min",
        "planned_min",
        "metered_seconds",
        "aperture",
        "step",
        "seconds",
        "meter_constant",
        "marked",
        "measured",
        "slowest",
        "fastest",
        "widest",
        "smallest",
        "constant",
        "predicted_min",
        "measured_min",
        "clearing_s",
        "fresh_clearing_s",
        "q10",
        "base_s",
        "black_s",
        "black_high_s",
        "developer_s",
    }
)
"""Columns of numbers that are above 0."""
_MAY_BE_ZERO = frozenset(
    {("finding", "exposure_index"), ("finding", "time_min"), ("process_step", "seconds")}
)
"""A finding says 0 for what it has no answer to, a step for what the test decides."""
_MOST = {"density": 20.0, "log_h": 40.0, "stops": 100.0, "wanted_stops": 100.0, "q10": 1000.0}
"""What no film, light, lens or bath goes beyond, either way."""
_HOTTEST_C = 200.0
_LONGEST_WORD = 40
_LARGEST = 1.7976931348623157e308
"""Beyond it a number is infinite."""
_LEAST = 5e-324
_JSON = frozenset({"report", "basis", "card", "extra", "headers", "columns", "steps", "detail"})


@dataclass(frozen=True)
class Fault:
    """A value that no notebook holds.

    Attributes
    ----------
    table : str
    row : int
    column : str
    """

    table: str
    row: int
    column: str

    @property
    def words(self) -> str:
        """Where it is, for a person."""
        return f"{self.column.replace('_', ' ')} of {self.table.replace('_', ' ')} {self.row}"


def foreign_parts(connection: sqlite3.Connection) -> list[str]:
    """What a notebook of no format has: views, triggers, tables that are computed, and such."""
    found = []
    for kind, name, definition in connection.execute("SELECT type, name, sql FROM sqlite_master"):
        plain = definition is None and str(name).startswith("sqlite_autoindex_")
        plain = plain or (
            kind in ("table", "index")
            and isinstance(definition, str)
            and (
                _INDEX_OF_FEW.fullmatch(definition) is not None
                or not _FORBIDDEN.search(re.sub(r"'[^']*'", "", definition))
            )
        )
        if not plain:
            found.append(f"{kind} {name}")
    return found


def strange_tables(connection: sqlite3.Connection, revision: str) -> list[str]:
    """Tables that are missing, too many, or not as the present format has them."""
    known: dict[str, type] = {table_name(kind): kind for kind in (*RECORDS, *HISTORY)}
    there = {
        str(name)
        for (name,) in connection.execute("SELECT name FROM sqlite_master WHERE type = 'table'")
    }
    found = sorted(there ^ (known.keys() | {_VERSIONS}))
    found += [
        name
        for name, kind in known.items()
        if name in there and _shape(connection, name) != _wanted_shape(columns_of(kind))
    ]
    if _VERSIONS in there:
        kept = connection.execute(f"SELECT version_num FROM {_VERSIONS} LIMIT 2").fetchall()
        if kept != [(revision,)]:
            found.append(_VERSIONS)
    return found


Shape = tuple[dict[str, tuple[str, bool, bool]], set[tuple[str, str, str, str, str]]]


def _shape(connection: sqlite3.Connection, table: str) -> Shape:
    columns = {
        name: (declared, bool(filled), bool(key))
        for _, name, declared, filled, _, key, hidden in connection.execute(
            f"PRAGMA table_xinfo({table})"
        )
        if not hidden
    }
    links = {
        (own, parent, theirs or "id", on_update, on_delete)
        for _, _, parent, own, theirs, on_update, on_delete, _ in connection.execute(
            f"PRAGMA foreign_key_list({table})"
        )
    }
    return columns, links


@cache
def _wanted_shape(fields: tuple[ColumnField, ...]) -> Shape:
    columns, links = {}, set()
    for field in fields:
        declared = _DECLARED.get(field.kind.removesuffix(" | None"), "TEXT")
        columns[field.name] = (declared, not field.optional, field.name == "id")
        if field.parent is not None:
            parent = table_name(field.parent)
            links.add((field.name, parent, "id", "NO ACTION", "NO ACTION"))
    return columns, links


def _wrong(table: str, field: ColumnField) -> str:
    """A condition in SQL that holds for values the column may not have."""
    name, kind = field.name, field.kind.removesuffix(" | None")
    if kind == "int":
        least = 1 if name == "id" or field.parent else -(10**6)
        most = 2**53 if name == "id" or field.parent else 10**9
        wrong = f"typeof({name}) <> 'integer' OR {name} NOT BETWEEN {least} AND {most}"
    elif kind == "bool":
        wrong = f"typeof({name}) <> 'integer' OR {name} NOT IN (0, 1)"
    elif kind == "float":
        # Texts and blobs lie beyond every number, and infinity beyond the largest.
        positive = name in _POSITIVE and (table, name) not in _MAY_BE_ZERO
        lowest = _LEAST if positive else -_most(name)
        wrong = f"{name} NOT BETWEEN {lowest!r} AND {_most(name)!r}"
    elif kind == "bytes":
        wrong = f"typeof({name}) <> 'blob'"
    else:
        wrong = _wrong_text(name, kind)
    return f"({name} IS NOT NULL AND ({wrong}))" if field.optional else f"({wrong})"


def _most(name: str) -> float:
    return _HOTTEST_C if name.endswith("_c") else _MOST.get(name, _LARGEST)


def _wrong_text(name: str, kind: str) -> str:
    wrong = f"typeof({name}) <> 'text'"
    if kind in ENUMERATIONS:
        # A newer program of the same format may know more words: they stay as they are.
        return f"{wrong} OR length({name}) > {_LONGEST_WORD}"
    if name.endswith("_at"):
        return f"{wrong} OR ({name} <> '' AND datetime({name}) IS NULL)"
    if kind in LISTS:
        wanted = "('integer', 'real')" if "float" in kind else "('text')"
        inside = f"SELECT 1 FROM json_each({name}) WHERE type NOT IN {wanted}"
        return (
            f"{wrong} OR ({name} <> '' AND (NOT json_valid({name}) "
            f"OR json_type({name}) <> 'array' OR EXISTS ({inside})))"
        )
    if kind == OPTIONS:
        return f"{wrong} OR ({name} <> '' AND NOT json_valid({name}))"
    if name in _JSON:
        return f"{wrong} OR ({name} <> '' AND NOT json_valid({name}))"
    return wrong


Search = Callable[[sqlite3.Connection], Iterator[Fault]]
"""A search through a part of a notebook, for faults of one sort."""


def searches() -> list[Search]:
    """Everything a notebook is looked through for, in parts that do not need each other."""
    made: list[Search] = []
    for kind in (*RECORDS, *HISTORY):
        table, columns = table_name(kind), columns_of(kind)
        for search in (_out_of_reason, _undecodable, _strange_options):
            made.append(partial(search, table=table, columns=columns))
    return [*made, _broken_links]


def faults(connection: sqlite3.Connection) -> Iterator[Fault]:
    """Every value that no notebook holds, and every reference to a row that is not there."""
    for search in searches():
        yield from search(connection)


def _out_of_reason(
    connection: sqlite3.Connection, table: str, columns: tuple[ColumnField, ...]
) -> Iterator[Fault]:
    """Values of another kind than their column's, or beyond reason."""
    if _is_empty(connection, table):
        return
    any_wrong, cases = _conditions(table, columns)
    # SQLite takes longer to understand the cases than to look through a small table.
    if not connection.execute(
        f"SELECT EXISTS (SELECT 1 FROM {table} WHERE {any_wrong})"
    ).fetchone()[0]:
        return
    question = f"SELECT id, CASE {cases} END FROM {table} WHERE {any_wrong}"
    for row, column in connection.execute(question):
        yield Fault(table, int(row), str(column))


@cache
def _conditions(table: str, columns: tuple[ColumnField, ...]) -> tuple[str, str]:
    """When a row is wrong, and which column it is by."""
    wrong = {c.name: _wrong(table, c) for c in columns}
    cases = " ".join(f"WHEN {words} THEN '{name}'" for name, words in wrong.items())
    return " OR ".join(wrong.values()), cases


def _is_empty(connection: sqlite3.Connection, table: str) -> bool:
    return connection.execute(f"SELECT 1 FROM {table} LIMIT 1").fetchone() is None


def _broken_links(connection: sqlite3.Connection) -> Iterator[Fault]:
    """References to rows that are not there."""
    for table, row, parent, _ in connection.execute("PRAGMA foreign_key_check"):
        yield Fault(str(table), int(row or 0), str(parent))


def _undecodable(
    connection: sqlite3.Connection, table: str, columns: tuple[ColumnField, ...]
) -> Iterator[Fault]:
    """Texts that are no UTF-8; only those of other than one byte a letter are looked into."""
    texts = [
        c.name for c in columns if c.kind in ("str", OPTIONS, *LISTS) or c.kind in ENUMERATIONS
    ]
    if not texts or _is_empty(connection, table):
        return
    odd = " OR ".join(f"({t} <> '' AND length({t}) <> length(CAST({t} AS BLOB)))" for t in texts)
    values = ", ".join(f"CAST({t} AS BLOB)" for t in texts)
    for row, *kept in connection.execute(f"SELECT id, {values} FROM {table} WHERE {odd}"):
        for name, value in zip(texts, kept, strict=True):
            try:
                bytes(value or b"").decode("utf-8")
            except UnicodeDecodeError:
                yield Fault(table, int(row), name)


def _strange_options(
    connection: sqlite3.Connection, table: str, columns: tuple[ColumnField, ...]
) -> Iterator[Fault]:
    """Options of no type of test; each spelling is read once."""
    for name in (c.name for c in columns if c.kind == OPTIONS):
        question = f"SELECT min(id), {name} FROM {table} WHERE {name} <> '' GROUP BY {name}"
        for row, text in connection.execute(question):
            try:
                options_from_json(str(text))
            except (ValueError, RecursionError):
                yield Fault(table, int(row), name)


_SAID = 3


def words_of_faults(found: list[Fault]) -> str:
    """The first few faults in words."""
    some = list_text([f.words for f in found[:_SAID]])
    return f"{some} and others" if len(found) > _SAID else some

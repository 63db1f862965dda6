"""A whole notebook as JSON and back, without loss."""

from __future__ import annotations

import base64
import json
from dataclasses import fields
from pathlib import Path
from typing import Any

from vadrin.core.planning.test_options import TestOptions, options_from_plain, options_to_plain
from vadrin.errors import NotebookError, StorageError
from vadrin.notebook.columns import ENUMERATIONS, OPTIONS, table_name
from vadrin.notebook.inspection import SCHEMA_VERSION
from vadrin.notebook.records import RECORDS, Record
from vadrin.notebook.store import Notebook
from vadrin.notebook.upgrades import upgraded_row, upgraded_table

NOTEBOOK_SCHEMA = "vadrin-notebook/1"
LARGEST = 500_000_000
_KINDS = {table_name(kind): kind for kind in RECORDS}
Everything = dict[type[Record], list[Record]]
_TYPES: dict[str, tuple[type, ...]] = {
    "int": (int,),
    "int | None": (int, type(None)),
    "float": (float, int),
    "float | None": (float, int, type(None)),
    "str": (str,),
    "bool": (bool,),
    "bytes": (str,),
    OPTIONS: (dict,),
    "tuple[float, ...]": (list,),
    "tuple[str, ...]": (list,),
    **dict.fromkeys(ENUMERATIONS, (str,)),
}
_ITEMS: dict[str, tuple[type, ...]] = {"tuple[float, ...]": (float, int), "tuple[str, ...]": (str,)}


def notebook_json(notebook: Notebook) -> str:
    """All records, each under its field names; attachments in base 64."""
    held = {
        "schema": NOTEBOOK_SCHEMA,
        "format": SCHEMA_VERSION,
        "records": {
            table_name(kind): [_plain(r) for r in records]
            for kind, records in notebook.everything().items()
        },
    }
    return json.dumps(held, ensure_ascii=False, allow_nan=False, indent=0) + "\n"


def _plain(record: Record) -> dict[str, Any]:
    return {k: _plain_value(v) for k, v in vars(record).items()}


def _plain_value(value: Any) -> Any:
    if isinstance(value, bytes):
        return base64.b64encode(value).decode("ascii")
    return options_to_plain(value) if isinstance(value, TestOptions) else value


def records_of_json(path: Path) -> Everything:
    """All records of a JSON export.

    Raises
    ------
    NotebookError
        If it is none, names unknown things, or comes from a newer program.
    """
    try:
        if path.stat().st_size > LARGEST:
            raise NotebookError(f"{path.name}: larger than {LARGEST // 1_000_000} MB; refused")
        held = json.loads(path.read_text(encoding="utf-8"), parse_constant=_no_number)
    except OSError as error:
        raise NotebookError(
            f"{path.name}: {(error.strerror or '').lower()}; check the path"
        ) from error
    except (ValueError, RecursionError) as error:
        raise NotebookError(f"{path.name}: not JSON ({str(error)[:60]})") from error
    if not isinstance(held, dict) or held.get("schema") != NOTEBOOK_SCHEMA:
        raise NotebookError(f"{path.name}: not a notebook's JSON export")
    version = held.get("format")
    if not isinstance(version, int) or version > SCHEMA_VERSION:
        raise NotebookError(f"{path.name}: written by a newer Vadrin; update this program")
    tables = held.get("records")
    if not isinstance(tables, dict) or not all(isinstance(t, list) for t in tables.values()):
        raise NotebookError(f"{path.name}: holds no records")
    everything: Everything = {kind: [] for kind in RECORDS}
    for table, rows in tables.items():
        kind = _kind_named(upgraded_table(table, version), path.name)
        fresh = (_upgraded(table, row, version, path.name) for row in rows)
        everything[kind] = [_record(kind, row, path.name) for row in fresh]
    return everything


def _no_number(word: str) -> float:
    """Infinity and its like are words of some programs, not JSON."""
    raise ValueError(f"{word} is no number")


def _upgraded(table: str, row: object, version: int, name: str) -> object:
    try:
        return upgraded_row(table, row, version) if isinstance(row, dict) else row
    except ValueError as error:
        raise NotebookError(f"{name}: {error}") from error


def _kind_named(table: str, name: str) -> type[Any]:
    if table not in _KINDS:
        raise NotebookError(f"{name}: unknown records “{table[:40]}”")
    return _KINDS[table]


def _record(kind: type[Any], row: object, name: str) -> Record:
    known = {f.name: str(f.type) for f in fields(kind)}
    place = f"{name}: a {table_name(kind)}"
    if not isinstance(row, dict) or not set(row) <= set(known):
        raise NotebookError(f"{place} with fields Vadrin does not know")
    values: dict[str, Any] = {}
    for field, value in row.items():
        right = _TYPES[known[field]]
        if not isinstance(value, right) or (isinstance(value, bool) and bool not in right):
            raise NotebookError(f"{place} whose {field} is {str(value)[:30]!r}")
        values[field] = _valued(known[field], value, f"{place} whose {field}")
    if "data" in known:
        try:
            values["data"] = base64.b64decode(values.get("data", ""), validate=True)
        except ValueError as error:
            raise NotebookError(f"{place} whose contents are damaged") from error
    record: Record = kind(**values)
    return record


def _valued(kind: str, value: Any, place: str) -> Any:
    """A value as its field holds it."""
    if isinstance(value, int) and abs(value) > _LARGEST_WHOLE:
        raise NotebookError(f"{place} is a number of {len(str(value))} figures")
    if isinstance(value, str) and not value.isascii() and not _writable(value):
        raise NotebookError(f"{place} is no text that can be written")
    if kind.startswith("float") and isinstance(value, int):
        return float(value)
    if kind in ENUMERATIONS:
        try:
            return ENUMERATIONS[kind](value)
        except ValueError as error:
            raise NotebookError(f"{place} is {value[:30]!r}") from error
    if kind == OPTIONS:
        try:
            return options_from_plain(value)
        except ValueError as error:
            raise NotebookError(f"{place}: {error}") from error
    if kind in _ITEMS:
        if not all(isinstance(v, _ITEMS[kind]) and not isinstance(v, bool) for v in value):
            raise NotebookError(f"{place} is {str(value)[:30]!r}")
        return tuple(float(v) if kind == "tuple[float, ...]" else v for v in value)
    return value


_LARGEST_WHOLE = 2**53
"""Beyond it whole numbers and floating ones part ways."""


def _writable(words: str) -> bool:
    """Whether a text has no half of a letter in it, as JSON may have."""
    try:
        words.encode("utf-8")
    except UnicodeEncodeError:
        return False
    return True


def write_all(notebook: Notebook, everything: Everything, label: str) -> None:
    """Write records with their ids, owners first, as one edit.

    Raises
    ------
    NotebookError
        If they contradict each other; nothing is written.
    """
    try:
        with notebook.change(label):
            for kind in RECORDS:
                notebook.add_all(sorted(everything.get(kind, []), key=lambda r: r.id))
            notebook.refuse_faults()
    except (StorageError, OverflowError) as error:
        raise NotebookError("its records contradict each other; nothing was taken") from error

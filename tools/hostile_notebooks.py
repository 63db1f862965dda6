"""Notebooks nobody should have to open: altered by hand, damaged on a disk, cut short."""

from __future__ import annotations

import hashlib
import random
import shutil
import sqlite3
import time
from pathlib import Path

from tools.hostile_guard import Counts, allow, guarded
from vadrin.app.document.state import answered
from vadrin.app.document.test_loading import load_test
from vadrin.app.shelf.shelf_index import shelf_lines
from vadrin.notebook.columns import columns_of, table_name
from vadrin.notebook.json_file import notebook_json
from vadrin.notebook.records import RECORDS, Test
from vadrin.notebook.recovery import recover
from vadrin.notebook.store import Notebook

DEMO = Path(__file__).parents[1] / "src/vadrin/app/demo/demo.vadrin"
VALUES = (
    None,
    "",
    "x",
    "1,6",
    -1,
    0,
    10**18,
    -(10**18),
    1e308,
    float("inf"),
    -1e-300,
    b"\xff\xfe",
    "\u202e",
    "2026-99-99",
    "<img src='http://x'>",
    "[1,2",
    "{}",
    '["a"]',
    "[1e999]",
    "x" * 10**6,
    2**31,
    1.5,
    "Ａ",
    "a\x00b",
)
SCHEMA = (
    "CREATE TRIGGER t AFTER INSERT ON reading BEGIN DELETE FROM reading; END",
    "CREATE TRIGGER t BEFORE UPDATE ON strip BEGIN SELECT RAISE(IGNORE); END",
    "CREATE VIEW v AS SELECT * FROM reading",
    "CREATE VIRTUAL TABLE f USING fts5(words)",
    "CREATE TABLE extra (id INTEGER PRIMARY KEY)",
    "ALTER TABLE test ADD COLUMN odd TEXT",
    "ALTER TABLE strip DROP COLUMN note",
    "ALTER TABLE reading ADD COLUMN g REAL AS (density * 2)",
    "DROP TABLE finding",
    "DROP TABLE alembic_version",
    "UPDATE alembic_version SET version_num = '0002'",
    "INSERT INTO alembic_version VALUES ('0004')",
    "PRAGMA user_version = 3",
    "PRAGMA user_version = 0",
    "PRAGMA user_version = -7",
    "PRAGMA journal_mode = WAL",
    "PRAGMA encoding = 'UTF-16'",
    "CREATE INDEX odd ON reading (abs(density))",
    "CREATE UNIQUE INDEX odd ON reading (density, id)",
    "UPDATE test SET like_id = id",
    "UPDATE strip SET test_id = 10000",
    "UPDATE frame SET strip_id = (SELECT max(id) FROM strip)",
    "UPDATE attachment SET data = zeroblob(20000000)",
    "UPDATE note SET words = CAST(zeroblob(20000000) AS TEXT)",
    "UPDATE test SET note = CAST(x'ff61ff' AS TEXT)",
    "DELETE FROM stock",
    "INSERT INTO frame SELECT * FROM (WITH RECURSIVE c(i) AS (SELECT 100000 UNION ALL SELECT "
    "i + 1 FROM c WHERE i < 140000) SELECT i), (SELECT * FROM frame LIMIT 0)",
    "UPDATE finding SET report = '[' || report, basis = '7', card = 'null'",
    "UPDATE column_matching SET headers = 'x', columns = '{}'",
    "REPLACE INTO sqlite_master SELECT * FROM sqlite_master WHERE name = 'reading'",
    "UPDATE sqlite_master SET rootpage = 2 WHERE name = 'reading'",
    "UPDATE sqlite_master SET rootpage = 1 WHERE name = 'strip'",
    "UPDATE sqlite_master SET sql = 'CREATE TABLE reading (id)' WHERE name = 'reading'",
    "UPDATE sqlite_master SET sql = replace(sql, 'NOT NULL', 'NOT NULL ON CONFLICT IGNORE')",
)


def everything_done(path: Path) -> int:
    """Open a notebook, look at all of it as the window would, write in it; counts its records."""
    book = Notebook(path)
    try:
        shelf_lines(book)
        for test in book.all(Test):
            loaded = load_test(book, test.id)
            if loaded is not None:
                answered(loaded)
        notebook_json(book)
        with book.change("a word"):
            for test in book.all(Test)[:1]:
                book.put(test.__class__(**{**vars(test), "note": "looked at"}))
        book.undo()
        return sum(len(rows) for rows in book.everything().values())
    finally:
        book.close()


_WHOLE: dict[str, int] = {}
_LEAST_S = 30.0


def _digest(path: Path) -> str:
    # Not all of it at once: a hostile file may be larger than the memory a case is given.
    with path.open("rb") as file:
        return hashlib.file_digest(file, "sha256").hexdigest()


def _tried(path: Path, counts: Counts, case: str, damaged: bool) -> None:
    if "all" not in _WHOLE:
        untouched = path.with_name("untouched.vadrin")
        shutil.copy(DEMO, untouched)
        begun = time.process_time()
        _WHOLE["all"] = everything_done(untouched)
        # What was answered before in this run is not worked out again: this is no measure.
        allow(max(_LEAST_S, 3 * (time.process_time() - begun)))
    before = _digest(path)
    opened = guarded(lambda: everything_done(path), counts, case)
    if opened is not None:
        counts.add("opened and worked with")
        if damaged and opened != _WHOLE["all"]:
            counts.add("opened with fewer records than there were", case)
        return
    if _digest(path) != before:
        counts.add("FAULT original changed on refusal", case)
    left = [
        p.name
        for p in path.parent.iterdir()
        if p.name.startswith(f".{path.name}") or p.name.startswith(".recovering")
    ]
    if left:
        counts.add("FAULT something left beside it", f"{case}: {left}")
    target = path.with_name(f"{path.stem} recovered.vadrin")
    found = guarded(lambda: recover(path, target), counts, f"{case} recovering")
    if isinstance(found, dict):
        counts.add("recovered from", count=1)
        counts.add("records recovered", count=sum(found.values()))
        counts.add("records there were", count=_WHOLE["all"])
        if guarded(lambda: everything_done(target), counts, f"{case} recovered") is None:
            counts.add("FAULT what was recovered does not open", case)
    elif target.exists():
        counts.add("FAULT something left at the target", case)


def _cleared(path: Path) -> None:
    for each in path.parent.iterdir():
        if each.is_dir():
            shutil.rmtree(each)
        else:
            each.unlink()


def hostile_notebook(seed: int, folder: Path, counts: Counts) -> None:
    """The demo notebook with something in it that no Vadrin wrote."""
    rng = random.Random(seed)
    path = folder / "hostile.vadrin"
    shutil.copy(DEMO, path)
    connection = sqlite3.connect(path)
    connection.execute("PRAGMA writable_schema = ON")
    try:
        if seed < len(SCHEMA):
            case = f"notebook {seed} {SCHEMA[seed][:60]}"
            connection.execute(SCHEMA[seed])
        else:
            kind = rng.choice(RECORDS)
            column = rng.choice(columns_of(kind))
            value = rng.choice(VALUES)
            case = f"notebook {seed} {table_name(kind)}.{column.name} = {value!r:.30}"
            few = "" if rng.random() < 0.3 else " WHERE id = (SELECT max(id) FROM {t})"
            statement = f"UPDATE {{t}} SET {column.name} = ?{few}".format(t=table_name(kind))
            connection.execute(statement, (value,))
        connection.commit()
    except sqlite3.Error as error:
        counts.add("could not be made", f"{case} ({error})")
        connection.rollback()
    finally:
        connection.close()
    _tried(path, counts, case, damaged=False)
    _cleared(path)


def damaged_notebook(seed: int, folder: Path, counts: Counts) -> None:
    """The demo notebook with bytes changed, or its end lost."""
    rng = random.Random(seed)
    path = folder / "damaged.vadrin"
    data = bytearray(DEMO.read_bytes())
    if seed % 2:
        data = data[: rng.randrange(len(data))]
        case = f"damaged {seed} cut at {len(data)}"
    else:
        many = rng.choice((1, 3, 20, 200))
        for _ in range(many):
            data[rng.randrange(len(data))] = rng.randrange(256)
        case = f"damaged {seed} {many} bytes changed"
    path.write_bytes(bytes(data))
    _tried(path, counts, case, damaged=True)
    _cleared(path)

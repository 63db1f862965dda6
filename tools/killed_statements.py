"""Kills the program at every statement it gives to SQLite, and before and after every call that
puts a file in another's place, takes one away or writes it to the disk; and opens what is left."""

from __future__ import annotations

import os
import random
import shutil
import signal
import sqlite3
import tempfile
from collections.abc import Callable
from functools import cache, partial
from pathlib import Path

from tools.hostile_guard import Counts
from tools.hostile_notebooks import DEMO
from tools.hostile_tables import honest
from vadrin.app.library.notebook_exchange import copy_of_backup
from vadrin.app.read.import_readings import import_table
from vadrin.errors import NotebookError
from vadrin.notebook import file as notebook_file
from vadrin.notebook.inspection import SCHEMA_VERSION
from vadrin.notebook.merge import everything_of, merge
from vadrin.notebook.records import Stock
from vadrin.notebook.store import Notebook

RELEASED = Path(__file__).parents[1] / "tests/files/released"


def _create(path: Path) -> None:
    # Else the child would have the empty notebook its parent made.
    notebook_file._empty_notebook.cache_clear()
    Notebook(path).close()


def _import(path: Path) -> None:
    book = Notebook(path)
    import_table(book, honest(random.Random(1)))
    book.close()


_all_of_the_demo = cache(partial(everything_of, DEMO))


def _merge(path: Path) -> None:
    book = Notebook(path)
    for _ in merge(book, _all_of_the_demo(), "take in", "demo"):
        pass
    book.close()


def _undo(path: Path) -> None:
    book = Notebook(path)
    with book.change("many"):
        book.add_all([Stock(name=f"stock {i}") for i in range(5)])
    book.undo()
    book.close()


def _restore(path: Path) -> None:
    copy = copy_of_backup(path, DEMO)
    Notebook(copy).close()
    copy.replace(path)


def _from_empty(path: Path) -> None:
    Notebook(path).close()


def _from_format(version: int, path: Path) -> None:
    shutil.copy(RELEASED / f"schema-{version}.vadrin", path)


_FILE_CALLS = ("replace", "rename", "unlink", "remove", "link", "fsync", "truncate")
"""Of `os`, by which files come to and leave their places."""
_MOMENTS = ("before a call", "after a call")
Act = tuple[Callable[[Path], None] | None, Callable[[Path], None]]
ACTS: dict[str, Act] = {
    "create": (None, _create),
    **{f"migrate from {v}": (partial(_from_format, v), _create) for v in range(1, SCHEMA_VERSION)},
    "import": (_from_empty, _import),
    "merge": (_from_empty, _merge),
    "undo": (_from_empty, _undo),
    "restore": (_from_empty, _restore),
}


def _run(act: Callable[[Path], None], path: Path, kill_at: int, files: bool) -> int:
    """Do an act in a child that dies at a statement, or a call of the file system; gives how many
    it got to, 0 if killed."""
    reading, writing = os.pipe()
    child = os.fork()
    if child == 0:
        _count_statements(kill_at, writing, files)
        try:
            act(path)
        finally:
            os._exit(0)
    os.close(writing)
    _, status = os.waitpid(child, 0)
    with os.fdopen(reading, "rb") as told:
        count = len(told.read())
    return 0 if os.WIFSIGNALED(status) else count


def _count_statements(kill_at: int, told: int, files: bool) -> None:
    plain, seen = sqlite3.connect, [0]

    def at(statement: str) -> None:
        if files and statement not in _MOMENTS:
            return
        seen[0] += 1
        os.write(told, b".")
        if seen[0] == kill_at:
            os.kill(os.getpid(), signal.SIGKILL)

    def connect(*arguments: object, **options: object) -> sqlite3.Connection:
        made = plain(*arguments, **options)
        made.set_trace_callback(at)
        return made

    sqlite3.connect = connect  # type: ignore[assignment]
    sqlite3.dbapi2.connect = connect  # type: ignore[attr-defined]
    for name in _FILE_CALLS:
        setattr(os, name, _counted(getattr(os, name), at))


def _counted(call: Callable[..., object], at: Callable[[str], None]) -> Callable[..., object]:
    """A call of the file system, with a moment to die at before it and one after."""

    def counted(*arguments: object, **options: object) -> object:
        at(_MOMENTS[0])
        made = call(*arguments, **options)
        at(_MOMENTS[1])
        return made

    return counted


def _held(path: Path) -> str:
    """All a notebook holds, opened as after a kill; refused ones say so."""
    try:
        book = Notebook(path)
    except NotebookError as error:
        return f"refused: {error}"
    try:
        plain = {
            k.__name__: [
                {
                    n: v
                    for n, v in vars(r).items()
                    if n not in ("uid", "created_at", "read_at", "exposed_at")
                }
                for r in rows
            ]
            for k, rows in book.everything().items()
            if rows
        }
        return repr(plain)
    finally:
        book.close()


def killed_at_every_statement(name: str, every: int, files: bool = False) -> Counts:
    """Counts over kills at every so many statements of one act; of the calls of the file system
    alone, where only `files` are asked for."""
    before, act = ACTS[name]
    counts = Counts()
    with tempfile.TemporaryDirectory() as folder:
        ready = Path(folder) / "ready" / "notebook.vadrin"
        ready.parent.mkdir()
        if before is not None:
            before(ready)
        start = _held(_fresh(ready, Path(folder)))
        # Once in this process: a child then has no packages to load before it dies.
        act(_fresh(ready, Path(folder)))
        # Fresh again: looking at it has migrated it, and what is migrated takes fewer statements.
        whole = _fresh(ready, Path(folder))
        statements = _run(act, whole, 0, files)
        end = _held(whole)
        for kill_at in range(1, statements + 1, every):
            path = _fresh(ready, Path(folder))
            _run(act, path, kill_at, files)
            counts.add("killed")
            left = _held(path)
            if left.startswith("refused"):
                counts.add("FAULT no longer opens", f"{name} at {kill_at}: {left[:120]}")
            elif left == start:
                counts.add("as it was before")
            elif left == end:
                counts.add("as it is after")
            elif name == "undo":
                counts.add("between the two edits")
            else:
                counts.add("FAULT neither before nor after", f"{name} at {kill_at}")
            scraps = [p.name for p in path.parent.glob(f".{path.name}*")]
            if scraps:
                counts.add("FAULT something left after the next start", f"{kill_at}: {scraps}")
    return counts


def _fresh(ready: Path, folder: Path) -> Path:
    """The notebook as it is before the act, in a clean folder."""
    trial = folder / "trial"
    shutil.rmtree(trial, ignore_errors=True)
    shutil.copytree(ready.parent, trial)
    return trial / ready.name

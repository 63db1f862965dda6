"""Looking at a notebook before anything in it is used: is it one, is it whole, of which format."""

from __future__ import annotations

import sqlite3
from concurrent.futures import ThreadPoolExecutor, wait
from itertools import islice
from pathlib import Path

from vadrin.core.wording import list_text
from vadrin.errors import NotebookError
from vadrin.notebook.backups import backups_of
from vadrin.notebook.connection import Deadline, connect
from vadrin.notebook.examination import (
    Fault,
    Search,
    faults,
    foreign_parts,
    searches,
    strange_tables,
    words_of_faults,
)
from vadrin.notebook.journal import has_journal, keeps_log, stale_journal

APPLICATION_ID = 0x56414452
"""Marks the SQLite file as a notebook (the letters VADR)."""

SCHEMA_VERSION = 17
"""Version of the newest migration, kept in `PRAGMA user_version` too."""


_MOST_FAULTS = 4
_LOOKS_AT_ONCE = 2
_LARGE = 8_000_000
"""Bytes from which a notebook is looked through in parts at once."""
_SECONDS_TO_LOOK = 4.0
"""For the marks and tables of a file; an honest one takes milliseconds."""
_SECONDS_TO_READ = 120.0
"""For all its rows; a notebook of ten thousand tests takes a few."""


def inspect(path: Path) -> int:
    """Look at a notebook without changing it, but for undoing an edit that was cut off.

    Returns
    -------
    int
        Its schema version; 0 where there is no file yet.

    Raises
    ------
    NotebookError
        If it is damaged, is no notebook, or comes from a newer program.
    """
    if not path.exists():
        return 0
    _look_at_file(path)
    try:
        # A journal means a program was killed while writing: SQLite must be let to undo the
        # half-written edit, which a read-only connection may not. So it is with a log of writes.
        mode = "rw" if has_journal(path) or keeps_log(path) else "ro"
        connection = connect(path, mode)
        try:
            return _examined(path, connection)
        finally:
            connection.close()
    except (sqlite3.Error, ValueError, OverflowError) as error:
        raise damage(path, str(error)) from error


def damage(path: Path, why: str) -> NotebookError:
    """The error for a damaged notebook, with what can be done."""
    why = " ".join(why.split())
    return NotebookError(
        f"{path.name} is damaged or is no notebook ({why}). It is not changed; "
        f"open a backup, or: vadrin recover {path.name} COPY.vadrin",
        damaged=True,
    )


def _look_at_file(path: Path) -> None:
    """Refuse what SQLite should not even be shown."""
    if not path.is_file():
        raise NotebookError(f"{path.name} is not a file. It is not changed.")
    with path.open("rb") as file:
        start = file.read(16)
    if not start:
        raise NotebookError(
            f"{path.name} is empty: 0 bytes, so nothing can be recovered from it. It was left "
            "untouched; open a backup, or choose another name for a new notebook.",
            damaged=bool(backups_of(path)),
        )
    if start != b"SQLite format 3\0":
        raise damage(path, "file is not a database")
    stale = stale_journal(path)
    if stale:
        raise NotebookError(
            f"{stale.name} belongs to another state of {path.name}. Using both would damage the "
            f"notebook, so it was not opened. Nothing was touched. Move {stale.name} to another "
            f"folder and open {path.name} again."
        )


def _examined(path: Path, connection: sqlite3.Connection) -> int:
    """Look at an open notebook: its marks, its tables, then its rows; gives its version."""
    with Deadline(connection, _SECONDS_TO_LOOK):
        application = connection.execute("PRAGMA application_id").fetchone()[0]
        version = int(connection.execute("PRAGMA user_version").fetchone()[0])
        if application != APPLICATION_ID:
            raise NotebookError(f"{path.name} is not a Vadrin notebook. It is not changed.")
        if version > SCHEMA_VERSION:
            raise NotebookError(
                f"{path.name} was written by a newer Vadrin (format {version}; this one knows "
                f"{SCHEMA_VERSION}). It is not changed; update this program to open it."
            )
        if version < 1:
            raise damage(path, f"format {version}")
        strange = foreign_parts(connection)
        if not strange and version == SCHEMA_VERSION:
            strange = strange_tables(connection, f"{SCHEMA_VERSION:04d}")
    newest = version == SCHEMA_VERSION
    if strange:
        raise damage(path, f"no notebook has its {list_text(strange[:3])}")
    with Deadline(connection, _SECONDS_TO_READ):
        if path.stat().st_size < _LARGE:
            _refuse_unhealthy(path, connection)
            _refuse(path, list(islice(faults(connection), _MOST_FAULTS)) if newest else [])
        else:
            _look_everywhere_at_once(path, connection, searches() if newest else [])
    return version


def _refuse_unhealthy(path: Path, connection: sqlite3.Connection) -> None:
    health = connection.execute("PRAGMA quick_check(1)").fetchone()[0]
    if health != "ok":
        raise damage(path, str(health))


def _look_everywhere_at_once(
    path: Path, connection: sqlite3.Connection, others: list[Search]
) -> None:
    """Look through a large notebook on every processor: SQLite looks without Python."""
    with ThreadPoolExecutor(_LOOKS_AT_ONCE) as pool:
        found = [pool.submit(_looked, path, look) for look in others]
        try:
            _refuse_unhealthy(path, connection)
        except NotebookError:
            pool.shutdown(cancel_futures=True)
            raise
        _refuse(path, [fault for part in found for fault in part.result()])


def _looked(path: Path, look: Search) -> list[Fault]:
    """Look at a part of a notebook, through a connection of its own."""
    connection = connect(path, "ro")
    try:
        with Deadline(connection, _SECONDS_TO_READ):
            return list(islice(look(connection), _MOST_FAULTS))
    finally:
        connection.close()


def _refuse(path: Path, found: list[Fault]) -> None:
    if found:
        raise damage(path, f"it can't hold the {words_of_faults(found[:_MOST_FAULTS])}")


class Inspection:
    """A look at a notebook that goes on beside other work; the answer holds while nobody writes.

    Parameters
    ----------
    path : Path
    """

    def __init__(self, path: Path) -> None:
        self._path, self._seen = path, _state_of(path)
        pool = ThreadPoolExecutor(1, "vadrin-inspection")
        self._version = pool.submit(inspect, path)
        pool.shutdown(wait=False)

    @classmethod
    def takes_long(cls, path: Path) -> bool:
        """Whether a notebook is so large that nobody should have to wait for it."""
        return path.is_file() and path.stat().st_size >= _LARGE

    def over(self, within_s: float) -> bool:
        """Whether the look is over; waits so long for it."""
        return bool(wait([self._version], timeout=within_s).done)

    def version(self) -> int:
        """As `inspect`; looks again where the file has changed since this one began."""
        found = self._version.result()
        return found if _state_of(self._path) == self._seen else inspect(self._path)


def _state_of(path: Path) -> tuple[int, ...]:
    try:
        there = path.stat()
    except OSError:
        return ()
    return there.st_dev, there.st_ino, there.st_size, there.st_mtime_ns, there.st_ctime_ns

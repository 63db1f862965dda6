"""Opening, creating and migrating the notebook file."""

from __future__ import annotations

import os
import re
import shutil
import sqlite3
from contextlib import suppress
from functools import lru_cache
from pathlib import Path
from tempfile import TemporaryDirectory

from vadrin.errors import NotebookError, NotebookHeldError
from vadrin.notebook.backups import back_up_before_migration, copy_whole, folder_of
from vadrin.notebook.inspection import APPLICATION_ID, SCHEMA_VERSION, Inspection, damage, inspect
from vadrin.notebook.journal import journal_of
from vadrin.notebook.lock import WriterLock

_PAGES_HELD = 8192
"""Changed pages of four kilobytes that an edit keeps in memory until it is done."""
_NOT_WHAT_IT_SAYS = (ValueError, TypeError, KeyError, AttributeError)
"""What a migration raises over rows that are none of their format."""
_OF_THE_DISK = (
    sqlite3.SQLITE_FULL,
    sqlite3.SQLITE_IOERR,
    sqlite3.SQLITE_READONLY,
    sqlite3.SQLITE_CANTOPEN,
    sqlite3.SQLITE_NOMEM,
)
"""Codes of what the disk or the machine refuses, whatever the notebook holds."""


def migrate(path: Path) -> None:
    """Bring a notebook, or an empty file, to the newest schema."""
    # Alembic is slow to import and a notebook is seldom old.
    from alembic import command
    from alembic.config import Config

    config = Config()
    config.set_main_option("script_location", str(Path(__file__).parent / "migrations"))
    config.attributes["notebook"] = path
    command.upgrade(config, "head")
    connection = sqlite3.connect(path)
    with connection:
        connection.execute(f"PRAGMA application_id = {APPLICATION_ID}")
        connection.execute(f"PRAGMA user_version = {SCHEMA_VERSION}")
    connection.close()


def prepare(path: Path, inspection: Inspection | None = None) -> int:
    """Make sure a path that may be written holds a notebook of the newest schema.

    An older notebook is copied to its backups before it is migrated. Neither a new nor a
    migrated one is ever seen half made.

    Returns
    -------
    int
        The schema version it had; 0 where there was none.

    Raises
    ------
    NotebookError
        As `inspect`, or if the folder cannot be written.
    """
    version = inspection.version() if inspection else inspect(path)
    _sweep(path)
    try:
        if version and version < SCHEMA_VERSION:
            back_up_before_migration(path, version)
        if version < SCHEMA_VERSION:
            _made_whole(path, version)
    except (OSError, sqlite3.OperationalError) as error:
        raise NotebookError(
            f"{path.name} cannot be written ({error}). Nothing was changed; free the disk, or "
            "choose a folder you may write to."
        ) from error
    return version


def _sweep(path: Path) -> None:
    """Remove what a program that was killed while opening left half made."""
    target = path.resolve()
    half = [p for p in folder_of(path).glob("*.part") if re.fullmatch(r"\d{4,9}.*", p.name)]
    making = target.with_name(f".{target.name}.making")
    for scrap in (making, journal_of(making), *half):
        with suppress(OSError):
            scrap.unlink()


@lru_cache(maxsize=1)
def _empty_notebook() -> bytes:
    """A notebook without a record; every migration runs for it, once in a run of the program."""
    with TemporaryDirectory() as folder:
        path = Path(folder) / "empty.vadrin"
        migrate(path)
        inspect(path)
        return path.read_bytes()


def _upgrade(part: Path, named: Path) -> None:
    """Migrate the copy of a notebook; what its own contents make impossible is its damage.

    Raises
    ------
    NotebookError
        If it is not what its format says.
    sqlite3.OperationalError
        If the disk does not take it.
    """
    from alembic.util import CommandError
    from sqlalchemy.exc import SQLAlchemyError

    try:
        migrate(part)
    except (CommandError, SQLAlchemyError, *_NOT_WHAT_IT_SAYS) as error:
        origin = getattr(error, "orig", None)
        if isinstance(origin, sqlite3.Error) and origin.sqlite_errorcode & 0xFF in _OF_THE_DISK:
            raise sqlite3.OperationalError(str(origin)) from error
        raise damage(named, str(origin or error).splitlines()[0]) from error


def _made_whole(path: Path, version: int) -> None:
    """Make or migrate a notebook beside its place, marks and all, and put it there in one step.

    Whatever ends the program on the way, there is the notebook as it was, or none.
    """
    target = path.resolve()
    part = target.with_name(f".{target.name}.making")
    scraps = part, journal_of(part)
    for scrap in scraps:
        scrap.unlink(missing_ok=True)
    try:
        if version:
            copy_whole(target, part)
            shutil.copymode(target, part)
            _upgrade(part, target)
            inspect(part)
        else:
            part.write_bytes(_empty_notebook())
        with part.open("rb") as file:
            os.fsync(file.fileno())
        part.replace(target)
    finally:
        for scrap in scraps:
            scrap.unlink(missing_ok=True)


def open_rights(path: Path) -> tuple[WriterLock | None, str]:
    """Take the right to write a notebook, or say in words why it can only be read.

    Returns
    -------
    WriterLock or None
        None where it opens read-only.
    str
        The reason; empty where it may be written.

    Raises
    ------
    NotebookError
        If there is no notebook yet and none can be made.
    """
    try:
        if path.exists() and not os.access(path, os.W_OK):
            raise PermissionError(13, "you may not write to the file")
        return WriterLock(path), ""
    except NotebookHeldError as error:
        return None, f"{error}. You can read here; close it there to write here"
    except OSError as error:
        reason = (error.strerror or str(error)).lower()
        if not path.exists():
            raise NotebookError(
                f"{path} cannot be made ({reason}). Choose a folder you may write to."
            ) from error
        return None, f"{reason}. Copy the notebook to a folder you may write to"


def place_of(path: Path) -> tuple[int, int] | None:
    """Device and inode of a file; None where there is none."""
    try:
        found = path.stat()
    except OSError:
        return None
    return found.st_dev, found.st_ino


def set_up(connection: sqlite3.Connection) -> None:
    """Make a new connection hold to links between tables, and write through to the disk."""
    connection.execute("PRAGMA foreign_keys = ON")
    # Another program may have left a log of writes; copies of the file would lack what is in it.
    with suppress(sqlite3.OperationalError):  # it still has the file open
        connection.execute("PRAGMA journal_mode = DELETE")
    connection.execute("PRAGMA synchronous = FULL")
    # A long edit that outgrows SQLite's own two megabytes would wait for the disk at every page.
    connection.execute(f"PRAGMA cache_spill = {_PAGES_HELD}")

"""Opening, checking, creating and migrating the notebook file."""

from __future__ import annotations

import os
import shutil
import sqlite3
from pathlib import Path
from urllib.parse import quote

from vadrin.errors import NotebookError, NotebookHeldError
from vadrin.notebook.backups import back_up, back_up_before_migration
from vadrin.notebook.lock import WriterLock

APPLICATION_ID = 0x56414452
"""Marks the SQLite file as a notebook (the letters VADR)."""

SCHEMA_VERSION = 5
"""Version of the newest migration, kept in `PRAGMA user_version` too."""


def inspect(path: Path) -> int:
    """Look at a notebook without changing it, but for undoing an edit that was cut off.

    Returns
    -------
    int
        Its schema version; 0 where there is no file yet, or an empty one.

    Raises
    ------
    NotebookError
        If it is damaged, is no notebook, or comes from a newer program.
    """
    if not path.exists() or path.stat().st_size == 0:
        return 0
    try:
        # A journal means a program was killed while writing: SQLite must be let to undo the
        # half-written edit, which a read-only connection may not.
        mode = "rw" if path.with_name(path.name + "-journal").exists() else "ro"
        connection = sqlite3.connect(f"file:{quote(str(path))}?mode={mode}", uri=True)
        try:
            application = connection.execute("PRAGMA application_id").fetchone()[0]
            version = connection.execute("PRAGMA user_version").fetchone()[0]
            health = connection.execute("PRAGMA quick_check(1)").fetchone()[0]
        finally:
            connection.close()
    except sqlite3.DatabaseError as error:
        raise NotebookError(
            f"{path.name} is damaged or is no notebook ({error}). It was left untouched; "
            f"open a backup, or: vadrin recover {path.name} COPY.vadrin",
            damaged=True,
        ) from error
    if application != APPLICATION_ID:
        raise NotebookError(f"{path.name} is not a Vadrin notebook. It was left untouched.")
    if health != "ok":
        raise NotebookError(
            f"{path.name} is damaged ({health}). It was left untouched; open a backup, or: "
            f"vadrin recover {path.name} COPY.vadrin",
            damaged=True,
        )
    if version > SCHEMA_VERSION:
        raise NotebookError(
            f"{path.name} was written by a newer Vadrin (format {version}; this one knows "
            f"{SCHEMA_VERSION}). It was left untouched; update this program to open it."
        )
    return int(version)


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


def prepare(path: Path) -> None:
    """Make sure a path that may be written holds a notebook of the newest schema.

    An older notebook is copied to its backups before it is migrated. Neither a new nor a
    migrated one is ever seen half made.

    Raises
    ------
    NotebookError
        As `inspect`, or if the folder cannot be written.
    """
    version = inspect(path)
    try:
        if version == SCHEMA_VERSION:
            back_up(path)
            return
        if version:
            back_up_before_migration(path, version)
        _made_whole(path, version)
    except (OSError, sqlite3.OperationalError) as error:
        raise NotebookError(
            f"{path.name} cannot be written ({error}). Nothing was changed; free the disk, or "
            "choose a folder you may write to."
        ) from error


def _made_whole(path: Path, version: int) -> None:
    """Make or migrate a notebook beside its place, marks and all, and put it there in one step.

    Whatever ends the program on the way, there is the notebook as it was, or none.
    """
    target = path.resolve()
    part = target.with_name(f".{target.name}.making")
    scraps = part, part.with_name(part.name + "-journal")
    for scrap in scraps:
        scrap.unlink(missing_ok=True)
    try:
        if version:
            shutil.copyfile(target, part)
            shutil.copymode(target, part)
        migrate(part)
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
        if not path.exists() or path.stat().st_size == 0:
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
    connection.execute("PRAGMA synchronous = FULL")

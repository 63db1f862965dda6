"""Copies of the notebook kept beside it: one a day of work, numbered, the oldest let go.

They are numbered, not dated, so that a clock set back can neither hide nor overwrite one.
"""

from __future__ import annotations

import os
import re
import shutil
import sqlite3
from pathlib import Path

from vadrin.notebook.connection import connect
from vadrin.notebook.journal import has_journal, keeps_log

KEPT = 8
_OF_OLDER = 8
"""Of the older copies every eighth stays, eight of them: a bad week does not push out the good."""
_MIGRATION = "before-format"
_OURS = re.compile(rf"(\d{{4,9}})( {_MIGRATION}-\d+)?\.vadrin")
"""Names of copies; nothing else in the folder is counted, or ever removed."""


def folder_of(notebook: Path) -> Path:
    """Where the backups of a notebook lie."""
    return notebook.with_name(f"{notebook.stem} backups")


def _number(path: Path) -> int:
    found = _OURS.fullmatch(path.name)
    return int(found[1]) if found else 0


def backups_of(notebook: Path) -> list[Path]:
    """All backups of a notebook, the newest first."""
    found = [p for p in folder_of(notebook).glob("*.vadrin") if _number(p) and p.is_file()]
    return sorted(found, key=_number, reverse=True)


def _change_count(path: Path) -> bytes:
    """SQLite's own count of changes, which every commit raises."""
    with path.open("rb") as file:
        return file.read(100)[24:28]


def _readings_in(copy: Path) -> int:
    """How many readings a copy holds; fewer than none where it can't be read."""
    try:
        connection = connect(copy, "ro")
        try:
            return int(connection.execute("SELECT count(*) FROM reading").fetchone()[0])
        finally:
            connection.close()
    except sqlite3.Error:
        return -1


def _let_go_of_old(notebook: Path) -> None:
    """Remove the oldest copies, but never those before a migration, nor the fullest one."""
    plain = [p for p in backups_of(notebook) if _MIGRATION not in p.name]
    older = plain[KEPT:]
    spared = [p for p in older if _number(p) % _OF_OLDER == 0][:_OF_OLDER]
    gone = [p for p in older if p not in spared]
    if not gone:
        return
    most = max((_readings_in(p) for p in plain if p not in gone), default=0)
    for old in gone:
        if _readings_in(old) <= most:
            old.unlink(missing_ok=True)


def back_up(notebook: Path, why: str = "") -> Path | None:
    """Copy a notebook that nobody is writing to, unless the newest copy has all of it.

    Parameters
    ----------
    notebook : Path
    why : str
        Goes into the copy's name; copies with a reason are never let go.

    Returns
    -------
    Path or None
        The copy; None if none was needed.

    Raises
    ------
    OSError
        If it cannot be written; a half-written copy is removed.
    """
    kept = backups_of(notebook)
    logged = keeps_log(notebook)
    if kept and not why and not logged and _change_count(kept[0]) == _change_count(notebook):
        return None
    folder = folder_of(notebook)
    folder.mkdir(exist_ok=True)
    number = _number(kept[0]) + 1 if kept else 1
    target = folder / f"{number:04d}{f' {why}' if why else ''}.vadrin"
    half = target.with_suffix(".part")
    try:
        copy_whole(notebook, half)
        half.rename(target)
    finally:
        half.unlink(missing_ok=True)
    _let_go_of_old(notebook)
    return target


def copy_whole(source: Path, target: Path) -> None:
    """Copy a notebook with all that was ever written to it.

    A plain copy keeps the count of changes; a journal or a log means SQLite must make it.

    Raises
    ------
    OSError
    """
    if not has_journal(source) and not keeps_log(source):
        shutil.copyfile(source, target)
        return
    reader = connect(source, "rw" if os.access(source, os.W_OK) else "ro")
    writer = sqlite3.connect(target)
    try:
        reader.backup(writer)
        # Else the copy would keep a log of its own beside it.
        writer.execute("PRAGMA journal_mode = DELETE")
    except sqlite3.Error as error:
        raise OSError(str(error)) from error
    finally:
        writer.close()
        reader.close()


def back_up_before_migration(notebook: Path, version: int) -> Path | None:
    """Keep an older notebook as it was; such copies are never let go."""
    return back_up(notebook, f"{_MIGRATION}-{version + 1}")

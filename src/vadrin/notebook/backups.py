"""Copies of the notebook kept beside it: one a day of work, numbered, the oldest let go.

They are numbered, not dated, so that a clock set back can neither hide nor overwrite one.
"""

from __future__ import annotations

import re
import shutil
import sqlite3
from pathlib import Path
from urllib.parse import quote

KEPT = 8
_MIGRATION = "before-format"


def folder_of(notebook: Path) -> Path:
    """Where the backups of a notebook lie."""
    return notebook.with_name(f"{notebook.stem} backups")


def _number(path: Path) -> int:
    found = re.match(r"(\d+)", path.name)
    return int(found[1]) if found else 0


def backups_of(notebook: Path) -> list[Path]:
    """All backups of a notebook, the newest first."""
    found = [p for p in folder_of(notebook).glob("*.vadrin") if _number(p)]
    return sorted(found, key=_number, reverse=True)


def _change_count(path: Path) -> bytes:
    """SQLite's own count of changes, which every commit raises."""
    with path.open("rb") as file:
        return file.read(100)[24:28]


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
    if kept and not why and _change_count(kept[0]) == _change_count(notebook):
        return None
    folder = folder_of(notebook)
    folder.mkdir(exist_ok=True)
    number = _number(kept[0]) + 1 if kept else 1
    target = folder / f"{number:04d}{f' {why}' if why else ''}.vadrin"
    half = target.with_suffix(".part")
    try:
        _copy(notebook, half)
        half.rename(target)
    finally:
        half.unlink(missing_ok=True)
    plain = [p for p in backups_of(notebook) if _MIGRATION not in p.name]
    for old in plain[KEPT:]:
        old.unlink(missing_ok=True)
    return target


def _copy(source: Path, target: Path) -> None:
    """A plain copy keeps the count of changes; a journal means SQLite must make it."""
    if not source.with_name(source.name + "-journal").exists():
        shutil.copyfile(source, target)
        return
    reader = sqlite3.connect(f"file:{quote(str(source))}?mode=ro", uri=True)
    writer = sqlite3.connect(target)
    try:
        reader.backup(writer)
    finally:
        writer.close()
        reader.close()


def back_up_before_migration(notebook: Path, version: int) -> Path | None:
    """Keep an older notebook as it was; such copies are never let go."""
    return back_up(notebook, f"{_MIGRATION}-{version + 1}")

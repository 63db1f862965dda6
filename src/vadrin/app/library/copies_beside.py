"""Copies of a notebook in its folder that somebody else wrote to: what a shared folder leaves."""

from __future__ import annotations

import sqlite3
from contextlib import closing
from pathlib import Path

from vadrin.notebook.connection import connect

_MOST_FILES, _MOST_BYTES = 20, 500_000_000
_TESTS = "SELECT uid FROM test WHERE uid <> ''"
_SESSIONS = "SELECT uid, edits FROM writing_session"


def copies_beside(path: Path) -> list[Path]:
    """Notebooks beside one that share a test with it and hold edits it does not.

    Parameters
    ----------
    path : Path
        Is only read, like the others.
    """
    ours = _marks(path)
    if ours is None:
        return []
    tests, edits = ours
    try:
        near = sorted(p for p in path.resolve().parent.glob("*.vadrin") if p.is_file())
    except OSError:
        return []
    found = []
    for other in near[:_MOST_FILES]:
        if other.samefile(path) or other.stat().st_size > _MOST_BYTES:
            continue
        marks = _marks(other)
        if marks is None or not marks[0] & tests:
            continue
        if any(count > edits.get(uid, 0) for uid, count in marks[1].items()):
            found.append(other)
    return found


def _marks(path: Path) -> tuple[set[str], dict[str, int]] | None:
    """Tests of a notebook, and how many changes of which openings it holds; None for no notebook,
    or an older one."""
    try:
        with closing(connect(path, "ro")) as connection:
            tests = {str(uid) for (uid,) in connection.execute(_TESTS)}
            return tests, {str(uid): int(n) for uid, n in connection.execute(_SESSIONS)}
    except (sqlite3.Error, OSError, ValueError, TypeError):
        return None

"""Copies of a notebook in its folder that somebody else wrote to: what a shared folder leaves."""

from __future__ import annotations

import sqlite3
from contextlib import closing, suppress
from pathlib import Path

from vadrin.notebook.connection import Deadline, connect

_MOST_FILES, _MOST_BYTES, _SECONDS = 20, 500_000_000, 5.0
"""What is looked at beside a notebook: so many files, of such a size, each for so long."""
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
    found = []
    for other in _near(path):
        marks = _marks(other)
        if marks is None or not marks[0] & tests:
            continue
        if any(count > edits.get(uid, 0) for uid, count in marks[1].items()):
            found.append(other)
    return found


def _near(path: Path) -> list[Path]:
    """Other notebooks in its folder, as far as they are few and of some size; they may come and
    go while they are looked at."""
    near = []
    with suppress(OSError):
        for other in sorted(path.resolve().parent.glob("*.vadrin"))[: _MOST_FILES + 1]:
            with suppress(OSError):
                if not other.samefile(path) and other.stat().st_size <= _MOST_BYTES:
                    near.append(other)
    return near


def _marks(path: Path) -> tuple[set[str], dict[str, int]] | None:
    """Tests of a notebook, and how many changes of which openings it holds; None for no notebook,
    or an older one."""
    try:
        with closing(connect(path, "ro")) as connection, Deadline(connection, _SECONDS):
            tests = {str(uid) for (uid,) in connection.execute(_TESTS)}
            return tests, {str(uid): int(n) for uid, n in connection.execute(_SESSIONS)}
    except (sqlite3.Error, OSError, ValueError, TypeError):
        return None

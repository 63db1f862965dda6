"""The one way a notebook's file is opened: nothing in the file is trusted to be ours."""

from __future__ import annotations

import sqlite3
import time
from pathlib import Path
from urllib.parse import quote

LONGEST_VALUE = 16 * 2**20
"""Bytes of the longest text or attachment; SQLite would allow a thousand million."""
_STEPS_BETWEEN_LOOKS = 50_000


def connect(path: Path, mode: str, options: str = "") -> sqlite3.Connection:
    """Open a notebook's file.

    Parameters
    ----------
    path : Path
    mode : str
        As in SQLite's addresses: ``ro``, ``rw``.
    options : str
        More of the address.

    Raises
    ------
    sqlite3.Error
    """
    address = f"file:{quote(str(path.absolute()))}?mode={mode}{options}"
    connection = sqlite3.connect(address, uri=True)
    # Functions in the file's own definitions may not reach out, and its pages are checked.
    connection.execute("PRAGMA trusted_schema = OFF")
    connection.execute("PRAGMA cell_size_check = ON")
    connection.setlimit(sqlite3.SQLITE_LIMIT_LENGTH, LONGEST_VALUE)
    connection.setlimit(sqlite3.SQLITE_LIMIT_ATTACHED, 0)
    return connection


class Deadline:
    """Stops a question to a file that has no end; used around questions, not for good.

    Parameters
    ----------
    connection : sqlite3.Connection
    seconds : float
        For all questions inside together.
    """

    def __init__(self, connection: sqlite3.Connection, seconds: float) -> None:
        self._connection = connection
        self._seconds = seconds

    def __enter__(self) -> None:
        end = time.monotonic() + self._seconds
        self._connection.set_progress_handler(
            lambda: int(time.monotonic() > end), _STEPS_BETWEEN_LOOKS
        )

    def __exit__(self, *_: object) -> None:
        self._connection.set_progress_handler(None, 0)

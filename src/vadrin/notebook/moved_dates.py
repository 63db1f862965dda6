"""Moves a notebook's days, so that what it tells of happened lately."""

from __future__ import annotations

import re
from contextlib import closing
from datetime import UTC, date, datetime, timedelta
from pathlib import Path

from vadrin.notebook.connection import connect

_DAY = re.compile(r"(?<!\d)20\d\d-[01]\d-[0-3]\d(?!\d)")
_DATED = {
    "test": ("created_at",),
    "frame": ("exposed_at",),
    "reading": ("read_at",),
    "finding": ("decided_at", "card"),
    "bottle": ("mixed_at", "clearing_at", "drop_at"),
    "shutter_time": ("measured_at",),
    "judgement": ("judged_at",),
}


def bring_up_to(path: Path, today: date) -> None:
    """Move every day in a notebook by as many days as bring its newest test to the day before.

    Parameters
    ----------
    path : Path
        A notebook that nobody has open.
    today : date

    Raises
    ------
    sqlite3.Error
    """
    with closing(connect(path, "rw")) as connection, connection:
        newest = connection.execute("SELECT max(created_at) FROM test").fetchone()[0]
        if not newest:
            return
        days = (today - datetime.fromisoformat(newest).astimezone(UTC).date()).days - 1
        connection.create_function("moved", 1, lambda words: _moved(words, days))
        for table, columns in _DATED.items():
            changes = ", ".join(f"{name} = moved({name})" for name in columns)
            connection.execute(f"UPDATE {table} SET {changes}")


def _moved(words: str | None, days: int) -> str | None:
    """Words with every day in them moved."""
    return _DAY.sub(lambda day: _later(day[0], days), words) if words else words


def _later(day: str, days: int) -> str:
    try:
        return (date.fromisoformat(day) + timedelta(days)).isoformat()
    except ValueError:
        # Some other number that only looks like a day.
        return day

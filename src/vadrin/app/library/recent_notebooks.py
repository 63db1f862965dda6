"""The notebooks opened last."""

from __future__ import annotations

from pathlib import Path

from vadrin.app.demo import FOLDER_PREFIX
from vadrin.app.library.recent_files import RecentFiles

_OPENED = RecentFiles("recent.json")


def recent_notebooks() -> list[Path]:
    """Notebooks opened last that are still there, the newest first."""
    return _OPENED.there()


def remember(path: Path) -> None:
    """Put a notebook first in the list; a copy of the demo is none to come back to."""
    if not path.absolute().parent.name.startswith(FOLDER_PREFIX):
        _OPENED.remember(path)

"""A copy of the shipped notebook to look around in, which is taken away afterwards."""

from __future__ import annotations

import shutil
import tempfile
from datetime import datetime
from pathlib import Path

from vadrin.app import demo
from vadrin.notebook.backups import folder_of
from vadrin.notebook.moved_dates import bring_up_to

_MADE: list[Path] = []
"""Copies of this program, to be taken away when it ends."""


def demo_notebook() -> Path:
    """A fresh copy of the demo notebook in a folder of its own, its winter the one we are in."""
    path = Path(tempfile.mkdtemp(prefix=demo.FOLDER_PREFIX)) / "boat-shed-winter.vadrin"
    shipped = Path(demo.__path__[0]) / "demo.vadrin"
    path.write_bytes(shipped.read_bytes())
    bring_up_to(path, datetime.now().astimezone().date())
    _MADE.append(path)
    return path


def leave_no_demo(path: Path) -> None:
    """Take the demo's copy away, unless somebody saved something of their own beside it."""
    folder, own = path.parent, folder_of(path)
    if not folder.is_dir():
        return
    if all(p == own or p.name.startswith(path.name) for p in folder.iterdir()):
        shutil.rmtree(folder, ignore_errors=True)


def leave_no_demos() -> None:
    """Take every copy that was made away."""
    while _MADE:
        leave_no_demo(_MADE.pop())

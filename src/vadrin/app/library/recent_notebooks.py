"""The notebooks opened last, kept where the desktop's rules say (XDG)."""

from __future__ import annotations

import json
from contextlib import suppress
from pathlib import Path

from platformdirs import user_state_path

from vadrin.app.demo import FOLDER_PREFIX

_KEPT = 8


def _list_file() -> Path:
    return user_state_path("vadrin") / "recent.json"


def recent_notebooks() -> list[Path]:
    """Notebooks opened last that are still there, the newest first."""
    try:
        held = json.loads(_list_file().read_text(encoding="utf-8"))
        return [Path(p) for p in held if isinstance(p, str) and Path(p).is_file()]
    except (OSError, ValueError, TypeError):
        return []


def remember(path: Path) -> None:
    """Put a notebook first in the list; a list that cannot be written is let be, and a copy of
    the demo is none to come back to."""
    if path.absolute().parent.name.startswith(FOLDER_PREFIX):
        return
    kept = [path.absolute(), *(p for p in recent_notebooks() if p != path.absolute())]
    with suppress(OSError):
        _list_file().parent.mkdir(parents=True, exist_ok=True)
        _list_file().write_text(json.dumps([str(p) for p in kept[:_KEPT]]), encoding="utf-8")

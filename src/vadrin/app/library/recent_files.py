"""Files opened last, kept where the desktop's rules say (XDG)."""

from __future__ import annotations

import json
from contextlib import suppress
from dataclasses import dataclass
from pathlib import Path

from platformdirs import user_state_path

_KEPT = 8


@dataclass(frozen=True)
class RecentFiles:
    """A list of files, the newest first.

    Attributes
    ----------
    name : str
        Of the file that keeps the list.
    """

    name: str

    @property
    def _file(self) -> Path:
        return user_state_path("vadrin") / self.name

    def there(self) -> list[Path]:
        """Those that are still there."""
        try:
            held = json.loads(self._file.read_text(encoding="utf-8"))
            return [Path(p) for p in held if isinstance(p, str) and Path(p).is_file()]
        except (OSError, ValueError, TypeError):
            return []

    def remember(self, path: Path) -> None:
        """Put a file first in the list; a list that cannot be written is let be."""
        kept = [path.absolute(), *(p for p in self.there() if p != path.absolute())]
        with suppress(OSError):
            self._file.parent.mkdir(parents=True, exist_ok=True)
            self._file.write_text(json.dumps([str(p) for p in kept[:_KEPT]]), encoding="utf-8")


OWN_SCENES = RecentFiles("scenes.json")
"""Pictures of the tester's own that were looked at as scenes."""

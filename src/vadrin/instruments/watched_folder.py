"""An instrument's program that leaves files in a folder: each new line is a reading."""

from __future__ import annotations

from pathlib import Path

from vadrin.instruments.line_format import LONGEST_LINE, LineFormat, LineReading

_MOST_BYTES = 200_000
_MOST_FILES = 500


class WatchedFolder:
    """Looks for lines that were not there before.

    Parameters
    ----------
    folder : str
    line_format : LineFormat

    Raises
    ------
    OSError
        If it is no folder that can be looked into.
    """

    def __init__(self, folder: str, line_format: LineFormat) -> None:
        self._folder, self._format = Path(folder), line_format
        self.strange = ""
        self.lost = ""
        """Why nothing comes any more; empty while the folder is there."""
        if not self._folder.is_dir():
            raise OSError(f"{folder} is no folder")
        self._seen = {path: self._size(path) for path in self._files()}

    def _files(self) -> list[Path]:
        return sorted(p for p in self._folder.iterdir() if p.is_file())[:_MOST_FILES]

    @staticmethod
    def _size(path: Path) -> int:
        try:
            return path.stat().st_size
        except OSError:
            return 0

    def take_all(self) -> list[LineReading]:
        """The readings of lines that came since the last time, file by file."""
        try:
            files = self._files()
        except OSError as error:
            self.lost = str(error)
            return []
        return [reading for path in files for reading in self._news_of(path)]

    def _news_of(self, path: Path) -> list[LineReading]:
        before, size = self._seen.get(path, 0), self._size(path)
        if size <= before or size > _MOST_BYTES:
            return []
        try:
            with path.open("rb") as file:
                file.seek(before)
                fresh = file.read(_MOST_BYTES)
        except OSError:
            return []
        # A line that is still being written waits for its end.
        whole = fresh[: fresh.rfind(b"\n") + 1]
        self._seen[path] = before + len(whole)
        made = []
        for line in whole.decode("utf-8", "replace").splitlines():
            words = line[:LONGEST_LINE].strip()
            reading = self._format.read(words) if words else None
            if reading is not None:
                made.append(reading)
            elif words:
                self.strange = words
        return made

    def close(self) -> None:
        """Look no more."""

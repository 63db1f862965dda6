"""An instrument's program that leaves files in a folder: each new line is a reading."""

from __future__ import annotations

import os
import threading
from collections import deque
from pathlib import Path

from vadrin.instruments.file_lines import FileLines, FileMark
from vadrin.instruments.line_format import LineFormat, LineReading
from vadrin.instruments.passed_over import PassedOver

LOOK_EVERY_S = 0.25
_MOST_FILES = 20_000
_MOST_WAITING = 20_000


class WatchedFolder:
    """Looks for lines that were not there before, on a thread of its own.

    It looks again and again rather than being told: on folders shared over a network nobody
    tells.

    Parameters
    ----------
    folder : str
    line_format : LineFormat
    every_s : float
        Seconds between two looks.

    Raises
    ------
    OSError
        If it is no folder that can be looked into.
    """

    def __init__(self, folder: str, line_format: LineFormat, every_s: float = LOOK_EVERY_S) -> None:
        self._folder, self._format, self._every_s = Path(folder), line_format, every_s
        self.passed_over = PassedOver()
        self.lost = ""
        """Why nothing comes any more; empty while the folder is there."""
        if not self._folder.is_dir():
            raise OSError(f"{folder} is no folder")
        self._readings: deque[LineReading] = deque()
        self._files: dict[str, FileLines] = {}
        for name, mark in self.marks().items():
            self._begin(name, mark, existed=True)
        self._closing = threading.Event()
        self._thread = threading.Thread(target=self._watch, daemon=True, name="watched folder")
        self._thread.start()

    def marks(self) -> dict[str, FileMark]:
        """Every file of the folder with what it is known by."""
        made: dict[str, FileMark] = {}
        with os.scandir(self._folder) as entries:
            for entry in entries:
                if len(made) == _MOST_FILES:
                    self.passed_over.add(f"more than {_MOST_FILES:,} files; empty the folder")
                    break
                try:
                    if entry.is_file():
                        stat = entry.stat()
                        made[entry.name] = FileMark(stat.st_ino, stat.st_size, stat.st_mtime_ns)
                except OSError:
                    continue
        return made

    def _begin(self, name: str, mark: FileMark, existed: bool) -> None:
        try:
            self._files[name] = FileLines(self._folder / name, mark, existed)
        except OSError as error:
            self.passed_over.add(f"{name}: {error.strerror or error}")

    def _watch(self) -> None:
        while not self._closing.wait(self._every_s):
            try:
                marks = self.marks()
            except OSError as error:
                self.lost = str(error)
                return
            self.look(marks)

    def look(self, marks: dict[str, FileMark]) -> None:
        """Take what is new of each file."""
        for gone in self._files.keys() - marks.keys():
            del self._files[gone]
        for name, mark in sorted(marks.items()):
            if name not in self._files:
                self._begin(name, mark, existed=False)
            elif self._files[name].waits(mark):
                self._take(name)

    def _take(self, name: str) -> None:
        try:
            lines, told = self._files[name].news()
        except OSError as error:
            self.passed_over.add(f"{name}: {error.strerror or error}")
            return
        if told:
            self.passed_over.add(told)
        for line in lines:
            reading = self._format.read(line.strip("\x00 \t"))
            if reading is None:
                self.passed_over.add(line.strip())
            elif len(self._readings) < _MOST_WAITING:
                self._readings.append(reading)
            else:
                self.passed_over.add("more lines at once than can be taken")

    def take_all(self) -> list[LineReading]:
        """The readings of lines that came since the last time, file by file."""
        taken = []
        while self._readings:
            taken.append(self._readings.popleft())
        return taken

    def close(self) -> None:
        """Look no more."""
        self._closing.set()
        self._thread.join(1.0)

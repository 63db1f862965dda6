"""An instrument on a serial line: its newest reading, taken on a thread of its own."""

from __future__ import annotations

import threading
from collections import deque

import serial

from vadrin.instruments.line_format import LONGEST_LINE, LineFormat, LineReading

_WAIT_S = 0.1
_MOST_WAITING = 500


class SerialLine:
    """Reads lines until it is closed.

    Parameters
    ----------
    port : str
        Such as ``/dev/ttyUSB0``.
    line_format : LineFormat
    baud : int

    Raises
    ------
    OSError
        If the port cannot be opened.
    """

    def __init__(self, port: str, line_format: LineFormat, baud: int = 9600) -> None:
        self._format = line_format
        self._serial = serial.Serial(port, baud, timeout=_WAIT_S)
        self._readings: deque[LineReading] = deque(maxlen=_MOST_WAITING)
        self._closing = threading.Event()
        self.strange = ""
        self.lost = ""
        """Why nothing comes any more; empty while the line is open."""
        self._thread = threading.Thread(target=self._listen, daemon=True, name="serial line")
        self._thread.start()

    def _listen(self) -> None:
        kept = b""
        while not self._closing.is_set():
            try:
                kept += self._serial.read(64)
            except (OSError, serial.SerialException) as error:
                self.lost = str(error) or "the line is gone"
                return
            *lines, kept = kept.replace(b"\r", b"\n").split(b"\n")
            kept = kept[-LONGEST_LINE:]
            for line in lines:
                self._take(line)

    def _take(self, line: bytes) -> None:
        words = line[:LONGEST_LINE].decode("ascii", "replace").strip()
        if not words:
            return
        reading = self._format.read(words)
        if reading is None:
            self.strange = words
        else:
            self._readings.append(reading)

    def take_all(self) -> list[LineReading]:
        """The readings that came since the last time, the oldest first."""
        taken = []
        while self._readings:
            taken.append(self._readings.popleft())
        return taken

    def close(self) -> None:
        """Stop listening."""
        self._closing.set()
        self._thread.join(1.0)
        self._serial.close()

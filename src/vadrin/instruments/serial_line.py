"""An instrument on a serial line: its newest reading, taken on a thread of its own."""

from __future__ import annotations

import threading
import time
from collections import deque

import serial

from vadrin.instruments.line_format import LONGEST_LINE, LineFormat, LineReading
from vadrin.instruments.passed_over import PassedOver

_WAIT_S = 0.1
_QUIET_S = 0.25
"""A line that comes this soon after listening began may have been begun before. A letter takes
a millisecond at the usual 9600 baud, but converters hold letters back and a busy machine longer
still; nobody opens a line and presses the instrument's key within a quarter second."""
_MOST_WAITING = 20_000
_MOST_AT_ONCE = 4096


class SerialLine:
    """Reads lines until it is closed.

    Parameters
    ----------
    port : str
        Such as ``/dev/ttyUSB0``.
    line_format : LineFormat
    baud : int
    silent : bool
        Whether nothing can be under way on it yet: it was made this moment.

    Raises
    ------
    OSError
        If the port cannot be opened.
    """

    def __init__(
        self, port: str, line_format: LineFormat, baud: int = 9600, silent: bool = False
    ) -> None:
        self._format, self._silent = line_format, silent
        self._serial = serial.Serial(port, baud, timeout=_WAIT_S)
        self._readings: deque[LineReading] = deque(maxlen=_MOST_WAITING)
        self._closing = threading.Event()
        self.passed_over = PassedOver()
        self.lost = ""
        """Why nothing comes any more; empty while the line is open."""
        self._thread = threading.Thread(target=self._listen, daemon=True, name="serial line")
        self._thread.start()

    def _listen(self) -> None:
        kept, broken = b"", not self._silent and self._begins_in_the_middle()
        while not self._closing.is_set():
            try:
                fresh = self._serial.read(max(1, min(self._serial.in_waiting, _MOST_AT_ONCE)))
            except (OSError, serial.SerialException) as error:
                self.lost = str(error) or "the line is gone"
                return
            *lines, kept = (kept + fresh).replace(b"\r", b"\n").split(b"\n")
            if len(kept) > LONGEST_LINE:
                kept, broken = b"", True
            for line in lines:
                self._take(line, broken)
                broken = False

    def _begins_in_the_middle(self) -> bool:
        """Whether something was on its way when the line was opened: its head is not heard."""
        end = time.monotonic() + _QUIET_S
        while time.monotonic() < end:
            try:
                if self._serial.in_waiting:
                    return True
            except (OSError, serial.SerialException):
                return False
            self._closing.wait(0.002)
        return False

    def _take(self, line: bytes, broken: bool) -> None:
        words = line[: LONGEST_LINE + 1].decode("ascii", "replace").strip()
        if not words:
            return
        reading = None if broken else self._format.read(words)
        if reading is None:
            self.passed_over.add(words[:LONGEST_LINE])
            return
        if len(self._readings) == _MOST_WAITING:
            self.passed_over.add("more lines at once than can be taken")
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

"""The lines a file has gained since it was looked at: appended, or written anew."""

from __future__ import annotations

import os
from dataclasses import dataclass
from pathlib import Path
from typing import NamedTuple

MOST_BYTES = 1_000_000
"""Taken at one look; more than that is no log of readings."""
_HEAD = 4096
_ENDS = (b"\r", b"\n", b"\n\x00", b"\r\x00")
_STILL_LOOKS = 3
"""Looks a file must have stood still before a last line without an end counts as whole."""


class FileMark(NamedTuple):
    """What a file is known by from one look to the next."""

    inode: int
    size: int
    changed_ns: int


@dataclass
class _Known:
    mark: FileMark
    read: FileMark | None = None
    """As it was when nothing of it was left to take."""
    taken: int = 0
    head: bytes = b""
    tail: bytes = b""
    still: int = 0
    open_end: bool = False
    """Whether the last line that was taken had no end."""


class FileLines:
    """One file, read again as it grows or is written anew.

    Parameters
    ----------
    path : Path
    mark : FileMark
    existed : bool
        Whether what it holds was there before anybody listened.

    Raises
    ------
    OSError
        If it can't be read.
    """

    def __init__(self, path: Path, mark: FileMark, existed: bool) -> None:
        self._path = path
        self._known = _Known(mark)
        if existed:
            with path.open("rb") as file:
                self._remember(file.fileno(), mark.size)
                self._known.open_end = not self._known.tail.endswith(_ENDS)
            self._known.read, self._known.still = mark, _STILL_LOOKS

    def waits(self, mark: FileMark) -> bool:
        """Whether it has to be read: it changed, and has stood still since the last look."""
        known = self._known
        if mark != known.mark:
            known.mark, known.still = mark, 0
            return False
        if known.still >= _STILL_LOOKS:
            return False
        known.still += 1
        return True

    def news(self) -> tuple[list[str], str]:
        """Lines that are new and whole, and what has to be told.

        The last line counts without an end, too, once the file stood still for longer.

        Raises
        ------
        OSError
            If it can't be read.
        """
        known = self._known
        with self._path.open("rb") as handle:
            file, size = handle.fileno(), known.mark.size
            self._go_back(file, size)
            fresh = os.pread(file, MOST_BYTES + 1, known.taken)
            begins = os.pread(file, 2, 0)
            if len(fresh) > MOST_BYTES:
                self._remember(file, size)
                return [], f"{self._path.name}: more than {MOST_BYTES:,} bytes at once"
            whole = fresh if known.still >= _STILL_LOOKS else fresh[: _last_end(fresh)]
            went_on = known.open_end and known.taken > 0 and not whole.startswith(_ENDS)
            if whole:
                known.open_end = not whole.endswith(_ENDS)
                self._remember(file, known.taken + len(whole))
            if known.taken == size:
                known.read = known.mark
        lines = [x for x in _decoded(whole, begins).splitlines() if x.strip("\x00 \t")]
        if went_on and lines:
            told = f"{self._path.name}: “{lines[0].strip()}” goes on in a line taken before"
            return lines[1:], told
        return lines, ""

    def _go_back(self, file: int, size: int) -> None:
        """Begin at the head again where what was taken does not stand there any more."""
        known = self._known
        head, tail = self._marks_of(file, known.taken)
        if size >= known.taken and (head, tail) == (known.head, known.tail):
            inside = known.tail.strip(b"\r\n\x00")
            alone = 0 < known.taken < _HEAD and not any(end in inside for end in (b"\n", b"\r"))
            if size == known.taken and alone and known.mark != known.read:
                # One line, written again: measured again, and the same was found.
                known.taken, known.open_end = 0, False
            return
        # What was written before may have lost its first lines, and stand at the head now.
        known.taken = _overlap(known.tail, os.pread(file, _HEAD + 2, 0))
        known.open_end = known.open_end and known.taken > 0

    @staticmethod
    def _marks_of(file: int, taken: int) -> tuple[bytes, bytes]:
        size = min(_HEAD, taken)
        return os.pread(file, size, 0), os.pread(file, size, max(0, taken - _HEAD))

    def _remember(self, file: int, taken: int) -> None:
        """Keep where the reading stands, and what stands there and at the head."""
        self._known.taken = taken
        self._known.head, self._known.tail = self._marks_of(file, taken)


def _overlap(before: bytes, now: bytes) -> int:
    """Bytes at the head of a file that were the last whole lines of what was taken of it."""
    mark = 2 if now[:2] in (b"\xff\xfe", b"\xfe\xff") else 0
    mark = 3 if now[:3] == b"\xef\xbb\xbf" else mark
    begins = [at + 1 for at, byte in enumerate(before[:-1]) if byte in b"\r\n\x00"]
    for at in begins:
        if now[mark:].startswith(before[at:]):
            return mark + len(before) - at
    return 0


def _last_end(text: bytes) -> int:
    """Past the last end of a line, whatever ends lines here."""
    at = max(text.rfind(b"\n"), text.rfind(b"\r")) + 1
    # In two bytes a letter the end's other byte belongs to it.
    return at + 1 if 0 < at < len(text) and text[at] == 0 else at


def _decoded(text: bytes, begins: bytes) -> str:
    """Text in whatever it is written in: UTF-8, or UTF-16 by its mark or by its empty bytes."""
    if begins in (b"\xff\xfe", b"\xfe\xff") or text.count(0) * 3 > len(text):
        big = begins == b"\xfe\xff" or (begins[:1] == b"\x00" and begins != b"\xff\xfe")
        return text.decode("utf-16-be" if big else "utf-16-le", "replace").lstrip("\ufeff")
    return text.decode("utf-8-sig", "replace")

"""What SQLite keeps beside a file while it writes, and whether it belongs to that file."""

from __future__ import annotations

import struct
from pathlib import Path

_MAGIC = bytes.fromhex("d9d505f920a163d7")
_LOGGED = 2
_FIRST_PAGE = 1


def journal_of(path: Path) -> Path:
    """The rollback journal of a file."""
    return path.with_name(path.name + "-journal")


def log_of(path: Path) -> Path:
    """The write-ahead log of a file: notebooks have none, but other programs may have made one."""
    return path.with_name(path.name + "-wal")


def has_journal(path: Path) -> bool:
    """Whether a program was cut off while it wrote."""
    return journal_of(path).exists()


def keeps_log(path: Path) -> bool:
    """Whether some of what is written lies in a log beside the file."""
    with path.open("rb") as file:
        return _LOGGED in file.read(20)[18:20] or log_of(path).exists()


def stale_journal(path: Path) -> Path | None:
    """The journal beside a file if it is of another state of it; None where all is well.

    Every journal keeps the first page as it was, with the file's count of changes: while an edit
    is cut off, the file has that count or one more. A restored copy has another.
    """
    journal = journal_of(path)
    if not journal.is_file():
        return None
    before = _count_kept(journal)
    if before is None:
        return None
    with path.open("rb") as file:
        now = int(struct.unpack(">I", file.read(28)[24:28])[0])
    return journal if now not in (before, before + 1) else None


def _count_kept(journal: Path) -> int | None:
    """The count of changes on the first page as a journal keeps it; None where it keeps none."""
    with journal.open("rb") as file:
        start = 0
        while True:
            file.seek(start)
            header = file.read(28)
            if len(header) < 28 or header[:8] != _MAGIC:
                return None
            kept, _, _, sector, page = struct.unpack(">5I", header[8:])
            if not (512 <= page <= 65536 and 28 <= sector <= 65536):
                return None
            place = start + sector
            for _ in range(kept):
                file.seek(place)
                record = file.read(4 + 100)
                if len(record) < 104:
                    return None
                if struct.unpack(">I", record[:4])[0] == _FIRST_PAGE:
                    return int(struct.unpack(">I", record[28:32])[0])
                place += 4 + page + 4
            start = -(-place // sector) * sector

"""Files are written whole or not at all, under names every file system takes."""

from __future__ import annotations

import os
import tempfile
from contextlib import suppress
from pathlib import Path

_LONGEST_NAME = 255
"""Bytes a name has at most on the usual file systems."""


def write_whole(path: Path, data: bytes | str) -> None:
    """Write a file beside its place and put it there in one step.

    A full disk or a kill leaves what was there before, and nothing half done. A link stays a
    link; what is no regular file (a pipe, a device) is written to as it is.

    Raises
    ------
    OSError
    """
    content = data.encode("utf-8") if isinstance(data, str) else data
    target = path.resolve()
    if target.exists() and not target.is_file():
        target.write_bytes(content)
        return
    descriptor, name = tempfile.mkstemp(prefix=".vadrin-", suffix=".part", dir=target.parent)
    part = Path(name)
    try:
        with os.fdopen(descriptor, "wb") as file:
            file.write(content)
            file.flush()
            os.fsync(file.fileno())
        part.chmod(_mode_of(target))
        part.replace(target)
    except BaseException:
        with suppress(OSError):
            part.unlink()
        raise


def _mode_of(target: Path) -> int:
    """Rights of the file that is replaced, or those a new one would get."""
    if target.exists():
        return target.stat().st_mode & 0o777
    mask = os.umask(0)
    os.umask(mask)
    return 0o666 & ~mask


def safe_name(words: str, suffix: str) -> str:
    """A file name for words: no separators or control characters, and not too long.

    >>> safe_name("Gannet 100/B", ".pdf")
    'Gannet 100-B.pdf'
    """
    plain = "".join("-" if c in "/\\" or not c.isprintable() else c for c in words)
    plain = plain.strip().lstrip(".") or "unnamed"
    room = _LONGEST_NAME - len(suffix.encode())
    return plain.encode("utf-8", "replace")[:room].decode("utf-8", "ignore") + suffix

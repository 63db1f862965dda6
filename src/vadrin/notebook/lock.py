"""One writer at a time: a lock beside the notebook that dies with the program that holds it."""

from __future__ import annotations

import fcntl
import getpass
import json
import os
from datetime import UTC, datetime
from pathlib import Path

from vadrin.errors import NotebookHeldError

_TRIES = 5


def _me() -> bytes:
    try:
        who = getpass.getuser()
    except (KeyError, OSError):
        who = "somebody"
    since = datetime.now(UTC).astimezone().isoformat(sep=" ", timespec="minutes")[:16]
    return json.dumps({"who": who, "machine": os.uname().nodename, "since": since}).encode()


def _holder(descriptor: int) -> str:
    try:
        said = json.loads(os.pread(descriptor, 2000, 0))
        return f"{said['who']} on {said['machine']} has it open since {said['since']}"
    except (ValueError, KeyError, TypeError, OSError):
        return "another window has it open"


class WriterLock:
    """Held from making it until `release`, or until the program ends in whatever way.

    Parameters
    ----------
    notebook : Path

    Raises
    ------
    HeldError
        If another window or machine has it.
    OSError
        If no lock can be made in that folder.
    """

    def __init__(self, notebook: Path) -> None:
        self._path = notebook.with_name(f".{notebook.name}.lock")
        for _ in range(_TRIES):
            descriptor = os.open(self._path, os.O_RDWR | os.O_CREAT, 0o666)
            try:
                fcntl.flock(descriptor, fcntl.LOCK_EX | fcntl.LOCK_NB)
            except BlockingIOError as error:
                words = _holder(descriptor)
                os.close(descriptor)
                raise NotebookHeldError(words) from error
            except OSError:
                os.close(descriptor)
                raise
            # The holder before may have removed the file between our opening and locking it.
            if self._path.exists() and os.fstat(descriptor).st_ino == self._path.stat().st_ino:
                break
            os.close(descriptor)
        else:
            raise NotebookHeldError("another window is just opening or closing it")
        self._descriptor = descriptor
        os.ftruncate(descriptor, 0)
        os.pwrite(descriptor, _me(), 0)

    def release(self) -> None:
        """Let the next one write."""
        self._path.unlink(missing_ok=True)
        os.close(self._descriptor)

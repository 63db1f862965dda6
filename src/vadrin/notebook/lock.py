"""One writer at a time: a lock beside the notebook that dies with the program that holds it."""

from __future__ import annotations

import errno
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


def _opened(lock: Path) -> int:
    """The lock file; never what a link in its place points to, which would be overwritten."""
    try:
        return os.open(lock, os.O_RDWR | os.O_CREAT | os.O_NOFOLLOW, 0o666)
    except OSError as error:
        if error.errno == errno.ELOOP:
            words = f"{lock.name} beside it is a link, not a lock; remove that link first"
            raise NotebookHeldError(words) from error
        raise


def _held(descriptor: int) -> None:
    try:
        fcntl.flock(descriptor, fcntl.LOCK_EX | fcntl.LOCK_NB)
    except BlockingIOError as error:
        words = _holder(descriptor)
        os.close(descriptor)
        raise NotebookHeldError(words) from error
    except OSError:
        os.close(descriptor)
        raise


def _inode_locked(notebook: Path) -> int | None:
    """A lock on the file itself where it has several names, each with a lock file of its own."""
    if not notebook.exists() or notebook.stat().st_nlink < 2:
        return None
    descriptor = os.open(notebook, os.O_RDONLY)
    _held(descriptor)
    return descriptor


class WriterLock:
    """Held from making it until `release`, or until the program ends in whatever way.

    Parameters
    ----------
    notebook : Path

    Raises
    ------
    NotebookHeldError
        If another window or machine has it.
    OSError
        If no lock can be made in that folder.
    """

    def __init__(self, notebook: Path) -> None:
        # A link to a notebook is that notebook: one lock, beside the file itself.
        whole = notebook.resolve()
        self._path = whole.with_name(f".{whole.name}.lock")
        self._inode = _inode_locked(whole)
        try:
            self._descriptor = self._taken()
        except BaseException:
            self._let_go_of_inode()
            raise
        os.ftruncate(self._descriptor, 0)
        os.pwrite(self._descriptor, _me(), 0)

    def _taken(self) -> int:
        for _ in range(_TRIES):
            descriptor = _opened(self._path)
            _held(descriptor)
            # The holder before may have removed the file between our opening and locking it.
            if self._path.exists() and os.fstat(descriptor).st_ino == self._path.stat().st_ino:
                return descriptor
            os.close(descriptor)
        raise NotebookHeldError("another window is just opening or closing it")

    def _let_go_of_inode(self) -> None:
        if self._inode is not None:
            os.close(self._inode)

    def release(self) -> None:
        """Let the next one write."""
        self._path.unlink(missing_ok=True)
        os.close(self._descriptor)
        self._let_go_of_inode()

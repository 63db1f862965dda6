"""One writer at a time: a lock beside the notebook that dies with the program that holds it."""

from __future__ import annotations

import errno
import fcntl
import getpass
import json
import os
import struct
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


def _elsewhere(descriptor: int) -> str:
    """Who has it open on another machine, by a mark that nobody here left."""
    try:
        there = str(json.loads(os.pread(descriptor, 2000, 0))["machine"])
    except (ValueError, KeyError, TypeError, OSError):
        return ""
    return "" if there == os.uname().nodename else _holder(descriptor)


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


_FAR_OFF = 2**62
"""A byte that no notebook reaches, nor the locks of SQLite: only this program locks it."""
_NO_SUCH_LOCKS = (errno.EINVAL, errno.ENOLCK, errno.ENOSYS, errno.EOPNOTSUPP)
"""What a place says that knows no locks of an open file."""
_FLOCK = "hhqqi"
"""Of struct flock, by which a lock belongs to an open file and not to its process."""


def _inode_locked(notebook: Path) -> int | None:
    """A lock on the file itself: it may have several names, and a lock file can be removed."""
    if not notebook.exists():
        return None
    descriptor = os.open(notebook, os.O_RDWR)
    wanted = struct.pack(_FLOCK, fcntl.F_WRLCK, os.SEEK_SET, _FAR_OFF, 1, 0)
    try:
        fcntl.fcntl(descriptor, fcntl.F_OFD_SETLK, wanted)
    except (BlockingIOError, PermissionError) as error:
        os.close(descriptor)
        raise NotebookHeldError("another window has it open") from error
    except OSError as error:
        os.close(descriptor)
        if error.errno in _NO_SUCH_LOCKS:
            # The lock file alone holds there, as far as the place can hold anything.
            return None
        raise
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
        self._whole, self._path = whole, whole.with_name(f".{whole.name}.lock")
        self._inode: int | None = None
        self._descriptor = self._taken()
        try:
            self._inode = _inode_locked(whole)
        except BaseException:
            self.release()
            raise
        # A folder that is copied between machines brings the mark, not the lock.
        self.elsewhere = _elsewhere(self._descriptor)
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

    def hold_file(self) -> None:
        """Hold the file that lies there now: a migration has put another in its place.

        Raises
        ------
        NotebookHeldError
            If another window holds it, whatever became of its lock file.
        """
        self._let_go_of_inode()
        self._inode = None
        self._inode = _inode_locked(self._whole)

    def _let_go_of_inode(self) -> None:
        if self._inode is not None:
            os.close(self._inode)

    def release(self) -> None:
        """Let the next one write."""
        self._path.unlink(missing_ok=True)
        os.close(self._descriptor)
        self._let_go_of_inode()

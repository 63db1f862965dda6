"""Long work off the screen's thread: progress, cancel, and the newest of its kind wins."""

from __future__ import annotations

from collections.abc import Callable, Generator, Hashable
from concurrent.futures import ThreadPoolExecutor
from dataclasses import dataclass
from typing import Any

from PyQt6 import sip
from PyQt6.QtCore import QObject, QTimer, pyqtSignal

from vadrin.errors import StoppedError

Said = Callable[[int, int], None]
"""Told how much of how much is done; raises to stop the work."""

_SLICE_MS = 0


@dataclass
class Job:
    """One piece of work; `work` is given a callable to tell its progress by."""

    key: Hashable
    work: Callable[[Said], Any]
    done: Callable[[Any], None]
    failed: Callable[[Exception], None]
    said: Said | None
    cancelled: bool = False


class Jobs(QObject):
    """Runs jobs one after the other; a newer job takes the place of an older of its key."""

    ended = pyqtSignal(object)
    """The key of work whose answer was delivered, or its failure told."""
    _over = pyqtSignal(object, object, object)
    _told = pyqtSignal(object, int, int)

    def __init__(self, parent: QObject | None = None) -> None:
        super().__init__(parent)
        self._pool = ThreadPoolExecutor(1, "vadrin-job")
        self._running: dict[Hashable, Job] = {}
        self._closed = False
        # Bound methods of an object of the screen's thread: Qt hands the signals over to it.
        self._over.connect(self._deliver)
        self._told.connect(self._progress)

    def run(
        self,
        key: Hashable,
        work: Callable[[Said], Any],
        done: Callable[[Any], None],
        failed: Callable[[Exception], None] | None = None,
        said: Said | None = None,
    ) -> None:
        """Start work under a key, in place of older work under it.

        Parameters
        ----------
        key : hashable
        work : callable
            Runs off the screen's thread.
        done, failed, said : callable
            Called on the screen's thread: with the answer, with what was raised, with progress.
            Methods of a widget that is gone by then are not called.
        """
        self.cancel(key)
        if self._closed:
            return
        job = Job(key, work, done, failed or _raise, said)
        self._running[key] = job
        self._pool.submit(self._work, job)

    def cancel(self, key: Hashable) -> None:
        """Stop the work under a key, if there is any; its answer will not arrive."""
        job = self._running.pop(key, None)
        if job is not None:
            job.cancelled = True

    def busy(self, key: Hashable | None = None) -> bool:
        """Whether work under a key, or any at all, is under way."""
        return bool(self._running) if key is None else key in self._running

    def wait(self) -> None:
        """Finish the work in hand."""
        self._pool.submit(_nothing).result()

    def close(self) -> None:
        """Stop the work in hand where it next asks; no work is taken after this."""
        self._closed = True
        for key in list(self._running):
            self.cancel(key)
        self._pool.shutdown(wait=True)

    def _work(self, job: Job) -> None:
        """Do the work; runs on the pool's thread."""

        def said(done: int, total: int) -> None:
            if job.cancelled:
                raise StoppedError
            if job.said is not None:
                self._told.emit(job, done, total)

        if job.cancelled:
            return
        try:
            made, error = job.work(said), None
        except StoppedError:
            return
        except Exception as raised:
            made, error = None, raised
        if not job.cancelled:
            self._over.emit(job, made, error)

    def _deliver(self, job: Job, made: object, error: Exception | None) -> None:
        if self._running.get(job.key) is not job:
            return
        del self._running[job.key]
        try:
            if error is not None:
                job.failed(error)
            elif not _gone(job.done):
                job.done(made)
        finally:
            self.ended.emit(job.key)

    def _progress(self, job: Job, done: int, total: int) -> None:
        if job.said is not None and self._running.get(job.key) is job and not _gone(job.said):
            job.said(done, total)


def _gone(call: Callable[..., object]) -> bool:
    """Whether a method's widget was let go of while the work went on."""
    owner = getattr(getattr(call, "func", call), "__self__", None)
    return isinstance(owner, QObject) and sip.isdeleted(owner)


def _nothing() -> None:
    return


def _raise(error: Exception) -> None:
    raise error


class SlicedJob(QObject):
    """Work that must stay on the screen's thread, a slice an event-loop turn.

    Parameters
    ----------
    steps : generator
        Yields how much of how much is done; what it returns is the answer. Closing it early
        must undo what it did.
    said : callable
        Told the progress after every slice.
    done : callable
        Called with the answer.
    failed : callable
        Called with what was raised.
    """

    def __init__(
        self,
        parent: QObject,
        steps: Generator[tuple[int, int], None, Any],
        said: Said,
        done: Callable[[Any], None],
        failed: Callable[[Exception], None],
    ) -> None:
        super().__init__(parent)
        self._steps, self._said, self._done, self._failed = steps, said, done, failed
        self._timer = QTimer(self)
        self._timer.timeout.connect(self._step)
        self._timer.start(_SLICE_MS)

    def cancel(self) -> None:
        """Stop, and take back what was done."""
        self._timer.stop()
        self._steps.close()
        self.deleteLater()

    def _step(self) -> None:
        try:
            self._said(*next(self._steps))
        except StopIteration as end:
            self._timer.stop()
            self.deleteLater()
            self._done(end.value)
        except Exception as error:
            self._timer.stop()
            self.deleteLater()
            self._failed(error)

"""Long work off the screen's thread: progress, cancel, and the newest of its kind wins."""

from __future__ import annotations

from collections.abc import Callable, Generator, Hashable
from typing import Any

from PyQt6.QtCore import QObject, QRunnable, QThreadPool, QTimer, pyqtSignal

from vadrin.errors import StoppedError

Said = Callable[[int, int], None]
"""Told how much of how much is done; raises to stop the work."""

_SLICE_MS = 0


class _Post(QObject):
    """Carries an answer from the thread to the screen; a job keeps it alive, not a station.

    What it is connected to may be gone by then, and Qt has then let go of it.
    """

    arrived = pyqtSignal(object)
    failed = pyqtSignal(object)
    told = pyqtSignal(int, int)


class Job(QRunnable):
    """One piece of work; `work` is given a callable to tell its progress by."""

    def __init__(self, work: Callable[[Said], Any], post: _Post) -> None:
        super().__init__()
        self._work, self._post = work, post
        self.cancelled = False

    def cancel(self) -> None:
        """Ask it to stop; its answer will not arrive."""
        self.cancelled = True

    def _said(self, done: int, total: int) -> None:
        if self.cancelled:
            raise StoppedError
        self._post.told.emit(done, total)

    def run(self) -> None:
        """Do the work, unless it was cancelled before it began."""
        if self.cancelled:
            return
        try:
            made = self._work(self._said)
        except StoppedError:
            return
        except Exception as error:
            self._post.failed.emit(error)
            return
        if not self.cancelled:
            self._post.arrived.emit(made)


class Jobs(QObject):
    """Runs jobs one after the other; a newer job takes the place of an older of its key."""

    def __init__(self, parent: QObject | None = None) -> None:
        super().__init__(parent)
        self._pool = QThreadPool(self)
        self._pool.setMaxThreadCount(1)
        self._running: dict[Hashable, Job] = {}

    def run(
        self, key: Hashable, work: Callable[[Said], Any], done: Callable[[Any], None],
        failed: Callable[[Exception], None] | None = None, said: Said | None = None,
    ) -> Job:  # fmt: skip
        """Start work under a key, in place of older work under it.

        Parameters
        ----------
        key : hashable
        work : callable
            Runs off the screen's thread.
        done, failed, said : callable
            Called on the screen's thread: with the answer, with what was raised, with progress.
        """
        self.cancel(key)
        post = _Post()
        job = Job(work, post)

        def over(deliver: Callable[[Any], None], made: Any) -> None:
            if self._running.get(key) is job:
                del self._running[key]
                deliver(made)

        post.arrived.connect(lambda made: over(done, made))
        post.failed.connect(lambda error: over(failed or _raise, error))
        if said is not None:
            post.told.connect(said)
        self._running[key] = job
        self._pool.start(job)
        return job

    def cancel(self, key: Hashable) -> None:
        """Stop the work under a key, if there is any."""
        job = self._running.pop(key, None)
        if job is not None:
            job.cancel()

    def busy(self, key: Hashable | None = None) -> bool:
        """Whether work under a key, or any at all, is under way."""
        return bool(self._running) if key is None else key in self._running

    def wait(self) -> None:
        """Finish the work in hand."""
        self._pool.waitForDone()

    def close(self) -> None:
        """Finish the work in hand and forget its answers."""
        for key in list(self._running):
            self.cancel(key)
        self.wait()


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
        self, parent: QObject, steps: Generator[tuple[int, int], None, Any], said: Said,
        done: Callable[[Any], None], failed: Callable[[Exception], None],
    ) -> None:  # fmt: skip
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

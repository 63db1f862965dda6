"""Files that are dropped on the window: each is taken by what it is, one after another."""

from __future__ import annotations

from collections import deque
from collections.abc import Callable
from pathlib import Path

from PyQt6.QtCore import QObject, QTimer

from vadrin.app.scans.picture_files import is_picture

_LOOK_MS = 50


class DroppedFiles(QObject):
    """Takes files in their order; the next waits until nothing is asked about the one before.

    Of notebooks, and of pictures for one page, one alone can lie open: the others are named.

    Parameters
    ----------
    parent : QObject
    open_notebook, offer : callable
        Open a notebook; take readings in, which may ask something.
    take_here : callable
        Lets the station take a file; False where it means nothing to it.
    asking : callable
        Whether something about a file is asked, or it is still being written.
    say : callable
    """

    def __init__(
        self,
        parent: QObject,
        open_notebook: Callable[[Path], None],
        offer: Callable[[Path], None],
        take_here: Callable[[Path], bool],
        asking: Callable[[], bool],
        say: Callable[[str], None],
    ) -> None:
        super().__init__(parent)
        self._open, self._offer, self._take_here = open_notebook, offer, take_here
        self._asking, self._say = asking, say
        self._waiting: deque[Path] = deque()
        self._soon = QTimer(self)
        self._soon.setSingleShot(True)
        self._soon.timeout.connect(self._next)

    @property
    def waiting(self) -> bool:
        """Whether some are still to be taken."""
        return bool(self._waiting)

    def take(self, paths: list[Path]) -> None:
        """Take what was dropped."""
        notebooks = [path for path in paths if path.suffix == ".vadrin"]
        pictures = [path for path in paths if is_picture(path)]
        first = (notebooks or pictures or paths)[0]
        alone = [first] if notebooks else [p for p in paths if p == first or p not in pictures]
        left = [path.name for path in paths if path not in alone]
        self._waiting.extend(alone)
        self._next()
        if left:
            self._say(f"{first.name} was taken. Drop the others after it: {', '.join(left)}.")

    def forget(self) -> None:
        """Those that still wait were meant for the notebook that lay open."""
        self._waiting.clear()

    def _next(self) -> None:
        if not self._waiting:
            return
        if not self._asking():
            path = self._waiting.popleft()
            if path.suffix == ".vadrin":
                self._open(path)
            elif not self._take_here(path):
                self._offer(path)
        if self._waiting:
            self._soon.start(_LOOK_MS)

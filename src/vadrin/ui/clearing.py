"""What Python clears away in circles is cleared on the screen's thread alone.

Python looks for such circles in whatever thread happens to make the next object. A circle may
hold widgets, and a widget that is deleted in the thread of a job takes the program with it.
"""

from __future__ import annotations

import gc
from collections.abc import Callable

from PyQt6.QtCore import QObject, QTimer

_EVERY_MS = 2000
_YOUNG, _OLDER, _OLD = 50_000, 20, 50
"""New objects, and passes over younger ones, after which it is worth looking."""


class Clearing(QObject):
    """Clears between the turns of the event loop; nothing is cleared by itself any more.

    Parameters
    ----------
    parent : QObject
    loading : callable
        Whether the program is still being loaded: what is made meanwhile lasts as long as it
        does, and is not looked through again and again.
    """

    def __init__(self, parent: QObject, loading: Callable[[], bool] = lambda: False) -> None:
        super().__init__(parent)
        self._loading = loading
        gc.disable()
        timer = QTimer(self)
        timer.timeout.connect(self.look)
        timer.start(_EVERY_MS)

    def look(self) -> None:
        """Look for circles if enough was made since: among the young first, rarely among all."""
        if self._loading():
            gc.freeze()
            return
        young, older, old = gc.get_count()
        if young > _YOUNG:
            gc.collect(2 if old > _OLD else 1 if older > _OLDER else 0)

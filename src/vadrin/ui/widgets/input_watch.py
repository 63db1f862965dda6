"""Looking at keys before what has the keyboard gets them."""

from __future__ import annotations

from collections.abc import Callable
from typing import ClassVar
from weakref import WeakSet

from PyQt6 import sip
from PyQt6.QtCore import QEvent, QObject
from PyQt6.QtWidgets import QApplication, QWidget


class InputWatch(QObject):
    """Sees what comes to the widget that has the keyboard, whichever that is.

    It watches that one alone, never the whole program, and nothing that Qt made by itself: a
    filter on those is called for what is just being deleted, too. Python then makes a half for
    what is gone, and takes it for whatever is made at its place in memory: a crash, some time
    later.

    Parameters
    ----------
    seen : callable
        Told of every event of that widget, before it is.
    """

    _all: ClassVar[WeakSet[InputWatch]] = WeakSet()

    def __init__(self, seen: Callable[[QEvent], None]) -> None:
        super().__init__()
        InputWatch._all.add(self)
        self._seen = seen
        self._held: QWidget | None = None
        self._watching = False

    def begin(self) -> None:
        """Look from now on."""
        app = QApplication.instance()
        if self._watching or not isinstance(app, QApplication):
            return
        self._watching = True
        app.focusChanged.connect(self._follow)
        self._hold(QApplication.focusWidget())

    def end(self) -> None:
        """Look no more."""
        app = QApplication.instance()
        if not self._watching or not isinstance(app, QApplication):
            return
        self._watching = False
        app.focusChanged.disconnect(self._follow)
        self._hold(None)

    @classmethod
    def look_away(cls, part: QWidget) -> None:
        """Look at nothing in a part of the window that is about to be deleted."""
        for watch in cls._all:
            held = watch._held
            if held is None or sip.isdeleted(held):
                continue
            if held is part or part.isAncestorOf(held):
                watch._hold(None)

    def _follow(self, _before: QWidget | None, now: QWidget | None) -> None:
        self._hold(now)

    def _hold(self, widget: QWidget | None) -> None:
        if self._held is not None and not sip.isdeleted(self._held):
            self._held.removeEventFilter(self)
        self._held = widget if widget is not None and sip.ispycreated(widget) else None
        if self._held is not None:
            self._held.installEventFilter(self)

    def eventFilter(self, _watched: QObject | None, event: QEvent | None) -> bool:
        """Tell of it, and leave it to whom it is for."""
        if event is not None:
            self._seen(event)
        return False

"""Changes of the workbench, collected and told once an event-loop turn."""

from __future__ import annotations

from collections.abc import Callable

from PyQt6.QtCore import QCoreApplication, QEvent, QObject, QTimer

from vadrin.app.document.workbench import Topic, Workbench
from vadrin.ui.widgets.input_watch import InputWatch

Listener = Callable[[Topic], None]

_INPUT = (QEvent.Type.KeyPress, QEvent.Type.ShortcutOverride)


class Updates(QObject):
    """Tells every view once what changed since it was told last, if it asked for it.

    A key that comes before the turn is over finds the views up to date: they are told first. A
    click is at what stood there when it was made.

    Parameters
    ----------
    bench : Workbench
    """

    def __init__(self, bench: Workbench) -> None:
        super().__init__()
        self._preparers: list[Listener] = []
        self._listeners: list[tuple[Callable[[], Topic], Listener]] = []
        self._pending = Topic.NOTHING
        self._closed = False
        self._watch = InputWatch(self._look)
        self._turn = QTimer(self)
        self._turn.setSingleShot(True)
        self._turn.timeout.connect(self.flush)
        bench.changed.connect(self.note)

    def prepare(self, preparer: Listener) -> None:
        """Call something before the views are told; what it changes is told along with it."""
        self._preparers.append(preparer)

    def subscribe(self, topics: Topic | Callable[[], Topic], listener: Listener) -> None:
        """Tell a listener about changes of some topics, in the order listeners came."""
        wanted = topics if callable(topics) else lambda: topics
        self._listeners.append((wanted, listener))

    def note(self, topic: Topic) -> None:
        """Collect a change; it is told when the event loop turns."""
        if self._closed:
            return
        self._pending |= topic
        app = QCoreApplication.instance()
        if not self._turn.isActive() and app is not None:
            self._turn.start(0)
            self._watch.begin()

    def flush(self) -> None:
        """Tell what was collected."""
        if self._closed:
            return
        for preparer in self._preparers:
            preparer(self._pending)
        self._wait_no_more()
        told, self._pending = self._pending, Topic.NOTHING
        for topics, listener in self._listeners:
            if topics() & told:
                listener(told)

    def stop(self) -> None:
        """Tell nothing any more: the window is closed."""
        self._closed = True
        self._wait_no_more()

    def _wait_no_more(self) -> None:
        self._turn.stop()
        self._watch.end()

    def _look(self, event: QEvent) -> None:
        """Tell the views before they get a key."""
        if event.type() in _INPUT and self._turn.isActive():
            self.flush()

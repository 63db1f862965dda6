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
    one_by_one : callable, optional
        Whether what is on the bench is so much that every view has a turn of its own.
    """

    def __init__(self, bench: Workbench, one_by_one: Callable[[], bool] = lambda: False) -> None:
        super().__init__()
        self._one_by_one = one_by_one
        self._preparers: list[Listener] = []
        self._listeners: list[tuple[Callable[[], Topic], Listener]] = []
        self._pending = Topic.NOTHING
        self._owed: dict[int, Topic] = {}
        """What listeners are still to be told of, by their place."""
        self._closed = False
        self._watch = InputWatch(self._look)
        self._turn = QTimer(self)
        self._turn.setSingleShot(True)
        self._turn.timeout.connect(self._take_turn)
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
        self._collect()
        self._wait_no_more()
        while self._owed:
            self._tell_next()

    def _take_turn(self) -> None:
        """Tell what was collected, or the next view alone where each takes long."""
        if not self._one_by_one():
            self.flush()
            return
        if self._pending:
            self._collect()
        elif self._owed:
            self._tell_next()
        if self._pending or self._owed:
            self._turn.start(0)
        else:
            self._wait_no_more()

    def _collect(self) -> None:
        """Ask the preparers, and owe what is pending to every listener."""
        for preparer in self._preparers:
            preparer(self._pending)
        told, self._pending = self._pending, Topic.NOTHING
        self._owed = {
            place: self._owed.get(place, Topic.NOTHING) | told
            for place in range(len(self._listeners))
        }

    def _tell_next(self) -> None:
        """Tell the next listener that asked for some of what it is owed."""
        for place in list(self._owed):
            owed = self._owed.pop(place)
            topics, listener = self._listeners[place]
            if topics() & owed:
                listener(owed)
                return

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

"""Where the keyboard goes when what lay over the window is closed."""

from __future__ import annotations

from collections.abc import Callable

from PyQt6 import sip
from PyQt6.QtCore import QObject, QPoint, QRect, Qt, QTimer
from PyQt6.QtWidgets import QAbstractButton, QApplication, QLayout, QLineEdit, QScrollArea, QWidget

_WATCHED = "its room is watched"


def part_in_sight(widget: QWidget) -> QRect:
    """The part of a widget that what it lies in leaves to be seen, in its own coordinates."""
    seen, inner, above = widget.rect(), QPoint(0, 0), widget.parentWidget()
    here: QWidget = widget
    while above is not None and widget.isVisible():
        inner += here.pos()
        seen &= above.rect().translated(-inner)
        here, above = above, None if above.isWindow() else above.parentWidget()
    return seen if widget.isVisible() else QRect()


def first_field(part: QWidget) -> QWidget | None:
    """The first field to write in that a part of the window shows, top to bottom."""
    fields = [f for f in part.findChildren(QLineEdit) if f.isVisibleTo(part) and f.isEnabled()]
    places = [f.mapTo(part, QPoint(0, 0)) for f in fields]
    ordered = sorted(zip(places, fields, strict=True), key=lambda at: (at[0].y(), at[0].x()))
    return ordered[0][1] if ordered else None


def bring_into_sight(held: QWidget) -> None:
    """Scroll whatever it lies in so far that what has the keyboard is seen.

    A list or a plot that is seen in part stays where it is.
    """
    small = isinstance(held, QLineEdit | QAbstractButton)
    if not small and not part_in_sight(held).isEmpty():
        return
    inner: QWidget = held
    above = held.parentWidget()
    while above is not None:
        if isinstance(above, QScrollArea) and above.widget() is not None:
            if above.isAncestorOf(inner):
                above.ensureWidgetVisible(held, 0, 4)
            inner = above
        above = above.parentWidget()


class KeyboardInSight(QObject):
    """What gets the keyboard in a window is scrolled to, and stays in sight when room changes."""

    def __init__(self, window: QWidget) -> None:
        super().__init__(window)
        self._window = window
        app = QApplication.instance()
        if isinstance(app, QApplication):
            app.focusChanged.connect(self._moved)

    def _moved(self, _before: QWidget | None, now: QWidget | None) -> None:
        if now is not None:
            self.look_soon()

    def look_soon(self) -> None:
        """Look once everything has its place."""
        QTimer.singleShot(0, self._look)

    def _look(self) -> None:
        held = QApplication.focusWidget()
        if held is not None and self._window.isAncestorOf(held):
            self._watch(held)
            bring_into_sight(held)

    def _watch(self, held: QWidget) -> None:
        """What it lies in may get its room only later."""
        above = held.parentWidget()
        while above is not None:
            # What Qt made itself Python does not keep: that it is watched stands on the area.
            if isinstance(above, QScrollArea) and not above.property(_WATCHED):
                bar = above.verticalScrollBar()
                if bar is not None:
                    bar.rangeChanged.connect(self.look_soon)
                    above.setProperty(_WATCHED, True)
            above = above.parentWidget()


def show_what_was_added(over: QWidget) -> None:
    """Show at once what was put on a page this moment, so that the keyboard can go there.

    Qt shows it in a turn to come, and until then keys would go elsewhere.
    """
    by_choice = Qt.WidgetAttribute.WA_WState_ExplicitShowHide
    waiting: list[QLayout] = []
    for part in over.findChildren(QWidget):
        if part.isHidden() and not part.testAttribute(by_choice) and not part.isWindow():
            above = part.parentWidget()
            if above is not None and above.isVisible():
                laid = above.layout()
                if laid is not None and laid.isEnabled():
                    # Else all of them are laid out anew for each that is shown.
                    laid.setEnabled(False)
                    waiting.append(laid)
                part.show()
    for laid in reversed(waiting):
        laid.setEnabled(True)
        laid.activate()


class KeyboardBefore:
    """Remembers what had the keyboard, and gives it back if that can still be seen.

    Parameters
    ----------
    otherwise : callable
        Puts the keyboard where the work begins, where what had it is gone or hidden.
    """

    def __init__(self, otherwise: Callable[[], object]) -> None:
        self._otherwise = otherwise
        self._before: QWidget | None = None

    def remember(self) -> None:
        """What has the keyboard now will get it back."""
        self._before = QApplication.focusWidget()

    def give_back(self) -> None:
        """Give it back."""
        before, self._before = self._before, None
        if before is not None and not sip.isdeleted(before) and before.isVisible():
            before.setFocus()
        else:
            self._otherwise()

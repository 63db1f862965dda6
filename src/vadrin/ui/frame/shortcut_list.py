"""What the station one is at is for, and its keys, over the window."""

from __future__ import annotations

from collections.abc import Callable, Iterable, Sequence
from importlib.resources import files

from PyQt6.QtCore import QSize, Qt
from PyQt6.QtGui import QKeyEvent, QPixmap
from PyQt6.QtWidgets import QGridLayout, QHBoxLayout, QLabel, QVBoxLayout, QWidget

from vadrin.ui.actions import Action
from vadrin.ui.theme.roles import Role
from vadrin.ui.theme.typeface import px
from vadrin.ui.widgets.keyboard import KeyboardBefore
from vadrin.ui.widgets.labels import text
from vadrin.ui.widgets.overlay import Overlay
from vadrin.ui.widgets.scrolling import scrolled

_KEYS_PX, _BETWEEN_PX, _WORDS_PX = 90, 14, 270


class ShortcutList(Overlay):
    """A sheet over the middle of the window."""

    def __init__(self, parent: QWidget, otherwise: Callable[[], object]) -> None:
        super().__init__(parent)
        self._keyboard = KeyboardBefore(otherwise)
        self.setAccessibleName("what this station is for, and its keys")
        column = QVBoxLayout(self)
        column.setContentsMargins(px(24), px(18), px(14), px(18))
        self._area = scrolled()
        self._area.setHorizontalScrollBarPolicy(Qt.ScrollBarPolicy.ScrollBarAlwaysOff)
        column.addWidget(self._area)
        self.hide()

    def toggle(
        self,
        purpose: Sequence[str],
        here: Iterable[Action],
        everywhere: Iterable[Action],
        picture: str = "",
    ) -> None:
        """Show what a station is for and the keys of it and of the window, or hide them.

        `picture` is the name of the station's picture; empty where none may be shown.
        """
        if self.isVisible():
            self._leave()
            return
        inner = self._loaded(purpose, here, everywhere, picture)
        self._area.setWidget(inner)
        parent = self.parentWidget()
        if parent:
            wanted = inner.sizeHint() + QSize(px(52), px(44))
            size = wanted.boundedTo(parent.size() - QSize(px(20), px(20)))
            left, top = parent.width() - size.width(), parent.height() - size.height()
            self.setGeometry(left // 2, top // 2, size.width(), size.height())
            self._keyboard.remember()
        self.show()
        self.raise_()
        self.setFocus()

    def _loaded(
        self,
        purpose: Sequence[str],
        here: Iterable[Action],
        everywhere: Iterable[Action],
        picture: str,
    ) -> QWidget:
        """Both lists beside each other, or one under the other where there is no room."""
        inner = QWidget()
        parent = self.parentWidget()
        wide = parent is not None and parent.width() > px(2 * (_KEYS_PX + _WORDS_PX) + 140)
        lists = QHBoxLayout(inner) if wide else QVBoxLayout(inner)
        lists.setContentsMargins(0, 0, px(10), 0)
        lists.setSpacing(px(24))
        station = QVBoxLayout()
        station.setSpacing(px(16))
        if purpose:
            station.addWidget(_sentences(purpose))
        shown = _picture(picture) if picture else None
        if shown is not None:
            station.addWidget(shown)
        station.addWidget(_listed("Keys here", here))
        station.addStretch()
        lists.addLayout(station)
        lists.addWidget(_listed("Keys everywhere", everywhere))
        return inner

    def _leave(self) -> None:
        self.hide()
        self._keyboard.give_back()

    def keyPressEvent(self, event: QKeyEvent | None) -> None:
        """Any of Esc and F1 closes it; arrow keys scroll it."""
        if event and event.key() in (Qt.Key.Key_Escape, Qt.Key.Key_F1):
            self._leave()
        elif event and event.key() in (Qt.Key.Key_Down, Qt.Key.Key_Up):
            bar = self._area.verticalScrollBar()
            if bar is not None:
                bar.setValue(bar.value() + px(60) * (1 if event.key() == Qt.Key.Key_Down else -1))
        else:
            super().keyPressEvent(event)


def _sentences(purpose: Sequence[str]) -> QWidget:
    """Sentences under a title, a line each."""
    holder = QWidget()
    column = QVBoxLayout(holder)
    column.setContentsMargins(0, 0, 0, 0)
    column.setSpacing(px(4))
    column.addWidget(text("What this station is for", Role.SUBHEADING))
    for sentence in purpose:
        said = text(sentence, Role.NOTE, wrap=True)
        said.setMinimumWidth(px(_KEYS_PX + _BETWEEN_PX + _WORDS_PX))
        column.addWidget(said)
    return holder


def _picture(name: str) -> QLabel | None:
    """A station as it looks with tests in it; None where there is no picture of it."""
    file, image = files("vadrin") / "guide" / f"{name}.png", QPixmap()
    if not file.is_file() or not image.loadFromData(file.read_bytes()):
        return None
    shown = QLabel()
    wide = px(_KEYS_PX + _BETWEEN_PX + _WORDS_PX)
    shown.setPixmap(image.scaledToWidth(wide, Qt.TransformationMode.SmoothTransformation))
    shown.setAccessibleName("picture of this station with tests of the demo notebook")
    return shown


def _listed(title: str, actions: Iterable[Action]) -> QWidget:
    """Keys with what they do, under a title."""
    holder = QWidget()
    grid = QGridLayout(holder)
    grid.setContentsMargins(0, 0, 0, 0)
    grid.setHorizontalSpacing(px(_BETWEEN_PX))
    grid.setVerticalSpacing(px(4))
    grid.setColumnMinimumWidth(0, px(_KEYS_PX))
    grid.setColumnMinimumWidth(1, px(_WORDS_PX))
    grid.addWidget(text(title, Role.SUBHEADING), 0, 0, 1, 2)
    shown = [a for a in actions if a.key_text]
    for row, action in enumerate(shown, start=1):
        grid.addWidget(text(action.key_text, Role.STRONG), row, 0, Qt.AlignmentFlag.AlignTop)
        grid.addWidget(text(action.words, Role.NOTE, wrap=True), row, 1)
    grid.setRowStretch(len(shown) + 1, 1)
    return holder

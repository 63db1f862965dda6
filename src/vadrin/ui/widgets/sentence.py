"""Sentences of plain words and fields, wrapped as text is."""

from __future__ import annotations

from typing import NamedTuple

from PyQt6.QtCore import QEvent, QPoint, QRect, QSize
from PyQt6.QtGui import QResizeEvent
from PyQt6.QtWidgets import QLabel, QLayout, QLayoutItem, QSizePolicy, QWidget

from vadrin.ui.theme.roles import Role
from vadrin.ui.theme.typeface import px
from vadrin.ui.widgets.labels import text


class _Word(NamedTuple):
    """An item with the size it asks for."""

    item: QLayoutItem
    size: QSize
    closes: bool
    """Whether it is punctuation that stands close to the word before."""
    closing: int
    """Room for the punctuation that stands close after it."""


class FlowLayout(QLayout):
    """Lays widgets out like the words of a sentence, breaking lines where they end."""

    def __init__(self, gap: int = 5, line_gap: int = 6) -> None:
        super().__init__()
        self._items: list[QLayoutItem] = []
        self._heights: dict[int, int] = {}
        self._words: list[_Word] | None = None
        self._gap, self._line_gap = px(gap), px(line_gap)
        self.setContentsMargins(0, 0, 0, 0)

    def addItem(self, item: QLayoutItem | None) -> None:
        """Take one more item."""
        if item is not None:
            self._items.append(item)
            self._words = None

    def count(self) -> int:
        """Number of items."""
        return len(self._items)

    def itemAt(self, index: int) -> QLayoutItem | None:
        """The item at an index."""
        return self._items[index] if 0 <= index < len(self._items) else None

    def takeAt(self, index: int) -> QLayoutItem | None:
        """Remove and return the item at an index."""
        self._words = None
        return self._items.pop(index) if 0 <= index < len(self._items) else None

    def hasHeightForWidth(self) -> bool:
        """A narrower sentence is a taller one."""
        return True

    def heightForWidth(self, width: int) -> int:
        """Height of the sentence at a width; asked for many times between two changes."""
        if width not in self._heights:
            self._heights[width] = self._place(QRect(0, 0, width, 0), move=False)
        return self._heights[width]

    def invalidate(self) -> None:
        """Something in it has changed."""
        self._heights.clear()
        self._words = None
        super().invalidate()

    def setGeometry(self, rect: QRect) -> None:
        """Place the items."""
        super().setGeometry(rect)
        self._place(rect, move=True)

    def sizeHint(self) -> QSize:
        """As small as it can be."""
        return self.minimumSize()

    def minimumSize(self) -> QSize:
        """The widest word."""
        size = QSize()
        for item in self._items:
            size = size.expandedTo(item.minimumSize())
        return size

    def _measured(self) -> list[_Word]:
        """What is shown, measured once between two changes."""
        if self._words is None:
            self._words = [
                _Word(item, item.sizeHint(), _closes(item.widget()), self._closing(place))
                for place, item in enumerate(self._items)
                if not item.isEmpty()
            ]
        return self._words

    def _place(self, rect: QRect, move: bool) -> int:
        left, right, width = rect.x(), rect.right() + 1, rect.width()
        x, y, high = left, rect.y(), 0
        line: list[tuple[QLayoutItem, int, QSize]] = []
        for item, size, closes, closing in self._measured():
            wide = min(size.width(), max(width - closing, 1))
            x -= self._gap if closes else 0
            if x + wide + closing > right and x > left and not closes:
                self._set(line, y, high, move)
                x, y, high, line = left, y + high + self._line_gap, 0, []
            line.append((item, x, QSize(wide, size.height())))
            x += wide + self._gap
            high = max(high, size.height())
        self._set(line, y, high, move)
        return y + high - rect.y()

    @staticmethod
    def _set(line: list[tuple[QLayoutItem, int, QSize]], y: int, high: int, move: bool) -> None:
        """Put the items of a line beside each other, each in the middle of its height."""
        for item, x, size in line if move else ():
            item.setGeometry(QRect(QPoint(x, y + (high - size.height()) // 2), size))

    def _closing(self, place: int) -> int:
        """Room for the punctuation that stands close after an item."""
        after = self._items[place + 1] if place + 1 < len(self._items) else None
        return after.sizeHint().width() if after and _closes(after.widget()) else 0


class _Sentence(QWidget):
    """Keeps the height its words need at the width it got."""

    def resizeEvent(self, event: QResizeEvent | None) -> None:
        super().resizeEvent(event)
        self._fit()

    def event(self, event: QEvent | None) -> bool:
        done = super().event(event)
        if event is not None and event.type() == QEvent.Type.LayoutRequest:
            self._fit()
        return done

    def _fit(self) -> None:
        flow = self.layout()
        if flow is not None:
            self.setMinimumHeight(flow.heightForWidth(self.width()))


def _closes(widget: QWidget | None) -> bool:
    """Whether a word is punctuation that stands close to the word before."""
    return isinstance(widget, QLabel) and widget.text()[:1] in {",", ".", ";"}


def sentence(*words: str | QWidget, role: Role = Role.LARGE) -> QWidget:
    """A sentence of plain words and fields, wrapped as text is."""
    parts: list[QWidget] = []
    for part in words:
        if isinstance(part, str):
            parts += [text(word, role) for word in part.split()]
        else:
            parts.append(part)
    return flowing(*parts)


def flowing(*parts: QWidget, gap: int = 5) -> QWidget:
    """Widgets beside each other, on as many lines as they need."""
    holder = _Sentence()
    flow = FlowLayout(gap)
    for part in parts:
        flow.addWidget(part)
    holder.setLayout(flow)
    policy = QSizePolicy(QSizePolicy.Policy.Preferred, QSizePolicy.Policy.Minimum)
    policy.setHeightForWidth(True)
    holder.setSizePolicy(policy)
    return holder

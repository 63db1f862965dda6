"""Sentences of plain words and fields, wrapped as text is."""

from __future__ import annotations

import re
from dataclasses import dataclass, field
from typing import NamedTuple

from PyQt6.QtCore import QEvent, QPoint, QRect, QSize, Qt
from PyQt6.QtGui import QFontMetrics, QPainter, QPaintEvent, QResizeEvent
from PyQt6.QtWidgets import (
    QAbstractButton,
    QGroupBox,
    QLabel,
    QLayout,
    QLayoutItem,
    QLineEdit,
    QSizePolicy,
    QWidget,
)

from vadrin.app.display.region import local
from vadrin.ui.theme.look import TONES
from vadrin.ui.theme.regional import write
from vadrin.ui.theme.roles import Role
from vadrin.ui.theme.typeface import px, role_font


@dataclass
class PlainWord:
    """A word that is only read: it is drawn, and no widget of its own.

    Attributes
    ----------
    words : str
    size : QSize
        What it takes in its type.
    box : QRect
        Where it lies in the sentence.
    """

    words: str
    size: QSize
    box: QRect = field(default_factory=QRect)


class _Part(NamedTuple):
    """A word or a widget of a sentence, with the size it asks for."""

    part: QLayoutItem | PlainWord
    size: QSize
    closes: bool
    """Whether it is punctuation that stands close to the word before."""
    closing: int
    """Room for the punctuation that stands close after it."""


class FlowLayout(QLayout):
    """Lays words and widgets out like the words of a sentence, breaking lines where they end."""

    def __init__(self, gap: int = 5, line_gap: int = 6) -> None:
        super().__init__()
        self._all: list[QLayoutItem | PlainWord] = []
        self._heights: dict[int, int] = {}
        self._parts: list[_Part] | None = None
        self._gap, self._line_gap = px(gap), px(line_gap)
        self.setContentsMargins(0, 0, 0, 0)

    @property
    def plain_words(self) -> list[PlainWord]:
        """The words that are drawn."""
        return [part for part in self._all if isinstance(part, PlainWord)]

    def said(self) -> list[str]:
        """All words in order, those in fields as well."""
        parts = (p if isinstance(p, PlainWord) else p.widget() for p in self._all)
        return [_words_of(part) for part in parts if part is not None]

    @property
    def fields(self) -> list[QLineEdit]:
        """The fields between its words."""
        parts = (item.widget() for item in self._items)
        return [part for part in parts if isinstance(part, QLineEdit)]

    @property
    def _items(self) -> list[QLayoutItem]:
        return [part for part in self._all if not isinstance(part, PlainWord)]

    def add_word(self, word: PlainWord) -> None:
        """Take one more word."""
        self._all.append(word)
        self._parts = None

    def addItem(self, item: QLayoutItem | None) -> None:
        """Take one more item."""
        if item is not None:
            self._all.append(item)
            self._parts = None

    def count(self) -> int:
        """Number of items."""
        return len(self._items)

    def itemAt(self, index: int) -> QLayoutItem | None:
        """The item at an index."""
        items = self._items
        return items[index] if 0 <= index < len(items) else None

    def takeAt(self, index: int) -> QLayoutItem | None:
        """Remove and return the item at an index."""
        taken = self.itemAt(index)
        if taken is not None:
            self._all = [part for part in self._all if part is not taken]
            self._parts = None
        return taken

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
        self._parts = None
        super().invalidate()

    def setGeometry(self, rect: QRect) -> None:
        """Place the words and items."""
        super().setGeometry(rect)
        self._place(rect, move=True)

    def sizeHint(self) -> QSize:
        """As small as it can be."""
        return self.minimumSize()

    def minimumSize(self) -> QSize:
        """The widest word."""
        size = QSize()
        for part in self._all:
            size = size.expandedTo(part.size if isinstance(part, PlainWord) else part.minimumSize())
        return size

    def _measured(self) -> list[_Part]:
        """What is shown, measured once between two changes."""
        if self._parts is None:
            self._parts = [
                _Part(part, _size(part), _closes(part), _closing(after))
                for part, after in zip(self._all, [*self._all[1:], None], strict=True)
                if isinstance(part, PlainWord) or not part.isEmpty()
            ]
        return self._parts

    def _place(self, rect: QRect, move: bool) -> int:
        left, right, width = rect.x(), rect.right() + 1, rect.width()
        x, y, high = left, rect.y(), 0
        line: list[tuple[QLayoutItem | PlainWord, int, QSize]] = []
        for part, size, closes, closing in self._measured():
            wide = min(size.width(), max(width - closing, 1))
            x -= self._gap if closes else 0
            if x + wide + closing > right and x > left and not closes:
                self._set(line, y, high, move)
                x, y, high, line = left, y + high + self._line_gap, 0, []
            line.append((part, x, QSize(wide, size.height())))
            x += wide + self._gap
            high = max(high, size.height())
        self._set(line, y, high, move)
        return y + high - rect.y()

    @staticmethod
    def _set(
        line: list[tuple[QLayoutItem | PlainWord, int, QSize]], y: int, high: int, move: bool
    ) -> None:
        """Put the parts of a line beside each other, each in the middle of its height."""
        for part, x, size in line if move else ():
            box = QRect(QPoint(x, y + (high - size.height()) // 2), size)
            if isinstance(part, PlainWord):
                part.box = box
            else:
                part.setGeometry(box)


def _words_of(part: PlainWord | QWidget) -> str:
    if isinstance(part, PlainWord):
        return part.words
    return part.text() if isinstance(part, QLineEdit | QLabel | QAbstractButton) else ""


def _size(part: QLayoutItem | PlainWord) -> QSize:
    return part.size if isinstance(part, PlainWord) else part.sizeHint()


def _closes(part: QLayoutItem | PlainWord | None) -> bool:
    """Whether it is punctuation that stands close to the word before."""
    if isinstance(part, PlainWord):
        return part.words[:1] in {",", ".", ";"}
    widget = part.widget() if part is not None else None
    return isinstance(widget, QLabel) and widget.text()[:1] in {",", ".", ";"}


def _closing(after: QLayoutItem | PlainWord | None) -> int:
    """Room for the punctuation that stands close after a part."""
    return _size(after).width() if after is not None and _closes(after) else 0


class FlowingSentence(QGroupBox):
    """Draws its plain words, and keeps the height all of them need at the width it got.

    To a screen reader it is a group that is called what the sentence says, fields and all.
    """

    def __init__(self, flow: FlowLayout, role: Role = Role.LARGE) -> None:
        super().__init__()
        self._flow, self._role = flow, role
        self.setLayout(flow)
        self.setForegroundRole(TONES[role.tone])
        self._call_it()
        self.setContentsMargins(0, 0, 0, 0)
        for item in flow.fields:
            item.textChanged.connect(self._call_it)
        policy = QSizePolicy(QSizePolicy.Policy.Preferred, QSizePolicy.Policy.Minimum)
        policy.setHeightForWidth(True)
        self.setSizePolicy(policy)

    def text(self) -> str:
        """Its plain words, without what stands in its fields."""
        return " ".join(word.words for word in self._flow.plain_words)

    def whole(self) -> str:
        """The sentence as it is read, with what stands in its fields."""
        said = " ".join(self._flow.said())
        return re.sub(r"\s+([,.;])", r"\1", said)

    def _call_it(self) -> None:
        if self._flow.plain_words:
            self.setAccessibleName(self.whole())

    def resizeEvent(self, _event: QResizeEvent | None) -> None:
        """The words wrap anew; a box with a title, which this is none, would make room for it."""
        self._fit()

    def minimumSizeHint(self) -> QSize:
        """What its words need."""
        return self._flow.minimumSize()

    def changeEvent(self, event: QEvent | None) -> None:
        """No room for a title in another font either."""
        super().changeEvent(event)
        self.setContentsMargins(0, 0, 0, 0)

    def event(self, event: QEvent | None) -> bool:
        """What stands in a field may be longer now."""
        done = super().event(event)
        if event is not None and event.type() == QEvent.Type.LayoutRequest:
            self._fit()
        return done

    def paintEvent(self, event: QPaintEvent | None) -> None:
        """Draw the plain words."""
        if event is None or not self._flow.plain_words:
            return
        painter = QPainter(self)
        painter.setFont(role_font(self._role))
        painter.setPen(self.palette().color(self.foregroundRole()))
        middle = Qt.AlignmentFlag.AlignVCenter | Qt.TextFlag.TextDontClip
        for word in self._flow.plain_words:
            if word.box.intersects(event.rect()):
                write(painter, word.box, middle, word.words)

    def _fit(self) -> None:
        self.setMinimumHeight(self._flow.heightForWidth(self.width()))
        self.update()


def sentence(*words: str | QWidget, role: Role = Role.LARGE) -> FlowingSentence:
    """A sentence of plain words and fields, wrapped as text is."""
    flow, metrics = FlowLayout(), QFontMetrics(role_font(role))
    for part in words:
        if isinstance(part, QWidget):
            flow.addWidget(part)
            continue
        for word in local(part).split():
            size = QSize(metrics.horizontalAdvance(word), metrics.height())
            flow.add_word(PlainWord(word, size))
    return FlowingSentence(flow, role)


def flowing(*parts: QWidget, gap: int = 5) -> QWidget:
    """Widgets beside each other, on as many lines as they need."""
    flow = FlowLayout(gap)
    for part in parts:
        flow.addWidget(part)
    return FlowingSentence(flow)

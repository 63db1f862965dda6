"""The few kinds of widget that every station is made of."""

from __future__ import annotations

from collections.abc import Callable, Sequence

from PyQt6.QtCore import QEvent, QPoint, QRect, QSize, Qt, pyqtSignal
from PyQt6.QtGui import QFocusEvent, QKeyEvent, QKeySequence, QResizeEvent
from PyQt6.QtWidgets import (
    QFrame,
    QLabel,
    QLayout,
    QLayoutItem,
    QLineEdit,
    QPushButton,
    QSizePolicy,
    QWidget,
)

from vadrin.ui.theme.typeface import font, px


def text(words: str = "", size: int = 13, weight: int = 400, tone: str = "", wrap: bool = False
         ) -> QLabel:  # fmt: skip
    """A label; `tone` is empty, soft, grease or done."""
    label = QLabel(words)
    label.setFont(font(size, weight))
    label.setProperty("tone", tone)
    label.setWordWrap(wrap)
    label.setTextFormat(Qt.TextFormat.PlainText)
    return label


def rule() -> QFrame:
    """A hairline."""
    line = QFrame()
    line.setProperty("rule", "true")
    line.setFixedHeight(1)
    return line


def button(words: str, act: Callable[[], object], primary: bool = False, link: bool = False
           ) -> QPushButton:  # fmt: skip
    """A push button; the primary one is filled, a link looks like text."""
    made = QPushButton(words)
    made.setFont(font(15 if primary else 13))
    if primary:
        made.setProperty("primary", "true")
    if link:
        made.setProperty("link", "true")
    made.clicked.connect(lambda: act())
    return made


def chooser(choices: Sequence[str] | Callable[[], Sequence[str]]) -> Callable[[str, int], str]:
    """Step round a list as it is read: the arrow down goes on, the arrow up goes back."""

    def step(shown: str, way: int) -> str:
        known = list(choices() if callable(choices) else choices)
        if shown not in known:
            return known[0] if known else shown
        return known[(known.index(shown) - way) % len(known)]

    return step


class Field(QLineEdit):
    """A line to type in that leaves undo and redo to the notebook."""

    def event(self, event: QEvent | None) -> bool:
        """Let the window have Ctrl+Z and Ctrl+Y."""
        if isinstance(event, QKeyEvent) and event.type() == QEvent.Type.ShortcutOverride:
            undo, redo = QKeySequence.StandardKey.Undo, QKeySequence.StandardKey.Redo
            if event.matches(undo) or event.matches(redo) or event.key() == Qt.Key.Key_Y:
                event.ignore()
                return False
        return super().event(event)


class WordField(Field):
    """A word in a sentence that is changed in place: typed, or stepped by the arrow keys.

    Parameters
    ----------
    name : str
        What it is, for screen readers and the tool tip.
    commit : callable
        Takes the typed text; raises ValueError with words to refuse it.
    step : callable, optional
        Takes the present text and +1 or -1, returns the next text.
    """

    refused = pyqtSignal(str)

    def __init__(
        self, name: str, commit: Callable[[str], None],
        step: Callable[[str, int], str] | None = None, size: int = 17,
    ) -> None:  # fmt: skip
        super().__init__()
        self._commit, self._step, self._shown = commit, step, ""
        self._refused: str | None = None
        self.setAccessibleName(name)
        hint = "type, or press the up and down arrows" if step else "type"
        self.setToolTip(f"{name}: {hint}")
        self.setProperty("word", "true")
        self.setFont(font(size, 700))
        self.textChanged.connect(self._fit)
        self.editingFinished.connect(self.settle)
        self.setSizePolicy(QSizePolicy.Policy.Fixed, QSizePolicy.Policy.Fixed)

    def show_value(self, shown: str) -> None:
        """Show a value that was accepted."""
        self._shown, self._refused = shown, None
        self._mark(False)
        if self.text() != shown:
            self.setText(shown)
            if self.hasFocus():
                self.selectAll()
            else:
                self.setCursorPosition(0)

    def settle(self) -> None:
        """Hand the typed text on; refused text stays, marked, with the reason said."""
        if self.text() in (self._shown, self._refused):
            return
        self._refused = None
        try:
            self._commit(self.text())
        except ValueError as error:
            # The same words are not tried again when the field is left, or the window closed.
            self._refused = self.text()
            self._mark(True)
            self.setToolTip(str(error))
            self.refused.emit(str(error))
            return
        self._mark(False)
        self.refused.emit("")

    def keyPressEvent(self, event: QKeyEvent | None) -> None:
        """Step by the arrow keys, drop the typing by Escape."""
        if event is None:
            return
        moves = {Qt.Key.Key_Up: 1, Qt.Key.Key_Down: -1}
        if event.key() in moves and self._step is not None:
            self.setText(self._step(self.text(), moves[Qt.Key(event.key())]))
            self.settle()
        elif event.key() == Qt.Key.Key_Escape and self.text() != self._shown:
            self.show_value(self._shown)
            self.refused.emit("")
        else:
            super().keyPressEvent(event)

    def focusInEvent(self, event: QFocusEvent | None) -> None:
        """Select all, so that typing replaces the word."""
        super().focusInEvent(event)
        self.selectAll()

    def _mark(self, wrong: bool) -> None:
        if self.property("wrong") != ("true" if wrong else "false"):
            self.setProperty("wrong", "true" if wrong else "false")
            style = self.style()
            if style:
                style.unpolish(self)
                style.polish(self)

    def _fit(self) -> None:
        width = self.fontMetrics().horizontalAdvance(self.text() or "  ")
        self.setFixedWidth(max(px(18), width + px(10)))
        self.updateGeometry()


class FlowLayout(QLayout):
    """Lays widgets out like the words of a sentence, breaking lines where they end."""

    def __init__(self, gap: int = 5, line_gap: int = 6) -> None:
        super().__init__()
        self._items: list[QLayoutItem] = []
        self._gap, self._line_gap = gap, line_gap
        self.setContentsMargins(0, 0, 0, 0)

    def addItem(self, item: QLayoutItem | None) -> None:
        """Take one more item."""
        if item is not None:
            self._items.append(item)

    def count(self) -> int:
        """Number of items."""
        return len(self._items)

    def itemAt(self, index: int) -> QLayoutItem | None:
        """The item at an index."""
        return self._items[index] if 0 <= index < len(self._items) else None

    def takeAt(self, index: int) -> QLayoutItem | None:
        """Remove and return the item at an index."""
        return self._items.pop(index) if 0 <= index < len(self._items) else None

    def hasHeightForWidth(self) -> bool:
        """A narrower sentence is a taller one."""
        return True

    def heightForWidth(self, width: int) -> int:
        """Height of the sentence at a width."""
        return self._place(QRect(0, 0, width, 0), move=False)

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

    def _place(self, rect: QRect, move: bool) -> int:
        x, y, line = rect.x(), rect.y(), 0
        for item in self._items:
            hint = item.sizeHint()
            if _closes(item.widget()):
                x -= self._gap
            if x + hint.width() > rect.right() + 1 and x > rect.x() and not _closes(item.widget()):
                x, y, line = rect.x(), y + line + self._line_gap, 0
            if move:
                item.setGeometry(QRect(QPoint(x, y), hint))
            x += hint.width() + self._gap
            line = max(line, hint.height())
        return y + line - rect.y()


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


def sentence(*words: str | QWidget, size: int = 17) -> QWidget:
    """A sentence of plain words and fields, wrapped as text is."""
    holder = _Sentence()
    flow = FlowLayout()
    for part in words:
        if isinstance(part, str):
            for word in part.split():
                flow.addWidget(text(word, size))
        else:
            flow.addWidget(part)
    holder.setLayout(flow)
    policy = QSizePolicy(QSizePolicy.Policy.Preferred, QSizePolicy.Policy.Minimum)
    policy.setHeightForWidth(True)
    holder.setSizePolicy(policy)
    return holder

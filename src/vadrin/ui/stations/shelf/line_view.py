"""The lines of the shelf: a model of tests and headings, and how one is drawn."""

from __future__ import annotations

from time import perf_counter
from typing import TYPE_CHECKING

from PyQt6.QtCore import (
    QAbstractListModel,
    QModelIndex,
    QObject,
    QPointF,
    QRect,
    QSize,
    Qt,
    QTimer,
    pyqtSignal,
)
from PyQt6.QtGui import QColor, QPainter, QPen, QPolygonF
from PyQt6.QtWidgets import QStyle, QStyledItemDelegate, QStyleOptionViewItem

from vadrin.app.shelf.shelf_index import ShelfDetail, ShelfLine, Undecided, shelf_details
from vadrin.ui.theme.look import DAY, Look
from vadrin.ui.theme.regional import write
from vadrin.ui.theme.roles import Role
from vadrin.ui.theme.typeface import px, role_font

if TYPE_CHECKING:
    from vadrin.app.loaded.loaded_test import LoadedTest
    from vadrin.notebook.store import Notebook

_AT_ONCE = 4
_READ_S = 0.03
"""For reading what lines draw, in one turn; the others are drawn in the next."""


class ShelfModel(QAbstractListModel):
    """Tests and headings in the order shown; what a line draws is fetched when it is drawn.

    Attributes
    ----------
    undecided : signal
        Lines came in sight whose answer is not decided, and not worked out yet.
    """

    undecided = pyqtSignal()

    def __init__(self, parent: QObject) -> None:
        super().__init__(parent)
        self._rows: list[ShelfLine | str] = []
        self._details: dict[int, ShelfDetail] = {}
        self._answers: dict[int, Undecided] = {}
        self._notebook: Notebook | None = None
        self.marked: list[int] = []
        self._read_s, self._left_out = 0.0, False
        self._next_turn = QTimer(self)
        self._next_turn.setSingleShot(True)
        self._next_turn.timeout.connect(self._go_on)

    def show(
        self, notebook: Notebook, groups: list[tuple[str, list[ShelfLine]]], fresh: bool
    ) -> None:
        """Show lines under their headings; `fresh` where the notebook has changed."""
        self.beginResetModel()
        if fresh or notebook is not self._notebook:
            self._details, self._answers = {}, {}
        self._notebook = notebook
        self._rows = []
        for heading, lines in groups:
            if heading:
                self._rows.append(heading)
            self._rows += lines
        self.endResetModel()

    def rowCount(self, parent: QModelIndex | None = None) -> int:
        """Number of lines and headings."""
        return 0 if parent is not None and parent.isValid() else len(self._rows)

    def line(self, row: int) -> ShelfLine | None:
        """The test at a row; None for a heading."""
        found = self._rows[row] if 0 <= row < len(self._rows) else None
        return found if isinstance(found, ShelfLine) else None

    def row_of(self, test_id: int) -> int:
        """The row of a test; the first test where it is not shown."""
        for row in range(len(self._rows)):
            line = self.line(row)
            if line and line.test_id == test_id:
                return row
        return next((r for r in range(len(self._rows)) if self.line(r)), 0)

    def detail(self, row: int) -> ShelfDetail | None:
        """What a line draws, fetched together with the lines after it."""
        line = self.line(row)
        if line is None or self._notebook is None:
            return None
        if line.test_id not in self._details:
            near = [self.line(r) for r in range(row, row + _AT_ONCE)]
            wanted = [x.test_id for x in near if x and x.test_id not in self._details]
            self._details.update(shelf_details(self._notebook, wanted))
        detail = self._details.get(line.test_id)
        if detail and detail.undecided and line.test_id not in self._answers:
            self.undecided.emit()
        return detail

    def detail_in_time(self, row: int) -> ShelfDetail | None:
        """As `detail`, for drawing: None where enough was read for now; it is drawn again soon."""
        line = self.line(row)
        if line is None or line.test_id in self._details:
            return self.detail(row)
        self._next_turn.start(0)
        if self._read_s > _READ_S:
            self._left_out = True
            return None
        begun = perf_counter()
        found = self.detail(row)
        self._read_s += perf_counter() - begun
        return found

    def _go_on(self) -> None:
        """Draw what the last turn had no time for."""
        left, self._read_s, self._left_out = self._left_out, 0.0, False
        if left:
            self.draw_again()

    def waiting(self, first: int, last: int) -> list[LoadedTest]:
        """Tests from a row to another that have an answer to be worked out."""
        lines = [self.line(row) for row in range(first, last + 1)]
        ids = [x.test_id for x in lines if x and x.test_id not in self._answers]
        found = [self._details[i].undecided for i in ids if i in self._details]
        return [loaded for loaded in found if loaded is not None]

    def take_answers(self, answers: dict[int, Undecided]) -> None:
        """Show what was worked out."""
        self._answers.update(answers)
        self.draw_again()

    def draw_again(self) -> None:
        """Have every line that is seen drawn anew: the look, or what they say, is another."""
        if self._rows:
            self.dataChanged.emit(self.index(0), self.index(len(self._rows) - 1))

    def answer(self, line: ShelfLine) -> Undecided | None:
        """What a test comes to that nothing was decided on; None while that is not known."""
        return self._answers.get(line.test_id)

    def data(self, index: QModelIndex, role: int = 0) -> object:
        """Words for screen readers."""
        if role not in (Qt.ItemDataRole.AccessibleTextRole, Qt.ItemDataRole.DisplayRole):
            return None
        line = self.line(index.row())
        if line is None:
            return str(self._rows[index.row()])
        state = self.detail(index.row())
        words = f"{line.film}, {line.kind}, {line.process}, {state.state if state else ''}"
        answer = self.answer(line)
        found = answer.spoken if answer else f"{line.index} {line.time}"
        return f"{words}, {found}".strip(", ")

    def flags(self, index: QModelIndex) -> Qt.ItemFlag:
        """Headings cannot be picked."""
        if self.line(index.row()) is None:
            return Qt.ItemFlag.NoItemFlags
        return Qt.ItemFlag.ItemIsEnabled | Qt.ItemFlag.ItemIsSelectable


class ShelfPainter(QStyledItemDelegate):
    """Draws a test: film and process, its curves, its state, EI and time, age and note."""

    def __init__(self, model: ShelfModel) -> None:
        super().__init__(model)
        self.look: Look = DAY
        self._model = model

    def sizeHint(self, _option: QStyleOptionViewItem, index: QModelIndex) -> QSize:
        """Headings are lower than tests."""
        return QSize(px(400), px(62 if self._model.line(index.row()) else 34))

    def paint(
        self, painter: QPainter | None, option: QStyleOptionViewItem, index: QModelIndex
    ) -> None:
        """Draw one row."""
        line = self._model.line(index.row())
        if painter is None:
            return
        box = option.rect
        if line is None:
            painter.setPen(QColor(self.look.soft))
            painter.setFont(role_font(Role.LABEL))
            words = str(index.data(Qt.ItemDataRole.DisplayRole))
            write(painter, box.left() + px(14), box.bottom() - px(8), words)
            return
        if option.state & QStyle.StateFlag.State_Selected:
            painter.fillRect(box, QColor(self.look.sheet))
            painter.fillRect(box.left(), box.top(), px(4), box.height(), QColor(self.look.here))
        self._test(painter, box, line, self._model.detail_in_time(index.row()))
        painter.setPen(QColor(self.look.rule))
        painter.drawLine(box.left() + px(14), box.bottom(), box.right(), box.bottom())

    def _test(
        self, painter: QPainter, box: QRect, line: ShelfLine, detail: ShelfDetail | None
    ) -> None:
        look, top, low = self.look, box.top() + px(25), box.top() + px(46)
        left, width = box.left() + px(14), box.width() - px(14)
        curve, state, index = (left + round(width * share) for share in (0.33, 0.44, 0.66))
        state = max(state, curve + px(100))
        self._say(painter, left, top, curve - left - px(8), line.film, Role.SUBHEADING, name=True)
        words = f"{line.kind} · {line.process} · {line.date}"
        self._say(painter, left, low, curve - left - px(8), words, Role.NOTE, look.soft)
        whole = True
        if detail is not None:
            self._curves(painter, QRect(curve, box.top() + px(9), px(90), px(44)), detail)
            painter.setPen(QColor(look.ink))
            whole = _stated(
                painter,
                QRect(state, box.top(), index - state - px(8), low - box.top()),
                top,
                detail.state,
            )
        note = detail.changed if detail and detail.changed else line.note
        tone = look.trouble if detail and detail.changed else look.soft
        if whole:
            self._say(painter, state, low, index - state - px(8), note, Role.BODY, tone)
        right = box.right() - index - px(92)
        answer = self._model.answer(line) or Undecided(line.index, line.time)
        decided = bool(line.index)
        painter.setPen(QColor(look.ink if decided else look.soft))
        _answer(painter, QRect(index, box.top(), right, low - box.top()), top, answer.index or "—")
        standing = "decided" if decided else "not decided" if answer.index else ""
        words = ", ".join(part for part in (answer.time, standing) if part)
        self._say(painter, index, low, right, words, Role.BODY, "" if decided else look.soft)
        self._say(painter, box.right() - px(92), top, px(88), line.age, Role.NOTE, look.soft)
        if line.test_id in self._model.marked:
            self._say(painter, box.right() - px(92), low, px(88), "marked", Role.LABEL, look.done)

    def _say(
        self,
        painter: QPainter,
        x: int,
        y: int,
        room: int,
        words: str,
        role: Role,
        tone: str = "",
        name: bool = False,
    ) -> None:
        painter.setPen(QColor(tone or self.look.ink))
        painter.setFont(role_font(role))
        # A name is told by its end as well; a sentence is read from its beginning.
        way = Qt.TextElideMode.ElideMiddle if name else Qt.TextElideMode.ElideRight
        shown = painter.fontMetrics().elidedText(words, way, room)
        write(painter, x, y, shown)

    def _curves(self, painter: QPainter, box: QRect, detail: ShelfDetail) -> None:
        """The measured curves, all on one small field of 4 by 2.4."""
        every = [p for curve in detail.curves for p in curve]
        if not every:
            return
        left, right = min(x for x, _ in every), max(x for x, _ in every)
        high = max(2.4, max(d for _, d in every))
        painter.setRenderHint(QPainter.RenderHint.Antialiasing)
        for place, curve in enumerate(detail.curves):
            pen = QPen(self.look.strip_colour(place, len(detail.curves)), 1.4)
            painter.setPen(pen)
            points = [
                QPointF(
                    box.left() + box.width() * (x - left) / max(right - left, 0.1),
                    box.bottom() - box.height() * d / high,
                )
                for x, d in curve
            ]
            painter.drawPolyline(QPolygonF(points))
        painter.setRenderHint(QPainter.RenderHint.Antialiasing, False)


def _answer(painter: QPainter, room: QRect, base: int, words: str) -> None:
    """An answer in the largest type in which it fits its line, else on two lines."""
    for role in (Role.HEADING, Role.SUBHEADING, Role.LABEL):
        painter.setFont(role_font(role))
        if painter.fontMetrics().horizontalAdvance(words) <= room.width():
            write(painter, room.left(), base, words)
            return
    two = room.adjusted(0, px(2), 0, -painter.fontMetrics().ascent())
    wrapped = Qt.TextFlag.TextWordWrap | Qt.AlignmentFlag.AlignBottom
    write(painter, two, int(wrapped), words)


def _stated(painter: QPainter, room: QRect, base: int, words: str) -> bool:
    """What a test has come to, on its line; gives whether the line below is left free."""
    painter.setFont(role_font(Role.BODY))
    if painter.fontMetrics().horizontalAdvance(words) <= room.width():
        write(painter, room.left(), base, words)
        return True
    top = base - painter.fontMetrics().ascent()
    two = QRect(
        room.left(), top, room.width(), room.bottom() - top + painter.fontMetrics().height()
    )
    write(painter, two, int(Qt.TextFlag.TextWordWrap | Qt.AlignmentFlag.AlignTop), words)
    return False

"""Lists and tables on the ground they lie on; the line picked has a grease-pencil mark."""

from __future__ import annotations

from PyQt6.QtCore import QModelIndex, QRect, QSize, Qt
from PyQt6.QtGui import QFont, QFontMetrics, QPainter, QPalette
from PyQt6.QtWidgets import (
    QAbstractItemView,
    QFrame,
    QStyle,
    QStyledItemDelegate,
    QStyleOptionViewItem,
)

from vadrin.ui.theme.look import RULE, TONES
from vadrin.ui.theme.regional import write

_EDGE, _BESIDE, _ABOVE = 4, 8, 5
_CELL = 8


def lay_flat(
    view: QAbstractItemView, ground: QPalette.ColorRole = QPalette.ColorRole.Window
) -> None:
    """Take a list's frame away and give it the window's ground, or another, by role."""
    view.setFrameShape(QFrame.Shape.NoFrame)
    port = view.viewport()
    if port is not None:
        port.setBackgroundRole(ground)


class ListLines(QStyledItemDelegate):
    """Lines of words; the one that is picked lies on another ground.

    Parameters
    ----------
    view : QAbstractItemView
    picked : QPalette.ColorRole
        Ground of the line that is picked.
    """

    def __init__(
        self, view: QAbstractItemView, picked: QPalette.ColorRole = QPalette.ColorRole.Base
    ) -> None:
        super().__init__(view)
        self._picked = picked

    def sizeHint(self, option: QStyleOptionViewItem, index: QModelIndex) -> QSize:
        """Its words, with room about them."""
        words = option.fontMetrics.size(0, str(index.data() or ""))
        return QSize(words.width() + _EDGE + 2 * _BESIDE, words.height() + 2 * _ABOVE)

    def paint(
        self, painter: QPainter | None, option: QStyleOptionViewItem, index: QModelIndex
    ) -> None:
        """Draw a line."""
        if painter is None:
            return
        box, palette = option.rect, option.palette
        if option.state & QStyle.StateFlag.State_Selected:
            painter.fillRect(box, palette.color(self._picked))
            edge = QRect(box.x(), box.y(), _EDGE, box.height())
            painter.fillRect(edge, palette.color(TONES["here"]))
        inside = box.adjusted(_EDGE + _BESIDE, 0, -_BESIDE, 0)
        _write(painter, inside, option, index)


class TableCells(QStyledItemDelegate):
    """Cells over hairlines; the row that is picked is marked under its length."""

    def sizeHint(self, option: QStyleOptionViewItem, index: QModelIndex) -> QSize:
        """Its words, with room about them."""
        words = QFontMetrics(_font(option, index)).size(0, str(index.data() or ""))
        return QSize(words.width() + 2 * _CELL, words.height() + 2 * _ABOVE)

    def paint(
        self, painter: QPainter | None, option: QStyleOptionViewItem, index: QModelIndex
    ) -> None:
        """Draw a cell."""
        if painter is None:
            return
        draw_cell_ground(painter, option)
        _write(painter, option.rect.adjusted(_CELL, 0, -_CELL, 0), option, index)


def draw_cell_ground(painter: QPainter, option: QStyleOptionViewItem) -> None:
    """Draw what lies under a cell of a table."""
    box, palette = option.rect, option.palette
    thick, line = 1, RULE
    if option.state & QStyle.StateFlag.State_Selected:
        painter.fillRect(box, palette.base())
        thick, line = 2, TONES["here"]
    under = QRect(box.x(), box.bottom() + 1 - thick, box.width(), thick)
    painter.fillRect(under, palette.color(line))


def _font(option: QStyleOptionViewItem, index: QModelIndex) -> QFont:
    own = index.data(Qt.ItemDataRole.FontRole)
    return own if isinstance(own, QFont) else option.font


def _write(
    painter: QPainter, room: QRect, option: QStyleOptionViewItem, index: QModelIndex
) -> None:
    font = _font(option, index)
    painter.setFont(font)
    painter.setPen(option.palette.color(TONES[""]))
    words = QFontMetrics(font).elidedText(
        str(index.data() or ""), Qt.TextElideMode.ElideRight, room.width()
    )
    write(painter, room, int(Qt.AlignmentFlag.AlignVCenter), words)

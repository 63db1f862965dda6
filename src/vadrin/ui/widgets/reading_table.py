"""A table that is read: its words lie in a grid, and a cell is come to by the arrow keys."""

from __future__ import annotations

from collections.abc import Sequence
from typing import Any

from PyQt6.QtCore import QAbstractTableModel, QModelIndex, QSize, Qt
from PyQt6.QtGui import QFocusEvent, QWheelEvent
from PyQt6.QtWidgets import QAbstractItemView, QFrame, QGridLayout, QLabel, QTableView

from vadrin.ui.theme.look import TONES
from vadrin.ui.theme.roles import Role
from vadrin.ui.theme.typeface import px
from vadrin.ui.widgets.item_views import lay_flat
from vadrin.ui.widgets.labels import text

_NOTHING = QModelIndex()
_NOWHERE = Qt.AlignmentFlag(0)
_ROLES = Qt.ItemDataRole


class _Cells(QAbstractTableModel):
    """What stands in the cells, as it is said."""

    def __init__(self, heads: Sequence[str]) -> None:
        super().__init__()
        self.heads = tuple(heads)
        self.labels: list[list[list[QLabel]]] = []

    def rowCount(self, parent: QModelIndex = _NOTHING) -> int:
        return 0 if parent.isValid() else len(self.labels)

    def columnCount(self, parent: QModelIndex = _NOTHING) -> int:
        return 0 if parent.isValid() else len(self.heads)

    def words(self, row: int, column: int) -> str:
        return ", ".join(w for label in self.labels[row][column] if (w := label.text()))

    def data(self, index: QModelIndex, role: int = _ROLES.DisplayRole) -> Any:
        if not index.isValid():
            return None
        said = self.words(index.row(), index.column())
        if role == _ROLES.DisplayRole:
            return said
        if role == _ROLES.AccessibleTextRole:
            column = index.column()
            of = self.words(index.row(), 0) if column else ""
            head = ", ".join(w for w in (of, self.heads[column]) if w)
            return f"{head}: {said or 'nothing'}" if head else said
        return None

    def headerData(self, section: int, way: Qt.Orientation, role: int = _ROLES.DisplayRole) -> Any:
        if role != _ROLES.DisplayRole:
            return None
        return self.heads[section] if way is Qt.Orientation.Horizontal else section + 1


class ReadingTable(QTableView):
    """Rows of words under heads.

    Qt tells a screen reader of the class; what is seen are labels over it.

    Parameters
    ----------
    name : str
        What a screen reader calls it.
    heads : sequence of str
        Of its columns, as they are said.
    gap : int
        Between columns, in pixels at scale 1.
    """

    def __init__(self, name: str, heads: Sequence[str], gap: int = 16) -> None:
        super().__init__()
        self.setAccessibleName(name)
        self._mark = QFrame(self)
        self._mark.setFrameShape(QFrame.Shape.HLine)
        self._mark.setForegroundRole(TONES["here"])
        self._mark.hide()
        self._cells = _Cells(heads)
        self.setModel(self._cells)
        lay_flat(self)
        self.setSelectionMode(QAbstractItemView.SelectionMode.NoSelection)
        self.setTabKeyNavigation(False)
        self.setShowGrid(False)
        for header in (self.horizontalHeader(), self.verticalHeader()):
            if header is not None:
                header.hide()
        self.setHorizontalScrollBarPolicy(Qt.ScrollBarPolicy.ScrollBarAlwaysOff)
        self.setVerticalScrollBarPolicy(Qt.ScrollBarPolicy.ScrollBarAlwaysOff)
        port = self.viewport()
        if port is not None:
            port.hide()
        self.grid = QGridLayout(self)
        self.grid.setContentsMargins(0, 0, 0, 0)
        self.grid.setHorizontalSpacing(px(gap))
        self.grid.setVerticalSpacing(px(4))

    def put_heads(self, heads: Sequence[str], strong: str = "") -> None:
        """Write heads over the columns of the grid, which may be more than those that are said."""
        for place, words in enumerate(heads):
            role = Role.LABEL if words and words == strong else Role.CAPTION
            self.grid.addWidget(text(words, role), 0, place)

    def put(
        self,
        label: QLabel,
        cell: tuple[int, int],
        at: tuple[int, ...] = (),
        lies: Qt.AlignmentFlag = _NOWHERE,
    ) -> None:
        """Put a label into a cell.

        Parameters
        ----------
        label : QLabel
        cell : tuple of int
            Row and column, as they are said; what is put into one later is said after it.
        at : tuple of int
            Row and column of the grid, and over how many; as said, under a line of heads, if empty.
        lies : Qt.AlignmentFlag, optional
        """
        row, column = cell
        while len(self._cells.labels) <= row:
            self._cells.labels.append([[] for _ in self._cells.heads])
        self._cells.labels[row][column].append(label)
        line, place, *over = at or (row + 1, column)
        high, wide = over or (1, 1)
        self.grid.addWidget(label, line, place, high, wide, lies)

    def sizeHint(self) -> QSize:
        """What its words need."""
        return self.grid.sizeHint()

    def minimumSizeHint(self) -> QSize:
        """What its words need at least."""
        return self.grid.minimumSize()

    def currentChanged(self, now: QModelIndex, before: QModelIndex) -> None:
        """Mark the cell that the keyboard is at."""
        super().currentChanged(now, before)
        self._show_mark()

    def focusInEvent(self, event: QFocusEvent | None) -> None:
        """Begin at the first cell."""
        if not self.currentIndex().isValid() and self._cells.rowCount():
            self.setCurrentIndex(self._cells.index(0, 0))
        super().focusInEvent(event)
        self._show_mark()

    def focusOutEvent(self, event: QFocusEvent | None) -> None:
        """Take the mark away."""
        super().focusOutEvent(event)
        self._mark.hide()

    def wheelEvent(self, event: QWheelEvent | None) -> None:
        """Scrolls the page."""
        if event is not None:
            event.ignore()

    def _show_mark(self) -> None:
        here = self.currentIndex()
        labels: list[QLabel] = []
        if here.isValid():
            labels = self._cells.labels[here.row()][here.column()]
        if not labels or not self.hasFocus():
            self._mark.hide()
            return
        box = labels[0].geometry()
        self._mark.setGeometry(box.x(), box.bottom(), max(box.width(), px(12)), 2)
        self._mark.show()
        self._mark.raise_()

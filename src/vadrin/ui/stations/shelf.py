"""The shelf: every test as a line, the newest first."""

from __future__ import annotations

from collections.abc import Callable

from PyQt6.QtCore import QModelIndex, QSize, Qt
from PyQt6.QtGui import QColor, QKeyEvent, QPainter
from PyQt6.QtWidgets import (
    QHBoxLayout,
    QListWidget,
    QListWidgetItem,
    QStyle,
    QStyledItemDelegate,
    QStyleOptionViewItem,
)

from vadrin.app.shelf import ShelfLine, shelf_lines
from vadrin.app.workbench import Workbench
from vadrin.ui.look import DAY, Look
from vadrin.ui.parts import button, text
from vadrin.ui.stations.station import Scene, Station
from vadrin.ui.type import font, px


class _Lines(QStyledItemDelegate):
    """Draws a test: film and developer, its state, its strips as greys, EI and time."""

    def __init__(self) -> None:
        super().__init__()
        self.look: Look = DAY

    def sizeHint(self, _option: QStyleOptionViewItem, _index: QModelIndex) -> QSize:
        return QSize(px(400), px(62))

    def paint(
        self, painter: QPainter | None, option: QStyleOptionViewItem, index: QModelIndex
    ) -> None:
        line: ShelfLine = index.data(Qt.ItemDataRole.UserRole)
        if painter is None:
            return
        look, box = self.look, option.rect
        if option.state & QStyle.StateFlag.State_Selected:
            painter.fillRect(box, QColor(look.sheet))
            painter.fillRect(box.left(), box.top(), px(4), box.height(), QColor(look.grease))
        x, y = box.left() + px(14), box.top()
        painter.setPen(QColor(look.ink))
        painter.setFont(font(15, 700))
        painter.drawText(x, y + px(24), line.film)
        painter.setFont(font(13))
        painter.setPen(QColor(look.soft))
        painter.drawText(x, y + px(46), f"{line.process} · {line.date}")
        middle = box.left() + px(310)
        self._greys(painter, line, middle, y + px(14))
        painter.setPen(QColor(look.ink))
        painter.drawText(middle, y + px(46), line.state)
        painter.setFont(font(17, 700))
        painter.setPen(QColor(look.grease if line.index else look.soft))
        painter.drawText(box.left() + px(590), y + px(27), line.index or "—")
        painter.setPen(QColor(look.ink))
        painter.drawText(box.left() + px(680), y + px(27), line.time)
        painter.setFont(font(13))
        painter.setPen(QColor(look.soft))
        words = painter.fontMetrics().elidedText(
            line.note, Qt.TextElideMode.ElideRight, box.right() - box.left() - px(596)
        )
        painter.drawText(box.left() + px(590), y + px(46), words)
        painter.setPen(QColor(look.rule))
        painter.drawLine(x, box.bottom(), box.right(), box.bottom())

    def _greys(self, painter: QPainter, line: ShelfLine, x: int, y: int) -> None:
        count = max(1, len(line.greys))
        width = px(240) / count
        for i, density in enumerate(line.greys):
            colour = QColor(self.look.rule)
            if density is not None:
                colour = self.look.film_colour(density)
            painter.fillRect(int(x + i * width), y, int(width) + 1, px(10), colour)


class ShelfStation(Station):
    """Home: open a test, start one, or bring readings in."""

    keys = (
        ("Enter", "put the test on the bench"),
        ("Ctrl+N", "start a new test"),
        ("Ctrl+I", "import a table of readings"),
    )
    wants_finding = False

    def __init__(
        self, bench: Workbench, start: Callable[[], None], bring: Callable[[], None]
    ) -> None:
        super().__init__(bench)
        head = QHBoxLayout()
        self._title = text("Shelf", 17, 700)
        head.addWidget(self._title)
        head.addStretch(1)
        head.addWidget(button("Import readings", bring))
        self._new = button("New test", start, primary=True)
        head.addWidget(self._new)
        self.column.addLayout(head)
        self._empty = text("", 15, wrap=True)
        self.column.addWidget(self._empty)
        self._list = QListWidget()
        self._list.setAccessibleName("tests")
        self._lines = _Lines()
        self._list.setItemDelegate(self._lines)
        self._list.itemClicked.connect(self._open)
        self.column.addWidget(self._list, 1)

    def show_scene(self, scene: Scene) -> None:
        """List the tests of the notebook."""
        self._lines.look = scene.look
        lines = shelf_lines(self.bench.notebook)
        here = self._list.currentRow()
        self._list.clear()
        for line in lines:
            item = QListWidgetItem()
            item.setData(Qt.ItemDataRole.UserRole, line)
            spoken = f"{line.film}, {line.process}, {line.state}, {line.index} {line.time}"
            item.setData(Qt.ItemDataRole.AccessibleTextRole, spoken)
            self._list.addItem(item)
        self._title.setText(f"{len(lines)} tests on the shelf" if lines else "An empty shelf")
        self._empty.setVisible(not lines)
        self._empty.setText(
            "Start with a new test: name the film and the developer, and the strips lie on the "
            "light table as they will be shot. Or import a table of readings you have already."
        )
        if lines:
            self._list.setCurrentRow(max(0, min(here, len(lines) - 1)))

    def _open(self, item: QListWidgetItem) -> None:
        line: ShelfLine = item.data(Qt.ItemDataRole.UserRole)
        self.bench.open_test(line.test_id)
        self.bench.go(line.station)

    def keyPressEvent(self, event: QKeyEvent | None) -> None:
        """Open the test at the cursor."""
        item = self._list.currentItem()
        keys = (Qt.Key.Key_Return, Qt.Key.Key_Enter)
        if event and event.key() in keys and item is not None:
            self._open(item)
        else:
            super().keyPressEvent(event)

    def take_focus(self) -> None:
        """Begin at the list, or at the button that starts a test."""
        (self._list if self._list.count() else self._new).setFocus()

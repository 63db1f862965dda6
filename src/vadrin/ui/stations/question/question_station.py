"""The question a new test answers, each with one sentence and a drawing of its strips."""

from __future__ import annotations

from PyQt6.QtCore import QAbstractListModel, QModelIndex, QObject, QRectF, QSize, Qt
from PyQt6.QtGui import QColor, QKeyEvent, QPainter, QPen
from PyQt6.QtWidgets import (
    QHBoxLayout,
    QListView,
    QStyle,
    QStyledItemDelegate,
    QStyleOptionViewItem,
    QWidget,
)

from vadrin.app.expose.roll_entry import ROLL_HINT, enter_roll
from vadrin.app.plan.kind_pages import KINDS, Kind, numbers_of
from vadrin.app.plan.planning import EditRefusedError, start_kind
from vadrin.app.workbench import Workbench
from vadrin.core.planning.layout import lay_out_plan
from vadrin.core.planning.test_kinds import (
    BLANK,
    FOGGED,
    LOST,
    PlannedFrame,
    PlanRequest,
    StripPlan,
)
from vadrin.ui.stations.station import Scene, Station
from vadrin.ui.theme.look import DAY, Look
from vadrin.ui.theme.typeface import font, px
from vadrin.ui.widgets.parts import Field, button, text

_MOST_STRIPS, _MOST_FRAMES = 6, 24


def _strips_of(kind: Kind) -> tuple[StripPlan, ...]:
    request = PlanRequest(kind.key, 100.0, kind.first, kind.last, kind.step, 2, kind.times,
                numbers_of(kind.second), arrangement=kind.arrangement)  # fmt: skip
    return lay_out_plan(request)[:_MOST_STRIPS]


class _Kinds(QAbstractListModel):
    def __init__(self, parent: QObject) -> None:
        super().__init__(parent)
        self.drawings = [_strips_of(kind) for kind in KINDS]

    def rowCount(self, parent: QModelIndex | None = None) -> int:
        return 0 if parent is not None and parent.isValid() else len(KINDS)

    def data(self, index: QModelIndex, role: int = 0) -> object:
        if role in (Qt.ItemDataRole.DisplayRole, Qt.ItemDataRole.AccessibleTextRole):
            kind = KINDS[index.row()]
            # Begins with the key, so that typing it finds the line.
            return f"{kind.key}: {kind.question} {kind.sentence}"
        return None


class _Painter(QStyledItemDelegate):
    def __init__(self, model: _Kinds) -> None:
        super().__init__(model)
        self._model = model
        self.look: Look = DAY

    def sizeHint(self, _option: QStyleOptionViewItem, _index: QModelIndex) -> QSize:
        return QSize(px(400), px(46))

    def paint(
        self, painter: QPainter | None, option: QStyleOptionViewItem, index: QModelIndex
    ) -> None:
        if painter is None:
            return
        kind, box, look = KINDS[index.row()], option.rect, self.look
        if option.state & QStyle.StateFlag.State_Selected:
            painter.fillRect(box, QColor(look.sheet))
            painter.fillRect(box.left(), box.top(), px(4), box.height(), QColor(look.grease))
        drawing = QRectF(box.left() + px(14), box.top() + px(6), px(190), box.height() - px(12))
        self._draw(painter, drawing, self._model.drawings[index.row()])
        x = box.left() + px(226)
        painter.setPen(QColor(look.ink))
        painter.setFont(font(15, 700))
        painter.drawText(x, box.top() + px(19), kind.question)
        painter.setPen(QColor(look.soft))
        painter.setFont(font(13))
        painter.drawText(x, box.top() + px(37), f"{kind.key.capitalize()}. {kind.sentence}")
        painter.setPen(QColor(look.rule))
        painter.drawLine(box.left() + px(14), box.bottom(), box.right(), box.bottom())

    def _draw(self, painter: QPainter, box: QRectF, strips: tuple[StripPlan, ...]) -> None:
        height = min(box.height() / len(strips), px(18))
        top = box.center().y() - height * len(strips) / 2
        longest = min(_MOST_FRAMES, max(len(s.frames) for s in strips))
        width = min(box.width() / longest, px(12))
        for row, strip in enumerate(strips):
            for place, frame in enumerate(strip.frames[:_MOST_FRAMES]):
                cell = QRectF(
                    box.left() + place * width, top + row * height, width - 1.5, height - 2
                )
                self._cell(painter, cell, frame)

    def _cell(self, painter: QPainter, cell: QRectF, frame: PlannedFrame) -> None:
        look = self.look
        painter.setPen(QPen(QColor(look.soft), 1))
        if frame.role == BLANK:
            painter.setBrush(Qt.BrushStyle.NoBrush)
        elif frame.role == LOST:
            painter.drawLine(cell.topLeft(), cell.bottomRight())
            return
        else:
            density = 2.4 if frame.role == FOGGED else 0.25 + 0.2 * ((frame.stops or 0.0) + 6)
            painter.setPen(Qt.PenStyle.NoPen)
            painter.setBrush(look.film_colour(min(2.4, max(0.1, density))))
        painter.drawRect(cell)


class _List(QListView):
    def __init__(self, chosen: object) -> None:
        super().__init__()
        self._chosen = chosen

    def keyPressEvent(self, event: QKeyEvent | None) -> None:
        if event and event.key() in (Qt.Key.Key_Return, Qt.Key.Key_Enter):
            self._chosen()  # type: ignore[operator]
        else:
            super().keyPressEvent(event)


class QuestionStation(Station):
    """What do you want to know? Nothing is written before a question is chosen."""

    keys = (
        ("↑ ↓, or type its name", "to a question"),
        ("Enter", "plan for it"),
        ("Ctrl+R", "a roll that was shot already, in a line"),
        ("Esc", "back to the shelf, with nothing begun"),
    )
    wants_finding = False

    def __init__(self, bench: Workbench) -> None:
        super().__init__(bench)
        self.column.addWidget(text("What do you want to know?", 17, 700))
        self._model = _Kinds(self)
        self._painter = _Painter(self._model)
        self.list = _List(self._choose)
        self.list.setAccessibleName("questions")
        self.list.setModel(self._model)
        self.list.setItemDelegate(self._painter)
        self.list.setCurrentIndex(self._model.index(0))
        self.list.clicked.connect(lambda _: self._choose())
        self.column.addWidget(self.list, 1)
        self.column.addWidget(self._shot_already())
        self.column.addWidget(self.refusal)
        self.bind("Ctrl+R", self.film.setFocus)

    def _shot_already(self) -> QWidget:
        """A line for a roll that was shot without a plan."""
        holder = QWidget()
        row = QHBoxLayout(holder)
        row.setContentsMargins(px(14), 0, 0, 0)
        self.film, self.bath, self.roll = Field(), Field(), Field()
        for field, name, hint, width in (
            (self.film, "film shot already", "film", 150),
            (self.bath, "its developer", "developer", 120),
            (self.roll, "the roll in a line", ROLL_HINT, 0),
        ):
            field.setAccessibleName(name)
            field.setPlaceholderText(hint)
            field.setFont(font(15))
            field.returnPressed.connect(self._enter)
            if width:
                field.setFixedWidth(px(width))
        row.addWidget(text("A roll shot already (Ctrl+R):", 13, tone="soft"))
        row.addWidget(self.film)
        row.addWidget(self.bath)
        row.addWidget(self.roll, 1)
        row.addWidget(button("Enter it", self._enter))
        return holder

    def _enter(self) -> None:
        film, bath, line = self.film.text().strip(), self.bath.text().strip(), self.roll.text()
        empty = next((f for f in (self.film, self.roll) if not f.text().strip()), None)
        if empty is not None:
            empty.setFocus()
            return
        name, _, dilution = bath.rpartition(" ") if " " in bath else (bath, "", "")
        try:
            test = self.bench.edit_or_raise(
                lambda book: enter_roll(book, film, name or "a developer", dilution, line)
            )
        except (EditRefusedError, ValueError) as refusal:
            self.refuse(str(refusal))
            return
        if test is not None:
            self.roll.clear()
            self.refuse("")
            self.bench.open_test(test.id)
            self.bench.go("expose")

    def show_scene(self, scene: Scene) -> None:
        """Only the look can change."""
        self._painter.look = scene.look

    def _choose(self) -> None:
        key = KINDS[self.list.currentIndex().row()].key
        test = self.bench.edit(lambda notebook: start_kind(notebook, key))
        if test is not None:
            self.bench.open_test(test.id)
            self.bench.go("plan")

    def keyPressEvent(self, event: QKeyEvent | None) -> None:
        """Esc leaves without a test."""
        if event and event.key() == Qt.Key.Key_Escape:
            self.bench.go("shelf")
        else:
            super().keyPressEvent(event)

    def take_focus(self) -> None:
        """Begin at the questions."""
        self.list.setFocus()

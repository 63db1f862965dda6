"""The question a new test answers, each with one sentence and a drawing of its strips."""

from __future__ import annotations

from collections.abc import Callable

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

from vadrin.app.descriptions import descriptions
from vadrin.app.document.workbench import Topic
from vadrin.app.entry.roll_line import ROLL_HINT
from vadrin.app.expose.roll_entry import enter_roll
from vadrin.app.library.named_records import NO_DEVELOPER
from vadrin.app.plan.starting_tests import start_kind
from vadrin.app.plan.strip_drawing import LOST, Drawing, drawing_of
from vadrin.app.plan.test_needs import needs_to_begin
from vadrin.errors import EditRefusedError
from vadrin.ui.actions import Action, hint
from vadrin.ui.stations.shot_roll import ShotRoll
from vadrin.ui.stations.station import Station, StationContext, ViewState
from vadrin.ui.theme.look import DAY, Look
from vadrin.ui.theme.regional import write
from vadrin.ui.theme.roles import Role
from vadrin.ui.theme.typeface import px, role_font
from vadrin.ui.widgets.buttons import button
from vadrin.ui.widgets.item_views import lay_flat
from vadrin.ui.widgets.labels import text
from vadrin.ui.widgets.line_field import Field


class _Kinds(QAbstractListModel):
    def __init__(self, parent: QObject) -> None:
        super().__init__(parent)
        self.pages = descriptions()
        self.drawings = [drawing_of(page) for page in self.pages]
        self.needs = [needs_to_begin(page) for page in self.pages]

    def rowCount(self, parent: QModelIndex | None = None) -> int:
        return 0 if parent is not None and parent.isValid() else len(self.pages)

    def data(self, index: QModelIndex, role: int = 0) -> object:
        if role in (Qt.ItemDataRole.DisplayRole, Qt.ItemDataRole.AccessibleTextRole):
            page = self.pages[index.row()]
            # Begins with the key, so that typing it finds the line.
            needs = self.needs[index.row()].words
            return f"{page.key}: {page.question} {page.sentence} Takes {needs}."
        return None


_ROOM_FOR_STRIPS_PX = 780
"""Width from which a question has room beside the drawing of its strips."""


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
        page, box, look = self._model.pages[index.row()], option.rect, self.look
        if option.state & QStyle.StateFlag.State_Selected:
            painter.fillRect(box, QColor(look.sheet))
            painter.fillRect(box.left(), box.top(), px(4), box.height(), QColor(look.here))
        x = box.left() + px(14)
        if box.width() >= px(_ROOM_FOR_STRIPS_PX):
            drawing = QRectF(x, box.top() + px(6), px(190), box.height() - px(12))
            self._draw(painter, drawing, self._model.drawings[index.row()])
            x += px(212)
        painter.setPen(QColor(look.ink))
        painter.setFont(role_font(Role.SUBHEADING))
        write(painter, x, box.top() + px(19), page.question)
        painter.setPen(QColor(look.soft))
        painter.setFont(role_font(Role.BODY))
        first = QRectF(x, box.top(), box.right() - px(14) - x, px(28))
        aside = Qt.AlignmentFlag.AlignRight | Qt.AlignmentFlag.AlignVCenter
        write(painter, first, aside, self._model.needs[index.row()].brief)
        words = f"{page.key.capitalize()}. {page.sentence}"
        right = Qt.TextElideMode.ElideRight
        words = painter.fontMetrics().elidedText(words, right, int(first.width()))
        write(painter, x, box.top() + px(37), words)
        painter.setPen(QColor(look.rule))
        painter.drawLine(box.left() + px(14), box.bottom(), box.right(), box.bottom())

    def _draw(self, painter: QPainter, box: QRectF, strips: Drawing) -> None:
        height = min(box.height() / len(strips), px(18))
        top = box.center().y() - height * len(strips) / 2
        width = min(box.width() / max(len(s) for s in strips), px(12))
        for row, strip in enumerate(strips):
            for place, density in enumerate(strip):
                left = box.left() + place * width
                self._cell(
                    painter, QRectF(left, top + row * height, width - 1.5, height - 2), density
                )

    def _cell(self, painter: QPainter, cell: QRectF, density: float | None) -> None:
        look = self.look
        painter.setPen(QPen(QColor(look.soft), 1))
        if density is None:
            painter.setBrush(Qt.BrushStyle.NoBrush)
        elif density == LOST:
            painter.drawLine(cell.topLeft(), cell.bottomRight())
            return
        else:
            painter.setPen(Qt.PenStyle.NoPen)
            painter.setBrush(look.film_colour(density))
        painter.drawRect(cell)


class _List(QListView):
    def __init__(self, chosen: Callable[[], None]) -> None:
        super().__init__()
        self._chosen = chosen

    def keyPressEvent(self, event: QKeyEvent | None) -> None:
        if event and event.key() in (Qt.Key.Key_Return, Qt.Key.Key_Enter):
            self._chosen()
        else:
            super().keyPressEvent(event)


class QuestionStation(Station):
    """What do you want to know? Nothing is written before a question is chosen."""

    topics = Topic.LOOK
    wants_finding = False

    def __init__(self, given: StationContext) -> None:
        super().__init__(given)
        self.column.addWidget(text("What do you want to know?", Role.HEADING))
        self.shot = ShotRoll(self.bench)
        self.column.addWidget(self.shot)
        self._model = _Kinds(self)
        self._painter = _Painter(self._model)
        self.list = _List(self._choose)
        self.list.setAccessibleName("questions")
        lay_flat(self.list)
        self.list.setModel(self._model)
        self.list.setItemDelegate(self._painter)
        self.list.setCurrentIndex(self._model.index(0))
        self.list.clicked.connect(lambda _: self._choose())
        self.column.addWidget(self.list, 1)
        self.needs = text("", Role.NOTE, wrap=True)
        self.needs.setContentsMargins(px(14), 0, 0, 0)
        self.column.addWidget(self.needs)
        selection = self.list.selectionModel()
        if selection is not None:
            selection.currentChanged.connect(self._say_needs)
        self._say_needs(self.list.currentIndex())
        self.column.addWidget(self._shot_already())
        self.column.addWidget(self.refusal)
        self.offer(
            hint("↑ ↓, or type its name", "to a question"),
            Action("question.plan", "plan for it", self._choose, shown_keys="Enter"),
            Action(
                "question.roll",
                "add a roll already exposed, in a line",
                self.film.setFocus,
                ("Ctrl+R",),
            ),
            Action(
                "question.leave",
                "back to Shelf without a new test",
                lambda: self.bench.go("shelf"),
                shown_keys="Esc",
            ),
        )

    def _shot_already(self) -> QWidget:
        """A line for a roll that was shot without a plan."""
        holder = QWidget()
        row = QHBoxLayout(holder)
        row.setContentsMargins(px(14), 0, 0, 0)
        self.film, self.bath, self.roll = Field(), Field(), Field()
        for field, name, within, width in (
            (self.film, "film shot already", "film batch B7", 150),
            (self.bath, "its developer", "developer", 120),
            (self.roll, "the roll in a line", ROLL_HINT, 0),
        ):
            field.setAccessibleName(name)
            field.setPlaceholderText(within)
            field.setFont(role_font(Role.LEAD))
            field.returnPressed.connect(self._enter)
            if width:
                field.setFixedWidth(px(width))
        row.addWidget(text("A roll already exposed (Ctrl+R):", Role.NOTE))
        row.addWidget(self.film)
        row.addWidget(self.bath)
        row.addWidget(self.roll, 1)
        row.addWidget(button("Add roll", self._enter))
        return holder

    def _say_needs(self, index: QModelIndex) -> None:
        needs = self._model.needs[index.row()]
        self.needs.setText(f"Takes {needs.words}, drying not counted. Needed: {needs.kit}.")

    def _enter(self) -> None:
        film, bath, line = self.film.text().strip(), self.bath.text().strip(), self.roll.text()
        empty = next((f for f in (self.film, self.roll) if not f.text().strip()), None)
        if empty is not None:
            empty.setFocus()
            return
        name, _, dilution = bath.rpartition(" ") if " " in bath else (bath, "", "")
        try:
            test = self.bench.edit_or_raise(
                lambda book: enter_roll(book, film, name or NO_DEVELOPER, dilution, line)
            )
        except (EditRefusedError, ValueError) as refusal:
            self.refuse(str(refusal))
            return
        if test is not None:
            self.roll.clear()
            self.refuse("")
            self.bench.open_test(test.id)
            self.bench.go("expose")

    def show_state(self, scene: ViewState) -> None:
        """Only the look can change."""
        self._painter.look = scene.look

    def _choose(self) -> None:
        key = self._model.pages[self.list.currentIndex().row()].key
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
        """Begin at the questions, and with no letter left over of a name typed before."""
        here = self.list.currentIndex()
        self.list.keyboardSearch("")
        self.list.setCurrentIndex(here)
        self.list.setFocus()

"""The cupboard: stocks, batches, chemistry, cameras and the rest, each as a short form."""

from __future__ import annotations

from collections.abc import Callable
from functools import partial
from typing import TYPE_CHECKING

from PyQt6.QtCore import QSize, Qt
from PyQt6.QtGui import QKeyEvent
from PyQt6.QtWidgets import (
    QGridLayout,
    QHBoxLayout,
    QListWidget,
    QListWidgetItem,
    QVBoxLayout,
    QWidget,
)

from vadrin.app.document.workbench import Topic
from vadrin.app.entry.stepping import chooser
from vadrin.app.library.cupboard import (
    heading_of,
    new_record,
    record_under,
    records_under,
    remove_record,
    set_field,
    shown,
    steps_of_field,
    title_of,
)
from vadrin.app.library.forms import FORMS, FormField
from vadrin.app.library.meter_constant import HINT as METER_CONSTANT_HINT
from vadrin.errors import EntryError
from vadrin.ui.actions import Action, hint
from vadrin.ui.stations.station import Station, StationContext, ViewState
from vadrin.ui.theme.roles import Role
from vadrin.ui.theme.typeface import px, role_font, scale
from vadrin.ui.widgets.buttons import button
from vadrin.ui.widgets.fields import WordField
from vadrin.ui.widgets.item_views import ListLines, lay_flat
from vadrin.ui.widgets.labels import text

if TYPE_CHECKING:
    from vadrin.notebook.records import Record

_SAID_BELOW = {
    "Bottles": "Date and label every bottle. Keep bottles away from food and children. Follow the "
    "safety data sheet.",
    "Chemicals": "Gloves, eye protection and fresh air. Do not breathe powders. The safety data "
    "sheet takes precedence over anything here.",
    "Light meters": f"Type the meter constant: {METER_CONSTANT_HINT}. The tests it metered follow; "
    "only speeds by the standard change with it, no EI does.",
}


_ROOMY_TYPE = 1.6
"""Type size up to which there is room for labels beside their fields."""
_WIDEST_LABEL = 240
"""Pixels of a name of a field: a longer one takes two lines."""
_WIDEST = 340
"""Pixels of a list at most: where letters are large, the form needs the room."""


class _Titles(QListWidget):
    """A list as wide as its station has room for, between two widths."""

    def __init__(self, name: str, width: int, least: int) -> None:
        super().__init__()
        self.setAccessibleName(name)
        self.setItemDelegate(ListLines(self))
        lay_flat(self)
        self.setFont(role_font(Role.LEAD))
        self._width = min(px(width), _WIDEST)
        self.setMinimumWidth(px(least))
        self.setMaximumWidth(self._width)

    def sizeHint(self) -> QSize:
        """As wide as it may be."""
        return QSize(self._width, super().sizeHint().height())


class CupboardStation(Station):
    """What the tester owns; nothing here need be filled in before work starts."""

    topics = Topic.NOTEBOOK
    wants_finding = False

    def __init__(self, given: StationContext) -> None:
        super().__init__(given)
        self.column.addWidget(text("Cupboard", Role.HEADING))
        row = QHBoxLayout()
        row.setSpacing(px(20))
        self.kinds, self.entries = _Titles("kinds", 160, 160), _Titles("entries", 280, 130)
        for heading in FORMS:
            self.kinds.addItem(heading)
        row.addWidget(self.kinds)
        middle = QVBoxLayout()
        middle.addWidget(self.entries, 1)
        acts = QHBoxLayout()
        acts.addWidget(button("New entry", self.make))
        acts.addWidget(button("Remove entry", self._remove))
        acts.addStretch(1)
        middle.addLayout(acts)
        row.addLayout(middle)
        self._form_column = QVBoxLayout()
        self._form = QWidget()
        self._form_column.addWidget(self._form)
        self._caution = text("", Role.NOTE, wrap=True)
        self._form_column.addWidget(self._caution)
        self._form_column.addWidget(self.refusal)
        self._form_column.addStretch(1)
        row.addLayout(self._form_column, 1)
        self.column.addLayout(row, 1)
        self.fields: dict[str, WordField] = {}
        self._shown: tuple[str, int] | None = None
        self.kinds.currentRowChanged.connect(lambda _: self._list_entries())
        self.entries.currentRowChanged.connect(lambda _: self._show_form())
        self.kinds.setCurrentRow(0)
        self.offer(
            hint("↑ ↓", "next kind, next entry, or change this field"),
            Action("cupboard.new", "a new entry of this kind", self.make, ("Ctrl+E",)),
            Action(
                "cupboard.remove",
                "remove the entry (undo brings it back)",
                self._remove,
                shown_keys="Delete",
            ),
        )

    def heading(self) -> str:
        """The kind that is shown."""
        item = self.kinds.currentItem()
        return item.text() if item else next(iter(FORMS))

    def record(self) -> Record | None:
        """The entry that is shown, as it is in the file."""
        item = self.entries.currentItem()
        if item is None:
            return None
        key = item.data(Qt.ItemDataRole.UserRole)
        found: Record | None = record_under(self.bench.notebook, self.heading(), key)
        return found

    def show_state(self, scene: ViewState) -> None:
        """Show the entries as the file has them."""
        self._list_entries()

    def _list_entries(self) -> None:
        here = self.entries.currentItem()
        wanted = here.data(Qt.ItemDataRole.UserRole) if here else None
        self.entries.blockSignals(True)
        self.entries.clear()
        for key, title in records_under(self.bench.notebook, self.heading()):
            item = QListWidgetItem(title)
            item.setData(Qt.ItemDataRole.UserRole, key)
            self.entries.addItem(item)
            if key == wanted:
                self.entries.setCurrentItem(item)
        if self.entries.currentRow() < 0 and self.entries.count():
            self.entries.setCurrentRow(0)
        self.entries.blockSignals(False)
        self._show_form()

    def _show_form(self) -> None:
        record, heading = self.record(), self.heading()
        key = (heading, record.id) if record else None
        if key != self._shown or record is None:
            self._build_form(record)
            self._shown = key
        if record is not None:
            for field in FORMS[heading][1]:
                words = shown(self.bench.notebook, record, field)
                self.fields[field.name].show_value(words)
        words = _SAID_BELOW.get(heading, "")
        if record is None:
            words = f"Nothing here yet. {words} Ctrl+E makes an entry.".replace("  ", " ")
        self._caution.setText(words)

    def _build_form(self, record: Record | None) -> None:
        self.refuse("")
        self._form_column.removeWidget(self._form)
        self._form.hide()
        self._form.deleteLater()
        self._form = QWidget()
        self.fields = {}
        grid = QGridLayout(self._form)
        grid.setContentsMargins(0, 0, 0, 0)
        grid.setHorizontalSpacing(px(14))
        grid.setVerticalSpacing(px(8))
        grid.setColumnStretch(1, 1)
        # Beside its label what was entered would be cut.
        stacked = scale() > _ROOMY_TYPE
        for row, field in enumerate(FORMS[self.heading()][1] if record else ()):
            made = WordField(
                field.label, partial(self._take, field), self._stepper(field), Role.LEAD
            )
            made.refused.connect(self.refuse)
            made.setMinimumWidth(px(60))
            self.fields[field.name] = made
            label = text(field.label, Role.NOTE, wrap=True)
            if not stacked:
                wide = label.fontMetrics().horizontalAdvance(field.label) + px(4)
                label.setFixedWidth(min(_WIDEST_LABEL, wide))
            grid.addWidget(label, 2 * row, 0, 1, 2 if stacked else 1)
            line = QHBoxLayout()
            line.addWidget(made)
            if field.unit:
                line.addWidget(text(field.unit, Role.NOTE))
            line.addStretch(1)
            grid.addLayout(line, 2 * row + stacked, 0 if stacked else 1, 1, 2 if stacked else 1)
        self._form_column.insertWidget(0, self._form)
        # Shown at once, not when the event loop next turns, so that Tab finds its fields.
        self._form.show()

    def _stepper(self, field: FormField) -> Callable[[str, int], str] | None:
        if not steps_of_field(self.bench.notebook, field):
            return None

        return chooser(lambda: steps_of_field(self.bench.notebook, field))

    def _take(self, field: FormField, words: str) -> None:
        record = self.record()
        if record is not None:
            # A refusal passes through to the field, which says it in its place.
            changed = self.bench.edit_or_raise(lambda book: set_field(book, record, field, words))
            if changed is not None and heading_of(changed) != self.heading():
                self._follow(changed, field)

    def _follow(self, record: Record, field: FormField) -> None:
        """Go after an entry that stands under another heading now: its fields stay those of it."""
        self.kinds.setCurrentRow(list(FORMS).index(heading_of(record)))
        self._select(record)
        self.fields[field.name].setFocus()

    def _select(self, record: Record) -> None:
        for row in range(self.entries.count()):
            item = self.entries.item(row)
            if item and item.data(Qt.ItemDataRole.UserRole) == record.id:
                self.entries.setCurrentRow(row)

    def make(self) -> None:
        """Make a new entry and begin at its name."""
        try:
            made = self.bench.edit_or_raise(lambda book: new_record(book, self.heading()))
        except EntryError as error:
            self.refuse(str(error))
            return
        if made is None:
            return
        self._list_entries()
        self._select(made)
        first = self.fields.get("name") or next(iter(self.fields.values()))
        first.setFocus()

    def _remove(self) -> None:
        record = self.record()
        if record is None:
            return
        title = title_of(self.bench.notebook, record)

        if self.bench.edit(lambda book: remove_record(book, record)):
            self.bench.said.emit(f"Removed {title}. Ctrl+Z brings it back.")

    def keyPressEvent(self, event: QKeyEvent | None) -> None:
        """Delete removes an entry from the list that has the keyboard."""
        if event and event.key() == Qt.Key.Key_Delete and self.entries.hasFocus():
            self._remove()
        else:
            super().keyPressEvent(event)

    def take_focus(self) -> None:
        """Begin at the kinds."""
        self.kinds.setFocus()

"""Beside the shelf: what changed between two tests, the next one like this, what runs low."""

from __future__ import annotations

from collections.abc import Callable

from PyQt6.QtWidgets import QGridLayout, QHBoxLayout, QVBoxLayout, QWidget

from vadrin.app.display.words import date_text
from vadrin.app.document.test_loading import load_test
from vadrin.app.document.workbench import Workbench
from vadrin.app.entry.choices import choice_typed
from vadrin.app.entry.stepping import chooser
from vadrin.app.library.differences import conditions_of, differences, verdict
from vadrin.app.loaded.loaded_test import LoadedTest
from vadrin.app.plan.variants import CHOICES, start_variant
from vadrin.app.shelf.shelf_index import StoreLine, bottles, film_left
from vadrin.errors import EditRefusedError
from vadrin.ui.kept import OfProgram
from vadrin.ui.theme.roles import Role
from vadrin.ui.theme.typeface import px, role_font
from vadrin.ui.widgets.buttons import button
from vadrin.ui.widgets.fields import WordField
from vadrin.ui.widgets.labels import ElidedLabel, rule, text
from vadrin.ui.widgets.line_field import Field
from vadrin.ui.widgets.sentence import sentence

_MOST = 6
_MOST_DIFFERENCES = 10
_WHOLE = "the whole test"


class ShelfSide(QWidget):
    """The column at the right of the shelf."""

    _chosen: OfProgram[str] = OfProgram(lambda: CHOICES[0])

    def __init__(self, bench: Workbench, opened: Callable[[int], None]) -> None:
        super().__init__()
        self.bench, self._opened = bench, opened
        self._ids: list[int] = []
        self._shown: object = None
        self._sides = [_WHOLE, _WHOLE]
        self._here: int | None = None
        self.stand(beside=True)
        column = QVBoxLayout(self)
        column.setContentsMargins(px(16), 0, 0, 0)
        column.setSpacing(px(8))
        self._stack = QVBoxLayout()
        self._stack.setSpacing(px(6))
        self._body = QWidget()
        self._body.setLayout(self._stack)
        column.addWidget(self._body)
        column.addStretch(1)
        column.addWidget(rule())
        self._like_words = text("", Role.NOTE, wrap=True)
        column.addWidget(self._like_words)
        self._what = WordField("what is changed", self._choose, chooser(CHOICES), role=Role.LEAD)
        self._what.show_value(self._chosen)
        self._what.refused.connect(self._refuse)
        self._value = Field()
        self._value.setFont(role_font(Role.LEAD))
        self._value.setAccessibleName("what it is to be instead")
        self._value.setPlaceholderText("the other value")
        self._value.returnPressed.connect(self._start)
        column.addWidget(sentence("Like this one, but the", self._what, "is", role=Role.LEAD))
        row = QHBoxLayout()
        row.addWidget(self._value, 1)
        row.addWidget(button("Create test", self._start))
        column.addLayout(row)
        self.refusal = text("", Role.REFUSAL, wrap=True)
        self.refusal.hide()
        column.addWidget(self.refusal)

    def stand(self, beside: bool) -> None:
        """Beside the list, or under it where there is no room."""
        self.setMinimumWidth(px(330) if beside else 0)
        self.setMaximumWidth(px(330) if beside else 16_777_215)

    def show_here(self, test_id: int | None, film: str) -> None:
        """Which test the next one would be like."""
        self._here = test_id
        self._like_words.setText(
            f"A new test after {film}, with exactly one thing changed:"
            if test_id
            else "Pick a test to start another like it."
        )

    def focus_like(self) -> None:
        """Begin to say what is to be changed."""
        self._what.setFocus()

    def show_marked(self, ids: list[int]) -> None:
        """Show what changed between two marked tests, or else what runs low."""
        if ids != self._ids:
            self._sides = [_WHOLE, _WHOLE]
        self._ids = list(ids)
        notebook = self.bench.notebook
        now = (notebook, notebook.revision, tuple(ids), tuple(self._sides))
        if now == self._shown:
            return
        self._shown = now
        self._clear()
        if len(ids) == 2:
            self._show_changes()
        else:
            if ids:
                self._say("One test is marked. Mark another (Ctrl+M) to see what changed.")
            self._store(
                "Film left",
                film_left(self.bench.notebook),
                "Note under Batches in the cupboard how many rolls you have.",
            )
            self._store(
                "Bottles",
                bottles(self.bench.notebook),
                "Note mixed bottles in the cupboard; their capacity and keeping time "
                "then count down here.",
            )

    def _clear(self) -> None:
        while self._stack.count():
            item = self._stack.takeAt(0)
            widget = item.widget() if item else None
            if widget is not None:
                widget.hide()
                widget.deleteLater()

    def _say(self, words: str, role: Role = Role.BODY) -> None:
        self._stack.addWidget(text(words, role, wrap=True))

    def _store(self, title: str, lines: list[StoreLine], empty: str) -> None:
        head = text(title, Role.SUBHEADING)
        head.setContentsMargins(0, px(6), 0, 0)
        self._stack.addWidget(head)
        for line in lines[:_MOST]:
            pair = QWidget()
            both = QVBoxLayout(pair)
            both.setContentsMargins(0, 0, 0, px(2))
            both.setSpacing(0)
            both.addWidget(ElidedLabel(line.name, Role.STRONG))
            role = Role.REFUSAL if line.urgent else Role.NOTE
            both.addWidget(text(line.words, role, wrap=True))
            self._stack.addWidget(pair)
        if len(lines) > _MOST:
            self._say(f"and {len(lines) - _MOST} more in the cupboard", Role.NOTE)
        if not lines:
            self._say(empty, Role.NOTE)

    def _loaded_tests(self) -> list[LoadedTest]:
        found = [load_test(self.bench.notebook, i) for i in self._ids]
        return [s for s in found if s is not None]

    def _show_changes(self) -> None:
        loaded_tests = self._loaded_tests()
        if len(loaded_tests) < 2:
            return
        self._say("What changed", Role.SUBHEADING)
        for place, loaded in enumerate(loaded_tests):
            self._stack.addWidget(self._side(place, loaded))
        labels = ["" if s == _WHOLE else s.removeprefix("strip ") for s in self._sides]
        left, right = (
            conditions_of(self.bench.notebook, loaded, label)
            for loaded, label in zip(loaded_tests, labels, strict=True)
        )
        found = differences(left, right)
        grid = QGridLayout()
        grid.setHorizontalSpacing(px(8))
        for row, difference in enumerate(found[:_MOST_DIFFERENCES]):
            for at, words in enumerate((difference.name, difference.left, difference.right)):
                role = Role.NOTE if at == 0 else Role.STRONG
                grid.addWidget(text(words, role, wrap=True), row, at)
        holder = QWidget()
        holder.setLayout(grid)
        self._stack.addWidget(holder)
        self._say(verdict(found))

    def _side(self, place: int, loaded: LoadedTest) -> QWidget:
        choices = [_WHOLE, *(f"strip {s.strip.label}" for s in loaded.strips)]

        def choose(words: str) -> None:
            self._sides[place] = choice_typed(words, choices)
            self.show_marked(self._ids)

        name = "left side" if place == 0 else "right side"
        field = WordField(name, choose, chooser(choices), role=Role.BODY)
        field.show_value(self._sides[place])
        name = f"{loaded.title}, {date_text(loaded.test.created_at)}:"
        return sentence(name, field, role=Role.BODY)

    def _choose(self, words: str) -> None:
        self._chosen = choice_typed(words, CHOICES)
        self._what.show_value(self._chosen)

    def _refuse(self, words: str) -> None:
        self.refusal.setText(words)
        self.refusal.setVisible(bool(words))

    def _start(self) -> None:
        test_id, what, words = self._here, self._chosen, self._value.text()
        if test_id is None or self._what.why_refused:
            return
        self.refusal.hide()
        try:
            made = self.bench.edit_or_raise(
                lambda notebook: start_variant(notebook, test_id, what, words)
            )
        except EditRefusedError as refusal:
            self.refusal.setText(str(refusal))
            self.refusal.show()
            return
        if made is not None:
            self._value.clear()
            self._opened(made.id)

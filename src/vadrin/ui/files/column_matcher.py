"""Matching the columns of a foreign table, with its first rows in sight, before it comes in."""

from __future__ import annotations

from collections.abc import Callable
from typing import TYPE_CHECKING

from PyQt6.QtWidgets import QGridLayout, QHBoxLayout, QVBoxLayout, QWidget

from vadrin.app.entry.choices import choice_typed
from vadrin.app.entry.stepping import chooser
from vadrin.ui.theme.roles import Role
from vadrin.ui.theme.typeface import px
from vadrin.ui.widgets.buttons import button
from vadrin.ui.widgets.fields import WordField
from vadrin.ui.widgets.labels import rule, text

if TYPE_CHECKING:
    from vadrin.formats.readings.column_matching import RawTable

_ROWS_SHOWN, _COLUMNS_SHOWN = 4, 9


class ColumnMatcher(QWidget):
    """Stands under the header while a table's columns are matched.

    Parameters
    ----------
    accept : callable
        Takes the raw table and the matched columns.
    """

    def __init__(self, accept: Callable[[RawTable, tuple[str, ...]], None]) -> None:
        super().__init__()
        self._accept = accept
        self._raw: RawTable | None = None
        self.fields: list[WordField] = []
        column = QVBoxLayout(self)
        column.setContentsMargins(px(14), px(10), px(14), 0)
        self._title = text("", Role.LEAD_STRONG, wrap=True)
        self._grid_holder = QWidget()
        self._outcome = text("", Role.BODY, wrap=True)
        row = QHBoxLayout()
        self._take = button("Import", self._import)
        row.addWidget(self._take)
        row.addWidget(button("Cancel import", self.hide))
        row.addWidget(self._outcome, 1)
        column.addWidget(self._title)
        column.addWidget(self._grid_holder)
        column.addLayout(row)
        column.addWidget(rule())
        self._column = column
        self.hide()

    def offer(self, raw: RawTable, columns: tuple[str, ...], remembered: bool) -> None:
        """Show a table with a first matching of its columns."""
        self._raw = raw
        how = "matched as last time" if remembered else "guessed; put right what is wrong"
        self._title.setText(
            f"{raw.source}: what does each column hold? The words in bold are {how}: arrow "
            "keys step, Tab goes on."
        )
        self._build(raw, columns)
        self._judge()
        self.show()
        if self.fields:
            self.fields[0].setFocus()

    def columns(self) -> tuple[str, ...]:
        """The matching as it stands."""
        from vadrin.app.read.reading_files import meaning_typed

        return tuple(meaning_typed(f.text()) for f in self.fields)

    def _build(self, raw: RawTable, columns: tuple[str, ...]) -> None:
        from vadrin.app.read.reading_files import meaning_text, meanings

        self._column.removeWidget(self._grid_holder)
        self._grid_holder.hide()
        self._grid_holder.deleteLater()
        self._grid_holder = QWidget()
        grid = QGridLayout(self._grid_holder)
        grid.setContentsMargins(0, 0, 0, 0)
        grid.setHorizontalSpacing(px(18))
        self.fields = []
        for at, (header, meaning) in enumerate(zip(raw.headers, columns, strict=True)):
            choices = meanings(header)
            field = WordField(
                f"column {header}", self._taken(choices, at), chooser(choices), role=Role.BODY
            )
            field.show_value(meaning_text(meaning))
            self.fields.append(field)
            if at >= _COLUMNS_SHOWN:
                field.setParent(self._grid_holder)
                field.hide()
                continue
            grid.addWidget(text(header[:24] or "no heading", Role.LABEL), 0, at)
            grid.addWidget(field, 1, at)
            for row, (_, cells) in enumerate(raw.rows[:_ROWS_SHOWN], start=2):
                cell = cells[at] if at < len(cells) else ""
                grid.addWidget(text(cell[:18], Role.NOTE), row, at)
        grid.setColumnStretch(len(raw.headers), 1)
        self._column.insertWidget(1, self._grid_holder)

    def _taken(self, choices: list[str], at: int) -> Callable[[str], None]:
        def take(words: str) -> None:
            self.fields[at].show_value(choice_typed(words, choices))
            self._judge()

        return take

    def _judge(self) -> None:
        """Say what would come in with the matching as it stands."""
        from vadrin.app.read.reading_files import judge_matching

        if self._raw is not None:
            verdict = judge_matching(self._raw, self.columns())
            self._take.setEnabled(verdict.usable)
            self._outcome.setText(verdict.words)

    def _import(self) -> None:
        if self._raw is not None:
            self.hide()
            self._accept(self._raw, self.columns())

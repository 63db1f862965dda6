"""Matching the columns of a foreign table, with its first rows in sight, before it comes in."""

from __future__ import annotations

from collections.abc import Callable
from typing import TYPE_CHECKING

from PyQt6.QtWidgets import QGridLayout, QHBoxLayout, QVBoxLayout, QWidget

from vadrin.ui.theme.typeface import px
from vadrin.ui.widgets.parts import WordField, button, chooser, rule, text

if TYPE_CHECKING:
    from vadrin.formats.readings.column_matching import RawTable
    from vadrin.formats.readings.readings_table import ReadingsTable

_ROWS_SHOWN, _COLUMNS_SHOWN = 4, 9
_KEPT = "kept as it is"


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
        self._title = text("", 15, 500, wrap=True)
        self._grid_holder = QWidget()
        self._outcome = text("", 13, wrap=True)
        row = QHBoxLayout()
        self._take = button("Import", self._import)
        row.addWidget(self._take)
        row.addWidget(button("Leave it", self.hide))
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
        return tuple(_meaning(f.text()) for f in self.fields)

    def _build(self, raw: RawTable, columns: tuple[str, ...]) -> None:
        self._column.removeWidget(self._grid_holder)
        self._grid_holder.hide()
        self._grid_holder.deleteLater()
        self._grid_holder = QWidget()
        grid = QGridLayout(self._grid_holder)
        grid.setContentsMargins(0, 0, 0, 0)
        grid.setHorizontalSpacing(px(18))
        self.fields = []
        for at, (header, meaning) in enumerate(zip(raw.headers, columns, strict=True)):
            choices = _choices(header)
            field = WordField(f"column {header}", self._taken(choices),
                              chooser(choices), size=13)  # fmt: skip
            field.show_value(_words(meaning))
            self.fields.append(field)
            if at >= _COLUMNS_SHOWN:
                field.setParent(self._grid_holder)
                field.hide()
                continue
            grid.addWidget(text(header[:24] or "no heading", 13, 700), 0, at)
            grid.addWidget(field, 1, at)
            for row, (_, cells) in enumerate(raw.rows[:_ROWS_SHOWN], start=2):
                cell = cells[at] if at < len(cells) else ""
                grid.addWidget(text(cell[:18], 13, tone="soft"), row, at)
        grid.setColumnStretch(len(raw.headers), 1)
        self._column.insertWidget(1, self._grid_holder)

    def _taken(self, choices: list[str]) -> Callable[[str], None]:
        def take(words: str) -> None:
            if words not in choices:
                raise ValueError(f"one of {', '.join(choices)}")
            self._judge()

        return take

    def _table(self) -> ReadingsTable | None:
        from vadrin.formats.readings.column_matching import matching_faults, table_of
        from vadrin.formats.readings.readings_table import FormatError

        if self._raw is None:
            return None
        fault = matching_faults(self.columns())
        if fault:
            self._outcome.setText(f"Not yet: {fault}.")
            return None
        try:
            return table_of(self._raw, self.columns())
        except FormatError as error:
            self._outcome.setText(f"Not yet: {error}.")
            return None

    def _judge(self) -> None:
        """Say what would come in with the matching as it stands."""
        table = self._table()
        self._take.setEnabled(bool(table and table.rows))
        if table is None:
            return
        strips = len({r.strip for r in table.rows})
        words = f"{len(table.rows)} readings on {strips} strip{'s' if strips != 1 else ''}"
        if table.problems:
            words += (
                f"; {len(table.problems)} cells cannot be read ({table.problems[0].sentence()})"
            )
        if not table.exposures_known:
            words += "; no exposures: the densities go to the frames of a test in their order"
        self._outcome.setText(words + ".")

    def _import(self) -> None:
        if self._raw is not None:
            self.hide()
            self._accept(self._raw, self.columns())


def _words(meaning: str) -> str:
    return meaning.replace("_", " ") if meaning else _KEPT


def _meaning(words: str) -> str:
    from vadrin.formats.readings.column_matching import STRIP_DENSITY

    if words == _KEPT:
        return ""
    return words if words.startswith(STRIP_DENSITY) else words.replace(" ", "_")


def _choices(header: str) -> list[str]:
    from vadrin.formats.readings.column_matching import KNOWN, STRIP_DENSITY

    return [_KEPT, *(_words(k) for k in KNOWN), STRIP_DENSITY + (header.strip() or "A")]

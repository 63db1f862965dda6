"""Tables of the finding: the methods, the pushes by every rule, materials side by side."""

from __future__ import annotations

from typing import TYPE_CHECKING

from PyQt6.QtCore import Qt
from PyQt6.QtWidgets import QLabel, QWidget

from vadrin.app.descriptions.answer_in_words import AnswerTable
from vadrin.app.display.verdict_words import shadow_words
from vadrin.app.document.state import State
from vadrin.app.results.comparison_rows import HEADS, comparison_rows
from vadrin.app.results.method_rows import method_lines
from vadrin.app.results.metric_rows import Cell
from vadrin.app.results.push_rows import RULE_NAMES, PushLine, push_lines
from vadrin.ui.theme.roles import Role
from vadrin.ui.theme.typeface import scale
from vadrin.ui.widgets.labels import text
from vadrin.ui.widgets.reading_table import ReadingTable
from vadrin.ui.widgets.tips import set_tip

if TYPE_CHECKING:
    from vadrin.core.results.analysis_result import Analysis
    from vadrin.core.results.hold_rule import HoldRule

_TOP = Qt.AlignmentFlag.AlignTop
_ROOMY_TYPE = 1.3
"""Text scale up to which ranges have room beside their times."""


def answer_table(table: AnswerTable) -> QWidget:
    """The rows behind an answer of a kind's own."""
    made = ReadingTable("figures of the answer", table.heads)
    made.put_heads(table.heads)
    for row, line in enumerate(table.rows):
        for column, words in enumerate(line):
            role = Role.STRONG if column == 0 else Role.BODY
            made.put(text(words, role, wrap=len(words) > 30), (row, column), lies=_TOP)
    made.grid.setColumnStretch(len(table.heads), 1)
    return made


def method_table(analysis: Analysis) -> QWidget:
    """Every method's EI and time, with one sentence on what it asks."""
    heads = ("EI method", "EI", "Time", "What it asks")
    made = ReadingTable("EI methods", heads)
    made.put_heads(heads)
    for row, line in enumerate(method_lines(analysis)):
        for column, words in enumerate((line.name, line.index, line.time)):
            made.put(text(words, Role.LEAD, bold=line.chosen), (row, column), lies=_TOP)
        made.put(text(line.why, Role.CAPTION, wrap=True), (row, 3))
    made.grid.setColumnStretch(3, 1)
    return made


def comparison_table(state: State) -> QWidget:
    """Other films, developers or processes beside the reference."""
    made = ReadingTable("side by side", HEADS, 18)
    made.put_heads(HEADS)
    for row, line in enumerate(comparison_rows(state)):
        name = text(line.name, Role.LEAD_STRONG, wrap=True)
        made.put(name, (row, 0), (1 + 2 * row, 0, 2, 1), _TOP)
        for column, cell in enumerate(line.cells, start=1):
            shown = text(cell.shown, Role.LEAD, bold=column == 1)
            set_tip(shown, cell.why)
            made.put(shown, (row, column), (1 + 2 * row, column))
            made.put(text(cell.spread, Role.CAPTION), (row, column), (2 + 2 * row, column))
    made.grid.setColumnStretch(0, 1)
    return made


def push_table(analysis: Analysis, chosen: HoldRule) -> QWidget:
    """Times of pushes and pulls by each rule, with what each costs by the chosen one.

    Ranges stand beside their times, and names beside their EIs; in large type under them.
    """
    stacked = scale() > _ROOMY_TYPE
    rules = [
        part
        for name in RULE_NAMES.values()
        for part in ((name.capitalize(),) if stacked else (name.capitalize(), "range"))
    ]
    lines = push_lines(analysis, chosen)
    told = any(line.makers for line in lines)
    hearsay = "+30 % · maker" if told else "+30 % a stop"
    named = ("Shoot at",) if stacked else ("Shoot at", "")
    heads = (*named, *rules, hearsay, "Shadow detail", "")
    said = ("shoot at", *(name for name in RULE_NAMES.values()), hearsay, "shadow detail")
    made = ReadingTable("pushes and pulls", said, 10 if stacked else 18)
    made.put_heads(heads, RULE_NAMES[chosen].capitalize())
    for place, line in enumerate(lines):
        row = 1 + 2 * place
        made.put(text(line.index, Role.LEAD, bold=line.normal), (place, 0), (row, 0))
        name = text(line.name, Role.CAPTION if stacked else Role.LEAD, bold=line.normal)
        made.put(name, (place, 0), (row + 1, 0) if stacked else (row, 1))
        for number, rule in enumerate(RULE_NAMES):
            bold = line.normal and rule is chosen
            column = len(named) + number * (1 if stacked else 2)
            beside = (row + 1, column) if stacked else (row, column + 1)
            cell = (place, 1 + number)
            _time(made, cell, ((row, column), beside), line.by_rule[rule], bold)
        last = len(named) + len(rules)
        made.put(_hearsay(line, told), (place, len(said) - 2), (row, last))
        if line.verdict is not None:
            tone = "trouble" if line.grave else None
            cell = (place, len(said) - 1)
            made.put(text(line.loss, Role.LEAD, bold=line.normal), cell, (row, last + 1))
            under = Role.BODY if stacked else Role.LEAD
            shown = text(shadow_words(line.verdict), under, tone=tone)
            made.put(shown, cell, (row + 1, last + 1) if stacked else (row, last + 2))
    made.grid.setColumnStretch(len(heads), 1)
    return made


def _hearsay(line: PushLine, with_maker: bool) -> QLabel:
    """What a share a stop says, and what the maker's table does, neither measured here."""
    known = [line.rule_of_thumb, line.makers] if with_maker else [line.rule_of_thumb]
    shown = " · ".join(cell.shown if cell else "—" for cell in known)
    made = text(shown if any(known) else "", Role.LEAD, tone="soft")
    set_tip(made, "; ".join(cell.why for cell in known if cell))
    return made


def _time(
    table: ReadingTable,
    cell: tuple[int, int],
    places: tuple[tuple[int, int], tuple[int, int]],
    time: Cell,
    bold: bool,
) -> None:
    """A time with its range in the place for it, or why there is none."""
    at, beside = places
    if time.why:
        missing = text(time.shown, Role.LEAD, tone="soft")
        set_tip(missing, time.why)
        table.put(missing, cell, at)
        return
    table.put(text(time.shown, Role.LEAD, bold=bold), cell, at)
    under = at[0] != beside[0]
    spread = text(time.spread, Role.CAPTION if under else Role.LEAD, tone="soft")
    table.put(spread, cell, beside)

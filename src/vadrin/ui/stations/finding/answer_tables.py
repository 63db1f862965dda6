"""Tables of the finding: the methods, the pushes by every rule, materials side by side."""

from __future__ import annotations

from collections.abc import Sequence
from typing import TYPE_CHECKING

from PyQt6.QtCore import Qt
from PyQt6.QtWidgets import QGridLayout, QWidget

from vadrin.app.descriptions.answer_in_words import AnswerTable
from vadrin.app.display.verdict_words import shadow_words
from vadrin.app.document.state import State
from vadrin.app.results.comparison_rows import HEADS, comparison_rows
from vadrin.app.results.method_rows import method_lines
from vadrin.app.results.metric_rows import Cell
from vadrin.app.results.push_rows import RULE_NAMES, PushLine, push_lines
from vadrin.ui.theme.roles import Role
from vadrin.ui.theme.typeface import px, scale
from vadrin.ui.widgets.labels import text
from vadrin.ui.widgets.tips import set_tip

if TYPE_CHECKING:
    from vadrin.core.results.analysis_result import Analysis
    from vadrin.core.results.hold_rule import HoldRule

_TOP = Qt.AlignmentFlag.AlignTop
_ROOMY_TYPE = 1.3
"""Text scale up to which ranges have room beside their times."""


def _grid(heads: Sequence[str], gap: int, strong: str = "") -> tuple[QWidget, QGridLayout]:
    holder = QWidget()
    grid = QGridLayout(holder)
    grid.setContentsMargins(0, 0, 0, 0)
    grid.setHorizontalSpacing(px(gap))
    grid.setVerticalSpacing(px(4))
    for place, words in enumerate(heads):
        role = Role.LABEL if words and words == strong else Role.CAPTION
        grid.addWidget(text(words, role), 0, place)
    return holder, grid


def answer_table(table: AnswerTable) -> QWidget:
    """The rows behind an answer of a kind's own."""
    holder, grid = _grid(table.heads, 16)
    for row, line in enumerate(table.rows, start=1):
        for column, words in enumerate(line):
            role = Role.STRONG if column == 0 else Role.BODY
            grid.addWidget(text(words, role, wrap=len(words) > 30), row, column, _TOP)
    grid.setColumnStretch(len(table.heads), 1)
    return holder


def method_table(analysis: Analysis) -> QWidget:
    """Every method's EI and time, with one sentence on what it asks."""
    holder, grid = _grid(("EI method", "EI", "Time", "What it asks"), 16)
    for row, line in enumerate(method_lines(analysis), start=1):
        grid.addWidget(text(line.name, Role.LEAD, bold=line.chosen), row, 0, _TOP)
        grid.addWidget(text(line.index, Role.LEAD, bold=line.chosen), row, 1, _TOP)
        grid.addWidget(text(line.time, Role.LEAD, bold=line.chosen), row, 2, _TOP)
        grid.addWidget(text(line.why, Role.CAPTION, wrap=True), row, 3)
    grid.setColumnStretch(3, 1)
    return holder


def comparison_table(state: State) -> QWidget:
    """Other films, developers or processes beside the reference."""
    holder, grid = _grid(HEADS, 18)
    for row, line in enumerate(comparison_rows(state)):
        grid.addWidget(text(line.name, Role.LEAD_STRONG, wrap=True), 1 + 2 * row, 0, 2, 1, _TOP)
        for column, cell in enumerate(line.cells, start=1):
            shown = text(cell.shown, Role.LEAD, bold=column == 1)
            set_tip(shown, cell.why)
            grid.addWidget(shown, 1 + 2 * row, column)
            grid.addWidget(text(cell.spread, Role.CAPTION), 2 + 2 * row, column)
    grid.setColumnStretch(0, 1)
    return holder


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
    holder, grid = _grid(heads, 10 if stacked else 18, RULE_NAMES[chosen].capitalize())
    for place, line in enumerate(lines):
        row = 1 + 2 * place
        grid.addWidget(text(line.index, Role.LEAD, bold=line.normal), row, 0)
        name = text(line.name, Role.CAPTION if stacked else Role.LEAD, bold=line.normal)
        grid.addWidget(name, *((row + 1, 0) if stacked else (row, 1)))
        for number, rule in enumerate(RULE_NAMES):
            bold = line.normal and rule is chosen
            column = len(named) + number * (1 if stacked else 2)
            beside = (row + 1, column) if stacked else (row, column + 1)
            _time(grid, (row, column), beside, line.by_rule[rule], bold)
        last = len(named) + len(rules)
        grid.addWidget(_hearsay(line, told), row, last)
        if line.verdict is not None:
            tone = "trouble" if line.grave else None
            grid.addWidget(text(line.loss, Role.LEAD, bold=line.normal), row, last + 1)
            under = Role.BODY if stacked else Role.LEAD
            shown = text(shadow_words(line.verdict), under, tone=tone)
            grid.addWidget(shown, *((row + 1, last + 1) if stacked else (row, last + 2)))
    grid.setColumnStretch(len(heads), 1)
    return holder


def _hearsay(line: PushLine, with_maker: bool) -> QWidget:
    """What a share a stop says, and what the maker's table does, neither measured here."""
    known = [line.rule_of_thumb, line.makers] if with_maker else [line.rule_of_thumb]
    shown = " · ".join(cell.shown if cell else "—" for cell in known)
    made = text(shown if any(known) else "", Role.LEAD, tone="soft")
    set_tip(made, "; ".join(cell.why for cell in known if cell))
    return made


def _time(
    grid: QGridLayout, at: tuple[int, int], beside: tuple[int, int], time: Cell, bold: bool
) -> None:
    """A time with its range in the cell for it, or why there is none."""
    if time.why:
        missing = text(time.shown, Role.LEAD, tone="soft")
        set_tip(missing, time.why)
        grid.addWidget(missing, *at)
        return
    grid.addWidget(text(time.shown, Role.LEAD, bold=bold), *at)
    under = at[0] != beside[0]
    spread = text(time.spread, Role.CAPTION if under else Role.LEAD, tone="soft")
    grid.addWidget(spread, *beside)

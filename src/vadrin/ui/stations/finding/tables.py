"""Tables of the finding: the schools, the pushes by every rule, materials side by side."""

from __future__ import annotations

from collections.abc import Sequence

from PyQt6.QtCore import Qt
from PyQt6.QtWidgets import QGridLayout, QWidget

from vadrin.app.display.quantities import loss_text, minutes_range_text, minutes_text, push_name
from vadrin.app.results.comparison_rows import HEADS, comparison_rows
from vadrin.app.results.school_rows import school_lines
from vadrin.app.test_sheet import TestSheet
from vadrin.core.exposure.arithmetic import marked_ei
from vadrin.core.results.analysis import Analysis
from vadrin.core.results.push import PushRow, verdict
from vadrin.ui.theme.typeface import px
from vadrin.ui.widgets.parts import text

_TOP = Qt.AlignmentFlag.AlignTop


def _grid(heads: Sequence[str], gap: int) -> tuple[QWidget, QGridLayout]:
    holder = QWidget()
    grid = QGridLayout(holder)
    grid.setContentsMargins(0, 0, 0, 0)
    grid.setHorizontalSpacing(px(gap))
    grid.setVerticalSpacing(px(4))
    for place, words in enumerate(heads):
        grid.addWidget(text(words, 12, tone="soft"), 0, place)
    return holder, grid


def school_table(analysis: Analysis) -> QWidget:
    """Every school's EI and time, with one sentence on what it asks."""
    holder, grid = _grid(("School", "EI", "Time", "What it asks"), 16)
    for row, line in enumerate(school_lines(analysis), start=1):
        weight = 700 if line.chosen else 400
        tone = "grease" if line.chosen else ""
        grid.addWidget(text(line.name, 15, weight), row, 0, _TOP)
        grid.addWidget(text(line.index, 15, weight, tone), row, 1, _TOP)
        grid.addWidget(text(line.time, 15, weight), row, 2, _TOP)
        grid.addWidget(text(line.why, 12, tone="soft", wrap=True), row, 3)
    grid.setColumnStretch(3, 1)
    return holder


def comparison_table(sheet: TestSheet, analysis: Analysis) -> QWidget:
    """Other films, developers or processes beside the reference."""
    holder, grid = _grid(HEADS, 18)
    for row, line in enumerate(comparison_rows(sheet, analysis)):
        grid.addWidget(text(line.name, 15, 500, wrap=True), 1 + 2 * row, 0, 2, 1, _TOP)
        for column, cell in enumerate(line.cells, start=1):
            shown = text(cell.shown, 15, 700 if column == 1 else 400)
            shown.setToolTip(cell.why)
            grid.addWidget(shown, 1 + 2 * row, column)
            grid.addWidget(text(cell.spread, 12, tone="soft"), 2 + 2 * row, column)
    grid.setColumnStretch(0, 1)
    return holder


def push_table(analysis: Analysis) -> QWidget:
    """Times of pushes and pulls, with what each costs."""
    heads = ("Shoot at", "", "Highlight held", "range", "Mid-tone held", "range",
             "+30 % a stop", "Shadow lost", "")  # fmt: skip
    holder, grid = _grid(heads, 20)
    for row, push in enumerate(analysis.push, start=1):
        index = push.exposure_index.value
        weight = 700 if push.stops == 0 else 400
        grid.addWidget(text("—" if index is None else str(marked_ei(index)), 15, weight), row, 0)
        grid.addWidget(text(push_name(push.stops), 15, weight), row, 1)
        _hold(grid, row, 2, push.hold_highlight, weight)
        _hold(grid, row, 4, push.hold_midtone, weight)
        shared = push.fixed_share.time_min.value
        if shared is not None and push.stops:
            rules_of_thumb = text(minutes_text(shared), 13, tone="soft")
            rules_of_thumb.setToolTip("a rule of thumb, not measured here")
            grid.addWidget(rules_of_thumb, row, 6)
        loss = push.hold_highlight.shadow_loss_stops.value
        if loss is not None:
            grave = verdict(loss) in ("salvage", "nothing there")
            grid.addWidget(text(loss_text(loss), 15, weight), row, 7)
            grid.addWidget(text(verdict(loss), 13, tone="grease" if grave else ""), row, 8)
    grid.setColumnStretch(9, 1)
    return holder


def _hold(grid: QGridLayout, row: int, column: int, held: PushRow, weight: int) -> None:
    time = held.time_min
    if time.value is None:
        missing = text("not tested", 13, tone="soft")
        missing.setToolTip(time.why)
        grid.addWidget(missing, row, column)
        return
    grid.addWidget(text(minutes_text(time.value), 15, weight), row, column)
    grid.addWidget(text(minutes_range_text(time), 12, tone="soft"), row, column + 1)

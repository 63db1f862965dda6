"""The views that show a kind of test's answer, by the key its page names."""

from __future__ import annotations

from collections.abc import Callable

from PyQt6.QtWidgets import QVBoxLayout, QWidget

from vadrin.app.kinds.kind_page import CONTROL_CHART, SCHOOLS_AND_PUSHES, TWO_PIECES
from vadrin.app.process.clip_judging import clip_kind_answer, clip_pieces
from vadrin.app.process.control_strips import chart_lanes, chart_words, control_rows
from vadrin.app.results.light_box_ei import without_densities
from vadrin.app.results.school_rows import limits_text
from vadrin.ui.plots.control_chart import ControlChart
from vadrin.ui.plots.two_greys import TwoGreys
from vadrin.ui.stations.finding.answer_tables import comparison_table, push_table, school_table
from vadrin.ui.stations.station import Scene
from vadrin.ui.theme.roles import Role
from vadrin.ui.theme.typeface import px
from vadrin.ui.widgets.labels import rule, text

View = Callable[[Scene], QWidget]
"""Makes the picture of an answer from a scene."""


def schools_and_pushes(scene: Scene) -> QWidget:
    """Materials beside the reference, the schools side by side, and the pushes."""
    body = QWidget()
    column = QVBoxLayout(body)
    column.setContentsMargins(0, 0, px(6), 0)
    column.setSpacing(px(6))
    sheet, analysis = scene.sheet, scene.analysis
    if sheet is None or analysis is None or not analysis.strips:
        column.addWidget(text(without_densities(sheet), Role.LEAD, wrap=True))
    else:
        if analysis.compared:
            column.addWidget(comparison_table(sheet, analysis))
            column.addWidget(rule())
        if not analysis.schools and not analysis.finding.time_min.present:
            # One time alone was tried: nothing tells what another would do.
            words = f"No push or pull can be told: {analysis.finding.time_min.why}."
            column.addWidget(text(words, Role.NOTE, wrap=True))
        else:
            column.addWidget(school_table(analysis))
            column.addWidget(rule())
            column.addWidget(push_table(analysis, sheet.test.push_rule))
            column.addWidget(text(limits_text(analysis), Role.NOTE, wrap=True))
    column.addStretch(1)
    return body


def control_chart(scene: Scene) -> QWidget:
    """The strips of a batch over their runs."""
    body = QWidget()
    column = QVBoxLayout(body)
    column.setContentsMargins(0, 0, px(6), 0)
    if scene.sheet is not None:
        column.addWidget(text(chart_words(scene.sheet), Role.LEAD, wrap=True))
        chart = ControlChart()
        chart.show_lanes(chart_lanes(scene.sheet), scene.look)
        column.addWidget(chart, 1)
        for row in control_rows(scene.sheet):
            tone = "grease" if row.out else None
            column.addWidget(text(f"{row.name}: {row.standing}", Role.BODY, wrap=True, tone=tone))
    return body


def two_pieces(scene: Scene) -> QWidget:
    """A clip and the good piece as two greys side by side, and what that says."""
    body = QWidget()
    column = QVBoxLayout(body)
    column.setContentsMargins(0, 0, px(6), 0)
    if scene.sheet is not None:
        greys = TwoGreys()
        greys.show_pieces(clip_pieces(scene.sheet), scene.look)
        answer = clip_kind_answer(scene.sheet)
        column.addWidget(greys)
        column.addWidget(text(answer.says, Role.INDEX))
        column.addWidget(text(answer.words, Role.LEAD, wrap=True))
        column.addWidget(text(answer.act, Role.LEAD_STRONG, wrap=True))
    column.addStretch(1)
    return body


VIEWS: dict[str, View] = {CONTROL_CHART: control_chart, TWO_PIECES: two_pieces}


def register_view(key: str, view: View) -> None:
    """Show the answers of kinds that name this key by a view of their own."""
    VIEWS[key] = view


def answer_view(key: str) -> View:
    """The view of a key; the usual one where there is none."""
    return VIEWS.get(key, schools_and_pushes)


register_view(SCHOOLS_AND_PUSHES, schools_and_pushes)

"""The views that show a kind of test's answer, by the key its page names."""

from __future__ import annotations

from collections.abc import Callable

from PyQt6.QtCore import Qt
from PyQt6.QtWidgets import QHBoxLayout, QVBoxLayout, QWidget

from vadrin.app.answers.push_ladder import over_developed_proof, push_rows, speed_rows
from vadrin.app.judged.light_box_ei import without_densities
from vadrin.app.kind_answer import FilmRow, own_answer
from vadrin.app.kinds.kind_page import (
    CONTROL_CHART,
    FRAMES_BY_INDEX,
    KIND_ANSWER,
    PUSH_LADDER,
    SCHOOLS_AND_PUSHES,
    TWO_PIECES,
)
from vadrin.app.process.clip_judging import clip_kind_answer, clip_pieces
from vadrin.app.process.control_strips import chart_lanes, chart_words, control_rows
from vadrin.app.results.school_rows import limits_text
from vadrin.ui.plots.answer_plot import AnswerPlotView
from vadrin.ui.plots.control_chart import ControlChart
from vadrin.ui.plots.film_rows import FilmRows
from vadrin.ui.plots.hue_wedges import HueWedges
from vadrin.ui.plots.two_greys import TwoGreys
from vadrin.ui.stations.finding.answer_tables import (
    answer_table,
    comparison_table,
    push_table,
    school_table,
)
from vadrin.ui.stations.station import Scene
from vadrin.ui.theme.roles import Role
from vadrin.ui.theme.typeface import px
from vadrin.ui.widgets.labels import rule, text

_NARROW = 3
"""Columns of a table up to which a plot stands beside it."""
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


def kind_answer(scene: Scene) -> QWidget:
    """What a kind says in its own words: its film, its plot, its rows, and the one act."""
    body = QWidget()
    column = QVBoxLayout(body)
    column.setContentsMargins(0, 0, px(6), 0)
    column.setSpacing(px(6))
    answer = own_answer(scene.sheet, scene.analysis) if scene.sheet is not None else None
    if answer is None:
        column.addStretch(1)
        return body
    if answer.says:
        column.addWidget(text(answer.says, Role.TIME, wrap=True, tone="grease"))
    words = answer.words if scene.analysis is not None or answer.says else "working it out …"
    column.addWidget(text(f"{words[:1].upper()}{words[1:]}", Role.BODY, wrap=True))
    # In their place before they are shown: a widget of no window would open one of its own.
    film, plot = FilmRows(), AnswerPlotView()
    column.addWidget(film)
    film.show_rows(answer.film, scene.look)
    narrow = answer.table is not None and len(answer.table.heads) <= _NARROW
    row = QHBoxLayout() if narrow else QVBoxLayout()
    if answer.table is not None:
        row.addWidget(answer_table(answer.table), 0, Qt.AlignmentFlag.AlignTop)
    row.addWidget(plot, 1)
    column.addLayout(row, 1)
    plot.show_plot(answer.plot, scene.look)
    if answer.hues:
        wedges = HueWedges()
        column.addWidget(wedges)
        wedges.show_turns(answer.hues, scene.look)
    for table in answer.more:
        column.addWidget(answer_table(table), 0, Qt.AlignmentFlag.AlignTop)
    column.addWidget(text(answer.act, Role.LEAD_STRONG, wrap=True))
    column.addStretch(0)
    return body


def _with_film(scene: Scene, rows: tuple[FilmRow, ...], words: str) -> QWidget:
    """The usual answers with the film they rest on above them."""
    body = schools_and_pushes(scene)
    column = body.layout()
    if isinstance(column, QVBoxLayout):
        film = FilmRows()
        column.insertWidget(0, film)
        film.show_rows(rows, scene.look)
        if words:
            column.insertWidget(1, text(words, Role.LEAD_STRONG, wrap=True))
    return body


def push_ladder(scene: Scene) -> QWidget:
    """A row of film for each push, and what a longer development proves, over the tables."""
    sheet = scene.sheet
    rows = push_rows(sheet) if sheet is not None else ()
    return _with_film(scene, rows, over_developed_proof(sheet) if sheet is not None else "")


def frames_by_index(scene: Scene) -> QWidget:
    """The frames in the order of their EIs, over the schools."""
    return _with_film(scene, speed_rows(scene.sheet) if scene.sheet is not None else (), "")


VIEWS: dict[str, View] = {
    CONTROL_CHART: control_chart,
    TWO_PIECES: two_pieces,
    KIND_ANSWER: kind_answer,
    PUSH_LADDER: push_ladder,
    FRAMES_BY_INDEX: frames_by_index,
}


def register_view(key: str, view: View) -> None:
    """Show the answers of kinds that name this key by a view of their own."""
    VIEWS[key] = view


def answer_view(key: str) -> View:
    """The view of a key; the usual one where there is none."""
    return VIEWS.get(key, schools_and_pushes)


register_view(SCHOOLS_AND_PUSHES, schools_and_pushes)

"""The views that show the answer of a type of test: its own, or one of the usual two."""

from __future__ import annotations

from collections.abc import Callable
from importlib import import_module
from importlib.util import find_spec

from PyQt6.QtCore import Qt
from PyQt6.QtWidgets import QHBoxLayout, QVBoxLayout, QWidget

from vadrin.app.descriptions import answers_itself, name_of, own_answer
from vadrin.app.descriptions.answer_in_words import FilmRow
from vadrin.app.overview.finding_sections import Section, sections_of
from vadrin.app.results.headline import Headline, headline_of
from vadrin.app.results.light_box_ei import without_densities
from vadrin.app.results.method_rows import limits_text, other_methods
from vadrin.app.results.overexposure import overexposure_words
from vadrin.ui.plots.answer_plot import AnswerPlotView
from vadrin.ui.plots.film_rows import FilmRows
from vadrin.ui.plots.hue_wedges import HueWedges
from vadrin.ui.plots.patch_squares import PatchSquares
from vadrin.ui.stations.finding.answer_tables import (
    answer_table,
    comparison_table,
    method_table,
    push_table,
)
from vadrin.ui.stations.station import ViewState
from vadrin.ui.theme.roles import Role
from vadrin.ui.theme.typeface import px
from vadrin.ui.widgets.labels import rule, text
from vadrin.ui.widgets.sections import add_sections

_WHERE = "vadrin.ui.stations.finding.test_types"
_NARROW = 3
"""Columns of a table up to which a plot stands beside it."""
_PATCHES = "Each patch: left as it is normally, right as that push makes it."
_DIALS = "Direction: hue. Length: chroma. The shade runs from the normal to the longest push."
View = Callable[[ViewState], QWidget]
"""Makes the picture of an answer from a scene."""


def _headline(headline: Headline) -> QHBoxLayout:
    """The EI and the time side by side, each with how sure it is."""
    row = QHBoxLayout()
    row.setSpacing(px(26))
    for figure, role, note in (
        (headline.index, Role.INDEX, headline.index_note),
        (headline.time, Role.INDEX, headline.time_note),
    ):
        if figure or note:
            one = QVBoxLayout()
            one.setSpacing(0)
            one.addWidget(text(figure or "—", role))
            one.addWidget(text(note, Role.NOTE, wrap=True))
            row.addLayout(one, 1)
    return row


def with_sections(body: QWidget, scene: ViewState, beside: tuple[Section, ...]) -> QWidget:
    """Under an answer what stands beside it, what to do next, what to mind, and what it rests on,
    in two columns."""
    column = body.layout()
    if scene.state is None or not isinstance(column, QVBoxLayout):
        return body
    sections = sections_of(scene.state, beside)
    row = QHBoxLayout()
    row.setSpacing(px(26))
    for side in (sections[: (len(sections) + 1) // 2], sections[(len(sections) + 1) // 2 :]):
        part = QVBoxLayout()
        part.setSpacing(px(5))
        add_sections(part, side, ruled=False)
        part.addStretch(1)
        row.addLayout(part, 1)
    if sections:
        column.addWidget(rule())
    column.addLayout(row)
    column.addStretch(1)
    return body


def methods_and_pushes(scene: ViewState) -> QWidget:
    """Materials beside the reference, the methods side by side, and the pushes."""
    body = QWidget()
    column = QVBoxLayout(body)
    column.setContentsMargins(0, 0, px(6), 0)
    column.setSpacing(px(6))
    loaded, analysis = scene.loaded, scene.analysis
    if scene.state is not None:
        column.addLayout(_headline(headline_of(scene.state)))
    if scene.state is None or loaded is None or analysis is None or not analysis.strips:
        column.addWidget(text(without_densities(loaded), Role.LEAD, wrap=True))
    else:
        if analysis.compared:
            column.addWidget(comparison_table(scene.state))
            column.addWidget(rule())
        if not analysis.methods and not analysis.finding.time_min.present:
            # One time alone was tried: nothing tells what another would do.
            words = f"No push or pull can be found: {analysis.finding.time_min.why}."
            column.addWidget(text(words, Role.NOTE, wrap=True))
        else:
            if scene.in_full:
                column.addWidget(method_table(analysis))
            else:
                column.addWidget(text(other_methods(analysis), Role.NOTE, wrap=True))
            column.addWidget(rule())
            column.addWidget(push_table(analysis, loaded.test.push_rule))
            column.addWidget(text(limits_text(analysis), Role.NOTE, wrap=True))
        over = overexposure_words(scene.state) if scene.state is not None else ""
        if over:
            column.addWidget(text(over, Role.NOTE, wrap=True))
    return body


def own_answer_view(scene: ViewState) -> QWidget:
    """What a kind says in its own words: its film, its plot, its rows, and the one act."""
    body = QWidget()
    column = QVBoxLayout(body)
    column.setContentsMargins(0, 0, px(6), 0)
    column.setSpacing(px(6))
    answer = own_answer(scene.state) if scene.state is not None else None
    if answer is None:
        column.addStretch(1)
        return body
    if answer.says:
        column.addWidget(text(answer.says, Role.TIME, wrap=True))
    words = answer.words if scene.analysis is not None or answer.says else "working it out …"
    column.addWidget(text(f"{words[:1].upper()}{words[1:]}", Role.BODY, wrap=True))
    # In their place before they are shown: a widget of no window would open one of its own.
    film, plot = FilmRows(), AnswerPlotView()
    column.addWidget(film)
    film.show_rows(answer.film, scene.look)
    narrow = answer.table is not None and len(answer.table.heads) <= _NARROW
    row = QHBoxLayout() if narrow else QVBoxLayout()
    if answer.table is not None and answer.table.in_a_line and answer.says:
        column.addWidget(text(answer.table.in_a_line, Role.NOTE, wrap=True))
    elif answer.table is not None:
        row.addWidget(answer_table(answer.table), 0, Qt.AlignmentFlag.AlignTop)
    row.addWidget(plot, 1)
    column.addLayout(row, 1 if answer.plot is not None else 0)
    plot.show_plot(answer.plot, scene.look)
    if answer.patches:
        squares = PatchSquares()
        column.addWidget(squares)
        squares.show_patches(answer.patches, scene.look)
        column.addWidget(text(_PATCHES, Role.CAPTION, wrap=True))
    if answer.hues:
        wedges = HueWedges()
        column.addWidget(wedges)
        wedges.show_turns(answer.hues, scene.look)
        column.addWidget(text(_DIALS, Role.CAPTION, wrap=True))
    for table in answer.more:
        column.addWidget(answer_table(table), 0, Qt.AlignmentFlag.AlignTop)
    return body


def with_film(scene: ViewState, rows: tuple[FilmRow, ...], words: str) -> QWidget:
    """The usual answers with the film they rest on, under their headline."""
    body = methods_and_pushes(scene)
    column = body.layout()
    if isinstance(column, QVBoxLayout):
        film = FilmRows()
        under = 1 if scene.state is not None else 0
        column.insertWidget(under, film)
        film.show_rows(rows, scene.look)
        if words:
            column.insertWidget(under + 1, text(words, Role.LEAD_STRONG, wrap=True))
    return body


def answer_view(key: str) -> View:
    """The view of a type of test: its own, where the folder beside has a file of its name."""
    name = name_of(key) or ""
    if name and find_spec(f"{_WHERE}.{name}") is not None:
        view: View = import_module(f"{_WHERE}.{name}").view
        return view
    return own_answer_view if answers_itself(key) else methods_and_pushes

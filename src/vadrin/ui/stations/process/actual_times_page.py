"""What the strips really got: a line a strip, and the conditions of the run."""

from __future__ import annotations

from collections.abc import Callable
from itertools import pairwise
from typing import TYPE_CHECKING

from PyQt6.QtWidgets import QGridLayout, QHBoxLayout, QLabel, QSizePolicy, QVBoxLayout, QWidget

from vadrin.app.document.workbench import Workbench
from vadrin.app.entry.stepping import chooser
from vadrin.app.loaded.loaded_test import LoadedStrip, LoadedTest
from vadrin.app.loaded.reference_temperature import (
    reference_of,
    reference_words,
    temperature_factor_of,
)
from vadrin.app.process.development import (
    StripLine,
    develop_as_planned,
    strip_line,
    type_temperature,
    type_time,
)
from vadrin.app.process.own_factor import (
    factor_words,
    keep_factor,
    learnt_factor,
    measured_factor,
    two_temperatures,
)
from vadrin.app.process.run_conditions import (
    CONDITIONS,
    condition_choices,
    condition_shown,
    set_condition,
)
from vadrin.app.process.strip_chemistry import (
    agitation_shown,
    chemistry_choices,
    chemistry_shown,
    process_choices,
    process_shown,
    type_agitation,
    type_chemistry,
    type_process,
)
from vadrin.core.figure import Figure
from vadrin.errors import EntryError
from vadrin.ui.jobs import Jobs
from vadrin.ui.kept import OfTest
from vadrin.ui.stations.station import ViewState
from vadrin.ui.theme.roles import Role
from vadrin.ui.theme.typeface import px
from vadrin.ui.widgets.buttons import button
from vadrin.ui.widgets.fields import WordField
from vadrin.ui.widgets.grids import empty_grid
from vadrin.ui.widgets.labels import rule, text
from vadrin.ui.widgets.sentence import sentence

if TYPE_CHECKING:
    from vadrin.notebook.store import Notebook

_CAUTIONS = (
    "Gloves, eye protection and fresh air. Keep developer off the skin and all of it away from "
    "food, cups and children. Add acid to water, never mix what the makers do not, and follow "
    "the makers' safety sheets: this program does not replace them. Used fixer carries silver; "
    "hand it in as local rules say."
)
_HEADS = (
    "Strip",
    "Planned",
    "Actual time",
    "Temperature °C",
    "At reference",
    "Process",
    "In",
    "Agitated",
)


class ActualTimesPage(QWidget):
    """A line a strip of what it got, and the conditions of the run.

    Parameters
    ----------
    bench : Workbench
    refuse : callable
        Says why something typed was not taken.
    jobs : Jobs
        Works out what takes longer than a blink.
    """

    _found: OfTest[Figure | None] = OfTest(lambda: None)

    def __init__(self, bench: Workbench, refuse: Callable[[str], None], jobs: Jobs) -> None:
        super().__init__()
        self._jobs = jobs
        self._offered: Figure | None = None
        self.bench, self._refuse = bench, refuse
        column = QVBoxLayout(self)
        column.setContentsMargins(0, 0, 0, 0)
        column.setSpacing(px(8))
        column.addWidget(text(_CAUTIONS, Role.CAPTION, wrap=True))
        column.addWidget(rule())
        self._grid = QGridLayout()
        self._grid.setContentsMargins(0, px(4), 0, px(4))
        # Not scaled: with large type the columns themselves need the room.
        self._grid.setHorizontalSpacing(26)
        self._grid.setVerticalSpacing(px(10))
        column.addLayout(self._grid)
        self._note = text("", Role.NOTE, wrap=True)
        column.addWidget(self._note)
        self._factor = text("", Role.NOTE, wrap=True)
        self.finder = button("Calculate the temperature factor", self.find_factor, link=True)
        self.keeper = button("Use this factor for the process", self.keep_factor, link=True)
        row = QHBoxLayout()
        row.addWidget(self._factor, 1)
        row.addWidget(self.finder)
        row.addWidget(self.keeper)
        column.addLayout(row)
        self._all = button("Record all as planned", self.as_planned)
        column.addWidget(self._all)
        column.addWidget(rule())
        self.conditions = {name: self._condition(name) for name in CONDITIONS}
        c = self.conditions
        column.addWidget(
            sentence(
                "Agitation:",
                c["agitation"],
                ". Tank:",
                c["vessel"],
                ". Water:",
                c["water"],
                ". Bottle:",
                c["bottle"],
                ". Process:",
                c["process"],
                ".",
                role=Role.LEAD,
            )
        )
        column.addWidget(
            sentence(
                "Light meter:",
                c["light meter"],
                ". Instrument:",
                c["instrument"],
                ", for paper",
                c["paper"],
                ".",
                role=Role.LEAD,
            )
        )
        column.addStretch(1)
        self._rows: dict[int, tuple[WordField, ...]] = {}
        self._shown_for: tuple[int, ...] = ()

    def _condition(self, name: str) -> WordField:
        def commit(words: str) -> None:
            loaded = self.bench.loaded
            if loaded is not None:
                test = loaded.test
                self.bench.edit_or_raise(lambda book: set_condition(book, test, name, words))

        known = chooser(lambda: condition_choices(self.bench.notebook, name))
        field = WordField(name, commit, known, role=Role.LEAD)
        field.refused.connect(self._refuse)
        return field

    def show_state(self, scene: ViewState) -> None:
        """Show a line for each strip, and the conditions of the run."""
        loaded = scene.loaded
        if loaded is None:
            return
        for name, field in self.conditions.items():
            field.show_value(condition_shown(self.bench.notebook, loaded.test, name))
        ids = tuple(s.strip.id for s in loaded.strips)
        if ids != self._shown_for:
            self._build(loaded.strips)
            self._shown_for = ids
        factor = temperature_factor_of(loaded)
        for row, strip in enumerate(loaded.strips, start=1):
            at = reference_of(loaded, strip), temperature_factor_of(loaded, strip)
            self._fill(row, loaded, strip, strip_line(strip.strip, *at))
        self._all.setText(f"Record all as planned, at {reference_words(loaded)}")
        self._show_factor(loaded)
        waiting = [s for s in loaded.strips if s.strip.time_min is None]
        self._all.setVisible(bool(waiting))
        self._note.setText(
            f"At reference: equivalent time at {reference_words(loaded)}, assuming development "
            f"runs {factor:g} × as fast for each 10 °C rise."
            + (
                " A strip with a process of its own uses that one's figures."
                if any(s.routine for s in loaded.strips)
                else ""
            )
        )

    def _show_factor(self, loaded: LoadedTest) -> None:
        found, here = self._found, two_temperatures(loaded)
        # The film's own strips tell it better than other films do.
        learnt = None if found is not None or here else learnt_factor(self.bench.notebook, loaded)
        words = factor_words(found) if found is not None else learnt.words if learnt else ""
        self._factor.setText(words)
        self.finder.setVisible(here and found is None)
        self._offered = found or (learnt.figure if learnt else None)
        self.keeper.setVisible(self._offered is not None and self._offered.present)

    def find_factor(self) -> None:
        """Work the factor out, off the screen's thread."""
        loaded = self.bench.loaded
        if loaded is not None:
            self.finder.setVisible(False)
            self._factor.setText("working it out …")
            self._jobs.run("factor", lambda _said: measured_factor(loaded), self._factor_found)

    def _factor_found(self, found: Figure) -> None:
        self._found = found
        if self.bench.loaded is not None:
            self._show_factor(self.bench.loaded)

    def keep_factor(self) -> None:
        """Write the factor down as the process's own."""
        loaded, found = self.bench.loaded, self._offered
        if loaded is None or found is None:
            return
        try:
            self.bench.edit_or_raise(lambda book: keep_factor(book, loaded, found))
        except EntryError as error:
            self._refuse(str(error))

    def _build(self, strips: tuple[LoadedStrip, ...]) -> None:
        empty_grid(self._grid)
        self._rows = {}
        for place, words in enumerate(_HEADS):
            self._grid.addWidget(text(words, Role.CAPTION), 0, place)
        for row, strip in enumerate(strips, start=1):
            label = strip.strip.label
            key = strip.strip.id
            time = WordField(f"time of strip {label}", self._commit(key, type_time))
            warmth = WordField(f"temperature of strip {label}", self._commit(key, type_temperature))
            known = chooser(lambda: chemistry_choices(self.bench.notebook))
            ways = chooser(lambda: process_choices(self.bench.notebook))
            way = WordField(
                f"process of strip {label}", self._commit(key, type_process), ways, role=Role.BODY
            )
            bath = WordField(
                f"chemicals of strip {label}",
                self._commit(key, type_chemistry),
                known,
                role=Role.BODY,
            )
            moved = WordField(
                f"agitation of strip {label}", self._commit(key, type_agitation), role=Role.BODY
            )
            for field in (time, warmth, way, bath, moved):
                field.refused.connect(self._refuse)
            for wide in (way, bath, moved):
                # Long words give up their middle before the line is wider than the window.
                wide.setSizePolicy(QSizePolicy.Policy.Maximum, QSizePolicy.Policy.Fixed)
            self._rows[strip.strip.id] = (time, warmth, way, bath, moved)
            self._grid.addWidget(text(label, Role.HEADING), row, 0)
            self._grid.addWidget(text("", Role.LEAD), row, 1)
            self._grid.addWidget(time, row, 2)
            self._grid.addWidget(warmth, row, 3)
            self._grid.addWidget(text("", Role.LEAD), row, 4)
            self._grid.addWidget(way, row, 5)
            self._grid.addWidget(bath, row, 6)
            self._grid.addWidget(moved, row, 7)
        self._grid.setColumnStretch(8, 1)
        self._tab_as_it_stands()

    def _tab_as_it_stands(self) -> None:
        """The strips' fields were made last, and stand first."""
        fields = [field for row in self._rows.values() for field in row]
        order = [*fields, self.finder, self.keeper, self._all, *self.conditions.values()]
        for before, after in pairwise(order):
            QWidget.setTabOrder(before, after)

    def _fill(self, row: int, loaded: LoadedTest, strip: LoadedStrip, line: StripLine) -> None:
        time, warmth, way, bath, moved = self._rows[strip.strip.id]
        way.show_value(process_shown(loaded, strip))
        bath.show_value(chemistry_shown(self.bench.notebook, loaded, strip))
        moved.show_value(agitation_shown(loaded, strip))
        time.show_value(line.time)
        warmth.show_value(line.temperature)
        self._set_text(row, 1, line.planned)
        self._set_text(row, 4, line.restated)

    def _set_text(self, row: int, column: int, words: str) -> None:
        item = self._grid.itemAtPosition(row, column)
        label = item.widget() if item else None
        if isinstance(label, QLabel):
            label.setText(words)

    def _commit(
        self, strip_id: int, write: Callable[[Notebook, int, str], None]
    ) -> Callable[[str], None]:
        return lambda words: self.bench.edit_or_raise(lambda book: write(book, strip_id, words))

    def as_planned(self) -> None:
        """Write down that the strips that wait got what was planned."""
        loaded = self.bench.loaded
        if loaded is not None and any(s.strip.time_min is None for s in loaded.strips):
            self.bench.edit(lambda book: develop_as_planned(book, loaded))

    def take_focus(self) -> None:
        """Begin at the first strip without a time."""
        loaded = self.bench.loaded
        for strip in loaded.strips if loaded else ():
            if strip.strip.time_min is None and strip.strip.id in self._rows:
                self._rows[strip.strip.id][0].setFocus()
                return
        if self._rows:
            next(iter(self._rows.values()))[0].setFocus()

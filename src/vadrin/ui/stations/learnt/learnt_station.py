"""What the notebook has learnt of each developer, and how that fares among its own tests."""

from __future__ import annotations

from PyQt6.QtWidgets import QVBoxLayout, QWidget

from vadrin.app.display.words import counted
from vadrin.app.document.workbench import Topic
from vadrin.app.learning.learnt_overview import HEADS, Overview, asked_of, learnt_overview, rows_of
from vadrin.app.learning.left_out import (
    estimates_left_out,
    others_count,
    turn_estimates,
    turn_others,
)
from vadrin.app.learning.read_tests import read_tests_known
from vadrin.app.results.rows_to_copy import as_rows
from vadrin.ui.actions import Action, hint
from vadrin.ui.plots.range_rows import RangeRows
from vadrin.ui.stations.station import Station, StationContext, ViewState
from vadrin.ui.theme.look import DAY, Look
from vadrin.ui.theme.roles import Role
from vadrin.ui.theme.typeface import px
from vadrin.ui.widgets.buttons import button
from vadrin.ui.widgets.clipboard import put_on_clipboard
from vadrin.ui.widgets.labels import rule, text
from vadrin.ui.widgets.scrolling import scrolled

_JOB = "learnt"
_USED = "Estimates from your other tests are used where a film's own strips tell no time."
_LEFT_OUT = "Estimates from your other tests are left out of every answer."
_NOTHING = (
    "Nothing yet. Three films decided on in one developer, each from two development times at "
    "least, foretell a fourth."
)


class LearntStation(Station):
    """A part for each developer: what its films tell, and each foretold by the others."""

    topics = Topic.NOTEBOOK | Topic.LOOK
    wants_finding = False

    def __init__(self, given: StationContext) -> None:
        super().__init__(given)
        self._told = Overview()
        self._seen: tuple[object, int, int] = (None, -1, 0)
        self._look: Look = DAY
        self._used = text("", Role.LEAD, wrap=True)
        self._turn = button("", lambda: turn_estimates(self.bench), link=True)
        self._others = text("", Role.NOTE, wrap=True)
        self._turn_others = button("", lambda: turn_others(self.bench), link=True)
        self._area = scrolled(by_keys=True)
        self._area.setAccessibleName("developers, and what their films tell")
        self.column.addWidget(text("What the notebook has learnt", Role.HEADING))
        self.column.addWidget(self._used)
        self.column.addWidget(self._turn)
        self.column.addWidget(self._others)
        self.column.addWidget(self._turn_others)
        self.column.addWidget(self._area, 1)
        self.offer(
            hint("↑ ↓", "scroll"),
            Action("learnt.copy", "copy the ranges as a table", self.copy_table, ("Ctrl+Shift+C",)),
        )

    def show_state(self, scene: ViewState) -> None:
        """Show what there is; the file is only asked when it has changed."""
        left_out = estimates_left_out()
        self._used.setText(_LEFT_OUT if left_out else _USED)
        self._turn.setText(f"{'Use them' if left_out else 'Leave them out'} (Ctrl+Alt+E)")
        notebook = self.bench.notebook
        now = (notebook, notebook.revision, read_tests_known(notebook))
        if notebook.read_only or now != self._seen:
            self._seen = now
            asked = asked_of(notebook)
            self.given.jobs.run(_JOB, lambda _said: learnt_overview(asked), self._show)
        elif scene.look is not self._look:
            self._look = scene.look
            self._show(self._told)
        self._look = scene.look

    def _show_others(self, count: int) -> None:
        """Whether tests that others did are learnt from; nothing where there are none."""
        learnt = others_count()
        tests = counted(count, "test")
        said = "learnt from, too" if learnt else "not learnt from"
        self._others.setText(f"{tests} taken in from other notebooks: {said}.")
        self._turn_others.setText("Leave them out" if learnt else "Learn from them, too")
        for part in (self._others, self._turn_others):
            part.setVisible(count > 0)

    def _show(self, told: Overview) -> None:
        self._told = told
        self._show_others(told.of_others)
        body = QWidget()
        column = QVBoxLayout(body)
        column.setContentsMargins(0, 0, px(8), 0)
        column.setSpacing(px(6))
        if not told.developers:
            column.addWidget(text(_NOTHING, Role.LEAD, wrap=True))
        if told.kit:
            column.addWidget(rule())
            column.addWidget(text("Instruments, bottles and papers", Role.SUBHEADING))
        for words in told.kit:
            column.addWidget(text(words, Role.BODY, wrap=True))
        for developer in told.developers:
            column.addWidget(rule())
            column.addWidget(text(developer.bath, Role.SUBHEADING))
            for words in developer.sentences:
                column.addWidget(text(words, Role.BODY, wrap=True))
            if developer.films:
                rows = RangeRows()
                rows.show_films(developer.bath, developer.films, self._look)
                column.addWidget(rows)
        column.addStretch(1)
        self._area.setWidget(body)

    def take_focus(self) -> None:
        """The page, which the arrow keys scroll."""
        self._area.setFocus()

    def copy_table(self) -> None:
        """Put a row for each range on the clipboard, tab-separated, with its heads."""
        rows = rows_of(self._told.developers)
        put_on_clipboard(as_rows(HEADS, rows) if rows else "")
        said = f"{counted(len(rows), 'range')} on the clipboard, as a table."
        self.bench.said.emit(said if rows else "There are no ranges to copy yet.")

"""The finding so far, alive beside every station."""

from __future__ import annotations

from collections.abc import Callable, Iterator
from dataclasses import dataclass

from PyQt6.QtWidgets import QVBoxLayout, QWidget

from vadrin.app.display.verdict_words import shadow_words
from vadrin.app.document.state import State
from vadrin.app.document.stations import station_place
from vadrin.app.loaded.loaded_test import LoadedTest
from vadrin.app.overview.finding_sections import BESIDE, Section, beside_the_fold, sections_of
from vadrin.app.results.headline import Headline, headline_of
from vadrin.app.results.push_rows import PushLine
from vadrin.app.results.target_words import target_text
from vadrin.ui.theme.roles import Role
from vadrin.ui.theme.typeface import px, scale
from vadrin.ui.widgets.buttons import button
from vadrin.ui.widgets.labels import rule, text
from vadrin.ui.widgets.reading_table import ReadingTable
from vadrin.ui.widgets.scrolling import scrolled
from vadrin.ui.widgets.sections import add_sections
from vadrin.ui.widgets.tips import set_tip

_COLUMN, _NO_LIMIT = 296, 16_777_215
_SHORT = 8
"""Letters of an answer up to which it is shown as large as an EI."""


@dataclass(frozen=True)
class _Line:
    """Words as they stand in the column; none for a hairline."""

    words: str = ""
    role: Role = Role.BODY
    wrap: bool = False
    tone: str | None = None


@dataclass(frozen=True)
class _Pushes:
    """The table of pushes, and the rule they are pushed by."""

    lines: tuple[PushLine, ...]
    rule_name: str


_HAIRLINE = _Line()


class FindingColumn(QWidget):
    """EI and time with their ranges, the push table, the next act and the warnings.

    Parameters
    ----------
    go : callable
        Goes to a station.
    beside : callable
        Says what stands beside the finding of a test.
    """

    def __init__(
        self, go: Callable[[str], None], beside: Callable[[State], tuple[Section, ...]]
    ) -> None:
        super().__init__()
        self._go, self._beside = go, beside
        outer = QVBoxLayout(self)
        outer.setContentsMargins(px(18), px(12), px(14), px(14))
        self._area, self._lent = scrolled(), scrolled()
        self._lent.hide()
        outer.addWidget(self._lent, 1)
        outer.addWidget(self._area, 1)
        self._next = button("", self._follow, primary=True)
        outer.addWidget(self._next)
        self._target = ""
        self._aside: QWidget | None = None
        self._of: tuple[object, float] = (self, 0.0)
        self._shown: tuple[_Line | _Pushes | Section, ...] | None = None
        self.spread(False)

    def spread(self, wide: bool) -> None:
        """Take the whole width, in the place of the station, or a column beside it."""
        self.setMinimumWidth(0 if wide else px(_COLUMN))
        self.setMaximumWidth(_NO_LIMIT if wide else px(_COLUMN))
        self._next.setVisible(not wide)
        self._wide = wide

    def lend(self, aside: QWidget | None) -> None:
        """Let one station's own words stand here; None takes the place back."""
        if aside is self._aside:
            return
        self._aside = aside
        if aside is not None:
            self._lent.setWidget(aside)
            aside.show()
        self._lent.setVisible(aside is not None)
        self._area.setVisible(aside is None)

    def show_finding(self, state: State | None, station: str) -> None:
        """Show where the test on the bench has come to."""
        self._offer(state, station)
        before, self._of = self._of, (state, scale())
        anew = before[1] != self._of[1]
        if not anew and before[0] is state:
            return
        parts = tuple(self._parts(state))
        if anew or parts != self._shown:
            self._shown = parts
            self._area.setWidget(self._body(parts))

    def _body(self, parts: tuple[_Line | _Pushes | Section, ...]) -> QWidget:
        body = QWidget()
        column = QVBoxLayout(body)
        column.setContentsMargins(0, 0, px(4), 0)
        column.setSpacing(px(5))
        for part in parts:
            if isinstance(part, _Pushes):
                column.addWidget(self._push_table(part.lines, part.rule_name))
            elif isinstance(part, Section):
                add_sections(column, (part,))
            elif part == _HAIRLINE:
                column.addWidget(rule())
            else:
                column.addWidget(text(part.words, part.role, part.wrap, tone=part.tone))
        column.addStretch(1)
        return body

    def _parts(self, state: State | None) -> Iterator[_Line | _Pushes | Section]:
        """All that stands in the column, from above."""
        if state is None:
            yield _Line("No test is open", Role.SECTION)
            words = "Open a test from the shelf, or start a new one."
            yield _Line(words, Role.LEAD, wrap=True)
            return
        loaded, headline = state.loaded, headline_of(state)
        yield from _of_headline(loaded, headline)
        for section in self._beside(state):
            if section.title != BESIDE:
                yield section
                continue
            for words, _ in section.lines:
                yield _Line(words, Role.NOTE, wrap=True)
        first, rest = beside_the_fold(sections_of(state))
        yield from first
        if headline.pushes:
            yield _HAIRLINE
            yield _Pushes(headline.pushes, headline.push_rule)
        yield from rest

    @staticmethod
    def _push_table(lines: tuple[PushLine, ...], rule_name: str) -> QWidget:
        heads = ("Shoot at", "", "Develop", "Shadow detail")
        made = ReadingTable("pushes and pulls", heads, 10)
        made.put_heads(heads)
        for row, line in enumerate(lines):
            role = Role.LABEL if line.normal else Role.BODY
            made.put(text(line.index, role), (row, 0))
            made.put(text(line.name, role), (row, 1))
            time = text(line.time.shown, role)
            set_tip(time, line.came_from)
            made.put(time, (row, 2))
            loss = text(line.loss, role, tone="trouble" if line.grave else None)
            set_tip(loss, shadow_words(line.verdict) if line.verdict else "")
            made.put(loss, (row, 3))
        said = text(f"Push times keep: {rule_name}.", Role.CAPTION)
        made.grid.addWidget(said, len(lines) + 1, 0, 1, 4)
        return made

    def _offer(self, state: State | None, station: str) -> None:
        place = station_place(station)
        words, self._target = place.onward, place.goes_on
        self._next.setText(words)
        self._next.setVisible(bool(words) and state is not None and not self._wide)

    def _follow(self) -> None:
        self._go(self._target)


def _of_headline(loaded: LoadedTest, headline: Headline) -> Iterator[_Line]:
    yield _Line("Finding" if loaded.findings else "Finding, not decided", Role.SECTION)
    if headline.index:
        plain = headline.own and len(headline.index) > _SHORT
        role = Role.TIME if plain else Role.INDEX
        yield _Line(headline.index, role, plain, None)
    yield _Line(headline.index_note, Role.NOTE, wrap=True)
    if headline.time:
        yield _Line(headline.time, Role.TIME)
    note = headline.time_note
    if headline.time and headline.for_target:
        note += f", for {target_text(loaded.test.target_kind, loaded.test.target_value)}"
    if note:
        yield _Line(note, Role.NOTE, wrap=True)

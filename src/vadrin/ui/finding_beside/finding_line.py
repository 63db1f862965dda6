"""The finding folded to one line over the station, where the window has no room beside it."""

from __future__ import annotations

from collections.abc import Callable

from PyQt6.QtWidgets import QHBoxLayout, QVBoxLayout, QWidget

from vadrin.app.document.state import State
from vadrin.app.document.stations import station_place
from vadrin.ui.theme.roles import Role
from vadrin.ui.theme.typeface import px, role_font
from vadrin.ui.widgets.buttons import button
from vadrin.ui.widgets.labels import ElidedLabel, rule, text

UNFOLD_KEY = "F2"


class FindingLine(QWidget):
    """EI, time and the next act in one line; a key opens the whole."""

    def __init__(self, unfold: Callable[[], None], go: Callable[[str], None]) -> None:
        super().__init__()
        self._go, self._target = go, ""
        outer = QVBoxLayout(self)
        outer.setContentsMargins(0, 0, 0, 0)
        outer.setSpacing(0)
        line = QHBoxLayout()
        line.setContentsMargins(px(14), px(4), px(14), px(4))
        line.setSpacing(px(12))
        self._index = text("", Role.HEADING)
        self._act = ElidedLabel("", Role.NOTE)
        self.unfold = button(f"Finding ({UNFOLD_KEY})", unfold, link=True)
        self._next = button("", lambda: self._go(self._target))
        line.addWidget(self._index)
        line.addWidget(self._act)
        line.addStretch(1)
        line.addWidget(self.unfold)
        line.addWidget(self._next)
        outer.addLayout(line)
        outer.addWidget(rule())
        self.setAccessibleName("finding so far")

    def rescale(self) -> None:
        """Take on the text scale."""
        self._index.setFont(role_font(Role.HEADING))
        for part in (self._act, self.unfold, self._next):
            part.setFont(role_font(Role.NOTE))
            part.updateGeometry()

    def show_finding(self, state: State, station: str, lent: bool) -> None:
        """Show where the test has come to; `lent` where a station's own words stand there."""
        # Imported here so that the first window need not wait for numpy.
        from vadrin.app.results.headline import headline_of

        headline = headline_of(state)
        found = " · ".join(w for w in (headline.index, headline.time) if w)
        self._index.setText(found)
        self._index.setVisible(bool(found))
        self._act.setText(headline.next_act or headline.index_note)
        self.unfold.setText(f"{'Expected precision' if lent else 'Finding'} ({UNFOLD_KEY})")
        place = station_place(station)
        words, self._target = place.onward, place.goes_on
        self._next.setText(words)
        self._next.setVisible(bool(words))

"""The stations, each made the first time it is gone to, in a page of its own that scrolls."""

from __future__ import annotations

from PyQt6 import sip
from PyQt6.QtCore import QTimer
from PyQt6.QtWidgets import QScrollArea, QStackedWidget, QWidget

from vadrin.app.document.stations import PLACES, station_place
from vadrin.ui.stations import make_station
from vadrin.ui.stations.station import Station, StationContext
from vadrin.ui.stations.typed_words import give_back_typed, keep_typed
from vadrin.ui.widgets.deleting import delete_now
from vadrin.ui.widgets.scrolling import scrolled

_BETWEEN_MS = 15
"""From one page made or deleted to the next: keys and pictures come between."""


def _lay_out(over: QWidget) -> None:
    """Give every part its style, and its place for now, before it is shown for the first time."""
    parts = over, *over.findChildren(QWidget)
    for part in parts:
        part.ensurePolished()
    for part in parts:
        laid = part.layout()
        if laid is not None:
            laid.activate()


class StationPages(QStackedWidget):
    """One station shown, the others kept as they were left.

    Parameters
    ----------
    given : StationContext
        What every station is made with.
    """

    def __init__(self, given: StationContext) -> None:
        super().__init__()
        self._given = given
        self._stations: dict[str, Station] = {}
        self._areas: dict[str, QScrollArea] = {}
        self._ahead: tuple[str, Station] | None = None
        """A station that nobody was at, made a turn before it is laid out."""
        self._nothing = QWidget()
        self.addWidget(self._nothing)
        self._leaving: list[QWidget] = []
        self._soon = QTimer(self)
        self._soon.setSingleShot(True)
        self._soon.timeout.connect(self._delete_next)

    @property
    def made(self) -> tuple[Station, ...]:
        """The stations that were gone to."""
        return tuple(self._stations.values())

    def station(self, name: str) -> Station:
        """The station of a name."""
        if name not in self._stations:
            made = self._made_ahead(name) or make_station(name, self._given)
            self._stations[name] = made
            if not made.accessibleName():
                made.setAccessibleName(station_place(name).title)
            area = scrolled(made)
            self._areas[name] = area
            self.addWidget(area)
        return self._stations[name]

    def _made_ahead(self, name: str) -> Station | None:
        if self._ahead is None or self._ahead[0] != name:
            return None
        made, self._ahead = self._ahead[1], None
        return made

    def make_ahead(self) -> None:
        """Make the stations nobody was at while the person looks around: one in two turns."""
        waiting = [place.name for place in PLACES if place.name not in self._stations]
        if not waiting or not self.isVisible():
            return
        if self._ahead is None:
            self._ahead = waiting[0], make_station(waiting[0], self._given)
        else:
            area = self.area(waiting[0])
            area.setGeometry(self.rect())
            _lay_out(area)
        QTimer.singleShot(_BETWEEN_MS, self.make_ahead)

    def area(self, name: str) -> QScrollArea:
        """What a station scrolls in."""
        self.station(name)
        return self._areas[name]

    def turn_to(self, name: str) -> None:
        """Show a station."""
        # Else Qt hands the keyboard to whatever comes first on the page, before the station takes
        # it, and a screen reader says that.
        self.station(name).setFocus()
        self.setCurrentWidget(self.area(name))

    def let_go(self) -> None:
        """Let go of every station: each is made again when it is gone to.

        What is half typed on them, and in no file, is kept with the test. The pages themselves
        are deleted one after another, when the window has been drawn anew.
        """
        for name, station in self._stations.items():
            keep_typed(self._given.bench, name, station)
        self.setCurrentWidget(self._nothing)
        ahead = [] if self._ahead is None else [self._ahead]
        for name, station in [*self._stations.items(), *ahead]:
            if station.side_panel is not None:
                # Not in the station's own page: it is lent to the column beside it.
                station.side_panel.hide()
                self._leaving.append(station.side_panel)
            self._leaving.append(self._areas.get(name, station))
        self._stations, self._areas, self._ahead = {}, {}, None
        self._soon.start(_BETWEEN_MS)

    def _delete_next(self) -> None:
        if not self._leaving:
            return
        page = self._leaving.pop()
        if not sip.isdeleted(page):
            # A panel that was lent is gone with the column it was lent to.
            delete_now(page)
        self._soon.start(_BETWEEN_MS)

    def give_back(self, name: str) -> None:
        """Put back what was half typed on a station when it was let go of."""
        give_back_typed(self._given.bench, name, self.station(name))

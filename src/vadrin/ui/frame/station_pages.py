"""The stations, each made the first time it is gone to, in a page of its own that scrolls."""

from __future__ import annotations

from PyQt6.QtCore import Qt
from PyQt6.QtWidgets import QScrollArea, QStackedWidget

from vadrin.ui.frame.typed_words import give_back_typed, keep_typed
from vadrin.ui.stations import make_station
from vadrin.ui.stations.station import Station, StationContext
from vadrin.ui.theme.look import no_clearing
from vadrin.ui.widgets.deleting import delete_now


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

    @property
    def made(self) -> tuple[Station, ...]:
        """The stations that were gone to."""
        return tuple(self._stations.values())

    def station(self, name: str) -> Station:
        """The station of a name."""
        if name not in self._stations:
            made = make_station(name, self._given)
            self._stations[name] = made
            area = QScrollArea()
            area.setWidgetResizable(True)
            area.setFocusPolicy(Qt.FocusPolicy.NoFocus)
            area.setWidget(made)
            self._areas[name] = area
            self.addWidget(area)
        return self._stations[name]

    def area(self, name: str) -> QScrollArea:
        """What a station scrolls in."""
        self.station(name)
        return self._areas[name]

    def turn_to(self, name: str) -> None:
        """Show a station."""
        self.setCurrentWidget(self.area(name))

    def let_go(self, but: str = "") -> None:
        """Let go of the stations, of all but one: each is made again when it is gone to.

        What is half typed on them, and in no file, is kept with the test.
        """
        with no_clearing():
            for name in [n for n in self._stations if n != but]:
                station, area = self._stations.pop(name), self._areas.pop(name)
                keep_typed(self._given.bench, name, station)
                if station.side_panel is not None:
                    # Not in the station's own page: it is lent to the column beside it.
                    delete_now(station.side_panel)
                self.removeWidget(area)
                delete_now(area)

    def give_back(self, name: str) -> None:
        """Put back what was half typed on a station when it was let go of."""
        give_back_typed(self._given.bench, name, self.station(name))

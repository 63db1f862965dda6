"""The stations, each made the first time it is gone to, in a page of its own that scrolls."""

from __future__ import annotations

from PyQt6.QtCore import Qt
from PyQt6.QtWidgets import QScrollArea, QStackedWidget

from vadrin.ui.stations import make_station
from vadrin.ui.stations.station import Station, Surroundings


class StationPages(QStackedWidget):
    """One station shown, the others kept as they were left.

    Parameters
    ----------
    given : Surroundings
        What every station is made with.
    """

    def __init__(self, given: Surroundings) -> None:
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

    def make_anew(self) -> None:
        """Let go of all stations: each is made again when it is gone to."""
        for area in self._areas.values():
            self.removeWidget(area)
            area.deleteLater()
        self._stations, self._areas = {}, {}

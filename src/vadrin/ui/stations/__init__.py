"""The stations, one for each step of the work, and the shelf; made when first gone to."""

from __future__ import annotations

from importlib import import_module
from typing import TYPE_CHECKING

from vadrin.app.document.stations import PLACES, station_place

if TYPE_CHECKING:
    from vadrin.ui.stations.station import Station, StationContext


def station_module(name: str) -> str:
    """The module a station is made in."""
    return f"{__name__}.{name}.{name}_station"


def make_station(name: str, given: StationContext) -> Station:
    """Make the station with a name; its module, in the folder of that name, is loaded only now.

    Raises
    ------
    KeyError
        If none is declared under it.
    """
    if name not in [place.name for place in PLACES]:
        raise KeyError(name)
    made: Station = getattr(import_module(station_module(name)), f"{name.title()}Station")(given)
    made.hear_instruments(station_place(name).hears)
    return made

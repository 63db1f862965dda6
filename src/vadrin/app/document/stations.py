"""The stations: each declared once, with its key, its words and where the work goes on."""

from __future__ import annotations

from dataclasses import dataclass

from vadrin.app.document.station_purpose import PURPOSES


@dataclass(frozen=True)
class StationPlace:
    """A station as menu, keys, rail and sentences know it.

    Attributes
    ----------
    name : str
        Of its folder in the screen's stations, and of its picture in the documents.
    title : str
        In words, where one goes to it.
    key : str
        Goes to it; empty where none does.
    of_test : bool
        Whether it is a step of a test's work.
    goes_on : str
        Where the work goes on from it; empty for nowhere.
    hears : tuple of str
        Kinds of instruments that are listened to at it; each has a file of its name in
        `app.instruments`.
    film : bool
        Whether one looks at the film itself there, so that the strips are shown in full.
    """

    name: str
    title: str
    key: str
    of_test: bool = False
    goes_on: str = ""
    hears: tuple[str, ...] = ()
    film: bool = False

    @property
    def purpose(self) -> tuple[str, ...]:
        """Sentences on what it is for, in the order they are read."""
        return PURPOSES.get(self.name, ())

    @property
    def onward(self) -> str:
        """The words of the button that leads on."""
        return f"Go to {station_place(self.goes_on).title}" if self.goes_on else ""


PLACES = (
    StationPlace("plan", "Plan", "Ctrl+1", True, "expose"),
    StationPlace("expose", "Expose", "Ctrl+2", True, "process", film=True),
    StationPlace("process", "Process", "Ctrl+3", True, "read", ("thermometer",)),
    StationPlace("read", "Read", "Ctrl+4", True, "curves", ("densitometer",), film=True),
    StationPlace("curves", "Curves", "Ctrl+5", True, "finding"),
    StationPlace("print", "Print", "Ctrl+6", True, "finding"),
    StationPlace("finding", "Finding", "Ctrl+7", True, "cards"),
    StationPlace("cards", "Cards", "Ctrl+8", True),
    StationPlace("shelf", "the shelf", "Ctrl+0"),
    StationPlace("films", "the films, side by side", "Ctrl+B"),
    StationPlace("tonight", "film for a light", "Ctrl+T"),
    StationPlace("learnt", "what the notebook has learnt", "Ctrl+Alt+F"),
    StationPlace("cupboard", "the cupboard", "Ctrl+9"),
    StationPlace("practice", "practice", "F7"),
    StationPlace("question", "a new test", ""),
)

STATIONS = tuple(place.name for place in PLACES if place.of_test)
"""The stations of a test in the order of the work."""


def instruments_heard() -> tuple[str, ...]:
    """The kinds of instruments that are listened to somewhere."""
    return tuple(kind for place in PLACES for kind in place.hears)


def station_place(name: str) -> StationPlace:
    """The station of a name."""
    return next(place for place in PLACES if place.name == name)


def key_to(name: str) -> str:
    """The key that goes to a station, for sentences that send somebody there."""
    return station_place(name).key

"""Every station and page opened, twice over, and a key in every field of each."""

from __future__ import annotations

import statistics
from collections.abc import Iterator
from functools import partial
from typing import TYPE_CHECKING, Any

from tools.bench.timing import GOAL_MS, settle, timed

if TYPE_CHECKING:
    from vadrin.ui.frame.window import Window

_ROUNDS = 3
"""Each place is opened again, and each key pressed, so many times."""
_NAMED = 4


def every_row(name: str, spent: list[float]) -> str:
    """A line of the table: the median and the worst."""
    return f"{name + ' (worst)':<58}{statistics.median(spent):>9.1f}{max(spent):>10.1f}"


def _over(places: dict[str, list[float]]) -> list[str]:
    """Lines about the places where the worst is over the goal, the slowest first."""
    slow = sorted((max(spent), name) for name, spent in places.items() if max(spent) > GOAL_MS)
    return [f"    over {GOAL_MS:.0f}: {name:<44}{ms:>19.1f}" for ms, name in slow[::-1][:_NAMED]]


def _places(window: Window) -> Iterator[tuple[str, partial[None]]]:
    """Every station of a test, and every page of those that have several, and how to get there."""
    from vadrin.app.document.stations import PLACES

    for place in PLACES:
        yield place.name, partial(window.bench.go, place.name)
        station: Any = window.station()
        for page in getattr(station, "links", {}):
            yield f"{place.name}, {page}", partial(station.turn_to, page)


def _opened(window: Window) -> dict[str, list[float]]:
    spent: dict[str, list[float]] = {}
    for name, go in _places(window):
        spent[name] = [timed(go)]
        settle(window)
    return spent


def _keys_pressed(window: Window) -> dict[str, list[float]]:
    """Milliseconds of the arrow keys, up and down, in each word that can be changed."""
    from PyQt6.QtCore import Qt
    from PyQt6.QtTest import QTest

    from vadrin.ui.widgets.fields import WordField

    press: Any = QTest.keyClick
    spent: dict[str, list[float]] = {}
    for place, go in _places(window):
        go()
        settle(window)
        names = [f.accessibleName() for f in _fields(window)]
        for name in names:
            for key in (Qt.Key.Key_Up, Qt.Key.Key_Down) * _ROUNDS:
                # What a key changes may make the fields anew.
                field: WordField | None = next(
                    (f for f in _fields(window) if f.accessibleName() == name), None
                )
                if field is None:
                    break
                field.setFocus()
                spent.setdefault(f"{place}: {name}", []).append(timed(partial(press, field, key)))
                settle(window)
    return spent


def _fields(window: Window) -> list[Any]:
    from vadrin.ui.widgets.fields import WordField

    return [f for f in window.pages.findChildren(WordField) if f.isVisible() and f.isEnabled()]


def visit_rows(window: Window) -> list[str]:
    """Lines of the table, for the demo's first test in a window just made."""
    window.bench.open_test(1)
    rows = []
    first = _opened(window)
    rounds = [_opened(window) for _ in range(_ROUNDS)]
    again = {name: [t for r in rounds for t in r.get(name, ())] for name in first}
    for words, places in (
        ("a station or page opened for the first time", first),
        ("a station or page opened again", again),
        ("an arrow key in every word, file and picture", _keys_pressed(window)),
    ):
        rows.append(every_row(words, [t for spent in places.values() for t in spent]))
        rows += _over(places)
    return rows

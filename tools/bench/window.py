"""The part of ``vadrin bench`` about the window: a word stepped, a density typed, a test opened."""

from __future__ import annotations

import os
import statistics
import time
from collections.abc import Callable
from functools import partial
from typing import TYPE_CHECKING, Any

from tools.bench.timing import settle, timed, warm
from tools.bench.visits import every_row, visit_rows

if TYPE_CHECKING:
    from vadrin.ui.frame.window import Window

_STEPPED = ("last", "step", "times", "turned", "ei")
_WARM = 5
"""Keys before the worst is looked for: the first ones load what is loaded late."""


def _open(window: Window, film: str, station: str) -> None:
    from vadrin.app.shelf.shelf_index import shelf_lines

    line = next(x for x in shelf_lines(window.bench.notebook) if x.film.startswith(film))
    window.bench.open_test(line.test_id)
    window.bench.go(station)


def _words_stepped(window: Window) -> list[float]:
    from PyQt6.QtCore import Qt
    from PyQt6.QtTest import QTest

    _open(window, "Kelda", "plan")
    settle(window)
    station: Any = window.station()
    press: Any = QTest.keyClick
    spent = []
    for turn in range(6):
        key: Any = Qt.Key.Key_Up if turn % 2 == 0 else Qt.Key.Key_Down
        for name in _STEPPED:
            field = station.fields[name]
            spent.append(timed(partial(press, field, key)))
            settle(window)
    return spent


def _densities_typed(window: Window) -> list[float]:
    from PyQt6.QtCore import Qt
    from PyQt6.QtTest import QTest

    _open(window, "Brannock 400 B7", "read")
    settle(window)
    station: Any = window.station()
    press: Any = QTest.keyClick
    write: Any = QTest.keyClicks
    spent = []
    for place in range(20):
        write(station.field, f"{0.3 + 0.05 * place:.2f}")
        spent.append(timed(partial(press, station.field, Qt.Key.Key_Return)))
        settle(window)
    return spent


def _tests_opened(window: Window) -> list[float]:
    spent = []
    for film in ("Merrow", "Brannock 400 B6", "Ostrel", "Brannock 400 B7") * 4:
        window.bench.go("shelf")
        settle(window)
        spent.append(timed(partial(_open, window, film, "curves")))
        settle(window)
    return spent


def _turned_loop() -> None:
    """Let what waits to be deleted go, as the running program does."""
    from PyQt6.QtCore import QEventLoop, QTimer

    loop = QEventLoop()
    QTimer.singleShot(30, loop.quit)
    loop.exec()


def _every_station_visited(window: Window) -> None:
    from vadrin.app.document.stations import PLACES

    window.bench.open_test(1)
    for place in PLACES:
        window.bench.go(place.name)
        settle(window)
    _turned_loop()


def _changed(window: Window, act: Callable[[], object]) -> list[float]:
    """Milliseconds of a change, at each of some stations, after every station was visited."""
    spent = []
    for station in ("finding", "read", "plan", "process", "shelf") * 4:
        _every_station_visited(window)
        window.bench.go(station)
        settle(window)
        spent.append(timed(act))
        _turned_loop()
    return spent


def _looks_changed(window: Window) -> list[float]:
    return _changed(window, window.next_look)


def _types_changed(window: Window) -> list[float]:
    turns = iter([1, -1] * 10)
    return _changed(window, lambda: window.scale_type(next(turns)))


def _line(name: str, spent: list[float]) -> str:
    return f"{name + ' (worst)':<58}{statistics.median(spent):>9.1f}{max(spent[_WARM:]):>10.1f}"


def _forecast_ms(window: Window) -> float:
    from vadrin.app.plan.expected_curves import expected_film
    from vadrin.app.plan.plan_forecast import forecast_input, forecast_plan

    _open(window, "Kelda", "plan")
    loaded: Any = window.bench.loaded
    film, spent = expected_film(loaded.test.exposure_index, None), []
    for _ in range(7):
        begun = time.perf_counter()
        forecast_plan(forecast_input(loaded, film))
        spent.append(time.perf_counter() - begun)
    return 1000 * statistics.median(spent)


def window_rows() -> list[str]:
    """Lines of the table for the demo's tests, each from the key to the picture."""
    os.environ["QT_QPA_PLATFORM"] = "offscreen"
    from vadrin.app.demo.demo_copy import demo_notebook
    from vadrin.commands.desktop import make_application, open_window

    application = make_application()
    window: Any = open_window(demo_notebook())
    window.resize(1280, 800)
    window.show()
    warm(window)
    lines = [
        *visit_rows(window),
        _line("a word of a plan stepped, file and picture", _words_stepped(window)),
        f"{'its forecast, with two others for comparison, part of it':<58}"
        f"{_forecast_ms(window):>9.1f}",
        _line("a density typed, file and picture", _densities_typed(window)),
        _line("a test opened from the shelf, picture", _tests_opened(window)),
        every_row("the look changed, every station visited", _looks_changed(window)),
        every_row("the type size changed, every station visited", _types_changed(window)),
    ]
    window.close()
    del application
    return lines

"""The part of ``vadrin bench`` about the window: a word stepped, a density typed, a test opened."""

from __future__ import annotations

import os
import statistics
import time
from collections.abc import Callable
from functools import partial
from typing import TYPE_CHECKING, Any

if TYPE_CHECKING:
    from vadrin.ui.frame.window import Window

_STEPPED = ("last", "step", "times", "turned", "ei")
_WARM = 5
"""Keys before the worst is looked for: the first ones load what is loaded late."""


def _settle(window: Window) -> None:
    from PyQt6.QtWidgets import QApplication

    QApplication.processEvents()
    window.jobs.wait()
    QApplication.processEvents()


def _timed(act: Callable[[], object], window: Window) -> float:
    """Milliseconds until an act can be seen."""
    from PyQt6.QtWidgets import QApplication

    begun = time.perf_counter()
    act()
    QApplication.processEvents()
    window.repaint()
    return 1000 * (time.perf_counter() - begun)


def _open(window: Window, film: str, station: str) -> None:
    from vadrin.app.shelf.shelf_index import shelf_lines

    line = next(x for x in shelf_lines(window.bench.notebook) if x.film.startswith(film))
    window.bench.open_test(line.test_id)
    window.bench.go(station)


def _words_stepped(window: Window) -> list[float]:
    from PyQt6.QtCore import Qt
    from PyQt6.QtTest import QTest

    _open(window, "Kelda", "plan")
    _settle(window)
    station: Any = window.station()
    press: Any = QTest.keyClick
    spent = []
    for turn in range(6):
        key: Any = Qt.Key.Key_Up if turn % 2 == 0 else Qt.Key.Key_Down
        for name in _STEPPED:
            field = station.fields[name]
            spent.append(_timed(partial(press, field, key), window))
            _settle(window)
    return spent


def _densities_typed(window: Window) -> list[float]:
    from PyQt6.QtCore import Qt
    from PyQt6.QtTest import QTest

    _open(window, "Brannock 400 B7", "read")
    _settle(window)
    station: Any = window.station()
    press: Any = QTest.keyClick
    write: Any = QTest.keyClicks
    spent = []
    for place in range(20):
        write(station.field, f"{0.3 + 0.05 * place:.2f}")
        spent.append(_timed(partial(press, station.field, Qt.Key.Key_Return), window))
        _settle(window)
    return spent


def _tests_opened(window: Window) -> list[float]:
    spent = []
    for film in ("Merrow", "Brannock 400 B6", "Ostrel", "Brannock 400 B7") * 4:
        window.bench.go("shelf")
        _settle(window)
        spent.append(_timed(partial(_open, window, film, "curves"), window))
        _settle(window)
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
        _settle(window)
    _turned_loop()


def _changed(window: Window, act: Callable[[], object]) -> list[float]:
    """Milliseconds of a change, at each of some stations, after every station was visited."""
    spent = []
    for station in ("finding", "read", "plan", "process", "shelf") * 2:
        _every_station_visited(window)
        window.bench.go(station)
        _settle(window)
        spent.append(_timed(act, window))
        _turned_loop()
    return spent


def _looks_changed(window: Window) -> list[float]:
    return _changed(window, window.next_look)


def _types_changed(window: Window) -> list[float]:
    turns = iter([1, -1] * 5)
    return _changed(window, lambda: window.scale_type(next(turns)))


def _stations_opened(window: Window) -> tuple[list[float], list[float]]:
    """The first and the second opening of every station, in a window just made."""
    from vadrin.app.document.stations import PLACES

    window.bench.open_test(1)
    first: list[float] = []
    second: list[float] = []
    for spent in (first, second):
        for place in PLACES:
            spent.append(_timed(partial(window.bench.go, place.name), window))
            _settle(window)
    return first, second


def _every(name: str, spent: list[float]) -> str:
    return f"{name + ' (worst)':<58}{statistics.median(spent):>9.1f}{max(spent):>10.1f}"


def _line(name: str, spent: list[float]) -> str:
    return f"{name + ' (worst)':<58}{statistics.median(spent):>9.1f}{max(spent[_WARM:]):>10.1f}"


def _forecast_ms(window: Window) -> float:
    from vadrin.app.plan.expected_curves import expected_film
    from vadrin.app.plan.plan_forecast import forecast_input, forecast_plan

    _open(window, "Kelda", "plan")
    sheet: Any = window.bench.sheet
    film, spent = expected_film(sheet.test.exposure_index, None), []
    for _ in range(7):
        begun = time.perf_counter()
        forecast_plan(forecast_input(sheet, film))
        spent.append(time.perf_counter() - begun)
    return 1000 * statistics.median(spent)


def window_rows() -> list[str]:
    """Lines of the table for the demo's tests, each from the key to the picture."""
    os.environ["QT_QPA_PLATFORM"] = "offscreen"
    from vadrin.commands.desktop import demo_notebook, make_application, open_window

    application = make_application()
    window: Any = open_window(demo_notebook())
    window.resize(1280, 800)
    window.show()
    from vadrin.ui.frame.warm_up import warm_up

    warm_up(window.jobs)
    _settle(window)
    first, second = _stations_opened(window)
    lines = [
        _every("a station opened for the first time, picture", first),
        _every("a station opened again, picture", second),
        _line("a word of a plan stepped, file and picture", _words_stepped(window)),
        f"{'its forecast, with two others for comparison, part of it':<58}"
        f"{_forecast_ms(window):>9.1f}",
        _line("a density typed, file and picture", _densities_typed(window)),
        _line("a test opened from the shelf, picture", _tests_opened(window)),
        _every("the look changed, every station visited", _looks_changed(window)),
        _every("the type size changed, every station visited", _types_changed(window)),
    ]
    window.close()
    del application
    return lines

"""The part of ``vadrin bench`` about plans: a step of a word, and the forecast after it."""

from __future__ import annotations

import os
import statistics
import time
from typing import Any

_STEPPED = ("last", "step", "times", "turned", "ei")


def plan_rows() -> list[str]:
    """Lines of the table for a plan of four strips on the demo's camera."""
    os.environ["QT_QPA_PLATFORM"] = "offscreen"
    from PyQt6.QtCore import Qt
    from PyQt6.QtTest import QTest
    from PyQt6.QtWidgets import QApplication

    from vadrin.app.library.shelf_index import shelf_lines
    from vadrin.app.plan.expected_curves import expected_film
    from vadrin.app.plan.plan_forecast import forecast_input, forecast_plan
    from vadrin.commands.desktop import demo_notebook, make_application, open_window

    application = make_application()
    path = demo_notebook()
    window: Any = open_window(path)
    window.resize(1280, 800)
    window.show()
    line = next(x for x in shelf_lines(window.bench.notebook) if x.film.startswith("Kelda"))
    window.bench.open_test(line.test_id)
    window.bench.go("plan")
    QApplication.processEvents()
    press: Any = QTest.keyClick
    fields, spent = window.station().fields, []
    for turn in range(6):
        for name in _STEPPED:
            key: Any = Qt.Key.Key_Up if turn % 2 == 0 else Qt.Key.Key_Down
            begun = time.perf_counter()
            press(fields[name], key)
            window.repaint()
            spent.append(time.perf_counter() - begun)
            window.analyst.jobs.wait()
            QApplication.processEvents()
    sheet = window.bench.sheet
    film, foretold = expected_film(sheet.test.exposure_index, None), []
    for _ in range(7):
        begun = time.perf_counter()
        forecast_plan(forecast_input(sheet, film))
        foretold.append(time.perf_counter() - begun)
    window.close()
    del application
    step, most = 1000 * statistics.median(spent), 1000 * max(spent[5:])
    ahead = 1000 * statistics.median(foretold)
    return [
        f"{'a word of a plan stepped, file and picture (worst)':<58}{step:>9.1f}{most:>10.1f}",
        f"{'its forecast_plan, with two others for comparison, part of it':<58}{ahead:>9.1f}",
    ]

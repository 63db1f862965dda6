"""What the darkroom clock costs, and how late its sounds are while other work goes on.

``PYTHONPATH=src python tools/clock_load.py 20`` runs a clock for so many seconds at rest, then for
as many while another test is fitted over and over and 100 megapixels are read on threads of their
own, and prints the share of a core and the lateness of every act.
"""

from __future__ import annotations

import os
import sys
import tempfile
import threading
import time
from dataclasses import replace
from pathlib import Path

import numpy as np

from vadrin.app.document.analysis_input import readings_of, settings_of
from vadrin.app.document.test_loading import load_test
from vadrin.app.loaded.loaded_test import LoadedTest
from vadrin.app.process.uptime import moment_now
from vadrin.core.results.analysis import analyse
from vadrin.notebook.records import Strip, Test

_MOVED = "first 2 s, then 1 s every 3 s"
_PIXELS = 100_000_000


def _fit_for_ever(loaded: LoadedTest, over: threading.Event) -> None:
    readings, settings = readings_of(loaded), settings_of(loaded)
    while not over.is_set():
        analyse(readings, settings)


def _scan_for_ever(path: Path, over: threading.Event) -> None:
    while not over.is_set():
        picture = np.memmap(path, dtype=np.uint16, mode="r")
        for start in range(0, _PIXELS, _PIXELS // 50):
            float(picture[start : start + _PIXELS // 50].mean())
            if over.is_set():
                return


def _late(window: object, seconds: float) -> tuple[list[float], float]:
    """Lateness of every act in ms, and the share of a core that was taken meanwhile."""
    from PyQt6.QtCore import QEventLoop, QTimer

    page = window._stations["process"].clock
    late: list[float] = []

    def heard(turned: bool) -> None:
        now = moment_now().uptime
        for each in page._running:
            state = each.clock.at(now)
            passed = [a.at for a in each.clock.acts_of(state.step) if a.at <= state.elapsed_s]
            late.append(1000 * (state.elapsed_s - passed[-1]))

    page._cue.next = heard
    loop = QEventLoop()
    QTimer.singleShot(int(seconds * 1000), loop.quit)
    spent = time.process_time()
    loop.exec()
    return late, (time.process_time() - spent) / seconds


def main(seconds: float) -> None:
    """Run both halves and print."""
    os.environ.setdefault("QT_QPA_PLATFORM", "offscreen")
    from vadrin.app.demo.demo_copy import demo_notebook
    from vadrin.commands.desktop import make_application, open_window

    app = make_application()
    window = open_window(demo_notebook())
    window.resize(1280, 800)
    window.show()
    book = window.bench.notebook
    loaded_tests = [load_test(book, t.id) for t in book.all(Test)]
    loaded = next(s for s in loaded_tests if not s.processed())
    with book.change("agitated often"):
        book.put(replace(loaded.test, agitation=_MOVED))
        for strip in book.all(Strip, test_id=loaded.test.id):
            book.put(replace(strip, planned_min=30.0))
    window.bench.open_test(loaded.test.id)
    window.bench.go("process")
    app.processEvents()
    window._stations["process"].turn_to("clock")
    window._stations["process"].clock.go_on()
    app.processEvents()
    late, share = _late(window, seconds)
    print(
        f"at rest: {len(late)} acts, at most {max(late):.0f} ms late, {100 * share:.1f} % of a core"
    )
    picture = Path(tempfile.mkdtemp()) / "picture.raw"
    np.zeros(_PIXELS, dtype=np.uint16).tofile(picture)
    over = threading.Event()
    read = max(loaded_tests, key=lambda s: s.read())
    work = (
        threading.Thread(target=_fit_for_ever, args=(read, over)),
        threading.Thread(target=_scan_for_ever, args=(picture, over)),
    )
    for thread in work:
        thread.start()
    late, _ = _late(window, seconds)
    over.set()
    for thread in work:
        thread.join()
    picture.unlink()
    order = sorted(late)
    print(
        f"under load: {len(late)} acts, median {order[len(order) // 2]:.0f} ms, at most "
        f"{order[-1]:.0f} ms late"
    )
    window.close()


if __name__ == "__main__":
    main(float(sys.argv[1]))

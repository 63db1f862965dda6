"""The part of ``vadrin bench`` about many rows at once: a long table, and a long edit."""

from __future__ import annotations

import math
import os
import tempfile
import time
from pathlib import Path
from typing import TYPE_CHECKING

from tools.bench.timing import settle, warm
from vadrin.core.frames import FrameState
from vadrin.notebook.records import Developer, Frame, Reading, Stock, Strip, Test
from vadrin.notebook.store import Notebook

if TYPE_CHECKING:
    from vadrin.ui.frame.window import Window

_STRIPS, _FRAMES = 200, 25
_FEW, _MANY = 10_000, 40_000
_TURNS_AFTER = 20
_IMPORTS = 5


def _table(path: Path) -> None:
    """Write 5,000 rows of densities with their exposures."""
    lines = ["strip,time_min,frame,log_h,density"]
    for strip in range(_STRIPS):
        minutes = 5 + 10 * strip / _STRIPS
        for frame in range(_FRAMES):
            log_h = -3.5 + 4.5 * frame / (_FRAMES - 1)
            slope = 0.35 + 0.03 * minutes
            density = 0.1 + slope * math.log1p(math.exp(3 * (log_h + 2.2))) / 3
            lines.append(f"S{strip},{minutes:.2f},{frame},{log_h:.3f},{density:.3f}")
    path.write_text("\n".join(lines) + "\n", encoding="utf-8")


def _turns_of_import(window: Window, path: Path) -> tuple[float, float]:
    """Milliseconds of the longest turn of the event loop while a table is taken in, and of all.

    The turns in which its curves are shown first count with them.
    """
    from PyQt6.QtWidgets import QApplication

    begun = last = time.perf_counter()
    window.importing.offer(path)
    worst = time.perf_counter() - last
    shown = 0
    while shown < _TURNS_AFTER:
        shown += not (window.busy or window.bench.loaded is None)
        last = time.perf_counter()
        QApplication.processEvents()
        worst = max(worst, time.perf_counter() - last)
        time.sleep(0.001)
    return 1000 * worst, 1000 * (time.perf_counter() - begun)


def _imported() -> str:
    from vadrin.commands.desktop import make_application

    application = make_application()
    with tempfile.TemporaryDirectory() as folder:
        path = Path(folder) / "long.csv"
        _table(path)
        taken = [_import_into(Path(folder) / f"rows{i}.vadrin", path) for i in range(_IMPORTS)]
    del application
    worst, whole = (sorted(each)[_IMPORTS // 2] for each in zip(*taken, strict=True))
    name = f"{_STRIPS * _FRAMES} rows imported {_IMPORTS} times: all, longest turn"
    return f"{name:<58}{whole:>9.0f}{worst:>10.1f}"


def _import_into(notebook: Path, table: Path) -> tuple[float, float]:
    """Milliseconds of the longest turn, and of all, for an empty notebook."""
    from vadrin.commands.desktop import open_window

    window: Window = open_window(notebook)  # type: ignore[assignment]
    window.resize(1280, 800)
    window.show()
    warm(window)
    for station in ("curves", "shelf"):
        window.bench.go(station)
        settle(window)
    turns = _turns_of_import(window, table)
    settle(window)
    window.close()
    return turns


def _written(rows: int) -> float:
    """Seconds to write so many readings in one change."""
    with tempfile.TemporaryDirectory() as folder:
        notebook = Notebook(Path(folder) / "many.vadrin")
        with notebook.change("fill"):
            stock = notebook.add(Stock(name="Merrow Pan", box_speed=100.0))
            developer = notebook.add(Developer(name="Sable"))
            test = notebook.add(Test(uid="rows", stock_id=stock.id, developer_id=developer.id))
            strip = notebook.add(Strip(test_id=test.id, position=0, label="A"))
            frame = notebook.add(
                Frame(strip_id=strip.id, position=0, name="1", state=FrameState.EXPOSED)
            )
        begun = time.perf_counter()
        with notebook.change("many"):
            for place in range(rows):
                notebook.add(Reading(frame_id=frame.id, density=0.5, position=place))
        spent = time.perf_counter() - begun
        notebook.close()
    return spent


def row_rows() -> list[str]:
    """Lines of the table: a long import, and how a change of four times the rows compares."""
    os.environ["QT_QPA_PLATFORM"] = "offscreen"
    few, many = _written(_FEW), _written(_MANY)
    name = f"{_MANY} rows in one change, s; for {_FEW}, times"
    return [_imported(), f"{name:<58}{many:>9.1f}{many / few:>10.1f}"]

"""The part of ``vadrin bench`` about very large notebooks."""

from __future__ import annotations

import os
import resource
import statistics
import subprocess
import sys
import tempfile
import time
from functools import partial
from pathlib import Path
from typing import TYPE_CHECKING, Any

import numpy as np

from tools.bench.timing import settle, timed
from vadrin.core.frames import FrameRole, FrameState
from vadrin.notebook.records import Developer, Frame, Reading, Stock, Strip, Test
from vadrin.notebook.store import Notebook

if TYPE_CHECKING:
    from vadrin.ui.frame.window import Window

_STRIPS, _FRAMES, _SEED = 5, 25, 1907
_PLACES = ("slipway", "planking", "caulking", "steam box", "rigging", "oars", "varnish")


def fill(notebook: Notebook, tests: int) -> None:
    """Write tests of five strips and 25 frames, each read once, the same at every call."""
    rng = np.random.default_rng(_SEED)
    stocks = [Stock(name=f"Merrow Pan {n}", box_speed=100.0 + n) for n in range(1, 41)]
    chemistry = [Developer(name=f"Sable {n}", dilution="1+1") for n in range(1, 16)]
    with notebook.change("fill"):
        notebook.add_all(stocks)
        notebook.add_all(chemistry)
        made = notebook.add_all(
            [
                Test(
                    uid=f"bench{i}",
                    stock_id=int(rng.integers(1, 41)),
                    developer_id=int(rng.integers(1, 16)),
                    created_at=f"20{10 + i % 16}-0{1 + i % 9}-1{i % 10}T10:00:00+00:00",
                    note=f"for the {_PLACES[i % 7]}, number {i}",
                )
                for i in range(tests)
            ]
        )
        strips = notebook.add_all(
            [
                Strip(
                    test_id=t.id,
                    position=p,
                    label="ABCDE"[p],
                    planned_min=6.0 + 2 * p,
                    time_min=6.0 + 2 * p,
                    temperature_c=20.0,
                )
                for t in made
                for p in range(_STRIPS)
            ]
        )
        frames = notebook.add_all(
            [
                Frame(
                    strip_id=s.id,
                    position=p,
                    name=str(p),
                    state=FrameState.EXPOSED,
                    role=FrameRole.BLANK if p == 0 else FrameRole.BRACKET,
                    exposure_index=100.0 if p else None,
                    stops=p / 2 - 7 if p else None,
                )
                for s in strips
                for p in range(_FRAMES)
            ]
        )
        noise = rng.normal(0.0, 0.01, len(frames))
        notebook.add_all(
            [
                Reading(
                    frame_id=f.id,
                    density=round(0.1 + 0.004 * f.position**2 + e, 2),
                    note="scratched" if i % 9973 == 0 else "",
                )
                for i, (f, e) in enumerate(zip(frames, noise, strict=True))
            ]
        )


def _start(path: Path) -> tuple[float, float]:
    """Seconds to a usable shelf in a fresh process, and its memory in MB."""
    environment = {**os.environ, "VADRIN_SAY_USABLE": "1", "QT_QPA_PLATFORM": "offscreen"}
    command = [sys.executable, "-m", "vadrin", str(path)]
    spent, memory = [], 0.0
    for turn in range(6):
        begun = time.perf_counter()
        with subprocess.Popen(command, env=environment, stdout=subprocess.PIPE) as run:
            if run.stdout:
                run.stdout.readline()
            if turn:
                spent.append(time.perf_counter() - begun)
            status = Path(f"/proc/{run.pid}/status").read_text(encoding="utf-8")
            peak = next(line for line in status.splitlines() if line.startswith("VmHWM"))
            memory = max(memory, int(peak.split()[1]) / 1024)
            run.kill()
    return statistics.median(spent), memory


def _in_the_window(path: Path) -> tuple[float, float]:
    """Milliseconds for a letter in the filter, and for opening a test, both to the picture."""
    os.environ["QT_QPA_PLATFORM"] = "offscreen"
    from vadrin.commands.desktop import make_application, open_window

    application = make_application()
    window: Window = open_window(path)  # type: ignore[assignment]
    window.resize(1280, 800)
    window.show()
    settle(window)
    shelf: Any = window.station()
    typed = ["s", "sl", "sli", "slip", "slipw", "merrow 1", "merrow 17", "scratched", ""]
    letters = statistics.median(timed(partial(shelf.filter.setText, words)) for words in typed)

    def opens(test_id: int) -> None:
        window.bench.open_test(test_id)
        window.bench.go("read")

    opens(1)
    settle(window)
    opening = statistics.median(timed(partial(opens, i)) for i in range(3, 20, 2))
    window.jobs.wait()
    window.close()
    del application
    return letters, opening


def shelf_rows() -> list[str]:
    """Lines of the table for notebooks of 0, 200 and 2,000 tests."""
    lines = [
        f"{'notebook':<34}{'file MB':>9}{'start ms':>10}{'memory MB':>11}{'letter':>9}"
        f"{'open test':>11}"
    ]
    for tests in (0, 200, 2000):
        with tempfile.TemporaryDirectory() as folder:
            path = Path(folder) / "many.vadrin"
            notebook = Notebook(path)
            if tests:
                fill(notebook, tests)
            notebook.close()
            size = path.stat().st_size / 1e6
            start, memory = _start(path)
            shown = f"{tests} tests, {tests * _STRIPS * _FRAMES} readings"
            line = f"{shown:<34}{size:>9.1f}{1000 * start:>10.0f}{memory:>11.0f}"
            if tests:
                letter, opening = _in_the_window(path)
                line += f"{letter:>9.1f}{opening:>11.1f}"
            lines.append(line)
    peak = resource.getrusage(resource.RUSAGE_SELF).ru_maxrss / 1024
    return [*lines, f"(making and measuring them took up to {peak:.0f} MB)"]

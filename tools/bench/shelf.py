"""The part of ``vadrin bench`` about very large notebooks."""

from __future__ import annotations

import os
import resource
import shutil
import statistics
import subprocess
import sys
import tempfile
import time
from collections.abc import Callable
from dataclasses import replace
from functools import partial
from pathlib import Path
from typing import TYPE_CHECKING, Any

import numpy as np

from tools.bench.timing import settle, timed
from vadrin.app.library.notebook_exchange import write_json
from vadrin.app.shelf.shelf_index import shelf_lines
from vadrin.core.frames import FrameRole, FrameState
from vadrin.notebook.backups import back_up
from vadrin.notebook.merge import everything_of, merge
from vadrin.notebook.records import Developer, Frame, Reading, Stock, Strip, Test
from vadrin.notebook.store import Notebook

if TYPE_CHECKING:
    from vadrin.ui.frame.window import Window

_STRIPS, _FRAMES, _SEED = 5, 25, 1907
_PLACES = ("slipway", "planking", "caulking", "steam box", "rigging", "oars", "varnish")


def fill(notebook: Notebook, tests: int, readings: int = 1) -> None:
    """Write tests of five strips and 25 frames, each read so often, the same at every call."""
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
        for turn in range(readings):
            noise = rng.normal(0.0, 0.01, len(frames))
            notebook.add_all(
                [
                    Reading(
                        frame_id=f.id,
                        position=turn,
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


def _whole(tests: int, readings: int) -> dict[str, float]:
    """Seconds for what goes through a whole notebook."""
    spent: dict[str, float] = {}

    def took(name: str, act: Callable[[], object]) -> None:
        begun = time.perf_counter()
        act()
        spent[name] = time.perf_counter() - begun

    with tempfile.TemporaryDirectory() as folder:
        path, other = Path(folder) / "many.vadrin", Path(folder) / "theirs.vadrin"
        notebook = Notebook(path)
        fill(notebook, tests, readings)
        notebook.close()
        shutil.copy(path, other)
        theirs = Notebook(other)
        with theirs.change("their own"):
            for strip in theirs.all(Strip)[:40]:
                theirs.put(replace(strip, time_min=7.5))
        theirs.close()
        took("back up", lambda: back_up(path))
        notebook = Notebook(path)
        took("every line of the shelf", lambda: shelf_lines(notebook))
        took("export as JSON", lambda: write_json(notebook, Path(folder) / "all.json"))
        took("take a copy in", lambda: _taken_in(notebook, other))
        notebook.close()
    return spent


def _taken_in(notebook: Notebook, other: Path) -> None:
    for _ in merge(notebook, everything_of(other), "merge", "other"):
        pass


def whole_rows() -> list[str]:
    """Lines about what goes through a whole notebook: seconds, and the power of its size."""
    small, large = _whole(500, 4), _whole(2000, 4)
    lines = [f"{'a whole notebook, s':<34}{'250,000':>9}{'1,000,000':>10}{'power':>11}"]
    for name, seconds in large.items():
        power = np.log(seconds / small[name]) / np.log(4)
        lines.append(f"{name:<34}{small[name]:>9.1f}{seconds:>10.1f}{power:>11.2f}")
    return lines


def shelf_rows() -> list[str]:
    """Lines of the table for notebooks of 0, 200 and 2,000 tests, read once and four times."""
    lines = [
        f"{'notebook':<34}{'file MB':>9}{'start ms':>10}{'memory MB':>11}{'letter':>9}"
        f"{'open test':>11}"
    ]
    for tests, readings in ((0, 1), (200, 1), (2000, 1), (2000, 4)):
        with tempfile.TemporaryDirectory() as folder:
            path = Path(folder) / "many.vadrin"
            notebook = Notebook(path)
            if tests:
                fill(notebook, tests, readings)
            notebook.close()
            size = path.stat().st_size / 1e6
            start, memory = _start(path)
            shown = f"{tests} tests, {tests * _STRIPS * _FRAMES * readings} readings"
            line = f"{shown:<34}{size:>9.1f}{1000 * start:>10.0f}{memory:>11.0f}"
            if tests:
                letter, opening = _in_the_window(path)
                line += f"{letter:>9.1f}{opening:>11.1f}"
            lines.append(line)
    peak = resource.getrusage(resource.RUSAGE_SELF).ru_maxrss / 1024
    return [*lines, *whole_rows(), f"(making and measuring them took up to {peak:.0f} MB)"]

"""Kills the program while it is being worked with, and counts what is lost.

``PYTHONPATH=src python tools/kill_trial.py 300`` prints the count, and leaves with 1 where
anything was lost, a file did not open, or nothing was called saved; ``--copies 200`` copies the
files at so many moments while it is worked with instead; with ``--session FILE`` it
is the program that gets killed: it edits through the real window and prints every edit once
the header has called it saved.
"""

from __future__ import annotations

import json
import os
import random
import shutil
import signal
import subprocess
import sys
import tempfile
import time
from concurrent.futures import ThreadPoolExecutor
from pathlib import Path

from vadrin.core.frames import FrameState
from vadrin.notebook.records import Frame, Reading, Stock, Test
from vadrin.notebook.store import Notebook

_ONE_EDIT_S = 0.05
"""About what an edit takes: the kill falls anywhere within one, after a number of edits."""


def session(path: Path) -> None:
    """Edit for ever: plan, tick, develop, read, note stocks."""
    from PyQt6.QtCore import Qt
    from PyQt6.QtTest import QTest
    from PyQt6.QtWidgets import QApplication, QLabel

    from vadrin.commands.desktop import make_application, open_window

    app = make_application()
    window = open_window(path)
    window.show()
    window.activateWindow()
    app.processEvents()

    def press(key: Qt.Key, *modifiers: Qt.KeyboardModifier) -> None:
        QTest.keyClick(QApplication.focusWidget() or window, key, *modifiers)
        app.processEvents()

    labels = window.header.findChildren(QLabel)
    state = next(x for x in labels if x.objectName() == "state of saving")

    def saved(**what: object) -> None:
        app.processEvents()
        if "all changes saved" in state.text():
            print(json.dumps(what), flush=True)

    control, bench = Qt.KeyboardModifier.ControlModifier, window.bench
    for turn in range(10_000):
        press(Qt.Key.Key_N, control)
        press(Qt.Key.Key_Return)
        name = f"Merrow Pan {turn}"
        QTest.keyClicks(QApplication.focusWidget(), name)
        press(Qt.Key.Key_Return)
        saved(kind="stock", test=bench.loaded.test.id, name=name)
        press(Qt.Key.Key_2, control)
        for _ in range(6):
            frame = bench.frame_id
            press(Qt.Key.Key_Space)
            saved(kind="tick", frame=frame)
        press(Qt.Key.Key_4, control)
        for step in range(6):
            frame = bench.frame_id
            density = round(0.2 + 0.01 * step, 2)
            QTest.keyClicks(QApplication.focusWidget(), f"{density:.2f}")
            press(Qt.Key.Key_Return)
            saved(kind="reading", frame=frame, density=density)


def _lost(path: Path, told: list[dict[str, object]]) -> list[dict[str, object]]:
    """Edits that were called saved and are not in the file."""
    book = Notebook(path)
    stocks = {s.id: s.name for s in book.all(Stock)}
    names = {t.id: stocks[t.stock_id] for t in book.all(Test)}
    ticked = {f.id for f in book.all(Frame) if f.state == FrameState.EXPOSED}
    read = {(r.frame_id, r.density) for r in book.all(Reading)}
    book.close()
    there = {
        "stock": lambda e: names.get(e["test"]) == e["name"],
        "tick": lambda e: e["frame"] in ticked,
        "reading": lambda e: (e["frame"], e["density"]) in read,
    }
    return [edit for edit in told if not there[str(edit["kind"])](edit)]


def _path() -> str:
    return os.pathsep.join(sys.path)


def trial(seed: int) -> tuple[int, int, str]:
    """One session killed at a random moment: edits told, edits lost, and what went wrong."""
    rng = random.Random(seed)
    edits, wait = rng.randint(1, 40), rng.uniform(0.0, _ONE_EDIT_S)
    environment = {**os.environ, "QT_QPA_PLATFORM": "offscreen", "PYTHONPATH": _path()}
    with tempfile.TemporaryDirectory() as folder:
        path = Path(folder) / "killed.vadrin"
        command = [sys.executable, __file__, "--session", str(path)]
        with subprocess.Popen(command, stdout=subprocess.PIPE, env=environment, text=True) as run:
            first = [run.stdout.readline() for _ in range(edits)]
            time.sleep(wait)
            run.kill()
            lines = [*first, *run.stdout.read().splitlines(keepends=True)]
        told = [json.loads(line) for line in lines if line.endswith("\n")]
        try:
            return len(told), len(_lost(path, told)), ""
        except Exception as error:
            return len(told), len(told), repr(error)


def copies(count: int) -> tuple[int, int, list[str]]:
    """Copies of a notebook's files while it is worked with, each of one moment: edits that were
    called saved before it, those that are not in the copy, and copies that would not open."""
    rng, told, lost, faults = random.Random(5), list[dict[str, object]](), 0, list[str]()
    environment = {**os.environ, "QT_QPA_PLATFORM": "offscreen", "PYTHONPATH": _path()}
    with tempfile.TemporaryDirectory() as folder:
        path = Path(folder) / "work" / "copied.vadrin"
        path.parent.mkdir()
        command = [sys.executable, __file__, "--session", str(path)]
        with subprocess.Popen(command, stdout=subprocess.PIPE, env=environment) as working:
            assert working.stdout is not None
            told.append(json.loads(working.stdout.readline()))
            os.set_blocking(working.stdout.fileno(), False)
            rest = b""
            for number in range(count):
                time.sleep(rng.uniform(0.0, 4 * _ONE_EDIT_S))
                # All files of one moment, as a snapshot of the disk has them.
                working.send_signal(signal.SIGSTOP)
                rest += working.stdout.read() or b""
                *lines, rest = rest.split(b"\n")
                told += [json.loads(line) for line in lines]
                copy = Path(folder) / f"copy {number}"
                shutil.copytree(path.parent, copy)
                working.send_signal(signal.SIGCONT)
                (copy / f".{path.name}.lock").unlink(missing_ok=True)
                try:
                    lost += len(_lost(copy / path.name, told))
                except Exception as error:
                    faults.append(repr(error))
                shutil.rmtree(copy)
            working.kill()
    return len(told), lost, faults


def run(kills: int) -> tuple[int, int, list[str]]:
    """Many trials: edits told, edits lost, notebooks that would not open."""
    with ThreadPoolExecutor(2) as pool:
        results = list(pool.map(trial, range(kills)))
    told, lost = sum(r[0] for r in results), sum(r[1] for r in results)
    return told, lost, [r[2] for r in results if r[2]]


if __name__ == "__main__":
    if sys.argv[1] == "--session":
        session(Path(sys.argv[2]))
    else:
        copied = sys.argv[1] == "--copies"
        told, lost, faults = copies(int(sys.argv[2])) if copied else run(int(sys.argv[1]))
        what = f"{sys.argv[2]} copies" if copied else f"{sys.argv[1]} kills"
        print(
            f"{what}: {told} edits called saved, {lost} lost, {len(faults)} files "
            f"that did not open {faults[:3]}"
        )
        # A window that never starts loses nothing, and shows nothing.
        sys.exit(0 if told and not lost and not faults else 1)

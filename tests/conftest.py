"""What several tests share: an offscreen window on a notebook, and films of known truth."""

import gc
import os
import shutil
import sqlite3
from contextlib import suppress

os.environ.setdefault("QT_QPA_PLATFORM", "offscreen")

import pytest
from hypothesis import settings

from vadrin.app.document.workbench import Workbench
from vadrin.notebook.examination import faults
from vadrin.notebook.store import Notebook

# A machine that stands still for a second is no fault of the program.
settings.register_profile("suite", deadline=None, max_examples=40)
settings.load_profile("suite")
gc.disable()
CLEARED = {"windows": 0}


def pytest_terminal_summary(terminalreporter):
    """How many keys each job took, from the question to the card."""
    told = {
        report.nodeid.rpartition("::")[2]: dict(report.user_properties)["keys"]
        for report in terminalreporter.getreports("")
        if report.when == "teardown" and "keys" in dict(report.user_properties)
    }
    if told:
        terminalreporter.section("keys per job")
        for name, keys in sorted((n, k) for n, k in told.items() if "[" not in n):
            terminalreporter.line(f"{keys:5d}  {name.removeprefix('test_').replace('_', ' ')}")


@pytest.fixture(autouse=True)
def own_folders(tmp_path_factory, monkeypatch):
    """Lists and logs go to a folder of the test, not to the person's own."""
    monkeypatch.setenv("XDG_STATE_HOME", str(tmp_path_factory.getbasetemp() / "state"))
    monkeypatch.setenv("XDG_DATA_HOME", str(tmp_path_factory.getbasetemp() / "data"))
    config = tmp_path_factory.getbasetemp() / "config"
    (config / "vadrin").mkdir(parents=True, exist_ok=True)
    # No clock of a test looks for the machine's sound.
    (config / "vadrin" / "preferences.json").write_text('{"sounds": false}', encoding="utf-8")
    monkeypatch.setenv("XDG_CONFIG_HOME", str(config))


@pytest.fixture(autouse=True)
def nothing_written_that_would_be_refused(monkeypatch):
    """Whatever a test did to a notebook, it must open again: its rows are looked at on closing."""
    close = Notebook.close

    def closed(book):
        with suppress(sqlite3.ProgrammingError):  # closed twice
            if not book.revision:
                return close(book)
            assert list(faults(book._connection)) == []
        return close(book)

    monkeypatch.setattr(Notebook, "close", closed)


@pytest.fixture(scope="session")
def empty_path(tmp_path_factory):
    """An empty notebook, made once: every migration runs for it."""
    path = tmp_path_factory.mktemp("empty") / "empty.vadrin"
    Notebook(path).close()
    return path


@pytest.fixture
def notebook(tmp_path, empty_path):
    """An empty notebook in a folder of its own."""
    made = Notebook(shutil.copy(empty_path, tmp_path / "winter.vadrin"))
    yield made
    made.close()


@pytest.fixture(scope="session")
def demo_path(tmp_path_factory):
    """The demo notebook, made once."""
    from tools.demo.demo_notebook import make_demo

    path = tmp_path_factory.mktemp("demo") / "demo.vadrin"
    make_demo(path, kinds=False)
    return path


@pytest.fixture
def open_window(qtbot, qapp, empty_path):
    """Open the real window on a notebook file; an empty one where there is none."""
    from PyQt6.QtWidgets import QApplication

    from vadrin.ui.frame.window import Window
    from vadrin.ui.theme.typeface import load_fonts, set_scale
    from vadrin.ui.widgets.deleting import delete_now

    load_fonts()
    set_scale(1.0)
    opened = []

    def opener(path):
        if not path.exists():
            shutil.copy(empty_path, path)
        window = Window(Workbench(Notebook(path)))
        window.resize(1280, 800)
        window.show()
        window.activateWindow()
        qtbot.waitUntil(lambda: QApplication.activeWindow() is window, timeout=5000)
        opened.append(window)
        return window

    yield opener
    for window in opened:
        window.close()
        # Not some time in the next test, whose looks and sizes would be put on it as well.
        delete_now(window)
    opened.clear()
    # On this thread, and only here: circles that hold widgets must not be cleared by a job's.
    CLEARED["windows"] += 1
    gc.collect(1 if CLEARED["windows"] % 20 else 2)

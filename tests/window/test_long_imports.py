"""Many rows, or a large notebook, come in while the window goes on; stopped, nothing stays."""

import shutil

import pytest
from PyQt6.QtWidgets import QApplication

from oracles.closed_form import ClosedForm
from tests.window.pages import button_of, said_by, settle, words_of
from vadrin.notebook import inspection
from vadrin.notebook.records import Frame, Reading, Stock, Test

FILM = ClosedForm()
STRIPS, FRAMES = 24, 25


@pytest.fixture
def table(tmp_path):
    path = tmp_path / "winter.csv"
    lines = ["strip,time_min,frame,log_h,density"]
    for strip in range(STRIPS):
        minutes = 5.0 + strip / 4
        for frame in range(FRAMES):
            log_h = -3.5 + 0.18 * frame
            density = FILM.density(log_h, minutes)
            lines.append(f"S{strip},{minutes},{frame},{log_h:.2f},{density:.3f}")
    path.write_text("\n".join(lines) + "\n", encoding="utf-8")
    return path


def test_all_of_it_comes_in_and_one_undo_takes_it_back(qtbot, open_window, tmp_path, table):
    window = open_window(tmp_path / "book.vadrin")
    window.importing.offer(table)
    qtbot.waitUntil(lambda: window.importing.writing, timeout=20000)
    settle(qtbot, window)
    book = window.bench.notebook
    assert book.count(Reading) == book.count(Frame) == STRIPS * FRAMES
    assert window.bench.station == "curves"
    assert not window.banner.isVisible()
    rows = window.table._rows
    assert 0 < len(rows) < STRIPS, "as many strips as there is room for"
    assert window.height() <= 800
    last = window.bench.loaded.strips[-1].frames[3]
    window.bench.select(last.frame.id)
    window.updates.flush()
    assert window.table.frame_box(last.frame.id) is not None, "the strip selected is among them"
    window.bench.undo()
    assert (book.count(Test), book.count(Reading), book.count(Stock)) == (0, 0, 0)


def test_stopped_by_its_button_nothing_of_it_stays(qtbot, open_window, tmp_path, table):
    window = open_window(tmp_path / "book.vadrin")
    window.importing.offer(table)
    qtbot.waitUntil(lambda: f"of {STRIPS * FRAMES} readings" in words_of(window.banner))
    button_of(window.banner, "Stop, and import nothing").click()
    settle(qtbot, window)
    book = window.bench.notebook
    assert (book.count(Test), book.count(Reading), book.count(Stock)) == (0, 0, 0)
    assert not window.importing.writing
    assert "Stopped; nothing was imported." in said_by(window)
    window.importing.offer(table)
    qtbot.waitUntil(lambda: window.importing.writing, timeout=20000)
    settle(qtbot, window)
    assert book.count(Reading) == STRIPS * FRAMES, "and it can be begun again"


def test_a_notebook_open_for_reading_says_why(qtbot, open_window, tmp_path, table):
    open_window(tmp_path / "book.vadrin")
    reader = open_window(tmp_path / "book.vadrin")
    reader.importing.offer(table)
    qtbot.waitUntil(lambda: "Nothing was imported" in words_of(reader.banner), timeout=20000)
    assert "open for reading only" in words_of(reader.banner)
    assert "disk" not in words_of(reader.banner)
    QApplication.processEvents()
    assert not reader.importing.writing


@pytest.fixture
def large(demo_path, tmp_path, monkeypatch):
    """A notebook that counts as large."""
    monkeypatch.setattr(inspection, "_LARGE", 1)
    return shutil.copy(demo_path, tmp_path / "large.vadrin")


def test_a_large_notebook_is_looked_through_beside_the_work(qtbot, open_window, tmp_path, large):
    window = open_window(tmp_path / "book.vadrin")
    window.files.open(large)
    assert "Looking through large.vadrin" in words_of(window.banner)
    assert window.bench.notebook.path.name == "book.vadrin", "the work goes on meanwhile"
    button_of(window.banner, "Stay with this one").click()
    settle(qtbot, window)
    assert window.bench.notebook.path.name == "book.vadrin"
    assert not window.banner.isVisible()
    window.files.open(large)
    settle(qtbot, window)
    assert window.bench.notebook.path == large
    assert window.bench.notebook.count(Test) > 5
    assert not window.banner.isVisible()


def test_a_large_notebook_that_is_damaged_is_refused_in_words(qtbot, open_window, tmp_path, large):
    window = open_window(tmp_path / "book.vadrin")
    whole = large.read_bytes()
    large.write_bytes(whole[:9000] + b"\xff" * 40_000 + whole[49_000:])
    window.files.open(large)
    settle(qtbot, window)
    assert window.bench.notebook.path.name == "book.vadrin"
    assert "is damaged or is no notebook" in words_of(window.banner)
    assert button_of(window.banner, "Save what can be recovered as a copy")

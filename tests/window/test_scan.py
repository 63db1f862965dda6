"""A strip read from a scan, through the window: opened, moved, taken, undone, refused."""

import numpy as np
import pytest
import tifffile
from PyQt6.QtCore import Qt
from PyQt6.QtTest import QTest

from tests.window.pages import refusal_of, settle, type_into, words_of
from vadrin.core.simulation.scanner import Scanner, scanned_strip

WEDGE = np.arange(0.05, 3.1, 0.15)


@pytest.fixture
def scan(qtbot, demo, tmp_path):
    """The window at Read's scan page, and a way to write a scan of its first strip."""
    window = demo("Ostrel 400", "read")
    true = np.array([f.density for f in window.bench.sheet.strips[0].frames])
    book = window.bench.notebook
    with book.change("not read yet"):
        for _, frame in window.bench.sheet.frames():
            for reading in frame.readings:
                book.remove(reading)
    window.bench.open_test(window.bench.sheet.test.id)
    window.station().setFocus()
    QTest.keyClick(window.station(), Qt.Key.Key_S, Qt.KeyboardModifier.AltModifier)
    window.updates.flush()
    page = window.station().scan

    def write(turn=False, name="strip.tif", **seen):
        frames = true[::-1] if turn else true
        rng = np.random.default_rng(3)
        picture, _ = scanned_strip(Scanner(dust=0.005, **seen), frames, true[0], rng, 80, WEDGE)
        tifffile.imwrite(tmp_path / name, picture)
        page.open(tmp_path / name)
        qtbot.waitUntil(lambda: not window.analyst.jobs.busy("scan"), timeout=20_000)
        return true

    type_into(page.wedge, " ".join(f"{step:.2f}" for step in WEDGE))
    window.updates.flush()
    return window, page, write


def press(window, key):
    QTest.keyClick(window.station(), key)


def test_a_scan_is_opened_and_its_densities_taken(qtbot, scan):
    window, page, write = scan
    true = write(skew=0.01)
    assert refusal_of(window) == ""
    assert "The wedge is met within" in words_of(page)
    page.take.click()
    settle(qtbot, window)
    frames = window.bench.sheet.strips[0].frames
    read = np.array([f.density for f in frames])
    assert np.max(np.abs(read - true)) < 0.02
    kept = frames[0].readings[0]
    assert (kept.way, kept.deviation > 0) == ("scan", True)
    assert "sha256" in kept.extra
    assert "EI" in words_of(window)
    window.bench.undo()
    assert window.bench.sheet.read() == 0, "one scan is one edit"


def test_a_strip_that_lay_the_other_way_round_is_turned(scan):
    window, page, write = scan
    true = write(turn=True)
    assert "the other way round" in words_of(page)
    page.take.click()
    window.updates.flush()
    read = [f.density for f in window.bench.sheet.strips[0].frames]
    assert np.corrcoef(read, true)[0, 1] > 0.99
    press(window, Qt.Key.Key_R)
    assert not page.scan.mirrored


def test_frames_are_moved_by_the_arrows(scan):
    window, page, write = scan
    write()
    start, pitch = page.scan.place.start, page.scan.place.pitch
    press(window, Qt.Key.Key_Right)
    press(window, Qt.Key.Key_Plus)
    assert page.scan.place.start > start
    assert page.scan.place.pitch > pitch
    press(window, Qt.Key.Key_Left)
    press(window, Qt.Key.Key_Minus)
    assert (page.scan.place.start, page.scan.place.pitch) == pytest.approx((start, pitch), rel=1e-3)


def test_what_cannot_be_read_is_said_and_the_wedge_is_kept(qtbot, scan, tmp_path):
    window, page, _ = scan
    (tmp_path / "words.tif").write_text("no picture")
    page.open(tmp_path / "words.tif")
    qtbot.waitUntil(lambda: not window.analyst.jobs.busy("scan"), timeout=20_000)
    assert "words.tif: no picture" in refusal_of(window)
    tifffile.imwrite(tmp_path / "light.tif", np.full((200, 900), 50_000, np.uint16))
    page.open(tmp_path / "light.tif")
    qtbot.waitUntil(lambda: not window.analyst.jobs.busy("scan"), timeout=20_000)
    assert "no strip was found" in refusal_of(window)
    type_into(page.wedge, "0.5 0.4")
    assert "at least four densities" in refusal_of(window)
    assert page.wedge.why_refused

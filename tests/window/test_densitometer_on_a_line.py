"""A densitometer on a line, through the window: a press a frame, its zero, what goes wrong."""

import pytest
from PyQt6.QtCore import Qt
from PyQt6.QtTest import QTest

from tests.window.pages import refusal_of, words_of
from vadrin.notebook.records import Instrument, Reading


@pytest.fixture
def page(demo):
    window = demo("Brannock 400", "read")
    with window.bench.notebook.change("on a line"):
        window.bench.notebook.add(
            Instrument(name="Bench meter", port="simulated", line_format="[V] D {0.30}")
        )
    window.updates.flush()
    return window, window.station().densities


def press(button):
    button.setFocus()
    QTest.keyClick(button, Qt.Key.Key_Space)


def readings(window):
    return len(window.bench.notebook.all(Reading))


def test_a_press_is_a_reading_and_the_next_frame_is_there(qtbot, page):
    window, densities = page
    before, frame = readings(window), window.bench.frame_id
    press(densities.line)
    assert "is heard: stop" in densities.line.text()
    for count in (1, 2, 3):
        press(densities.press)
        qtbot.waitUntil(lambda n=count: readings(window) == before + n, timeout=10_000)
    assert window.bench.frame_id != frame
    first = next(r for r in window.bench.notebook.all(Reading) if r.frame_id == frame)
    assert 0.05 < first.density < 4
    window.bench.undo()
    assert readings(window) == before + 2
    press(densities.line)
    assert densities.line.text() == "Listen to the densitometer"


def test_a_zero_that_drifted_is_said_and_taken_out(qtbot, page):
    window, densities = page
    said = []
    window.bench.said.connect(said.append)
    press(densities.line)
    densities._meter._line.stand_in.zero = 0.08
    press(densities.zero)
    qtbot.waitUntil(lambda: any("has drifted by 0.0" in w for w in said), timeout=10_000)
    before = readings(window)
    press(densities.zero)
    qtbot.waitUntil(lambda: any("that is taken out." in w for w in said), timeout=10_000)
    assert readings(window) == before, "a zero is no reading"


def test_a_densitometer_that_is_not_there_is_named(page):
    window, densities = page
    with window.bench.notebook.change("gone"):
        for kept in window.bench.notebook.all(Instrument):
            window.bench.notebook.put(
                type(kept)(**{**vars(kept), "port": "/dev/nothing-there" if kept.port else ""})
            )
    window.bench.open_test(window.bench.sheet.test.id)
    window.updates.flush()
    press(densities.line)
    assert "does not answer at /dev/nothing-there" in refusal_of(window)
    assert "Listen" in words_of(window.station()) or densities.line.text().startswith("Listen")

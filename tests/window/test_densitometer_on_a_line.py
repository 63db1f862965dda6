"""A densitometer on a line, through the window: a press a frame, its zero, what goes wrong."""

from dataclasses import replace

import pytest
from PyQt6.QtCore import Qt
from PyQt6.QtTest import QTest

from tests.notebooks import developed_test
from tests.window.pages import refusal_of, settle
from vadrin.app.instruments import densitometer
from vadrin.notebook.records import Instrument, Reading, Stock


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


def newest(window, count):
    """The readings taken last."""
    return sorted(window.bench.notebook.all(Reading), key=lambda r: r.id)[-count:]


def readings(window):
    return len(window.bench.notebook.all(Reading))


def test_a_press_is_a_reading_and_the_next_frame_is_there(qtbot, page):
    window, densities = page
    before, frame = readings(window), window.bench.frame_id
    press(densities.meter.line)
    assert "Disconnect" in densities.meter.line.text()
    for count in (1, 2, 3):
        press(densities.meter.press)
        qtbot.waitUntil(lambda n=count: readings(window) == before + n, timeout=10_000)
    assert window.bench.frame_id != frame
    first = next(r for r in window.bench.notebook.all(Reading) if r.frame_id == frame)
    assert 0.05 < first.density < 4
    window.bench.undo()
    assert readings(window) == before + 2
    press(densities.meter.line)
    assert densities.meter.line.text() == "Connect the densitometer"


def told_by_frame(window, frames):
    every = window.bench.notebook.all(Reading)
    return [{r.channel: r.density for r in every if r.frame_id == f.frame.id} for f in frames]


def test_colour_film_is_read_in_three_layers_a_press_and_one_layer_alone_frame_by_frame(
    qtbot, open_window, tmp_path
):
    window = open_window(tmp_path / "colour.vadrin")
    bench, book = window.bench, window.bench.notebook
    test = developed_test(book, "Gannet Colour 200", kind="colour", index=200.0)
    with book.change("on a line"):
        book.add(Instrument(name="Bench meter", port="simulated", line_format="[V] D {0.30}"))
        book.put(replace(book.get(Stock, test.stock_id), kind="colour negative"))
    bench.refresh()
    bench.open_test(test.id)
    bench.go("read")
    settle(qtbot, window)
    densities = window.station().densities
    frames = [f for f in bench.loaded.strips[0].frames if f.readable][:5]
    bench.select(frames[0].frame.id)
    press(densities.meter.line)
    before = readings(window)
    for count in (1, 2):
        press(densities.meter.press)
        qtbot.waitUntil(lambda n=count: readings(window) == before + 3 * n, timeout=10_000)
    first, second, *_ = told_by_frame(window, frames)
    assert first.keys() == second.keys() == {"red", "green", "blue"}
    assert first["red"] < first["green"] < first["blue"], "the mask"
    assert bench.frame_id == frames[2].frame.id
    # Somebody's own meter tells green alone.
    for density in ("0.31", "0.45", "0.60"):
        densities.meter._meter._line.stand_in._terminal.say(f"G D {density}")
        count = readings(window)
        qtbot.waitUntil(lambda n=count: readings(window) == n + 1, timeout=10_000)
    told = told_by_frame(window, frames)[2:]
    assert told == [{"green": 0.31}, {"green": 0.45}, {"green": 0.60}]


def test_a_zero_that_drifted_is_said_and_taken_out(qtbot, page):
    window, densities = page
    said = []
    window.bench.said.connect(said.append)
    press(densities.meter.line)
    press(densities.meter.zero)
    qtbot.waitUntil(lambda: any("stands at" in w for w in said), timeout=10_000)
    before, stand_in = readings(window), densities.meter._meter._line.stand_in
    stand_in._noise = 0.0
    for count in (1, 2, 3, 4):
        stand_in.zero = 0.02 * count
        press(densities.meter.press)
        qtbot.waitUntil(lambda n=count: readings(window) == before + n, timeout=10_000)
    read = [r.density for r in newest(window, 4)]
    assert not densities.meter.drift.isVisibleTo(densities)
    press(densities.meter.zero)
    qtbot.waitUntil(lambda: any("has drifted by 0.0" in w for w in said), timeout=10_000)
    assert readings(window) == before + 4, "a zero is no reading"
    press(densities.meter.drift)
    mended = [r.density for r in newest(window, 4)]
    off = [b - a for a, b in zip(mended, read, strict=True)]
    assert off == pytest.approx([0.02, 0.04, 0.06, 0.08], abs=0.008), "more, the later it was read"
    window.bench.undo()
    assert [r.density for r in newest(window, 4)] == read


def test_the_zero_is_asked_for_and_a_patch_watched(qtbot, page, monkeypatch):
    window, densities = page
    monkeypatch.setattr(densitometer, "_ZERO_EVERY", 4)
    said = []
    window.bench.said.connect(said.append)
    press(densities.meter.line)
    for times, words in ((1, "it is remembered"), (2, "as before")):
        press(densities.meter.patch)
        qtbot.waitUntil(lambda w=words: any(w in s for s in said), timeout=10_000)
        assert sum("reference patch reads" in s for s in said) == times
    before = readings(window)
    for count in range(1, 5):
        press(densities.meter.press)
        qtbot.waitUntil(lambda n=count: readings(window) == before + n, timeout=10_000)
    assert any("was not zeroed yet" in s for s in said)
    assert any("4 readings since its zero: zero it again" in s for s in said)


def test_a_program_may_leave_its_readings_in_a_folder(qtbot, page, tmp_path):
    window, densities = page
    book = window.bench.notebook
    with book.change("a folder"):
        for kept in book.all(Instrument):
            port = str(tmp_path) if kept.port else ""
            book.put(replace(kept, port=port))
    (tmp_path / "old.txt").write_text("V D 1.11\n")
    window.bench.open_test(window.bench.loaded.test.id)
    window.updates.flush()
    press(densities.meter.line)
    before = readings(window)
    with (tmp_path / "old.txt").open("a") as file:
        file.write("V D 1.23\nV D 1.4")
    qtbot.waitUntil(lambda: readings(window) == before + 1, timeout=10_000)
    assert newest(window, 1)[0].density == pytest.approx(1.23), "what was there is not read again"
    with (tmp_path / "old.txt").open("a") as file:
        file.write("5\nnonsense\n")
    (tmp_path / "new.txt").write_text("B D 0.77\n")
    qtbot.waitUntil(lambda: readings(window) == before + 3, timeout=10_000)
    assert sorted(r.density for r in newest(window, 2)) == pytest.approx([0.77, 1.45])
    qtbot.waitUntil(lambda: "nonsense" in refusal_of(window), timeout=10_000)


def test_a_densitometer_that_is_not_there_is_named(page):
    window, densities = page
    with window.bench.notebook.change("gone"):
        for kept in window.bench.notebook.all(Instrument):
            window.bench.notebook.put(
                type(kept)(**{**vars(kept), "port": "/dev/nothing-there" if kept.port else ""})
            )
    window.bench.open_test(window.bench.loaded.test.id)
    window.updates.flush()
    press(densities.meter.line)
    assert "does not answer at /dev/nothing-there" in refusal_of(window)
    assert densities.meter.line.text().startswith("Connect")

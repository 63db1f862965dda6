"""The whole job through the real window, by keyboard alone: from a new test to the card."""

import numpy as np
from PyQt6.QtCore import QBuffer, QByteArray, QIODevice, Qt
from PyQt6.QtPdf import QPdfDocument

from tests.window.pages import CTRL, Hands
from vadrin.app.document.test_loading import load_test
from vadrin.core.simulation.film import Densitometer, expose_and_develop, invent_film
from vadrin.notebook.records import Finding, Reading, Stock, Strip, Test
from vadrin.notebook.store import Notebook


def plan(typist):
    typist.press(Qt.Key.Key_N, CTRL)
    typist.press(Qt.Key.Key_Return)
    for words in ("Merrow Pan 125", "M3", "Sable", "1+1", "125"):
        typist.write(words)
        typist.press(Qt.Key.Key_Tab)
    typist.press(Qt.Key.Key_Tab)
    typist.write("5; 8; 12,5")


def expose(typist):
    typist.press(Qt.Key.Key_2, CTRL)
    typist.press(Qt.Key.Key_Space, times=3)
    typist.press(Qt.Key.Key_Backspace)
    typist.press(Qt.Key.Key_Space, times=60)


def read(typist, bench):
    """Read every frame on a simulated densitometer; one frame twice."""
    typist.press(Qt.Key.Key_4, CTRL)
    rng = np.random.default_rng(2)
    film = invent_film(rng, 125.0)
    for loaded in bench.loaded.strips:
        x = [f.log_h(bench.loaded.test.meter_constant) for f in loaded.frames]
        exposed = np.array([v for v in x if v is not None])
        made = expose_and_develop(
            film, loaded.strip.label, exposed, loaded.strip.time_min, rng, Densitometer(0.005, 0.0)
        )
        for reading in made.readings:
            typist.write(f"{reading.density:.2f}".replace(".", ","))


def test_from_a_new_test_to_the_card_by_keyboard(qtbot, open_window, tmp_path):
    path = tmp_path / "winter.vadrin"
    window = open_window(path)
    typist, bench = Hands(qtbot, window), window.bench
    plan(typist)
    loaded = bench.loaded
    assert (loaded.title, loaded.process) == ("Merrow Pan 125", "in Sable 1+1")
    assert [s.strip.planned_min for s in loaded.strips] == [5.0, 8.0, 12.5]
    assert loaded.test.exposure_index == 125.0
    expose(typist)
    # Three strips of 14, a piece for the cut, and the first exposure once more.
    assert bench.loaded.exposed() == len(bench.loaded.frames()) == 3 * 14 + 2
    typist.press(Qt.Key.Key_3, CTRL)
    typist.press(Qt.Key.Key_Return, CTRL)
    assert bench.loaded.processed() == 3
    read(typist, bench)
    typist.settle()
    assert bench.loaded.read() == 43
    typist.press(Qt.Key.Key_5, CTRL)
    typist.press(Qt.Key.Key_7, CTRL)
    typist.press(Qt.Key.Key_D, CTRL)
    typist.press(Qt.Key.Key_8, CTRL)
    card = tmp_path / "the card.pdf"
    typist.press(Qt.Key.Key_A, CTRL)
    typist.write(str(card))
    (finding,) = window.bench.notebook.all(Finding)
    check_card(card, finding)


def check_card(card, finding):
    document, buffer = QPdfDocument(None), QBuffer()
    buffer.setData(QByteArray(card.read_bytes()))
    buffer.open(QIODevice.OpenModeFlag.ReadOnly)
    document.load(buffer)
    size = document.pagePointSize(0)
    assert abs(size.width() - 148 * 72 / 25.4) < 0.1
    assert abs(size.height() - 105 * 72 / 25.4) < 0.1
    words = document.getAllText(0).text()
    for part in ("Merrow Pan 125", "Sable 1+1", "push 1", "pull 1", "Based on 3 strips"):
        assert part in words
    from vadrin.app.display.quantities import minutes_text
    from vadrin.core.exposure.arithmetic import marked_ei

    assert f"EI {marked_ei(finding.exposure_index)}" in words
    assert minutes_text(finding.time_min) in words


def test_undo_takes_back_across_stations(qtbot, open_window, tmp_path):
    window = open_window(tmp_path / "winter.vadrin")
    typist, bench = Hands(qtbot, window), window.bench
    plan(typist)
    typist.press(Qt.Key.Key_2, CTRL)
    typist.press(Qt.Key.Key_Space, times=2)
    typist.press(Qt.Key.Key_4, CTRL)
    typist.write("0,21")
    assert bench.loaded.read() == 1
    typist.press(Qt.Key.Key_Z, CTRL)
    assert bench.loaded.read() == 0
    typist.press(Qt.Key.Key_Z, CTRL, times=2)
    assert bench.loaded.exposed() == 0
    typist.press(Qt.Key.Key_Y, CTRL, times=3)
    assert (bench.loaded.exposed(), bench.loaded.read()) == (2, 1)
    typist.press(Qt.Key.Key_Z, CTRL, times=30)
    assert bench.notebook.all(Test) == bench.notebook.all(Stock) == []
    assert bench.station == "shelf"


def test_what_was_typed_is_in_the_file_at_once(qtbot, open_window, tmp_path):
    path = tmp_path / "winter.vadrin"
    window = open_window(path)
    typist = Hands(qtbot, window)
    plan(typist)
    typist.press(Qt.Key.Key_4, CTRL)
    typist.write("0.33")
    # The file is opened a second time while the window still holds it, as after a crash.
    again = Notebook(path)
    loaded = load_test(again, again.all(Test)[0].id)
    assert len(again.all(Strip)) == 3
    assert [r.density for r in again.all(Reading)] == [0.33]
    assert loaded.title == "Merrow Pan 125"
    again.close()

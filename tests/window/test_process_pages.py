"""The maker's table, the clip and the control strips, through the window by keyboard."""

from dataclasses import replace

import pytest
from PyQt6.QtCore import Qt
from PyQt6.QtGui import QGuiApplication
from PyQt6.QtTest import QTest

from tests.notebooks import new_test
from tests.window.pages import refusal_of, type_into, words_of
from vadrin.app.process.clip_judging import clip_answer_of
from vadrin.app.warnings_of_test import warnings_of
from vadrin.notebook.records import ControlStrip, Judgement, MakerTime, Process

ALT = Qt.KeyboardModifier.AltModifier


class Darkroom:
    """The Process station, turned to its pages by keys."""

    def __init__(self, window, test):
        self.window, self.book = window, window.bench.notebook
        window.bench.open_test(test.id)
        window.bench.go("process")
        window.updates.flush()
        self.station = window.station()

    def turn(self, key):
        self.station.setFocus()
        QTest.keyClick(self.station, key, ALT)
        self.window.updates.flush()

    def type(self, field, words):
        type_into(field, words)
        self.window.updates.flush()

    def press(self, button):
        button.setFocus()
        QTest.keyClick(button, Qt.Key.Key_Space)
        self.window.updates.flush()


@pytest.fixture
def darkroom(open_window, tmp_path):
    def make(kind="time", **asked):
        window = open_window(tmp_path / "winter.vadrin")
        test = new_test(window.bench.notebook, "Kelda Pan 200", "Sable", "1+1", kind=kind, **asked)
        return Darkroom(window, test)

    return make


def test_a_makers_table_is_typed_pasted_and_taken_from_a_file(darkroom, tmp_path):
    room = darkroom()
    room.turn(Qt.Key.Key_M)
    page = room.station.makers
    room.type(page.line, "+60 s on 3:30 for 1 stop")
    assert "push of 1 stop" in words_of(page)
    room.type(page.line, "soon")
    assert "no line of a maker's table" in refusal_of(room.window)
    QGuiApplication.clipboard().setText("EI;time\n800;6,5\n1600;8\n")
    room.press(page.paste)
    assert "EI 800" in words_of(page)
    table = tmp_path / "sheet.csv"
    table.write_text("stops,time_min\n1,5:00\n")
    page.take(table)
    room.window.updates.flush()
    times = {(m.stops, m.exposure_index): m.time_min for m in room.book.all(MakerTime)}
    assert times == {(0.0, None): 3.5, (1.0, None): 5.0, (None, 800.0): 6.5, (None, 1600.0): 8.0}
    table.write_text("stops,time_min\n1,later\n")
    page.take(table)
    assert "row 2" in refusal_of(room.window)
    for _ in range(3):
        room.book.undo()
    assert room.book.all(MakerTime) == []


class TestAClip:
    """A test of a clip: its answer, and no other."""

    def test_a_weak_bath_is_given_its_time(self, darkroom):
        room = darkroom("clip", times=(8.0,))
        room.turn(Qt.Key.Key_I)
        page = room.station.clip
        for key, words in (("clip", "1.31"), ("good", "1.62"), ("base", "0.24")):
            room.type(page.fields[key], words)
        room.press(page.judge)
        assert "Develop longer" in words_of(page)
        assert "instead of 8:00" in words_of(page)
        assert clip_answer_of(room.window.bench.sheet).low > 1.1
        assert "Develop longer" in words_of(room.window), "and so says the finding beside it"
        assert "one time" not in words_of(room.window).lower()
        room.book.undo()
        assert room.book.all(Judgement) == []

    def test_an_eye_says_go_and_no_number(self, darkroom):
        room = darkroom("clip", times=(8.0,))
        room.turn(Qt.Key.Key_I)
        room.type(room.station.clip.looks, "same")
        assert "Go" in words_of(room.station.clip)
        room.type(room.station.clip.looks, "clearer")
        assert "an eye tells no factor" in words_of(room.station.clip).lower()

    def test_nonsense_is_refused_and_nothing_is_kept(self, darkroom):
        room = darkroom("clip", times=(8.0,))
        room.turn(Qt.Key.Key_I)
        page = room.station.clip
        for key, words in (("clip", "dense"), ("good", "1.62"), ("base", "0.24")):
            room.type(page.fields[key], words)
        room.press(page.judge)
        assert "not a number" in refusal_of(room.window)
        assert room.book.all(Judgement) == []


def test_a_run_out_of_control_is_minded_beside_its_test(darkroom):
    room = darkroom()
    room.turn(Qt.Key.Key_T)
    page = room.station.control
    room.type(page.line, "0.22 0.48 1.31")
    assert "name it under What they got first" in refusal_of(room.window)
    with room.book.change("process"):
        made = room.book.add(Process(name="ours"))
        room.book.put(replace(room.window.bench.sheet.test, process_id=made.id))
    room.window.bench.open_test(room.window.bench.sheet.test.id)
    room.turn(Qt.Key.Key_K)
    room.press(room.station.clock.main)
    room.turn(Qt.Key.Key_T)
    for words in ("0.22 0.48 1.31 spring batch", "0.23 0.48 1.30"):
        room.type(page.line, words)
    assert "The newest strip is in control" in words_of(page)
    assert warnings_of(room.window.bench.sheet, None) == ()
    room.type(page.line, "0,24 0,58 1,52")
    assert "out of control" in page.chart.accessibleDescription()
    assert "too warm" in words_of(page)
    (warned,) = warnings_of(room.window.bench.sheet, None)
    assert "out of control" in warned.sentence
    room.type(page.line, "0.5 0.4 1.3")
    assert "rise from one to the next" in refusal_of(room.window)
    assert len(room.book.all(ControlStrip)) == 3

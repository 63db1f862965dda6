"""The maker's table, the clip and the control strips, through the window by keyboard."""

from dataclasses import replace

import pytest
from PyQt6.QtCore import Qt
from PyQt6.QtGui import QGuiApplication
from PyQt6.QtTest import QTest
from PyQt6.QtWidgets import QApplication

from tests.notebooks import new_test
from tests.window.pages import button_of, pdf_words, refusal_of, settle, type_into, words_of
from vadrin.app.document.state import State
from vadrin.app.overview.warnings_of_test import warnings_of
from vadrin.app.process.clip_judging import clip_answer, clip_answer_of
from vadrin.app.process.rules_of_thumb import type_measured
from vadrin.core.planning.plan_request import FilmUnit
from vadrin.core.planning.test_options import ControlStrips
from vadrin.notebook.records import (
    ControlStrip,
    DarkroomRun,
    Instrument,
    Judgement,
    MakerTime,
    Process,
    ProcessStep,
    Reading,
    RuleTrial,
    RunEvent,
    Stock,
    Strip,
)

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


def test_a_makers_table_is_typed_pasted_and_taken_from_a_file(qtbot, darkroom, tmp_path):
    room = darkroom()
    room.turn(Qt.Key.Key_M)
    page = room.station.makers
    room.type(page.line, "+60 s on 3:30 for 1 stop")
    assert "push of 1 stop" in words_of(page)
    room.type(page.line, "soon")
    assert "no line of a maker's table" in refusal_of(room.window)
    QGuiApplication.clipboard().setText("EI;time\n800;6,5\n1600;8\n")
    room.press(page.paste)
    qtbot.waitUntil(lambda: "EI 800" in words_of(page))
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
        assert clip_answer_of(room.window.bench.loaded).low > 1.1
        assert "Develop longer" in words_of(room.window), "and so says the finding beside it"
        assert "one time" not in words_of(room.window).lower()
        room.book.undo()
        assert room.book.all(Judgement) == []

    def test_an_eye_says_go_and_no_number(self, darkroom):
        room = darkroom("clip", times=(8.0,))
        room.turn(Qt.Key.Key_I)
        room.type(room.station.clip.looks, "same")
        assert "Go" in words_of(room.station.clip)
        assert clip_answer(room.window.bench.loaded).steps == (
            ("Develop", "8:00 min at 20 °C, as ever"),
        )
        room.type(room.station.clip.looks, "clearer")
        assert "the eye gives no factor" in words_of(room.station.clip).lower()
        assert "a rule of thumb under test (not tried yet)" in words_of(room.station.clip)
        trials = room.book.all(RuleTrial)
        assert [t.predicted_min for t in trials] == [8.0, 12.0], "sealed before the roll"
        for trial, measured in zip(trials, ("8:10", "9:00"), strict=True):
            type_measured(room.book, trial.id, measured)
        room.window.bench.open_test(room.window.bench.loaded.test.id)
        room.window.updates.flush()
        assert "1 was within 10 % and 1 within 25 %" in words_of(room.station.clip)

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
        room.book.put(replace(room.window.bench.loaded.test, process_id=made.id))
    room.window.bench.open_test(room.window.bench.loaded.test.id)
    room.turn(Qt.Key.Key_K)
    room.press(room.station.clock.main)
    room.turn(Qt.Key.Key_T)
    for words in ("0.22 0.48 1.31 spring batch", "0.23 0.48 1.30"):
        room.type(page.line, words)
    assert "The newest strip is in control" in words_of(page)
    assert warnings_of(State(room.window.bench.loaded)) == ()
    room.type(page.line, "0,24 0,58 1,52")
    assert "outside limits" in page.chart.accessibleDescription()
    assert "too warm" in words_of(page)
    (warned,) = warnings_of(State(room.window.bench.loaded))
    assert "outside its limits" in warned.sentence
    room.type(page.line, "0.5 0.4 1.3")
    assert "rise from one to the next" in refusal_of(room.window)
    assert len(room.book.all(ControlStrip)) == 3


class TestInTheDark:
    """Strips of several times, told so that it can be learnt by heart."""

    def test_one_roll_is_cut_by_gaps(self, darkroom, tmp_path):
        room = darkroom(times=(9.0, 5.0, 6.5))
        room.turn(Qt.Key.Key_D)
        page = room.station.dark
        assert page.way.text() == "cut off one by one in the dark"
        told = words_of(page)
        assert "From the tail of the roll inwards lie B, C and A." in told
        assert "5:00 cut off B, into the stop." in told
        assert "1:30 later, at 6:30 cut off C" in told
        room.press(page.write)
        _, words = pdf_words(tmp_path / "lights off Kelda Pan 200.pdf")
        assert "2:30 later, at 9:00 cut off A" in words

    def test_a_way_is_chosen_and_undone(self, darkroom):
        room = darkroom(times=(5.0, 5.0, 9.0))
        room.turn(Qt.Key.Key_D)
        page = room.station.dark
        room.type(page.way, "lifted")
        assert "5:00 lift A and B" in words_of(page)
        room.type(page.way, "tank after another")
        assert "Load all tanks before the first: C, B and A. Developing takes 19:00" in words_of(
            page
        )
        room.type(page.way, "thrown")
        assert "thrown" in refusal_of(room.window)
        room.window.bench.undo()
        room.window.bench.undo()
        room.window.updates.flush()
        assert page.way.text() == "cut off one by one in the dark"

    def test_sheets_alike_are_named_by_pairs(self, darkroom):
        room = darkroom(
            times=(6.0, 9.0),
            film_unit=FilmUnit.SHEETS,
            film_amount=40,
            first_stop=-1.0,
            last_stop=1.0,
            blanks=1,
        )
        room.turn(Qt.Key.Key_D)
        told = words_of(room.station.dark)
        assert "Sheets 1 and 5, 2 and 6, 3 and 7" in told
        assert "Tank A, 6:00: sheets 1, 2, 3 and 4." in told


def test_a_thermometer_notes_itself_into_the_run(qtbot, darkroom):
    room = darkroom(times=(8.0,))
    with room.book.change("probe"):
        room.book.add(Instrument(name="Probe", kind="thermometer", port="simulated"))
    room.turn(Qt.Key.Key_K)
    page = room.station.clock
    room.press(page.main)
    room.press(page.probe)

    def noted():
        page.tick()
        return [e.value for e in room.book.all(RunEvent) if e.what == "temperature"]

    qtbot.waitUntil(lambda: bool(noted()), timeout=10_000)
    assert noted()[0] == pytest.approx(20.6, abs=0.15)
    assert page.warmth.text() == f"{noted()[-1]:g}"
    room.press(page.probe)
    assert page.probe.text() == "Connect the thermometer"


def test_a_thermometer_that_is_not_there_is_named(darkroom):
    room = darkroom(times=(8.0,))
    room.turn(Qt.Key.Key_K)
    room.press(room.station.clock.probe)
    assert "no thermometer with a port" in words_of(room.station.clock)
    with room.book.change("probe"):
        room.book.add(Instrument(name="Probe", kind="thermometer", port="/dev/nothing-there"))
    room.press(room.station.clock.probe)
    assert "does not answer at /dev/nothing-there" in words_of(room.station.clock)


def test_two_clocks_run_at_once_and_each_is_a_press_away(darkroom):
    room = darkroom(times=(8.0,))
    room.turn(Qt.Key.Key_K)
    room.press(room.station.clock.main)
    other = new_test(room.book, "Skerry Fine 50", "Sable", "1+1", times=(12.0,))
    room.window.bench.open_test(other.id)
    room.turn(Qt.Key.Key_K)
    page = room.station.clock
    room.press(page.main)
    page.tick()
    assert len(room.book.all(DarkroomRun)) == 2
    link = button_of(page, "Kelda Pan 200: Develop 8:00")
    room.press(link)
    assert room.window.bench.loaded.title == "Kelda Pan 200"
    assert room.station.shown_page is page, "at its clock, not at what it got"


def test_steps_are_the_persons_own(darkroom):
    room = darkroom(times=(8.0,))
    room.turn(Qt.Key.Key_K)
    page = room.station.clock
    room.press(page.steps)
    assert "name the process" in words_of(page)
    with room.book.change("process"):
        made = room.book.add(Process(name="ours"))
        room.book.put(replace(room.window.bench.loaded.test, process_id=made.id))
    room.window.bench.open_test(room.window.bench.loaded.test.id)
    room.window.updates.flush()
    room.press(page.steps)
    _, stop, *_ = room.book.all(ProcessStep, process_id=made.id)
    with room.book.change("no stop, rinse for two minutes first"):
        room.book.put(replace(stop, name="Rinse", seconds=120.0, position=-1))
    room.window.updates.flush()
    room.window.bench.open_test(room.window.bench.loaded.test.id)
    room.window.updates.flush()
    room.turn(Qt.Key.Key_K)
    assert "Rinse · step 1 of 4: 2:00 left" in page.face.whole()
    assert room.book.get(Stock, room.window.bench.loaded.test.stock_id).name == "Kelda Pan 200"


def test_a_recipe_speaks_ounces_and_fahrenheit(demo):
    window = demo("Merrow Pan 125", "process")
    station = window.station()
    station.turn_to("recipe")
    page = station.recipe
    type_into(page.fields["tank"], "20 fl oz")
    assert page.room.tank_ml == pytest.approx(591.5, abs=0.1)
    QTest.keyClick(station, Qt.Key.Key_O, ALT)
    assert page.fields["tank"].text() == "20 fl oz"
    assert "10 fl oz, water to 20 fl oz" in words_of(page)
    type_into(page.fields["bath"], "73.4")
    assert page.room.bath_c == pytest.approx(23.0)
    assert "at 68.0 °F" in words_of(page)
    type_into(page.fields["bath"], "20 °C")
    assert page.room.bath_c == pytest.approx(20.0)


def test_the_processs_own_factor_is_found_and_kept(qtbot, demo):
    window = demo("Merrow Pan 125", "process")
    book, page = window.bench.notebook, window.station().got
    strips = book.all(Strip, test_id=window.bench.loaded.test.id)
    with book.change("the densest ran warmer"):
        made = book.add(Process(name="ours"))
        book.put(replace(window.bench.loaded.test, process_id=made.id))
        book.put(replace(strips[3], temperature_c=24.0, time_min=strips[3].time_min * 2.0**-0.4))
    window.bench.open_test(window.bench.loaded.test.id)
    window.updates.flush()
    page.finder.click()
    qtbot.waitUntil(page.keeper.isVisible, timeout=20_000)
    assert "× as fast for each 10 °C" in words_of(page)
    page.keeper.click()
    window.updates.flush()
    kept = book.get(Process, made.id).q10
    assert 1.6 < kept < 2.6
    assert f"development runs {kept:g} × as fast" in words_of(page)


def test_tab_goes_from_strip_to_strip_and_then_to_the_conditions(demo):
    window = demo("Merrow Pan 125", "process")
    page = window.station().got
    strips = len(window.bench.loaded.strips)
    assert QApplication.focusWidget().accessibleName() == "time of strip A"
    for _ in range(5 * strips):
        QTest.keyClick(QApplication.focusWidget(), Qt.Key.Key_Tab)
    assert QApplication.focusWidget() is page.conditions["agitation"]


def test_a_standing_tank_is_told_what_the_room_does_to_it(demo):
    window = demo("Merrow Pan 125", "process")
    station = window.station()
    station.turn_to("recipe")
    for name, words in (("bath", "20"), ("room", "16")):
        type_into(station.recipe.fields[name], words)
    assert "After 17:30 in this room the tank will be at about 18.7 °C" in words_of(station)


def test_strips_of_a_batch_answer_whether_the_process_is_where_it_was(qtbot, darkroom):
    room = darkroom("process control", times=(8.0,), options=ControlStrips(3))
    loaded = room.window.bench.loaded
    figures = {
        "A": (0.22, 0.48, 0.9, 1.31),
        "B": (0.22, 0.49, 0.9, 1.32),
        "C": (0.2, 0.4, 0.7, 0.9),
    }
    assert "No run to hold against the first yet" in words_of(room.window)
    with room.book.change("read"):
        for strip in loaded.strips:
            blank, low, middle, high = figures[strip.strip.label]
            for frame in strip.frames:
                told = {"low": low, "middle": middle, "high": high}.get(frame.frame.name, blank)
                room.book.add(Reading(frame_id=frame.frame.id, density=told))
    room.window.bench.open_test(loaded.test.id)
    room.window.bench.go("finding")
    settle(qtbot, room.window)
    said = words_of(room.window)
    assert "Outside limits" in said
    assert "Correct the process, then process another control strip." in said
    assert "strip B: in control" in said
    assert "too cold, too short, a spent or weak developer" in said

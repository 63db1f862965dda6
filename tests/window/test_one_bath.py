"""One run, one temperature: recipe, lights-off sheet, clock and what the strips got go by it."""

import math
from dataclasses import replace
from datetime import timedelta

import pytest
from PyQt6.QtCore import Qt
from PyQt6.QtWidgets import QApplication

from tests.notebooks import new_test
from tests.window.pages import Hands, field_of, type_into, words_of
from vadrin.app.process.lights_off import lights_off
from vadrin.app.process.uptime import moment_now
from vadrin.notebook.records import DarkroomRun, Instrument, RunEvent, Strip
from vadrin.notebook.store import Notebook

ALT = Qt.KeyboardModifier.AltModifier
# A bath 1.5 °C over its 20 °C develops 2.5 ** 0.15 times as fast: 6:00 are worth 5:13.8 there.
IN_THE_BATH = 6.0 / 2.5**0.15


@pytest.fixture
def darkroom(qtbot, open_window, tmp_path):
    window = open_window(tmp_path / "winter.vadrin")
    test = new_test(window.bench.notebook, "Kelda Pan 200", "Sable", "1+1", times=(6.0, 8.0))
    window.bench.open_test(test.id)
    window.bench.go("process")
    window.updates.flush()
    return Hands(qtbot, window)


def turn(hands, key):
    hands.window.station().setFocus()
    hands.press(key, ALT)


def minutes_in(words, before):
    """The first clock time after some words."""
    after = words.removeprefix(before) if not before else words.split(before, 1)[1]
    after = after.strip().split()[0].strip(".,;")
    minutes, seconds = after.split(":")
    return int(minutes) + int(seconds) / 60


def test_what_is_noted_on_the_recipe_reaches_sheet_and_clock(darkroom):
    window = darkroom.window
    turn(darkroom, Qt.Key.Key_R)
    assert "Nobody noted how warm the bath is" in words_of(window.station())
    type_into(field_of(window.station().recipe, "temperature of the bath"), "21,5")
    window.updates.flush()
    recipe = words_of(window.station())
    assert minutes_in(recipe, "Strip A: develop") == pytest.approx(IN_THE_BATH, abs=0.13)
    turn(darkroom, Qt.Key.Key_D)
    dark = words_of(window.station())
    assert "For a bath at 21.5 °C" in dark
    first = lights_off(window.bench.loaded).dark[0].split()[0]
    assert minutes_in(f"x {first}", "x") == pytest.approx(IN_THE_BATH, abs=0.13)
    turn(darkroom, Qt.Key.Key_K)
    clock = window.station().clock
    assert clock.warmth.text() == "21.5"
    assert minutes_in(clock.face.words.left, "") == pytest.approx(8.0 / 2.5**0.15, abs=0.02)
    clock.main.click()
    window.updates.flush()
    (pull,) = [m for m in clock.face.words.marks if "strip A" in m.words]
    assert pull.ahead_s / 60 == pytest.approx(IN_THE_BATH, abs=0.03)
    run = window.bench.notebook.all(DarkroomRun)[0]
    noted = [e.value for e in window.bench.notebook.all(RunEvent) if e.value is not None]
    assert (run.reference_c, noted) == (20.0, [21.5])


def test_what_is_noted_on_the_clock_reaches_the_recipe_and_the_file(darkroom, tmp_path):
    window = darkroom.window
    turn(darkroom, Qt.Key.Key_K)
    clock = window.station().clock
    assert "before the film goes in" in words_of(clock)
    type_into(clock.warmth, "19")
    window.updates.flush()
    assert "For a bath at 19 °C" in words_of(clock)
    turn(darkroom, Qt.Key.Key_R)
    recipe = window.station().recipe
    assert field_of(recipe, "temperature of the bath").text() == "19 °C"
    window.bench.undo()
    window.updates.flush()
    assert window.bench.loaded.test.bath_c is None
    window.bench.redo()
    other = Notebook(window.bench.notebook.path)
    assert other.all(type(window.bench.loaded.test))[0].bath_c == 19.0, "a crash loses none of it"
    other.close()


def test_where_nobody_noted_it_the_strips_do_not_get_twenty_degrees(darkroom, monkeypatch):
    window = darkroom.window
    turn(darkroom, Qt.Key.Key_K)
    clock = window.station().clock
    clock.main.click()
    QApplication.processEvents()
    begun = moment_now()
    later = replace(begun, wall=begun.wall + timedelta(minutes=6), uptime=begun.uptime + 360)
    for place in ("vadrin.ui.stations.process.clock_page", "vadrin.app.instruments.listening"):
        monkeypatch.setattr(f"{place}.moment_now", lambda: later)
    clock.main.click()
    window.updates.flush()
    clock.confirm()
    (got,) = [s for s in window.bench.notebook.all(Strip) if s.time_min is not None]
    assert got.label == "A"
    assert math.isclose(got.time_min, 6.0, abs_tol=0.05)
    assert got.temperature_c is None


def test_a_thermometer_tells_the_bath_before_the_film_goes_in(qtbot, darkroom):
    window = darkroom.window
    book = window.bench.notebook
    with book.change("probe"):
        book.add(Instrument(name="Probe", kind="thermometer", port="simulated"))
    turn(darkroom, Qt.Key.Key_K)
    clock = window.station().clock
    clock.probe.click()
    qtbot.waitUntil(lambda: window.bench.loaded.test.bath_c is not None, timeout=10_000)
    window.updates.flush()
    assert 20.0 < window.bench.loaded.test.bath_c < 21.5
    assert clock.warmth.text() != "—"
    clock.probe.click()


def test_a_bath_too_far_off_says_so_and_changes_no_time(darkroom):
    window = darkroom.window
    turn(darkroom, Qt.Key.Key_R)
    type_into(field_of(window.station().recipe, "temperature of the bath"), "32")
    window.updates.flush()
    said = lights_off(window.bench.loaded)
    assert "too far to correct" in said.before[0]
    assert said.dark[0].startswith("6:00")


def test_the_next_bath_is_another(darkroom):
    window = darkroom.window
    turn(darkroom, Qt.Key.Key_R)
    type_into(field_of(window.station().recipe, "temperature of the bath"), "21.5")
    turn(darkroom, Qt.Key.Key_G)
    darkroom.press(Qt.Key.Key_Return, Qt.KeyboardModifier.ControlModifier)
    window.updates.flush()
    strips = window.bench.notebook.all(Strip)
    assert [s.temperature_c for s in strips] == [21.5, 21.5]
    assert strips[0].time_min == pytest.approx(IN_THE_BATH, abs=0.01)
    assert window.bench.loaded.test.bath_c is None

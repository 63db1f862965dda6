"""What to load in a light: by keys from the shelf to the roll's own answer."""

import math
from dataclasses import replace

import pytest
from PyQt6.QtCore import Qt

from tests.window.pages import CTRL, TAB, Hands, settle, type_into, words_of
from vadrin.app.expose.wrong_setting import wrong_setting_of
from vadrin.app.findings.latest_finding import latest_finding
from vadrin.app.findings.rolls_since import rolls_since
from vadrin.app.process.development import develop_strip
from vadrin.app.shelf.film_for_light import Light, films_for_light
from vadrin.notebook.records import Batch, Test
from vadrin.ui.pictures.picture_tile import PictureTile


@pytest.fixture
def hands(qtbot, demo):
    made = Hands(qtbot, demo("Merrow Pan 125 M3", "shelf"))
    made.window.bench.go("shelf")
    return made


def films_at(book, index):
    """The films for a light, all steps taken."""
    steps = films_for_light(book, index)
    while True:
        try:
            next(steps)
        except StopIteration as end:
            return end.value


def at_light(hands, *settings):
    """Go to the page and type what the meter says and what is needed."""
    hands.press(Qt.Key.Key_T, CTRL)
    hands.settle()
    for words in settings:
        hands.write(words, TAB)
    hands.settle()
    return hands.window.station()


def test_the_light_that_is_asked_for_is_reckoned_from_exact_settings():
    light = Light(meter_s=1 / 15, meter_f=2.0, meter_ei=400.0, wanted_s=1 / 125, wanted_f=2.0)
    assert light.exposure_index == pytest.approx(400.0 * 2.0**3, rel=1e-9)
    assert light.changed(wanted_f=2.8).exposure_index == pytest.approx(6400.0, rel=1e-6)


def test_a_film_that_was_decided_on_is_loaded_and_answers_the_same_time(hands):
    station = at_light(hands, "1/15", "2", "100", "1/30", "2")
    shown = [t.exposed for t in station.findChildren(PictureTile) if t.isVisible()]
    book = hands.window.bench.notebook
    merrow = next(x for x in films_at(book, 200.0) if x.film.startswith("Merrow"))
    assert merrow.exposed in shown
    found = latest_finding(book, merrow.state.loaded.test)
    stops = math.log2(200.0 / found.exposure_index)
    assert merrow.stops == pytest.approx(stops, abs=1 / 6 + 1e-6)
    assert "9 rolls left" in words_of(station)
    before = len(book.all(Test))
    hands.window.station()._load(merrow)
    hands.settle()
    assert len(book.all(Test)) == before + 1
    rolled = wrong_setting_of(book, hands.window.bench.loaded.test)
    assert rolled.minutes == pytest.approx(merrow.exposed.minutes, rel=1e-9)
    assert hands.window.bench.loaded.test.exposure_index == 200.0
    hands.press(Qt.Key.Key_Z, CTRL)
    assert len(book.all(Test)) == before


def test_what_was_not_tested_so_far_or_is_used_up_is_not_offered(hands):
    station = at_light(hands, "1/15", "2", "400", "1/125")
    assert "EI 3200" in words_of(station)
    assert "None of the" in words_of(station)
    assert "was not tested: this film was tested up to push 2" in words_of(station)
    assert not [t for t in station.findChildren(PictureTile) if t.isVisible()]
    book = hands.window.bench.notebook
    batch = next(b for b in book.all(Batch) if b.name == "M3")
    with book.change("the last roll is gone"):
        book.put(replace(batch, rolls_left=0))
    assert "Merrow Pan 125 M3" not in [x.film for x in films_at(book, 200.0)]


def test_a_setting_no_film_is_meant_by_is_refused(hands):
    station = at_light(hands)
    hands.write("1/8000")
    hands.settle()
    assert "no film is meant by it" in words_of(station)
    assert station.light == Light()


def test_a_roll_that_was_loaded_is_judged_and_scores_the_finding(hands):
    at_light(hands, "1/15", "2", "100", "1/30", "2")
    book, bench = hands.window.bench.notebook, hands.window.bench
    merrow = next(x for x in films_at(book, 200.0) if x.film.startswith("Merrow"))
    hands.window.station()._load(merrow)
    hands.settle()
    roll = bench.loaded
    strip = roll.strips[0].strip
    bench.edit(lambda b: develop_strip(b, strip, strip.planned_min or 9.0, None))
    hands.settle()
    assert "Was it right?" in words_of(hands.window)
    hands.press(Qt.Key.Key_4, CTRL)
    hands.press(Qt.Key.Key_J, Qt.KeyboardModifier.AltModifier)
    for frame, key in zip(bench.loaded.strips[0].frames, "UUNU", strict=False):
        bench.select(frame.frame.id)
        hands.settle()
        hands.press(getattr(Qt.Key, f"Key_{key}"))
    hands.settle()
    assert "3 of 4 frames usable" in words_of(hands.window)
    again = next(x for x in films_at(book, 200.0) if x.film.startswith("Merrow"))
    assert again.left.endswith("1 of 1 roll shot by it came out right")
    for frame in bench.loaded.strips[0].frames[:4]:
        bench.select(frame.frame.id)
        hands.settle()
        hands.press(Qt.Key.Key_N)
    hands.settle()
    assert rolls_since(book, merrow.state.loaded.test).words.startswith("0 of 1 roll")


def test_films_for_a_light_are_seen_in_the_scene_that_was_chosen(hands):
    station = at_light(hands, "1/15", "2", "100", "1/30", "2")
    shed = [t._image.copy() for t in station.findChildren(PictureTile) if t.isVisible()]
    type_into(station._place, "slip")
    settle(hands.qtbot, hands.window)
    slip = [t._image for t in station.findChildren(PictureTile) if t.isVisible()]
    assert len(slip) == len(shed) > 0
    assert all(a != b for a, b in zip(shed, slip, strict=True))

"""A time that was planned and that nobody noted is never called what the film got."""

import json
from dataclasses import replace

import pytest
from PyQt6.QtCore import Qt
from PyQt6.QtWidgets import QApplication

from oracles.closed_form import ClosedForm
from tests.notebooks import new_test
from tests.window.pages import CTRL, ENTER, Hands, field_of, type_into, words_of
from vadrin.app.decisions.darkroom_card import card_of
from vadrin.app.decisions.decision import write_answer
from vadrin.app.process.bath import note_bath
from vadrin.app.process.development import type_temperature, type_time
from vadrin.app.read.entering_readings import add_reading
from vadrin.app.results.conditions import conditions_report
from vadrin.core.origin import Origin
from vadrin.notebook.records import Batch, Bottle, Finding, Strip

FILM = ClosedForm()
TRULY = 9.0
"""Minutes the film really got; planned were 8."""


@pytest.fixture
def read(qtbot, open_window, tmp_path):
    """A speed test that was read while Process was left empty."""
    window = open_window(tmp_path / "winter.vadrin")
    book = window.bench.notebook
    test = new_test(book, "Kelda Pan 200", "Sable", "1+1", kind="speed", times=(8.0,))
    window.bench.open_test(test.id)
    loaded = window.bench.loaded
    with book.change("read"):
        for _, frame in loaded.frames():
            density = FILM.density(frame.log_h(loaded.test.meter_constant), TRULY)
            add_reading(book, frame, round(density, 3))
    window.bench.refresh()
    hands = Hands(qtbot, window)
    window.bench.go("finding")
    hands.settle()
    return hands


def test_the_finding_asks_for_it_and_card_record_and_file_are_marked(read, tmp_path):
    window, book = read.window, read.window.bench.notebook
    said = words_of(window)
    assert "Nobody noted how long strip A was developed" in said
    assert "as developed, at" not in said
    read.press(Qt.Key.Key_D, CTRL)
    (finding,) = book.all(Finding)
    assert json.loads(finding.report)["strips"]["A"]["time_from"] == "planned"
    card = card_of(window.bench.state)
    assert "time of strip A planned, not noted" in card.basis
    assert "tested" not in card.basis
    assert any("only what was planned" in w for w in card.diagnostics)
    write_answer(tmp_path / "answer.json", window.bench.state)
    told = json.loads((tmp_path / "answer.json").read_text())
    assert told["strips"]["A"]["time_from"] == "planned"


def test_once_it_is_noted_nothing_is_asked_and_the_decision_says_what_changed(read):
    window, book = read.window, read.window.bench.notebook
    read.press(Qt.Key.Key_D, CTRL)
    strip = book.all(Strip)[0]
    window.bench.edit(lambda b: type_time(b, strip.id, "9:00"))
    read.settle()
    said = words_of(window)
    assert "Nobody noted how long" not in words_of(window.station())
    assert "strip A's time went from 8:00 min to 9:00 min" in said, "it stood on another"
    card = card_of(window.bench.state)
    assert "planned, not noted" in card.basis, "it stays the card that was decided"
    read.press(Qt.Key.Key_D, CTRL)
    fresh = card_of(window.bench.state)
    assert "9:00 min tested" in fresh.basis
    assert fresh.diagnostics == ()


def test_typing_the_time_at_process_is_what_it_takes_and_brings_no_temperature(read):
    window = read.window
    window.bench.go("process")
    read.settle()
    type_into(field_of(window.station(), "time of strip A"), "9")
    read.settle()
    assert window.bench.loaded.only_planned() == ()
    assert window.bench.state.question.strips[0].time_min == 9.0
    strip = window.bench.loaded.strips[0].strip
    assert strip.temperature_c is None, "nobody said how warm it was"
    type_into(field_of(window.station(), "temperature of strip A"), "20,5")
    read.settle()
    strip = window.bench.loaded.strips[0].strip
    assert (strip.time_min, strip.temperature_c) == (9.0, 20.5)
    type_into(field_of(window.station(), "time of strip A"), "")
    read.settle()
    strip = window.bench.loaded.strips[0].strip
    assert (strip.time_min, strip.time_from) == (None, Origin.UNKNOWN), "nor is the plan a time"


def test_the_bath_noted_before_is_that_of_strips_typed_by_hand_and_of_no_later_run(read):
    window = read.window
    window.bench.edit(lambda b: note_bath(b, window.bench.loaded, 21.5, Origin.MEASURED))
    strip = window.bench.loaded.strips[0].strip
    window.bench.edit(lambda b: type_time(b, strip.id, "7"))
    window.bench.refresh()
    strip = window.bench.loaded.strips[0].strip
    assert (strip.temperature_c, strip.temperature_from) == (21.5, Origin.MEASURED)
    assert window.bench.loaded.test.bath_c is None


def conditions(window):
    """What the record would say of each condition: its value, and where that comes from."""
    told = conditions_report(window.bench.loaded)
    return {c["key"]: (c["value"], c["from"]) for c in told}


def test_every_condition_says_where_it_comes_from(read):
    """Written down first: planned 8:00, agitation by the plan, nothing else was said."""
    window, book = read.window, read.window.bench.notebook
    before = conditions(window)
    assert before["time"] == ("8:00 min", "planned")
    assert before["temperature"] == ("20 °C", "assumed")
    assert before["meter"] == ("constant 8.125", "assumed")
    assert [before[k] for k in ("batch", "developer_age", "light")] == [(None, None)] * 3
    strip = window.bench.loaded.strips[0].strip
    window.bench.edit(lambda b: type_time(b, strip.id, "9:00"))
    window.bench.edit(lambda b: type_temperature(b, strip.id, "21"))
    stock = window.bench.loaded.stock
    with book.change("what was used"):
        batch = book.add(Batch(stock_id=stock.id, name="K7"))
        bottle = book.add(
            Bottle(
                developer_id=window.bench.loaded.developer.id,
                mixed_at="2026-11-02T09:00:00+00:00",
                films_done=3,
            )
        )
        test = window.bench.loaded.test
        book.put(replace(test, batch_id=batch.id, bottle_id=bottle.id, light="overcast"))
    window.bench.refresh()
    read.settle()
    after = conditions(window)
    assert after["time"] == ("9:00 min", "told")
    assert after["temperature"] == ("21 °C", "told")
    assert after["batch"] == ("K7", "told")
    assert after["light"] == ("overcast", "told")
    assert after["developer_age"][0].endswith("3 films done")
    assert "Nobody noted: " not in words_of(window.station()).replace("Nobody noted: agitation", "")


def test_the_card_says_what_is_assumed_and_what_nobody_noted(read):
    window = read.window
    card = card_of(window.bench.state)
    assert "Assumed, not noted: 20 °C and light meter constant 8.125." in card.basis
    assert "batch" in card.basis.split("Not noted: ")[1]
    read.press(Qt.Key.Key_D, CTRL)
    (finding,) = window.bench.notebook.all(Finding)
    kept = json.loads(finding.report)
    assert {c["key"]: c["from"] for c in kept["conditions"]}["temperature"] == "assumed"
    assert kept["strips"]["A"]["temperature_from"] == "assumed"


def test_a_key_says_where_the_numbers_come_from(qtbot, demo):
    window = demo("Merrow Pan 125", "finding")
    hands = Hands(qtbot, window)
    hands.press(Qt.Key.Key_F3)
    said = words_of(window.banner)
    assert "EI 80, 7:35 min: where it comes from" in said
    assert "EI found from 5 strips, 125 frames, read 2026-10-27" in said
    assert "Temperature of D: 20.6 °C, measured." in said
    hands.press(ENTER)
    assert not window.banner.isVisible()
    assert window.isAncestorOf(QApplication.focusWidget()), "the keyboard is given back"
    planned = demo("Kelda Pan 200", "plan")
    Hands(qtbot, planned).press(Qt.Key.Key_F3)
    assert "No number rests on anything yet" in words_of(planned.banner)

"""A time that was planned and that nobody noted is never called what the film got."""

import json

import pytest
from PyQt6.QtCore import Qt

from oracles.closed_form import ClosedForm
from tests.notebooks import new_test
from tests.window.pages import CTRL, Hands, type_into, words_of
from vadrin.app.decisions.darkroom_card import card_of
from vadrin.app.decisions.decision import write_answer
from vadrin.app.process.development import type_time
from vadrin.app.read.entering_readings import add_reading
from vadrin.notebook.records import Finding, Strip

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
    sheet = window.bench.sheet
    with book.change("read"):
        for _, frame in sheet.frames():
            density = FILM.density(frame.log_h(sheet.test.meter_constant), TRULY)
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
    assert "as it was developed" not in said
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
    assert "Nobody noted" not in words_of(window.finding)
    assert "strip A's time went from 8:00 min to 9:00 min" in said, "it stood on another"
    card = card_of(window.bench.state)
    assert "planned, not noted" in card.basis, "it stays the card that was decided"
    read.press(Qt.Key.Key_D, CTRL)
    fresh = card_of(window.bench.state)
    assert "9:00 min tested" in fresh.basis
    assert fresh.diagnostics == ()


def test_typing_the_time_at_process_is_what_it_takes(read):
    window = read.window
    window.bench.go("process")
    read.settle()
    row = next(iter(window.station().got._rows.values()))
    type_into(row[0], "9")
    read.settle()
    assert window.bench.sheet.only_planned() == ()
    assert window.bench.state.question.strips[0].time_min == 9.0

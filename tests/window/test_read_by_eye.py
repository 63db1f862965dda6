"""Reading without a densitometer, through the window by keyboard."""

import json

import pytest
from PyQt6.QtCore import Qt
from PyQt6.QtTest import QTest

from tests.notebooks import new_test
from tests.window.pages import refusal_of, settle, type_into, words_of
from vadrin.app.expose.exposing import mark_frame
from vadrin.app.process.development import develop_as_planned
from vadrin.app.progress import steps_of
from vadrin.app.read.export_readings import write_sheet_readings
from vadrin.app.read.import_readings import import_table
from vadrin.app.results.darkroom_card import card_of
from vadrin.app.results.light_box_ei import light_box_answer
from vadrin.app.sheet_loading import load_sheet
from vadrin.core.frames import FrameState
from vadrin.formats.readings.any_file import read_readings
from vadrin.notebook.records import Finding, Judgement, Reading

ALT = Qt.KeyboardModifier.AltModifier


@pytest.fixture
def reading(qtbot, open_window, tmp_path):
    """A strip that was exposed and developed, at Read."""
    window = open_window(tmp_path / "winter.vadrin")
    book = window.bench.notebook
    test = new_test(book, "Kelda Pan 200", "Sable", "1+1", kind="speed", times=(8.0,), step=1.0)
    sheet = load_sheet(book, test.id)
    with book.change("shot"):
        for _, frame in sheet.frames():
            mark_frame(book, frame.frame, FrameState.EXPOSED)
        develop_as_planned(book, sheet)
    window.bench.open_test(test.id)
    window.bench.go("read")
    settle(qtbot, window)
    return window


def turn(window, key):
    window.station().setFocus()
    QTest.keyClick(window.station(), key, ALT)
    window.updates.flush()


def press(window, key):
    QTest.keyClick(window.station(), key)
    window.updates.flush()


def look(window, first_told):
    """Answer as an eye that tells every frame from so many stops on; gives the frames asked."""
    asked = []
    page = window.station().light_box
    while page._question.frame is not None:
        frame = page._question.frame
        asked.append(frame.number)
        assert window.bench.frame_id == frame.frame.id, "it is marked on the light table"
        told = not frame.frame.blank and frame.frame.stops >= first_told
        press(window, Qt.Key.Key_Y if told else Qt.Key.Key_N)
    return asked


class TestALightBoxAlone:
    """A test is finished with a light box and nothing else."""

    def test_it_ends_in_an_ei_a_decision_and_a_card(self, qtbot, reading):
        turn(reading, Qt.Key.Key_B)
        asked = look(reading, -4.0)
        assert len(asked) <= 6
        settle(qtbot, reading)
        said = words_of(reading)
        assert "by eye on the light box" in said
        _, index = light_box_answer(reading.bench.sheet)
        # First told at −4, not at −5: the shadow point lies between −4½ and −3, about.
        assert index.low < 200 * 2**0 < index.high * 2
        steps = steps_of(reading.bench.sheet, reading.bench.analysis)
        assert steps["read"].words == f"{len(asked)} looks by eye"
        card = card_of(reading.bench.sheet, reading.bench.analysis)
        assert "no density was read" in card.basis
        reading.bench.go("finding")
        settle(qtbot, reading)
        assert "not how steep it is" in words_of(reading.station())
        QTest.keyClick(reading.station(), Qt.Key.Key_D, Qt.KeyboardModifier.ControlModifier)
        reading.updates.flush()
        (finding,) = reading.bench.notebook.all(Finding)
        kept = json.loads(finding.report)["light_box_zone_ei"]["A"]
        assert kept["low"] < finding.exposure_index < kept["high"]
        assert finding.target_kind == "by eye"

    def test_answers_are_undone_one_by_one_and_begun_again(self, reading):
        turn(reading, Qt.Key.Key_B)
        press(reading, Qt.Key.Key_Y)
        press(reading, Qt.Key.Key_T)
        book = reading.bench.notebook
        assert [j.answer for j in book.all(Judgement)] == ["yes", "can't tell"]
        reading.bench.undo()
        assert len(book.all(Judgement)) == 1
        reading.updates.flush()
        reading.station().light_box.again.click()
        assert book.all(Judgement) == []
        reading.bench.undo()
        assert len(book.all(Judgement)) == 1

    def test_it_stands_beside_the_densities_and_says_how_far_apart(self, qtbot, reading):
        turn(reading, Qt.Key.Key_B)
        look(reading, -4.0)
        turn(reading, Qt.Key.Key_D)
        field = reading.station().field
        for density in ("0.20", "0.20", "0.20", "0.21", "0.25", "0.37", "0.58", "0.80", "1.04"):
            field.setFocus()
            QTest.keyClicks(field, density)
            QTest.keyClick(field, Qt.Key.Key_Return)
            reading.updates.flush()
        settle(qtbot, reading)
        assert "On the light box EI" in words_of(reading)


def test_a_step_of_a_wedge_is_a_reading_with_its_width(reading):
    field = reading.station().field
    type_into(field, "0.20-0.35")
    reading.updates.flush()
    (read,) = reading.bench.notebook.all(Reading)
    assert (read.low, read.high, read.way) == (0.20, 0.35, "wedge")
    assert read.density == pytest.approx(0.275)
    QTest.keyClick(reading, Qt.Key.Key_Up)
    type_into(field, "0.2-2.5")
    assert "two steps of a wedge" in refusal_of(reading)


def test_verdicts_are_a_key_each_and_counted_with_their_range(reading):
    turn(reading, Qt.Key.Key_J)
    page = reading.station().verdicts
    for key in (Qt.Key.Key_3, Qt.Key.Key_6, Qt.Key.Key_U):
        press(reading, key)
    said = words_of(page)
    for words in ("thin", "right", "use it", "1 of 1 frame can be used"):
        assert words in said
    press(reading, Qt.Key.Key_Down)
    press(reading, Qt.Key.Key_S)
    assert "1 of 2 frames can be used" in words_of(page)
    press(reading, Qt.Key.Key_S)
    assert "1 of 1 frame can be used" in words_of(page), "the same again takes it away"
    reading.bench.undo()
    reading.bench.undo()
    assert len(reading.bench.notebook.all(Judgement)) == 3


def test_a_fault_has_its_place_its_cause_and_one_thing_to_change(reading):
    turn(reading, Qt.Key.Key_J)
    page = reading.station().verdicts
    type_into(page.fault, "drag upper edge")
    reading.updates.flush()
    said = words_of(page)
    assert "Drag from the perforations (upper edge): usually" in said
    assert "Try first: agitate" in said
    assert "drag from the perforations (upper edge)" in words_of(reading).lower()
    type_into(page.fault, "elephants")
    assert "no fault is called" in refusal_of(reading)
    type_into(page.fault, "none")
    assert reading.bench.notebook.all(Judgement) == []


@pytest.mark.parametrize("suffix", [".csv", ".xlsx", ".cgats", ".json"])
def test_steps_of_a_wedge_go_out_and_come_back_in(reading, tmp_path, suffix):
    field = reading.station().field
    for words in ("0.20-0.35", "0.35-0.50", "0,21"):
        type_into(field, words)
        reading.updates.flush()
    sheet, path = reading.bench.sheet, tmp_path / f"readings{suffix}"
    write_sheet_readings(sheet, path)
    table = read_readings(path)
    assert sorted(r.own_deviation > 0.04 for r in table.rows) == [False, True, True]
    book = reading.bench.notebook
    again = import_table(book, table)
    came = [r for _, f in load_sheet(book, again.id).frames() for r in f.readings]
    steps = sorted((r.low or 0, r.high or 0, r.density) for r in came)
    assert steps == [(0, 0, 0.21), (0.2, 0.35, pytest.approx(0.275)), (0.35, 0.5, 0.425)]
    assert not any(r.extra for r in came)

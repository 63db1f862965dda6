"""Reading without a densitometer, through the window by keyboard."""

import json
from random import Random

import pytest
from PyQt6.QtCore import Qt
from PyQt6.QtTest import QTest

from oracles.film_shapes import SHAPES
from tests.notebooks import developed_test
from tests.states import state_of
from tests.window.pages import refusal_of, settle, type_into, words_of
from vadrin.app.decisions.darkroom_card import card_of
from vadrin.app.display.spoken_frame import spoken_frame as spoken
from vadrin.app.document.analysis_input import readings_of
from vadrin.app.document.test_loading import load_test
from vadrin.app.loaded.light_boxes import eye_answers
from vadrin.app.overview.progress import steps_of
from vadrin.app.read.export_readings import write_test_readings
from vadrin.app.read.import_readings import import_table
from vadrin.app.results.light_box_ei import light_box_answer
from vadrin.app.scans.step_wedge import StepWedge, keep_steps
from vadrin.core.results.analysis import analyse
from vadrin.formats.readings.any_file import read_readings
from vadrin.notebook.records import Finding, Judgement, Reading

ALT = Qt.KeyboardModifier.AltModifier


@pytest.fixture
def reading(qtbot, open_window, tmp_path):
    """A strip that was exposed and developed, at Read."""
    window = open_window(tmp_path / "winter.vadrin")
    book = window.bench.notebook
    test = developed_test(book, "Kelda Pan 200", kind="speed", times=(8.0,), step=1.0)
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
        assert len(asked) <= 8
        settle(qtbot, reading)
        reading.bench.go("curves")
        settle(qtbot, reading)
        said = words_of(reading)
        assert "by eye on the light box" in said
        _, index = light_box_answer(reading.bench.loaded)
        # First told at −4, not at −5: the shadow point lies between −4½ and −3, about.
        assert index.low < 200 * 2**0 < index.high * 2
        steps = steps_of(state_of(reading.bench.loaded, reading.bench.analysis))
        assert steps["read"].words == f"{len(asked)} looks by eye"
        card = card_of(state_of(reading.bench.loaded, reading.bench.analysis))
        assert "no density was read" in card.basis
        reading.bench.go("finding")
        settle(qtbot, reading)
        assert "not the contrast" in words_of(reading.station())
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


def test_an_answer_against_the_others_is_named(reading):
    """One key too fast in the fourth look: two more looks are asked for, and the frame is named."""
    turn(reading, Qt.Key.Key_B)
    page, looked, words = reading.station().light_box, [], []
    while page._question.frame is not None:
        frame = page._question.frame
        told = not frame.frame.blank and frame.frame.stops >= -4.0
        looked.append(frame.number)
        inverted = len(looked) == 4
        press(reading, Qt.Key.Key_Y if told != inverted else Qt.Key.Key_N)
        words.append(words_of(page))
    assert len(looked) <= 8
    assert "This look confirms one side" in " ".join(words)
    assert f"contradict each other: look at frame {looked[3]} again" in words[-1]


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
    for words in ("thin", "right", "usable", "1 of 1 frame can be used"):
        assert words in said
    press(reading, Qt.Key.Key_Down)
    press(reading, Qt.Key.Key_S)
    assert "1 of 2 frames can be used" in words_of(page)
    press(reading, Qt.Key.Key_S)
    assert "1 of 1 frame can be used" in words_of(page), "the same again takes it away"
    press(reading, Qt.Key.Key_D)
    assert "1 of 2 frames can be used" in words_of(page), "too dense is no use either"
    reading.bench.undo()
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
    loaded, path = reading.bench.loaded, tmp_path / f"readings{suffix}"
    write_test_readings(loaded, path)
    table = read_readings(path)
    assert sorted(r.own_deviation > 0.04 for r in table.rows) == [False, True, True]
    book = reading.bench.notebook
    again = import_table(book, table)
    came = [r for _, f in load_test(book, again.id).frames() for r in f.readings]
    steps = sorted((r.low or 0, r.high or 0, r.density) for r in came)
    assert steps == [(0, 0, 0.21), (0.2, 0.35, pytest.approx(0.275)), (0.35, 0.5, 0.425)]
    assert not any(r.extra for r in came)


def test_the_arrows_step_along_the_wedge_and_enter_takes_the_pair(reading):
    reading.bench.edit(lambda book: keep_steps(book, StepWedge((0.05, 0.2, 0.35, 0.5, 0.65))))
    turn(reading, Qt.Key.Key_D)
    page = reading.station().densities
    assert page.steps.isVisibleTo(page)
    frame = reading.bench.frame_id
    for _ in range(2):
        QTest.keyClick(page.field, Qt.Key.Key_Right)
    assert page.field.text() == "0.35-0.50"
    QTest.keyClick(page.field, Qt.Key.Key_Left)
    assert "between step 2 and 3" in page.steps.accessibleDescription()
    QTest.keyClick(page.field, Qt.Key.Key_Return)
    reading.updates.flush()
    (read,) = (r for r in reading.bench.notebook.all(Reading) if r.frame_id == frame)
    assert (read.low, read.high, read.way) == (0.2, 0.35, "wedge")
    assert reading.bench.frame_id != frame


def test_an_eye_of_ones_own_and_a_change_of_looking_count_from_then_on(reading):
    turn(reading, Qt.Key.Key_B)
    page = reading.station().light_box
    press(reading, Qt.Key.Key_Y)
    type_into(page.eye, "0.5")
    assert "0.01 and 0.3" in refusal_of(reading)
    type_into(page.eye, "0,08")
    press(reading, Qt.Key.Key_N)
    type_into(page.way, "with a loupe, apart")
    press(reading, Qt.Key.Key_N)
    judged = sorted(reading.bench.notebook.all(Judgement), key=lambda j: j.id)
    assert [j.reference for j in judged] == [None, 0.08, 0.08]
    strip = reading.bench.loaded.strips[0]
    thresholds = [a.threshold[0] for a in eye_answers(reading.bench.loaded, strip)]
    assert thresholds == [0.045, 0.08, 0.08]


def test_verdicts_show_as_shapes_and_are_spoken(reading):
    turn(reading, Qt.Key.Key_J)
    loaded = reading.bench.loaded
    pictures = {}
    for key in (Qt.Key.Key_U, Qt.Key.Key_S, Qt.Key.Key_N, Qt.Key.Key_D):
        reading.bench.select(loaded.strips[0].frames[5].frame.id)
        press(reading, key)
        strip = reading.bench.loaded.strips[0]
        said = spoken(strip, strip.frames[5]).rpartition(", ")[2]
        box = reading.table.frame_box(strip.frames[5].frame.id).toRect()
        pictures[said] = reading.table.grab(box).toImage()
    assert list(pictures) == ["usable", "salvageable", "unusable", "too dense"]
    assert len({bytes(p.bits().asarray(p.sizeInBytes())) for p in pictures.values()}) == 4


def test_the_light_box_counts_beside_a_curve_read_coarsely(qtbot, reading):
    book, loaded = reading.bench.notebook, reading.bench.loaded
    shape = SHAPES["plain"]
    with book.change("read by a wedge"):
        for _, frame in loaded.frames():
            x = frame.log_h(loaded.test.meter_constant)
            dense = shape.density(x, 8.0)
            low = 0.15 * int(dense / 0.15)
            book.add(
                Reading(
                    frame_id=frame.frame.id,
                    density=low + 0.075,
                    low=low,
                    high=low + 0.15,
                    way="wedge",
                )
            )
    reading.bench.open_test(loaded.test.id)
    turn(reading, Qt.Key.Key_B)
    before = analyse(readings_of(reading.bench.loaded)).strips[0].zone_ei
    at = shape.x_m(8.0)
    stops = [
        f.frame.stops
        for _, f in loaded.frames()
        if not f.frame.blank and f.log_h(loaded.test.meter_constant) > at - 0.3
    ]
    look(reading, min(stops))
    rows = readings_of(reading.bench.loaded)[0].readings
    assert rows[-1].frame == "light box"
    analysis = analyse(readings_of(reading.bench.loaded))
    assert not [d for d in analysis.diagnostics if "light box" in d.frames]
    after = analysis.strips[0].zone_ei
    true = 8.125 / 16 / 10**at
    assert after.value != before.value
    for figure in (before, after):
        assert figure.low < true < figure.high


class TestSideBySide:
    """Two strips laid beside each other, openly and blind."""

    @pytest.fixture
    def pair(self, demo):
        window = demo("Merrow Pan 125", "read")
        turn(window, Qt.Key.Key_P)
        return window, window.station().paired

    def test_answers_are_counted_and_chance_is_told(self, pair):
        window, page = pair
        for key in "4445":
            press(window, getattr(Qt.Key, f"Key_{key}"))
        assert "no difference seen yet" in words_of(page)
        assert {j.strip_id for j in window.bench.notebook.all(Judgement)} == {
            s.strip.id for s in window.bench.loaded.strips[1:]
        }
        for _ in range(5):
            for _ in range(4):
                press(window, Qt.Key.Key_5)
        assert "Strip B, grain: more than the reference (6 more, 0 same, 0 less" in words_of(page)
        window.bench.undo()
        assert len(window.bench.notebook.all(Judgement)) == 23

    def test_a_blind_round_hides_which_is_which_and_counts_rightly(self, pair):
        window, page = pair
        page.chance = Random(5)
        page.blind.click()
        turned = {p.other.strip.label: p.turned for p in page._pairs}
        assert set(turned.values()) == {True, False}
        for _ in range(4):
            assert "Q beside P" in words_of(page)
            assert "strip" not in words_of(page).lower().split("sealed")[0].split("asked")[1]
            press(window, Qt.Key.Key_1)
        assert "Sealed" not in words_of(page)
        labels = {s.strip.id: s.strip.label for s in window.bench.loaded.strips}
        for judged in window.bench.notebook.all(Judgement):
            assert judged.answer == ("more" if turned[labels[judged.strip_id]] else "less")
            assert json.loads(judged.detail)["blind"]

    def test_what_is_asked_is_chosen_and_one_strip_is_no_pair(self, pair, reading):
        window, page = pair
        type_into(page.quality, "sharpness")
        press(window, Qt.Key.Key_3)
        assert "sharpness: no difference" in words_of(page)
        type_into(page.quality, "beauty")
        assert "sharpness" in refusal_of(window)
        turn(reading, Qt.Key.Key_P)
        assert "nothing to lay beside it" in words_of(reading.station())


def test_channels_are_typed_kept_and_worked_out_apart(qtbot, reading):
    turn(reading, Qt.Key.Key_D)
    page = reading.station().densities
    loaded, shape = reading.bench.loaded, SHAPES["plain"]
    for _, frame in loaded.frames():
        reading.bench.select(frame.frame.id)
        x = frame.log_h(loaded.test.meter_constant)
        dense = shape.density(x, 8.0)
        for words in (f"{dense:.3f}", f"{0.1 + 1.3 * dense:.3f} blue"):
            reading.bench.select(frame.frame.id)
            type_into(page.field, words)
    settle(qtbot, reading)
    reading.bench.go("finding")
    settle(qtbot, reading)
    field = reading.station().asked.channel
    assert field.text() == "visual"
    visual = reading.bench.analysis.strips[0]
    type_into(field, "blue")
    settle(qtbot, reading)
    blue = reading.bench.analysis.strips[0]
    assert (visual.channel, blue.channel) == ("visual", "blue")
    assert blue.average_gradient.value > 1.15 * visual.average_gradient.value
    type_into(field, "green")
    assert "blue" in refusal_of(reading)

"""What is typed is kept or refused aloud, undone where it was typed, and seen again."""

from dataclasses import replace
from pathlib import Path

import pytest
from PyQt6.QtCore import QPoint, Qt
from PyQt6.QtGui import QImage
from PyQt6.QtTest import QTest
from PyQt6.QtWidgets import QApplication

from tests.window.pages import (
    CTRL,
    DOWN,
    ENTER,
    ESCAPE,
    SPACE,
    TAB,
    UP,
    Hands,
    PlanPage,
    field_of,
    said_by,
    settle,
    type_into,
    words_of,
)
from vadrin.app.document.workbench import Topic
from vadrin.app.expose.exposing import mark_frame, write_note
from vadrin.app.read.export_readings import attach
from vadrin.core.frames import FrameState
from vadrin.notebook.records import Exposure, Reading


def centre(window, frame):
    box = window.table.frame_box(frame.frame.id)
    return QPoint(round(box.center().x()), round(box.center().y()))


def test_read_begins_at_the_first_frame_whatever_was_taken_last(qtbot, demo):
    window = demo("Kelda Pan 200", "expose")
    hands = Hands(qtbot, window)
    hands.press(SPACE, times=len(window.bench.loaded.frames()))
    assert "All frames are taken" in words_of(window.station())
    hands.press(Qt.Key.Key_3, CTRL)
    hands.press(ENTER, CTRL)
    hands.press(Qt.Key.Key_4, CTRL)
    hands.write("0.22")
    (reading,) = window.bench.notebook.all(
        Reading, frame_id=window.bench.loaded.strips[0].frames[0].frame.id
    )
    assert reading.density == 0.22
    assert window.bench.selected()[1].number == "2"


def test_pointing_at_film_leaves_the_keyboard_where_one_types(qtbot, demo):
    window = demo("Brannock 400 B7", "read")
    station = window.station()
    frame = window.bench.loaded.strips[2].frames[5]
    assert station.field.hasFocus()
    qtbot.mouseClick(window.table, Qt.MouseButton.LeftButton, pos=centre(window, frame))
    assert window.bench.frame_id == frame.frame.id
    assert station.field.hasFocus()
    Hands(qtbot, window).write("0.41")
    (reading,) = window.bench.notebook.all(Reading, frame_id=frame.frame.id)
    assert reading.density == 0.41


def test_digits_typed_anywhere_in_read_go_to_the_density(qtbot, demo):
    window = demo("Brannock 400 B7", "read")
    for typed in ("0.57", "0,57", ".57"):
        frame = window.bench.selected()[1]
        window.table.setFocus()
        Hands(qtbot, window).write(typed)
        (reading,) = window.bench.notebook.all(Reading, frame_id=frame.frame.id)
        assert reading.density == pytest.approx(0.57)


def test_a_density_on_a_frame_that_holds_nothing_is_refused_aloud(qtbot, demo):
    window = demo("Brannock 400 B7", "read")
    bench = window.bench
    frame = bench.loaded.strips[2].frames[4].frame
    bench.edit(lambda book: mark_frame(book, frame, FrameState.SKIPPED))
    bench.select(frame.id)
    QApplication.processEvents()
    before = bench.notebook.count(Reading)
    Hands(qtbot, window).write("0.44")
    assert bench.notebook.count(Reading) == before
    assert "holds nothing to read" in window.station().refusal.text()
    assert window.station().field.text() == "0.44"


def test_an_undone_reading_is_typed_anew_in_its_own_place(qtbot, demo):
    window = demo("Brannock 400 B7", "read")
    hands, first = Hands(qtbot, window), window.bench.frame_id
    hands.write("0.51")
    second = window.bench.frame_id
    hands.write("0.62")
    assert second != first
    hands.press(Qt.Key.Key_Z, CTRL)
    assert window.bench.frame_id == second
    hands.press(Qt.Key.Key_Z, CTRL)
    assert window.bench.frame_id == first
    hands.write("0.52")
    hands.write("0.63")
    book = window.bench.notebook
    typed = [book.all(Reading, frame_id=i)[0].density for i in (first, second)]
    assert typed == [0.52, 0.63]


def test_a_refused_word_stands_beside_what_is_in_force_and_goes_with_the_next_key(qtbot, demo):
    window = demo("Kelda Pan 200", "plan")
    plan = PlanPage(qtbot, window)
    field = plan.station.fields["last"]
    in_force = field.text()
    field.setFocus()
    hands = Hands(qtbot, window)
    hands.write("+400")
    assert field.text() == in_force, "what is shown is what the script goes to"
    assert "+400" in plan.refusal, "and what was refused can be read"
    assert field.selectedText() == in_force
    hands.write("+4")
    assert plan.refusal == ""
    assert window.bench.loaded.test.last_stop == 4.0, "typed in its place, not after it"
    plan.word("ei", "banana")
    assert "banana" in plan.refusal
    plan.station.fields["blanks"].setFocus()
    hands.write("3", None)
    assert plan.refusal == "", "a key in another field is the next key, too"


def test_a_refused_density_is_typed_over_and_not_appended_to(qtbot, demo):
    window = demo("Brannock 400 B7", "read")
    frame = window.bench.frame_id
    hands = Hands(qtbot, window)
    hands.write("12,5")
    assert "from 0 to 6" in window.station().refusal.text()
    hands.write("0.48")
    assert window.bench.notebook.all(Reading, frame_id=frame)[0].density == 0.48


def test_stepping_from_words_that_mean_nothing_is_refused_not_swallowed(qtbot, demo):
    window = demo("Kelda Pan 200", "plan")
    field = window.station().fields["ei"]
    field.setFocus()
    field.setText("banana")
    qtbot.keyClick(field, UP)
    assert "banana" in window.station().refusal.text()
    assert field.text() == str(window.bench.loaded.test.exposure_index).removesuffix(".0")


def test_what_was_said_of_one_test_is_not_carried_to_the_next(qtbot, demo):
    window = demo("Kelda Pan 200", "plan")
    PlanPage(qtbot, window).word("supply", "2 frames")
    assert "film holds 2" in window.station().refusal.text()
    demo("Merrow Pan 125", "cards")
    assert window.station().path.text().endswith("card-merrow-pan-125-sable.pdf")
    demo("Brannock 400 B6", "cards")
    assert window.station().path.text().endswith("card-brannock-400-tarn.pdf")
    demo("Kelda Pan 200", "plan")
    assert window.station().refusal.text() == ""
    assert window.station().fields["supply"].text() == "as much as it takes"


def test_a_notice_about_one_test_goes_when_another_is_opened(qtbot, demo, tmp_path):
    window = demo("Merrow Pan 125", "curves")
    spoilt = tmp_path / "spoilt.csv"
    spoilt.write_text("strip,frame,log_h,density\nA,1,-2,much\nA,2,-1,0.4\nA,3,0,0.9\n")
    window.importing.offer(spoilt)
    assert window.banner.isVisible()
    demo("Brannock 400 B6", "curves")
    assert not window.banner.isVisible()


def test_shutter_and_aperture_are_said_together_in_any_order(qtbot, demo):
    window = demo("Kelda Pan 200", "expose")
    hands = Hands(qtbot, window)
    hands.press(SPACE, times=3)
    for typed, seconds, aperture in (
        ("1/250 f/8", 1 / 250, 8.0),
        ("f/8 1/250", 1 / 250, 8.0),
        ("f5,6 at 0,5 s", 0.5, 5.6),
    ):
        frame = window.bench.frame_id
        hands.press(Qt.Key.Key_O)
        hands.write(typed)
        (taken,) = window.bench.notebook.all(Exposure, frame_id=frame)
        assert taken.seconds == pytest.approx(seconds)
        assert taken.aperture == pytest.approx(aperture)


SPOKEN = (
    ("compared", "films", "stocks"),
    ("compared", "chemistry", "developers"),
    ("compared", "batch", "batches"),
    ("step", "½", "half stops"),
    ("check", "yes", "repeated at the end"),
    ("order", "twins", "in pairs on twin cameras"),
    ("turned", "f-stop", "aperture"),
)


def test_a_choice_is_taken_in_the_words_a_tester_would_type(qtbot, demo):
    window = demo("Kelda Pan 200", "plan")
    window.start_test()
    QApplication.processEvents()
    hands = Hands(qtbot, window)
    hands.press(DOWN, times=5)
    hands.press(ENTER)
    assert window.bench.loaded.test.kind == "compare"
    plan = PlanPage(qtbot, window)
    for name in ("Merrow Pan 125", "M3", "Sable", "1+1"):
        hands.write(name, TAB)
    for word, typed, shown in SPOKEN:
        plan.word(word, typed)
        assert (plan.station.fields[word].text(), plan.refusal) == (shown, ""), typed


def test_notes_are_marked_on_the_film_and_read_again(qtbot, demo):
    window = demo("Brannock 400 B7", "read")
    bench = window.bench
    strip = bench.loaded.strips[0]
    frame = strip.frames[4]
    before = window.table.grab().toImage()
    bench.edit(lambda book: write_note(book, bench.loaded.test.id, frame.frame.id, "a gull"))
    bench.select(None)
    settle(qtbot, window)
    box = window.table.frame_box(frame.frame.id).toRect()
    after = window.table.grab().toImage()
    assert after.pixelColor(box.right() - 2, box.top() + 2) != before.pixelColor(
        box.right() - 2, box.top() + 2
    ), "a folded corner"
    bench.select(frame.frame.id)
    settle(qtbot, window)
    assert "Noted: a gull" in words_of(window.station())
    assert "Strip A, frame 5 (−4): a gull" in words_of(window.finding.column)


def test_a_kept_picture_and_a_kept_text_are_seen(qtbot, demo, tmp_path):
    window = demo("Merrow Pan 125", "finding")
    picture, words = tmp_path / "strip.png", tmp_path / "remarks.txt"
    made = QImage(40, 30, QImage.Format.Format_RGB32)
    made.fill(0xFF336699)
    made.save(str(picture))
    words.write_text("The shed was cold.", encoding="utf-8")
    for path in (picture, words):
        window.files.attach(path)
    hands = Hands(qtbot, window)
    for typed in ("view attached file strip", "view attached file remarks"):
        hands.press(Qt.Key.Key_K, CTRL)
        hands.write(typed)
        if "strip" in typed:
            assert window.over.kept_view.picture.pixmap().width() >= 40
        else:
            assert window.over.kept_view.words.toPlainText() == "The shed was cold."
        hands.press(ESCAPE)
        assert not window.over.kept_view.isVisible()


def test_a_kept_file_that_is_no_picture_says_so(demo, tmp_path):
    window = demo("Merrow Pan 125", "finding")
    bench = window.bench
    for data in (b"\0", b"\x89PNG\r\n\x1a\n" + b"\0" * 40, b"BM" + b"\xff" * 60):
        path = tmp_path / "odd.png"
        path.write_bytes(data)
        window.over.kept_view.show_file(attach(bench.notebook, bench.loaded.test.id, path))
        assert "is no picture or text" in window.over.kept_view.picture.text()


def test_silence_is_never_the_answer_to_a_word(qtbot, demo):
    window = demo("Merrow Pan 125", "process")
    for name in ("bottle", "process", "instrument", "light meter", "paper"):
        field = field_of(window.station(), name)
        type_into(field, "no such thing")
        assert "in the cupboard yet" in window.station().refusal.text(), name
        field.setFocus()
        QApplication.processEvents()
        Hands(qtbot, window).press(ESCAPE)
    assert "all changes saved" in said_by(window)


def test_a_film_with_a_slash_gets_its_card(qtbot, demo):
    window = demo("Merrow Pan 125", "cards")
    stock = window.bench.loaded.stock
    window.bench.edit(lambda book: rename(book, stock, "Merrow 125/B"))
    window.bench.go("shelf")
    window.bench.open_test(window.bench.loaded.test.id)
    window.bench.go("cards")
    settle(qtbot, window)
    station = window.station()
    target = Path(station.path.text())
    assert (target.parent, "/" in target.name) == (window.bench.notebook.path.parent, False)
    station.save()
    assert target.read_bytes().startswith(b"%PDF")


def rename(book, stock, name):
    with book.change("rename"):
        book.put(replace(stock, name=name))
    return True


def test_a_word_being_typed_stays_when_something_else_is_worked_out(qtbot, demo):
    window = demo("Kelda Pan 200", "plan")
    field = window.station().fields["subject"]
    field.setFocus()
    QTest.keyClicks(field, "a white boa")
    window.bench.changed.emit(Topic.ANALYSIS | Topic.SHEET | Topic.SELECTION)
    window.updates.flush()
    assert field.text() == "a white boa"
    QTest.keyClicks(field, "t")
    QTest.keyClick(field, ENTER)
    window.updates.flush()
    assert window.bench.loaded.test.subject == "a white boat"
    assert field.text() == "a white boat"

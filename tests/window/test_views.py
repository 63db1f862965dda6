"""Views show one state: import, selection, looks, keys and doubts."""

import numpy as np
import pytest
from PyQt6.QtCore import QPoint, Qt
from PyQt6.QtWidgets import QApplication, QFileDialog

from oracles.closed_form import ClosedForm
from tests.window.pages import button_of, field_of, settle, type_into, words_of
from vadrin.app.document.stations import PLACES
from vadrin.app.shelf.shelf_index import shelf_lines
from vadrin.notebook.records import Reading, Test
from vadrin.ui.theme.look import DAY, DIM, SAFELIGHT

CTRL = Qt.KeyboardModifier.ControlModifier


def write_table(path, spoil=""):
    lines = ["strip;frame;time_min;temperature_c;log_h;density"]
    for strip in ClosedForm().strips((5.0, 8.0, 12.0), step=1.0):
        for r in strip.readings:
            x = "" if r.log_h is None else f"{r.log_h:.4f}"
            lines.append(f"{strip.label};{r.frame};{strip.time_min};20;{x};{r.density:.3f}")
    path.write_text("\n".join(lines).replace(".", ",") + spoil, encoding="utf-8-sig")


def test_import_through_the_file_dialog_gives_finding_and_card(qtbot, open_window, tmp_path):
    table = tmp_path / "from a friend.csv"
    write_table(table)
    window = open_window(tmp_path / "winter.vadrin")
    qtbot.keyClick(QApplication.focusWidget(), Qt.Key.Key_I, CTRL)
    dialog = window.findChild(QFileDialog)
    dialog.fileSelected.emit(str(table))
    dialog.close()
    qtbot.waitUntil(lambda: window.bench.analysis is not None, timeout=10000)
    assert window.bench.station == "curves"
    assert window.bench.loaded.title == "from a friend"
    finding = window.bench.analysis.finding
    assert finding.time_min.value == pytest.approx(
        ClosedForm().time_for(ClosedForm().gradient, 0.58), rel=0.02
    )
    assert "EI" in words_of(window.finding.column)
    window.bench.go("cards")
    assert button_of(window.station(), "Save the card").isEnabled()


def test_an_import_with_a_bad_cell_waits_for_a_decision(qtbot, open_window, tmp_path):
    table = tmp_path / "smudged.csv"
    write_table(table, "\nA;30;5;20;0,5;smudge\n")
    window = open_window(tmp_path / "winter.vadrin")
    window.importing.offer(table)
    assert window.banner.isVisible()
    assert "row 47, column density" in words_of(window.banner)
    assert window.bench.notebook.all(Test) == []
    qtbot.keyClick(QApplication.focusWidget(), Qt.Key.Key_Space)
    assert not window.banner.isVisible()
    assert window.bench.notebook.count(Reading) == 45
    window.bench.undo()
    assert window.bench.notebook.count(Reading) == 0


def test_a_file_that_is_no_table_changes_nothing(open_window, tmp_path):
    window = open_window(tmp_path / "winter.vadrin")
    window.importing.offer(tmp_path / "missing.csv")
    assert "Nothing was imported" in words_of(window.banner)
    assert window.bench.notebook.all(Test) == []


def test_one_selection_in_every_view(qtbot, demo):
    window = demo("Merrow Pan 125", "read")
    strip = window.bench.loaded.strips[2]
    frame = strip.frames[7]
    box = window.table.frame_box(frame.frame.id)
    where = QPoint(round(box.center().x()), round(box.center().y()))
    qtbot.mouseClick(window.table, Qt.MouseButton.LeftButton, pos=where)
    assert window.bench.frame_id == frame.frame.id
    assert "Strip C" in words_of(window.station())
    assert window.table.accessibleName() == (
        f"strip C, frame {frame.number}, minus 3½ stops, density {frame.density:.2f}"
    )
    qtbot.keyClick(window.table, Qt.Key.Key_Down)
    assert window.bench.selected()[0].strip.label == "D"
    assert window.bench.selected()[1].name == "−3½"


def test_film_is_drawn_at_the_grey_it_has(demo):
    window = demo("Merrow Pan 125", "curves")
    window.bench.select(None)
    image = window.table.grab().toImage()
    strip = window.bench.loaded.strips[4]
    for frame in (strip.frames[0], strip.frames[12], strip.frames[-1]):
        box = window.table.frame_box(frame.frame.id)
        seen = image.pixelColor(round(box.left()) + 4, round(box.top()) + 3).red()
        light = 10**-frame.density
        want = 255 * (1.055 * light ** (1 / 2.4) - 0.055 if light > 0.0031308 else 12.92 * light)
        assert abs(seen - want) <= 2


def test_a_misread_frame_is_questioned_beside_it(demo):
    window = demo("Brannock 400 B6", "read")
    strip = window.bench.loaded.strips[1]
    window.bench.select(strip.frames[8].frame.id)
    assert "left out" in words_of(window.station())
    assert "Read strip B" in words_of(window.finding.column)


def test_one_strip_is_told_as_one(demo):
    window = demo("Ostrel 400", "finding")
    shown = words_of(window.station())
    assert "one strip" in shown
    assert "EI 320" in shown
    assert "Rule of thumb, not measured" in shown
    assert not button_of(window.station(), "Record decision").isEnabled()


def test_a_refused_word_says_why_beside_it_and_changes_nothing(qtbot, demo):
    window = demo("Kelda Pan 200", "plan")
    field = window.station().fields["last"]
    field.setFocus()
    field.selectAll()
    qtbot.keyClicks(field, "-9")
    qtbot.keyClick(field, Qt.Key.Key_Return)
    assert "few stops to more" in words_of(window.station())
    assert window.bench.loaded.test.last_stop == 5.0
    qtbot.keyClick(field, Qt.Key.Key_Escape)
    assert field.text() == "+5"
    qtbot.keyClick(field, Qt.Key.Key_Up)
    assert window.bench.loaded.test.last_stop == 6.0
    assert len(window.bench.loaded.strips[0].frames) == 15


def test_the_method_and_the_target_move_the_finding(qtbot, demo):
    window = demo("Merrow Pan 125", "finding")
    before = window.bench.analysis
    station = window.station()
    type_into(field_of(station, "EI method"), "standard")
    assert window.bench.analysis is None, "not worked out for this method yet"
    settle(qtbot, window)
    assert window.bench.analysis is not before
    assert window.bench.analysis.rated_index == window.bench.analysis.finding.speed
    middle = window.bench.analysis
    qtbot.keyClick(field_of(station, "wanted value"), Qt.Key.Key_Up)
    settle(qtbot, window)
    assert window.bench.analysis.finding.time_min.value > middle.finding.time_min.value


def test_the_process_station_restates_time(qtbot, demo):
    window = demo("Merrow Pan 125", "process")
    strip = window.bench.loaded.strips[1].strip
    warmth = field_of(window.station(), f"temperature of strip {strip.label}")
    warmth.setText("22")
    qtbot.keyClick(warmth, Qt.Key.Key_Return)
    assert window.bench.loaded.strips[1].strip.temperature_c == 22.0
    assert "7:50" in words_of(window.station())


def test_f1_says_what_the_station_is_for_and_lists_its_keys(qtbot, demo):
    window = demo("Skerry Fine 50", "expose")
    qtbot.keyClick(QApplication.focusWidget(), Qt.Key.Key_F1)
    assert window.over.keys.isVisible()
    said = words_of(window.over.keys)
    assert "Backspace" in said
    assert "EI, the exposure index, is the film speed the meter is set to." in said
    for place in PLACES:
        sentences = place.purpose
        assert 3 <= len(sentences) <= 5, place.name
        for sentence in sentences:
            parts = sentence.rstrip(".").split(". ")
            assert sentence.endswith("."), sentence
            assert max(len(part.split()) for part in parts) <= 20, sentence
    qtbot.keyClick(window.over.keys, Qt.Key.Key_Escape)
    assert not window.over.keys.isVisible()


def test_a_look_is_turned_to_at_once_wherever_one_is(qtbot, demo):
    window = demo("Merrow Pan 125", "shelf")
    for station in ("curves", "cards"):
        window.bench.go(station)
        window.set_look(DAY)
        settle(qtbot, window)
        assert window.grab().toImage().pixelColor(300, 20).blue() > 200, "day is white"
        window.set_look(SAFELIGHT)
        check_red(window)
    window.set_look(DAY)


def check_red(window):
    image = window.grab().toImage()
    image = image.convertToFormat(image.Format.Format_RGB32)
    data = image.constBits().asstring(image.width() * image.height() * 4)
    blue, green, red, _ = np.frombuffer(data, np.uint8).reshape(-1, 4).max(axis=0)
    assert blue == 0, "blue light leaves the window"
    assert green == 0, "green light leaves the window"
    assert red > 100


def test_a_planned_frame_can_be_picked_before_anything_is_read(demo):
    window = demo("Kelda Pan 200", "plan")
    frame = window.bench.loaded.strips[1].frames[4]
    window.bench.select(frame.frame.id)
    window.bench.select(window.bench.loaded.strips[0].frames[3].frame.id)
    QApplication.processEvents()
    assert window.table.accessibleName().startswith("strip A, frame 4, minus 5 stops, not taken")


def test_other_methods_are_a_line_until_they_are_compared(qtbot, demo):
    window = demo("Merrow", "finding")
    station = window.station()
    told = words_of(station)
    assert "By other EI methods: Shadow EI 80, 7:25; Standard EI 125, 8:25" in told
    assert "What it asks" not in told
    qtbot.keyClick(QApplication.focusWidget() or station, Qt.Key.Key_Escape)
    station.setFocus()
    qtbot.keyClick(station, Qt.Key.Key_M)
    assert "What it asks" in words_of(station)
    window.set_look(DIM)
    settle(qtbot, window)
    assert "What it asks" in words_of(window.station()), "made anew, it stays as it was"
    window.bench.open_test(next(x for x in shelf_lines(window.bench.notebook)).test_id)
    window.bench.go("finding")
    settle(qtbot, window)
    assert "What it asks" not in words_of(window.station()), "another test has its own"

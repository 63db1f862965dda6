"""Each station driven as a tester would: mistakes on the way, and what the film shows of them."""

from pathlib import Path

import pytest
from PyQt6.QtCore import QMimeData, QPoint, QPointF, Qt, QUrl
from PyQt6.QtGui import QDropEvent
from PyQt6.QtWidgets import QApplication, QListView, QMenu

from tests.window.pages import (
    CTRL,
    NONE,
    button_of,
    click_reading,
    field_of,
    pdf_words,
    plot_of,
    refusal_of,
    settle,
    type_into,
    words_of,
)
from vadrin.app.display.marks import marked_ei
from vadrin.app.display.quantities import minutes_text
from vadrin.app.shelf.shelf_index import shelf_lines
from vadrin.notebook.records import Frame, Reading, Test
from vadrin.notebook.store import Notebook
from vadrin.ui.plots.curve_plot import CurvePlot
from vadrin.ui.theme import typeface
from vadrin.ui.theme.look import DAY, DIM, SAFELIGHT
from vadrin.ui.widgets.fields import WordField


def states(window, strip):
    return [f.frame.state for f in window.bench.loaded.strips[strip].frames]


def test_expose_ticks_skips_doubles_and_takes_back(qtbot, demo):
    window = demo("Skerry Fine 50", "expose")
    station = window.station()
    assert "Strip B, frame 6 of 14" in words_of(station)
    assert "1/250" in words_of(station)
    assert "Turn the shutter from 1/500 to 1/250." in words_of(station)
    for key in (Qt.Key.Key_Space, Qt.Key.Key_S, Qt.Key.Key_D):
        qtbot.keyClick(station, key)
    assert states(window, 1)[5:8] == ["exposed", "skipped", "doubled"]
    assert "Strip B, frame 9 of 14" in words_of(station)
    qtbot.keyClick(station, Qt.Key.Key_Backspace)
    assert states(window, 1)[5:8] == ["exposed", "skipped", "planned"]
    assert window.bench.selected()[1].name == "−1"
    qtbot.keyClick(station, Qt.Key.Key_Z, CTRL)
    assert states(window, 1)[7] == "doubled"


def test_expose_says_when_a_blank_and_the_end_come(qtbot, demo):
    window = demo("Skerry Fine 50", "expose")
    station = window.station()
    for _ in range(9):
        qtbot.keyClick(station, Qt.Key.Key_Space)
    assert "cap on" in words_of(station)
    assert "stays blank" in words_of(station)
    for _ in range(2):
        qtbot.keyClick(station, Qt.Key.Key_Space)
    assert "Cap off, focus at infinity" in words_of(station)
    for _ in range(30):
        qtbot.keyClick(station, Qt.Key.Key_Space)
    assert "All frames are taken" in words_of(station)
    assert "None skipped." in words_of(station)


def test_a_read_frame_is_not_taken_back(qtbot, demo):
    window = demo("Merrow Pan 125", "expose")
    said = []
    window.bench.said.connect(said.append)
    qtbot.keyClick(window.station(), Qt.Key.Key_Backspace)
    assert "has a reading already" in said[-1]
    assert window.bench.loaded.exposed() == 125


def type_density(qtbot, window, words, modifier=NONE):
    QApplication.processEvents()
    field = window.station().field
    field.setFocus()
    qtbot.keyClicks(field, words)
    qtbot.keyClick(field, Qt.Key.Key_Return, modifier)
    QApplication.processEvents()


def test_read_goes_on_repeats_and_replaces(qtbot, demo):
    window = demo("Brannock 400 B7", "read")
    bench = window.bench
    first = bench.frame_id
    assert "Strip C" in words_of(window.station())
    type_density(qtbot, window, "0,24")
    assert bench.frame_id != first
    bench.select(first)
    type_density(qtbot, window, "0.26")
    bench.select(first)
    assert bench.selected()[1].density == pytest.approx(0.25)
    assert "read 0.25, mean of 2 readings: 0.24, 0.26" in words_of(window.station())
    type_density(qtbot, window, "0.30", CTRL)
    bench.select(first)
    assert [r.density for r in bench.selected()[1].readings] == [0.30]
    qtbot.keyClick(window.station().field, Qt.Key.Key_L, CTRL)
    assert bench.selected()[1].density is None
    assert "Include this frame" in button_of(window.station(), "Include").text()


@pytest.mark.parametrize("typed", ["dark", "7", "-1", "0.2.3"])
def test_read_refuses_what_is_no_density(qtbot, demo, typed):
    window = demo("Brannock 400 B7", "read")
    before = window.bench.notebook.count(Reading)
    type_density(qtbot, window, typed)
    assert window.bench.notebook.count(Reading) == before
    assert window.station().refusal.isVisible()
    assert window.station().field.text() == typed


def test_a_reading_that_cannot_be_right_is_questioned_at_once(qtbot, demo):
    window = demo("Brannock 400 B7", "read")
    frame = window.bench.frame_id
    type_density(qtbot, window, "0.05")
    window.bench.select(frame)
    assert "Thinner than the blank, frame 2 (blank), at 0.20?" in words_of(window.station())


def test_curves_show_figures_and_pick_frames(qtbot, demo):
    window = demo("Merrow Pan 125", "curves")
    station = window.station()
    assert "Five strips" in words_of(station)
    qtbot.keyClick(station, Qt.Key.Key_G)
    shown = words_of(station)
    for name in ("Zone I EI", "contrast index", "base plus fog", "A, 4:30 min"):
        assert name in shown
    qtbot.keyClick(station, Qt.Key.Key_G)
    frame_id = click_reading(window, plot_of(station, CurvePlot), 40)
    assert window.bench.frame_id == frame_id


def test_deciding_keeps_what_it_rests_on(qtbot, demo):
    window = demo("Brannock 400 B6", "finding")
    assert window.bench.loaded.findings == ()
    qtbot.keyClick(QApplication.focusWidget(), Qt.Key.Key_D, CTRL)
    (finding,) = window.bench.loaded.findings
    assert '"schema": "vadrin-report/1"' in finding.report
    assert "Decided" in words_of(window.station())
    station = window.station()
    type_into(field_of(station, "who decided"), "the boat shed")
    type_into(field_of(station, "why it was decided"), "prints best on 2")
    (signed,) = window.bench.loaded.findings
    assert (signed.decided_by, signed.note) == ("the boat shed", "prints best on 2")
    assert signed.report == finding.report
    window.bench.undo()
    assert window.bench.loaded.findings[0].note == ""
    window.bench.undo()
    window.bench.undo()
    assert window.bench.loaded.findings == ()
    assert "Decided by" not in words_of(station)


def test_an_unreachable_target_is_refused_and_another_kind_taken(qtbot, demo):
    window = demo("Merrow Pan 125", "finding")
    value = field_of(window.station(), "wanted value")
    kind = field_of(window.station(), "measure of contrast")
    value.setText("9")
    qtbot.keyClick(value, Qt.Key.Key_Return)
    assert "out of reach" in words_of(window.station())
    assert window.bench.loaded.test.target_value == 0.58
    qtbot.keyClick(value, Qt.Key.Key_Escape)
    qtbot.keyClick(kind, Qt.Key.Key_Down)
    assert window.bench.loaded.test.target_kind == "zone8"
    QApplication.processEvents()
    assert value.text() == "1.3"


def test_the_card_is_saved_or_says_why_not(qtbot, demo, tmp_path):
    window = demo("Merrow Pan 125", "cards")
    station = window.station()
    station.path.setText(str(tmp_path / "no such folder" / "card.pdf"))
    qtbot.keyClick(station.path, Qt.Key.Key_S, CTRL)
    assert "Choose another folder" in words_of(station)
    station.path.setText(str(tmp_path / "card"))
    qtbot.keyClick(station.path, Qt.Key.Key_Return)
    first = (tmp_path / "card.pdf").read_bytes()
    assert "Print it at 100 %" in words_of(station)
    qtbot.keyClick(field_of(station, "paper size"), Qt.Key.Key_Up)
    qtbot.keyClick(station.path, Qt.Key.Key_Return)
    assert (tmp_path / "card.pdf").read_bytes() != first


def test_a_push_has_a_card_that_anyone_can_follow(qtbot, demo, tmp_path):
    window = demo("Merrow Pan 125", "cards")
    station, analysis = window.station(), window.bench.analysis
    type_into(station.card, "push 1")
    assert station.path.text().endswith("push-1.pdf")
    station.path.setText(str(tmp_path / "push.pdf"))
    qtbot.keyClick(station.path, Qt.Key.Key_Return)
    pages, words = pdf_words(tmp_path / "push.pdf")
    words = " ".join(words.split())
    push = next(p for p in analysis.push if p.stops == 1)
    held = push.by(window.bench.loaded.test.push_rule)
    assert pages == 1
    assert f"Push 1: EI {marked_ei(push.exposure_index.value)}" in words
    for step in (
        "1 Set the meter",
        "2 Shoot the whole roll at this EI",
        "3 Mark the roll",
        "4 Develop",
        "5 Expect shadow detail:",
    ):
        assert step in words
    assert f"{minutes_text(held.time_min.value)} min at" in words
    assert "cannot restore shadow" in words
    type_into(station.card, "push 9")
    assert "push 1" in refusal_of(window)
    window.bench.open_test(
        next(x.test_id for x in shelf_lines(window.bench.notebook) if x.film.startswith("Ostrel"))
    )
    window.bench.go("cards")
    settle(qtbot, window)
    assert window.station().card.text() == "the whole finding", "no push of it was tested"


def test_process_fields_refuse_and_clear(qtbot, demo):
    window = demo("Merrow Pan 125", "process")
    strip = window.bench.loaded.strips[0].strip
    time = field_of(window.station(), f"time of strip {strip.label}")
    warmth = field_of(window.station(), f"temperature of strip {strip.label}")
    for field, typed in ((time, "long"), (warmth, "200")):
        field.setText(typed)
        qtbot.keyClick(field, Qt.Key.Key_Return)
        assert window.station().refusal.isVisible()
        qtbot.keyClick(field, Qt.Key.Key_Escape)
    assert window.bench.loaded.strips[0].strip == strip
    time.setText("4:45")
    qtbot.keyClick(time, Qt.Key.Key_Return)
    assert window.bench.loaded.strips[0].strip.time_min == 4.75
    # What was taken is shown before the next word is typed.
    QApplication.processEvents()
    time.setText("—")
    qtbot.keyClick(time, Qt.Key.Key_Return)
    assert window.bench.loaded.strips[0].strip.time_min is None


def test_a_plan_grows_and_shrinks_on_the_light_table(qtbot, demo):
    window = demo("Kelda Pan 200", "plan")
    fields = window.station().fields
    qtbot.keyClick(fields["times"], Qt.Key.Key_Up)
    assert [s.strip.label for s in window.bench.loaded.strips] == list("ABCDE")
    qtbot.keyClick(fields["strips"], Qt.Key.Key_Down)
    qtbot.keyClick(fields["step"], Qt.Key.Key_Down)
    assert len(window.bench.loaded.strips) == 4
    assert len(window.bench.loaded.strips[0].frames) == 2 + 23
    qtbot.keyClick(fields["blanks"], Qt.Key.Key_Down)
    qtbot.keyClick(fields["ei"], Qt.Key.Key_Up)
    assert window.bench.loaded.test.exposure_index == 250
    assert window.bench.notebook.count(Frame) > 0
    for _ in range(5):
        window.bench.undo()
    assert len(window.bench.loaded.strips[0].frames) == 14


NONSENSE = (
    ("film", " ", "needs a name"),
    ("ei", "0", "from 0.1"),
    ("strips", "40", "1 to 12 strips"),
    ("times", "6,8", "two times, or one"),
    ("step", "leaps", "“leaps”: one of whole stops"),
    ("blanks", "9", "1 to 6"),
    ("shutter", "later", "type 1/125 or 2 s"),
    ("aperture", "f/900", "from 0.7 to 128"),
    ("first", "deep", "−3 or +1½"),
    ("filter", "dense", "not a number"),
    ("supply", "plenty", "film comes as 36 frames"),
    ("order", "at random", "one of one strip after the other"),
    ("leader", "99", "0 to 6"),
    ("reciprocity", "slow", "t^1.3"),
)


def test_every_word_of_a_plan_refuses_nonsense_in_terms_of_itself(qtbot, demo):
    window = demo("Kelda Pan 200", "plan")
    before = window.bench.notebook.everything()
    for field, typed, words in NONSENSE:
        word = window.station().fields[field]
        word.setFocus()
        word.setText(typed)
        qtbot.keyClick(word, Qt.Key.Key_Return)
        assert words in window.station().refusal.text(), field
        assert window.bench.notebook.everything() == before
        qtbot.keyClick(word, Qt.Key.Key_Escape)
        assert window.station().refusal.text() == ""


def test_looks_turn_and_type_grows(qtbot, demo):
    window = demo("Merrow Pan 125", "plan")
    for look in (DIM, SAFELIGHT, DAY):
        qtbot.keyClick(QApplication.focusWidget(), Qt.Key.Key_F8)
        assert window.look is look
    qtbot.keyClick(QApplication.focusWidget(), Qt.Key.Key_Plus, CTRL)
    QApplication.processEvents()
    assert typeface.scale() == 1.25
    field = window.station().findChild(WordField)
    assert field.font().pixelSize() == round(15 * 1.25)
    typeface.set_scale(1.75)
    for way, ends in ((1, 2.0), (-1, 1.5)):
        window.scale_type(way)
        QApplication.processEvents()
        assert typeface.scale() == ends
    typeface.set_scale(1.0)
    window.scale_type(-1)
    QApplication.processEvents()
    assert typeface.scale() == 1.0


def test_the_shelf_opens_a_test_where_its_work_goes_on(qtbot, demo):
    window = demo("Merrow Pan 125", "curves")
    window.bench.go("shelf")
    QApplication.processEvents()
    shelf = window.station().findChild(QListView)
    assert shelf.model().rowCount() == 6
    came_from = shelf.model().line(shelf.currentIndex().row())
    assert came_from.film == "Merrow Pan 125 M3", "the test one comes from is selected"
    qtbot.keyClick(shelf, Qt.Key.Key_Home)
    qtbot.keyClick(shelf, Qt.Key.Key_Down)
    qtbot.keyClick(shelf, Qt.Key.Key_Return)
    assert window.bench.loaded.title == "Skerry Fine 50"
    assert window.bench.station == "expose"


def drop(window, path):
    data = QMimeData()
    data.setUrls([QUrl.fromLocalFile(str(path))])
    point = QPointF(QPoint(200, 200))
    copy, left = Qt.DropAction.CopyAction, Qt.MouseButton.LeftButton
    window.dropEvent(QDropEvent(point, copy, data, left, Qt.KeyboardModifier.NoModifier))


def test_files_can_be_dropped_on_the_window(demo, tmp_path):
    window = demo("Merrow Pan 125", "curves")
    table = tmp_path / "dropped.csv"
    table.write_text("strip,density,log_h\nA,0.2,\nA,0.3,-2\nA,0.6,-1\nA,0.9,0\n")
    drop(window, table)
    assert window.bench.loaded.title == "dropped"
    other = tmp_path / "other.vadrin"
    Notebook(other).close()
    drop(window, other)
    assert window.bench.notebook.path == other
    assert window.bench.notebook.all(Test) == []


def test_a_refused_notebook_leaves_the_open_one(demo, tmp_path):
    window = demo("Merrow Pan 125", "curves")
    bad = tmp_path / "list.vadrin"
    bad.write_text("milk, bread, developer " * 60)
    drop(window, bad)
    assert "is not changed" in words_of(window.banner)
    assert window.bench.loaded.title == "Merrow Pan 125"
    assert Path(window.bench.notebook.path).name == "demo.vadrin"


def test_the_file_menu_names_what_undo_takes_back(qtbot, demo):
    window = demo("Brannock 400 B7", "read")
    type_density(qtbot, window, "0.24")
    button_of(window.header, "File").click()
    menu = window.header.findChild(QMenu)
    labels = [action.text() for action in menu.actions()]
    assert any(text.startswith("Undo read 0.24 on frame") for text in labels)
    menu.close()
    window.bench.undo()
    window.bench.undo()
    assert window.bench.loaded.read() == 31

"""The shelf and the cupboard, worked through the window by keyboard."""

from dataclasses import replace
from threading import Event

import pytest
from PyQt6.QtCore import Qt
from PyQt6.QtWidgets import QApplication, QListView, QPushButton

from tests.window.pages import (
    CTRL,
    ENTER,
    NONE,
    Hands,
    ShelfPage,
    button_of,
    field_of,
    named,
    said_by,
    settle,
    type_into,
    words_of,
)
from vadrin.app.library.forms import FORMS
from vadrin.app.library.recent_notebooks import recent_notebooks
from vadrin.app.read.export_readings import LARGEST_ATTACHMENT
from vadrin.errors import EditRefusedError
from vadrin.formats.readings.any_file import read_readings
from vadrin.notebook.records import Attachment, Bottle, Camera, ColumnMatching, Reading, Stock, Test
from vadrin.notebook.store import Notebook
from vadrin.ui.theme.look import DAY


def type_in(qtbot, words, key=ENTER):
    Hands(qtbot, None).write(words, key)


def press(qtbot, key, modifier=NONE):
    Hands(qtbot, None).press(key, modifier)


@pytest.fixture
def shelf(demo):
    window = demo("Merrow Pan 125", "shelf")
    named(window.station(), QListView, "tests").setFocus()
    return window


def films(window):
    return ShelfPage(None, window).films()


def mark(qtbot, window, film):
    QApplication.processEvents()
    ShelfPage(qtbot, window).mark(film)


def test_typing_finds_tests_by_anything_notes_included(qtbot, shelf):
    type_in(qtbot, "regatta", None)
    assert films(shelf) == ["Ostrel 400 O1"]
    assert "1 of 6 tests" in words_of(shelf.station())
    press(qtbot, Qt.Key.Key_Escape)
    assert len(films(shelf)) == 6
    type_in(qtbot, "t", None)
    type_in(qtbot, "arn 400", None)
    assert films(shelf) == ["Ostrel 400 O1", "Brannock 400 B6"]
    press(qtbot, Qt.Key.Key_Down)
    press(qtbot, ENTER)
    assert shelf.bench.loaded.title == "Ostrel 400"


def test_tests_are_grouped_by_stock_developer_and_camera(qtbot, shelf):
    press(qtbot, Qt.Key.Key_G, CTRL)
    assert films(shelf)[:3] == ["Brannock 400", "Brannock 400 B7", "Brannock 400 B6"]
    press(qtbot, Qt.Key.Key_G, CTRL)
    assert films(shelf)[0] == "in Sable 1+1"
    press(qtbot, Qt.Key.Key_G, CTRL)
    assert films(shelf)[0] == "Quayside 35"


def test_two_marked_tests_show_what_changed_and_the_run_that_would_tell(qtbot, shelf):
    mark(qtbot, shelf, "Brannock 400 B7")
    mark(qtbot, shelf, "Brannock 400 B6")
    said = words_of(shelf.station().side)
    assert "3 conditions differ (batch, developer and dilution)" in said
    assert "cannot be separated" in said
    assert "like the first, but with batch B6" in said
    assert "Separating them takes 2 more tests" in said


def test_strips_are_compared_too(qtbot, shelf):
    side = shelf.station().side
    mark(qtbot, shelf, "Merrow Pan 125 M3")
    assert "One test is marked" in words_of(side)
    mark(qtbot, shelf, "Skerry Fine 50 S2")
    type_into(field_of(side, "left side"), "strip B")
    assert [field_of(side, f"{end} side").text() for end in ("left", "right")] == [
        "strip B",
        "the whole test",
    ]
    for film in ("Skerry Fine 50 S2", "Merrow Pan 125 M3"):
        mark(qtbot, shelf, film)
    assert "Film left" in words_of(side)


def test_two_strips_of_one_test_differ_by_their_time_alone(shelf):
    side, line = shelf.station().side, ShelfPage(None, shelf).pick("Merrow Pan 125 M3")
    side.show_marked([line.test_id, line.test_id])
    type_into(field_of(side, "left side"), "strip A")
    type_into(field_of(side, "right side"), "strip B")
    assert "only the development time differs" in words_of(side)


def test_a_test_like_another_changes_exactly_one_thing(qtbot, shelf):
    station, bench = shelf.station(), shelf.bench
    line = ShelfPage(qtbot, shelf).pick("Merrow Pan 125 M3")
    source = bench.notebook.get(Test, line.test_id)
    press(qtbot, Qt.Key.Key_L, CTRL)
    press(qtbot, Qt.Key.Key_Down)
    assert field_of(station.side, "what is changed").text() == "dilution"
    press(qtbot, Qt.Key.Key_Tab)
    type_in(qtbot, "1+1")
    assert "is 1+1 there too" in station.side.refusal.text()

    type_in(qtbot, "1+3")
    assert bench.station == "plan"
    made = bench.loaded
    assert (made.developer.name, made.developer.dilution) == ("Sable", "1+3")
    assert made.test.like_id == source.id
    own = ("id", "uid", "created_at", "like_id", "note", "developer_id")
    assert {k: v for k, v in vars(made.test).items() if k not in own} == {
        k: v for k, v in vars(source).items() if k not in own
    }
    assert [s.strip.planned_min for s in made.strips] == [4.5, 6.5, 9.0, 12.5, 17.5]
    assert made.exposed() == made.read() == 0
    press(qtbot, Qt.Key.Key_Z, CTRL)
    assert len(bench.notebook.all(Test)) == 6


def hues_at(window, film):
    """Whether a line of the shelf is written in ink, and in soft ink, right of its curves."""
    lines = ShelfPage(None, window)
    row = lines.list.model().index(lines.films().index(film))
    box = lines.list.visualRect(row)
    picture = lines.list.viewport().grab(box.adjusted(round(0.7 * box.width()), 0, 0, 0)).toImage()
    shown = {
        picture.pixelColor(x, y).name().upper()
        for x in range(picture.width())
        for y in range(picture.height())
    }
    return DAY.ink in shown, DAY.soft in shown


def test_what_is_not_decided_is_shown_in_soft_ink_and_said(qtbot, shelf):
    lines = ShelfPage(qtbot, shelf)
    model = lines.list.model()

    def said(film):
        return model.data(model.index(lines.films().index(film)), Qt.ItemDataRole.DisplayRole)

    qtbot.waitUntil(lambda: "not decided" in said("Brannock 400 B6"), timeout=20000)
    assert said("Brannock 400 B6").endswith("read, 4 strips, not decided: EI 250 7:05")
    assert said("Ostrel 400 O1").endswith("not decided: EI 320"), "one strip tells no other time"
    assert said("Merrow Pan 125 M3").endswith("read, 5 strips, EI 80 7:35")
    assert "decided" not in said("Kelda Pan 200 K4"), "nothing is read there"
    assert hues_at(shelf, "Brannock 400 B6") == (False, True)
    assert hues_at(shelf, "Merrow Pan 125 M3") == (True, True)


def test_an_answer_to_a_test_as_it_was_is_never_shown(qtbot, shelf):
    model, jobs, go_on = ShelfPage(qtbot, shelf).list.model(), shelf.jobs, Event()
    row = ShelfPage(qtbot, shelf).films().index("Brannock 400 B6")
    book, test_id = shelf.bench.notebook, model.line(row).test_id

    def changed(**fields):
        test = book.get(Test, test_id)
        shelf.bench.edit_or_raise(lambda b: put(b, replace(test, **fields)))
        QApplication.processEvents()
        ShelfPage(qtbot, shelf).list.viewport().grab()
        QApplication.processEvents()
        qtbot.waitUntil(lambda: jobs.busy("answers of the shelf"), timeout=5000)

    jobs.run("something long", lambda _said: go_on.wait(20), lambda _made: None)
    changed(note="looked at again")
    changed(target_value=0.72)
    go_on.set()
    qtbot.waitUntil(lambda: bool(model.answer(model.line(row))), timeout=20000)
    settle(qtbot, shelf)
    assert float(model.answer(model.line(row)).time.split(":")[0]) > 8, "7:05 was that for 0.58"


def put(book, record):
    with book.change("change"):
        book.put(record)


def test_film_left_and_bottles_near_their_end_are_beside_the_shelf(shelf):
    said = words_of(shelf.station().side)
    assert "Merrow Pan 125 M3 9 rolls, rated EI 80" in said
    assert "7 of 8 films" in said
    assert "do a clip test" in said


def test_the_cupboard_takes_and_refuses_by_keyboard(qtbot, shelf):
    press(qtbot, Qt.Key.Key_9, CTRL)
    book, station = shelf.bench.notebook, shelf.station()
    while station.heading() != "Cameras":
        before = station.heading()
        press(qtbot, Qt.Key.Key_Down)
        assert station.heading() != before
    press(qtbot, Qt.Key.Key_E, CTRL)
    type_in(qtbot, "Bilge box")
    press(qtbot, Qt.Key.Key_Tab)
    type_in(qtbot, "1/25")
    press(qtbot, Qt.Key.Key_Tab)
    type_in(qtbot, "soon")
    assert "type 1/125 or 2 s" in station.refusal.text()
    press(qtbot, Qt.Key.Key_Escape)
    camera = book.all(Camera)[-1]
    assert (camera.name, camera.slowest, camera.fastest) == ("Bilge box", 1 / 25, 1 / 1000)
    press(qtbot, Qt.Key.Key_Z, CTRL)
    press(qtbot, Qt.Key.Key_Z, CTRL)
    assert book.all(Camera)[-1].name == ""
    press(qtbot, Qt.Key.Key_Y, CTRL)
    assert book.all(Camera)[-1].name == "Bilge box"


def test_a_meter_has_its_own_constant_and_the_tests_it_metered_follow(qtbot, demo):
    window = demo("Merrow Pan 125", "finding")
    bench = window.bench
    before = bench.analysis.finding
    bench.go("cupboard")
    QApplication.processEvents()
    station = window.station()
    station.kinds.setCurrentRow(list(FORMS).index("Light meters"))
    constant = station.fields["constant"]
    type_into(constant, "60")
    assert "lies between 1 and 50 lux seconds" in station.refusal.text()
    type_into(constant, "100: 0.1; 200; 400: 0,025")
    assert "“200” is no pair" in station.refusal.text()
    type_into(constant, "100: 0,1; 200: 0,05; 400: 0,026")
    assert float(constant.text()) == pytest.approx(10.13, abs=0.01)
    assert "constant from 3 measurements, 9.8" in station.fields["note"].text()
    type_into(station.fields["note"], "dropped once")
    type_into(constant, "100: 0,11; 200: 0,055")
    assert station.fields["note"].text() == "dropped once; constant from 2 measurements"
    type_into(constant, "10")
    assert station.fields["note"].text() == "dropped once"
    assert bench.loaded.test.meter_constant == 10.0
    bench.go("finding")
    settle(qtbot, window)
    after = bench.analysis.finding
    assert after.zone_ei.value == pytest.approx(before.zone_ei.value, rel=1e-3)
    assert after.speed.value == pytest.approx(before.speed.value * 8.125 / 10, rel=1e-3)
    for _ in range(4):
        bench.undo()
    assert bench.loaded.test.meter_constant == 8.125


def test_a_bottle_belongs_to_chemistry_and_removal_is_undone(qtbot, shelf):
    shelf.bench.go("cupboard")
    QApplication.processEvents()
    station, book = shelf.station(), shelf.bench.notebook
    station.kinds.setCurrentRow(3)
    station.make()
    assert len(book.all(Bottle)) == 2
    QApplication.processEvents()
    type_into(station.fields["developer_id"], "nothing like it")
    assert "make it first" in station.refusal.text()
    station.entries.setFocus()
    press(qtbot, Qt.Key.Key_Delete)
    assert len(book.all(Bottle)) == 1
    shelf.bench.undo()
    QApplication.processEvents()
    assert len(book.all(Bottle)) == 2
    station.kinds.setCurrentRow(0)
    button_of(station, "Remove entry").click()
    assert "needs it" in said_by(shelf)
    assert len(book.all(Stock)) == 5


def test_a_paper_that_was_tested_does_not_stand_among_the_films(demo):
    window = demo("Merrow Pan 125", "shelf")
    with window.bench.notebook.change("a paper"):
        window.bench.notebook.add(Stock(name="Slip Bromide", kind="paper", box_speed=6.0))
    window.bench.go("cupboard")
    QApplication.processEvents()
    station = window.station()

    def listed(heading):
        station.kinds.setCurrentRow(list(FORMS).index(heading))
        QApplication.processEvents()
        return [station.entries.item(n).text() for n in range(station.entries.count())]

    films = listed("Films")
    assert "Merrow Pan 125" in films
    assert "Slip Bromide" not in films
    assert listed("Papers tested") == ["Slip Bromide"]
    station.make()
    QApplication.processEvents()
    assert station.fields["kind"].text() == "paper"
    assert len(listed("Papers tested")) == 2
    assert listed("Films") == films


def test_a_film_whose_kind_is_stepped_to_paper_is_followed(qtbot, demo):
    """Its next step must not change the film that stands in its place."""
    window = demo("Merrow Pan 125", "cupboard")
    station, book = window.station(), window.bench.notebook
    kinds = {s.name: s.kind for s in book.all(Stock)}
    name = station.entries.currentItem().text()
    station.fields["kind"].setFocus()
    for expected in ("paper", "reversal", "colour negative"):
        qtbot.keyClick(QApplication.focusWidget(), Qt.Key.Key_Up)
        QApplication.processEvents()
        now = {s.name: s.kind for s in book.all(Stock)}
        assert now == kinds | {name: expected}
        assert station.fields["name"].text() == name
        assert station.heading() == ("Papers tested" if expected == "paper" else "Films")
        assert QApplication.focusWidget() is station.fields["kind"]


def test_a_finding_says_when_what_it_rests_on_changes(qtbot, demo):
    window = demo("Merrow Pan 125", "finding")
    station, bench = window.station(), window.bench
    assert not station.outdated.isVisible()
    frame = bench.loaded.strips[1].frames[9]
    with bench.notebook.change("spoil"):
        for reading in frame.readings:
            bench.notebook.put(replace(reading, density=reading.density + 0.05))
    bench.refresh()
    settle(qtbot, window)
    said = station.outdated.text()
    assert "Decided: EI 80, 7:35 min. Changed since: 1 frame differs on strip B" in said
    assert "Current finding: EI" in said
    bench.go("shelf")
    settle(qtbot, window)
    lines = ShelfPage(qtbot, window)
    assert lines.list.model().detail(lines.films().index("Merrow Pan 125 M3")).changed
    bench.go("finding")
    settle(qtbot, window)
    press(qtbot, Qt.Key.Key_D, CTRL)
    assert not station.outdated.isVisible()
    assert len(bench.loaded.findings) == 2


def test_undo_names_the_test_it_reached_into(qtbot, demo):
    window = demo("Merrow Pan 125", "read")
    frame = window.bench.loaded.strips[0].frames[0]
    with window.bench.notebook.change("read 0.30 on frame b1"):
        window.bench.notebook.add(Reading(frame_id=frame.frame.id, density=0.3))
    demo("Kelda Pan 200", "plan")
    press(qtbot, Qt.Key.Key_Z, CTRL)
    said = said_by(window)
    assert said == "Undone: read 0.30 on frame b1 (in Merrow Pan 125, in Sable 1+1)."
    assert window.bench.loaded.title == "Kelda Pan 200"


FOREIGN = "Step;rel log H;A 6 min;B 9 min;remarks\n" + "\n".join(
    f"{i};{-2.4 + 0.3 * i:.2f};{0.2 + 0.08 * i:.2f};{0.2 + 0.12 * i:.2f};fine" for i in range(9)
).replace(".", ",")


def test_a_foreign_table_is_matched_once_and_remembered(qtbot, open_window, tmp_path):
    window = open_window(tmp_path / "winter.vadrin")
    path = tmp_path / "club.csv"
    path.write_text(FOREIGN, encoding="utf-8")
    window.importing.offer(path)
    matcher = window.importing.matcher
    assert matcher.isVisible()
    assert "18 readings on 2 strips" in words_of(matcher)
    press(qtbot, Qt.Key.Key_Up)
    assert "Not yet" not in words_of(matcher)
    press(qtbot, Qt.Key.Key_Down)
    take = next(b for b in matcher.findChildren(QPushButton) if b.text() == "Import")
    take.setFocus()
    press(qtbot, Qt.Key.Key_Space)
    assert [s.strip.time_min for s in window.bench.loaded.strips] == [6.0, 9.0]
    assert len(window.bench.notebook.all(Reading)) == 18
    assert len(window.bench.notebook.all(ColumnMatching)) == 1
    window.importing.offer(path)
    assert "matched as last time" in words_of(matcher)


def test_densities_alone_go_to_the_frames_of_the_test_on_the_bench(demo, tmp_path):
    window = demo("Brannock 400 B7", "read")
    loaded = window.bench.loaded
    read, waiting = loaded.read(), loaded.readable() - loaded.read()
    lines = [f"{i} {0.2 + 0.01 * i:.2f}" for i in range(waiting)]
    rows = "\n".join(lines)
    path = tmp_path / "reader.cgats"
    head = "BEGIN_DATA_FORMAT\nSAMPLE_ID D_VIS\nEND_DATA_FORMAT\nBEGIN_DATA\n"
    path.write_text(f"{head}{rows}\n99 0.9\nEND_DATA\n")
    window.importing.offer(path)
    assert f"holds {waiting + 1} samples, but" in words_of(window.banner)
    path.write_text(head + "\n".join(lines[:3] + lines[4:]) + "\nEND_DATA\n")
    window.importing.offer(path)
    assert f"holds {waiting - 1} samples, but" in words_of(window.banner)
    assert window.bench.loaded.read() == read, "every density after the lost one would be wrong"
    path.write_text(f"{head}{rows}\nEND_DATA\n")
    window.importing.offer(path)
    assert window.bench.loaded.read() == window.bench.loaded.readable()


def test_files_of_the_menu(demo, tmp_path, qtbot):
    window = demo("Merrow Pan 125", "curves")
    files, bench = window.files, window.bench
    files.write_readings(tmp_path / "merrow.ods")
    table = read_readings(tmp_path / "merrow.ods")
    assert len(table.rows) == sum(len(f.readings) for _, f in bench.loaded.frames())
    files.write_json(tmp_path / "all.json")
    files.merge(tmp_path / "all.json")
    settle(qtbot, window)
    assert "0 new tests, 6 known already" in said_by(window)
    picture = tmp_path / "trace.png"
    picture.write_bytes(b"a" * 1000)
    files.attach(picture)
    assert bench.notebook.all(Attachment)[0].name == "trace.png"
    picture.write_bytes(b"a" * (LARGEST_ATTACHMENT + 1))
    files.attach(picture)
    assert "keeps files of up to" in said_by(window)
    files.open(tmp_path / "second.vadrin")
    assert bench.notebook.all(Test) == []
    files.merge(tmp_path / "all.json")
    settle(qtbot, window)
    assert len(bench.notebook.all(Test)) == 6
    assert recent_notebooks()[0] == tmp_path / "second.vadrin"


def test_a_damaged_notebook_is_offered_back_from_its_backup(qtbot, demo, tmp_path):
    window = demo("Merrow Pan 125", "shelf")
    path = tmp_path / "old.vadrin"
    book = Notebook(path)
    with book.change("film"):
        book.add(Stock(name="Merrow Pan 125"))
    book.close()
    path.write_bytes(path.read_bytes()[:4096] + b"\x5a" * 20000)
    window.files.open(path)
    said = words_of(window.banner)
    assert "is not changed" in said
    assert len(window.bench.notebook.all(Test)) == 6, "the open notebook stays open"
    press(qtbot, Qt.Key.Key_Space)
    assert window.bench.notebook.path.name == "old from backup.vadrin"
    assert [s.name for s in window.bench.notebook.all(Stock)] == ["Merrow Pan 125"]


def test_the_window_says_when_a_notebook_can_only_be_read(open_window, tmp_path):
    path = tmp_path / "winter.vadrin"
    first = Notebook(path)
    window = open_window(path)
    window.notebook_opened()
    assert "Open for reading only" in words_of(window.banner)
    window.start_test()
    assert "Open for reading only" in said_by(window)
    assert window.bench.station == "shelf"
    first.close()


def test_conditions_are_written_where_the_work_is_and_compared(qtbot, demo):
    window = demo("Brannock 400 B7", "process")
    fields = window.station().got.conditions
    fields["agitation"].setFocus()

    type_in(qtbot, "stand, 60 min")
    fields["bottle"].setFocus()
    press(qtbot, Qt.Key.Key_Up)
    test = window.bench.loaded.test
    assert (test.agitation, test.bottle_id) == ("stand, 60 min", 1)
    assert fields["bottle"].text() == "Sable A"
    fields["paper"].setText("none of mine")
    fields["paper"].settle()
    assert "in the cupboard yet" in window.station().refusal.text()
    window.bench.go("shelf")
    settle(qtbot, window)
    mark(qtbot, window, "Brannock 400 B7")
    mark(qtbot, window, "Brannock 400 B6")
    assert "agitation stand, 60 min first 30 s" in words_of(window.station().side)


def test_developing_counts_the_bottle_down(demo):
    window = demo("Skerry Fine 50", "process")
    book, bench = window.bench.notebook, window.bench
    with book.change("bottle"):
        book.put(replace(bench.loaded.test, bottle_id=1))
    bench.refresh()
    before = book.get(Bottle, 1).films_done
    button_of(window.station(), "Record all as planned").click()
    assert book.get(Bottle, 1).films_done == pytest.approx(before + 1)
    bench.undo()
    assert book.get(Bottle, 1).films_done == before


def test_a_removed_test_comes_back_whole(qtbot, shelf):
    book = shelf.bench.notebook
    whole = book.everything()
    press(qtbot, Qt.Key.Key_Delete)
    assert len(films(shelf)) == 5
    assert "Ctrl+Z brings it back" in said_by(shelf)
    press(qtbot, Qt.Key.Key_Z, CTRL)
    assert book.everything() == whole


def test_a_kept_file_comes_out_as_it_went_in(demo, tmp_path):
    window = demo("Merrow Pan 125", "curves")
    trace = tmp_path / "trace.png"
    trace.write_bytes(bytes(range(256)) * 10)
    window.files.attach(trace)
    (kept,) = window.files.kept()
    window.files.write_kept(kept, tmp_path / "out.png")
    assert (tmp_path / "out.png").read_bytes() == trace.read_bytes()
    assert kept.media_type == "image/png"


def turn_until(reached):
    """Let the event loop turn, a slice of the work a turn, until something is reached."""
    for _ in range(200):
        if reached():
            return
        QApplication.processEvents()
    raise AssertionError("it was never reached")


def test_a_merge_that_is_stopped_takes_nothing(qtbot, demo, tmp_path):
    window = demo("Merrow Pan 125", "curves")
    files, bench = window.files, window.bench
    files.write_json(tmp_path / "all.json")
    files.open(tmp_path / "second.vadrin")
    files.merge(tmp_path / "all.json")
    turn_until(lambda: "2 of 6 tests" in words_of(window.banner))
    button_of(window.banner, "Stop").click()
    assert "nothing was taken in" in said_by(window)
    assert bench.notebook.all(Test) == bench.notebook.all(Stock) == []
    files.merge(tmp_path / "all.json")
    settle(qtbot, window)
    assert len(bench.notebook.all(Test)) == 6, "a stopped one leaves nothing in the way"


def test_nothing_is_edited_or_undone_in_the_middle_of_a_merge(qtbot, demo, tmp_path):
    window = demo("Merrow Pan 125", "curves")
    files, bench = window.files, window.bench
    files.write_json(tmp_path / "all.json")
    files.open(tmp_path / "second.vadrin")
    with bench.notebook.change("a stock of my own"):
        bench.notebook.add(Stock(name="Ostrel 400 own"))
    files.merge(tmp_path / "all.json")
    turn_until(lambda: "2 of 6 tests" in words_of(window.banner))
    press(qtbot, Qt.Key.Key_Z, CTRL)
    assert "Merging all.json is still under way" in said_by(window)
    with pytest.raises(EditRefusedError, match="still under way"):
        bench.notebook.undo()
    with pytest.raises(EditRefusedError, match="still under way"):
        bench.edit_or_raise(lambda book: book.count(Test))
    heard = []
    bench.said.connect(heard.append)
    files.merge(tmp_path / "all.json")
    files.open(tmp_path / "third.vadrin")
    shown = [b.text() for b in window.banner.findChildren(QPushButton) if b.isVisible()]
    assert shown == ["Stop, and take nothing"], "it can still be stopped"
    assert heard == [
        "Nothing was taken in: Merging all.json is still under way; wait, or stop it.",
        "Merging all.json is still under way; wait, or stop it.",
    ]
    assert bench.notebook.path.name == "second.vadrin", "the notebook stays until it is whole"
    assert not (tmp_path / "third.vadrin").exists()
    settle(qtbot, window)
    assert len(bench.notebook.all(Test)) == 6
    bench.undo()
    assert [s.name for s in bench.notebook.all(Stock)] == ["Ostrel 400 own"]


def test_a_table_for_a_notebook_that_can_only_be_read_is_refused_in_words(
    open_window, demo_path, tmp_path
):
    path = tmp_path / "held.vadrin"
    path.write_bytes(demo_path.read_bytes())
    first = Notebook(path)
    window = open_window(path)
    whole = window.bench.notebook.everything()
    window.bench.open_test(1)
    table = tmp_path / "reader.cgats"
    table.write_text(
        "BEGIN_DATA_FORMAT\nSAMPLE_ID D_VIS\nEND_DATA_FORMAT\nBEGIN_DATA\n1 0.3\nEND_DATA\n"
    )
    for waiting in window.bench.notebook.all(Test):
        window.bench.open_test(waiting.id)
        window.importing.offer(table)
        said = f"{said_by(window)} {words_of(window.banner)}"
        refused = ("reading only", "read-only", "strips of this test wait", "no frame waits")
        assert any(words in said for words in refused)
    assert window.bench.notebook.everything() == whole
    first.close()

"""What every station shares: dialogs of the menu, the light table, words that step, cues, size."""

import gc
import threading
import wave
from itertools import pairwise

import pytest
from hypothesis import given
from hypothesis import strategies as st
from PyQt6.QtCore import QPoint, Qt
from PyQt6.QtTest import QTest
from PyQt6.QtWidgets import QApplication, QFileDialog, QLabel, QToolTip

from tests.window.pages import button_of, said_by, settle, words_of
from vadrin.app.demo.demo_copy import leave_no_demo, leave_no_demos
from vadrin.app.entry.stepping import chooser
from vadrin.app.expose.exposing import write_note
from vadrin.notebook.json_file import records_of_json
from vadrin.notebook.records import Attachment, Test
from vadrin.notebook.store import Notebook
from vadrin.ui.theme.look import LOOKS
from vadrin.ui.theme.typeface import set_scale
from vadrin.ui.widgets.sound_cues import Cue, tone_file


def answer(window, act, path):
    """Let an act ask for a file, and choose one; gives the dialog's mode."""
    act()
    (dialog,) = [d for d in window.findChildren(QFileDialog) if d.isVisible()]
    mode = dialog.acceptMode()
    dialog.fileSelected.emit(str(path))
    dialog.close()
    return mode


def test_the_menu_asks_for_files_and_does_what_it_says(qtbot, demo, tmp_path):
    window = demo("Merrow Pan 125", "curves")
    files, bench = window.files, window.bench
    save, opens = QFileDialog.AcceptMode.AcceptSave, QFileDialog.AcceptMode.AcceptOpen
    assert answer(window, files.ask_json, tmp_path / "all.json") == save
    assert len(records_of_json(tmp_path / "all.json")[Test]) == 6
    assert answer(window, files.ask_copy, tmp_path / "copy.vadrin") == save
    assert answer(window, files.ask_export, tmp_path / "merrow.csv") == save
    assert (tmp_path / "merrow.csv").read_text().count("\n") == 251
    assert answer(window, files.ask_attach, tmp_path / "merrow.csv") == opens
    (kept,) = bench.notebook.all(Attachment)
    answer(window, lambda: files.ask_kept(kept), tmp_path / "again.csv")
    assert (tmp_path / "again.csv").read_bytes() == (tmp_path / "merrow.csv").read_bytes()
    answer(window, files.ask_copy, tmp_path / "copy.vadrin")
    assert "copy.vadrin was not written" in words_of(window.banner), "nothing is written over"
    assert answer(window, files.ask_new, tmp_path / "copy.vadrin") == save
    assert "is there already" in words_of(window.banner)
    answer(window, files.ask_new, tmp_path / "fresh.vadrin")
    assert bench.notebook.path.name == "fresh.vadrin"
    assert answer(window, files.ask_merge, tmp_path / "copy.vadrin") == opens
    settle(qtbot, window)
    assert len(bench.notebook.all(Test)) == 6
    answer(window, files.ask_merge, tmp_path / "merrow.csv")
    assert "Nothing was taken in" in words_of(window.banner)
    assert answer(window, files.ask_open, tmp_path / "copy.vadrin") == opens
    assert bench.notebook.path.name == "copy.vadrin"
    assert answer(window, files.ask_import, tmp_path / "merrow.csv") == opens
    assert len(bench.notebook.all(Test)) == 7


def test_a_damaged_notebook_without_a_backup_is_rescued_as_a_copy(demo, demo_path, tmp_path):
    window = demo("Merrow Pan 125", "shelf")
    data = bytearray(demo_path.read_bytes())
    pages = len(data) // 4096
    data[4096 * (pages - 6) : 4096 * (pages - 5)] = b"\x5a" * 4096
    path = tmp_path / "wet.vadrin"
    path.write_bytes(data)
    window.files.open(path)
    said = words_of(window.banner)
    assert "is not changed" in said
    button_of(window.banner, "Save what can be recovered").click()
    assert window.bench.notebook.path.name == "wet recovered.vadrin"
    assert "Recovered into wet recovered.vadrin" in said_by(window)
    assert len(window.bench.notebook.all(Test)) == 6
    window.files.open(path)
    button_of(window.banner, "Save what can be recovered").click()
    assert window.bench.notebook.path.name == "wet recovered 2.vadrin", "no copy is written over"
    assert path.read_bytes() == data


def test_one_walks_along_the_film_by_keyboard(demo):
    window = demo("Merrow Pan 125", "curves")
    table, bench = window.table, window.bench
    bench.select(None)
    table.setFocus()
    QTest.keyClick(table, Qt.Key.Key_Right)
    first = bench.loaded.strips[0].frames
    assert bench.frame_id == first[0].frame.id, "the first arrow takes the first frame"
    QTest.keyClick(table, Qt.Key.Key_Left)
    QTest.keyClick(table, Qt.Key.Key_Up)
    assert bench.frame_id == first[0].frame.id, "the film ends there"
    for _ in range(3):
        QTest.keyClick(table, Qt.Key.Key_Right)
    QTest.keyClick(table, Qt.Key.Key_Down)
    assert bench.frame_id == bench.loaded.strips[1].frames[3].frame.id
    for _ in range(9):
        QTest.keyClick(table, Qt.Key.Key_Down)
    assert bench.frame_id == bench.loaded.strips[4].frames[3].frame.id
    for _ in range(200):
        QTest.keyClick(table, Qt.Key.Key_Right)
    assert bench.frame_id == bench.loaded.strips[4].frames[-1].frame.id


def test_a_frame_says_what_it_is_and_what_was_noted(qtbot, demo):
    window = demo("Skerry Fine 50", "expose")
    strip = window.bench.loaded.strips[0]
    frame = strip.frames[4]
    window.bench.edit(
        lambda book: write_note(book, window.bench.loaded.test.id, frame.frame.id, "a gull crossed")
    )
    box = window.table.frame_box(frame.frame.id)
    where = QPoint(round(box.center().x()), round(box.center().y()))
    QTest.mouseMove(window.table, where)
    qtbot.waitUntil(lambda: "a gull crossed" in QToolTip.text(), timeout=3000)
    assert QToolTip.text().startswith(f"strip A, frame {frame.number}, minus ")
    assert "waits for a reading" in QToolTip.text()
    assert window.table.frame_box(99_999) is None


def test_with_no_test_there_is_no_band_and_the_shelf_says_how_to_begin(
    qtbot, open_window, tmp_path, monkeypatch
):
    monkeypatch.setenv("XDG_DATA_HOME", str(tmp_path / "data"))
    window = open_window(tmp_path / "new.vadrin")
    assert not window.table.isVisible()
    assert "Start with a new test" in words_of(window.station())
    own = window.bench.notebook.path
    button_of(window.station(), "A finished notebook").click()
    settle(qtbot, window)
    shown = window.bench.notebook.path
    assert shown != own
    assert "My first roll" not in words_of(window.station()), "the doors go with the first test"
    window.bench.open_notebook(own)
    settle(qtbot, window)
    button_of(window.station(), "A first hour").click()
    settle(qtbot, window)
    assert window.station().level == "first hour"
    leave_no_demos()
    assert not shown.exists()
    leave_no_demo(shown)


@given(
    names=st.lists(st.text(min_size=1, max_size=5), min_size=1, max_size=9, unique=True),
    start=st.integers(0, 8),
    moves=st.lists(st.sampled_from([1, -1]), max_size=12),
)
def test_lists_are_stepped_one_way_everywhere(names, start, moves):
    step = chooser(names)
    here = start % len(names)
    shown = names[here]
    for move in moves:
        shown, here = step(shown, move), here - move
        assert shown == names[here % len(names)]
    assert step("no such name \n", -1) == names[0]
    assert chooser(lambda: [])("as it is", 1) == "as it is"


def type_sizes(window):
    QApplication.processEvents()
    parts = button_of(window.header, "File"), window.station().findChildren(QLabel)[0]
    return tuple(part.font().pixelSize() for part in parts)


def test_everything_grows_with_the_text_scale_in_every_look(demo):
    window = demo("Merrow Pan 125", "finding")
    before = type_sizes(window)
    try:
        set_scale(1.75)
        window.scale_type(1)
        for look in LOOKS:
            window.set_look(look)
            assert type_sizes(window) == tuple(2 * size for size in before)
    finally:
        set_scale(1.0)


class _Heard:
    def __init__(self, name, log):
        self.name, self.log = name, log

    def play(self):
        self.log.append(self.name)


def test_cues_tell_a_turned_aperture_from_the_next_frame(demo):
    window = demo("Kelda Pan 200", "expose")
    station, heard = window.station(), []
    station.cue.effects = {name: _Heard(name, heard) for name in ("next", "aperture", "error")}
    station.cue.chosen = True
    frames = [f.frame for _, f in window.bench.loaded.shots()]
    QTest.keyClick(station, Qt.Key.Key_Space)
    QTest.keyClick(station, Qt.Key.Key_Space)
    turned = [a.aperture != b.aperture for a, b in pairwise(frames)]
    assert heard == ["aperture" if t else "next" for t in turned[:2]]
    QTest.keyClick(station, Qt.Key.Key_V)
    assert "Sounds are off." in said_by(window)
    QTest.keyClick(station, Qt.Key.Key_Space)
    assert len(heard) == 2
    assert Cue().chosen is False


def test_an_act_of_a_clock_is_heard_unless_sounds_are_off_and_a_frame_only_once_they_are_on():
    cue, heard = Cue(), []
    cue.chosen = None
    cue.effects = {name: _Heard(name, heard) for name in ("next", "aperture", "error")}
    cue.next(turned=False)
    cue.error()
    assert heard == []
    cue.act()
    assert heard == ["aperture"]
    said = []
    cue.toggle(said.append, at_clock=True)
    cue.act()
    assert (said, heard) == (["Sounds are off."], ["aperture"])
    assert Cue().chosen is False


@pytest.mark.parametrize("name", ["next", "aperture", "error"])
def test_a_cue_is_a_short_soft_sound(tmp_path, name):
    with wave.open(str(tone_file(tmp_path, name))) as sound:
        seconds = sound.getnframes() / sound.getframerate()
        samples = sound.readframes(sound.getnframes())
    assert 0.05 < seconds < 0.6
    values = [
        int.from_bytes(samples[i : i + 2], "little", signed=True) for i in range(0, len(samples), 2)
    ]
    assert max(map(abs, values)) < 16000
    assert abs(values[0]) < 200
    assert abs(values[-1]) < 700


def test_a_second_writer_of_one_folder_is_named(tmp_path, open_window):
    first = Notebook(tmp_path / "winter.vadrin")
    window = open_window(tmp_path / "winter.vadrin")
    before = window.bench.notebook.everything()
    window.bench.edit(lambda book: write_note(book, 1, None, "cannot be"))
    assert "reading only" in said_by(window)
    assert window.bench.notebook.everything() == before
    first.close()


def test_circles_are_cleared_on_the_screens_thread_alone(open_window, tmp_path, qtbot):
    """A job that makes thousands of objects clears none of another's away."""
    window = open_window(tmp_path / "winter.vadrin")
    assert not gc.isenabled()
    cleared, done = [], []

    class Circle:
        def __init__(self):
            self.me = self

        def __del__(self):
            cleared.append(threading.current_thread())

    def work(_said):
        Circle()
        return len([[n] for n in range(400_000)])

    window.jobs.run("many", work, done.append)
    qtbot.waitUntil(lambda: bool(done), timeout=20_000)
    assert set(cleared) <= {threading.main_thread()}, "the window may have cleared it by now"
    gc.collect()
    assert cleared == [threading.main_thread()]

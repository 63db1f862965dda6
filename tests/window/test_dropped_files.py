"""Files that are dropped are taken by what they are, where they are dropped; none unsaid."""

import numpy as np
import tifffile
from PyQt6.QtCore import QMimeData, QPoint, QPointF, Qt, QUrl
from PyQt6.QtGui import QDragEnterEvent, QDropEvent
from PyQt6.QtWidgets import QApplication

from tests.window.pages import refusal_of, said_by
from vadrin.notebook.records import Reading

TABLE = "strip,frame,time_min,log_h,density\nA,1,8,,0.2\nA,2,8,-2,0.4\nA,3,8,-1,0.9\n"


def drop(window, *paths):
    mime = QMimeData()
    mime.setUrls([QUrl.fromLocalFile(str(path)) for path in paths])
    left, none = Qt.MouseButton.LeftButton, Qt.KeyboardModifier.NoModifier
    copy = Qt.DropAction.CopyAction
    window.dragEnterEvent(QDragEnterEvent(QPoint(9, 9), copy, mime, left, none))
    window.dropEvent(QDropEvent(QPointF(9, 9), copy, mime, left, none))
    QApplication.processEvents()


def test_all_that_are_dropped_are_taken_and_what_is_asked_of_one_comes_first(
    qtbot, open_window, tmp_path
):
    window = open_window(tmp_path / "winter.vadrin")
    for name in ("one.csv", "two.csv"):
        (tmp_path / name).write_text(TABLE)
    (tmp_path / "not one.csv").write_text("nothing\nof use\n")
    drop(window, tmp_path / "one.csv", tmp_path / "not one.csv", tmp_path / "two.csv")
    readings = window.bench.notebook.all
    qtbot.waitUntil(lambda: window.banner.isVisible() or window.importing.matcher.isVisible())
    assert len(readings(Reading)) == 3, "the third waits for what is asked of the second"
    assert window.dropped.waiting
    window.importing.matcher.hide()
    window.banner.close_notice()
    qtbot.waitUntil(lambda: len(readings(Reading)) == 6 or window.banner.isVisible())
    assert not window.dropped.waiting


def test_what_still_waits_does_not_go_into_another_notebook(qtbot, open_window, tmp_path):
    window = open_window(tmp_path / "winter.vadrin")
    (tmp_path / "not one.csv").write_text("nothing\nof use\n")
    (tmp_path / "two.csv").write_text(TABLE)
    drop(window, tmp_path / "not one.csv", tmp_path / "two.csv")
    assert window.dropped.waiting
    window.files.open(tmp_path / "spring.vadrin")
    window.importing.matcher.hide()
    window.banner.close_notice()
    qtbot.waitUntil(lambda: not window.dropped.waiting)
    assert window.bench.notebook.path.name == "spring.vadrin"
    assert window.bench.notebook.all(Reading) == []


def test_of_two_pictures_and_of_two_notebooks_one_is_taken_and_the_other_named(demo, tmp_path):
    window = demo("Ostrel 400", "read")
    for name in ("strip.TIF", "other.TIF"):
        tifffile.imwrite(tmp_path / name, np.full((200, 900), 50_000, np.uint16))
    drop(window, tmp_path / "strip.TIF", tmp_path / "other.TIF")
    assert "Drop the others after it: other.TIF" in said_by(window)


def test_a_picture_dropped_on_read_is_a_scan(qtbot, demo, tmp_path):
    window = demo("Ostrel 400", "read")
    tifffile.imwrite(tmp_path / "strip.TIF", np.full((200, 900), 50_000, np.uint16))
    drop(window, tmp_path / "strip.TIF")
    qtbot.waitUntil(lambda: not window.jobs.busy("scan"), timeout=20_000)
    assert window.station().shown_page is window.station().scan
    assert "no strip was found" in refusal_of(window)

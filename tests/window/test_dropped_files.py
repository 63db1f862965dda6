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


def test_the_second_of_two_is_named(open_window, tmp_path):
    window = open_window(tmp_path / "winter.vadrin")
    for name in ("one.csv", "two.csv"):
        (tmp_path / name).write_text(TABLE)
    drop(window, tmp_path / "one.csv", tmp_path / "two.csv")
    assert len(window.bench.notebook.all(Reading)) == 3
    assert "Drop the others after it: two.csv" in said_by(window)


def test_a_picture_dropped_on_read_is_a_scan(qtbot, demo, tmp_path):
    window = demo("Ostrel 400", "read")
    tifffile.imwrite(tmp_path / "strip.TIF", np.full((200, 900), 50_000, np.uint16))
    drop(window, tmp_path / "strip.TIF")
    qtbot.waitUntil(lambda: not window.jobs.busy("scan"), timeout=20_000)
    assert window.station().shown_page is window.station().scan
    assert "no strip was found" in refusal_of(window)

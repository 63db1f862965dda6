"""Tables leave the program as tab-separated rows with their heads."""

from PyQt6.QtCore import Qt
from PyQt6.QtGui import QGuiApplication
from PyQt6.QtTest import QTest

from tests.window.pages import CTRL, settle, words_of

COPY = CTRL | Qt.KeyboardModifier.ShiftModifier


def copied(window):
    """What the keys put on the clipboard, as rows of cells."""
    QGuiApplication.clipboard().setText("")
    QTest.keyClick(window, Qt.Key.Key_C, COPY)
    return [line.split("\t") for line in QGuiApplication.clipboard().text().splitlines()]


def test_pushes_and_strips_of_a_finding(demo):
    window = demo("Merrow Pan 125", "finding")
    rows = copied(window)
    assert rows[0] == ["", "Shoot at EI", "Develop", "Shadow detail", "Shadows"]
    push = next(row for row in rows if row[0] == "push 1")
    assert push[1] == "160"
    assert push[2].startswith("9:20")
    gap = rows.index([""])
    assert rows[gap + 1][:2] == ["Strip", "Time"]
    assert [row[0] for row in rows[gap + 2 :]] == ["A", "B", "C", "D", "E"]
    assert {len(row) for row in rows[gap + 1 :]} == {len(rows[gap + 1])}
    assert "on the clipboard" in words_of(window)


def test_nothing_is_copied_where_nothing_is_known(demo):
    window = demo("Kelda Pan 200", "finding")
    assert all(len(row) < 3 or "not tested" in row for row in copied(window)[1:])


def test_the_table_of_films(qtbot, demo):
    window = demo("Merrow Pan 125", "curves")
    QTest.keyClick(window, Qt.Key.Key_B, CTRL)
    settle(qtbot, window)
    heads, first = copied(window)
    assert heads[:3] == ["Film", "In", "Answer"]
    assert first[:3] == ["Merrow Pan 125 M3", "Sable 1+1", "EI 80, 7:35 min"]
    assert len(heads) == len(first)

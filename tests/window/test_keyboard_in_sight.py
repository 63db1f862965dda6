"""Wherever Tab goes, what has the keyboard is seen: at every station, size and size of type."""

import pytest
from PyQt6.QtCore import Qt
from PyQt6.QtTest import QTest
from PyQt6.QtWidgets import QAbstractButton, QApplication, QLineEdit

from tests.window.pages import settle
from vadrin.ui.theme import typeface
from vadrin.ui.widgets.keyboard import part_in_sight

STATIONS = ("plan", "expose", "process", "read", "curves", "print", "finding", "cards", "cupboard")
STEPS = 24


@pytest.mark.parametrize("size", [(1280, 800), (1024, 700)], ids=str)
@pytest.mark.parametrize("scale", [1.0, 2.0])
def test_whatever_tab_comes_to_is_seen_whole(qtbot, demo, scale, size):
    typeface.set_scale(scale)
    window = demo("Merrow Pan 125", "plan")
    window.resize(*size)
    unseen = []
    for station in STATIONS:
        window.bench.go(station)
        settle(qtbot, window)
        for _ in range(STEPS):
            QTest.keyClick(QApplication.focusWidget() or window, Qt.Key.Key_Tab)
            # What gets the keyboard is scrolled to in the next turn.
            QApplication.processEvents()
            QApplication.processEvents()
            held = QApplication.focusWidget()
            seen = part_in_sight(held)
            small = isinstance(held, QLineEdit | QAbstractButton)
            if seen.isEmpty() or (small and seen.height() < 0.9 * held.height()):
                unseen.append((station, held.accessibleName() or type(held).__name__))
    assert unseen == []

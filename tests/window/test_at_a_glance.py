"""Every screen at a glance: one colour a meaning, pages that stand still, the answer once."""

import numpy as np
import pytest
from PyQt6.QtCore import QPoint, Qt
from PyQt6.QtGui import QColor, QImage
from PyQt6.QtWidgets import QLabel

from tests.window.pages import Hands, settle
from vadrin.app.document.stations import PLACES
from vadrin.app.results.headline import headline_of
from vadrin.ui.theme.look import DAY, DIM
from vadrin.ui.theme.typeface import px
from vadrin.ui.widgets.buttons import PlaceLink

MARKED = {"plan", "read", "curves", "finding"}
"""Stations with curves or film on which the finding's points are marked."""
PAGED = {"process": 8, "read": 5, "print": 5}


def red_pixels(window, look):
    """How many pixels have the grease pencil's colour."""
    image = window.grab().toImage().convertToFormat(QImage.Format.Format_RGB32)
    bits = image.constBits().asarray(image.sizeInBytes())
    pixels = np.frombuffer(bits, np.uint8).reshape(image.height(), image.width(), 4)[..., 2::-1]
    red = QColor(look.grease)
    return int(np.all(pixels == (red.red(), red.green(), red.blue()), axis=-1).sum())


@pytest.mark.parametrize("look", [DAY, DIM], ids=lambda look: look.name)
def test_the_red_pencil_marks_the_finding_and_nothing_else(qtbot, demo, look):
    window = demo("Merrow Pan", "curves")
    window.set_look(look)
    settle(qtbot, window)
    assert red_pixels(window, look) > 20, "the speed points are marked"
    for place in PLACES:
        if place.name in MARKED:
            continue
        window.bench.go(place.name)
        settle(qtbot, window)
        assert red_pixels(window, look) == 0, place.name


@pytest.mark.parametrize("station", PAGED)
def test_links_to_pages_stand_still_and_mark_the_present(qtbot, demo, station):
    window = demo("Merrow Pan", station)
    shown = window.station()
    before = None
    for name in shown.links:
        if name in ("patches", "trace"):
            continue
        shown.turn_to(name)
        settle(qtbot, window)
        links = [b for b in shown._head.findChildren(PlaceLink) if b.isVisible()]
        places = [(b.text(), b.mapTo(window, QPoint(0, 0)), b.size()) for b in links]
        assert before in (None, places), name
        before = places
        assert len(links) == PAGED[station]
        assert [b.text() for b in links if b.isChecked()] == [shown.links[name]]


@pytest.mark.parametrize("film", ["Merrow Pan", "Ostrel"])
def test_strips_are_full_where_one_looks_at_film_and_bars_elsewhere(qtbot, demo, film):
    window = demo(film, "plan")
    strips = len(window.bench.loaded.strips)
    full = px(46) * strips + px(18)
    for place in PLACES:
        window.bench.go(place.name)
        settle(qtbot, window)
        high = window.table.height()
        assert high == full if place.film else high <= px(64), place.name
    window.bench.go("process")
    Hands(qtbot, window).press(Qt.Key.Key_F4)
    assert window.table.height() == full
    Hands(qtbot, window).press(Qt.Key.Key_F4)
    assert window.table.height() <= px(64)
    window.bench.open_test(None)
    settle(qtbot, window)
    assert not window.table.isVisible(), "no band for nothing"


@pytest.mark.parametrize("film", ["Merrow Pan", "Ostrel", "Brannock 400 B7"])
def test_no_headline_is_said_twice(qtbot, demo, film):
    window = demo(film, "finding")
    said = headline_of(window.bench.state)
    for headline in filter(None, (said.index, said.time, said.next_act)):
        labels = [
            label
            for label in window.findChildren(QLabel)
            if label.isVisible() and label.text() == headline
        ]
        assert len(labels) == 1, headline


def test_beside_a_station_warnings_and_the_next_step_come_before_the_rest(qtbot, demo):
    window = demo("Brannock 400 B7", "read")
    heads = [x.text() for x in window.finding.column.findChildren(QLabel) if x.isVisible()]
    order = [
        heads.index(words) for words in ("Warnings", "Next step", "Shoot at", "What it rests on")
    ]
    assert order == sorted(order)
    step = next(x for x in window.finding.column.findChildren(QLabel) if x.text() == "Next step")
    at = step.mapTo(window, QPoint(0, step.height())).y()
    assert at < window.height() - px(120), "above the fold"


def test_no_band_is_kept_for_steps_of_no_test(qtbot, open_window, tmp_path):
    window = open_window(tmp_path / "new.vadrin")
    hands = Hands(qtbot, window)
    window.resize(1024, 700)
    settle(qtbot, window)
    assert window.rail.flat
    assert not window.rail.isVisible()
    hands.press(Qt.Key.Key_N, Qt.KeyboardModifier.ControlModifier)
    hands.press(Qt.Key.Key_Return)
    settle(qtbot, window)
    assert window.rail.isVisible()

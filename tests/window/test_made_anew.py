"""A look or a type size is changed at any moment, and nothing that was begun is lost by it."""

import threading

import numpy as np
import pytest
import tifffile
from PyQt6 import sip
from PyQt6.QtCore import Qt
from PyQt6.QtTest import QTest
from PyQt6.QtWidgets import QAbstractScrollArea, QApplication

from tests.notebooks import new_test
from tests.window.pages import (
    CTRL,
    Hands,
    button_of,
    field_of,
    refusal_of,
    said_by,
    settle,
    words_of,
)
from vadrin.app.document.workbench import Topic
from vadrin.core.simulation.scanner import Scanner, scanned_strip
from vadrin.notebook.records import Frame, Instrument, PrintStrip, Reading, RunEvent
from vadrin.ui.jobs import SlicedJob
from vadrin.ui.stations.plan.forecast_panel import ForecastPanel
from vadrin.ui.widgets.deleting import delete_now

ALT = Qt.KeyboardModifier.AltModifier
WEDGE = (0.05, 0.25, 0.55, 0.9, 1.3, 1.75, 2.2, 2.7)


@pytest.fixture(params=["type", "look"])
def change(request, qtbot):
    """Change the type size, or the look, by its key."""

    def press(window):
        hands = Hands(qtbot, window)
        if request.param == "type":
            hands.press(Qt.Key.Key_Plus, CTRL)
        else:
            window.next_look()
        window.updates.flush()

    return press


def at(qtbot, demo, film, station, key):
    window = demo(film, station)
    hands = Hands(qtbot, window)
    window.station().setFocus()
    hands.press(key, ALT)
    return window, hands


def kept_instrument(book, kind):
    """The first instrument of a kind in the cupboard; made where there is none."""
    with book.change("an instrument"):
        made = Instrument(name=f"the {kind}", kind=kind, port="simulated")
        kept = (i for i in book.all(Instrument) if i.kind == kind and i.port)
        return next(kept, None) or book.add(made)


def test_the_clock_stays_and_its_thermometer_goes_on(qtbot, demo, change):
    window, _ = at(qtbot, demo, "Kelda Pan 200", "process", Qt.Key.Key_K)
    book = window.bench.notebook
    name = kept_instrument(book, "thermometer").name
    button_of(window.station(), "Start the clock").click()
    button_of(window.station(), "Connect the thermometer").click()
    change(window)
    assert window.station().shown == "clock"
    assert button_of(window.station(), f"Disconnect {name}")

    def noted():
        return [e for e in book.all(RunEvent) if e.value is not None]

    qtbot.waitUntil(lambda: bool(noted()), timeout=10_000)
    window.bench.go("shelf")
    change(window)
    before = len(noted())
    # The bath hardly changes meanwhile: whatever it says next is worth noting again.
    window.ears.listening.lines["thermometer"]._noted = None
    qtbot.waitUntil(lambda: len(noted()) > before, timeout=20_000)
    button_of(window.pages.station("process"), f"Disconnect {name}").click()
    assert not window.ears.listening.lines


def test_a_densitometer_is_heard_once(qtbot, demo, change):
    window = demo("Ostrel 400", "read")
    book = window.bench.notebook
    name = kept_instrument(book, "densitometer").name
    threads = threading.active_count()
    button_of(window.station(), "Connect the densitometer").click()
    heard = threading.active_count() - threads
    for _ in range(3):
        change(window)
    assert threading.active_count() - threads == heard, "no line was left behind"
    before = len(book.all(Reading))
    button_of(window.station(), "Simulate a reading").click()
    qtbot.waitUntil(lambda: len(book.all(Reading)) == before + 1, timeout=10_000)
    button_of(window.station(), f"Disconnect {name}").click()
    assert not window.ears.listening.lines


def test_an_open_scan_keeps_the_frames_that_were_moved(qtbot, demo, change, tmp_path):
    window, hands = at(qtbot, demo, "Ostrel 400", "read", Qt.Key.Key_S)
    densities = np.array([f.density for f in window.bench.loaded.strips[0].frames])
    rng = np.random.default_rng(3)
    picture, _ = scanned_strip(Scanner(), densities, densities[0], rng, 80, WEDGE)
    tifffile.imwrite(tmp_path / "strip.tif", picture)
    window.station().scan.open(tmp_path / "strip.tif")
    # While it comes the type may change, and another test be looked at.
    change(window)
    here = window.bench.loaded.test.id
    window.bench.open_test(1)
    qtbot.waitUntil(lambda: not window.jobs.busy("scan"), timeout=20_000)
    window.bench.open_test(here)
    window.updates.flush()
    assert window.station().scan.scan is not None
    window.station().setFocus()
    hands.press(Qt.Key.Key_Right, times=3)
    place = window.station().scan.scan.place
    change(window)
    assert window.station().scan.scan.place == place
    assert window.station().shown_page is window.station().scan
    other = window.bench.loaded.test.id
    window.bench.open_test(1)
    window.updates.flush()
    assert window.station().scan.scan is None, "it belongs to the other test"
    window.bench.open_test(other)
    window.updates.flush()
    assert window.station().scan.scan.place == place


def test_a_half_typed_word_and_a_refusal_stay_where_they_are(qtbot, demo, change):
    window = demo("Kelda Pan 200", "plan")
    hands = Hands(qtbot, window)
    field = window.station().fields["last"]
    field_before = field.text()
    field.setFocus()
    hands.write("+400")
    refused = refusal_of(window)
    assert refused
    change(window)
    assert refusal_of(window) == refused
    assert window.station().fields["last"].text() == field_before
    fresh = window.station().fields["last"]
    fresh.setFocus()
    hands.press(Qt.Key.Key_Escape)
    hands.write("+4", None)
    change(window)
    assert QApplication.focusWidget() is window.station().fields["last"]
    assert window.station().fields["last"].text() == "+4"
    assert window.bench.loaded.test.last_stop != 4.0, "not taken before Enter"
    hands.write("")
    assert window.bench.loaded.test.last_stop == 4.0
    change(window)
    hands.write("+3")
    assert window.bench.loaded.test.last_stop == 3.0, "typed in the place of a word in force"


def test_a_question_that_stands_open_stays_with_its_test(qtbot, demo, change):
    window = demo("Skerry Fine 50", "expose")
    hands = Hands(qtbot, window)
    window.station().setFocus()
    hands.press(Qt.Key.Key_M)
    hands.write("1")
    assert "The light is" in words_of(window.station())
    asked, here = window.station().asked.prompt.text(), window.bench.loaded.test.id
    change(window)
    assert window.station().asked.prompt.text() == asked
    assert window.station().asked.isVisible()
    others = [t for t in (1, 2, 3, 4) if t != here]
    window.bench.open_test(others[0])
    window.updates.flush()
    assert not window.station().asked.isVisible(), "another test was not asked"
    frames = window.bench.notebook.all(Frame)
    hands.press(Qt.Key.Key_1)
    assert window.bench.notebook.all(Frame) == frames
    window.bench.open_test(here)
    window.updates.flush()
    window.station().setFocus()
    hands.press(Qt.Key.Key_1)
    assert "Set for the light as it is" in said_by(window)


def test_pages_belong_to_tests(qtbot, demo):
    window, _ = at(qtbot, demo, "Ostrel 400", "read", Qt.Key.Key_J)
    assert window.station().shown_page is window.station().verdicts
    window.bench.open_test(1)
    window.updates.flush()
    assert window.station().shown_page is window.station().densities
    assert QApplication.focusWidget() is field_of(window, "density of the selected frame")


def test_the_keys_over_the_window_give_the_keyboard_to_what_is_seen(qtbot, demo):
    window = demo("Merrow Pan 125", "finding")
    hands = Hands(qtbot, window)
    for station in ("films", "read", "finding"):
        window.bench.go(station)
        window.updates.flush()
        hands.press(Qt.Key.Key_F1)
        assert QApplication.focusWidget() is window.over.keys
        hands.press(Qt.Key.Key_Plus, CTRL)
        assert not window.over.keys.isVisible(), "its type is another"
        hands.press(Qt.Key.Key_F1)
        hands.press(Qt.Key.Key_Escape)
        held = QApplication.focusWidget()
        assert held is not None, station
        assert held.isVisible(), station
        hands.press(Qt.Key.Key_Minus, CTRL)
        hands.press(Qt.Key.Key_F1)
        window.bench.go("shelf")
        window.updates.flush()
        assert not window.over.keys.isVisible(), "it was asked for at another station"


def test_a_finding_without_a_target_has_none_under_the_keyboard(qtbot, open_window, tmp_path):
    window = open_window(tmp_path / "winter.vadrin")
    test = new_test(window.bench.notebook, "Cairn Pan 100", "Sable", "1+1", kind="mixed roll")
    window.bench.open_test(test.id)
    window.bench.go("finding")
    hands = Hands(qtbot, window)
    hands.settle()
    before = window.bench.notebook.everything()
    hands.press(Qt.Key.Key_Up, times=3)
    assert window.bench.notebook.everything() == before
    assert QApplication.focusWidget().isVisible()


def test_after_a_strip_is_exposed_a_number_chooses_a_piece(qtbot, demo):
    window, hands = at(qtbot, demo, "Merrow Pan 125", "print", Qt.Key.Key_T)
    made = button_of(window.station(), "Mark as exposed")
    made.setFocus()
    qtbot.mouseClick(made, Qt.MouseButton.LeftButton)
    window.updates.flush()
    QApplication.processEvents()
    hands.press(Qt.Key.Key_3)
    strips = window.bench.notebook.all(PrintStrip)
    assert strips[-1].chosen == 3
    assert field_of(window.station(), "reflection densities").text() == "—"


def test_a_window_closed_at_once_after_its_type_grew_is_closed(qtbot, demo):
    window = demo("Kelda Pan 200", "plan")
    QTest.keyClick(window.station(), Qt.Key.Key_Plus, CTRL)
    window.close()
    window.bench.changed.emit(Topic.EVERYTHING)
    with qtbot.captureExceptions() as raised:
        for _ in range(3):
            QApplication.processEvents()
    assert raised == [], "what stood for the next turn has nothing to be shown in"


def test_python_knows_what_qt_deleted_with_a_station(qtbot, demo):
    """A port not known to be gone is taken for the next widget at its place: a crash."""
    window = demo("Kelda Pan 200", "curves")
    for station in ("plan", "shelf", "finding"):
        window.bench.go(station)
        window.updates.flush()
    areas = window.pages.findChildren(QAbstractScrollArea)
    ports = [area.viewport() for area in areas]
    assert len(ports) > 6
    window.scale_type(1)
    qtbot.waitUntil(lambda: all(sip.isdeleted(area) for area in areas))
    assert all(sip.isdeleted(port) for port in ports)


def test_a_film_that_becomes_known_after_its_column_is_gone_is_nobodys_news(qtbot, demo):
    """The column is lent to the frame of the window, which may let it go before the panel."""
    window = demo("Kelda Pan 200", "plan")
    settle(qtbot, window)
    panel = window.findChild(ForecastPanel)
    delete_now(panel.forecast_column)
    panel.forecaster.film_known.emit(panel.film)


def test_a_window_closed_while_films_are_looked_at_is_closed(qtbot, demo):
    window = demo("Merrow Pan 125", "shelf")
    window.bench.go("tonight")
    window.updates.flush()
    assert window.findChildren(SlicedJob), "it looks at one film a turn"
    window.close()
    # Whatever still reads the notebook that was let go raises, and fails the test.
    qtbot.waitUntil(lambda: not window.findChildren(SlicedJob))
    assert not window.isVisible()

"""What is typed takes the place of what stood there, however the keyboard came to the field."""

import pytest
from PyQt6.QtCore import Qt
from PyQt6.QtTest import QTest
from PyQt6.QtWidgets import QApplication

from tests.notebooks import new_test
from tests.window.pages import Hands, field_of, said_by, type_into, words_of
from vadrin.app.plan.variants import CHOICES
from vadrin.app.process.darkroom_runs import begin_run
from vadrin.app.process.uptime import moment_now
from vadrin.notebook.records import Test
from vadrin.ui.widgets.line_field import Field

ALT = Qt.KeyboardModifier.AltModifier


def clicked(field):
    QTest.mouseClick(field, Qt.MouseButton.LeftButton)
    QApplication.processEvents()


def test_a_word_that_is_clicked_on_is_replaced(qtbot, demo):
    window = demo("Kelda Pan 200", "process")
    hands = Hands(qtbot, window)
    window.station().setFocus()
    hands.press(Qt.Key.Key_K, ALT)
    field = window.station().clock.warmth
    clicked(field)
    hands.write("21,5")
    assert window.bench.loaded.test.bath_c == 21.5
    assert field.text() == "21.5"


@pytest.mark.parametrize("name", ["tank", "bath", "tap"])
def test_a_second_word_after_enter_replaces_the_first(qtbot, demo, name):
    window = demo("Kelda Pan 200", "process")
    hands = Hands(qtbot, window)
    window.station().setFocus()
    hands.press(Qt.Key.Key_R, ALT)
    field = window.station().recipe.fields[name]
    field.setFocus()
    first, second = ("700", "800") if name == "tank" else ("21", "22")
    hands.write(first)
    hands.write(second)
    assert second in field.text()
    assert first not in field.text()


def test_a_letter_with_alt_that_is_no_shortcut_is_not_typed(qtbot, demo):
    window = demo("Brannock 400 B7", "process")
    station = window.station()
    station.turn_to("got")
    field = QApplication.focusWidget()
    assert isinstance(field, Field)
    before = field.text()
    QTest.keyClick(field, Qt.Key.Key_X, ALT)
    assert field.text() == before
    QTest.keyClick(field, Qt.Key.Key_9)
    assert field.text() == "9", "without Alt it is"


def test_the_shelf_s_search_begins_anew_when_it_is_come_back_to(qtbot, demo):
    window = demo("Merrow Pan 125", "shelf")
    search = field_of(window.station(), "filter")
    clicked(search)
    QTest.keyClicks(search, "kelda")
    window.station().take_focus()
    clicked(search)
    QTest.keyClicks(search, "merrow")
    assert search.text() == "merrow"


def test_every_field_of_every_station_is_of_the_kind_that_replaces(demo):
    window = demo("Merrow Pan 125", "plan")
    from PyQt6.QtWidgets import QLineEdit

    for station in ("plan", "process", "read", "print", "finding", "cards", "shelf", "question"):
        window.bench.go(station)
        window.updates.flush()
        own = window.station().findChildren(QLineEdit)
        assert all(isinstance(field, Field) for field in own), station


def test_a_program_that_died_with_film_in_the_tank_opens_on_its_clock(open_window, tmp_path):
    window = open_window(tmp_path / "winter.vadrin")
    book = window.bench.notebook
    new_test(book, "Skerry Fine 50", "Sable", "1+1", times=(12.0,))
    test = new_test(book, "Kelda Pan 200", "Sable", "1+1", times=(8.0,))
    window.bench.open_test(test.id)
    begin_run(book, window.bench.loaded, moment_now())
    window.close()
    again = open_window(tmp_path / "winter.vadrin")
    again.notebook_opened()
    assert again.bench.loaded.title == "Kelda Pan 200"
    assert again.station().shown == "clock"
    assert again.station().shown_page is again.station().clock
    assert again.station().clock.face.words.now != "not started"


def test_an_unknown_word_for_what_is_changed_is_refused_and_nothing_starts(qtbot, demo):
    window = demo("Merrow Pan 125", "shelf")
    before = len(window.bench.notebook.all(Test))
    what = field_of(window.station(), "what is changed")
    type_into(what, "the weather")
    assert what.why_refused
    assert "the weather" in words_of(window.station())
    assert what.text() in CHOICES, "what is shown is what would be changed"
    assert len(window.bench.notebook.all(Test)) == before
    type_into(what, "developer")
    type_into(field_of(window.station(), "what it is to be instead"), "Mire")
    assert len(window.bench.notebook.all(Test)) == before + 1


def test_what_was_said_of_one_test_is_not_read_in_another(demo):
    window = demo("Merrow Pan 125", "cards")
    window.bench.said.emit("Saved p8.pdf")
    assert said_by(window) == "Saved p8.pdf"
    window.bench.open_test(5)
    window.updates.flush()
    assert "p8" not in said_by(window)
    window.bench.said.emit("Undone: a reading.")
    window.bench.refresh()
    window.updates.flush()
    assert said_by(window) == "Undone: a reading."


def test_enter_in_a_field_is_the_fields_alone_and_both_arrows_walk(qtbot, demo):
    window = demo("Brannock 400 B7", "read")
    hands = Hands(qtbot, window)
    window.station().turn_to("verdicts")
    frames = [f.frame.id for _, f in window.bench.loaded.frames()]
    window.bench.select(frames[4])
    window.station().setFocus()
    for key, place in ((Qt.Key.Key_Right, 5), (Qt.Key.Key_Down, 6), (Qt.Key.Key_Left, 5)):
        hands.press(key)
        assert window.bench.frame_id == frames[place]
    window.bench.go("print")
    hands.settle()
    hands.press(Qt.Key.Key_Down)
    assert window.bench.frame_id == frames[6]
    window.bench.go("plan")
    hands.settle()
    passed = []
    window.station().keyPressEvent = lambda event: passed.append(event.key())
    field = window.station().fields["ei"]
    field.setFocus()
    hands.write("250")
    assert passed == [], "what lies under a field gets no Enter that was the field's"

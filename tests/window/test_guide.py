"""Looking things up without leaving the work: the guide, and the words that stand here."""

from PyQt6.QtCore import Qt
from PyQt6.QtTest import QTest
from PyQt6.QtWidgets import QApplication, QLabel

from tests.window.pages import Hands, field_of, words_of
from vadrin.app.document.stations import PLACES
from vadrin.app.overview.guide import explained, guide_parts, parts_about, terms
from vadrin.ui.theme.look import DIM

SHIFT = Qt.KeyboardModifier.ShiftModifier


def test_the_guide_opens_over_the_work_finds_words_and_gives_the_keyboard_back(qtbot, demo):
    window = demo("Merrow Pan 125", "plan")
    hands = Hands(qtbot, window)
    held = field_of(window, "batch")
    held.setFocus()
    hands.press(Qt.Key.Key_F1, SHIFT)
    guide = window.over.guide
    assert guide.isVisible()
    whole = guide.page.toPlainText()
    for station in ("Plan", "Expose", "Process", "Read", "Curves", "Finding", "Cards"):
        assert station in whole
    assert "](" not in whole
    QTest.keyClicks(guide.field, "Thermometer")
    few = guide.page.toPlainText()
    assert "thermometer" in few.lower()
    assert len(few) < len(whole)
    assert guide.page.extraSelections(), "every place of the word is marked"
    guide.field.setText("zzz")
    assert guide.none.isVisible()
    hands.press(Qt.Key.Key_Escape)
    assert not guide.isVisible()
    assert QApplication.focusWidget() is held


def test_a_key_explains_the_words_where_they_stand(qtbot, demo):
    window = demo("Merrow Pan 125", "plan")
    hands = Hands(qtbot, window)
    field_of(window, "EI on the meter").setFocus()
    hands.press(Qt.Key.Key_F9)
    assert "exposure index (EI): the number set on the meter" in words_of(window.banner)
    window.banner.close_notice()
    window.bench.go("curves")
    hands.settle()
    hands.press(Qt.Key.Key_F9)
    said = words_of(window.banner)
    assert "average gradient" in said
    assert "slope" in said


def test_every_term_is_found_by_its_own_name_and_never_inside_another_word():
    assert len(terms()) > 60
    for term in terms():
        assert term in explained(f"about {term.names[0]}, say")
    assert explained("shortstop, depushed, eight") == ()
    assert [t.names[0] for t in explained("two pushes after base plus fog")][-1] == "base plus fog"
    assert len(parts_about("")) == len(guide_parts())


def test_f1_shows_each_station_as_it_looks_by_day_and_nothing_that_shines_in_the_dark(qtbot, demo):
    window = demo("Merrow Pan 125", "plan")
    hands = Hands(qtbot, window)

    def pictures():
        labels = window.over.keys.findChildren(QLabel)
        return [x for x in labels if not x.pixmap().isNull() and x.isVisible()]

    for place in PLACES:
        if not place.purpose:
            continue
        window.bench.go(place.name)
        hands.settle()
        window._toggle_help()
        hands.settle()
        assert [x.accessibleName()[:7] for x in pictures()] == ["picture"], place.name
        window._toggle_help()
    window.set_look(DIM)
    window._toggle_help()
    hands.settle()
    assert pictures() == []

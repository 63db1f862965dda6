"""Sentences that wrap, words typed in place, and the other words people use for a choice."""

import math
from itertools import pairwise

import pytest
from hypothesis import HealthCheck, given, settings
from hypothesis import strategies as st
from PyQt6.QtWidgets import QApplication, QLabel

from tests.window.pages import DOWN, ENTER, ESCAPE, UP, type_into
from vadrin.app.display.quantities import (
    minutes_brief,
    neutral_density_text,
    shadow_detail_text,
    times_tested_text,
)
from vadrin.app.display.words import counted, list_text
from vadrin.app.entry.choices import _ALSO, choice_typed
from vadrin.app.entry.exposures import otherwise_typed
from vadrin.app.entry.times import minutes_typed
from vadrin.app.plan.plan_words import CHECKS, ORDERS, STEP_WORDS
from vadrin.app.results.push_rows import RULE_NAMES, rule_typed
from vadrin.core.exposure.arithmetic import exact_ei, marked_ei, stops_counted
from vadrin.core.exposure.camera import shutter_marks
from vadrin.core.exposure.shutter_dial import exact_shutter, shutter_mark, shutter_name
from vadrin.errors import EntryError
from vadrin.ui.widgets.fields import WordField
from vadrin.ui.widgets.labels import text
from vadrin.ui.widgets.sentence import FlowLayout, flowing, sentence

SOME = st.sampled_from(["a", "the", "strip", "of", "developed", ",", ".", "min", "x" * 60])
WORDS = st.lists(SOME, min_size=1, max_size=14)
ON_ONE_SCREEN = [HealthCheck.function_scoped_fixture]


def laid(qtbot, parts, width):
    """A sentence at a width, and where each of its words lies."""
    holder = sentence(*parts)
    qtbot.addWidget(holder)
    holder.resize(width, 600)
    holder.show()
    QApplication.processEvents()
    flow = holder.layout()
    assert isinstance(flow, FlowLayout)
    return holder, [word.box for word in flow.plain_words]


@given(words=WORDS, width=st.integers(60, 700))
@settings(max_examples=40, deadline=None, suppress_health_check=ON_ONE_SCREEN)
def test_a_sentence_stays_in_its_width_and_no_word_lies_on_another(qtbot, words, width):
    # No sentence has two marks in a row.
    marks = {",", ".", ";", ":"}
    words = [w for before, w in pairwise(["a", *words]) if not marks >= {before, w}]
    holder, boxes = laid(qtbot, ["a", *words], width)
    for box in boxes:
        assert box.left() >= 0
        assert box.right() <= holder.width() + 8, "only punctuation may hang out, by a hair"
    for place, box in enumerate(boxes):
        assert not any(box.intersects(other) for other in boxes[place + 1 :])
    last = max(box.bottom() for box in boxes)
    assert last <= holder.minimumHeight() + 2, "and as high as it says"


@pytest.mark.parametrize("mark", [",", ".", ";"])
def test_punctuation_stays_with_its_word(qtbot, mark):
    for width in range(80, 300, 7):
        _, boxes = laid(qtbot, ["one", "two", "three", mark, "four"], width)
        word, stop = boxes[2], boxes[3]
        assert stop.top() - word.top() < word.height(), width
        assert 0 <= stop.left() - word.right() < 4


def test_a_sentence_is_read_with_what_stands_in_its_fields(qtbot):
    field = WordField("count", lambda words: None)
    field.show_value("5")
    holder = sentence("Make", field, "strips", ",", "no more.")
    qtbot.addWidget(holder)
    assert (holder.text(), holder.whole()) == ("Make strips , no more.", "Make 5 strips, no more.")


def test_widgets_on_a_line_share_its_middle(qtbot):
    small, large = text("a"), text("b")
    small.setFixedSize(30, 12)
    large.setFixedSize(30, 40)
    holder = flowing(small, large)
    qtbot.addWidget(holder)
    holder.resize(200, 60)
    holder.show()
    QApplication.processEvents()
    assert abs(small.geometry().center().y() - large.geometry().center().y()) <= 1


class TestAWordTypedInPlace:
    @pytest.fixture
    def word(self, qtbot):
        """A word that takes numbers, and what it was given."""
        taken = []

        def commit(words):
            if not words.isdigit():
                raise EntryError(f"“{words}” is no number")
            taken.append(words)
            field.show_value(words)

        field = WordField("count", commit, lambda shown, way: str(int(shown) + way))
        field.taken = taken
        field.said = []
        field.refused.connect(field.said.append)
        qtbot.addWidget(field)
        field.show_value("5")
        field.show()
        return field

    def test_enter_and_leaving_hand_it_on_once(self, word):
        type_into(word, "7")
        word.clearFocus()
        assert word.taken == ["7"]
        type_into(word, "7")
        assert word.taken == ["7"], "what is shown already is no edit"

    def test_arrows_step_it_and_words_that_mean_nothing_are_refused(self, qtbot, word):
        qtbot.keyClick(word, UP)
        assert word.taken == ["6"]
        word.setText("many")
        qtbot.keyClick(word, DOWN)
        assert word.taken == ["6"]
        assert "many" in word.said[-1]
        assert word.why_refused

    def test_refused_words_stand_beside_until_the_next_key(self, qtbot, word):
        type_into(word, "many")
        word.show_value("5")
        assert (word.text(), word.selectedText()) == ("5", "5"), "what is in force"
        assert "many" in word.said[-1]
        assert word.why_refused, "another field's edit takes the reason away from nobody"
        qtbot.keyClick(word, ESCAPE)
        assert (word.text(), word.why_refused, word.said[-1]) == ("5", "", "")

    def test_where_nothing_is_in_force_refused_words_stay_to_be_mended(self, qtbot, word):
        word.show_value("")
        type_into(word, "many")
        assert (word.text(), word.selectedText()) == ("many", "many")
        assert word.why_refused

    def test_a_value_that_changed_meanwhile_is_shown(self, word):
        type_into(word, "many")
        word.show_value("9")
        assert (word.text(), word.why_refused) == ("9", "")

    def test_asked_again_refused_words_are_tried_again(self, qtbot, word):
        word.show_value("")
        type_into(word, "many")
        count = len(word.said)
        word.clearFocus()
        assert len(word.said) == count, "not by leaving the field"
        word.setFocus()
        qtbot.keyClick(word, ENTER)
        assert len(word.said) == count + 1

    def test_a_long_value_keeps_its_field_short_and_its_whole_in_the_tip(self, word):
        word.show_value("8" * 400)
        QApplication.processEvents()
        assert word.sizeHint().width() <= 460
        word.resize(word.sizeHint())
        QApplication.processEvents()
        assert word.shown_short()
        assert "8" * 400 in word.toolTip()
        assert word.minimumSizeHint().width() < 200


def test_a_name_without_a_space_still_wraps(qtbot):
    label = text("B" * 120, wrap=True)
    assert isinstance(label, QLabel)
    qtbot.addWidget(label)
    label.resize(200, 400)
    label.show()
    metrics = label.fontMetrics()
    runs = label.text().split("\u200b")
    assert max(metrics.horizontalAdvance(run) for run in runs) < 400
    assert "".join(runs) == "B" * 120
    assert label.heightForWidth(300) > 3 * metrics.height()


CHOICES = (
    "developers",
    "stocks",
    "batches",
    *STEP_WORDS,
    *ORDERS,
    *CHECKS,
    "shutter",
    "aperture",
    "shadow",
    "standard",
    *RULE_NAMES.values(),
)


@pytest.mark.parametrize("choice", CHOICES)
def test_every_other_word_for_a_choice_means_it(choice):
    assert choice_typed(choice.upper(), CHOICES) == choice
    for other in _ALSO.get(choice, ()):
        assert choice_typed(f"  {other} ", [c for c in CHOICES if c != other]) == choice


def test_a_word_that_may_mean_two_is_refused_with_both():
    with pytest.raises(EntryError, match="“s”: one of shutter, shadow"):
        choice_typed("s", ["shutter", "shadow"])
    with pytest.raises(EntryError, match="highlight density, mid-tone density"):
        rule_typed("none of them")
    assert {rule_typed(name) for name in RULE_NAMES.values()} == set(RULE_NAMES)


@given(
    seconds=st.sampled_from([2.0**-n for n in range(13)]),
    f=st.sampled_from([2.8, 4, 5.6, 8, 11]),
    first=st.booleans(),
    comma=st.booleans(),
)
def test_settings_are_read_as_they_are_written(seconds, f, first, comma):
    parts = [shutter_name(seconds), f"f/{f:g}"]
    line = " ".join(parts if first else parts[::-1])
    told = otherwise_typed(line.replace("5.6", "5,6").replace("2.8", "2,8") if comma else line)
    assert exact_shutter(told["seconds"]) == pytest.approx(seconds)
    assert told["aperture"] == pytest.approx(f)


@pytest.mark.parametrize(
    ("step", "slowest", "fastest"),
    [(1.0, 1.0, 1 / 1000), (0.5, 1.0, 1 / 4000), (1 / 3, 30.0, 1 / 8000)],
)
def test_no_two_marks_of_a_dial_have_one_name(step, slowest, fastest):
    marks = shutter_marks(slowest, fastest, step)
    names = [shutter_mark(t)[0] for t in marks]
    assert len(set(names)) == len(marks)
    assert [exact_shutter(t) for t in marks] == pytest.approx(marks)
    shares = [t for t in marks if shutter_mark(t)[1]]
    assert bool(shares) == (step == 0.5), "only half marks share a name with another dial's"


@given(minutes=st.integers(1, 3000).map(lambda s: s / 12))
def test_minutes_are_typed_as_they_are_shown(minutes):
    assert minutes_typed(minutes_brief(minutes)) == pytest.approx(minutes, abs=1 / 119)


@given(third=st.integers(-30, 25))
def test_eis_are_named_down_to_a_tenth(third):
    exact = 100.0 * 2.0 ** (third / 3)
    named = marked_ei(exact)
    assert named > 0
    assert abs(math.log2(exact_ei(named) / exact)) < 0.06, "the name leads back"
    assert marked_ei(exact * 2 ** (1 / 3)) > named, "and no two thirds share one"


def test_numbers_come_with_their_noun_in_the_right_number():
    assert [counted(n, "strip") for n in (0, 1, 2)] == ["0 strips", "1 strip", "2 strips"]
    assert [stops_counted(s) for s in (1 / 3, 1, -1, 1.5)] == [
        "⅓ stop",
        "1 stop",
        "1 stop",
        "1½ stops",
    ]
    assert [shadow_detail_text(s) for s in (0.0, -1.0, 5 / 3)] == [
        "no change",
        "+1 stop",
        "−1⅔ stops",
    ]
    assert neutral_density_text(1) == "neutral density of 0.3 (1 stop)"
    assert neutral_density_text(3) == "neutral density of 0.9 (3 stops)"
    assert times_tested_text(8, 8) == "8:00 min tested"
    assert times_tested_text(8, 49 / 6) == "8:00 to 8:10 min tested"
    assert list_text(["a", "b", "c"]) == "a, b and c"

"""Three ways to rate a film without a density: which speaks, and what a decision rests on."""

from dataclasses import replace

import pytest

from tests.notebooks import developed_test
from tests.states import state_of, worked_out
from vadrin.app.decisions.darkroom_card import present_card
from vadrin.app.decisions.decision import choose_method, decide
from vadrin.app.decisions.decision_basis import changes_since_decision
from vadrin.app.document.test_loading import load_test
from vadrin.app.printing.contact_sheet import (
    contact_words,
    give_paper_verdict,
    pick_best,
    print_beside_the_light_box,
)
from vadrin.app.printing.half_covered import answer_covered, covered_question
from vadrin.app.printing.print_setups import lock_setup, type_setup
from vadrin.app.read.light_box_judging import (
    NO,
    YES,
    answer_question,
    begin_again,
    question_of,
    type_own_threshold,
)
from vadrin.app.results.contact_prints import best_frame, contact_prints
from vadrin.app.results.headline import headline_of
from vadrin.app.results.judged_ei import chosen_ei, judged_ei
from vadrin.app.results.rating import rating_of


class Judged:
    """A roll that was developed and is looked at, never read."""

    def __init__(self, book):
        self.book = book
        self.test = developed_test(
            book, "Kelda Pan 200", kind="speed", times=(8.0,), step=1.0, index=100.0
        )

    @property
    def loaded(self):
        return load_test(self.book, self.test.id)

    @property
    def strip(self):
        return self.loaded.strips[0]

    def on_the_light_box(self, first_told):
        while (asked := question_of(self.loaded, self.strip)).frame is not None:
            stops = asked.frame.frame.stops
            told = YES if stops is not None and stops >= first_told else NO
            answer_question(self.book, self.strip, asked.frame, told)

    def prints_best(self, stops):
        frame = next(f for f in self.strip.frames if f.frame.stops == stops)
        pick_best(self.book, self.strip, frame)

    def rate_by(self, method):
        choose_method(self.book, self.loaded.test, method)

    @property
    def answer(self):
        loaded = self.loaded
        return rating_of(state_of(loaded, worked_out(loaded)))


@pytest.fixture
def roll(notebook):
    return Judged(notebook)


def test_an_eye_that_is_known_is_asked_less_and_is_as_sure(roll):
    looks, widths = [], []
    for known in ("usual", "0.045"):
        type_own_threshold(roll.book, known)
        roll.on_the_light_box(-3)
        looks.append(sum(len(f.judgements) for f in roll.strip.frames))
        index = judged_ei(roll.loaded).index
        widths.append(index.high / index.low)
        begin_again(roll.book, roll.strip)
    assert looks == [8, 7]
    assert widths[1] <= widths[0]


def test_nothing_judged_leaves_nothing_to_rate_by(roll):
    assert judged_ei(roll.loaded) is None
    assert chosen_ei(roll.loaded) is None, "the shadow method reads densities"
    for method, where in (
        ("eye", "Read, Light box"),
        ("paper", "Print"),
        ("contact sheet", "Print, Contact sheet"),
    ):
        roll.rate_by(method)
        assert where in chosen_ei(roll.loaded).why
    assert not roll.answer.ready
    assert contact_words(roll.loaded) == "No contact print was judged yet."
    assert print_beside_the_light_box(roll.loaded) == ""


def test_the_print_is_half_a_step_sure_and_stands_beside_the_light_box(roll):
    roll.prints_best(1.0)
    found = judged_ei(roll.loaded)
    assert found.way.method.key == "contact sheet"
    assert (found.index.low, found.index.value, found.index.high) == pytest.approx(
        (50 / 2**0.5, 50.0, 50 * 2**0.5)
    )
    assert print_beside_the_light_box(roll.loaded).endswith("EI 50.")
    roll.on_the_light_box(-3.0)
    eye = judged_ei(roll.loaded)
    assert eye.way.method.key == "eye", "the light box comes first where nothing was chosen"
    assert eye.index.low < eye.index.value < eye.index.high
    assert print_beside_the_light_box(roll.loaded).endswith("the light box says EI 50, the same.")
    roll.prints_best(2.0)
    assert "the print lies 1.0 stop below" in print_beside_the_light_box(roll.loaded)
    roll.prints_best(1.0)
    roll.rate_by("contact sheet")
    assert roll.answer.index.value == pytest.approx(50.0)
    assert roll.answer.by_eye
    assert "by what prints best on the contact sheet, 1 contact print" in roll.answer.judged.basis(
        roll.loaded
    )


def test_another_frame_takes_the_place_of_the_best_and_the_same_gives_it_up(roll):
    roll.prints_best(1.0)
    roll.prints_best(0.0)
    assert best_frame(roll.strip).frame.stops == 0.0
    assert contact_prints(roll.strip) == 1
    roll.prints_best(0.0)
    assert best_frame(roll.strip) is None
    assert judged_ei(roll.loaded) is None
    roll.book.undo()
    assert best_frame(roll.strip).frame.stops == 0.0


def test_a_decision_by_a_print_minds_another_print_and_no_other(roll):
    roll.prints_best(1.0)
    roll.rate_by("contact sheet")
    loaded = roll.loaded
    analysis = worked_out(loaded)
    card = present_card(state_of(loaded, analysis))
    assert (card.exposure_index, card.time) == ("50", "8:00")
    headline = headline_of(state_of(loaded, analysis))
    assert headline.index == "EI 50"
    assert headline.index_value is None, "no densities, so none that could say the same"
    decide(roll.book, state_of(loaded, analysis))
    frame = roll.strip.frames[5]
    give_paper_verdict(roll.book, frame, "the frame", "use it")
    assert changes_since_decision(roll.loaded) is None, "a verdict is not what it rests on"
    roll.prints_best(0.0)
    assert "what was seen on paper changed" in changes_since_decision(roll.loaded).sentence()
    roll.rate_by("shadow")
    assert "the EI method changed" in changes_since_decision(roll.loaded).changes


def test_half_covered_strips_speak_once_they_tell_both_ways(roll):
    for name, words in (("image size", "18 x 24 cm"), ("aperture", "f/8")):
        type_setup(roll.book, roll.loaded, name, words)
    with roll.book.change("black"):
        setup = lock_setup(roll.book, roll.loaded)
        roll.book.put(replace(setup, black_s=8.0, black_low_s=7.0, black_high_s=9.0))
    roll.rate_by("paper")
    seen, first = 0, covered_question(roll.book, roll.loaded, roll.strip).words
    while (asked := covered_question(roll.book, roll.loaded, roll.strip)).frame is not None:
        stops = asked.frame.frame.stops
        answer_covered(
            roll.book, roll.loaded, roll.strip, asked.frame, "yes" if stops >= -3 else "no"
        )
        seen += 1
    found = chosen_ei(roll.loaded)
    assert "Print frame 1, a blank, on half a strip: 8.0 s." in first
    assert 2 <= seen <= 8
    assert found.low < found.value < found.high
    assert found.low < 100.0 * 2 < found.high * 4
    assert f"{seen} strips" in judged_ei(roll.loaded).basis(roll.loaded)
    before = roll.loaded.covered[-1]
    with roll.book.change("as it was asked before"):
        roll.book.put(replace(before, purpose="half covered", answer="yes"))
    assert f"{seen - 1} strips" in judged_ei(roll.loaded).basis(roll.loaded)
    said = covered_question(roll.book, roll.loaded, roll.strip).result
    assert "1 older strip beside maximum black, where clear film is lighter already" in said

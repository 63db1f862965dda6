"""Nothing is decided, printed or shown that is not the answer to the test as it is now."""

from contextlib import contextmanager
from threading import Event

import pytest
from PyQt6.QtCore import Qt

from tests.states import state_of
from tests.window.pages import CTRL, Hands, field_of, said_by, words_of
from vadrin.app.decisions.decision import decide, write_answer
from vadrin.app.document.answering import Answering, AtOnce
from vadrin.app.document.state import State, answered
from vadrin.app.document.workbench import Workbench
from vadrin.app.read.entering_readings import add_reading
from vadrin.errors import StaleAnswerError
from vadrin.notebook.records import Finding
from vadrin.notebook.store import Notebook


@pytest.fixture
def finding(qtbot, demo):
    """The finding of a film that is read whole, with the wanted contrast under the keyboard."""
    window = demo("Merrow Pan 125", "finding")
    hands = Hands(qtbot, window)
    hands.settle()
    field_of(window.station(), "wanted value").setFocus()
    return hands


@contextmanager
def nothing_worked_out(window):
    """Work waits behind other work, so that an answer is as late as it can be."""
    go_on = Event()
    window.jobs.run("in the way", lambda _said: go_on.wait(), lambda _made: None)
    try:
        yield
    finally:
        go_on.set()


def kept(hands):
    return hands.window.bench.notebook.all(Finding, test_id=hands.window.bench.loaded.test.id)


def test_a_target_stepped_and_decided_at_once_keeps_no_answer_to_another_target(finding):
    before = kept(finding)
    with nothing_worked_out(finding.window):
        finding.press(Qt.Key.Key_Up, times=4)
        finding.press(Qt.Key.Key_D, CTRL)
    assert "still being worked out" in said_by(finding.window)
    assert kept(finding) == before, "nothing was decided"
    finding.settle()
    finding.press(Qt.Key.Key_D, CTRL)
    decided = kept(finding)[-1]
    assert decided.target_value == pytest.approx(0.62)
    now = answered(finding.window.bench.loaded).settled().finding
    assert decided.time_min == pytest.approx(now.time_min.known())
    assert decided.exposure_index == pytest.approx(now.zone_ei.known())


def test_what_is_shown_meanwhile_is_no_number_of_the_test_before(finding):
    shown = words_of(finding.window)
    assert "EI 80" in shown
    with nothing_worked_out(finding.window):
        finding.press(Qt.Key.Key_Up, times=7)
        assert finding.window.bench.analysis is None
        assert "working it out" in words_of(finding.window)
        said = words_of(finding.window.station())
        assert "EI 80" not in said.partition("Decided:")[0]
    finding.settle()
    assert finding.window.bench.analysis is not None


def test_curves_keep_their_place_while_they_are_worked_out_anew(qtbot, demo):
    window = demo("Merrow Pan 125", "curves")
    hands = Hands(qtbot, window)
    hands.settle()
    frame = window.bench.loaded.frames()[5][1]
    with nothing_worked_out(window):
        window.bench.edit(lambda book: add_reading(book, frame, 0.31))
        window.updates.flush()
        assert "being worked out" in words_of(window.station())
        assert window.bench.state.earlier is not None
        assert window.bench.analysis is None
    hands.settle()
    assert window.bench.state.earlier is None
    assert "Five strips" in words_of(window.station())
    with nothing_worked_out(window):
        window.bench.open_test(3)
        assert window.bench.state.earlier is None, "another test's curves are not this one's"


def test_a_state_whose_test_went_on_is_refused_by_whoever_keeps_or_writes_it(finding, tmp_path):
    book, state = finding.window.bench.notebook, finding.window.bench.state
    finding.press(Qt.Key.Key_Up)
    with pytest.raises(StaleAnswerError, match="has changed"):
        decide(book, state)
    stale = State(finding.window.bench.loaded, state.answer)
    with pytest.raises(StaleAnswerError, match="has changed"):
        write_answer(tmp_path / "answer.json", stale)
    assert not (tmp_path / "answer.json").exists()


def test_without_a_screen_the_same_path_answers_at_once(demo_path):
    book = Notebook(demo_path)
    bench = Workbench(book)
    answering = Answering(bench, AtOnce())
    bench.open_test(1)
    assert bench.analysis is None
    answering.ask()
    assert bench.analysis is not None
    assert bench.state == state_of(bench.loaded, bench.analysis)
    book.close()

"""A type of test nobody had thought of: one file a layer, one name in one list."""

import sys
from dataclasses import replace
from importlib.machinery import ModuleSpec
from types import ModuleType

import pytest
from PyQt6.QtCore import Qt
from PyQt6.QtWidgets import QApplication, QLabel

from tests.states import state_of
from tests.window.pages import CTRL, ENTER, SPACE, Hands, settle, words_of
from vadrin.app.decisions.darkroom_card import card_of, usual_card
from vadrin.app.descriptions import PlanSentence, TestDescription, descriptions
from vadrin.app.descriptions.plan_word import option_word
from vadrin.app.entry.numbers import numbers_typed
from vadrin.core.frames import FrameRole
from vadrin.core.planning import test_types
from vadrin.core.planning.layout import lay_out_plan
from vadrin.core.planning.plan_request import PlanRequest
from vadrin.core.planning.strip_plan import PlannedFrame, StripPlan
from vadrin.core.planning.test_options import SecondSteps, options_as
from vadrin.errors import StaleAnswerError
from vadrin.formats.reports.card import CardRow
from vadrin.ui.theme.roles import Role
from vadrin.ui.widgets.labels import text

# The file in core/planning/test_types.


class HalationTest(test_types.TestType):
    """How far light spreads around a lamp, by longer and longer exposures of it."""

    key = "halation"
    repeats_first = False
    not_foretold = "How far light spreads is seen on the film, and cannot be foretold."

    def lay_out(self, request):
        """A blank, then the lamp at the stops asked for."""
        lamps = [
            PlannedFrame(FrameRole.BRACKET, f"lamp {n}", request.exposure_index, stops)
            for n, stops in enumerate(options_as(request.options, SecondSteps).steps, start=1)
        ]
        return [StripPlan("A", (PlannedFrame(FrameRole.BLANK, "b1"), *lamps), request.times[0])]

    def analyse(self, strips, settings):
        """As ever, with the answer's own sentence put before the diagnostics."""
        return super().analyse(strips, replace(settings, draws=0))


# The file in app/test_types.


def halation_card(state):
    """One row for each lamp, and nothing of times."""
    usual = usual_card(state)
    rows = tuple(CardRow(f.name, "", "", "", "") for _, f in state.loaded.frames())
    return replace(usual, rows=rows) if usual else None


HALATION = TestDescription(
    HalationTest.key,
    "How far does light spread around a lamp?",
    "One lamp, longer and longer.",
    sentences=(PlanSentence.ONE_TIME, PlanSentence.OWN),
    options=SecondSteps((0.0, 4.0, 8.0)),
    own_sentence="The lamp at {steps} stops over the meter.",
    own_words={"steps": option_word("stops of the lamp", SecondSteps, "steps", numbers_typed)},
    card=halation_card,
)


# The file in ui/stations/finding/test_types.


def halation_view(scene):
    """The halo's own view."""
    count = scene.loaded.read() if scene.loaded else 0
    return text(f"The halo grows over {count} lamps", Role.HEADING)


@pytest.fixture
def halation(monkeypatch):
    """Its three files, and its name in the one list."""
    for room, given in (
        ("vadrin.core.planning.test_types", {"TYPE": HalationTest()}),
        ("vadrin.app.test_types", {"DESCRIPTION": HALATION}),
        ("vadrin.ui.stations.finding.test_types", {"view": halation_view}),
    ):
        module = ModuleType(f"{room}.halation")
        module.__spec__ = ModuleSpec(module.__name__, None)
        vars(module).update(given)
        monkeypatch.setitem(sys.modules, module.__name__, module)
    monkeypatch.setattr(test_types, "NAMES", (*test_types.NAMES, "halation"))


def test_it_is_planned_shot_read_and_answered_like_any_other(
    qtbot, open_window, tmp_path, halation
):
    window = open_window(tmp_path / "winter.vadrin")
    hands, bench = Hands(qtbot, window), window.bench
    hands.press(Qt.Key.Key_N, CTRL)
    hands.write("halation")
    assert bench.loaded.test.kind == "halation"
    assert "How far does light spread" in words_of(window.station())
    assert "stops over the meter" in words_of(window.station())
    qtbot.waitUntil(lambda: "cannot be foretold" in words_of(window), timeout=20_000)
    assert [f.frame.name for _, f in bench.loaded.frames()] == ["b1", "lamp 1", "lamp 2", "lamp 3"]
    hands.press(Qt.Key.Key_2, CTRL)
    hands.press(SPACE, times=4)
    hands.press(Qt.Key.Key_3, CTRL)
    hands.press(ENTER, CTRL)
    hands.press(Qt.Key.Key_4, CTRL)
    for density in ("0.2", "0.6", "1.4", "2.1"):
        hands.write(density)
    assert bench.loaded.read() == 4
    hands.press(Qt.Key.Key_7, CTRL)
    hands.settle()
    assert "The halo grows over 4 lamps" in words_of(window.station())
    assert bench.analysis.settings.draws == 0, "worked out by the kind itself"


def test_it_stands_among_the_questions_and_leaves_no_trace(qtbot, demo, halation):
    window = demo("Merrow Pan 125", "question")
    questions = window.station().list.model()
    said = [questions.data(questions.index(r), 0) for r in range(questions.rowCount())]
    assert said[-1].startswith("halation: How far does light spread")
    assert len(descriptions()) == 17


def test_its_card_is_its_own(qtbot, demo, halation):
    window = demo("Merrow Pan 125", "cards")
    state = window.bench.state
    assert [r.name for r in card_of(state).rows][:2] == ["pull 1", "normal"]
    test = replace(state.loaded.test, kind="halation")
    with pytest.raises(StaleAnswerError, match="worked out"):
        card_of(replace(state, loaded=replace(state.loaded, test=test, findings=())))
    settled = state_of(replace(state.loaded, test=test, findings=()), state.analysis)
    assert len(card_of(settled).rows) == len(state.loaded.frames())


def test_without_it_nothing_is_left(qtbot, demo):
    assert len(descriptions()) == 16
    window = demo("Merrow Pan 125", "finding")
    settle(qtbot, window)
    QApplication.processEvents()
    assert not [x for x in window.findChildren(QLabel) if "halo" in x.text()]
    with pytest.raises(ValueError, match="halation"):
        lay_out_plan(PlanRequest("halation", 100.0, -3.0, 3.0, 1.0, 1, (8.0,)))

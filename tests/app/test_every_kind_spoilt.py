"""Whatever becomes of a test of any kind, it says what is missing and invents nothing."""

import json
import math
from dataclasses import replace

import numpy as np
import pytest

from tests.app.test_kind_answers import PLAIN, Bench
from tests.states import state_of
from vadrin.app.decisions.cards_offered import card_named, card_names
from vadrin.app.decisions.darkroom_card import card_document
from vadrin.app.decisions.decision import decide, may_decide, whole_report
from vadrin.app.descriptions import descriptions, own_answer
from vadrin.app.document.analysis_input import analyse_as, readings_of, settings_of
from vadrin.app.overview.warnings_of_test import warnings_of
from vadrin.app.results.headline import headline_of
from vadrin.core.channels import Channel
from vadrin.core.figure import Figure
from vadrin.core.planning.test_options import (
    ControlStrips,
    LightsInTurn,
    LongTimes,
    Pushes,
    SecondSteps,
    SharedIndexes,
)
from vadrin.notebook.records import Reading, Strip

KINDS = [page.key for page in descriptions()]
ASKED = {
    "mixed roll": {"times": (60.0, 8.0), "options": SharedIndexes((25.0, 100.0, 400.0))},
    "compare": {"compared_names": ("Tidewrack 1+9",)},
    "two developers": {"compared_names": ("Tidewrack 1+9",)},
    "reciprocity": {"options": LongTimes((1.0, 8.0, 60.0))},
    "colour": {"options": Pushes((0.0, 1.0))},
    "push": {"options": Pushes((0.0, 1.0))},
    "reversal": {"options": SecondSteps((-1.0, 0.0))},
    "process control": {"options": ControlStrips(3)},
    "cine": {"options": LightsInTurn((1, 2)), "first_stop": -1.0, "last_stop": 1.0},
}


def bench_of(book, kind):
    return Bench(book, kind, index=100.0, **ASKED.get(kind, {}))


def channels(kind):
    return (Channel.RED, Channel.GREEN, Channel.BLUE) if kind == "colour" else (Channel.VISUAL,)


def all_alike(bench, kind):
    """Every frame reads the same: the film was never exposed, or never fixed."""
    for channel in channels(kind):
        bench.read(lambda _s, _f: 0.3, channel, noise=0.0)


def at_random(bench, kind):
    """Readings that have nothing to do with exposures."""
    rng = np.random.default_rng(4)
    for channel in channels(kind):
        bench.read(lambda _s, _f: float(rng.uniform(0.1, 2.8)), channel, noise=0.0)


def one_frame(bench, _kind):
    """One reading and no more."""
    first = bench.frames()[0]
    with bench.book.change("one"):
        bench.book.add(Reading(frame_id=first.id, density=0.8))


def no_blanks(bench, kind):
    """Base plus fog was not read."""
    for channel in channels(kind):
        bench.read(
            lambda _s, f: None if f.frame.blank else PLAIN.density(bench.at(f), 8.0), channel
        )


def left_out(bench, kind):
    """Everything was read, and left out again."""
    no_blanks(bench, kind)
    with bench.book.change("left out"):
        for frame in bench.frames():
            for reading in bench.book.all(Reading, frame_id=frame.id):
                bench.book.put(replace(reading, left_out=True))


def without_times(bench, kind):
    """Nobody wrote down how long the strips had."""
    no_blanks(bench, kind)
    with bench.book.change("no times"):
        for strip in bench.book.all(Strip, test_id=bench.test.id):
            bench.book.put(replace(strip, time_min=None, planned_min=None, temperature_c=None))


def contradicted(bench, kind):
    """Verdicts that say the opposite of the densities, frame by frame."""
    no_blanks(bench, kind)
    said = ("use it", "nothing there", "can be salvaged")
    bench.judge(lambda _s, f: said[f.frame.position % 3])


SPOILT = (all_alike, at_random, one_frame, left_out, without_times, contradicted)


def figures_in_order(figures):
    """No figure is endless, and every range has its value inside."""
    for name, told in figures.items():
        if isinstance(told, Figure):
            if told.value is None:
                assert told.why, f"{name} is absent without a reason"
                continue
            assert math.isfinite(told.value), name
            if told.low is not None and told.high is not None:
                assert told.low <= told.value * (1 + 1e-9) + 1e-9, name
                assert told.value <= told.high * (1 + 1e-9) + 1e-9, name
        elif told is not None:
            assert math.isfinite(told), name


@pytest.mark.parametrize("spoil", SPOILT, ids=lambda spoil: spoil.__name__)
@pytest.mark.parametrize("kind", KINDS)
def test_it_says_what_is_missing_and_invents_nothing(notebook, kind, spoil):
    bench = bench_of(notebook, kind)
    spoil(bench, kind)
    loaded = bench.loaded
    # Few draws: whether a range is there is asked here, not how well it holds.
    analysis = analyse_as(kind, readings_of(loaded), settings_of(loaded, draws=24))
    headline = headline_of(state_of(loaded, analysis))
    assert headline.index or headline.index_note, "it always says something"
    own = own_answer(state_of(loaded, analysis))
    if own is not None:
        figures_in_order(own.figures)
        assert own.says or own.words
        assert own.says or own.act or kind == "paper", "what to do where nothing is known"
    for warning in warnings_of(state_of(loaded, analysis)):
        assert warning.sentence.strip()
        assert warning.remedy.strip()
    assert json.loads(json.dumps(whole_report(state_of(loaded, analysis)), allow_nan=False))
    if spoil is left_out and kind != "wrong setting":
        assert not may_decide(state_of(loaded, analysis))
    if may_decide(state_of(loaded, analysis)):
        decide(notebook, state_of(loaded, analysis))
        assert bench.loaded.findings
    else:
        with pytest.raises(ValueError, match=r"."):
            decide(notebook, state_of(loaded, analysis))
    for name in card_names(state_of(loaded, analysis)):
        card = card_named(notebook, state_of(loaded, analysis), name)
        assert card is None or card_document(card, "A6").startswith(b"%PDF")

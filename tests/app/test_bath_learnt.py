"""What a notebook learns of its baths' warmth and agitation: told, or rightly not told."""

from dataclasses import replace

import numpy as np
import pytest

from oracles.film_shapes import SHAPES, varied
from tests.notebooks import developed_test
from vadrin.app.decisions.decision import decide
from vadrin.app.document.state import State, answer_to
from vadrin.app.document.test_loading import load_test
from vadrin.app.learning.bath_learnt import (
    agitations_learnt,
    at_learnt_warmth,
    bath_sentences,
    warmth_learnt,
)
from vadrin.app.learning.estimated_time import estimate_of
from vadrin.app.learning.left_out import leave_estimates_out
from vadrin.app.learning.past_tests import past_tests
from vadrin.app.process.own_factor import keep_factor, learnt_factor
from vadrin.app.read.entering_readings import add_reading
from vadrin.core.learning.contrast_law import ContrastSeen
from vadrin.notebook.records import Developer, Process, Strip, Test
from vadrin.notebook.store import Notebook

WORTH = (5.0, 7.5, 11.0, 16.0)
"""Minutes at 20 °C, usual agitation, that the strips of each film really got."""


def read_film(book, name, rng, speeds, agitation="", keep=True):
    """A film whose strips were developed to the same worth in faster or slower baths.

    `speeds` gives for each strip the temperature that was noted and how fast its bath really was.
    """
    film = varied(SHAPES["plain"], rng)
    times = tuple(w / fast for w, (_, fast) in zip(WORTH, speeds, strict=False))
    test = developed_test(book, name, index=100.0, times=times)
    with book.change("baths"):
        book.put(replace(book.get(Test, test.id), agitation=agitation))
        for strip, (warm, _) in zip(book.all(Strip, test_id=test.id), speeds, strict=False):
            book.put(replace(strip, temperature_c=warm))
    loaded = load_test(book, test.id)
    really = {s.strip.id: w for s, w in zip(loaded.strips, WORTH, strict=False)}
    with book.change("read"):
        for strip, frame in loaded.frames():
            if frame.readable:
                lit = None if frame.frame.blank else frame.log_h(loaded.test.meter_constant)
                density = film.density(lit, really[strip.strip.id]) + 0.004 * rng.normal()
                add_reading(book, frame, round(max(float(density), 0.0), 3))
    if keep:
        decide(book, answered(book, test))
    return test


def answered(book, test):
    state = State(load_test(book, test.id))
    return State(state.loaded, answer_to(state.question))


@pytest.fixture
def book(tmp_path):
    made = Notebook(tmp_path / "winter.vadrin")
    yield made
    made.close()
    leave_estimates_out(False)


def at(warm, true):
    """A bath's warmth and how fast it is where each 10 K count for `true` times."""
    return warm, true ** ((warm - 20.0) / 10.0)


def on_two_evenings(book, number, warm, true):
    """A film tested at 20 °C, and again in a bath of another warmth."""
    for each in (20.0, warm):
        rng = np.random.default_rng(70 + number)
        read_film(book, f"Film {number}", rng, [at(each, true)] * 4)


def test_a_developers_own_factor_is_learnt_used_and_offered(book):
    true = 3.3
    for number, warm in enumerate((24.0, 23.0, 17.0, 24.0, 16.5)):
        on_two_evenings(book, number, warm, true)
    # Two of them agitated all the time as well: no warmer bath, though it works faster.
    for number in range(2):
        rng = np.random.default_rng(70 + number)
        read_film(book, f"Film {number}", rng, [(20.0, 1.3)] * 4, "continuous")
    rng = np.random.default_rng(7)
    every = past_tests(book, 0)
    times, low, high = warmth_learnt(every).times
    assert low < true < high
    assert abs(times / true - 1.0) < 0.12
    assert f"works {times:.2f} × as fast for each 10 °C" in " ".join(bath_sentences(every))

    one = read_film(book, "The next", rng, [at(24.0, true)], keep=False)
    estimate = estimate_of(book, answered(book, one))
    # Its only strip was worth 5 minutes at 20 °C; by the usual factor it would count for 4:28.
    assert f"Restated with {times:.2f} ×" in " ".join(estimate.lines)

    with book.change("a process"):
        process = book.add(Process(name="ours", developer_id=book.all(Developer)[0].id))
        book.put(replace(book.get(Test, one.id), process_id=process.id))
    offered = learnt_factor(book, load_test(book, one.id))
    assert f"{times:.2f} × as fast" in offered.words
    assert "estimated" in offered.words
    keep_factor(book, load_test(book, one.id), offered.figure)
    assert book.get(Process, process.id).q10 == pytest.approx(times, abs=0.01)
    assert learnt_factor(book, load_test(book, one.id)) is None


def test_an_estimate_counts_a_warm_strip_as_the_developer_does(book):
    true = 3.6
    for number in range(5):
        on_two_evenings(book, number, 25.0, true)
    off = []
    for number in range(6):
        film = np.random.default_rng(100 + number)
        warm = read_film(book, f"W{number}", film, [at(25.0, true)], keep=False)
        film = np.random.default_rng(100 + number)
        usual = read_film(book, f"U{number}", film, [at(20.0, true)], keep=False)
        times = [estimate_of(book, answered(book, t)).time for t in (warm, usual)]
        off.append(np.log(times[0].known() / times[1].known()))
    # By the usual 2.5 the same strip would tell a time shorter by a sixth.
    assert abs(np.mean(off)) < 0.05
    # The factor is not known to the last digit, and so the strip is believed for less.
    seen = ContrastSeen(np.array([5.0, 5.0]), np.array([0.5, 0.5]), np.array([0.02, 0.02]))
    there = at_learnt_warmth(seen, np.array([0.0, 5.0]), 2.5, warmth_learnt(past_tests(book, 0)))
    assert there.deviation[0] == 0.02
    assert there.deviation[1] > 0.02


def test_a_way_to_agitate_is_told_only_where_films_agree(book):
    rng, often, usual = np.random.default_rng(5), "continuous", "first 30 s, then 10 s every minute"
    for number in range(4):
        read_film(book, f"Film {number}", rng, [(20.0, 1.0)] * 4, usual)
        same = np.random.default_rng(50 + number)
        read_film(book, f"Film {number}", same, [(20.0, 1.0)] * 4, usual)
        same = np.random.default_rng(50 + number)
        read_film(book, f"Film {number}", same, [(20.0, 1.25)] * 4, often)
    ((way, beside, told),) = agitations_learnt(past_tests(book, 0))
    times, low, high = told.times
    assert (way, beside) == (often, usual)
    assert low < 1.25 < high
    assert low > 1.0
    assert times == pytest.approx(1.25, rel=0.1)
    assert warmth_learnt(past_tests(book, 0)) is None

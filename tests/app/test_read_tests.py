"""Tests that were read and never decided on are learnt from, too, and for less."""

from dataclasses import replace

import numpy as np
import pytest

from tests.app.test_bath_learnt import WORTH, answered, read_film
from vadrin.app.decisions.decision import decide
from vadrin.app.decisions.not_decided import come_to, next_read_test
from vadrin.app.learning import read_tests as learning_store
from vadrin.app.learning.developer_learnt import learnt_of
from vadrin.app.learning.estimated_time import estimate_of
from vadrin.app.learning.past_tests import one_a_film, past_tests
from vadrin.app.learning.read_tests import keep_read_test, read_tests
from vadrin.core.learning.contrast_law import ContrastSeen
from vadrin.notebook.records import Strip, Test
from vadrin.notebook.store import Notebook

STEEP = ContrastSeen(np.array([2.0, 3.0]), np.array([0.2, 0.3]), np.array([0.01, 0.01]))
"""Film that hardly slows down."""
BATHS = [(20.0, 1.0)] * len(WORTH)


@pytest.fixture
def book(tmp_path):
    made = Notebook(tmp_path / "winter.vadrin")
    rng = np.random.default_rng(11)
    for number in range(6):
        read_film(made, f"Film {number}", rng, BATHS, keep=number < 2)
    yield made
    made.close()


def work_out_read_tests(book, but=0):
    """As the window does while nobody waits; gives how many there are to learn from."""
    while (loaded := next_read_test(book, but)) is not None:
        keep_read_test(book, loaded.test.id, come_to(loaded))
    return len(read_tests(book, but))


def test_a_notebook_learns_from_what_was_read_and_not_decided(book):
    rng = np.random.default_rng(12)
    one = read_film(book, "The next", rng, BATHS[:1], keep=False)
    assert len(past_tests(book, one.id)) == 2
    assert work_out_read_tests(book, one.id) == 4
    told = past_tests(book, one.id)
    decided, read = ([p for p in told if bool(p.finding_id) is known] for known in (True, False))
    assert len(decided) == 2
    assert len(read) == 4
    # Nobody vouched for what was only read: each of its strips is believed for less.
    assert min(p.seen.deviation.min() for p in read) > max(p.seen.deviation.max() for p in decided)
    # Two decided films alone are too few to say anything; what is claimed is tried on them only.
    estimate = estimate_of(book, answered(book, one))
    assert estimate.films == "6 films in this developer"
    assert {row.past.finding_id for row in estimate.learnt.by_one} == {
        p.finding_id for p in decided
    }


def test_a_test_too_long_for_a_turn_of_the_window_is_left(book, monkeypatch):
    monkeypatch.setattr(learning_store, "_MOST_FRAMES", 40)
    assert next_read_test(book, 0) is None
    monkeypatch.setattr(learning_store, "_MOST_FRAMES", 400)
    assert next_read_test(book, 0) is not None


def test_what_is_decided_edited_or_taken_away_counts_as_it_is_now(book):
    work_out_read_tests(book)
    read = [p.test_id for p in past_tests(book, 0) if not p.finding_id]
    first, second, third = read[:3]
    decide(book, answered(book, book.get(Test, first)))
    with book.change("taken away"):
        book.remove(book.get(Test, second))
    told = past_tests(book, 0)
    assert sorted(p.test_id for p in told if p.test_id == first) == [first]
    assert second not in {p.test_id for p in told}

    with book.change("it was twice as long"):
        for strip in book.all(Strip, test_id=third):
            book.put(replace(strip, time_min=2.0 * strip.time_min))
    # It was on the bench while it was edited, and another test is opened after it.
    next_read_test(book, third)
    before = {p.test_id: p.seen.minutes for p in told}
    work_out_read_tests(book)
    after = {p.test_id: p.seen.minutes for p in past_tests(book, 0)}
    assert after[third] == pytest.approx(2.0 * before[third])


def test_one_film_tested_again_and_again_says_nothing_of_how_films_differ(book):
    again = np.random.default_rng(31)
    one = read_film(book, "The next", again, BATHS[:1], keep=False)
    for _ in range(6):
        same = np.random.default_rng(11)
        read_film(book, "Film 0", same, BATHS)
    # Eight decided tests, of two films: they foretell no third.
    assert len(past_tests(book, one.id)) == 8
    assert estimate_of(book, answered(book, one)) == ""
    for number in range(7, 9):
        read_film(book, f"Film {number}", again, BATHS)
    told = estimate_of(book, answered(book, one))
    assert told.films == "4 films in this developer"
    with book.change("only the newest of each"):
        every = past_tests(book, one.id)
        for past in set(every) - set(one_a_film(every)):
            book.remove(book.get(Test, past.test_id))
    fewer = estimate_of(book, answered(book, one))
    assert fewer.films == told.films
    assert fewer.time.value == pytest.approx(told.time.value)
    # Developed again with nothing else changed, that film told how alike the evenings are.
    assert told.evenings == "1 film developed again"
    assert fewer.evenings == ""
    assert told.time.high / told.time.low < fewer.time.high / fewer.time.low
    assert len(fewer.learnt.by_one) < len(told.learnt.by_one)


def test_a_developer_is_told_of_by_others_of_its_process_alone(book):
    every = past_tests(book, 0)
    told = learnt_of(every, every[0].developer_id)
    other = [
        replace(p, test_id=900 + n, stock_id=900 + n, developer_id=99, seen=STEEP)
        for n, p in enumerate(every * 4)
    ]
    alike = learnt_of((*every, *other), every[0].developer_id)
    colour = tuple(replace(p, film_kind="colour negative") for p in other)
    apart = learnt_of((*every, *colour), every[0].developer_id)
    assert np.abs(alike.law.weights - told.law.weights).max() > 1e-4
    assert apart.law.weights == pytest.approx(told.law.weights, abs=1e-12)

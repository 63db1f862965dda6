"""What a notebook learns of its kit, and of tests that others did: told, or rightly not told."""

import json
from dataclasses import replace

import numpy as np
import pytest

from oracles.film_shapes import SHAPES, varied
from tests.notebooks import developed_test, merged
from vadrin.app.decisions.decision import decide
from vadrin.app.document.state import State, answer_to
from vadrin.app.document.test_loading import load_test
from vadrin.app.learning.kit_learnt import bottle_words, kit_asked, kit_sentences, scales_learnt
from vadrin.app.learning.left_out import leave_estimates_out
from vadrin.app.learning.past_tests import past_tests
from vadrin.app.learning.past_tests import tests_of_others as count_of_others
from vadrin.app.library.kept_preferences import keep_preference
from vadrin.app.plan.expected_curves import expected_film
from vadrin.app.plan.plan_forecast import forecast_input
from vadrin.app.plan.usual_film import usual_finding
from vadrin.app.read.entering_readings import add_reading
from vadrin.core.learning.bottle_drift import bottle_drift
from vadrin.notebook.merge import everything_of
from vadrin.notebook.records import Bottle, Developer, Finding, Instrument, Paper, Test
from vadrin.notebook.store import Notebook

TIMES = (3.5, 6.0, 10.0, 16.0, 26.0)


def decided(book, name, rng, strength=1.0, noise=0.004, **of_test):
    """A film developed in a bath of some strength, read with some noise, and decided on."""
    film = varied(SHAPES["plain"], rng)
    test = developed_test(book, name, index=100.0, times=TIMES)
    with book.change("kit"):
        book.put(replace(book.get(Test, test.id), **of_test))
    loaded = load_test(book, test.id)
    with book.change("read"):
        for strip, frame in loaded.frames():
            x = frame.log_h(loaded.test.meter_constant)
            if frame.readable:
                lit = None if frame.frame.blank else x
                density = film.density(lit, strip.minutes * strength) + noise * rng.normal()
                add_reading(book, frame, round(max(float(density), 0.0), 3))
    state = State(load_test(book, test.id))
    decide(book, State(state.loaded, answer_to(state.question)))
    return test


@pytest.fixture
def book(tmp_path):
    made = Notebook(tmp_path / "winter.vadrin")
    yield made
    made.close()
    leave_estimates_out(False)
    keep_preference("learn from others", False)


def said_of(book):
    return " ".join(kit_sentences(kit_asked(book, past_tests(book, 0))))


def test_a_bottle_that_weakens_is_named_and_one_that_keeps_is_not(book):
    rng = np.random.default_rng(17)
    with book.change("bottles"):
        bath = book.add(Developer(name="Sable", dilution="1+1"))
        weak = book.add(Bottle(developer_id=bath.id, name="the old jug"))
        fresh = book.add(Bottle(developer_id=bath.id, name="the fresh jug"))
    for number in range(8):
        # By 15 % of its strength for each film: that is what is put in.
        decided(book, f"Weak {number}", rng, strength=0.85**number, bottle_id=weak.id)
    for number in range(5):
        decided(book, f"Fresh {number}", rng, bottle_id=fresh.id)
    words = bottle_words(book, 0, weak.id)
    assert "each film lost" in words
    assert "estimated from your other tests" in words
    assert bottle_words(book, 0, fresh.id) == ""
    assert "The old jug: each film lost" in said_of(book)
    assert "The fresh jug" not in said_of(book)
    leave_estimates_out(True)
    assert bottle_words(book, 0, weak.id) == ""


def test_the_drift_of_a_bottle_holds_the_truth():
    rng, held, named = np.random.default_rng(3), 0, 0
    for _ in range(400):
        each, films = rng.normal(0.0, 0.04), int(rng.integers(5, 16))
        read = each * np.arange(films) + 0.1 * rng.normal(size=films)
        told = bottle_drift(read, np.full(films, 0.01))
        held += abs(told.each - each) <= 1.96 * told.deviation
        flat = bottle_drift(0.1 * rng.normal(size=films), np.full(films, 0.01))
        named += flat.sure
    assert 372 <= held <= 396
    assert named <= 4, "bottles that keep are hardly ever named"


def test_how_an_instrument_scatters_is_learnt_and_plans_reckon_with_it(book):
    rng = np.random.default_rng(5)
    with book.change("kit"):
        rough = book.add(Instrument(name="Old meter", kind="densitometer"))
    for number in range(3):
        decided(book, f"Film {number}", rng, noise=0.03, instrument_id=rough.id)
    told = float(said_of(book).split("scatter by ")[1].split()[0])
    assert 0.02 < told < 0.04
    test = developed_test(book, "The next", index=100.0, times=TIMES)
    for instrument, entered, wanted in ((rough.id, None, told), (rough.id, 0.007, 0.007)):
        with book.change("kit"):
            book.put(replace(book.get(Instrument, rough.id), noise=entered))
            book.put(replace(book.get(Test, test.id), instrument_id=instrument))
        loaded = load_test(book, test.id)
        film = expected_film(100.0, usual_finding(book, loaded))
        assert forecast_input(loaded, film).noise == pytest.approx(wanted, abs=6e-4)


def test_a_papers_scale_is_learnt_from_two_boxes(book):
    test = developed_test(book, "A film", index=100.0, times=TIMES)
    with book.change("papers"):
        paper = book.add(Paper(name="Tern", grade="2"))
        once = book.add(Paper(name="Gull", grade="3"))
        for mine, scale in ((paper, 1.02), (paper, 1.08), (once, 0.8)):
            made = book.add(
                replace(book.get(Test, test.id), id=0, kind="paper", paper_id=mine.id, uid="")
            )
            answer = {"says": "R", "figures": {"exposure_scale": {"value": scale}}}
            report = json.dumps({"answer": answer})
            book.add(Finding(test_id=made.id, report=report))
    told = scales_learnt(book)
    assert told.keys() == {paper.id}
    assert told[paper.id].low < 1.02 < told[paper.id].value < 1.08 < told[paper.id].high
    assert "Tern 2: exposure scale 1.05" in said_of(book)


def test_tests_of_others_are_not_learnt_from_unless_asked(book, tmp_path):
    friend = Notebook(tmp_path / "friend.vadrin")
    rng = np.random.default_rng(9)
    for number in range(3):
        decided(friend, f"Theirs {number}", rng)
    friend.close()
    decided(book, "Mine", rng)
    merged(book, everything_of(tmp_path / "friend.vadrin"))
    assert {t.taken_from for t in book.all(Test)} == {"", "theirs.vadrin"}
    assert count_of_others(book) == 3
    assert {p.film for p in past_tests(book, 0)} == {"Mine"}
    keep_preference("learn from others", True)
    assert len(past_tests(book, 0)) == 4
    # What comes of the same friend later is theirs, too; a copy of one's own is one's own.
    friend = Notebook(tmp_path / "friend.vadrin")
    decided(friend, "Later", rng)
    friend.close()
    merged(book, everything_of(tmp_path / "friend.vadrin"))
    assert count_of_others(book) == 4
    book.save_copy(tmp_path / "copy.vadrin")
    copy = Notebook(tmp_path / "copy.vadrin")
    decided(copy, "On the other machine", rng)
    copy.close()
    merged(book, everything_of(tmp_path / "copy.vadrin"))
    assert count_of_others(book) == 4

"""What past tests tell of the next film: the range holds, and no more is claimed than is known."""

import numpy as np
import pytest

from oracles.developers import POPULATIONS, WHOLE, Saturating
from tools.learning_trial import one
from tools.learning_whole import one as whole
from vadrin.core.figure import Basis, Figure
from vadrin.core.learning.contrast_law import (
    EVENING,
    ContrastSeen,
    each_from_the_others,
    evening_of,
    learnt_law,
    rate_that_surprises,
    time_for_contrast,
)
from vadrin.core.learning.offsets import Usual, learnt_offset, surprise, with_its_own
from vadrin.core.learning.push_times import learnt_push, push_time, pushes_held
from vadrin.core.learning.speed_law import SpeedSeen, index_at_contrast, learnt_slope

TIMES = np.array([5.0, 7.0, 10.0, 14.0])


def film_of(rate, top=1.0, times=TIMES):
    contrast = top * -np.expm1(-rate * times)
    return ContrastSeen(times, contrast, np.full(len(times), 0.01))


@pytest.mark.parametrize("population", POPULATIONS, ids=lambda p: p.name)
def test_ranges_hold_for_films_of_other_laws_than_the_readers(population):
    for tests in (0, 10):
        rows = [r for n in range(25) if (r := one(n, population, tests, 1, population)) is not None]
        assert sum(r[0] for r in rows) >= 0.88 * len(rows)


def test_more_tests_make_the_range_of_one_strip_narrower():
    wide = [
        np.median([one(n, Saturating(), tests, 1, Saturating())[1] for n in range(20)])
        for tests in (0, 3, 10)
    ]
    assert wide[0] > 1.5 * wide[1] > 1.5 * wide[2]


def test_with_many_alike_one_strip_gives_the_time_of_their_law():
    law = learnt_law(tuple(film_of(0.12, top) for top in np.linspace(0.8, 1.2, 12)))
    strip = film_of(0.12, 0.9, np.array([7.0]))
    told = time_for_contrast(law, strip, 0.9 * -np.expm1(-0.12 * 9.0))
    assert told.value == pytest.approx(9.0, rel=0.03)
    assert told.low < 9.0 < told.high
    assert told.high / told.low < 1.35
    assert told.basis is Basis.ESTIMATED


def test_a_film_left_out_is_foretold_as_if_it_had_never_been_tested():
    films = tuple(film_of(rate) for rate in (0.1, 0.12, 0.2, 0.14))
    for number, law in enumerate(each_from_the_others(films)):
        others = films[:number] + films[number + 1 :]
        assert law.weights == pytest.approx(learnt_law(others).weights, abs=1e-12)


def test_other_developers_move_the_middle_and_never_stand_for_a_film_of_this_one():
    slow = tuple(film_of(0.04) for _ in range(8))
    strip = film_of(0.04, 1.0, np.array([8.0]))
    alone, beside = learnt_law(()), learnt_law((), slow)
    assert beside.films == 0
    first, second = (time_for_contrast(law, strip, 0.35) for law in (alone, beside))
    true = -np.log1p(-0.35) / 0.04
    assert abs(np.log(second.value / true)) < abs(np.log(first.value / true))
    own = time_for_contrast(learnt_law(slow), strip, 0.35)
    assert own.high / own.low < second.high / second.low


def test_what_a_film_may_never_reach_is_absent_and_an_odd_film_is_named():
    law = learnt_law(tuple(film_of(0.3) for _ in range(6)))
    assert "may never reach" in time_for_contrast(law, film_of(0.3, 0.5), 0.9).why
    assert rate_that_surprises(law, film_of(0.3)) > 0.2
    assert rate_that_surprises(law, film_of(0.02)) < 0.02


@pytest.mark.parametrize("population", WHOLE, ids=lambda p: p.name)
def test_ei_time_and_pushes_of_whole_films_hold(population):
    rows = [whole(seed, population, 5, 1) for seed in range(12)]
    for name in ("time", "EI", "push +1"):
        held = [row[name][0] for row in rows if name in row]
        assert sum(held) >= len(held) - 2, name


def test_a_film_whose_speed_moves_the_other_way_widens_the_range_of_ei():
    def film(slope):
        contrast = np.array([0.45, 0.55, 0.7])
        stops = 7.0 + slope * np.log(contrast / 0.58)
        return SpeedSeen(contrast, stops, np.full(3, 0.02))

    strip = SpeedSeen(np.array([0.45]), np.array([6.8]), np.array([0.03]))
    alike = index_at_contrast(learnt_slope(tuple(film(0.8) for _ in range(6))), strip, 0.58)
    odd = index_at_contrast(learnt_slope((*(film(0.8) for _ in range(5)), film(-0.8))), strip, 0.58)
    assert alike.value == pytest.approx(2 ** (6.8 + 0.8 * np.log(0.58 / 0.45)), rel=0.02)
    assert np.log(odd.high / odd.low) > 1.3 * np.log(alike.high / alike.low)


def test_what_a_film_tells_of_itself_counts_more_than_the_others():
    usual = Usual(0.0, 1.0, 0.2)
    learnt = learnt_offset(np.array([0.3, 0.35, 0.25, 0.3]), np.full(4, 0.02), usual)
    own = with_its_own(learnt, 0.6, 0.02)
    assert learnt.middle == pytest.approx(0.3, abs=0.03)
    assert own.middle == pytest.approx(0.6, abs=0.04)
    assert own.deviation < 0.03 < learnt.deviation
    assert surprise(learnt, 0.31, 0.02) > 0.5 > 0.02 > surprise(learnt, 1.2, 0.02)


def test_pushes_are_told_only_of_developers_in_which_three_films_were_pushed():
    normal = Figure(8.0, 7.0, 9.0)
    few, some = (
        push_time(learnt_push(np.full(n, 0.4), np.full(n, 0.02), 1.0), normal) for n in (2, 3)
    )
    assert "fewer than three" in few.why
    assert some.low < 8.0 * np.exp(0.37) < some.high
    assert some.basis is Basis.ESTIMATED


def test_a_push_is_held_where_the_others_foretell_it():
    alike, sure = np.full(5, 0.4), np.full(5, 0.02)
    assert pushes_held(alike, sure, 1.0) == 5
    assert pushes_held(np.append(alike, 1.6), np.append(sure, 0.02), 1.0) < 6


def test_control_strips_tell_how_far_evenings_differ():
    rng = np.random.default_rng(4)
    steady, restless = (
        0.9 * np.exp(0.6 * spread * rng.standard_normal(24)) for spread in (0.01, 0.12)
    )
    assert evening_of(np.array([])) == pytest.approx(EVENING)
    assert evening_of(steady) < 0.75 * EVENING
    assert evening_of(restless) == pytest.approx(0.12, rel=0.35)
    # Films developed again tell the same: of twelve, three evenings each.
    again = tuple(np.log(0.6) + 0.6 * 0.12 * rng.standard_normal(3) for _ in range(12))
    assert evening_of(np.array([]), again) == pytest.approx(0.12, rel=0.3)
    still = tuple(np.log(top) + 0.02 * rng.standard_normal(3) for top in np.linspace(0.5, 0.8, 12))
    assert evening_of(np.array([]), still) < 0.75 * EVENING
    law = learnt_law(tuple(film_of(0.12, top) for top in np.linspace(0.8, 1.2, 12)))
    strip = film_of(0.12, 0.9, np.array([7.0]))
    few, many = (time_for_contrast(law, strip, 0.6, evening_of(c)) for c in (steady, restless))
    assert np.log(many.high / many.low) > 1.5 * np.log(few.high / few.low)

"""The print room: strips add up, black is found, papers are measured, half-covered strips hold."""

from itertools import product

import numpy as np
import pytest

from oracles.dark_prints import PAPER_SHAPES, BlackPaper, just_lighter
from oracles.papers import Paper
from tools.print_room import index_held
from vadrin.core.exposure.arithmetic import STOP
from vadrin.core.printing.grades import (
    changed_time,
    nearest_grades,
    printed_tones,
    under_print_threshold,
)
from vadrin.core.printing.paper_curve import paper_curve, scale_by_eye
from vadrin.core.printing.print_threshold import print_threshold
from vadrin.core.printing.strip_exposures import (
    Covering,
    StepUnit,
    StripExposures,
    first_black,
    for_other_base,
    for_other_size,
    time_of_piece,
)


@pytest.mark.parametrize(
    ("base", "step", "unit", "pieces"),
    [
        *product((0.5, 2.0, 7.3), (0.25, 1 / 3, 1.0), (StepUnit.STOPS,), (2, 5, 9)),
        *product((1.0, 4.0), (0.5, 2.0), (StepUnit.SECONDS,), (3, 9)),
    ],
)
def test_times_add_up_to_what_was_asked_in_every_way(base, step, unit, pieces):
    strip = StripExposures(base, step, unit, pieces)
    totals = np.array(strip.totals())
    under_a_card = np.cumsum(strip.given(Covering.ADDING))
    assert under_a_card == pytest.approx(totals)
    assert strip.given(Covering.APART) == strip.totals()
    assert min(strip.given(Covering.ADDING)) > 0
    if unit is StepUnit.STOPS:
        assert np.diff(np.log2(totals)) == pytest.approx(np.full(pieces - 1, step))
    else:
        assert np.diff(totals) == pytest.approx(np.full(pieces - 1, step))


@pytest.mark.parametrize(
    ("given", "why"),
    [
        ({"base_s": 0.0}, "above 0"),
        ({"base_s": float("nan")}, "above 0"),
        ({"step": -1.0}, "a step above 0"),
        ({"pieces": 1}, "2 to 24"),
        ({"pieces": 25}, "2 to 24"),
        ({"base_s": 0.05}, "stop the lens down"),
        ({"step": 3.0, "pieces": 20}, "over an hour"),
    ],
)
def test_what_is_no_strip_is_refused_in_words(given, why):
    with pytest.raises(ValueError, match=why):
        StripExposures(**{"base_s": 2.0, "step": 0.5} | given)


def test_black_lies_between_two_pieces_and_the_finer_strip_inside_them():
    strip = StripExposures(2.0, 0.5, StepUnit.STOPS, 8)
    found = first_black(strip, 5)
    assert (found.low, found.high) == pytest.approx((2.0 * 2**1.4, 8.0 * 2**0.1))
    assert found.low < found.seconds < found.high
    fine = strip.finer(5)
    assert fine.totals()[0] == pytest.approx(strip.total_s(4))
    assert fine.totals()[-1] == pytest.approx(strip.total_s(6))
    assert "begin with less" in first_black(strip, 1).why
    assert "not tried" in first_black(strip, 8).why
    assert strip.further(darker=True).totals()[-1] > 4 * strip.totals()[-1]
    with pytest.raises(ValueError, match="sections 1 to 8"):
        first_black(strip, 9)
    best = time_of_piece(strip, 4)
    assert best.low == pytest.approx(best.seconds / 2**0.25)


def test_other_films_and_sizes_follow_from_the_time():
    assert for_other_base(8.0, 0.25, 0.55) == pytest.approx(8.0 * 10**0.3)
    assert for_other_size(8.0, 24.0, 30.0) == pytest.approx(12.5)
    with pytest.raises(ValueError, match="above 0"):
        for_other_size(8.0, 0.0, 30.0)


@pytest.mark.parametrize("scale", [0.6, 0.85, 1.05, 1.35])
def test_range_and_speed_of_closed_form_papers_are_within_a_hundredth(scale):
    paper = Paper(scale, mid=0.3)
    x = paper.mid + np.arange(-2.4, 2.41, 0.15) * max(scale, 1.0)
    made = paper_curve(x, paper.density(x), 0.0, 0.06, absolute=True)
    assert made.iso_range.value == pytest.approx(100 * scale, rel=0.01)
    assert made.speed.value == pytest.approx(1000 / 10 ** paper.at(0.60), rel=0.01)
    assert made.d_max.value == pytest.approx(2.1, abs=0.01)


def test_ranges_of_papers_hold_and_what_is_missing_is_said():
    held = 0
    for seed in range(24):
        rng = np.random.default_rng(seed)
        paper = Paper(rng.uniform(0.6, 1.4))
        x = np.arange(-2.4, 2.41, 0.15) * 1.2
        read = paper.density(x) + 0.01 * rng.standard_normal(len(x))
        found = paper_curve(x, read, 0.01, 0.06).exposure_scale
        held += found.low <= paper.scale <= found.high
    assert held >= 21
    paper = Paper(1.0)
    short = np.arange(-1.5, 0.2, 0.15)
    made = paper_curve(short, paper.density(short), 0.01)
    assert "not yet black" in made.iso_range.why
    assert "not yet black" in made.d_max.why
    with pytest.raises(ValueError, match="hardly darken"):
        paper_curve(short, np.full(len(short), 0.1), 0.01)
    with pytest.raises(ValueError, match="at least four"):
        paper_curve(short[:3], paper.density(short[:3]), 0.01)


def test_an_eye_finds_the_scale_less_surely():
    paper, x = Paper(1.0), np.arange(-1.5, 1.6, 0.15)
    net = paper.density(x) - 0.06
    grey = int(np.argmax(net > 0.04)) + 1
    black = int(np.argmax(net > paper.net - 0.04)) + 1
    found = scale_by_eye(x, grey, black, 0.15)
    assert found.low < 100.0 < found.high
    with pytest.raises(ValueError, match="comes after"):
        scale_by_eye(x, 5, 5, 0.15)


def test_the_nearest_grades_come_first_and_factors_are_not_made_up():
    known = (
        ("1", 1.3, True, 0.8),
        ("2", 1.05, True, 1.0),
        ("3", 0.85, False, None),
        ("4", 0.7, False, 2.0),
    )
    fits = nearest_grades(1.0, known)
    assert [f.grade for f in fits] == ["2", "3", "1"]
    assert fits[0].over == pytest.approx(0.05)
    assert changed_time(8.0, 1.0, fits[2].factor) == pytest.approx(6.4)
    assert changed_time(8.0, 1.0, fits[1].factor) is None


def test_a_print_is_black_where_the_film_holds_nothing():
    tones = printed_tones(np.array([0.0, 0.06, 0.5, 1.05, 1.4]), 1.05)
    assert np.all(np.diff(tones) < 0)
    assert tones[0] == pytest.approx(2.1 - 0.04, abs=0.01)
    assert tones[3] < 0.35
    assert under_print_threshold(0.02, 0.06) == pytest.approx(0.04)
    assert under_print_threshold(0.2, 0.06) == 0.0


def test_the_print_threshold_is_the_papers_own_at_its_time_for_black():
    usual, spread = print_threshold(None)
    assert 0.05 < usual < 0.075
    assert 0.01 < spread < 0.03
    x = np.linspace(-0.8, 1.6, 25)
    for kind in PAPER_SHAPES:
        paper = BlackPaper(kind)
        told, _ = print_threshold(paper_curve(x, paper.density(x), 0.0), 1 / 3)
        # Where two sections a third of a stop apart are 0.04 apart, less half a step.
        at = np.linspace(0.5, 2.5, 20001)
        alike = at[np.argmax(paper.density(at + STOP / 3) - paper.density(at) < 0.04)]
        ends = [just_lighter(paper, alike + shift * STOP / 3) for shift in (-0.5, 0.5)]
        assert ends[0] < told < 1.1 * ends[1], kind


def test_half_covered_strips_give_the_ei_of_the_paper_with_its_range():
    """Papers, eyes and films by their physics, black picked on sections: the range holds."""
    rows = [index_held(seed, seed % 2 == 0, "third") for seed in range(48)]
    known = [r for r in rows if r is not None]
    assert len(known) > 24
    assert sum(held for held, _, _ in known) >= 0.85 * len(known)
    assert abs(np.mean([off for _, off, _ in known])) < 0.15
    assert np.median([half for _, _, half in known]) < 0.7

"""What the envelope of a practice test says went wrong is what went wrong, and where."""

import re

import numpy as np
import pytest

from vadrin.core.simulation.practice_film import draw_film
from vadrin.core.simulation.practice_level import Level
from vadrin.core.simulation.practice_run import run_practice

LABELS = "ABCDE"


@pytest.fixture(scope="module")
def tests():
    made = []
    for seed in range(12):
        rng = np.random.default_rng(seed)
        made.append(run_practice(draw_film(rng), Level.HARD, rng))
    return made


def named(test, pattern):
    """What a pattern finds in the words of the envelope."""
    return next(m for m in (re.search(pattern, words) for words in test.traps) if m)


def test_the_bath_that_was_off_is_that_of_the_strip_named(tests):
    for test in tests:
        label, way = named(test, r"bath of strip (.) was 1 °C (warmer|colder)").groups()
        for strip in test.strips:
            more = strip.real_min_20 - test.film.minutes_at_20(strip.time_min, 20.0)
            assert np.sign(more) == (strip.label == label) * (1 if way == "warmer" else -1)
            assert strip.temperature_c == 20.0, "as it was noted"


def test_the_strip_named_is_short_and_the_others_are_whole(tests):
    for test in tests:
        label = named(test, r"strip (.) was cut four frames short")[1]
        assert {s.label: len(s.densities) for s in test.strips} == {
            name: 23 if name == label else 27 for name in LABELS
        }


def test_the_frames_named_were_read_in_each_others_place(tests):
    seen = 0
    for test in tests:
        first, label = named(test, r"frames (\d+) and \d+ of strip (.) were read").groups()
        strip = next(s for s in test.strips if s.label == label)
        one, other = strip.densities[int(first) - 1 : int(first) + 1]
        rising = np.polyfit(range(len(strip.densities)), strip.densities, 5)
        slope = np.polyval(np.polyder(rising), int(first) - 0.5)
        # Where the curve is flat a swap is no change.
        if slope > 0.08:
            seen += 1
            assert one > other, (label, first)
    assert seen >= 4

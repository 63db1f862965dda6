"""A process's own temperature factor, out of strips developed at two temperatures."""

from dataclasses import replace

import numpy as np
import pytest

from vadrin.core.restated_time import restated_time
from vadrin.core.results.analysis_result import Settings
from vadrin.core.results.process_factor import process_factor
from vadrin.core.simulation.film import expose_and_develop, invent_film

SETTINGS = Settings(draws=100)


def strips_of(seed, factor, away=(7.0, 23.0)):
    """Three strips at 20 °C and one at another temperature, in a process of a factor."""
    rng = np.random.default_rng(seed)
    film, x = invent_film(rng), np.log10(8.125 / 125) + 0.30103 * np.arange(-5, 5.1, 0.5)
    made = []
    for label, minutes, warmth in (("A", 6, 20), ("B", 8.5, 20), ("C", 12, 20), ("D", *away)):
        worth = restated_time(minutes, warmth, 20.0, factor)
        strip = expose_and_develop(film, label, x, worth, rng)
        made.append(replace(strip, time_min=float(minutes), temperature_c=float(warmth)))
    return tuple(made)


def test_the_factor_is_found_within_its_range():
    truth = np.random.default_rng(5).uniform(2.0, 3.5, 10)
    found = [process_factor(strips_of(seed, q), SETTINGS) for seed, q in enumerate(truth)]
    held = [f.low <= q <= f.high for f, q in zip(found, truth, strict=True)]
    assert np.mean(held) >= 0.9
    off = [np.log(f.value / q) for f, q in zip(found, truth, strict=True)]
    assert np.std(off) < 0.15
    assert np.median([f.high / f.low for f in found]) < 1.9


@pytest.mark.parametrize(
    ("away", "why"), [((7.0, 20.4), "1.5 K away"), ((3.0, 23.0), "outside the times tested")]
)
def test_nothing_is_made_of_one_temperature_or_of_times_untested(away, why):
    assert why in process_factor(strips_of(1, 2.5, away), SETTINGS).why

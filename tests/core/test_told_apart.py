"""Numbers that stood unwatched: each held against physics or against a small trial of its own."""

import numpy as np
import pytest

from oracles.papers import Paper
from vadrin.app.display.units import Units
from vadrin.app.entry.reciprocity_entry import reciprocity_typed
from vadrin.core.checks.setting_checks import dial_setting_text
from vadrin.core.exposure.corrections import meter_setting_for
from vadrin.core.exposure.reciprocity import corrected_time
from vadrin.core.materials.spectral import visual_density
from vadrin.core.printing.paper_curve import paper_curve
from vadrin.core.process.agitation import agitation_of
from vadrin.core.process.recipe import tempering_water


def test_a_papers_range_is_as_wide_as_its_answers_scatter():
    """Two hundred papers alike, read with the same noise."""
    x = np.arange(-1.2, 1.6, 0.15)
    true, rng = np.array([float(Paper(1.0).density(at)) for at in x]), np.random.default_rng(4)
    made = [paper_curve(x, true + rng.normal(0, 0.01, len(x)), 0.01) for _ in range(200)]
    told = [p.iso_range for p in made if p.iso_range.present and p.iso_range.high]
    assert len(told) > 150
    scatter = 1.96 * np.std([f.value for f in told])
    assert np.median([f.high - f.value for f in told]) == pytest.approx(scatter, rel=0.35)
    held = np.mean([f.low <= 100 * Paper(1.0).scale <= f.high for f in told])
    assert held > 0.85


@pytest.mark.parametrize("edge", [480.0, 590.0, 650.0])
def test_a_spectrum_is_seen_as_an_eye_sees_it(edge):
    """The eye as one bell over wavelength (its textbook formula), the lamp as a black body."""
    at = np.arange(400.0, 741.0, 5.0)
    through = np.where(at >= edge, 0.9, 1e-4)
    eye = 1.019 * np.exp(-285.4 * (at / 1000 - 0.559) ** 2)
    lamp = at**-5 / np.expm1(1.4388e7 / (at * 2856.0))
    expected = -np.log10((through * eye * lamp).sum() / (eye * lamp).sum())
    assert visual_density(at, through) == pytest.approx(expected, abs=0.06)


@pytest.mark.parametrize(
    ("words", "first", "long", "every"),
    [
        ("first 30 s, then 10 s every 2 minutes", 30, 10, 120),
        ("first 1 minute, then 5 s every 30 s", 60, 5, 30),
    ],
)
def test_agitation_is_timed_in_whatever_unit_it_is_written(words, first, long, every):
    told = agitation_of(words)
    assert (told.first_s, told.for_s, told.every_s) == (first, long, every)


def test_a_dial_that_ends_too_early_says_which_way_to_compensate():
    """EI 6400 on a dial to 1600 takes two stops less light than it says, EI 25 from 100 more."""
    fast = meter_setting_for(6400.0, 100.0, 1600.0, 3.0)
    slow = meter_setting_for(25.0, 100.0, 1600.0, 3.0)
    assert dial_setting_text(fast) == "set 1600 and −2 compensation"
    assert dial_setting_text(slow) == "set 100 and +2 compensation"


def test_water_at_freezing_tempers_a_bath_as_the_mixing_rule_says():
    volume, now, wanted = 600.0, 26.0, 20.0
    water = tempering_water(volume, now, wanted, 0.0)
    assert (volume * now + water * 0.0) / (volume + water) == pytest.approx(wanted)


def test_ounces_are_told_by_the_quarter_from_four_on():
    us = Units("fl oz", "°F", american=True)
    assert us.volume_text(300.0) == "10.25 fl oz"
    assert us.volume_text(100.0) == "3.4 fl oz"


def test_a_table_of_long_exposures_begins_where_nothing_is_lost():
    """From half the first pair on, as it was written: 1 s metered takes 1.5."""
    law = reciprocity_typed("1: 1.5, 10: 25")
    assert corrected_time(law, 1.0) == pytest.approx(1.5)
    assert corrected_time(law, 10.0) == pytest.approx(25.0)
    assert corrected_time(law, 0.5) == pytest.approx(0.5)
    assert 0.6 < corrected_time(law, 0.75) < 1.2

"""What stands between the meter and the film, and the traps in settings."""

import math

import numpy as np
import pytest

from vadrin.core.checks import setting_checks
from vadrin.core.exposure.corrections import (
    Corrections,
    calibrated_meter_constant,
    daylight_excess,
    ei_of_chosen_exposure,
    frame_log_h,
    meter_setting_for,
    shutter_of_frame_rate,
    stops_of,
    with_flare,
)
from vadrin.core.exposure.reciprocity import (
    Reciprocity,
    corrected_time,
    effective_time,
    fit_reciprocity,
)
from vadrin.core.process.temperature import drifted_c, restated_drift, standing_worth
from vadrin.core.restated_time import restated_time

LAW = Reciprocity("additive", factor=0.8, exponent=1.4)


@pytest.mark.parametrize(
    "reciprocity",
    [
        LAW,
        Reciprocity("power", exponent=1.3),
        Reciprocity("table", table=((2.0, 3.0), (10.0, 25.0), (100.0, 600.0))),
    ],
)
def test_the_effective_time_is_the_one_whose_corrected_time_was_given(reciprocity):
    for metered in (0.1, 1.0, 4.0, 30.0, 300.0):
        given = corrected_time(reciprocity, metered)
        assert given >= metered
        assert effective_time(reciprocity, given) == pytest.approx(metered, rel=1e-6)
    assert corrected_time(reciprocity, 0.5) == 0.5


def test_a_reciprocity_law_is_found_from_own_pairs():
    metered = np.array([0.5, 2.0, 8.0, 30.0, 120.0])
    needed = np.array([corrected_time(LAW, t) for t in metered])
    law, misfit = fit_reciprocity(metered, needed)
    assert (law.factor, law.exponent) == pytest.approx((0.8, 1.4), rel=1e-6)
    assert misfit.value == pytest.approx(0, abs=1e-6)
    _, alone = fit_reciprocity(metered[:2], needed[:2])
    assert "second long exposure" in alone.why


def test_pairs_that_needed_nothing_speak_too():
    metered = np.array([2.0, 4.0, 8.0, 30.0, 120.0])
    needed = np.array([2.0, 4.0, 9.5, 42.0, 230.0])
    law, misfit = fit_reciprocity(metered, needed)
    late, _ = fit_reciprocity(metered[2:], needed[2:])
    assert corrected_time(law, 4.0) < corrected_time(late, 4.0)
    assert corrected_time(law, 4.0) == pytest.approx(4.0, rel=0.1)
    assert corrected_time(law, 120.0) == pytest.approx(230.0, rel=0.1)
    assert 0 < misfit.value < 0.15
    none, why = fit_reciprocity(metered, metered)
    assert corrected_time(none, 100.0) == 100.0
    assert "no extra exposure" in why.why


def test_corrections_add_up_in_stops():
    assert stops_of(Corrections(filter_factor=4)) == pytest.approx(2)
    assert stops_of(Corrections(bellows_extension=50, focal_length=50)) == pytest.approx(2)
    assert stops_of(Corrections(t_stop=2 * math.sqrt(2), f_stop=2)) == pytest.approx(1)
    assert stops_of(Corrections(marked_s=1 / 60, measured_s=1 / 32)) == pytest.approx(-1)
    lossy = Corrections(exposed_s=corrected_time(LAW, 10), reciprocity=LAW, filter_factor=2)
    assert stops_of(lossy) == pytest.approx(1 + math.log2(corrected_time(LAW, 10) / 10))
    plain, filtered = frame_log_h(100, 0, Corrections()), frame_log_h(100, 0, Corrections(2.0))
    assert plain - filtered == pytest.approx(math.log10(2))


def test_cine_shutter_and_the_ei_of_a_chosen_frame():
    assert shutter_of_frame_rate(180, 24) == pytest.approx(1 / 48)
    assert ei_of_chosen_exposure(100, 1 / 60, 8, 1 / 60, 5.6) == pytest.approx(50)
    assert ei_of_chosen_exposure(100, 1 / 60, 8, 1 / 60, 5.6, 2.0) == pytest.approx(100)


def test_meter_constant_and_flare():
    figure = calibrated_meter_constant(np.array([100, 200, 50.0]), np.array([0.1, 0.05, 0.2]))
    assert figure.value == pytest.approx(10)
    assert figure.low == pytest.approx(figure.high)
    dark, bright = with_flare(np.array([-3.0, 0.0]), 0.01)
    assert 10**dark == pytest.approx(0.001 + 0.01 * 0.5005)
    assert bright == pytest.approx(0, abs=0.01)


def test_drift_integrates_the_speed_of_development():
    steady = restated_drift(np.array([0.0, 10.0]), np.array([22.0, 22.0]), 10.0)
    assert steady == pytest.approx(10 * 2.5**0.2)
    falling = restated_drift(np.array([0.0, 60.0]), np.array([24.0, 16.0]), 60.0)
    exact = 60 * (2.5**0.4 - 2.5**-0.4) / (0.8 * math.log(2.5))
    assert falling == pytest.approx(exact, rel=1e-4)


def test_a_tank_that_stands_drifts_to_the_room():
    assert drifted_c(20.0, 16.0, 0.0) == 20.0
    assert drifted_c(20.0, 16.0, 45.0) == pytest.approx(16 + 4 / math.e)
    assert drifted_c(20.0, 16.0, 45.0, 5000.0) > drifted_c(20.0, 16.0, 45.0)
    worth = standing_worth(60.0, 20.0, 17.0, 600.0)
    assert restated_time(60.0, 17.0) < worth < 60.0
    assert standing_worth(60.0, 20.0, 20.0, 600.0) == pytest.approx(60.0)


def test_a_dial_that_ends_and_daylight_after_dark():
    low = meter_setting_for(12, 25, 3200, 2)
    assert low.dial == 25
    assert low.compensation == pytest.approx(math.log2(25 / 12))
    far = meter_setting_for(12800, 25, 3200, 1)
    assert (far.dial, far.compensation, far.left) == (3200, -1, 0)
    assert far.short == pytest.approx(1)
    assert daylight_excess(100, 1 / 1000, 16) < 0 < daylight_excess(6400, 1 / 500, 16)


@pytest.mark.parametrize(
    ("diagnostics", "words"),
    [
        (setting_checks.dial_ends_below(12, 25, 3200, 0), "dial stops"),
        (setting_checks.daylight_after_a_push(6400, 1 / 500, 16), "full sun"),
        (setting_checks.stained(np.array([0.4, 1.0]), np.array([0.5, 1.3])), "stained"),
    ],
)
def test_each_trap_says_itself_with_a_remedy(diagnostics, words):
    (warning,) = diagnostics
    assert words in warning.sentence
    assert warning.remedy.endswith(".")


def test_traps_stay_silent_where_nothing_is_wrong():
    assert setting_checks.dial_ends_below(100, 25, 3200, 2) == []
    assert setting_checks.daylight_after_a_push(100, 1 / 1000, 16) == []

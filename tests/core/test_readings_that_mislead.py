"""Misreadings are named, odd inputs get reasons, and nothing ever raises."""

import math
from dataclasses import replace
from functools import cache

import numpy as np
import pytest
from hypothesis import HealthCheck, example, given, settings
from hypothesis import strategies as st

from oracles.closed_form import ClosedForm
from vadrin.core.curves.metrics import zone_ei
from vadrin.core.fitting.fit import fit_strips, refit
from vadrin.core.readings import Reading, StripReadings
from vadrin.core.results.analysis import analyse
from vadrin.core.results.analysis_result import Settings
from vadrin.core.results.strip_metrics import metrics_of_strips

TIMES = (4.0, 6.0, 9.0, 13.5)
QUICK = settings(max_examples=8, deadline=None, suppress_health_check=list(HealthCheck))


def noisy(seed, noise=0.01):
    return ClosedForm().strips(TIMES, noise=noise, rng=np.random.default_rng(seed))


@cache
def worked_out(strips):
    return analyse(strips, Settings(draws=0))


def changed(strip, place, density):
    readings = list(strip.readings)
    readings[place] = replace(readings[place], density=density)
    return replace(strip, readings=tuple(readings))


def named(answer):
    return {(w.strip, f) for w in answer.diagnostics if w.key == "misread" for f in w.frames}


def test_a_wrong_digit_is_named_and_does_not_move_the_answer():
    clean = noisy(3)
    place = 12
    spoilt = (clean[0], changed(clean[1], place, clean[1].readings[place].density + 1.0))
    spoilt += clean[2:]
    answer = analyse(spoilt, Settings(draws=0))
    assert named(answer) == {("B", clean[1].readings[place].frame)}
    before = analyse(clean, Settings(draws=0)).finding.zone_ei.value
    assert abs(math.log2(answer.finding.zone_ei.value / before)) < 1 / 12


def test_two_swapped_frames_are_both_named():
    strips = noisy(5)
    a, b = strips[2].readings[14].density, strips[2].readings[15].density
    spoilt = changed(changed(strips[2], 14, b), 15, a)
    answer = analyse((*strips[:2], spoilt, strips[3]), Settings(draws=0))
    frames = strips[2].readings[14].frame, strips[2].readings[15].frame
    assert named(answer) == {("C", frames[0]), ("C", frames[1])}


def test_clean_tests_raise_no_alarm():
    alarms = sum(bool(named(analyse(noisy(seed), Settings(draws=0)))) for seed in range(20, 40))
    assert alarms <= 2


@given(shift=st.floats(-2.0, 2.0))
@QUICK
def test_a_shift_in_exposure_shifts_speed_and_nothing_else(shift):
    strips = ClosedForm().strips(TIMES)
    moved = tuple(
        replace(
            s,
            readings=tuple(
                replace(r, log_h=None if r.log_h is None else r.log_h + shift) for r in s.readings
            ),
        )
        for s in strips
    )
    first, second = worked_out(strips), analyse(moved, Settings(draws=0))
    for a, b in zip(first.strips, second.strips, strict=True):
        assert b.log_h_m.value - a.log_h_m.value == pytest.approx(shift, abs=2e-3)
        assert b.average_gradient.value == pytest.approx(a.average_gradient.value, abs=2e-3)
    assert second.finding.time_min.value == pytest.approx(first.finding.time_min.value, rel=2e-3)


@given(order=st.randoms(use_true_random=False))
@QUICK
def test_the_order_of_readings_never_matters(order):
    strips = noisy(8)
    mixed = []
    for strip in strips:
        rows = list(strip.readings)
        order.shuffle(rows)
        mixed.append(replace(strip, readings=tuple(rows)))
    first, second = worked_out(strips), analyse(tuple(mixed), Settings(draws=0))
    assert second.finding.zone_ei.value == pytest.approx(first.finding.zone_ei.value, rel=1e-3)


_reading = st.builds(
    Reading,
    frame=st.sampled_from("123456789"),
    log_h=st.one_of(st.none(), st.floats(-6, 4)),
    density=st.floats(0, 6),
)
_MET_EXACTLY = StripReadings(
    "A", None, None, (Reading("1", 0.0, 5.0), Reading("1", -1.0, 0.0), Reading("1", -2.0, 0.0))
)
"""Leaves no noise at all, and normal equations that rounding makes indefinite."""
_strip = st.builds(
    StripReadings,
    label=st.sampled_from("ABC"),
    time_min=st.one_of(st.none(), st.floats(0.5, 60)),
    temperature_c=st.one_of(st.none(), st.floats(10, 40)),
    readings=st.lists(_reading, max_size=12).map(tuple),
)


@given(strips=st.lists(_strip, max_size=3).map(tuple))
@example(strips=(_MET_EXACTLY,))
@settings(max_examples=20, deadline=None, suppress_health_check=list(HealthCheck))
def test_any_finite_input_gives_figures_or_reasons(strips):
    answer = analyse(strips, Settings(draws=32))
    figures = [answer.finding.time_min, answer.finding.zone_ei, answer.iso.speed]
    for strip in answer.strips:
        figures += [strip.zone_ei, strip.gamma, strip.contrast_index, strip.average_gradient]
        assert (strip.curve.slope >= 0).all()
    for figure in figures:
        if figure.value is None:
            assert figure.why
        else:
            assert math.isfinite(figure.value)
            if figure.low is not None:
                assert figure.low <= figure.value <= figure.high


@given(factor=st.floats(0.6, 1.6))
@QUICK
def test_scaling_net_density_scales_gradient(factor):
    strips = ClosedForm().strips(TIMES)
    base = {s.label: s.blanks().mean() for s in strips}
    scaled = tuple(
        replace(
            s,
            readings=tuple(
                replace(r, density=base[s.label] + factor * (r.density - base[s.label]))
                for r in s.readings
            ),
        )
        for s in strips
    )
    first, second = worked_out(strips), analyse(scaled, Settings(draws=0))
    for a, b in zip(first.strips, second.strips, strict=True):
        assert b.gamma.value == pytest.approx(factor * a.gamma.value, rel=0.01)


@pytest.mark.parametrize(
    ("readings", "words"),
    [
        ([(None, 0.2), (None, 0.21)], "enough readings"),
        ([(-1.0, 0.5)], "enough readings"),
        ([(x / 4, 0.4) for x in range(-8, 8)], "enough readings"),
        ([], "enough readings"),
        ([(d, x / 4) for x, d in enumerate((0.2, 0.2, 0.3, 0.5, 0.8, 1.1))], ""),
    ],
    ids=["all blank", "single point", "constant", "nothing", "columns reversed"],
)
def test_odd_tables_get_reasons(readings, words):
    rows = tuple(Reading(str(i), x, d) for i, (x, d) in enumerate(readings))
    finding = analyse((StripReadings("A", 8.0, 20.0, rows),)).finding
    assert finding.time_min.value is None
    assert words in finding.time_min.why
    assert finding.time_min.why


def test_a_frame_read_twice_is_named():
    strips = noisy(9)
    readings = strips[1].readings
    spoilt = changed(strips[1], 13, readings[12].density)
    answer = analyse((strips[0], spoilt, *strips[2:]), Settings(draws=0))
    assert named(answer) & {("B", readings[12].frame), ("B", readings[13].frame)}


def test_a_refit_follows_a_dragged_reading():
    strip = noisy(2)[1]
    near = fit_strips((strip,), exclude_outliers=False)
    dragged = (changed(strip, 9, strip.readings[9].density + 0.05),)
    follows, anew = refit(dragged, near), fit_strips(dragged, exclude_outliers=False)
    answers = [
        metrics_of_strips(dragged, fit, None, 8.125)[0].zone_ei.value
        for fit in (near, follows, anew)
    ]
    moved = abs(math.log2(answers[2] / answers[0]))
    assert moved > 0.01
    assert abs(math.log2(answers[1] / answers[2])) < 0.5 * moved + 0.02


def test_zone_ei_is_four_stops_under_the_meter():
    assert float(zone_ei(np.log10(8.125 / 100 / 16))) == pytest.approx(100)

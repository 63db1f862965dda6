"""Figures, finding and push table against a film whose truth is known."""

import math

import numpy as np
import pytest

from oracles.closed_form import ClosedForm
from vadrin.core.curves.metrics import fractional_gradient_speed
from vadrin.core.results.analysis import analyse
from vadrin.core.results.analysis_result import Settings
from vadrin.core.results.criteria import Target
from vadrin.core.results.likely_density import likely_density

TIMES = (4.0, 5.75, 8.0, 11.0, 15.5)
FILMS = (
    ClosedForm(),
    ClosedForm(toe=0.19, shoulder=0.22, span=3.4, rate=0.11),
    ClosedForm(contrast=0.95, delay=0.9, speed_gain=0.2, fog=0.28),
)


def stops(found, true):
    return abs(math.log2(found / true))


@pytest.fixture(params=range(len(FILMS)), ids=["typical", "long toe", "slow start"])
def film(request):
    return FILMS[request.param]


def test_the_fractional_gradient_follows_its_relation():
    contrast = np.array([0.80, 0.60, 1.00])
    found = fractional_gradient_speed(np.full(3, -2.0), contrast)
    # The relation worked by hand: lg factors 0, 0.1048 and -0.0856.
    assert found == pytest.approx([80.0, 80.0 * 1.2729, 80.0 * 0.8211], rel=2e-3)


def test_each_strip_has_the_true_figures(film):
    for strip in analyse(film.strips(TIMES), Settings(draws=0)).strips:
        t = strip.time_min
        assert stops(strip.zone_ei.value, film.zone_ei(t)) < 0.02
        assert stops(strip.speed.value, 0.8 / 10 ** film.x_m(t)) < 0.02
        assert strip.average_gradient.value == pytest.approx(film.gradient(t), abs=0.004)
        assert strip.zone8_density.value == pytest.approx(film.zone8(t), abs=0.01)
        assert strip.base_fog.value == pytest.approx(film.base_fog(t), abs=0.001)


def test_contrast_index_line_crosses_the_curve_at_both_distances(film):
    strip = analyse(film.strips(TIMES), Settings(draws=0)).strips[2]
    angle = math.atan(strip.contrast_index.value)
    found = []
    for distance in (0.2, 2.2):
        low, high = -5.0, 3.0
        for _ in range(60):
            middle = 0.5 * (low + high)
            below = film.net(middle, strip.time_min) < distance * math.sin(angle)
            low, high = (middle, high) if below else (low, middle)
        found.append(low)
    assert found[1] - found[0] == pytest.approx(2.0 * math.cos(angle), abs=0.02)


@pytest.mark.parametrize(("kind", "value"), [("average_gradient", 0.58), ("zone8", 1.30)])
def test_the_finding_is_the_true_time(film, kind, value):
    truth = film.time_for(film.gradient if kind == "average_gradient" else film.zone8, value)
    finding = analyse(film.strips(TIMES), Settings(Target(kind, value), draws=0)).finding
    assert finding.time_min.value == pytest.approx(truth, rel=0.007)
    assert stops(finding.zone_ei.value, film.zone_ei(truth)) < 0.02


def test_pushes_hold_what_they_promise_or_are_absent(film):
    normal = film.time_for(film.gradient, 0.58)
    for push in analyse(film.strips(TIMES), Settings(draws=0, pushes=(-1.0, 1.0, 2.0, 3.0))).push:
        for row, above in ((push.hold_midtone, 0.0), (push.hold_highlight, 3.0)):
            try:
                truth = film.push_time(normal, push.stops, above)
            except ValueError:
                truth = math.inf
            assert row.tested is (TIMES[0] <= truth <= TIMES[-1])
            if not row.tested:
                assert row.time_min.value is None
                assert "not tested" in row.time_min.why
                assert row.nearest_tested_min in (TIMES[0], TIMES[-1])
                continue
            assert row.time_min.value == pytest.approx(truth, rel=0.012)
            lost = push.stops + math.log2(film.zone_ei(normal) / film.zone_ei(truth))
            assert row.shadow_loss_stops.value == pytest.approx(lost, abs=0.04)


def test_temperature_is_restated_before_anything_is_worked_out():
    film = FILMS[0]
    cold = film.strips(TIMES)
    warm = tuple(type(s)(s.label, s.time_min / 2.5**0.2, 22.0, s.readings, s.channel) for s in cold)
    first, second = (analyse(s, Settings(draws=0)).finding.time_min.value for s in (cold, warm))
    assert second == pytest.approx(first, rel=0.001)


def test_the_standard_method_rates_two_thirds_of_a_stop_higher_by_definition():
    strips = FILMS[0].strips(TIMES)
    shadow = analyse(strips, Settings(draws=0))
    standard = analyse(strips, Settings(draws=0, method="standard"))
    apart = math.log2(standard.rated_index.value / shadow.rated_index.value)
    assert apart == pytest.approx(0.655, abs=0.001)
    normal = next(p for p in standard.push if p.stops == 0)
    assert normal.exposure_index.value == pytest.approx(standard.rated_index.value)
    assert normal.hold_highlight.shadow_loss_stops.value == pytest.approx(0.655, abs=0.001)


def test_one_strip_gives_no_time_but_a_labelled_rule_of_thumb():
    answer = analyse(FILMS[0].strips(TIMES[2:3]))
    assert answer.strips[0].zone_ei.present
    assert not answer.finding.time_min.present
    assert answer.finding.rule_of_thumb_min.basis.value == "rule of thumb"
    assert any(w.key == "one time" for w in answer.diagnostics)


def test_two_strips_give_a_line_and_say_so():
    answer = analyse(FILMS[0].strips((5.75, 8.0)), Settings(draws=0))
    truth = FILMS[0].time_for(FILMS[0].gradient, 0.58)
    assert answer.finding.time_min.value == pytest.approx(truth, rel=0.03)
    assert any(w.key == "two times" for w in answer.diagnostics)


def test_a_target_outside_the_tested_times_names_the_bound():
    answer = analyse(FILMS[0].strips((4.0, 5.0, 6.0)), Settings(Target("average_gradient", 0.9)))
    assert answer.finding.time_min.value is None
    assert not answer.finding.tested
    assert answer.finding.nearest_tested_min == 6.0
    assert all(not push.hold_highlight.tested for push in answer.push)


def test_repeated_times_are_allowed_and_one_time_twice_is_told():
    film = FILMS[0]
    again = film.strips((5.0, 5.0, 9.0, 14.0))
    truth = film.time_for(film.gradient, 0.58)
    found = analyse(again, Settings(draws=0)).finding.time_min.value
    assert found == pytest.approx(truth, rel=0.007)
    twice = analyse(film.strips((8.0, 8.0)), Settings(draws=0)).finding
    assert twice.time_min.why.startswith("all strips had one time")


@pytest.mark.parametrize(("step", "frames"), [(1 / 6, 73), (1.0, 13), (2.0, 7)])
def test_brackets_from_sixths_to_double_stops(step, frames):
    strips = FILMS[0].strips(TIMES, step=step)
    assert len(strips[0].exposed()[0]) == frames
    for strip in analyse(strips, Settings(draws=0)).strips:
        assert stops(strip.zone_ei.value, FILMS[0].zone_ei(strip.time_min)) < 0.03


def test_a_frame_is_expected_where_it_then_reads(film):
    """A third strip by the curves of two: near between their times, told as past them beyond."""
    strips = analyse(film.strips((6.0, 9.0)), Settings(draws=0)).strips
    for minutes, room, beyond in ((7.4, 0.03, False), (11.5, 0.12, True), (4.8, 0.12, True)):
        for log_h in (-1.6, -1.0, -0.3):
            found = likely_density(strips, "C", minutes, log_h)
            true = film.base_fog(minutes) + film.net(log_h, minutes)
            assert found.density == pytest.approx(true, abs=room)
            assert (found.strips, found.beyond) == (("A", "B"), beyond)
    assert likely_density(strips, "C", 15.0, -1.0) is None, "too far to say"
    assert likely_density(strips[:1], "C", 7.0, -1.0) is None, "one time cannot show others"
    assert likely_density(strips, "A", 6.0, -1.0).strips == ("A",), "its own curve goes first"

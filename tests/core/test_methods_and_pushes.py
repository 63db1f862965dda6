"""Schools, the rules for a push, limits, colour and reversal, and what to measure next."""

import math
from dataclasses import replace

import numpy as np
import pytest
from scipy.optimize import brentq

from oracles.closed_form import STOP, ClosedForm
from vadrin.core.figure import Basis, Figure
from vadrin.core.materials.colour import colour_negative_speed, stain
from vadrin.core.readings import Reading, StripReadings
from vadrin.core.results import analysis_result, method_answers
from vadrin.core.results.analysis import analyse
from vadrin.core.results.analysis_result import Settings
from vadrin.core.results.criteria import Target
from vadrin.core.results.method_answers import match_ei
from vadrin.core.results.next_step import Act
from vadrin.core.results.push import RulesOfThumb
from vadrin.core.results.push_limits import held_range
from vadrin.core.results.rating_method import METHODS, RATING_METHODS, RatingMethod
from vadrin.core.simulation.film import Densitometer, expose_and_develop, invent_film

TIMES = (4.0, 5.75, 8.0, 11.0, 15.5)
FILM = ClosedForm()


@pytest.fixture(scope="module")
def answer():
    rules = RulesOfThumb(share=0.25, makers=((1.0, 10.0),))
    return analyse(FILM.strips(TIMES), Settings(rules_of_thumb=rules))


def test_every_method_answers_from_the_same_readings(answer):
    by_key = {a.method.key: a for a in answer.methods}
    shadow = FILM.time_for(FILM.zone8, 1.30)
    assert by_key["shadow"].time_min.value == pytest.approx(shadow, rel=0.007)
    assert by_key["shadow"].exposure_index.value == pytest.approx(FILM.zone_ei(shadow), rel=0.01)
    gradient = FILM.time_for(FILM.gradient, 0.58)
    assert by_key["gradient"].time_min.value == pytest.approx(gradient, rel=0.007)
    assert "two thirds of a stop" in by_key["standard"].sentence
    for method in answer.methods:
        assert method.exposure_index.low <= method.exposure_index.value
        assert method.exposure_index.value <= method.exposure_index.high


def test_the_fractional_gradient_point_has_the_slope_it_is_named_for(answer):
    strip = answer.strips[2]
    x = math.log10(0.8 / strip.gradient_search_speed.value) - 0.2956
    t = strip.time_min
    slope = (FILM.net(x + 1e-4, t) - FILM.net(x - 1e-4, t)) / 2e-4
    mean = (FILM.net(x + 1.5, t) - FILM.net(x, t)) / 1.5
    assert slope / mean == pytest.approx(0.3, abs=0.01)
    apart = math.log2(strip.gradient_search_speed.value / strip.fractional_gradient_speed.value)
    assert abs(apart) < 0.5


def test_shoulder_and_range_are_where_slope_falls(answer):
    strip = answer.strips[3]
    t = strip.time_min
    x = strip.log_h_m.value + (strip.shoulder_stops.value + 4) * STOP
    slope = (FILM.net(x + 1e-4, t) - FILM.net(x - 1e-4, t)) / 2e-4
    assert slope / strip.gamma.value == pytest.approx(0.8, abs=0.02)
    assert strip.figures["usable_stops"].value > strip.shoulder_stops.value + 4
    assert not strip.max_density.present


def test_hearsay_is_told_from_measurement(answer):
    normal = answer.finding.time_min.value
    push = next(p for p in answer.push if p.stops == 1)
    assert push.fixed_share.time_min.value == pytest.approx(normal * 1.25)
    assert push.fixed_share.basis is push.makers_table.basis is Basis.RULE
    assert push.makers_table.time_min.value == 10.0
    assert push.hold_highlight.basis is Basis.MEASURED
    lost = 1 + math.log2(FILM.zone_ei(normal) / FILM.zone_ei(10.0))
    assert push.makers_table.shadow_loss_stops.value == pytest.approx(lost, abs=0.01)
    other = next(p for p in answer.push if p.stops == 2)
    assert "no maker's table" in other.makers_table.time_min.why


def test_limits_of_pushing_and_the_wrong_setting(answer):
    assert 1.0 <= answer.limits.last_usable.value <= 1.5
    assert answer.limits.last_salvageable.value >= answer.limits.last_usable.value
    held = answer.held[2]
    assert held.highest.value == pytest.approx(2 * answer.strips[2].zone_ei.value)
    assert held.lowest.value <= answer.strips[2].zone_ei.value
    # Two stops between the highlight and the shoulder: as many stops lower an EI still holds.
    for stops, lowest in ((5.0, 25.0), (1.0, 100.0)):
        told = {"zone_ei": Figure(100.0), "shoulder_stops": Figure(stops)}
        strip = replace(answer.strips[2], figures=answer.strips[2].figures | told)
        assert held_range(strip).lowest.value == pytest.approx(lowest)
    matched = match_ei(answer.strips[4], answer.strips[0], 50.0)
    ratio = FILM.zone_ei(15.5) / FILM.zone_ei(4.0)
    assert matched.value == pytest.approx(50 * ratio, rel=0.01)


def test_a_push_by_a_method_that_rates_higher_loses_that_as_well():
    found = analyse(FILM.strips(TIMES), Settings(method="standard", draws=0))
    normal = found.finding.time_min.value
    (rated,) = {p.hold_highlight.shadow_loss_stops.value for p in found.push if p.stops == 0}
    assert rated == pytest.approx(math.log2(0.8 * 16 / 8.125))
    meter = math.log10(8.125 / (FILM.zone_ei(normal) * 2**rated))
    for push in found.push:
        held = FILM.net(meter + 3 * STOP, normal)
        at = meter + (3 - push.stops) * STOP
        if push.stops:
            time = brentq(lambda t, at=at, held=held: FILM.net(at, t) - held, 1.0, 200.0)
            assert push.hold_highlight.time_min.value == pytest.approx(time, rel=0.01)
            gained = math.log2(FILM.zone_ei(time) / FILM.zone_ei(normal))
            lost = push.hold_highlight.shadow_loss_stops.value
            assert lost == pytest.approx(push.stops + rated - gained, abs=0.02)


def test_reversal_material_gets_its_own_speed():
    x = np.arange(-3.0, 1.01, 0.15)
    falling = 0.05 + 2.6 / (1 + 10 ** (1.6 * (x + 1.0)))
    readings = tuple(
        Reading(str(i), float(v), float(d)) for i, (v, d) in enumerate(zip(x, falling, strict=True))
    )
    answer = analyse((StripReadings("A", 6.0, 20.0, readings),))

    def at(density):
        return -1.0 + math.log10(2.6 / density - 1) / 1.6

    truth = 10 / 10 ** (0.5 * (at(0.20) + at(2.0)))
    assert answer.reversal_speed.value == pytest.approx(truth, rel=0.05)
    assert "reversal" in answer.finding.zone_ei.why
    thin = tuple(Reading(r.frame, r.log_h, r.density * 0.5) for r in readings)
    short = analyse((StripReadings("A", 6.0, 20.0, thin),))
    assert "does not reach 2.0" in short.reversal_speed.why


def test_a_positive_is_told_from_the_silver_its_baths_leave():
    """Silver on film: the first developer takes its share, the bleach that, the second the rest."""
    coated, base, rng = 2.4, 0.16, np.random.default_rng(4)
    x = np.arange(-3.0, 1.51, 0.15)

    def negative(at):
        return coated * (1 - np.exp(-(10 ** (0.9 * (at + 0.9)))))

    def positive(at):
        return base + coated - negative(at)

    noisy = positive(x) + rng.normal(0, 0.01, len(x))
    pairs = zip(x.tolist(), noisy.tolist(), strict=True)
    readings = [Reading(str(i), *pair) for i, pair in enumerate(pairs)]
    readings.append(Reading("b", None, base + coated))
    (stages,) = analyse((StripReadings("A", 6.0, 20.0, tuple(readings)),)).stages
    assert stages.whole
    assert stages.first_developer == pytest.approx(base + negative(stages.log_h), abs=0.06)
    assert stages.after_bleach == pytest.approx(np.full(len(stages.log_h), base), abs=0.05)
    # A flash is light like any other: the film has the sum, before or after.
    flash = -1.6
    told = stages.flashed(flash)
    both = np.log10(10**stages.log_h + 10**flash)
    seen = np.isfinite(told)
    assert told[seen] == pytest.approx(positive(both[seen]), abs=0.05)
    dark, light = np.searchsorted(stages.log_h, (-2.5, 0.5))
    assert stages.positive[dark] - told[dark] > 0.15, "shadows are lifted"
    assert abs(stages.positive[light] - told[light]) < 0.05, "highlights stay"


def test_a_positive_whose_black_was_not_read_tells_no_first_developer():
    x = np.arange(-1.0, 1.51, 0.15)
    falling = 0.16 + 2.4 * np.exp(-(10 ** (0.9 * (x + 0.9))))
    pairs = zip(x.tolist(), falling.tolist(), strict=True)
    readings = tuple(Reading(str(i), *pair) for i, pair in enumerate(pairs))
    (stages,) = analyse((StripReadings("A", 6.0, 20.0, readings),)).stages
    assert not stages.whole


def test_colour_negative_speed_is_of_green_and_the_slowest_layer():
    def layer(shift, channel):
        (strip,) = FILM.strips((8.0,))
        moved = tuple(
            Reading(r.frame, None if r.log_h is None else r.log_h + shift, r.density)
            for r in strip.readings
        )
        return StripReadings("A", 8.0, 20.0, moved, channel)

    rng = np.random.default_rng(1)
    layers = layer(0.0, "green"), layer(0.2, "red"), layer(-0.1, "blue")
    speed = colour_negative_speed(layers[0], layers[1:], rng)
    low, high = -5.0, 2.0
    for _ in range(60):
        middle = (low + high) / 2
        low, high = (middle, high) if FILM.net(middle, 8.0) < 0.15 else (low, middle)
    assert speed.value == pytest.approx(math.sqrt(2) / 10 ** (low + 0.1), rel=0.02)
    assert "three layers" in colour_negative_speed(layers[0], layers[1:2], rng).why
    assert stain(np.array([1.0]), np.array([1.3])) == pytest.approx([0.3])


def test_one_strip_off_the_family_and_light_that_moved_are_named():
    strips = list(FILM.strips(TIMES, noise=0.008, rng=np.random.default_rng(3)))
    late = FILM.strips((13.0,), noise=0.008, rng=np.random.default_rng(4))[0]
    strips[2] = StripReadings("C", 8.0, 20.0, late.readings)
    told = {w.key: w for w in analyse(tuple(strips), Settings(draws=0)).diagnostics}
    assert told["off the family"].strip == "C"
    first = strips[0].readings[8]
    between = Reading("half way", first.log_h, first.density + 0.1)
    again = Reading("check", first.log_h, first.density + 0.2)
    strips[0] = StripReadings("A", 4.0, 20.0, (*strips[0].readings, between, again))
    answer = analyse(tuple(strips[:2] + strips[3:]), Settings(draws=0))
    moved = [w for w in answer.diagnostics if w.key == "light moved"]
    assert [w.frames for w in moved] == [(first.frame, "check")]


def test_the_act_that_is_advised_does_firm_up_the_answer():
    before, after = [], []
    for seed in range(4):
        rng = np.random.default_rng(seed)
        film = invent_film(rng, 100.0)
        x = math.log10(8.125 / 100) + STOP * np.arange(-6, 6.01, 1.0)
        meter = Densitometer(0.02, 0.0, 4)
        strips = tuple(
            expose_and_develop(film, label, x, t, rng, meter)
            for label, t in (("A", 5.0), ("B", 8.0), ("C", 13.0))
        )
        first = analyse(strips)
        ranked = [s.narrowing for s in first.next_steps]
        assert ranked == sorted(ranked, reverse=True)
        assert all(0 <= share < 1 for share in ranked)
        strip = next(s for s in first.next_steps if s.act is Act.RUN_STRIP)
        more = expose_and_develop(film, "D", x, strip.time_min, rng, meter)
        for kept, answer in ((before, first), (after, analyse((*strips, more)))):
            figure = answer.finding.zone_ei
            kept.append(math.log(figure.high / figure.low))
    assert sum(after) < sum(before)


def test_a_method_has_its_row_by_its_declaration_alone(monkeypatch):
    """A film of known curves, rated by a method nobody had thought of: it develops to a contrast
    of its own, and its row stands beside the others."""
    half = RatingMethod(
        "half", "Half", "The shadow at a softer contrast.", "zone_ei", "by half", "contrast_index"
    )
    monkeypatch.setattr(method_answers, "METHODS", {**METHODS, "half": half})
    monkeypatch.setattr(analysis_result, "RATING_METHODS", {**RATING_METHODS, "half": half})
    found = analyse(FILM.strips(TIMES), Settings(method="half", draws=0))
    row = next(a for a in found.methods if a.method is half)
    assert row.exposure_index.present
    assert row.time_min.present
    standard = next(a for a in found.methods if a.method.key == "standard")
    assert row.time_min.value != standard.time_min.value
    assert found.method is half
    assert found.rated_index == found.finding.zone_ei


@pytest.mark.parametrize("minutes", [TIMES[0], 8.0, TIMES[-1]])
def test_a_time_one_has_always_used_is_the_normal_of_its_own_pushes(minutes):
    """Also at the ends of what was tried: there is nothing to look for, so nothing lies outside."""
    pushes = (-1.0, 0.0, 1.0, 3.0)
    made = analyse(FILM.strips(TIMES), Settings(target=Target("time", minutes), pushes=pushes))
    assert (made.finding.time_min.value, made.finding.time_min.low) == (minutes, None)
    assert made.finding.zone_ei.value == pytest.approx(FILM.zone_ei(minutes), rel=0.015)
    normal = next(p for p in made.push if p.stops == 0)
    assert normal.hold_midtone.time_min.value == pytest.approx(minutes, rel=1e-6)
    far = next(p for p in made.push if p.stops == 3).hold_midtone
    assert far.tested is (minutes < 8.0)
    assert far.tested or "run a strip for more" in far.time_min.why
    pull = next(p for p in made.push if p.stops == -1).hold_midtone
    assert pull.tested is (minutes > TIMES[0])
    if minutes == TIMES[0]:
        assert "shorter than 4 min" in pull.time_min.why


def test_a_time_beyond_what_was_tried_is_told_as_that():
    made = analyse(FILM.strips(TIMES), Settings(target=Target("time", 20.0)))
    assert made.finding.nearest_tested_min == TIMES[-1]
    assert "longer than 15:30 min" in made.finding.time_min.why
